package mellowrota.core.time;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Objects;
import java.util.Optional;

/**
 * The days on which something holds, both included.
 *
 * @param first empty: from ever
 * @param last empty: for ever
 */
public record Validity(Optional<LocalDate> first, Optional<LocalDate> last) {

  public static final Validity ALWAYS = new Validity(Optional.empty(), Optional.empty());

  public Validity {
    Objects.requireNonNull(first, "first");
    Objects.requireNonNull(last, "last");
  }

  /** From ever until this day. */
  public static Validity until(LocalDate last) {
    return new Validity(Optional.empty(), Optional.of(last));
  }

  public boolean holdsOn(LocalDate day) {
    return first.map(begin -> !day.isBefore(begin)).orElse(true)
        && last.map(end -> !day.isAfter(end)).orElse(true);
  }

  /** When its first day begins. */
  public Optional<Instant> begins(ZoneId zone) {
    return first.map(day -> LocalTimes.moment(day.atStartOfDay(), zone));
  }

  /** When its last day is over. */
  public Optional<Instant> ends(ZoneId zone) {
    return last.map(day -> LocalTimes.moment(day.plusDays(1).atStartOfDay(), zone));
  }

  /** The part of a range in which it holds. */
  public Optional<TimeSpan> in(TimeSpan range, ZoneId zone) {
    Instant from = begins(zone).filter(range.start()::isBefore).orElse(range.start());
    Instant until = ends(zone).filter(range.end()::isAfter).orElse(range.end());
    return from.isBefore(until) ? Optional.of(TimeSpan.of(from, until)) : Optional.empty();
  }
}
