package mellowrota.core.work;

import java.time.Duration;
import java.util.Objects;
import java.util.Optional;

/**
 * What is said of margins by one who may say it: each side for itself, zero too; empty: nothing.
 */
public record MarginSetting(Optional<Duration> before, Optional<Duration> after) {

  public static final MarginSetting UNSET = new MarginSetting(Optional.empty(), Optional.empty());

  public MarginSetting {
    Objects.requireNonNull(before, "before");
    Objects.requireNonNull(after, "after");
    if (before
        .filter(Duration::isNegative)
        .or(() -> after.filter(Duration::isNegative))
        .isPresent()) {
      throw new IllegalArgumentException("a margin is never negative");
    }
  }

  /** With both sides said. */
  public static MarginSetting of(Margins margins) {
    return new MarginSetting(Optional.of(margins.before()), Optional.of(margins.after()));
  }

  public boolean isUnset() {
    return before.isEmpty() && after.isEmpty();
  }

  private boolean isWhole() {
    return before.isPresent() && after.isPresent();
  }

  /** This, and where it says nothing of a side, another. */
  public MarginSetting orElse(MarginSetting weaker) {
    return isWhole() || weaker.isUnset()
        ? this
        : new MarginSetting(before.or(weaker::before), after.or(weaker::after));
  }

  /** None on a side of which nothing is said. */
  public Margins margins() {
    return isUnset()
        ? Margins.NONE
        : new Margins(before.orElse(Duration.ZERO), after.orElse(Duration.ZERO));
  }
}
