package mellowrota.server.rules;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.project.Preview;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Leaving;
import mellowrota.server.calendars.store.Entries;
import mellowrota.server.sight.ReaderWords;
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
class PreviewAnswers {

  private static final int AT_ONCE = 500;

  private final Previews previews;
  private final Entries entries;
  private final TransactionTemplate reading;

  PreviewAnswers(Previews previews, Entries entries, PlatformTransactionManager transactions) {
    this.entries = entries;
    this.previews = previews;
    reading = new TransactionTemplate(transactions);
    reading.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
    reading.setReadOnly(true);
  }

  @ExceptionHandler(PreviewRun.class)
  ResponseEntity<SetViews.PreviewView> answer(PreviewRun looked) {
    return ResponseEntity.ok(reading.execute(status -> view(looked)));
  }

  private SetViews.PreviewView view(PreviewRun looked) {
    Preview.Sum sum = new Preview.Sum();
    Person asker = looked.before().person(looked.asker());
    List<RecordId> reached = new ArrayList<>(new TreeSet<>(looked.reached()));
    reached.removeAll(looked.changed().keySet());
    for (int from = 0; from < reached.size(); from += AT_ONCE) {
      List<RecordId> some = reached.subList(from, Math.min(reached.size(), from + AT_ONCE));
      previews
          .told(looked.before(), looked.after(), some, asker.id())
          .forEach(told -> add(sum, looked.before(), asker, told));
    }
    previews
        .told(looked.before(), looked.after(), looked.changed(), asker.id())
        .forEach(told -> add(sum, looked.before(), asker, told));
    SetViews.PreviewView view =
        new SetPreviews.Frame(
                "", sum.records(), looked.before(), looked.after(), List.of(), List.of())
            .view(sum, true);
    return view.with(
        readers(looked.before(), looked.after(), asker),
        readers(looked.after(), looked.before(), asker),
        looked.ended().stream().map(one -> ends(looked.before(), one)).toList());
  }

  /**
   * Who reads in the second world what they do not read in the first, with all that stands there.
   */
  private List<SetViews.SightView> readers(World without, World with, Person asker) {
    List<SetViews.SightView> found = new ArrayList<>();
    for (Calendar calendar : with.calendars().all()) {
      Set<PersonId> before = readers(without, calendar, without);
      List<String> fresh =
          readers(with, calendar, without).stream()
              .filter(person -> !before.contains(person))
              .map(person -> ReaderWords.name(with, person))
              .sorted()
              .toList();
      if (!fresh.isEmpty() && mayKnow(with, asker, calendar.id())) {
        long standing = entries.standing(calendar.id());
        if (standing > 0) {
          found.add(
              new SetViews.SightView(
                  calendar.id().value(),
                  calendar.name(),
                  String.join(", ", fresh),
                  "Everything",
                  standing));
        }
      }
    }
    return found;
  }

  private static SetViews.EndsView ends(World world, Leaving.Ended one) {
    return new SetViews.EndsView(
        one.sort(),
        one.label().isEmpty() ? null : one.label(),
        one.calendar().map(CalendarId::value).orElse(null),
        one.calendar().flatMap(world.calendars()::find).map(Calendar::name).orElse(null),
        one.reader().map(PersonId::value).orElse(null),
        one.reader().map(reader -> ReaderWords.name(world, reader)).orElse(null),
        one.level().orElse(null),
        one.until().orElse(null));
  }

  /**
   * By the ways in that the other world has too: what comes by a new one is told by its entries.
   */
  private static Set<PersonId> readers(World world, Calendar calendar, World other) {
    Set<PersonId> found = new HashSet<>();
    for (Rendering rendering : world.calendars().renderingsOf(calendar.id())) {
      if (other.calendars().rendering(rendering.id()).isPresent()) {
        found.addAll(world.calendars().audience(rendering.id()).people());
      }
    }
    return found;
  }

  private static void add(Preview.Sum sum, World world, Person asker, Preview.Told told) {
    sum.add(
        told.rows().stream().filter(row -> mayKnow(world, asker, row.key().calendar())).toList(),
        asker.isCoordinator() ? told.waits() : 0);
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
