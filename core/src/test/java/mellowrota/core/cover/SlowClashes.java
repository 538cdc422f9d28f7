package mellowrota.core.cover;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.IntPredicate;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.PlaceId;

/** What clashes, by looking at each minute by itself; slow and plain, to compare with. */
final class SlowClashes {

  private final Commitments of;
  private final Limits limits;
  private final Travel travel;
  private final Instant zero;
  private final int minutes;
  private final LocalDate[] days;
  private final Map<Optional<PlaceId>, boolean[]> hours = new HashMap<>();
  private final Map<Set<Clash.Item>, Map<Clash.Kind, TimeSpan>> pairs = new HashMap<>();
  private final List<Clash> found = new ArrayList<>();

  SlowClashes(Commitments of, Limits limits, Travel travel, TimeSpan range) {
    this.of = of;
    this.limits = limits;
    this.travel = travel;
    zero = range.start();
    minutes = (int) range.length().toMinutes();
    days = new LocalDate[minutes];
    for (int m = 0; m < minutes; m++) {
      days[m] = of.day(at(m));
    }
  }

  Set<Clash> clashes() {
    List<Work> sure = of.work().stream().filter(w -> !w.tentative()).toList();
    look(sure, true);
    look(of.work(), false);
    pairs.forEach(this::pair);
    return new HashSet<>(found);
  }

  private void pair(Set<Clash.Item> items, Map<Clash.Kind, TimeSpan> kinds) {
    boolean soft =
        items.stream()
            .anyMatch(
                item ->
                    of.work().stream().anyMatch(w -> w.item().equals(item) && w.tentative())
                        || of.busyItems(true).contains(item));
    List<Clash.Kind> order = new ArrayList<>();
    if (!soft) {
      kinds.keySet().stream()
          .filter(kind -> limits.level(kind) == Clash.Level.NEVER)
          .forEach(order::add);
    }
    kinds.keySet().stream().filter(kind -> !order.contains(kind)).forEach(order::add);
    Clash.Level level = soft ? Clash.Level.WARN : limits.level(order.get(0));
    List<Clash.Item> byStart = new ArrayList<>(items);
    byStart.sort((a, b) -> key(a).compareTo(key(b)));
    found.add(
        Clash.of(
            of.person(),
            order.get(0),
            level,
            order.subList(1, order.size()),
            byStart,
            kinds.get(order.get(0))));
  }

  private static String key(Clash.Item item) {
    return "%015d %015d %d %s"
        .formatted(
            item.span().start().getEpochSecond(),
            item.span().end().getEpochSecond(),
            item.sort().ordinal(),
            item.id());
  }

  private Instant at(int minute) {
    return zero.plusSeconds(60L * minute);
  }

  private int minute(Instant at) {
    return (int) Duration.between(zero, at).toMinutes();
  }

  private static boolean in(TimeSpan span, Instant at) {
    return !at.isBefore(span.start()) && at.isBefore(span.end());
  }

  /** Spans of minutes that hold. */
  private List<TimeSpan> spans(IntPredicate holds) {
    return spans(TimeSpan.of(zero, at(minutes)), holds);
  }

  private List<TimeSpan> spans(TimeSpan in, IntPredicate holds) {
    List<TimeSpan> all = new ArrayList<>();
    int from = -1;
    int until = minute(in.end());
    for (int m = minute(in.start()); m <= until; m++) {
      boolean now = m < until && holds.test(m);
      if (now && from < 0) {
        from = m;
      } else if (!now && from >= 0) {
        all.add(TimeSpan.of(at(from), at(m)));
        from = -1;
      }
    }
    return all;
  }

  private void look(List<Work> works, boolean sure) {
    twos(works, sure);
    besides(works, sure);
    List<Work> ranked = works.stream().filter(w -> w.tentative() != sure).toList();
    if (!of.hours().isUnsaid()) {
      each(Clash.Kind.HOURS, ranked, sure, this::outside);
      each(Clash.Kind.MARGIN, ranked, sure, this::marginOutside);
    }
    each(Clash.Kind.SKILL, ranked, sure, this::unskilled);
    each(Clash.Kind.LEFT, ranked, sure, this::left);
    sums(works, sure);
  }

