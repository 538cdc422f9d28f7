package mellowrota.core.find;

import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.util.Objects;

/**
 * From when days are counted.
 *
 * @param now in the house's zone
 * @param weekBegins with which day a week begins
 */
public record Today(LocalDateTime now, DayOfWeek weekBegins) {
  public Today {
    Objects.requireNonNull(now, "now");
    Objects.requireNonNull(weekBegins, "weekBegins");
  }
}
