package mellowrota.server.calendars.store;

import java.util.Collection;
import mellowrota.core.calendar.CalendarId;
import mellowrota.server.sight.store.CalendarStore;
import org.springframework.context.annotation.Profile;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/** Gives calendars their next change numbers. */
interface ChangeNumbers {

  /**
   * The beginning of a statement: the table {@code taken} of the numbers ({@code id}, {@code
   * change_no}) of the calendars {@code :calendars}.
   */
  String taken();

  /** Called before a statement that takes numbers. */
  void willTake(Collection<CalendarId> calendars);

  /**
   * From the calendar's own row, locked until commit: numbers become visible in order. The rows
   * that bear them go in the same statement, so that the lock is held for no longer than the
   * database needs.
   */
  @Component
  @Profile("!ordering-control")
  class FromTheRow implements ChangeNumbers {

    @Override
    public String taken() {
      return CalendarStore.NEXT_NUMBERS;
    }

    @Override
    public void willTake(Collection<CalendarId> calendars) {
      // The statement does it.
    }
  }

  /**
   * The control of the ordering test, which must find what goes wrong with it: a sequence's numbers
   * become visible in the order of commits, not of numbers.
   */
  @Component
  @Profile("ordering-control")
  class FromASequence implements ChangeNumbers {
    private final CalendarStore calendars;

    FromASequence(CalendarStore calendars) {
      this.calendars = calendars;
    }

    @Override
    public String taken() {
      return """
          with taken as (
            select id, nextval('ordering_control') as change_no from unnest(:calendars) c(id))
          """;
    }

    @Override
    public void willTake(Collection<CalendarId> touched) {
      TransactionSynchronizationManager.registerSynchronization(
          new TransactionSynchronization() {
            @Override
            public void beforeCommit(boolean readOnly) {
              calendars.raise(touched, "ordering_control");
            }
          });
    }
  }
}
