package mellowrota.server.links;

import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import mellowrota.core.people.PersonId;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Component;

/** Hosts outside are asked while somebody waits: of each person at most two at once. */
@Component
class Tries {

  private static final int AT_ONCE = 2;

  private final ConcurrentMap<PersonId, Integer> running = new ConcurrentHashMap<>();

  /** Refuses one too many; else {@link #end} is to follow. */
  void begin(PersonId person) {
    if (running.merge(person, 1, Integer::sum) > AT_ONCE) {
      end(person);
      throw Problem.of(
              429, "too-many-tries", "Two of your accounts are being tried; wait until they are.")
          .with("retryAfter", 5);
    }
  }

  void end(PersonId person) {
    running.computeIfPresent(person, (who, count) -> count == 1 ? null : count - 1);
  }
}
