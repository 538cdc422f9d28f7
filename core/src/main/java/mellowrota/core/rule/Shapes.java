package mellowrota.core.rule;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.Optional;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Family;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.work.Due;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.Margins;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;

/** How a shape becomes times (LANDING 10 to 13). */
final class Shapes {

  /** A shape laid out. */
  record Laid(
      Family family, EntryTimes times, Optional<EntryTimes> bare, boolean late, boolean unhanded) {}

  private final Places places;
  private final MarginSettings margins;

  Shapes(Places places, MarginSettings margins) {
    this.places = places;
    this.margins = margins;
  }

  /**
   * The shape's times, or empty where the record has no span or due time for it.
   *
   * @param given when the work was handed over, as the calendar at hand counts it
   * @param person whose calendar it is
   */
  Optional<Laid> lay(
      Shape shape,
      WorkRecord record,
      Visit visit,
      Optional<Instant> given,
      Optional<PersonId> person) {
    return switch (shape) {
      case SPAN -> span(visit);
      case SPAN_WITH_MARGINS -> spanWithMargins(visit, margins.of(record, visit, person));
      case WHOLE_DAY -> wholeDay(record, visit);
      case GIVEN_DUE -> givenDue(record, visit, given);
      case DUE_MARK -> dueMark(record, Family.DUE, false, false);
      case AS_IT_COMES -> asItComes(record, visit, given);
    };
  }

  private Optional<Laid> asItComes(WorkRecord record, Visit visit, Optional<Instant> given) {
    if (visit.when().isPresent()) {
      return span(visit);
    }
    return given.isPresent()
        ? givenDue(record, visit, given)
        : dueMark(record, Family.DUE, false, false);
  }

  private static Optional<Laid> span(Visit visit) {
    return visit
        .when()
        .map(when -> new Laid(Family.WORK, plain(when), Optional.empty(), false, false));
  }

  private static EntryTimes plain(When when) {
    if (when instanceof When.Timed timed) {
      return new EntryTimes.Timed(timed.start(), timed.end());
    }
    return new EntryTimes.AllDay(((When.AllDay) when).days());
  }

  private static Optional<Laid> spanWithMargins(Visit visit, Margins margins) {
    if (visit.when().orElse(null) instanceof When.Timed timed && !margins.areNone()) {
      EntryTimes with =
          new EntryTimes.Timed(
              timed.start().minus(margins.before()), timed.end().plus(margins.after()));
      return Optional.of(new Laid(Family.WORK, with, Optional.of(plain(timed)), false, false));
    }
    return span(visit);
  }

  private Optional<Laid> wholeDay(WorkRecord record, Visit visit) {
    Optional<DaySpan> days = visit.when().map(Shapes::daysTouched);
    if (days.isEmpty()) {
      days = record.due().map(due -> DaySpan.ofDay(dueDay(due)));
    }
    return days.map(
        span -> new Laid(Family.WORK, new EntryTimes.AllDay(span), Optional.empty(), false, false));
  }

  private static DaySpan daysTouched(When when) {
    if (when instanceof When.AllDay allDay) {
      return allDay.days();
    }
    When.Timed timed = (When.Timed) when;
    LocalDate first = timed.start().toLocalDate();
    LocalDate last = timed.end().toLocalDate();
    boolean atMidnight = timed.end().toLocalTime().equals(LocalTime.MIDNIGHT);
    return DaySpan.through(first, atMidnight && last.isAfter(first) ? last.minusDays(1) : last);
  }

  private static LocalDate dueDay(Due due) {
    return due instanceof Due.At at ? at.time().toLocalDate() : ((Due.On) due).day();
  }

  private Optional<Laid> givenDue(WorkRecord record, Visit visit, Optional<Instant> given) {
    if (record.due().isEmpty()) {
      return Optional.empty();
    }
    if (given.isEmpty()) {
      return dueMark(record, Family.GIVEN_DUE, false, true);
    }
    if (record.due().get() instanceof Due.At at) {
      ZonedDateTime due = at.time();
      if (!due.toInstant().isAfter(given.get())) {
        return dueMark(record, Family.GIVEN_DUE, true, false);
      }
      EntryTimes times = new EntryTimes.Timed(given.get().atZone(due.getZone()), due);
      return Optional.of(new Laid(Family.GIVEN_DUE, times, Optional.empty(), false, false));
    }
    LocalDate due = ((Due.On) record.due().get()).day();
    LocalDate from = given.get().atZone(places.siteZone(record, visit)).toLocalDate();
    if (due.isBefore(from)) {
      return dueMark(record, Family.GIVEN_DUE, true, false);
    }
    EntryTimes times = new EntryTimes.AllDay(DaySpan.through(from, due));
    return Optional.of(new Laid(Family.GIVEN_DUE, times, Optional.empty(), false, false));
  }

  private static Optional<Laid> dueMark(
      WorkRecord record, Family family, boolean late, boolean unhanded) {
    return record
        .due()
        .map(
            due -> {
              EntryTimes times =
                  due instanceof Due.At at
                      ? new EntryTimes.Timed(at.time().minus(EntryTimes.DUE_MARK), at.time())
                      : new EntryTimes.AllDay(DaySpan.ofDay(((Due.On) due).day()));
              return new Laid(family, times, Optional.empty(), late, unhanded);
            });
  }
}
