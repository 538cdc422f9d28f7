package mellowrota.core.cover;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.PlaceId;

/** What a person's works come to together against a limit (COVER 16, 18, 19, 23). */
final class Runs {

  private static final LocalTime NIGHT_FROM = LocalTime.of(23, 0);
  private static final LocalTime NIGHT_UNTIL = LocalTime.of(6, 0);
  private static final Duration A_NIGHT = Duration.ofHours(3);

  private final Commitments of;
  private final Limits limits;
  private final TimeSpan range;
  private final Optional<Work> only;
  private final Map<Optional<PlaceId>, List<TimeSpan>> byPlace = new HashMap<>();

  /** Places with hours of their own; all others have the same. */
  private final Set<PlaceId> named;

  private final List<Clash> found = new ArrayList<>();

  /**
   * @param only what it is not in need not be found; empty: all is
   */
  Runs(Commitments of, Limits limits, TimeSpan range, Optional<Work> only) {
    this.of = of;
    this.limits = limits;
    this.range = range;
    this.only = only;
    named = of.hours().places();
  }

  List<Clash> clashes() {
    return found;
  }

  /** What is wrong minute by minute: of sure work and of tentative work, each by itself. */
  void minutes(List<Work> works, boolean maybe) {
    if (!of.hours().isUnsaid()) {
      join(works, Clash.Kind.HOURS, maybe, this::outsideHours);
      join(works, Clash.Kind.MARGIN, maybe, this::marginOutsideHours);
    }
    join(works, Clash.Kind.SKILL, maybe, this::unskilled);
    join(works, Clash.Kind.LEFT, maybe, this::afterTheyLeft);
  }

  /** Neighbouring minutes are one span, with all works in it. */
  private void join(
      List<Work> works, Clash.Kind kind, boolean maybe, Function<Work, List<TimeSpan>> wrong) {
    if (only.isPresent() && (!works.contains(only.get()) || wrong.apply(only.get()).isEmpty())) {
      return;
    }
    List<TimeSpan> all = new ArrayList<>(0);
    List<List<TimeSpan>> each = new ArrayList<>(works.size());
    for (Work one : works) {
      List<TimeSpan> its = wrong.apply(one);
      each.add(its);
      all.addAll(its);
    }
    if (all.isEmpty()) {
      return;
    }
    for (TimeSpan span : Spans.union(all)) {
      List<Work> in = new ArrayList<>();
      for (int i = 0; i < works.size(); i++) {
        if (Spans.meet(each.get(i), span)) {
          in.add(works.get(i));
        }
      }
      add(kind, maybe, in, span);
    }
  }

  private List<TimeSpan> hours(Work one) {
    TimeSpan wide = one.withMargin();
    return only.isPresent() && one == only.get()
        ? of.hours().at(one.place(), wide)
        : Spans.near(
            byPlace.computeIfAbsent(one.place().filter(named::contains), this::hours), wide);
  }

  /** From the first work until the last, with room for margins and nights. */
  private List<TimeSpan> hours(Optional<PlaceId> place) {
    Duration more = Duration.ofDays(2);
    return of.hours().at(place, TimeSpan.of(range.start().minus(more), range.end().plus(more)));
  }

  /** All-day work is outside on days without any hours. */
  private List<TimeSpan> outsideHours(Work one) {
    List<TimeSpan> hours = hours(one);
    if (!one.allDay()) {
      return Spans.without(one.span(), hours);
    }
    List<TimeSpan> days = new ArrayList<>();
    for (LocalDate day : days(one)) {
      TimeSpan span = TimeSpan.of(of.start(day), of.start(day.plusDays(1)));
      if (!Spans.meet(hours, span)) {
        days.add(span);
      }
    }
    return days;
  }

  /** A margin leaves the hours where the work beside it is within them. */
  private List<TimeSpan> marginOutsideHours(Work one) {
    if (one.margin().areNone()) {
      return List.of();
    }
    TimeSpan before = Pairs.before(one);
    TimeSpan after = Pairs.after(one);
    List<TimeSpan> hours = hours(one);
    List<TimeSpan> outside = new ArrayList<>();
    if (Spans.holds(hours, one.span().start())) {
      outside.addAll(Spans.without(before, hours));
    }
    if (Spans.holds(hours, one.span().end().minusNanos(1))) {
      outside.addAll(Spans.without(after, hours));
    }
    return outside;
  }

