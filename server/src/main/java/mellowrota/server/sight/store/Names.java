package mellowrota.server.sight.store;

import java.util.Arrays;
import java.util.Set;
import java.util.stream.Collectors;

/** Members of a closed set as one column holds them. */
final class Names {

  private Names() {}

  static String of(Set<? extends Enum<?>> some) {
    return some.stream().sorted().map(Enum::name).collect(Collectors.joining(","));
  }

  static <E extends Enum<E>> Set<E> in(Class<E> type, String list) {
    return Arrays.stream(list.split(","))
        .filter(name -> !name.isBlank())
        .map(name -> Enum.valueOf(type, name))
        .collect(Collectors.toSet());
  }
}
