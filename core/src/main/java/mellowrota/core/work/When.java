package mellowrota.core.work;

import java.time.ZonedDateTime;
import java.util.Objects;
import mellowrota.core.time.DaySpan;

/** The span of a visit: local time in a zone, or plain dates; never mixed. */
public sealed interface When {

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
