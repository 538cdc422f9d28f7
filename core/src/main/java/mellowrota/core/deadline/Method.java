package mellowrota.core.deadline;

import java.util.Objects;

/**
 * A way in which a notice goes out, with what it adds to a step in the step's own direction.
 *
 * @param unit not minutes
 */
public record Method(Name name, int number, Unit unit) {

  public Method {
    Objects.requireNonNull(name, "name");
    if (number < 0 || number > Chain.LARGEST || unit == Unit.MINUTES) {
      throw new IllegalArgumentException(number + " " + unit.many());
    }
  }

  /** The same under another name. */
  public Method called(Name other) {
    return new Method(other, number, unit);
  }
}
