package mellowrota.server.platform;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import lombok.RequiredArgsConstructor;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;

/** Locks of what has no row to lock. */
@Repository
@RequiredArgsConstructor
public class Locks {

  private final EntityManager kept;

  /**
   * Until the end of the transaction nobody else goes on under these names. Native: such locks are
   * the database's own; they are taken in one order, so that nobody waits in a ring.
   */
  public void alone(Collection<String> names) {
    kept.unwrap(Session.class)
        .createNativeQuery(
            """
            select count(pg_advisory_xact_lock(key)) from (
              select distinct hashtextextended(name, 0) as key
              from unnest(:names) n(name) order by 1) keys
            """,
            Long.class)
        .setParameter("names", names.toArray(String[]::new))
        .getSingleResult();
  }
}
