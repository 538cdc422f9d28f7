package mellowrota.server.platform;

import jakarta.persistence.EntityManager;
import lombok.RequiredArgsConstructor;
import org.springframework.stereotype.Repository;

/**
 * The session of whoever's transaction it is, apart from what is kept by it. What the database
 * refuses is thrown in Spring's terms, so that who was in the way is tried again.
 */
@Repository
@RequiredArgsConstructor
public class KeptSession {

  private final EntityManager entities;

  /** Writes what was changed, so that whatever is asked of the database from here on sees it. */
  public void write() {
    entities.flush();
  }

  /** Forgets what was read, since rows were changed past it. */
  public void forget() {
    entities.clear();
  }
}
