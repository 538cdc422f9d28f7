package mellowrota.core.cover;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;

/**
 * Suggests who fills what is short, so that as few person-minutes as can be stay open (branch and
 * bound over the places, by start; the first try is the best of those who could for each place in
 * turn, and another is taken only where less stays open). It breaks no limit that is never, and
 * gives nothing to whom nobody knows about, nor, unasked, to the office.
 */
public final class Fill {

  /** So many places are tried; what was best until then is told. */
  private static final int MOST_TRIES = 20_000;

  /** What more work may end: a stretch between two others closes the rest between them. */
  private static final Set<Clash.Kind> MAY_END =
      EnumSet.of(Clash.Kind.REST, Clash.Kind.TRAVEL, Clash.Kind.MARGIN);

  /**
   * What is short.
   *
   * @param work as it would be done, with the places that are missing
   * @param alone where nobody else would stand
   * @param there who stands there already
   * @param together all who come are on one visit; else each has one of their own
   */
  public record Short(
      String of, Work work, List<TimeSpan> alone, Set<PersonId> there, boolean together) {

    long minutes() {
      return work.span().length().toMinutes();
    }

    boolean isLonely() {
      return alone.stream().anyMatch(work.span()::overlaps);
    }
  }

  /**
   * One of those missing: given to somebody, or to nobody.
   *
   * @param nearest of those who may not, the best; only where it is given to nobody
   * @param reasons what warns of whom it is given to, else what speaks against the nearest
   */
  public record Suggestion(
      Short gap,
      Optional<PersonId> person,
      Optional<PersonId> nearest,
      List<WhoCould.Reason> reasons) {
    public Suggestion {
      reasons = List.copyOf(reasons);
    }
  }

  /** A place of what is short. */
  private record Place(int gap, Optional<String> skill) {}

  /** What of theirs somebody would have beside what they have. */
  private record Given(int person, List<Integer> gaps) {}

  private final List<Short> gaps;
  private final List<WhoCould.Candidate> people;
  private final List<Place> places = new ArrayList<>();
  private final Map<Given, Boolean> breaks = new HashMap<>();
  private final Map<Given, Boolean> endsBroken = new HashMap<>();
  private final Map<List<Object>, Boolean> fits = new HashMap<>();
  private final Map<List<Object>, WhoCould.Answer> answers = new HashMap<>();
  private final Bounds bounds;
  private final long[] unavoidable;

  /** By place, who has it; -1: nobody. */
  private final int[] now;

  private final List<List<Integer>> theirs = new ArrayList<>();
  private int[] best;
  private long least = Long.MAX_VALUE;
  private int tries;

  private Fill(List<Short> gaps, List<WhoCould.Candidate> people, Bounds bounds) {
    this.gaps = gaps;
    this.people = people;
    this.bounds = bounds;
    for (int gap = 0; gap < gaps.size(); gap++) {
      int at = gap;
      // The same skill in a row, so that whoever could take either is tried once.
      gaps.get(gap).work().asks().throughout().stream()
          .sorted(Comparator.comparing((Optional<String> skill) -> skill.orElse("\uffff")))
          .forEach(skill -> places.add(new Place(at, skill)));
    }
    people.forEach(one -> theirs.add(new ArrayList<>()));
    now = new int[places.size()];
    Arrays.fill(now, -1);
    best = now.clone();
    unavoidable = new long[places.size() + 1];
    for (int place = places.size() - 1; place >= 0; place--) {
      boolean any = false;
      for (int person = 0; person < people.size() && !any; person++) {
        any = may(person, place) && !breaks(person, List.of(places.get(place).gap()));
      }
      unavoidable[place] = unavoidable[place + 1] + (any ? 0 : minutes(place));
    }
  }

  /**
   * One suggestion for each place that is missing.
   *
   * @param gaps by start
   * @param people of whom each is tried with all that is suggested to them
   */
  public static List<Suggestion> suggest(
      List<Short> gaps, List<WhoCould.Candidate> people, Bounds bounds) {
    Fill fill = new Fill(gaps, people, bounds);
    fill.place(0, 0, bounds, List.of());
    return fill.told();
  }

