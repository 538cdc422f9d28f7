package mellowrota.server.records;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Role;

/** Says a <i>for</i> set in words. */
public final class ForWords {

  /** Sets that have a word of their own. */
  public static final Map<String, ForSet> PRESETS = new LinkedHashMap<>();

  static {
    PRESETS.put("everyone", ForSet.EVERYONE);
    PRESETS.put("crew", ForSet.CREW);
    PRESETS.put("people on the job", ForSet.PEOPLE_ON_IT);
    PRESETS.put("office", ForSet.OFFICE);
  }

  private ForWords() {}

  public static String of(ForSet set, List<Role> roles) {
    return PRESETS.entrySet().stream()
        .filter(preset -> preset.getValue().equals(set))
        .map(Map.Entry::getKey)
        .findFirst()
        .orElseGet(() -> listed(set, roles));
  }

  private static String listed(ForSet set, List<Role> roles) {
    String names =
        capacities(roles).entrySet().stream()
            .filter(capacity -> (set.bits() & capacity.getValue()) != 0)
            .map(Map.Entry::getKey)
            .collect(Collectors.joining(", "));
    return names.isEmpty() ? "nobody" : names;
  }

  /** What readers may be towards a record, by name, with the bit of each. */
  public static Map<String, Long> capacities(List<Role> roles) {
    Map<String, Long> capacities = new LinkedHashMap<>();
    capacities.put("office", Capacities.OFFICE);
    roles.forEach(role -> capacities.put(role.name(), Capacities.role(role.id())));
    capacities.put("crew", Capacities.CREW);
    capacities.put("external", Capacities.OUTSIDE);
    return capacities;
  }
}