  private void twos(List<Work> works, boolean sure) {
    for (Work a : works) {
      for (Work b : works) {
        boolean ranked = sure != (a.tentative() || b.tentative());
        if (a == b || !ranked || a.meanwhile() || b.meanwhile()) {
          continue;
        }
        List<TimeSpan> both = spans(a.span(), m -> in(b.span(), at(m)));
        if (!both.isEmpty()) {
          put(a.item(), b.item(), Clash.Kind.DOUBLE, both.get(0));
          continue;
        }
        boolean next =
            !a.span().end().isAfter(b.span().start())
                && works.stream()
                    .noneMatch(
                        x ->
                            !x.meanwhile()
                                && x.span().start().isBefore(b.span().start())
                                && x.span().end().isAfter(a.span().end()));
        if (next) {
          TimeSpan between = TimeSpan.of(a.span().end(), b.span().start());
          long gap = between.length().toMinutes();
          long left = a.allDay() ? 0 : after(a).toMinutes();
          long right = b.allDay() ? 0 : before(b).toMinutes();
          boolean together = a.place().isPresent() && a.place().equals(b.place());
          if (gap < (together ? Math.max(left, right) : left + right)) {
            put(a.item(), b.item(), Clash.Kind.MARGIN, between);
          }
          if (!a.allDay() && !b.allDay() && a.place().isPresent() && b.place().isPresent()) {
            Optional<Duration> way = travel.between(a.place().get(), b.place().get());
            if (way.isPresent() && gap < way.get().toMinutes()) {
              put(a.item(), b.item(), Clash.Kind.TRAVEL, between);
            }
          }
        }
      }
    }
  }

  private Duration before(Work w) {
    return w.margins().before().or(of.margins()::before).orElse(Duration.ZERO);
  }

  private Duration after(Work w) {
    return w.margins().after().or(of.margins()::after).orElse(Duration.ZERO);
  }

  private void put(Clash.Item a, Clash.Item b, Clash.Kind kind, TimeSpan span) {
    pairs
        .computeIfAbsent(new LinkedHashSet<>(List.of(a, b)), key -> new EnumMap<>(Clash.Kind.class))
        .put(kind, span);
  }

  private void besides(List<Work> works, boolean sure) {
    for (Work w : works) {
      if (!sure && !w.tentative()) {
        continue;
      }
      of.leave().forEach(l -> beside(w, l.item(), Clash.Kind.LEAVE));
      of.busyItems(false).forEach(b -> beside(w, b, Clash.Kind.BUSY));
      of.busyItems(true).forEach(b -> beside(w, b, Clash.Kind.BUSY));
    }
  }

  private void beside(Work w, Clash.Item item, Clash.Kind kind) {
    List<TimeSpan> both = spans(w.span(), m -> in(item.span(), at(m)));
    if (!both.isEmpty()) {
      put(w.item(), item, kind, both.get(0));
    } else if (!w.allDay() && !w.meanwhile()) {
      TimeSpan wide = TimeSpan.of(w.span().start().minus(before(w)), w.span().end().plus(after(w)));
      List<TimeSpan> margin = spans(wide, m -> in(item.span(), at(m)));
      if (!margin.isEmpty()) {
        put(w.item(), item, Clash.Kind.MARGIN, margin.get(0));
      }
    }
  }

  private interface Wrong {
    boolean test(Work work, int minute);
  }

  private void each(Clash.Kind kind, List<Work> works, boolean sure, Wrong wrong) {
    Map<Integer, List<Work>> at = new HashMap<>();
    for (Work w : works) {
      int from = Math.max(0, minute(w.span().start()) - 300);
      int until = Math.min(minutes, minute(w.span().end()) + 300);
      for (int m = from; m < until; m++) {
        if (wrong.test(w, m)) {
          at.computeIfAbsent(m, key -> new ArrayList<>()).add(w);
        }
      }
    }
    for (TimeSpan span : spans(at::containsKey)) {
      Set<Work> all = new HashSet<>();
      for (int m = minute(span.start()); m < minute(span.end()); m++) {
        all.addAll(at.get(m));
      }
      add(kind, sure, all, span);
    }
  }

  private boolean[] hours(Optional<PlaceId> place) {
    return hours.computeIfAbsent(
        place,
        key -> {
          boolean[] open = new boolean[minutes];
          LocalDate first = LocalDate.ofInstant(zero, of.zone()).minusDays(3);
          LocalDate end = LocalDate.ofInstant(at(minutes), of.zone()).plusDays(3);
          for (LocalDate day = first; day.isBefore(end); day = day.plusDays(1)) {
            mark(open, place, day);
          }
          return open;
        });
  }

