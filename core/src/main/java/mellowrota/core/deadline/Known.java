package mellowrota.core.deadline;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What a house has that a chain may name. */
public final class Known {

  private final List<Method> methods;
  private final Map<Name, Method> byName = new HashMap<>();
  private final List<Name> roles;
  private final List<Name> holders;
  private final Map<Name, Integer> roleCounts;
  private final Map<Name, Integer> holderCounts;

  /**
   * @param roles in the house's order; two of one name may not be named
   * @param holders people and teams; likewise
   */
  public Known(List<Method> methods, List<Name> roles, List<Name> holders) {
    this.methods = List.copyOf(methods);
    methods.forEach(one -> byName.putIfAbsent(one.name(), one));
    this.roles = List.copyOf(roles);
    this.holders = List.copyOf(holders);
    roleCounts = counts(roles);
    holderCounts = counts(holders);
  }

  private static Map<Name, Integer> counts(List<Name> names) {
    Map<Name, Integer> counts = new HashMap<>();
    names.forEach(name -> counts.merge(name, 1, Integer::sum));
    return counts;
  }

  Optional<Method> method(Name name) {
    return Optional.ofNullable(byName.get(name));
  }

  List<Method> methods() {
    return methods;
  }

  List<Name> roles() {
    return roles;
  }

  List<Name> holders() {
    return holders;
  }

  /** How many roles are called so. */
  int rolesCalled(Name name) {
    return roleCounts.getOrDefault(name, 0);
  }

  /** How many people and teams are called so. */
  int holdersCalled(Name name) {
    return holderCounts.getOrDefault(name, 0);
  }
}
