package mellowrota.server.calendars;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import mellowrota.core.calendar.CalendarId;
import mellowrota.server.platform.Writes;
import org.springframework.context.annotation.Profile;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** Gives calendars their next change numbers. */
public interface ChangeNumbers {

  /**
   * How rows that are sent after it name their calendar's number.
   *
   * @param parameters what a row says for it
   */
  record Given(Map<CalendarId, Long> parameters, UnaryOperator<String> sql) {

    /** The number of a row's calendar, made of what the row says. */
    String number(String parameter) {
      return sql.apply(parameter);
    }
  }

  /** Adds to the writes what takes the numbers, before the rows that bear them. */
  Given take(Collection<CalendarId> calendars, Writes writes);

  /**
   * From the calendar's own row, locked until commit: numbers become visible in order. Rows read
   * the number where it stands, so that all goes in one message and the lock is held for no longer
   * than the database needs.
   */
  @Component
  @Profile("!ordering-control")
  class FromTheRow implements ChangeNumbers {

    @Override
    public Given take(Collection<CalendarId> calendars, Writes writes) {
      writes.add(
          """
          with locked as (select id from calendar where id = any(?) order by id for update)
          update calendar c set change_no = c.change_no + 1 from locked where c.id = locked.id
          """,
          (Object) calendars.stream().map(CalendarId::value).toArray(Long[]::new));
      return new Given(
          calendars.stream().collect(Collectors.toMap(calendar -> calendar, CalendarId::value)),
          calendar -> "(select change_no from calendar where id = " + calendar + ")");
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
    public Given take(Collection<CalendarId> calendars, Writes writes) {
      Map<CalendarId, Long> numbers = new HashMap<>();
      calendars.forEach(calendar -> numbers.put(calendar, next(calendar)));
      return new Given(numbers, UnaryOperator.identity());
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
