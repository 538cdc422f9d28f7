package mellowrota.server.today;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.change.RecordField;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Acts;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.OpenableRecords;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.today.store.AcknowledgedStore;
import mellowrota.server.today.store.LostWorkStore;
import org.springframework.stereotype.Service;

/** Changes of time, place or people that somebody on the work has not marked as seen. */
@Service
@RequiredArgsConstructor
class UnseenChanges {

  private static final int DAYS_BACK = 30;
  private static final int MOST = 200;

  private static final String[] ASKED_FOR =
      Stream.of(RecordField.VISITS, RecordField.DUE, RecordField.PLACE, RecordField.ASSIGNMENTS)
          .map(RecordField::kept)
          .toArray(String[]::new);

  private final HouseStore house;
  private final OpenableRecords opens;
  private final RecordStore records;
  private final AcknowledgedStore seen;
  private final LostWorkStore lost;
  private final Acts acts;

  /** One person's last unseen change of one record. */
  record Change(long record, long person, long act, Instant at) {}

  /**
   * The latest for each person and record, newest first: the asker's, or of all to the office. What
   * changed is looked up by record, since the database takes far fewer for the office's than are.
   */
  List<Change> of(World world, Person asker, boolean theirsAlone, Instant now) {
    return opens
        .query(
            Change.class,
            "select distinct a.record, a.holder, changed.act, changed.at from"
                + OpenableRecords.RECORDS
                + OpenableRecords.SEEN
                + """
              join assignment a on a.record = r.id and a.holder_kind = 'P' and a.role <> :informed
              left join seen s on s.person = a.holder and s.record = a.record
              cross join lateral (
                select max(t.id) as act, max(t.at) as at from history h join act t on t.id = h.act
                where h.record = r.id and h.field = any(:fields) and t.at > :from
                  and t.actor <> a.holder and t.id > coalesce(s.act, 0) and t.id > :seenUntil
              ) changed
            where r.state in ('TENTATIVE', 'CONFIRMED') and sees.times and sees.people and sees.place
              and (a.holder = :me or not :theirsAlone and (me.bits & 1) <> 0)
              and changed.act is not null and
            """
                + OpenableRecords.MAY_OPEN
                + """
            order by at desc, a.record, a.holder limit :most
            """,
            world,
            asker)
        .setParameter("from", now.minus(Duration.ofDays(DAYS_BACK)))
        .setParameter("fields", ASKED_FOR)
        .setParameter("seenUntil", house.seenUntil())
        .setParameter("informed", RoleId.INFORMED.value())
        .setParameter("theirsAlone", theirsAlone)
        .setParameter("most", MOST)
        .getResultList();
  }

  /** Marks what was changed until now as seen. */
  void mark(PersonId person, RecordId record) {
    acts.run(
        Acts.Wanted.by(person, "record.seen", Optional.empty(), Long.toString(record.value())),
        act -> {
          records.lastAct(record).ifPresent(last -> seen.seen(person, record, last));
          return "";
        });
  }

  /** Marks that work is no longer theirs as seen. */
  void markLost(PersonId person, RecordId record) {
    acts.run(
        Acts.Wanted.by(person, "record.seen", Optional.empty(), "lost " + record.value()),
        act -> {
          if (lost.forget(record, List.of(person)) == 0) {
            throw Problem.notFound();
          }
          return "";
        });
  }

  /** Who was told of it last. */
  List<AcknowledgedStore.Told> toldOf(RecordId record) {
    return seen.toldOf(record);
  }

  /** Marks that a coordinator told somebody of what was changed until now. */
  void told(PersonId coordinator, PersonId person, RecordId record, String how) {
    acts.run(
        Acts.Wanted.by(
            coordinator,
            "record.told",
            Optional.empty(),
            record.value() + " " + person.value() + " " + how),
        act -> {
          records
              .lastAct(record)
              .ifPresent(last -> seen.told(person, record, last, coordinator, how, act.at()));
          return "";
        });
  }
}
