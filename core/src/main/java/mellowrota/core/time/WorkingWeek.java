package mellowrota.core.time;

import java.time.DayOfWeek;
import java.time.LocalDate;
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

  /** The day that is so many working days before another; that day itself is not counted. */
  public LocalDate before(LocalDate day, int workingDays) {
    LocalDate found = day;
    for (int left = workingDays; left > 0; ) {
      found = found.minusDays(1);
      left -= days.contains(found.getDayOfWeek()) ? 1 : 0;
    }
    return found;
  }
}
