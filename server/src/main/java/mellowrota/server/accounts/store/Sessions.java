package mellowrota.server.accounts.store;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import org.springframework.stereotype.Repository;

/** Whose sessions are. */
@Repository
@RequiredArgsConstructor
public class Sessions {

  private final EntityManager kept;

  /** Of those of these that are there. */
  public Map<String, PersonId> persons(Collection<String> sessions) {
    record Row(String session, String person) {}
    Map<String, PersonId> found = new HashMap<>();
    kept.createQuery(
            """
            select sessionId, principalName from SessionEntity
            where holds(:sessions, sessionId) and principalName is not null
            """,
            Row.class)
        .setParameter("sessions", sessions.toArray(String[]::new))
        .getResultList()
        .forEach(row -> found.put(row.session(), PersonId.of(Long.parseLong(row.person()))));
    return found;
  }
}