  private long minutes(int place) {
    return gaps.get(places.get(place).gap()).minutes();
  }

  /**
   * Fills this place and those after it, in every way that may leave less open.
   *
   * @param rest who is left for a place like the one before, so that two alike are not given twice
   */
  private void place(int place, long open, Bounds filled, List<Integer> rest) {
    if (open + unavoidable[place] >= least || tries++ > MOST_TRIES) {
      return;
    }
    if (place > 0 && isLast(place - 1) && !hasCompany(places.get(place - 1).gap())) {
      return;
    }
    if (place == places.size()) {
      if (theirsHold()) {
        least = open;
        best = now.clone();
      }
      return;
    }
    Short gap = gaps.get(places.get(place).gap());
    List<Integer> order = order(place, filled);
    if (place > 0 && places.get(place).equals(places.get(place - 1))) {
      order.retainAll(rest);
    }
    for (int at = 0; at < order.size(); at++) {
      List<Integer> given = theirs.get(order.get(at));
      now[place] = order.get(at);
      given.add(places.get(place).gap());
      PersonId person = people.get(order.get(at)).person();
      Bounds then = filled.and(named(gap, place), person);
      place(place + 1, open, then, order.subList(at + 1, order.size()));
      given.remove(given.size() - 1);
      now[place] = -1;
    }
    place(place + 1, open + gap.minutes(), filled, List.of());
  }

  private boolean isLast(int place) {
    return place + 1 == places.size() || places.get(place + 1).gap() != places.get(place).gap();
  }

  /** Where each has a visit of their own, each counts at its place. */
  private Work named(Short gap, int place) {
    return gap.together() ? gap.work() : gap.work().called(gap.work().id() + "#" + place);
  }

  /** Whoever may take a place now, the best first. */
  private List<Integer> order(int place, Bounds filled) {
    Short gap = gaps.get(places.get(place).gap());
    Work work = named(gap, place);
    List<Integer> found = new ArrayList<>();
    for (int person = 0; person < people.size(); person++) {
      List<Integer> with = new ArrayList<>(theirs.get(person));
      with.add(places.get(place).gap());
      if (!theirs.get(person).contains(places.get(place).gap())
          && may(person, place)
          && !breaks(person, with)
          && hasRoom(work, people.get(person).person(), filled)) {
        found.add(person);
      }
    }
    found.sort(
        (one, other) -> WhoCould.BEST_FIRST.compare(answer(one, place), answer(other, place)));
    return found;
  }

  private static boolean hasRoom(Work work, PersonId person, Bounds filled) {
    return filled.tooMuch(work, Set.of(person)).stream()
        .noneMatch(one -> one.level() == Clash.Level.NEVER);
  }

  /** Whether a place may be theirs at all. */
  private boolean may(int person, int place) {
    WhoCould.Candidate one = people.get(person);
    Short gap = gaps.get(places.get(place).gap());
    return !one.unknown()
        && (!one.ties().office() || one.ties().team())
        && !gap.there().contains(one.person())
        && fits.computeIfAbsent(List.of(person, places.get(place)), key -> fits(person, place));
  }

  /** Their skill, and whether they are with us still. */
  private boolean fits(int person, int place) {
    Short gap = gaps.get(places.get(place).gap());
    Work work = gap.work().asking(List.of(places.get(place).skill()));
    WhoCould.Candidate company = people.get(person).alone(List.of());
    return WhoCould.answer(work, company, bounds).reasons().stream()
        .filter(WhoCould.Reason::never)
        .noneMatch(
            one ->
                one.why() == WhoCould.Why.SKILL
                    || one.why() == WhoCould.Why.LEFT
                    || one.why() == WhoCould.Why.HERE);
  }

