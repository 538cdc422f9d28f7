package mellowrota.server.platform;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import lombok.RequiredArgsConstructor;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;

/**
 * The database's clock, which is one for all processes: for leases alone. Whatever waits or is due
 * goes by the clock that is given.
 */
@Repository
@RequiredArgsConstructor
public class DatabaseClock {

  private final EntityManager kept;

  /** When this transaction began. */
  public Instant now() {
    return kept.unwrap(Session.class)
        .createNativeQuery("select now()", Instant.class)
        .getSingleResult();
  }
}
