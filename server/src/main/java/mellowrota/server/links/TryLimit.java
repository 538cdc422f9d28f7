package mellowrota.server.links;

import static mellowrota.server.platform.Words.say;

import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import mellowrota.core.people.PersonId;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Component;

/** Hosts outside are asked while somebody waits: of each person at most two at once. */
@Component
class TryLimit {

  private static final int AT_ONCE = 2;

  private final ConcurrentMap<PersonId, Integer> running = new ConcurrentHashMap<>();

  /** What asks a host. */
  interface Asking<T> {
    T ask() throws OutsideFault;
  }

  /** Asks for somebody, where they have not too many under way. */
  <T> T of(PersonId person, Asking<T> asking) throws OutsideFault {
    if (running.merge(person, 1, Integer::sum) > AT_ONCE) {
      end(person);
      throw Problem.of(429, "too-many-tries", say("links.two-of-your-accounts"))
          .with("retryAfter", 5);
    }
    try {
      return asking.ask();
    } finally {
      end(person);
    }
  }

  private void end(PersonId person) {
    running.computeIfPresent(person, (who, count) -> count == 1 ? null : count - 1);
  }
}
