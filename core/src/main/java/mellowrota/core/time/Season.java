package mellowrota.core.time;

import java.time.LocalDate;
import java.time.MonthDay;
import java.util.Objects;

/**
 * Part of every year, both days included; over New Year where the last day comes before the first.
 */
public record Season(MonthDay first, MonthDay last) {

  public Season {
    Objects.requireNonNull(first, "first");
    Objects.requireNonNull(last, "last");
  }

  public boolean holdsOn(LocalDate date) {
    MonthDay day = MonthDay.from(date);
    return first.isAfter(last)
        ? !day.isBefore(first) || !day.isAfter(last)
        : !day.isBefore(first) && !day.isAfter(last);
  }
}
