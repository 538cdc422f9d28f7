package mellowrota.core.cover;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.time.TimeSpan;

/** What of a person's things cannot stand beside one another, two by two (COVER 15, 17, 19, 20). */
final class Pairs {

  /** Unordered: the earlier is named first. */
  private record Pair(Clash.Item one, Clash.Item other) {
    private static final Comparator<Clash.Item> FIRST =
        Comparator.comparing((Clash.Item item) -> item.span().start())
            .thenComparing(item -> item.span().end())
            .thenComparing(Clash.Item::sort)
            .thenComparing(Clash.Item::id);

    static Pair of(Clash.Item one, Clash.Item other) {
      return FIRST.compare(one, other) <= 0 ? new Pair(one, other) : new Pair(other, one);
    }
  }

  private final Commitments of;
  private final Limits limits;
  private final Travel travel;
  private final Optional<Work> only;
  private final Map<Pair, Map<Clash.Kind, TimeSpan>> found = new HashMap<>();
  private final Set<Pair> soft = new HashSet<>();
  private final List<Clash.Item> busy;
  private final List<Clash.Item> busyMaybe;

  /**
   * @param only no pair without it is looked at; empty: all are
   */
  Pairs(Commitments of, Limits limits, Travel travel, Optional<Work> only) {
    this.of = of;
    this.limits = limits;
    this.travel = travel;
    this.only = only;
    busy = of.busyItems(false);
    busyMaybe = of.busyItems(true);
  }

  /**
   * Looks at some of their works by themselves: first at those that are sure, then at all, so that
   * what is tentative hides nothing.
   *
   * @param all by start
   */
  void look(List<Work> all, boolean sure) {
    overlaps(all, sure);
    neighbours(all, sure);
    rests(all, sure);
    for (Work one : all) {
      if ((sure || one.tentative()) && isAbout(one, one)) {
        beside(one);
      }
    }
  }

  private boolean isAbout(Work one, Work other) {
    return only.isEmpty() || one == only.get() || other == only.get();
  }

  private void overlaps(List<Work> all, boolean sure) {
    List<Work> active = new ArrayList<>();
    for (Work one : all) {
      if (!active.isEmpty()) {
        active.removeIf(other -> !other.span().end().isAfter(one.span().start()));
      }
      for (Work other : active) {
        if (!one.meanwhile() && !other.meanwhile() && isAbout(one, other)) {
          add(other, one, sure, Clash.Kind.DOUBLE, one.span().intersection(other.span()));
        }
      }
      active.add(one);
    }
  }

  /** Works between which nothing else of theirs lies. */
  private void neighbours(List<Work> all, boolean sure) {
    List<Work> moving = all.stream().filter(one -> !one.meanwhile()).toList();
    Instant[] latest = new Instant[moving.size() + 1];
    for (int next = 0; next < moving.size(); next++) {
      // The latest end of those that begin before it; who ends then, and not after it began, is
      // next to it.
      Work after = moving.get(next);
      Instant begins = after.span().start();
      if (next > 0) {
        Instant ends = moving.get(next - 1).span().end();
        latest[next] =
            latest[next - 1] == null || ends.isAfter(latest[next - 1]) ? ends : latest[next - 1];
      }
      int first = next;
      while (first > 0 && moving.get(first - 1).span().start().equals(begins)) {
        first--;
      }
      Instant ends = latest[first];
      if (ends == null || ends.isAfter(begins)) {
        continue;
      }
      for (int before = first - 1; before >= 0; before--) {
        if (moving.get(before).span().end().equals(ends)) {
          neighbours(moving.get(before), after, sure);
        }
        if (before > 0 && latest[before] != null && latest[before].isBefore(ends)) {
          break;
        }
      }
    }
  }

  private void neighbours(Work before, Work after, boolean sure) {
    if (!isAbout(before, after)) {
      return;
    }
    TimeSpan between = TimeSpan.of(before.span().end(), after.span().start());
    boolean together = before.place().isPresent() && before.place().equals(after.place());
    Duration left = before.margin().after();
    Duration right = after.margin().before();
    Duration wanted = together ? (left.compareTo(right) > 0 ? left : right) : left.plus(right);
    if (!wanted.isZero() && between.length().compareTo(wanted) < 0) {
      add(before, after, sure, Clash.Kind.MARGIN, Optional.of(between));
    }
    Optional<Duration> way = way(before, after);
    if (way.isPresent() && between.length().compareTo(way.get()) < 0) {
      add(before, after, sure, Clash.Kind.TRAVEL, Optional.of(between));
    }
  }

