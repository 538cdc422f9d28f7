package mellowrota.core.find;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.DetailDefinition;

/**
 * What the asker may know by name.
 *
 * @param roles by what they are called
 * @param details what is written on records
 */
public record Names(List<Named> all, Map<String, RoleId> roles, List<DetailDefinition> details) {

  /** What may be named. */
  public enum Sort {
    PERSON,
    TEAM,
    PLACE,
    REGION,
    CHAIN
  }

  /**
   * One of them.
   *
   * @param code a short name; empty: it has none
   * @param piece what it asks for
   */
  public record Named(Sort sort, String name, Optional<String> code, Piece piece) {
    public Named {
      Objects.requireNonNull(sort, "sort");
      Objects.requireNonNull(name, "name");
      Objects.requireNonNull(code, "code");
      Objects.requireNonNull(piece, "piece");
    }

    /** Without a code. */
    public static Named of(Sort sort, String name, Piece piece) {
      return new Named(sort, name, Optional.empty(), piece);
    }
  }

  public Names {
    all = List.copyOf(all);
    roles = Map.copyOf(roles);
    details = List.copyOf(details);
  }
}
