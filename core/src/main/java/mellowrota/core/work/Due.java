package mellowrota.core.work;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.Objects;

/** By when something must be done: a time in a zone, or a date. */
public sealed interface Due {

  /** The day it is due, where the house is. */
  LocalDate day(ZoneId house);

  /** From when on what is not done is overdue; a date ends where the house is. */
  Instant overdueFrom(ZoneId house);

  /** Whether two are the same day, or the same moment. */
  default boolean isSame(Due other) {
    return this instanceof At at && other instanceof At then
        ? at.time().isEqual(then.time())
        : equals(other);
  }

  record At(ZonedDateTime time) implements Due {
    public At {
      Objects.requireNonNull(time, "time");
    }

    @Override
    public LocalDate day(ZoneId house) {
      return time.withZoneSameInstant(house).toLocalDate();
    }

    @Override
    public Instant overdueFrom(ZoneId house) {
      return time.toInstant();
    }
  }

  record On(LocalDate day) implements Due {
    public On {
      Objects.requireNonNull(day, "day");
    }

    @Override
    public LocalDate day(ZoneId house) {
      return day;
    }

    @Override
    public Instant overdueFrom(ZoneId house) {
      return day.plusDays(1).atStartOfDay(house).toInstant();
    }
  }
}
