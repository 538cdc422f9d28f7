package mellowrota.core.entry;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.Objects;
import mellowrota.core.time.DaySpan;

/** When an entry stands in a calendar. */
public sealed interface EntryTimes {
  /** How long before a due time its mark begins (LANDING 10 to 13). */
  Duration DUE_MARK = Duration.ofMinutes(15);

  /** For ordering and searching only: whole days are taken in UTC. */
  Instant from();

  Instant until();

  /** Local times in one zone. */
  record Timed(ZonedDateTime start, ZonedDateTime end) implements EntryTimes {
    public Timed {
      Objects.requireNonNull(start, "start");
      Objects.requireNonNull(end, "end");
      if (end.isBefore(start)) {
        throw new IllegalArgumentException("end " + end + " is before start " + start);
      }
    }

    @Override
    public Instant from() {
      return start.toInstant();
    }

    @Override
    public Instant until() {
      return end.toInstant();
    }
  }

  /** Whole days without a zone. */
  record AllDay(DaySpan days) implements EntryTimes {
    public AllDay {
      Objects.requireNonNull(days, "days");
    }

    @Override
    public Instant from() {
      return days.first().atStartOfDay(ZoneOffset.UTC).toInstant();
    }

    @Override
    public Instant until() {
      return days.until().atStartOfDay(ZoneOffset.UTC).toInstant();
    }
  }
}
