package mellowrota.server.today;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Acts;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.records.Opens;
import mellowrota.server.sight.World;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** Changes of time, place or people that somebody on the work has not marked as seen. */
@Service
class Unseen {

  private static final int DAYS_BACK = 30;
  private static final int MOST = 200;

  private static final String[] ASKED_FOR = {
    RecordFields.VISITS, RecordFields.DUE, RecordFields.PLACE, RecordFields.ASSIGNMENTS
  };

  private final HouseStore house;
  private final JdbcClient jdbc;
  private final Acts acts;

  Unseen(HouseStore house, JdbcClient jdbc, Acts acts) {
    this.house = house;
    this.jdbc = jdbc;
    this.acts = acts;
  }

  /** One person's last unseen change of one record. */
  record Change(long record, long person, long act, Instant at) {}

  /** The latest for each person and record, newest first: the asker's, or of all to the office. */
  List<Change> of(World world, Person asker, boolean theirsAlone, Instant now) {
    return Opens.of(
            jdbc,
            "select a.record, a.holder, max(t.id) as act, max(t.at) as at from"
                + Opens.RECORDS
                + Opens.SEEN
                + """
              join assignment a on a.record = r.id and a.holder_kind = 'P' and a.role <> :informed
              join history h on h.record = r.id
              join act t on t.id = h.act
              left join seen s on s.person = a.holder and s.record = a.record
            where r.state in ('TENTATIVE', 'CONFIRMED') and sees.times and sees.people and sees.place
              and (a.holder = :me or not :theirsAlone and (me.bits & 1) <> 0)
              and t.at > :from and h.field = any(:fields) and t.actor <> a.holder
              and t.id > coalesce(s.act, 0) and t.id > :seenUntil
              and
            """
                + Opens.MAY_OPEN
                + """
            group by a.record, a.holder order by at desc, a.record, a.holder limit :most
            """,
            world,
            asker)
        .param("from", now.minusSeconds(DAYS_BACK * 86_400L).atOffset(ZoneOffset.UTC))
        .param("fields", ASKED_FOR)
        .param("seenUntil", house.seenUntil())
        .param("informed", RoleId.INFORMED.value())
        .param("theirsAlone", theirsAlone)
        .param("most", MOST)
        .query(
            (row, n) ->
                new Change(
                    row.getLong(1),
                    row.getLong(2),
                    row.getLong(3),
                    row.getObject(4, OffsetDateTime.class).toInstant()))
        .list();
  }

  /** Marks what was changed until now as seen. */
  void mark(PersonId person, RecordId record) {
    acts.run(
        Acts.Wanted.by(person, "record.seen", Optional.empty(), Long.toString(record.value())),
        act -> {
          jdbc.sql(
                  """
                  insert into seen (person, record, act)
                  select ?, ?, max(act) from history where record = ? having max(act) is not null
                  on conflict (person, record) do update set act = excluded.act
                  """)
              .param(person.value())
              .param(record.value())
              .param(record.value())
              .update();
          return "";
        });
  }
}
