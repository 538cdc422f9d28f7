package mellowrota.core.work;

import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.Objects;

/** By when something must be done: a time in a zone, or a date. */
public sealed interface Due {

  record At(ZonedDateTime time) implements Due {
    public At {
      Objects.requireNonNull(time, "time");
    }
  }

  record On(LocalDate day) implements Due {
    public On {
      Objects.requireNonNull(day, "day");
    }
  }
}
