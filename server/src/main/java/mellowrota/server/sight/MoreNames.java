package mellowrota.server.sight;

import java.util.List;
import mellowrota.core.find.Names.Named;
import mellowrota.core.people.Person;

/** What can be named in a line that finds, beside people, teams and places. */
public interface MoreNames {

  /** Those that the asker may know, by name. */
  List<Named> names(Person asker);
}
