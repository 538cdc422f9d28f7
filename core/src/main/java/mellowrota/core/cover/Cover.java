package mellowrota.core.cover;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BinaryOperator;
import java.util.function.Predicate;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;

/**
 * How far needs are filled, over any range (COVER 6 to 14).
 *
 * @param stretches each with one figure, by what asks and time
 */
public record Cover(List<Stretch> stretches) {

  /**
   * A time in which nothing changes.
   *
   * @param open the places that nobody fills, by the skills they want
   * @param maybe how many more would be filled by what is tentative
   */
  public record Stretch(Need need, TimeSpan span, List<Optional<String>> open, int maybe) {
    public Stretch {
      open = List.copyOf(open);
    }

    public int needed() {
      return need.places().size();
    }

    public int filled() {
      return needed() - open.size();
    }
  }

  /** A span with too few. */
  public record Gap(String of, TimeSpan span, List<Optional<String>> open) {
    public int shortBy() {
      return open.size();
    }

    /** What of it lies in a span that it overlaps. */
    public Gap within(TimeSpan part) {
      return new Gap(of, span.intersection(part).orElseThrow(), open);
    }
  }

  public Cover {
    stretches = List.copyOf(stretches);
  }

  /** Of some of what asks. */
  public Cover only(Predicate<String> by) {
    return new Cover(stretches.stream().filter(one -> by.test(one.need().by())).toList());
  }

  /** From nothing; who is not in {@code people} can do all that asks for no skill. */
  public static Cover of(
      Collection<Need> needs, Collection<Filling> fillings, Map<PersonId, Eligibility> people) {
    Map<String, List<Need>> byNeed = new TreeMap<>();
    needs.forEach(one -> byNeed.computeIfAbsent(one.by(), key -> new ArrayList<>()).add(one));
    Map<String, List<Asks>> asks = new HashMap<>();
    byNeed.forEach((key, list) -> asks.put(key, asks(list)));
    Map<String, List<Sits>> sits = new HashMap<>();
    Map<PersonId, List<Filling>> byPerson = new HashMap<>();
    fillings.forEach(
        one -> byPerson.computeIfAbsent(one.person(), key -> new ArrayList<>()).add(one));
    byPerson.forEach(
        (person, list) -> sits(list, asks, people.getOrDefault(person, Eligibility.PLAIN), sits));
    List<Stretch> found = new ArrayList<>();
    for (String key : byNeed.keySet()) {
      stretches(asks.get(key), sits.getOrDefault(key, List.of()), people, found);
    }
    return new Cover(found);
  }

  /** One need holds in it. */
  record Asks(Need need, Instant from, Instant until) {}

  /** Where spans of one overlap, the larger count asks; of equals the first. */
  static List<Asks> asks(List<Need> needs) {
    List<Instant> bounds = new ArrayList<>();
    for (Need need : needs) {
      bounds.add(need.span().start());
      bounds.add(need.span().end());
    }
    List<Need> byStart = new ArrayList<>(needs);
    byStart.sort(Comparator.comparing((Need need) -> need.span().start()));
    List<Asks> found = new ArrayList<>();
    List<Need> active = new ArrayList<>();
    int next = 0;
    Instant from = null;
    for (Instant until : inOrder(bounds)) {
      Instant begins = from;
      if (begins != null) {
        active.removeIf(need -> !need.span().end().isAfter(begins));
        while (next < byStart.size() && !byStart.get(next).span().start().isAfter(begins)) {
          if (byStart.get(next).span().end().isAfter(begins)) {
            active.add(byStart.get(next));
          }
          next++;
        }
        Need most = null;
        for (Need need : active) {
          most = most == null || need.places().size() > most.places().size() ? need : most;
        }
        if (most != null) {
          found.add(new Asks(most, begins, until));
        }
      }
      from = until;
    }
    return found;
  }

  /** Somebody who counts there, if the place fits. */
  record Sits(PersonId person, Instant from, Instant until, boolean tentative) {
    static final Comparator<Sits> BY_START =
        (one, other) -> {
          int order = one.from.compareTo(other.from);
          return order == 0 ? one.person.compareTo(other.person) : order;
        };
  }

