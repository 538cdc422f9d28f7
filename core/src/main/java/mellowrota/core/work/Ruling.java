package mellowrota.core.work;

import java.util.Objects;
import java.util.OptionalInt;

/**
 * A coordinator's word on one record that a rule does not decide.
 *
 * @param calendar the number of the calendar meant; unused for {@link Sort#NOT_SENT}
 * @param visit the one visit meant; empty for all
 */
public record Ruling(Sort sort, long calendar, OptionalInt visit, String reason) {

  /** What the exception says. */
  public enum Sort {
    NOT_SENT,
    NEVER_HERE,
    ALSO_HERE
  }

  public Ruling {
    Objects.requireNonNull(sort, "sort");
    Objects.requireNonNull(visit, "visit");
    Objects.requireNonNull(reason, "reason");
  }

  public boolean concerns(int visitNo) {
    return visit.isEmpty() || visit.getAsInt() == visitNo;
  }
}
