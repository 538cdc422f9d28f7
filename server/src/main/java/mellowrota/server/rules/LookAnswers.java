package mellowrota.server.rules;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.people.Person;
import mellowrota.core.project.Outlook;
import mellowrota.core.work.RecordId;
import mellowrota.server.sight.World;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;

/** Answers what a change that was looked at first would do; by then it is taken back. */
@RestControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class LookAnswers {

  private static final int AT_ONCE = 500;

  private final Outlooks outlooks;
  private final TransactionTemplate reading;

  LookAnswers(Outlooks outlooks, PlatformTransactionManager transactions) {
    this.outlooks = outlooks;
    reading = new TransactionTemplate(transactions);
    reading.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
    reading.setReadOnly(true);
  }

  @ExceptionHandler(Looked.class)
  ResponseEntity<SetViews.OutlookView> answer(Looked looked) {
    return ResponseEntity.ok(reading.execute(status -> view(looked)));
  }

  private SetViews.OutlookView view(Looked looked) {
    Outlook.Sum sum = new Outlook.Sum();
    Person asker = looked.before().person(looked.asker());
    List<RecordId> reached = new ArrayList<>(new TreeSet<>(looked.reached()));
    reached.removeAll(looked.changed().keySet());
    for (int from = 0; from < reached.size(); from += AT_ONCE) {
      List<RecordId> some = reached.subList(from, Math.min(reached.size(), from + AT_ONCE));
      outlooks
          .told(looked.before(), looked.after(), some)
          .forEach(told -> add(sum, looked.before(), asker, told));
    }
    outlooks
        .told(looked.before(), looked.after(), looked.changed())
        .forEach(told -> add(sum, looked.before(), asker, told));
    return new SetOutlooks.Frame(
            "", sum.records(), looked.before(), looked.after(), List.of(), List.of())
        .view(sum, true);
  }

  private static void add(Outlook.Sum sum, World world, Person asker, Outlook.Told told) {
    sum.add(
        told.rows().stream().filter(row -> mayKnow(world, asker, row.key().calendar())).toList(),
        told.waits());
  }

  /** What becomes of a calendar is for those who may list its readers (LANDING 17). */
  private static boolean mayKnow(World world, Person asker, CalendarId calendar) {
    return asker.isCoordinator()
        || world
            .calendars()
            .find(calendar)
            .filter(one -> one.owner() instanceof Calendar.Owner.Own)
            .filter(one -> ((Calendar.Owner.Own) one.owner()).person().equals(asker.id()))
            .isPresent();
  }
}
