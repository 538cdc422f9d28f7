package mellowrota.server.crew;

import java.util.Collection;
import java.util.Set;

/** Which sessions are open, by whoever signs people in. */
public interface OpenSessions {

  /** Those of these that have not ended and whose person may still enter. */
  Set<String> open(Collection<String> sessions);
}
