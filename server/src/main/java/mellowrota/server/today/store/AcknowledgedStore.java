package mellowrota.server.today.store;

import jakarta.persistence.EntityManager;
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
            on conflict (person, record) do update set act = excluded.act
            """)
        .setParameter("person", person.value())
        .setParameter("record", record.value())
        .setParameter("act", act)
        .executeUpdate();
  }
}