  /** Empty: not tested. */
  private Optional<Duration> way(Work before, Work after) {
    if (before.allDay() || after.allDay() || before.place().isEmpty() || after.place().isEmpty()) {
      return Optional.empty();
    }
    return travel.between(before.place().get(), after.place().get());
  }

  private void rests(List<Work> all, boolean sure) {
    if (limits.rest().isZero()) {
      return;
    }
    Stretch before = null;
    for (Stretch next : Stretch.withBreaks(of, all)) {
      if (before != null) {
        TimeSpan rest = TimeSpan.of(before.span().end(), next.span().start());
        if (rest.length().compareTo(limits.rest()) < 0
            && isAbout(before.last(), next.works().get(0))) {
          add(before.last(), next.works().get(0), sure, Clash.Kind.REST, Optional.of(rest));
        }
      }
      before = next;
    }
  }

  /** Beside leave and what they have elsewhere. */
  private void beside(Work one) {
    TimeSpan wide = one.withMargin();
    for (Commitments.Leave leave : of.leave()) {
      if (meets(leave.span(), wide)) {
        beside(one, leave.item(), Clash.Kind.LEAVE, false);
      }
    }
    for (List<Clash.Item> items : List.of(busy, busyMaybe)) {
      for (Clash.Item item : items) {
        if (meets(item.span(), wide)) {
          beside(one, item, Clash.Kind.BUSY, items == busyMaybe);
        }
      }
    }
  }

  private static boolean meets(TimeSpan span, TimeSpan wide) {
    return span.start().isBefore(wide.end()) && span.end().isAfter(wide.start());
  }

  private void beside(Work one, Clash.Item item, Clash.Kind kind, boolean maybe) {
    Optional<TimeSpan> both = one.span().intersection(item.span());
    Optional<TimeSpan> margin =
        both.isPresent()
            ? Optional.empty()
            : before(one).intersection(item.span()).or(() -> after(one).intersection(item.span()));
    if (both.isPresent()) {
      put(Pair.of(one.item(), item), one.tentative() || maybe, kind, both.get());
    } else if (margin.isPresent()) {
      put(Pair.of(one.item(), item), true, Clash.Kind.MARGIN, margin.get());
    }
  }

  static TimeSpan before(Work one) {
    return TimeSpan.of(one.span().start().minus(one.margin().before()), one.span().start());
  }

  static TimeSpan after(Work one) {
    return TimeSpan.of(one.span().end(), one.span().end().plus(one.margin().after()));
  }

  private void add(Work one, Work other, boolean sure, Clash.Kind kind, Optional<TimeSpan> span) {
    boolean maybe = one.tentative() || other.tentative();
    if (span.isPresent() && sure != maybe) {
      put(Pair.of(one.item(), other.item()), maybe, kind, span.get());
    }
  }

  private void put(Pair pair, boolean maybe, Clash.Kind kind, TimeSpan span) {
    found.computeIfAbsent(pair, key -> new EnumMap<>(Clash.Kind.class)).putIfAbsent(kind, span);
    if (maybe) {
      soft.add(pair);
    }
  }

  /** One clash a pair, as strict as the strictest of what is wrong with it. */
  List<Clash> clashes() {
    List<Clash> clashes = new ArrayList<>();
    found.forEach(
        (pair, kinds) -> {
          boolean maybe = soft.contains(pair);
          List<Clash.Kind> byWeight = new ArrayList<>(kinds.keySet());
          byWeight.sort(
              Comparator.comparing((Clash.Kind kind) -> level(kind, maybe))
                  .thenComparing(Comparator.naturalOrder()));
          Clash.Kind first = byWeight.get(0);
          clashes.add(
              Clash.of(
                  of.person(),
                  first,
                  level(first, maybe),
                  byWeight.subList(1, byWeight.size()),
                  List.of(pair.one(), pair.other()),
                  kinds.get(first)));
        });
    return clashes;
  }

  private Clash.Level level(Clash.Kind kind, boolean maybe) {
    return maybe ? Clash.Level.WARN : limits.level(kind);
  }
}