  /**
   * One need at a time: the earliest given, confirmed before tentative; and what is stood beside.
   */
  static void sits(
      List<Filling> fillings,
      Map<String, List<Asks>> asks,
      Eligibility able,
      Map<String, List<Sits>> to) {
    record Piece(Filling filling, Instant from, Instant until) {}
    List<Piece> pieces = new ArrayList<>();
    List<Instant> bounds = new ArrayList<>();
    for (Filling filling : fillings) {
      List<Asks> all = asks.getOrDefault(filling.of(), List.of());
      for (int i = first(all, filling.span().start());
          i < all.size() && all.get(i).from().isBefore(filling.span().end());
          i++) {
        Asks one = all.get(i);
        Instant from = later(one.from(), filling.span().start());
        Instant until = earlier(one.until(), filling.span().end());
        if (able.until().isPresent()) {
          until = earlier(until, able.until().get());
        }
        if (from.isBefore(until)) {
          pieces.add(new Piece(filling, from, until));
          bounds.add(from);
          bounds.add(until);
        }
      }
    }
    for (TimeSpan leave : able.leave()) {
      bounds.add(leave.start());
      bounds.add(leave.end());
    }
    pieces.sort(Comparator.comparing(Piece::from));
    List<Piece> active = new ArrayList<>();
    int next = 0;
    Instant from = null;
    for (Instant until : inOrder(bounds)) {
      Instant begins = from;
      from = until;
      if (begins == null) {
        continue;
      }
      active.removeIf(piece -> !piece.until().isAfter(begins));
      while (next < pieces.size() && !pieces.get(next).from().isAfter(begins)) {
        if (pieces.get(next).until().isAfter(begins)) {
          active.add(pieces.get(next));
        }
        next++;
      }
      if (!Spans.holds(able.leave(), begins) && !active.isEmpty()) {
        counting(active.stream().map(Piece::filling).toList())
            .forEach(
                (key, one) ->
                    to.computeIfAbsent(key, none -> new ArrayList<>())
                        .add(new Sits(one.person(), begins, until, one.tentative())));
      }
    }
  }

  /** By what it is of: one of those that are in each other's way, and all others. */
  private static Map<String, Filling> counting(List<Filling> active) {
    Map<String, Filling> found = new HashMap<>();
    active.stream()
        .filter(one -> !one.meanwhile())
        .min(Filling.FIRST)
        .ifPresent(one -> found.put(one.of(), one));
    active.stream()
        .filter(Filling::meanwhile)
        .forEach(one -> found.merge(one.of(), one, BinaryOperator.minBy(Filling.FIRST)));
    return found;
  }

  /** Each once. */
  private static List<Instant> inOrder(List<Instant> moments) {
    moments.sort(Comparator.naturalOrder());
    List<Instant> found = new ArrayList<>(moments.size());
    Instant last = null;
    for (Instant one : moments) {
      if (!one.equals(last)) {
        found.add(one);
        last = one;
      }
    }
    return found;
  }

  /** Where those begin that end after a moment; they are by start and do not overlap. */
  static int first(List<Asks> asks, Instant after) {
    int from = 0;
    int until = asks.size();
    while (from < until) {
      int middle = (from + until) / 2;
      if (asks.get(middle).until().isAfter(after)) {
        until = middle;
      } else {
        from = middle + 1;
      }
    }
    return from;
  }

  private static Instant later(Instant one, Instant other) {
    return one.isAfter(other) ? one : other;
  }

  private static Instant earlier(Instant one, Instant other) {
    return one.isBefore(other) ? one : other;
  }

  static void stretches(
      List<Asks> asks, List<Sits> sits, Map<PersonId, Eligibility> people, List<Stretch> found) {
    List<Sits> byStart = new ArrayList<>(sits);
    byStart.sort(Sits.BY_START);
    List<Sits> active = new ArrayList<>();
    int next = 0;
    for (Asks one : asks) {
      active.removeIf(sit -> !sit.until().isAfter(one.from()));
      int to = next;
      while (to < byStart.size() && byStart.get(to).from().isBefore(one.until())) {
        to++;
      }
      List<Sits> here = new ArrayList<>(active);
      here.addAll(byStart.subList(next, to));
      next = to;
      List<Instant> bounds = new ArrayList<>();
      bounds.add(one.from());
      bounds.add(one.until());
      for (Sits sit : here) {
        bounds.add(sit.from());
        bounds.add(sit.until());
        for (Validity days :
            people.getOrDefault(sit.person(), Eligibility.PLAIN).skills().values()) {
          days.begins(one.need().zone()).ifPresent(bounds::add);
          days.ends(one.need().zone()).ifPresent(bounds::add);
        }
      }
      bounds.removeIf(at -> at.isBefore(one.from()) || at.isAfter(one.until()));
      Instant from = null;
      for (Instant until : inOrder(bounds)) {
        if (from != null) {
          found.add(stretch(one.need(), TimeSpan.of(from, until), here, people));
        }
        from = until;
      }
      active = here;
    }
  }