  /** When they can fill none of its places. */
  private List<TimeSpan> unskilled(Work one) {
    return one.asks().unmet(one.span(), of.able(), one.site());
  }

  /** What of it lies after their last day. */
  private List<TimeSpan> afterTheyLeft(Work one) {
    return of.able()
        .until()
        .map(until -> Spans.without(one.span(), List.of(TimeSpan.of(Instant.MIN, until))))
        .orElse(List.of());
  }

  /** What adds up over all of them. */
  void sums(List<Work> works, boolean maybe) {
    List<Stretch> stretches = Stretch.of(works);
    List<TimeSpan> timed = stretches.stream().map(Stretch::span).toList();
    if (!limits.longest().isZero()) {
      for (Stretch one : stretches) {
        if (one.span().length().compareTo(limits.longest()) > 0) {
          add(Clash.Kind.LONGEST, maybe, one.works(), one.span());
        }
      }
    }
    weeks(works, inItsWeeks(timed), maybe);
    List<LocalDate> begun = new ArrayList<>();
    LocalDate last = null;
    for (Work one : works) {
      LocalDate first = day(one);
      if (one.allDay()) {
        begun.addAll(days(one));
      } else if (!first.equals(last)) {
        begun.add(first);
      }
      last = first;
    }
    runs(begun, limits.daysInARow())
        .forEach(
            run -> {
              TimeSpan span = TimeSpan.of(of.start(run.first()), of.start(run.until()));
              List<Work> in =
                  works.stream()
                      .filter(
                          one -> !day(one).isBefore(run.first()) && day(one).isBefore(run.until()))
                      .toList();
              add(Clash.Kind.DAYS, maybe, in, span);
            });
    nights(works, timed, maybe);
  }

  /** Without a reference period, what is in other weeks says nothing of the trial's. */
  private List<TimeSpan> inItsWeeks(List<TimeSpan> timed) {
    if (only.isEmpty() || limits.periodWeeks() > 0) {
      return timed;
    }
    TimeSpan span = only.get().span();
    TimeSpan weeks =
        TimeSpan.of(
            of.start(week(span.start())), of.start(week(span.end().minusNanos(1)).plusWeeks(1)));
    return timed.stream().filter(weeks::overlaps).toList();
  }

  private LocalDate day(Work one) {
    return of.day(one.span().start());
  }

  private List<LocalDate> days(Work one) {
    return day(one).datesUntil(of.day(one.span().end().minusNanos(1)).plusDays(1)).toList();
  }

  private void weeks(List<Work> works, List<TimeSpan> timed, boolean maybe) {
    TreeMap<LocalDate, Duration> sums = new TreeMap<>();
    LocalDate week = null;
    TimeSpan whole = null;
    for (TimeSpan one : timed) {
      if (whole == null || !one.start().isBefore(whole.end())) {
        week = week(one.start());
        whole = span(week);
      }
      add(sums, week, one, whole);
      while (whole.end().isBefore(one.end())) {
        week = week.plusWeeks(1);
        whole = span(week);
        add(sums, week, one, whole);
      }
    }
    sums.forEach(
        (one, sum) -> {
          if (!limits.week().isZero() && sum.compareTo(limits.week()) > 0) {
            add(Clash.Kind.WEEK, maybe, in(works, List.of(span(one))), span(one));
          }
        });
    if (limits.periodWeeks() > 0 && !limits.periodWeek().isZero() && !sums.isEmpty()) {
      periods(works, sums, maybe);
    }
  }

  /** Weeks with which a period ends that has too much; neighbours are one span. */
  private void periods(List<Work> works, TreeMap<LocalDate, Duration> sums, boolean maybe) {
    Duration most = limits.periodWeek().multipliedBy(limits.periodWeeks());
    LocalDate from = null;
    for (LocalDate week = sums.firstKey();
        !week.isAfter(sums.lastKey().plusWeeks(1));
        week = week.plusWeeks(1)) {
      Duration sum = Duration.ZERO;
      LocalDate first = week.minusWeeks(limits.periodWeeks() - 1L);
      for (Duration one : sums.subMap(first, true, week, true).values()) {
        sum = sum.plus(one);
      }
      boolean over = sum.compareTo(most) > 0 && !week.isAfter(sums.lastKey());
      if (over && from == null) {
        from = week;
      } else if (!over && from != null) {
        TimeSpan span = TimeSpan.of(of.start(from), of.start(week));
        add(Clash.Kind.PERIOD, maybe, in(works, List.of(span)), span);
        from = null;
      }
    }
  }

