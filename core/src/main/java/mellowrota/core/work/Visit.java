package mellowrota.core.work;

import java.util.Objects;
import java.util.Optional;

/**
 * One span of a record. Every record has at least one; only jobs have more.
 *
 * @param no from 1, for life
 * @param when empty while it has no span, as for most tickets
 * @param margins what it says of them itself
 */
public record Visit(int no, Optional<When> when, MarginSetting margins) {

  public Visit {
    Objects.requireNonNull(when, "when");
    Objects.requireNonNull(margins, "margins");
    if (no < 1) {
      throw new IllegalArgumentException("visits count from 1, not " + no);
    }
  }

  public static Visit bare(int no) {
    return new Visit(no, Optional.empty(), MarginSetting.UNSET);
  }
}