  private static Stretch stretch(
      Need need, TimeSpan span, List<Sits> here, Map<PersonId, Eligibility> people) {
    List<Seating.Sitter> sure = new ArrayList<>();
    List<Seating.Sitter> all = new ArrayList<>();
    for (Sits sit : here) {
      if (sit.from().isAfter(span.start()) || !sit.until().isAfter(span.start())) {
        continue;
      }
      Eligibility able = people.getOrDefault(sit.person(), Eligibility.PLAIN);
      boolean[] fits = new boolean[need.places().size()];
      for (int i = 0; i < fits.length; i++) {
        fits[i] = able.fits(need.places().get(i), span.start(), need.zone());
      }
      Seating.Sitter sitter = new Seating.Sitter(fits, able.notAlone());
      all.add(sitter);
      if (!sit.tentative()) {
        sure.add(sitter);
      }
    }
    List<Optional<String>> open = Seating.open(need.places(), sure);
    int maybe =
        all.size() == sure.size() ? 0 : open.size() - Seating.open(need.places(), all).size();
    return new Stretch(need, span, open, maybe);
  }

  /**
   * What is short, equal neighbours of one duty as one, over midnight and changes of shift; visits
   * stay apart. By start, then by what asks.
   */
  public List<Gap> gaps() {
    List<Gap> found = new ArrayList<>();
    Need last = null;
    for (Stretch one : stretches) {
      if (one.open().isEmpty()) {
        continue;
      }
      Gap before = found.isEmpty() ? null : found.get(found.size() - 1);
      List<Optional<String>> open = sorted(one.open());
      boolean joins =
          before != null
              && before.of().equals(one.need().by())
              && before.span().end().equals(one.span().start())
              && before.open().equals(open)
              && (one.need().merges() || one.need().equals(last));
      if (joins) {
        found.set(
            found.size() - 1,
            new Gap(before.of(), TimeSpan.of(before.span().start(), one.span().end()), open));
      } else {
        found.add(new Gap(one.need().by(), one.span(), open));
      }
      last = one.need();
    }
    found.sort(Comparator.comparing((Gap gap) -> gap.span().start()).thenComparing(Gap::of));
    return found;
  }

  /** What of it lies in a range. */
  public Cover within(TimeSpan range) {
    return new Cover(
        stretches.stream()
            .flatMap(
                one ->
                    one.span().intersection(range).stream()
                        .map(span -> new Stretch(one.need(), span, one.open(), one.maybe())))
            .toList());
  }

  /** Those not yet over by start, then those over, the latest first. */
  public List<Gap> gapsAt(Instant now) {
    List<Gap> coming = new ArrayList<>();
    List<Gap> over = new ArrayList<>();
    gaps().forEach(gap -> (gap.span().end().isAfter(now) ? coming : over).add(gap));
    over.sort(
        Comparator.comparing((Gap gap) -> gap.span().start()).reversed().thenComparing(Gap::of));
    coming.addAll(over);
    return coming;
  }

  private static List<Optional<String>> sorted(List<Optional<String>> open) {
    return open.size() < 2
        ? open
        : open.stream()
            .sorted(Comparator.comparing((Optional<String> skill) -> skill.orElse("")))
            .toList();
  }

  /** Needed person-minutes, and how many of them are filled. */
  public record Share(long filled, long needed) {

    /** In tenths of a per cent, rounded down; empty where nothing is needed. */
    public Optional<Long> perMille() {
      return needed == 0 ? Optional.empty() : Optional.of(1000 * filled / needed);
    }
  }

  public Share share() {
    long filled = 0;
    long needed = 0;
    for (Stretch one : stretches) {
      long minutes = one.span().length().toMinutes();
      filled += minutes * one.filled();
      needed += minutes * one.needed();
    }
    return new Share(filled, needed);
  }
}
