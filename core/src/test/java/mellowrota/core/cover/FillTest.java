package mellowrota.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * What is suggested leaves no more open than the best of all ways, and breaks no never. How many
 * cases: {@code -Dfills}; which: {@code -Dseed}.
 */
public class FillTest {

  private static final Instant MONDAY = Instant.parse("2026-12-07T00:00:00Z");
  private static final int CASES = Integer.getInteger("fills", 150);
  private static final long SEED = Long.getLong("seed", 18);

  /** A week of work and those who might do it. */
  private record Case(List<Fill.Short> gaps, List<WhoCould.Candidate> people, Limits limits) {}

  private static TimeSpan hours(int from, int until) {
    return TimeSpan.of(MONDAY.plus(Duration.ofHours(from)), MONDAY.plus(Duration.ofHours(until)));
  }

  private static Work work(String id, TimeSpan span, List<Optional<String>> asks) {
    return new Work(
        id,
        span,
        Optional.empty(),
        false,
        Optional.of(PlaceId.of(1)),
        Margins.NONE,
        false,
        asks,
        ZoneOffset.UTC);
  }

  private static WhoCould.Candidate person(
      long id, List<Work> work, Set<String> skills, boolean notAlone) {
    Map<String, Validity> able = new HashMap<>();
    skills.forEach(one -> able.put(one, Validity.ALWAYS));
    return new WhoCould.Candidate(
        new Commitments(
            PersonId.of(id),
            ZoneOffset.UTC,
            Hours.UNSAID,
            List.of(),
            List.of(),
            work,
            new Eligibility(able, notAlone, List.of(), Optional.empty())),
        "P" + id,
        false,
        List.of(),
        List.of(),
        Duration.ZERO,
        Optional.empty(),
        WhoCould.Ties.NONE);
  }

  private static Limits limits(SplittableRandom random) {
    Map<Clash.Kind, Clash.Level> levels = new EnumMap<>(Clash.Kind.class);
    for (Clash.Kind kind : Clash.Kind.values()) {
      levels.put(kind, random.nextInt(3) == 0 ? Clash.Level.WARN : Clash.Level.NEVER);
    }
    levels.put(Clash.Kind.DOUBLE, Clash.Level.NEVER);
    levels.put(Clash.Kind.SKILL, Clash.Level.NEVER);
    return new Limits(
        levels,
        Duration.ofHours(random.nextInt(12)),
        Duration.ofHours(8 + random.nextInt(8)),
        DayOfWeek.MONDAY,
        Duration.ofHours(16 + random.nextInt(32)),
        0,
        Duration.ZERO,
        2 + random.nextInt(4),
        0,
        0);
  }

  private static Case random(SplittableRandom random, int people, int places) {
    List<Fill.Short> gaps = new ArrayList<>();
    for (int left = places; left > 0; ) {
      int count = Math.min(left, 1 + random.nextInt(2));
      int from = random.nextInt(120);
      List<Optional<String>> asks = new ArrayList<>();
      for (int place = 0; place < count; place++) {
        asks.add(random.nextInt(3) == 0 ? Optional.of("s" + random.nextInt(2)) : Optional.empty());
      }
      TimeSpan span = hours(from, from + 4 + random.nextInt(9));
      boolean lonely = random.nextInt(3) == 0;
      gaps.add(
          new Fill.Short(
              "g" + gaps.size(),
              work("g" + gaps.size(), span, asks),
              lonely ? List.of(span) : List.of(),
              Set.of(),
              random.nextBoolean()));
      left -= count;
    }
    gaps.sort((one, other) -> one.work().span().start().compareTo(other.work().span().start()));
    List<WhoCould.Candidate> all = new ArrayList<>();
    for (int p = 1; p <= people; p++) {
      List<Work> work = new ArrayList<>();
      for (int w = random.nextInt(3); w > 0; w--) {
        int from = random.nextInt(120);
        work.add(work("w" + w, hours(from, from + 4 + random.nextInt(6)), List.of()));
      }
      Set<String> skills = new HashSet<>();
      for (int s = 0; s < 2; s++) {
        if (random.nextBoolean()) {
          skills.add("s" + s);
        }
      }
      all.add(person(p, work, skills, random.nextInt(5) == 0));
    }
    return new Case(gaps, all, limits(random));
  }

  /** The least that stays open in any way at all: each place tried with everybody and nobody. */
  private static final class Slow {
    private final Case of;
    private final Map<List<Object>, Boolean> known = new HashMap<>();
    private final List<List<Integer>> theirs = new ArrayList<>();
    private final List<int[]> places = new ArrayList<>();
    private long least = Long.MAX_VALUE;

    Slow(Case of) {
      this.of = of;
      of.people().forEach(one -> theirs.add(new ArrayList<>()));
      for (int gap = 0; gap < of.gaps().size(); gap++) {
        for (int ask = 0; ask < of.gaps().get(gap).work().asks().throughout().size(); ask++) {
          places.add(new int[] {gap, ask});
        }
      }
    }

    long least() {
      place(0, 0, new int[places.size()]);
      return least;
    }

