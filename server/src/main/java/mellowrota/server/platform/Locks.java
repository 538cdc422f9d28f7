package mellowrota.server.platform;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.Collection;
import lombok.RequiredArgsConstructor;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;

/** Locks of rows, and of what has no row to lock. */
@Repository
@RequiredArgsConstructor
public class Locks {

  private final EntityManager kept;

  /**
   * A row as it is by now, which nobody changes meanwhile; null: there is none. A lock alone leaves
   * what the session read before as it was, and would write it back over what came since.
   */
  public <T> T row(Class<T> type, Object key) {
    kept.flush();
    T one = kept.find(type, key);
    if (one != null) {
      kept.refresh(one, LockModeType.PESSIMISTIC_WRITE);
    }
    return one;
  }

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
