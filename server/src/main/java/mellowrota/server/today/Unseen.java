package mellowrota.server.today;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Acts;
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

  private final JdbcClient jdbc;
  private final Acts acts;

  Unseen(JdbcClient jdbc, Acts acts) {
    this.jdbc = jdbc;
    this.acts = acts;
  }

  /** One person's last unseen change of one record. */
  record Change(long record, long person, long act, Instant at) {}

  /** The latest for each person and record, newest first; of one person, or of all. */
  List<Change> of(Optional<PersonId> person, Instant now) {
    return jdbc.sql(
            """
            select a.record, a.holder, max(t.id) as act, max(t.at) as at
            from act t
              join history h on h.act = t.id
              join assignment a on a.record = h.record and a.holder_kind = 'P' and a.role <> :informed
              join record r on r.id = a.record and r.state in ('TENTATIVE', 'CONFIRMED')
              left join seen s on s.person = a.holder and s.record = a.record
            where t.at > :from and h.field = any(:fields) and t.actor <> a.holder
              and t.id > coalesce(s.act, 0) and t.id > (select seen_until from house)
              and (:person = 0 or a.holder = :person)
            group by a.record, a.holder order by at desc, a.record, a.holder limit :most
            """)
        .param("from", now.minusSeconds(DAYS_BACK * 86_400L).atOffset(ZoneOffset.UTC))
        .param("fields", ASKED_FOR)
        .param("informed", RoleId.INFORMED.value())
        .param("person", person.map(PersonId::value).orElse(0L))
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