    private void place(int at, long open, int[] who) {
      if (open >= least) {
        return;
      }
      if (at == places.size()) {
        boolean holds = true;
        for (int person = 0; person < theirs.size() && holds; person++) {
          holds = holds(person, theirs.get(person), false);
        }
        if (holds && inCompany(who)) {
          least = open;
        }
        return;
      }
      int gap = places.get(at)[0];
      Fill.Short wanted = of.gaps().get(gap);
      Optional<String> skill = wanted.work().asks().throughout().get(places.get(at)[1]);
      for (int person = 0; person < theirs.size(); person++) {
        List<Integer> has = theirs.get(person);
        Eligibility able = of.people().get(person).of().able();
        boolean may =
            !has.contains(gap)
                && skill.map(able.skills()::containsKey).orElse(true)
                && has.stream()
                    .noneMatch(
                        other -> of.gaps().get(other).work().span().overlaps(wanted.work().span()));
        if (may) {
          has.add(gap);
          who[at] = person + 1;
          // What more work can't mend is not gone on with; rest between two works it may.
          if (holds(person, has, true)) {
            place(at + 1, open, who);
          }
          who[at] = 0;
          has.remove(has.size() - 1);
        }
      }
      place(at + 1, open + wanted.minutes(), who);
    }

    private boolean holds(int person, List<Integer> gaps, boolean soFar) {
      return known.computeIfAbsent(
          List.of(person, List.copyOf(gaps), soFar),
          key ->
              keeps(
                  of,
                  person,
                  gaps.stream().map(gap -> of.gaps().get(gap).work()).toList(),
                  soFar ? Set.of(Clash.Kind.REST, Clash.Kind.TRAVEL) : Set.of()));
    }

    private boolean inCompany(int[] who) {
      for (int gap = 0; gap < of.gaps().size(); gap++) {
        boolean some = false;
        boolean company = !of.gaps().get(gap).isLonely();
        for (int at = 0; at < who.length; at++) {
          if (places.get(at)[0] == gap && who[at] > 0) {
            some = true;
            company |= !of.people().get(who[at] - 1).of().able().notAlone();
          }
        }
        if (some && !company) {
          return false;
        }
      }
      return true;
    }
  }

  /** Whether somebody breaks no never with these beside what they have. */
  private static boolean keeps(Case of, int person, List<Work> more, Set<Clash.Kind> but) {
    Commitments all = of.people().get(person).of();
    Set<String> fresh = new HashSet<>();
    for (Work one : more) {
      all = all.and(one.asking(List.of()));
      fresh.add(one.id());
    }
    return Clashes.of(all, of.limits(), Travel.UNKNOWN).stream()
        .filter(one -> one.level() == Clash.Level.NEVER && !but.contains(one.kind()))
        .noneMatch(one -> fresh.stream().anyMatch(one::involves));
  }

  @DataProvider
  public Object[][] sizes() {
    return new Object[][] {{5, 8, CASES}, {7, 10, Math.max(1, CASES / 10)}};
  }

  @Test(dataProvider = "sizes")
  public void nothingStaysOpenThatCouldBeFilled(int people, int places, int cases) {
    SplittableRandom random = new SplittableRandom(SEED);
    int open = 0;
    for (int i = 0; i < cases; i++) {
      Case one = random(random, people, places);
      List<Fill.Suggestion> found =
          Fill.suggest(
              one.gaps(), one.people(), new Bounds(one.limits(), Travel.UNKNOWN, Map.of()));
      long least = new Slow(one).least();
      assertThat(minutes(found)).as("case %s of seed %s", i, SEED).isEqualTo(least);
      open += least > 0 ? 1 : 0;
      for (int person = 0; person < one.people().size(); person++) {
        PersonId id = one.people().get(person).person();
        List<Work> theirs =
            found.stream()
                .filter(s -> s.person().equals(Optional.of(id)))
                .map(s -> s.gap().work())
                .toList();
        assertThat(keeps(one, person, theirs, Set.of())).as("case %s breaks no never", i).isTrue();
      }
    }
    assertThat(open).as("cases in which something stays open").isBetween(1, cases);
  }

  private static long minutes(List<Fill.Suggestion> found) {
    return found.stream()
        .filter(one -> one.person().isEmpty())
        .mapToLong(one -> one.gap().minutes())
        .sum();
  }

  /** Who has both skills takes the one that nobody else has. */
  @Test
  public void twoSkillsInOnePersonsHandsAreUsedWhereTheyAreWanted() {
    Fill.Short both =
        new Fill.Short(
            "g",
            work("g", hours(8, 12), List.of(Optional.of("crane"), Optional.of("sluice"))),
            List.of(),
            Set.of(),
            true);
    Case one =
        new Case(
            List.of(both),
            List.of(
                person(1, List.of(), Set.of("crane", "sluice"), false),
                person(2, List.of(), Set.of("crane"), false)),
            Limits.usual());
    assertThat(told(one)).containsExactlyInAnyOrder("2", "1");
  }

  /** Who may not be alone counts beside somebody who was just suggested. */
  @Test
  public void whoMayNotBeAloneComesBesideSomebodySuggested() {
    Fill.Short two =
        new Fill.Short(
            "g",
            work("g", hours(8, 12), List.of(Optional.empty(), Optional.empty())),
            List.of(hours(8, 12)),
            Set.of(),
            true);
    List<WhoCould.Candidate> people =
        List.of(person(1, List.of(), Set.of(), true), person(2, List.of(), Set.of(), false));
    assertThat(told(new Case(List.of(two), people, Limits.usual())))
        .containsExactlyInAnyOrder("1", "2");
    assertThat(told(new Case(List.of(two), people.subList(0, 1), Limits.usual())))
        .containsExactly("nobody", "nobody");
  }

  private static List<String> told(Case of) {
    return Fill.suggest(of.gaps(), of.people(), new Bounds(of.limits(), Travel.UNKNOWN, Map.of()))
        .stream()
        .map(one -> one.person().map(person -> "" + person.value()).orElse("nobody"))
        .toList();
  }
}
