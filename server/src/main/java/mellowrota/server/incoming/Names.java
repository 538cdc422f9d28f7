package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.apache.commons.text.similarity.LevenshteinDistance;

/** Things of one sort by the names that files call them; case and double spaces do not matter. */
final class Names<T> {

  /** Names farther apart than this share of their length are not taken for slips. */
  private static final int FARTHEST = 3;

  private final String sort;
  private final Map<String, List<T>> byName = new HashMap<>();
  private final Map<String, String> written = new HashMap<>();

  /**
   * Begins without any.
   *
   * @param sort what they are, as in "is no {@code place of the house}"
   */
  Names(String sort) {
    this.sort = sort;
  }

  /** A name that is nothing's, or several's, and how to mend it. */
  static final class Unknown extends Exception {
    private final transient Optional<String> near;

    Unknown(String message, Optional<String> near) {
      super(message, null, false, false);
      this.near = near;
    }

    /** The name that may be meant. */
    Optional<String> near() {
      return near;
    }
  }

  void put(String name, T thing) {
    List<T> found = byName.computeIfAbsent(plain(name), key -> new ArrayList<>());
    if (!found.contains(thing)) {
      found.add(thing);
    }
    written.putIfAbsent(plain(name), name);
  }

  boolean has(String name) {
    return byName.containsKey(plain(name));
  }

  T find(String name) throws Unknown {
    List<T> found = byName.getOrDefault(plain(name), List.of());
    if (found.size() == 1) {
      return found.get(0);
    }
    if (found.size() > 1) {
      throw new Unknown(say("incoming.is-the-name-of", found.size()), Optional.empty());
    }
    Optional<String> near = near(name);
    throw new Unknown(
        near.map(known -> say("incoming.unknown-name-near", sort, known))
            .orElseGet(() -> say("incoming.unknown-name", sort)),
        near);
  }

  /** The names in a cell, which semicolons or commas part; a name may hold a comma itself. */
  List<String> parted(String cell) {
    if (cell.isEmpty() || has(cell)) {
      return cell.isEmpty() ? List.of() : List.of(cell);
    }
    String[] parts = cell.split(cell.contains(";") ? ";" : "[,\n]");
    return List.of(parts).stream().map(String::strip).filter(part -> !part.isEmpty()).toList();
  }

  private Optional<String> near(String name) {
    String wanted = plain(name);
    List<String> longer = byName.keySet().stream().filter(n -> n.startsWith(wanted)).toList();
    if (longer.size() == 1) {
      return Optional.of(written.get(longer.get(0)));
    }
    int most = Math.max(1, wanted.length() / FARTHEST);
    LevenshteinDistance distance = new LevenshteinDistance(most);
    record Near(String name, int steps) {}
    return byName.keySet().stream()
        .map(one -> new Near(one, distance.apply(wanted, one)))
        .filter(one -> one.steps() >= 0)
        .min(Comparator.comparingInt(Near::steps).thenComparing(Near::name))
        .map(one -> written.get(one.name()));
  }

  private static String plain(String name) {
    return name.strip().replaceAll("\\s+", " ").toLowerCase(Locale.ROOT);
  }
}
