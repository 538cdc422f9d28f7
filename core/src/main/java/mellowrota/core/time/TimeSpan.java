package mellowrota.core.time;

import java.time.Duration;
import java.time.Instant;
import java.util.Objects;
import java.util.Optional;

/**
 * A half-open span of instants, {@code start} inclusive, {@code end} exclusive. A zero-length span
 * is allowed and overlaps nothing.
 */
public record TimeSpan(Instant start, Instant end) {

  public TimeSpan {
    Objects.requireNonNull(start, "start");
    Objects.requireNonNull(end, "end");
    if (end.isBefore(start)) {
      throw new IllegalArgumentException("end " + end + " is before start " + start);
    }
  }

  public static TimeSpan of(Instant start, Instant end) {
    return new TimeSpan(start, end);
  }

  public boolean isEmpty() {
    return start.equals(end);
  }

  public Duration length() {
    return Duration.between(start, end);
  }

  /** The part both share; abutting and empty spans share nothing. */
  public Optional<TimeSpan> intersection(TimeSpan other) {
    Instant from = start.isAfter(other.start) ? start : other.start;
    Instant until = end.isBefore(other.end) ? end : other.end;
    return from.isBefore(until) ? Optional.of(new TimeSpan(from, until)) : Optional.empty();
  }

  /** Whether all of another lies in it. */
  public boolean contains(TimeSpan other) {
    return !other.start().isBefore(start) && !other.end().isAfter(end);
  }

  /** Whether they share a part. */
  public boolean overlaps(TimeSpan other) {
    Instant from = start.isAfter(other.start) ? start : other.start;
    Instant until = end.isBefore(other.end) ? end : other.end;
    return from.isBefore(until);
  }
}
