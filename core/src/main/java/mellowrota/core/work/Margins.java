package mellowrota.core.work;

import java.time.Duration;
import java.util.Objects;

/** Time before and after the work itself, each for itself; zero is a margin too. */
public record Margins(Duration before, Duration after) {

  public static final Margins NONE = new Margins(Duration.ZERO, Duration.ZERO);

  public Margins {
    Objects.requireNonNull(before, "before");
    Objects.requireNonNull(after, "after");
    if (before.isNegative() || after.isNegative()) {
      throw new IllegalArgumentException("a margin is never negative");
    }
  }

  /** Whether there is none on either side. */
  public boolean areNone() {
    return before.isZero() && after.isZero();
  }
}