  private void mark(boolean[] open, Optional<PlaceId> place, LocalDate day) {
    for (Hours.Weekly w : of.hours().weekly()) {
      boolean holds =
          day.getDayOfWeek() == w.weekday()
              && (w.first().isEmpty() || !day.isBefore(w.first().get()))
              && (w.last().isEmpty() || !day.isAfter(w.last().get()))
              && (w.place().isEmpty() || w.place().equals(place));
      for (Hours.Dated d : of.hours().dated()) {
        holds &= !(d.day().equals(day) && (d.place().isEmpty() || d.place().equals(w.place())));
      }
      if (holds) {
        mark(open, day, w.from(), w.until(), w.zone());
      }
    }
    for (Hours.Dated d : of.hours().dated()) {
      if (d.day().equals(day) && (d.place().isEmpty() || d.place().equals(place))) {
        d.times().forEach(c -> mark(open, day, c.from(), c.until(), d.zone()));
      }
    }
  }

  private void mark(boolean[] open, LocalDate day, LocalTime from, LocalTime until, ZoneId zone) {
    LocalDate last = until.isAfter(from) ? day : day.plusDays(1);
    int begin = minute(ZonedDateTime.ofLocal(day.atTime(from), zone, null).toInstant());
    int end = minute(ZonedDateTime.ofLocal(last.atTime(until), zone, null).toInstant());
    for (int m = Math.max(0, begin); m < Math.min(minutes, end); m++) {
      open[m] = true;
    }
  }

  private boolean outside(Work w, int minute) {
    if (!in(w.span(), at(minute))) {
      return false;
    }
    if (!w.allDay()) {
      return !hours(w.place())[minute];
    }
    LocalDate day = days[minute];
    boolean[] open = hours(w.place());
    for (int m = Math.max(0, minute - 1500); m < Math.min(minutes, minute + 1500); m++) {
      if (open[m] && days[m].equals(day)) {
        return false;
      }
    }
    return true;
  }

  private boolean marginOutside(Work w, int minute) {
    if (w.allDay() || w.meanwhile() || hours(w.place())[minute]) {
      return false;
    }
    int start = minute(w.span().start());
    int end = minute(w.span().end());
    boolean before = minute < start && minute >= start - before(w).toMinutes();
    boolean after = minute >= end && minute < end + after(w).toMinutes();
    return before && hours(w.place())[start] || after && hours(w.place())[end - 1];
  }

  private boolean unskilled(Work w, int minute) {
    List<Optional<String>> places = new ArrayList<>(w.asks().throughout());
    w.asks().needs().stream()
        .filter(need -> in(need.span(), at(minute)))
        .forEach(need -> places.addAll(need.places()));
    if (places.isEmpty() || !in(w.span(), at(minute))) {
      return false;
    }
    LocalDate day = LocalDate.ofInstant(at(minute), w.site());
    for (Optional<String> skill : places) {
      Validity days = skill.map(of.able().skills()::get).orElse(null);
      if (skill.isEmpty()
          || days != null
              && days.first().map(first -> !day.isBefore(first)).orElse(true)
              && days.last().map(last -> !day.isAfter(last)).orElse(true)) {
        return false;
      }
    }
    return true;
  }

  private boolean left(Work w, int minute) {
    return in(w.span(), at(minute))
        && of.able().until().map(until -> !at(minute).isBefore(until)).orElse(false);
  }

