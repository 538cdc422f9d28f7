package mellowrota.core.time;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Objects;

/** Whole days, {@code first} inclusive, {@code until} exclusive; at least one day. */
public record DaySpan(LocalDate first, LocalDate until) {

  public DaySpan {
    Objects.requireNonNull(first, "first");
    Objects.requireNonNull(until, "until");
    if (!first.isBefore(until)) {
      throw new IllegalArgumentException("until " + until + " is not after first " + first);
    }
  }

  public static DaySpan of(LocalDate first, LocalDate until) {
    return new DaySpan(first, until);
  }

  public static DaySpan ofDay(LocalDate day) {
    return new DaySpan(day, day.plusDays(1));
  }

  /** Both days inclusive. */
  public static DaySpan through(LocalDate first, LocalDate last) {
    return new DaySpan(first, last.plusDays(1));
  }

  /** From midnight until midnight there. */
  public TimeSpan in(ZoneId zone) {
    return TimeSpan.of(
        LocalTimes.moment(first.atStartOfDay(), zone),
        LocalTimes.moment(until.atStartOfDay(), zone));
  }
}
