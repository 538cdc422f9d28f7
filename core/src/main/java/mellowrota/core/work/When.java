package mellowrota.core.work;

import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;

/** The span of a visit: local time in a zone, or plain dates; never mixed. */
public sealed interface When {

  /** What it takes; whole days are those of the zone. */
  default TimeSpan in(ZoneId zone) {
    return this instanceof Timed timed
        ? TimeSpan.of(timed.start().toInstant(), timed.end().toInstant())
        : ((AllDay) this).days().in(zone);
  }

  /** Empty: it has hours. */
  default Optional<DaySpan> wholeDays() {
    return this instanceof AllDay allDay ? Optional.of(allDay.days()) : Optional.empty();
  }

  /** Local times in one zone; the end may equal the start. */
  record Timed(ZonedDateTime start, ZonedDateTime end) implements When {
    public Timed {
      Objects.requireNonNull(start, "start");
      Objects.requireNonNull(end, "end");
      if (end.isBefore(start)) {
        throw new IllegalArgumentException("end " + end + " is before start " + start);
      }
      if (!start.getZone().equals(end.getZone())) {
        throw new IllegalArgumentException("start and end are in different zones");
      }
    }
  }

  /** Whole days without a zone. */
  record AllDay(DaySpan days) implements When {
    public AllDay {
      Objects.requireNonNull(days, "days");
    }
  }
}
