package mellowrota.server.calendars;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import mellowrota.core.calendar.CalendarId;
import org.springframework.context.annotation.Profile;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** Gives calendars their next change numbers. */
public interface ChangeNumbers {

  Map<CalendarId, Long> next(Collection<CalendarId> calendars);

  /** From the calendar's own row, locked until commit: numbers become visible in order. */
  @Component
  @Profile("!ordering-control")
  class FromTheRow implements ChangeNumbers {
    private final JdbcClient jdbc;

    FromTheRow(JdbcClient jdbc) {
      this.jdbc = jdbc;
    }

    @Override
    public Map<CalendarId, Long> next(Collection<CalendarId> calendars) {
      Map<CalendarId, Long> numbers = new HashMap<>();
      jdbc.sql(
              """
              with locked as (select id from calendar where id = any(?) order by id for update)
              update calendar c set change_no = c.change_no + 1 from locked where c.id = locked.id
              returning c.id, c.change_no
              """)
          .param(calendars.stream().map(CalendarId::value).toArray(Long[]::new))
          .query(
              row -> {
                numbers.put(CalendarId.of(row.getLong(1)), row.getLong(2));
              });
      return numbers;
    }
  }

  /**
   * The control of the ordering test, which must find what goes wrong with it: a sequence's numbers
   * become visible in the order of commits, not of numbers.
   */
  @Component
  @Profile("ordering-control")
  class FromASequence implements ChangeNumbers {
    private final JdbcClient jdbc;

    FromASequence(JdbcClient jdbc) {
      this.jdbc = jdbc;
    }

    @Override
    public Map<CalendarId, Long> next(Collection<CalendarId> calendars) {
      Map<CalendarId, Long> numbers = new HashMap<>();
      calendars.forEach(calendar -> numbers.put(calendar, next(calendar)));
      return numbers;
    }

    private long next(CalendarId calendar) {
      long number = jdbc.sql("select nextval('ordering_control')").query(Long.class).single();
      TransactionSynchronizationManager.registerSynchronization(
          new TransactionSynchronization() {
            @Override
            public void beforeCommit(boolean readOnly) {
              jdbc.sql("update calendar set change_no = greatest(change_no, ?) where id = ?")
                  .param(number)
                  .param(calendar.value())
                  .update();
            }
          });
      return number;
    }
  }
}
