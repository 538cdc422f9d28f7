package mellowrota.core.cover;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.PlaceId;

/**
 * When somebody works (COVER 1): by weekday, from one day until another, and otherwise on days that
 * are named. Hours with a place are in its zone and serve work there only; hours without one serve
 * everywhere.
 */
public record Hours(List<Weekly> weekly, List<Dated> dated) {

  /** Nobody has said; nothing is outside them. */
  public static final Hours UNSAID = new Hours(List.of(), List.of());

  /**
   * Hours of one weekday.
   *
   * @param until on the next day where it is not after {@code from}; equal: round the clock
   * @param zone of the place, else of the person
   * @param first empty: from ever
   * @param last included; empty: for ever
   */
  public record Weekly(
      DayOfWeek weekday,
      LocalTime from,
      LocalTime until,
      Optional<PlaceId> place,
      ZoneId zone,
      Optional<LocalDate> first,
      Optional<LocalDate> last) {

    private boolean holdsOn(LocalDate day) {
      return new Validity(first, last).holdsOn(day);
    }
  }

  /**
   * What holds on one day in place of the week's hours: of the place's with a place, of all without
   * one.
   *
   * @param times none: not at work
   */
  public record Dated(LocalDate day, Optional<PlaceId> place, ZoneId zone, List<Clock> times) {
    public Dated {
      times = List.copyOf(times);
    }
  }

  /** Until the next day where {@code until} is not after {@code from}. */
  public record Clock(LocalTime from, LocalTime until) {}

  public Hours {
    weekly = List.copyOf(weekly);
    dated = List.copyOf(dated);
  }

  public boolean isUnsaid() {
    return weekly.isEmpty() && dated.isEmpty();
  }

  /** Where there are other hours than elsewhere. */
  Set<PlaceId> places() {
    Set<PlaceId> found = new HashSet<>();
    weekly.forEach(one -> one.place().ifPresent(found::add));
    dated.forEach(one -> one.place().ifPresent(found::add));
    return found;
  }

  /**
   * The hours in which work at a place is done, touching ones as one, by start, not cut at the ends
   * of the range.
   */
  public List<TimeSpan> at(Optional<PlaceId> place, TimeSpan range) {
    List<TimeSpan> found = new ArrayList<>();
    for (Weekly one : weekly) {
      if (serves(one.place(), place)) {
        LocalDate until = day(range.end(), one.zone()).plusDays(1);
        for (LocalDate day =
                day(range.start(), one.zone())
                    .minusDays(1)
                    .with(TemporalAdjusters.nextOrSame(one.weekday()));
            day.isBefore(until);
            day = day.plusWeeks(1)) {
          if (one.holdsOn(day) && !isReplaced(one, day)) {
            LocalTimes.span(day, one.from(), one.until(), one.zone()).ifPresent(found::add);
          }
        }
      }
    }
    for (Dated one : dated) {
      if (serves(one.place(), place)) {
        for (Clock time : one.times()) {
          LocalTimes.span(one.day(), time.from(), time.until(), one.zone()).ifPresent(found::add);
        }
      }
    }
    found.removeIf(one -> !one.overlaps(range));
    return Spans.union(found);
  }

  private boolean isReplaced(Weekly hours, LocalDate day) {
    return !dated.isEmpty()
        && dated.stream()
            .anyMatch(
                one ->
                    one.day().equals(day)
                        && (one.place().isEmpty() || one.place().equals(hours.place())));
  }

  private static boolean serves(Optional<PlaceId> hours, Optional<PlaceId> work) {
    return hours.isEmpty() || hours.equals(work);
  }

  private static LocalDate day(Instant at, ZoneId zone) {
    return LocalTimes.day(at, zone);
  }
}