  /** Whether they would break a never that no more work ends. */
  private boolean breaks(int person, List<Integer> with) {
    Given given = new Given(person, with.stream().sorted().toList());
    return breaks.computeIfAbsent(given, key -> breaks(key, false));
  }

  private boolean breaks(Given given, boolean last) {
    Commitments all = people.get(given.person()).of();
    Set<String> fresh = new HashSet<>();
    for (int gap : given.gaps()) {
      Work work = gaps.get(gap).work().asking(List.of());
      all = all.and(work);
      fresh.add(work.id());
    }
    return Clashes.of(all, bounds.limits(), bounds.travel()).stream()
        .filter(one -> one.level() == Clash.Level.NEVER)
        .filter(one -> MAY_END.contains(one.kind()) == last)
        .anyMatch(one -> fresh.stream().anyMatch(one::involves));
  }

  /** Whether nobody breaks a never with all they would have. */
  private boolean theirsHold() {
    for (int person = 0; person < people.size(); person++) {
      if (!theirs.get(person).isEmpty()) {
        Given given = new Given(person, theirs.get(person).stream().sorted().toList());
        if (endsBroken.computeIfAbsent(given, key -> breaks(key, true))) {
          return false;
        }
      }
    }
    return true;
  }

  /** Whoever may not be alone has somebody beside them who may. */
  private boolean hasCompany(int gap) {
    boolean needed = false;
    for (int place = 0; place < places.size(); place++) {
      if (places.get(place).gap() == gap && now[place] >= 0) {
        if (!people.get(now[place]).of().able().notAlone()) {
          return true;
        }
        needed = true;
      }
    }
    return !needed || !gaps.get(gap).isLonely();
  }

  /** What speaks against it beside what was suggested to them before. */
  private WhoCould.Answer answer(int person, int place) {
    return answers.computeIfAbsent(
        List.of(person, places.get(place), List.copyOf(theirs.get(person))),
        key -> {
          WhoCould.Candidate one = people.get(person).alone(List.of());
          for (int gap : theirs.get(person)) {
            one = one.with(gaps.get(gap).work());
          }
          Work work = gaps.get(places.get(place).gap()).work();
          return WhoCould.answer(work.asking(List.of(places.get(place).skill())), one, bounds);
        });
  }

  private List<Suggestion> told() {
    List<Suggestion> found = new ArrayList<>();
    Bounds filled = bounds;
    for (int place = 0; place < places.size(); place++) {
      Short gap = gaps.get(places.get(place).gap());
      int person = best[place];
      if (person >= 0) {
        WhoCould.Answer answer = answer(person, place);
        Optional<PersonId> given = Optional.of(people.get(person).person());
        found.add(new Suggestion(gap, given, Optional.empty(), answer.reasons()));
        theirs.get(person).add(places.get(place).gap());
        filled = filled.and(named(gap, place), given.get());
      } else {
        Optional<WhoCould.Answer> nearest = nearest(place, filled);
        found.add(
            new Suggestion(
                gap,
                Optional.empty(),
                nearest.map(one -> one.candidate().person()),
                nearest.map(WhoCould.Answer::reasons).orElse(List.of())));
      }
    }
    return found;
  }

  /** Of those who do not have it the best. */
  private Optional<WhoCould.Answer> nearest(int place, Bounds filled) {
    Short gap = gaps.get(places.get(place).gap());
    Work work = named(gap, place).asking(List.of(places.get(place).skill()));
    List<WhoCould.Candidate> left = new ArrayList<>();
    for (int person = 0; person < people.size(); person++) {
      WhoCould.Candidate one = people.get(person);
      if (!gap.there().contains(one.person())
          && !theirs.get(person).contains(places.get(place).gap())) {
        List<TimeSpan> lonely = one.of().able().notAlone() ? gap.alone() : List.of();
        WhoCould.Candidate with = one.alone(lonely);
        for (int other : theirs.get(person)) {
          with = with.with(gaps.get(other).work());
        }
        left.add(with);
      }
    }
    return WhoCould.of(work, left, filled).stream().findFirst();
  }
}
