package mellowrota.core.deadline;

import java.util.Collection;
import java.util.List;
import java.util.Optional;

/**
 * What a house has that a chain may name.
 *
 * @param roles in the house's order
 * @param holders people and teams; two of one name may not be named
 */
public record Known(List<Method> methods, List<Name> roles, List<Name> holders) {

  public Known {
    methods = List.copyOf(methods);
    roles = List.copyOf(roles);
    holders = List.copyOf(holders);
  }

  Optional<Method> method(Name name) {
    return methods.stream().filter(one -> one.name().equals(name)).findFirst();
  }

  static boolean isTwice(Collection<Name> names, Name name) {
    return names.stream().filter(name::equals).count() > 1;
  }
}
