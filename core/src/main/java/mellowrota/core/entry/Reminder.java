package mellowrota.core.entry;

import java.util.Comparator;
import java.util.Objects;

/**
 * How long before work a reader is reminded of it: before its due time where the entry runs to one,
 * before its own start otherwise.
 *
 * @param amount from 0, in the unit; in minutes negative too: so long after
 */
public record Reminder(int amount, Unit unit) implements Comparable<Reminder> {

  /** Working days go by the house's week; the clock time stays the same. */
  public enum Unit {
    MINUTES,
    HOURS,
    WORKING_DAYS
  }

  public Reminder {
    Objects.requireNonNull(unit, "unit");
    if (amount < 0 && unit != Unit.MINUTES) {
      throw new IllegalArgumentException("a reminder comes before, not " + -amount + " after");
    }
  }

  @Override
  public int compareTo(Reminder other) {
    return Comparator.comparing(Reminder::unit)
        .thenComparingInt(Reminder::amount)
        .compare(this, other);
  }
}
