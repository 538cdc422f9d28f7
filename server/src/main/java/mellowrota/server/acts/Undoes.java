package mellowrota.server.acts;

import java.util.Optional;
import mellowrota.core.people.PersonId;

/** Takes back acts of one sort, which are not acts on records. */
public interface Undoes {
  /** Whether an act is of this sort. */
  boolean knows(long act);

  /** Whether this person may know of it and take it back; else it is as if it were not there. */
  boolean mayUndo(PersonId asker, long act);

  /** Takes it back as an act of its own. */
  Acts.Done undo(PersonId asker, long act, Optional<String> key);
}
