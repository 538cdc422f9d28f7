package mellowrota.server.crew;

import java.util.Map;
import mellowrota.core.people.PersonId;

/** Which accounts people have, by whoever signs them in. */
public interface AccountStates {

  /** An account; it is open once its invitation was taken up. */
  record State(String email, boolean open) {}

  /** Whoever has none is not named. */
  Map<PersonId, State> accounts();
}