  private LocalDate week(Instant at) {
    return of.day(at).with(TemporalAdjusters.previousOrSame(limits.weekBegins()));
  }

  private TimeSpan span(LocalDate week) {
    return TimeSpan.of(of.start(week), of.start(week.plusWeeks(1)));
  }

  private static void add(
      TreeMap<LocalDate, Duration> sums, LocalDate week, TimeSpan work, TimeSpan whole) {
    work.intersection(whole).ifPresent(part -> sums.merge(week, part.length(), Duration::plus));
  }

  /** Days that follow one another; the last is not in it. */
  private record Run(LocalDate first, LocalDate until) {}

  /** Those longer than the limit, of days in any order; without a limit there are none. */
  private static List<Run> runs(List<LocalDate> days, int limit) {
    if (limit == 0 || days.size() <= limit) {
      return List.of();
    }
    long[] all = days.stream().mapToLong(LocalDate::toEpochDay).sorted().distinct().toArray();
    List<Run> found = new ArrayList<>();
    int first = 0;
    for (int next = 1; next <= all.length; next++) {
      if (next == all.length || all[next] != all[next - 1] + 1) {
        if (next - first > limit) {
          found.add(
              new Run(
                  LocalDate.ofEpochDay(all[first]),
                  LocalDate.ofEpochDay(all[next - 1]).plusDays(1)));
        }
        first = next;
      }
    }
    return found;
  }

  private void nights(List<Work> works, List<TimeSpan> timed, boolean maybe) {
    if (limits.nightsInARow() == 0 || only.filter(one -> isByDay(one.span())).isPresent()) {
      return;
    }
    List<LocalDate> nights = new ArrayList<>();
    LocalDate next = LocalDate.MIN;
    for (TimeSpan one : timed) {
      if (isByDay(one)) {
        continue;
      }
      LocalDate until = of.day(one.end());
      LocalDate before = of.day(one.start()).minusDays(1);
      // Each night is looked at once, with all that is in it.
      next = next.isAfter(before) ? next : before;
      for (; !next.isAfter(until); next = next.plusDays(1)) {
        Optional<TimeSpan> night = night(next);
        if (night.isPresent()
            && Spans.within(Spans.near(timed, night.get()), night.get()).compareTo(A_NIGHT) >= 0) {
          nights.add(next);
        }
      }
    }
    for (Run run : runs(nights, limits.nightsInARow())) {
      List<TimeSpan> all =
          run.first().datesUntil(run.until()).flatMap(day -> night(day).stream()).toList();
      TimeSpan span = TimeSpan.of(all.get(0).start(), all.get(all.size() - 1).end());
      add(Clash.Kind.NIGHTS, maybe, in(works, all), span);
    }
  }

  /** From six until eleven of one day. */
  private boolean isByDay(TimeSpan one) {
    LocalDateTime start = LocalTimes.local(one.start(), of.zone());
    LocalDateTime end = LocalTimes.local(one.end(), of.zone());
    return start.toLocalDate().equals(end.toLocalDate())
        && !start.toLocalTime().isBefore(NIGHT_UNTIL)
        && !end.toLocalTime().isAfter(NIGHT_FROM);
  }

  private Optional<TimeSpan> night(LocalDate day) {
    return LocalTimes.span(day, NIGHT_FROM, NIGHT_UNTIL, of.zone());
  }

  private static List<Work> in(List<Work> works, List<TimeSpan> spans) {
    List<Work> found = new ArrayList<>();
    for (Work one : works) {
      if (!one.allDay() && Spans.meet(spans, one.span())) {
        found.add(one);
      }
    }
    return found;
  }

  /** What is only tentative adds a warning where sure work alone has none. */
  private void add(Clash.Kind kind, boolean maybe, List<Work> in, TimeSpan span) {
    boolean said =
        maybe
            && (in.stream().noneMatch(Work::tentative)
                || found.stream()
                    .anyMatch(
                        one ->
                            one.kind() == kind
                                && one.items().stream()
                                    .allMatch(
                                        item -> in.stream().anyMatch(w -> w.item().equals(item)))
                                && one.span().overlaps(span)));
    if (!said) {
      found.add(
          Clash.of(
              of.person(),
              kind,
              maybe ? Clash.Level.WARN : limits.level(kind),
              List.of(),
              in.stream().map(Work::item).toList(),
              span));
    }
  }
}
