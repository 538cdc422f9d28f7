package mellowrota.server.today.store;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.List;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import org.springframework.stereotype.Repository;

/** Who has seen what, as it is kept. */
@Repository
@RequiredArgsConstructor
public class AcknowledgedStore {

  private final EntityManager kept;

  /** Somebody has seen what was done to a record until this act. */
  public void seen(PersonId person, RecordId record, long act) {
    kept.createQuery(
            """
            insert into AcknowledgedEntity (person, record, act) values (:person, :record, :act)
            on conflict (person, record) do update
              set act = excluded.act, toldBy = null, toldHow = null, at = null
            """)
        .setParameter("person", person.value())
        .setParameter("record", record.value())
        .setParameter("act", act)
        .executeUpdate();
  }

  /**
   * Somebody was told what was done to a record until this act.
   *
   * @param how as the API names it
   */
  public void told(
      PersonId person, RecordId record, long act, PersonId by, String how, Instant at) {
    kept.createQuery(
            """
            insert into AcknowledgedEntity (person, record, act, toldBy, toldHow, at)
            values (:person, :record, :act, :by, :how, :at)
            on conflict (person, record) do update
              set act = excluded.act, toldBy = excluded.toldBy, toldHow = excluded.toldHow,
                at = excluded.at
            """)
        .setParameter("person", person.value())
        .setParameter("record", record.value())
        .setParameter("act", act)
        .setParameter("by", by.value())
        .setParameter("how", how)
        .setParameter("at", at)
        .executeUpdate();
  }

  /** That somebody was told, until when, by whom and how. */
  public record Told(long person, long act, long by, String how, Instant at) {}

  /** Who was told of a record last, each once. */
  public List<Told> toldOf(RecordId record) {
    return kept.createQuery(
            "select person, act, toldBy, toldHow, at from AcknowledgedEntity"
                + " where record = :record and toldBy is not null order by person",
            Told.class)
        .setParameter("record", record.value())
        .getResultList();
  }
}
