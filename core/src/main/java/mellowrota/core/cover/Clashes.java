package mellowrota.core.cover;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.PlaceId;

/**
 * What clashes (COVER 15 to 24). Sure things are looked at by themselves first, then all of them:
 * what is tentative hides nothing and only adds warnings. The cost of a person grows with their
 * works times the logarithm of them, and with works at once.
 */
public final class Clashes {

  private Clashes() {}

  /** All of one person's, by start; cut nothing off: rest, weeks and runs need what lies around. */
  public static List<Clash> of(Commitments of, Limits limits, Travel travel) {
    return of(of, limits, travel, Optional.empty());
  }

  /** Those among all of theirs that a work is in which they would have beside what they have. */
  public static List<Clash> involving(Work trial, Commitments of, Limits limits, Travel travel) {
    if (trial.span().isEmpty()) {
      return List.of();
    }
    Work theirs = of.asTheirs(trial);
    List<Clash> found = of(of.and(theirs), limits, travel, Optional.of(theirs));
    found.removeIf(one -> !one.involves(trial.id()));
    return found;
  }

  private static List<Clash> of(Commitments of, Limits limits, Travel travel, Optional<Work> only) {
    List<Work> all = new ArrayList<>(of.work());
    all.removeIf(one -> one.span().isEmpty());
    if (all.isEmpty()) {
      return List.of();
    }
    all.sort(Work.BY_START);
    List<Work> sure = new ArrayList<>(all.size());
    List<Work> maybe = new ArrayList<>(0);
    Instant end = all.get(0).span().end();
    for (Work one : all) {
      (one.tentative() ? maybe : sure).add(one);
      end = one.span().end().isAfter(end) ? one.span().end() : end;
    }
    Pairs pairs = new Pairs(of, limits, travel, only);
    pairs.look(sure, true);
    Runs runs = new Runs(of, limits, TimeSpan.of(all.get(0).span().start(), end), only);
    runs.minutes(sure, false);
    runs.sums(sure, false);
    if (!maybe.isEmpty()) {
      pairs.look(all, false);
      runs.minutes(maybe, true);
      runs.sums(all, true);
    }
    List<Clash> found = pairs.clashes();
    found.addAll(runs.clashes());
    found.sort(Clash.BY_START);
    return found;
  }

  /**
   * Something that stands in a place for a time.
   *
   * @param id of the visit; who comes to one that stands there already makes no other visit
   * @param people who are there for it
   */
  public record Stay(String id, TimeSpan span, Set<PersonId> people, boolean tentative) {
    public Stay {
      people = Set.copyOf(people);
    }
  }

  /** How much a place holds at once: visits, or the different people on them. */
  public record Capacity(PlaceId place, int most, boolean ofPeople) {}

  /** Where a place holds too much; neighbouring minutes are one, with all that stands there. */
  public static List<Clash> of(Capacity capacity, Collection<Stay> stays, Limits limits) {
    List<Stay> sure = stays.stream().filter(one -> !one.tentative()).toList();
    List<Clash> found = new ArrayList<>(over(capacity, sure, limits.level(Clash.Kind.CAPACITY)));
    if (sure.size() < stays.size()) {
      for (Clash one : over(capacity, stays, Clash.Level.WARN)) {
        if (found.stream().noneMatch(said -> said.span().overlaps(one.span()))) {
          found.add(one);
        }
      }
    }
    found.sort(Clash.BY_START);
    return found;
  }

  /**
   * Where something stands at a place while that is shut, each with each time (COVER 18b): nobody's
   * clash, which only warns.
   *
   * @param opening when it is open; where nothing is said it always is
   * @param stays with their own times, without margins; not what takes whole days
   */
  public static List<Clash> shut(PlaceId place, Hours opening, Collection<Stay> stays) {
    List<Clash> found = new ArrayList<>();
    if (opening.isUnsaid()) {
      return found;
    }
    for (Stay one : stays) {
      List<TimeSpan> open = opening.at(Optional.empty(), one.span());
      List<Clash.Item> item = List.of(new Clash.Item(Clash.Sort.WORK, one.id(), one.span()));
      for (TimeSpan span : Spans.without(one.span(), open)) {
        found.add(Clash.at(place, Clash.Kind.SHUT, Clash.Level.WARN, item, span));
      }
    }
    found.sort(Clash.BY_START);
    return found;
  }