  private void sums(List<Work> works, boolean sure) {
    List<Work> timed = works.stream().filter(w -> !w.allDay()).toList();
    boolean[] busy = new boolean[minutes];
    for (Work w : timed) {
      for (int m = minute(w.span().start()); m < minute(w.span().end()); m++) {
        busy[m] = true;
      }
    }
    List<TimeSpan> stretches = spans(m -> busy[m]);
    for (TimeSpan one : stretches) {
      if (one.length().compareTo(limits.longest()) > 0) {
        add(Clash.Kind.LONGEST, sure, at(timed, one), one);
      }
    }
    rest(timed, sure, stretches);
    TreeMap<LocalDate, Integer> weeks = new TreeMap<>();
    TreeMap<LocalDate, Integer> nights = new TreeMap<>();
    for (int m = 0; m < minutes; m++) {
      if (busy[m]) {
        LocalDateTime local = LocalDateTime.ofInstant(at(m), of.zone());
        weeks.merge(week(local.toLocalDate()), 1, Integer::sum);
        if (local.getHour() == 23 || local.getHour() < 6) {
          nights.merge(local.toLocalDate().minusDays(local.getHour() < 6 ? 1 : 0), 1, Integer::sum);
        }
      }
    }
    weeks.forEach(
        (week, sum) -> {
          if (sum > limits.week().toMinutes()) {
            TimeSpan span = days(week, week.plusWeeks(1));
            add(Clash.Kind.WEEK, sure, at(timed, span), span);
          }
        });
    TreeSet<LocalDate> begun = new TreeSet<>();
    for (Work w : works) {
      LocalDate day = of.day(w.span().start());
      begun.add(day);
      for (int m = minute(w.span().start()); w.allDay() && m < minute(w.span().end()); m++) {
        begun.add(days[m]);
      }
    }
    for (List<LocalDate> run : runs(begun)) {
      if (run.size() > limits.daysInARow()) {
        List<Work> all =
            works.stream().filter(w -> run.contains(of.day(w.span().start()))).toList();
        add(Clash.Kind.DAYS, sure, all, days(run.get(0), run.get(run.size() - 1).plusDays(1)));
      }
    }
    nights.values().removeIf(sum -> sum < 180);
    for (List<LocalDate> run : runs(new TreeSet<>(nights.keySet()))) {
      if (run.size() > limits.nightsInARow()) {
        Set<Work> all = new HashSet<>();
        run.forEach(
            day -> all.addAll(at(timed, TimeSpan.of(local(day, 23), local(day.plusDays(1), 6)))));
        add(
            Clash.Kind.NIGHTS,
            sure,
            all,
            TimeSpan.of(local(run.get(0), 23), local(run.get(run.size() - 1).plusDays(1), 6)));
      }
    }
  }

  private Instant local(LocalDate day, int hour) {
    return ZonedDateTime.ofLocal(day.atTime(hour, 0), of.zone(), null).toInstant();
  }

  private LocalDate week(LocalDate day) {
    LocalDate first = day;
    while (first.getDayOfWeek() != limits.weekBegins()) {
      first = first.minusDays(1);
    }
    return first;
  }

  private TimeSpan days(LocalDate first, LocalDate until) {
    return TimeSpan.of(of.start(first), of.start(until));
  }

  private static List<List<LocalDate>> runs(TreeSet<LocalDate> days) {
    List<List<LocalDate>> all = new ArrayList<>();
    for (LocalDate day : days) {
      if (!days.contains(day.minusDays(1))) {
        all.add(new ArrayList<>());
      }
      all.get(all.size() - 1).add(day);
    }
    return all;
  }

  private static List<Work> at(Collection<Work> works, TimeSpan span) {
    return works.stream().filter(w -> w.span().overlaps(span)).toList();
  }

  private void rest(List<Work> timed, boolean sure, List<TimeSpan> stretches) {
    for (int i = 1; i < stretches.size(); i++) {
      TimeSpan rest = TimeSpan.of(stretches.get(i - 1).end(), stretches.get(i).start());
      LocalDate began = of.day(stretches.get(i - 1).start());
      boolean pause =
          began.equals(of.day(stretches.get(i).start())) && rest.length().toMinutes() < 180;
      if (pause || rest.length().compareTo(limits.rest()) >= 0) {
        continue;
      }
      Work last = null;
      Work next = null;
      for (Work w : timed) {
        if (w.span().end().equals(rest.start())
            && (last == null
                || w.item().span().start().isBefore(last.span().start())
                || w.span().equals(last.span()) && w.id().compareTo(last.id()) < 0)) {
          last = w;
        }
        if (w.span().start().equals(rest.end())
            && (next == null
                || w.span().end().isBefore(next.span().end())
                || w.span().equals(next.span()) && w.id().compareTo(next.id()) < 0)) {
          next = w;
        }
      }
      if (sure != (last.tentative() || next.tentative())) {
        put(last.item(), next.item(), Clash.Kind.REST, rest);
      }
    }
  }

  private void add(Clash.Kind kind, boolean sure, Collection<Work> works, TimeSpan span) {
    List<Clash.Item> items = works.stream().sorted(Work.BY_START).map(Work::item).toList();
    if (!sure) {
      boolean tentative = works.stream().anyMatch(Work::tentative);
      boolean said =
          found.stream()
              .anyMatch(
                  c -> c.kind() == kind && c.span().overlaps(span) && items.containsAll(c.items()));
      if (!tentative || said) {
        return;
      }
    }
    found.add(
        Clash.of(
            of.person(),
            kind,
            sure ? limits.level(kind) : Clash.Level.WARN,
            List.of(),
            items,
            span));
  }
}
