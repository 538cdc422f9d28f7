package mellowrota.server.records;

import java.util.ArrayList;
import java.util.List;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Role;

/** Says a <i>for</i> set in words. */
public final class ForWords {

  private ForWords() {}

  public static String of(ForSet set, List<Role> roles) {
    if (set.equals(ForSet.EVERYONE)) {
      return "everyone";
    }
    if (set.equals(ForSet.CREW)) {
      return "crew";
    }
    if (set.equals(ForSet.PEOPLE_ON_IT)) {
      return "people on it";
    }
    if (set.equals(ForSet.OFFICE)) {
      return "office";
    }
    List<String> names = new ArrayList<>();
    if ((set.bits() & Capacities.OFFICE) != 0) {
      names.add("office");
    }
    for (Role role : roles) {
      if ((set.bits() & Capacities.role(role.id())) != 0) {
        names.add(role.name());
      }
    }
    if ((set.bits() & Capacities.CREW) != 0) {
      names.add("crew");
    }
    if ((set.bits() & Capacities.OUTSIDE) != 0) {
      names.add("outside");
    }
    return names.isEmpty() ? "nobody" : String.join(", ", names);
  }
}