  private static List<Clash> over(Capacity capacity, Collection<Stay> stays, Clash.Level level) {
    TreeMap<Instant, List<Stay>> steps = new TreeMap<>();
    for (Stay one : stays) {
      if (!one.span().isEmpty()) {
        steps.computeIfAbsent(one.span().start(), key -> new ArrayList<>()).add(one);
        steps.computeIfAbsent(one.span().end(), key -> new ArrayList<>());
      }
    }
    List<Clash> found = new ArrayList<>();
    List<Stay> here = new ArrayList<>();
    Instant from = null;
    for (Map.Entry<Instant, List<Stay>> step : steps.entrySet()) {
      here.removeIf(one -> !one.span().end().isAfter(step.getKey()));
      here.addAll(step.getValue());
      long now = count(capacity, here);
      if (now > capacity.most() && from == null) {
        from = step.getKey();
      } else if (now <= capacity.most() && from != null) {
        TimeSpan span = TimeSpan.of(from, step.getKey());
        List<Clash.Item> items =
            stays.stream()
                .filter(one -> one.span().overlaps(span))
                .sorted(
                    Comparator.comparing((Stay one) -> one.span().start()).thenComparing(Stay::id))
                .map(one -> new Clash.Item(Clash.Sort.WORK, one.id(), one.span()))
                .distinct()
                .toList();
        found.add(Clash.at(capacity.place(), Clash.Kind.CAPACITY, level, items, span));
        from = null;
      }
    }
    return found;
  }

  private static long count(Capacity capacity, Collection<Stay> here) {
    return here.stream()
        .flatMap(one -> capacity.ofPeople() ? one.people().stream() : Stream.of(one.id()))
        .distinct()
        .count();
  }

  /** By how much too much is there in a span: each minute by each that it is over. */
  static long excess(Capacity capacity, Collection<Stay> stays, TimeSpan span) {
    TreeSet<Instant> bounds = new TreeSet<>(Set.of(span.start(), span.end()));
    for (Stay one : stays) {
      one.span().intersection(span).ifPresent(in -> bounds.addAll(List.of(in.start(), in.end())));
    }
    long sum = 0;
    for (Instant from : bounds.headSet(span.end())) {
      TimeSpan part = TimeSpan.of(from, bounds.higher(from));
      List<Stay> here = stays.stream().filter(one -> one.span().overlaps(part)).toList();
      sum += Math.max(0, count(capacity, here) - capacity.most()) * part.length().toMinutes();
    }
    return sum;
  }

  /** Something of theirs that is due; a plain date is that date, a time their local day. */
  public record DueItem(String id, LocalDate day, boolean tentative) {
    public DueItem {
      Objects.requireNonNull(id, "id");
      Objects.requireNonNull(day, "day");
    }
  }

  /** Days on which too much is due for one person; counted apart from other clashes. */
  public static List<Clash> pileUps(Commitments of, Collection<DueItem> due, Limits limits) {
    if (limits.dueADay() == 0) {
      return List.of();
    }
    TreeMap<LocalDate, TreeMap<String, DueItem>> byDay = new TreeMap<>();
    due.forEach(one -> byDay.computeIfAbsent(one.day(), key -> new TreeMap<>()).put(one.id(), one));
    List<Clash> found = new ArrayList<>();
    byDay.forEach(
        (day, items) -> {
          if (items.size() >= limits.dueADay()) {
            TimeSpan span = TimeSpan.of(of.start(day), of.start(day.plusDays(1)));
            long sure = items.values().stream().filter(one -> !one.tentative()).count();
            found.add(
                Clash.of(
                    of.person(),
                    Clash.Kind.DUE,
                    sure < limits.dueADay() ? Clash.Level.WARN : limits.level(Clash.Kind.DUE),
                    List.of(),
                    items.keySet().stream()
                        .map(id -> new Clash.Item(Clash.Sort.WORK, id, span))
                        .toList(),
                    span));
          }
        });
    return found;
  }

  /** Those whose span meets a range. */
  public static List<Clash> in(List<Clash> clashes, TimeSpan range) {
    return clashes.stream()
        .filter(
            one ->
                one.span().overlaps(range)
                    || one.span().isEmpty()
                        && !one.span().start().isBefore(range.start())
                        && one.span().start().isBefore(range.end()))
        .toList();
  }
}
