package mellowrota.core.time;

import java.time.DayOfWeek;
import java.util.EnumSet;
import java.util.Set;

/** On which days of the week there is work. At least one. */
public record WorkingWeek(Set<DayOfWeek> days) {

  public WorkingWeek {
    if (days.isEmpty()) {
      throw new IllegalArgumentException("a week without a working day");
    }
    days = EnumSet.copyOf(days);
  }
}
