package mellowrota.server.calendars;

import mellowrota.core.calendar.CalendarId;
import org.springframework.context.annotation.Profile;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Gives a calendar's next change number. */
public interface ChangeNumbers {

  long next(CalendarId calendar);

  /** From the calendar's own row, locked until commit: numbers become visible in order. */
  @Component
  @Profile("!ordering-control")
  class FromTheRow implements ChangeNumbers {
    private final JdbcClient jdbc;

    FromTheRow(JdbcClient jdbc) {
      this.jdbc = jdbc;
    }

    @Override
    public long next(CalendarId calendar) {
      return jdbc.sql(
              "update calendar set change_no = change_no + 1 where id = ? returning change_no")
          .param(calendar.value())
          .query(Long.class)
          .single();
    }
  }
}
