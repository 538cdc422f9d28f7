package mellowrota.server.calendars;

import mellowrota.core.calendar.CalendarId;
import org.springframework.context.annotation.Profile;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

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
    public long next(CalendarId calendar) {
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
