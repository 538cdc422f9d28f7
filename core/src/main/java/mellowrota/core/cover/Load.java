package mellowrota.core.cover;

import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.WorkingDays;

/**
 * How much one person has, by their local days (COVER 25).
 *
 * @param unestimated ids of given work whose effort nobody has said
 */
public record Load(List<Day> days, List<String> unestimated) {

  /**
   * What is on a day.
   *
   * @param sure work with times, each minute once
   * @param maybe minutes that only tentative work has
   * @param allDay how many works take the whole day, sure ones and tentative ones
   * @param given of the estimates of work to be done by its due day
   * @param givenMaybe the same of tentative work
   */
  public record Day(
      LocalDate day,
      Duration sure,
      Duration maybe,
      int allDay,
      int allDayMaybe,
      Duration given,
      Duration givenMaybe) {

    /** What is sure, of both. */
    public Duration whole() {
      return sure.plus(given);
    }
  }

  /**
   * Work from a hand-over to its due day, not done yet.
   *
   * @param estimate whole minutes, in full for each person on it; empty: nobody has said
   * @param handedOver empty: from ever
   * @param days on which its place is worked
   */
  public record Given(
      String id,
      Optional<Duration> estimate,
      Optional<LocalDate> handedOver,
      LocalDate due,
      WorkingDays days,
      boolean tentative) {
    public Given {
      Objects.requireNonNull(id, "id");
      Objects.requireNonNull(estimate, "estimate");
      Objects.requireNonNull(handedOver, "handedOver");
      Objects.requireNonNull(due, "due");
      Objects.requireNonNull(days, "days");
    }
  }

  public Load {
    days = List.copyOf(days);
    unestimated = List.copyOf(unestimated);
  }

  /** Of some days, each of them told. */
  public static Load of(Commitments of, Collection<Given> given, DaySpan range, LocalDate today) {
    TreeMap<LocalDate, Duration> sure = new TreeMap<>();
    TreeMap<LocalDate, Duration> maybe = new TreeMap<>();
    List<String> unestimated = new ArrayList<>();
    for (Given one : given) {
      if (one.estimate().isPresent()) {
        spread(one, today, one.tentative() ? maybe : sure);
      } else {
        unestimated.add(one.id());
      }
    }
    List<TimeSpan> timed = timed(of, false);
    List<TimeSpan> all = Spans.union(both(timed, timed(of, true)));
    List<Day> found = new ArrayList<>();
    for (LocalDate day : range.first().datesUntil(range.until()).toList()) {
      TimeSpan span = TimeSpan.of(of.start(day), of.start(day.plusDays(1)));
      Duration work = Spans.within(Spans.near(timed, span), span);
      found.add(
          new Day(
              day,
              work,
              Spans.within(Spans.near(all, span), span).minus(work),
              allDay(of, span, false),
              allDay(of, span, true),
              sure.getOrDefault(day, Duration.ZERO),
              maybe.getOrDefault(day, Duration.ZERO)));
    }
    return new Load(found, unestimated);
  }

  private static List<TimeSpan> timed(Commitments of, boolean tentative) {
    return Spans.union(
        of.work().stream()
            .filter(one -> one.tentative() == tentative && !one.allDay())
            .map(Work::span)
            .toList());
  }

  private static List<TimeSpan> both(List<TimeSpan> one, List<TimeSpan> other) {
    List<TimeSpan> all = new ArrayList<>(one);
    all.addAll(other);
    return all;
  }

  private static int allDay(Commitments of, TimeSpan day, boolean tentative) {
    Set<String> found = new HashSet<>();
    of.work().stream()
        .filter(one -> one.allDay() && one.tentative() == tentative && one.span().overlaps(day))
        .forEach(one -> found.add(one.id()));
    return found.size();
  }

  /** Evenly over the working days that are left, odd minutes to the first of them. */
  private static void spread(Given one, LocalDate today, TreeMap<LocalDate, Duration> to) {
    LocalDate first = one.handedOver().filter(day -> day.isAfter(today)).orElse(today);
    List<LocalDate> left = one.days().between(first, one.due());
    if (left.isEmpty()) {
      left = List.of(one.due().isBefore(today) ? today : one.due());
    }
    long minutes = one.estimate().orElseThrow().toMinutes();
    long each = minutes / left.size();
    long odd = minutes % left.size();
    for (int i = 0; i < left.size(); i++) {
      to.merge(left.get(i), Duration.ofMinutes(each + (i < odd ? 1 : 0)), Duration::plus);
    }
  }
}
