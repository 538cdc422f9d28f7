package mellowrota.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.stream.Collectors;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import org.testng.annotations.Test;

/**
 * Clashes and working hours against a slow version that looks at each minute by itself. {@code
 * -Dcrews=20000} looks at more worlds.
 */
public class ClashesPropertyTest {

  private static final int CREWS = Integer.getInteger("crews", 60);
  private static final int PEOPLE = 6;
  private static final int DAYS = 7;
  private static final ZoneId[] ZONES = {
    ZoneId.of("Europe/London"), ZoneId.of("America/New_York"), ZoneId.of("Asia/Kolkata")
  };

  /** The week of a clock change one way, the other way, over there, and one without. */
  private static final LocalDate[] WEEKS = {
    LocalDate.of(2027, 3, 24),
    LocalDate.of(2026, 10, 22),
    LocalDate.of(2026, 10, 29),
    LocalDate.of(2026, 12, 7)
  };

  private static final Travel TRAVEL =
      new Travel(
          Map.of(
              new Travel.Way(PlaceId.of(1), PlaceId.of(2)), Duration.ofMinutes(35),
              new Travel.Way(PlaceId.of(2), PlaceId.of(1)), Duration.ofMinutes(50)),
          Map.of(),
          0);

  @Test
  public void areTheSameMinuteByMinute() {
    SplittableRandom seeds = new SplittableRandom(2027);
    Set<Clash.Kind> seen = EnumSet.noneOf(Clash.Kind.class);
    long compared = 0;
    for (int crew = 0; crew < CREWS; crew++) {
      for (int person = 0; person < PEOPLE; person++) {
        long seed = seeds.nextLong();
        SplittableRandom random = new SplittableRandom(seed);
        LocalDate first = WEEKS[random.nextInt(WEEKS.length)];
        TimeSpan range =
            TimeSpan.of(
                first.minusDays(2).atStartOfDay(ZONES[0]).toInstant(),
                first.plusDays(DAYS + 6).atStartOfDay(ZONES[0]).toInstant());
        Commitments of = commitments(random, first);
        Limits limits = limits(random);
        List<Clash> clashes = Clashes.of(of, limits, TRAVEL);
        assertThat(new HashSet<>(clashes))
            .as("seed " + seed)
            .isEqualTo(new SlowClashes(of, limits, TRAVEL, range).clashes())
            .hasSameSizeAs(clashes);
        clashes.forEach(clash -> seen.add(clash.kind()));
        compared += clashes.size();
      }
    }
    assertThat(compared).as("clashes that were compared").isGreaterThan(CREWS * PEOPLE * 3L);
    assertThat(seen)
        .as("kinds that were seen")
        .containsAll(
            EnumSet.complementOf(
                EnumSet.of(
                    Clash.Kind.PERIOD, Clash.Kind.CAPACITY, Clash.Kind.SHUT, Clash.Kind.DUE)));
  }

  /** What stands at a place that is shut is told minute by minute, each run of them once. */
  @Test
  public void aPlaceIsShutWhereNoneOfItsHoursHoldTheMinute() {
    SplittableRandom seeds = new SplittableRandom(2033);
    long compared = 0;
    for (int place = 0; place < CREWS * PEOPLE; place++) {
      long seed = seeds.nextLong();
      SplittableRandom random = new SplittableRandom(seed);
      LocalDate first = WEEKS[random.nextInt(WEEKS.length)];
      Commitments of = commitments(random, first);
      Hours opening =
          new Hours(
              of.hours().weekly().stream().filter(one -> one.place().isEmpty()).toList(),
              List.of());
      Set<String> told = new HashSet<>();
      for (Work work : of.work()) {
        Clashes.Stay stay = new Clashes.Stay(work.id(), work.span(), Set.of(), work.tentative());
        Instant end = null;
        for (Clash one : Clashes.shut(PlaceId.of(1), opening, List.of(stay))) {
          assertThat(one.level()).isEqualTo(Clash.Level.WARN);
          assertThat(one.person()).isEmpty();
          assertThat(end == null || end.isBefore(one.span().start())).as("seed " + seed).isTrue();
          end = one.span().end();
          for (Instant at = one.span().start(); at.isBefore(end); at = at.plusSeconds(60)) {
            told.add(work.id() + at);
          }
        }
      }
      Set<String> shut = new HashSet<>();
      for (Work work : opening.isUnsaid() ? List.<Work>of() : of.work()) {
        Instant at = work.span().start();
        for (; at.isBefore(work.span().end()); at = at.plusSeconds(60)) {
          if (!isOpen(opening, at)) {
            shut.add(work.id() + at);
          }
        }
      }
      assertThat(told).as("seed " + seed).isEqualTo(shut);
      compared += shut.size();
    }
    assertThat(compared).as("minutes that were compared").isGreaterThan(CREWS * 100L);
  }

  private static boolean isOpen(Hours opening, Instant at) {
    for (Hours.Weekly one : opening.weekly()) {
      for (int back = 0; back < 2; back++) {
        LocalDate day = at.atZone(one.zone()).toLocalDate().minusDays(back);
        boolean holds =
            day.getDayOfWeek() == one.weekday()
                && !day.isBefore(one.first().orElse(LocalDate.MIN))
                && !day.isAfter(one.last().orElse(LocalDate.MAX));
        if (holds
            && LocalTimes.span(day, one.from(), one.until(), one.zone())
                .filter(span -> !at.isBefore(span.start()) && at.isBefore(span.end()))
                .isPresent()) {
          return true;
        }
      }
    }
    return false;
  }

  private static Commitments with(Commitments all, List<Work> work) {
    return new Commitments(
        all.person(),
        all.zone(),
        all.hours(),
        all.leave(),
        all.busy(),
        work,
        all.able(),
        all.margins());
  }

  /**
   * What a new work makes wrong is what would be wrong with it, but for what was as wrong before;
   * what stays as it is or goes makes nothing worse; and it is worse one way or not both ways.
   */
  @Test
  public void aChangeIsBlamedForWhatItMakesWorseAlone() {
    SplittableRandom seeds = new SplittableRandom(2031);
    long blamed = 0;
    for (int crew = 0; crew < CREWS * PEOPLE; crew++) {
      long seed = seeds.nextLong();
      SplittableRandom random = new SplittableRandom(seed);
      LocalDate first = WEEKS[random.nextInt(WEEKS.length)];
      Commitments all = commitments(random, first);
      Limits limits = limits(random);
      Set<String> ids = all.work().stream().map(Work::id).collect(Collectors.toSet());
      assertThat(Worsened.of(all, all, ids, limits, TRAVEL)).as("seed " + seed).isEmpty();
      for (Work one : all.work()) {
        Set<String> id = Set.of(one.id());
        Commitments without = with(all, all.work().stream().filter(other -> other != one).toList());
        assertThat(Worsened.of(all, without, id, limits, TRAVEL)).as("seed " + seed).isEmpty();
        List<Clash> made = Worsened.of(without, all, id, limits, TRAVEL);
        List<Clash> withIt = Clashes.involving(one, without, limits, TRAVEL);
        assertThat(withIt).as("seed " + seed + ", " + one.id()).containsAll(made);
        // Of a pair with what is new nothing can have been wrong before.
        assertThat(made)
            .as("seed " + seed + ", " + one.id())
            .containsAll(
                withIt.stream()
                    .filter(clash -> clash.kind().compareTo(Clash.Kind.MARGIN) <= 0)
                    .toList());
        blamed += made.size();
        // Moved there and back, it is not to blame for the same both times.
        Work elsewhere =
            one.at(
                TimeSpan.of(
                    one.span().start().plus(Duration.ofHours(3)),
                    one.span().end().plus(Duration.ofHours(3))));
        if (!one.allDay()) {
          List<Work> moved = new ArrayList<>(without.work());
          moved.add(elsewhere);
          Commitments there = with(all, moved);
          Set<Object> blamedThere = pairs(Worsened.of(all, there, id, limits, TRAVEL));
          Set<Object> back = pairs(Worsened.of(there, all, id, limits, TRAVEL));
          blamedThere.retainAll(back);
          assertThat(blamedThere).as("seed " + seed + ", " + one.id()).isEmpty();
        }
      }
    }
    assertThat(blamed).as("clashes that were made").isGreaterThan(CREWS * PEOPLE);
  }

  /** Of two works and what they do to each other. */
  private static Set<Object> pairs(List<Clash> clashes) {
    return clashes.stream()
        .filter(one -> one.kind() == Clash.Kind.DOUBLE || one.kind() == Clash.Kind.TRAVEL)
        .map(one -> one.kind() + " " + one.items().stream().map(Clash.Item::id).sorted().toList())
        .collect(Collectors.toCollection(HashSet::new));
  }

  /** What is found for one work alone is what is found of it among all. */
  @Test
  public void oneWorkAloneMeetsTheSame() {
    SplittableRandom seeds = new SplittableRandom(2028);
    long compared = 0;
    for (int crew = 0; crew < CREWS * PEOPLE; crew++) {
      long seed = seeds.nextLong();
      SplittableRandom random = new SplittableRandom(seed);
      LocalDate first = WEEKS[random.nextInt(WEEKS.length)];
      Commitments all = commitments(random, first);
      Limits limits = limits(random);
      List<Clash> clashes = Clashes.of(all, limits, TRAVEL);
      for (Work trial : all.work()) {
        List<Clash> expected = clashes.stream().filter(one -> one.involves(trial.id())).toList();
        Commitments others = with(all, all.work().stream().filter(one -> one != trial).toList());
        assertThat(Clashes.involving(trial, others, limits, TRAVEL))
            .as("seed " + seed + ", " + trial.id())
            .containsExactlyInAnyOrderElementsOf(expected);
        compared += expected.size();
      }
    }
    assertThat(compared).as("clashes that were compared").isGreaterThan(CREWS * PEOPLE * 3L);
  }

  private static Limits limits(SplittableRandom random) {
    Map<Clash.Kind, Clash.Level> levels = new EnumMap<>(Clash.Kind.class);
    for (Clash.Kind kind : Clash.Kind.values()) {
      levels.put(kind, random.nextBoolean() ? Clash.Level.NEVER : Clash.Level.WARN);
    }
    return new Limits(
        levels,
        Duration.ofHours(9 + random.nextInt(4)),
        Duration.ofMinutes(420 + random.nextInt(300)),
        DayOfWeek.of(1 + random.nextInt(7)),
        Duration.ofMinutes(600 + random.nextInt(1800)),
        0,
        Duration.ZERO,
        1 + random.nextInt(4),
        1 + random.nextInt(2),
        0);
  }

  private static Commitments commitments(SplittableRandom random, LocalDate first) {
    ZoneId zone = ZONES[random.nextInt(3)];
    List<Work> work = new ArrayList<>();
    for (int w = random.nextInt(10); w > 0; w--) {
      work.add(work(random, first, zone, work));
    }
    List<Commitments.Leave> leave = new ArrayList<>();
    if (random.nextInt(3) == 0) {
      LocalDate from = first.plusDays(random.nextInt(DAYS));
      leave.add(
          new Commitments.Leave(
              "leave",
              TimeSpan.of(
                  from.atStartOfDay(zone).toInstant(),
                  from.plusDays(1 + random.nextInt(2)).atStartOfDay(zone).toInstant())));
    }
    List<Commitments.Busy> busy = new ArrayList<>();
    for (int b = random.nextInt(4); b > 0; b--) {
      Instant from = moment(random, first, zone);
      busy.add(
          new Commitments.Busy(
              TimeSpan.of(from, from.plusSeconds(900L * random.nextInt(12))),
              random.nextInt(3) == 0));
    }
    Map<String, Validity> skills =
        random.nextBoolean()
            ? Map.of("s0", days(random, first), "s1", Validity.ALWAYS)
            : Map.of("s1", days(random, first));
    return new Commitments(
        PersonId.of(1),
        zone,
        hours(random, first, zone),
        leave,
        busy,
        work,
        new Eligibility(skills, false, List.of(), end(random, first, zone)),
        margins(random));
  }

  private static Instant moment(SplittableRandom random, LocalDate first, ZoneId zone) {
    return first.atStartOfDay(zone).toInstant().plusSeconds(900L * random.nextInt(DAYS * 96));
  }

  private static Work work(
      SplittableRandom random, LocalDate first, ZoneId zone, List<Work> before) {
    boolean allDay = random.nextInt(10) == 0;
    Instant from =
        before.isEmpty() || random.nextInt(3) > 0
            ? moment(random, first, zone)
            : before.get(random.nextInt(before.size())).span().end();
    TimeSpan span =
        TimeSpan.of(
            from,
            from.plusSeconds(
                random.nextInt(4) == 0 ? 60L * random.nextInt(90) : 3600L * random.nextInt(11)));
    if (allDay) {
      LocalDate day = LocalDate.ofInstant(from, zone);
      span =
          TimeSpan.of(
              day.atStartOfDay(zone).toInstant(),
              day.plusDays(1 + random.nextInt(2)).atStartOfDay(zone).toInstant());
    }
    return new Work(
        "w" + before.size(),
        span.isEmpty() ? TimeSpan.of(from, from.plusSeconds(60)) : span,
        allDay
            ? Optional.of(
                DaySpan.of(
                    LocalDate.ofInstant(span.start(), zone), LocalDate.ofInstant(span.end(), zone)))
            : Optional.empty(),
        random.nextInt(4) == 0,
        place(random),
        random.nextBoolean() ? MarginSetting.of(Margins.NONE) : margins(random),
        random.nextInt(6) == 0,
        asks(random, from, zone),
        ZONES[random.nextInt(3)],
        List.of());
  }

  private static Validity days(SplittableRandom random, LocalDate first) {
    Optional<LocalDate> one = Optional.of(first.plusDays(random.nextInt(DAYS)));
    return random.nextInt(3) == 0
        ? new Validity(one, Optional.empty())
        : new Validity(Optional.empty(), one);
  }

  private static Optional<Instant> end(SplittableRandom random, LocalDate first, ZoneId zone) {
    return random.nextInt(6) == 0 ? Optional.of(moment(random, first, zone)) : Optional.empty();
  }

  private static MarginSetting margins(SplittableRandom random) {
    return new MarginSetting(margin(random), margin(random));
  }

  private static Optional<Duration> margin(SplittableRandom random) {
    return random.nextInt(4) == 0
        ? Optional.empty()
        : Optional.of(Duration.ofMinutes(15L * random.nextInt(6)));
  }

  private static Optional<PlaceId> place(SplittableRandom random) {
    int place = random.nextInt(4);
    return place == 0 ? Optional.empty() : Optional.of(PlaceId.of(place));
  }

  /** Of half of the works the places are not the same all the time. */
  private static Asks asks(SplittableRandom random, Instant from, ZoneId zone) {
    List<Need> needs = new ArrayList<>();
    while (random.nextInt(2) == 0) {
      Instant begins = from.plusSeconds(900L * (random.nextInt(30) - 10));
      TimeSpan span = TimeSpan.of(begins, begins.plusSeconds(900L * random.nextInt(20)));
      List<Optional<String>> places = places(random);
      if (!places.isEmpty()) {
        needs.add(new Need("duty", true, zone, span, places));
      }
    }
    return new Asks(places(random), needs);
  }

  private static List<Optional<String>> places(SplittableRandom random) {
    return switch (random.nextInt(5)) {
      case 0 -> List.of(Optional.of("s0"));
      case 1 -> List.of(Optional.of("s0"), Optional.of("s1"));
      case 2 -> List.of(Optional.of("s1"), Optional.empty());
      default -> List.of();
    };
  }

  private static Hours hours(SplittableRandom random, LocalDate first, ZoneId zone) {
    if (random.nextInt(6) == 0) {
      return Hours.UNSAID;
    }
    List<Hours.Weekly> weekly = new ArrayList<>();
    for (DayOfWeek day : DayOfWeek.values()) {
      for (int n = random.nextInt(3); n > 0; n--) {
        Optional<PlaceId> place = place(random);
        weekly.add(
            new Hours.Weekly(
                day,
                LocalTime.of(random.nextInt(24), 15 * random.nextInt(4)),
                LocalTime.of(random.nextInt(24), 15 * random.nextInt(4)),
                place,
                place.isPresent() ? ZONES[random.nextInt(3)] : zone,
                random.nextInt(4) == 0 ? Optional.of(first.plusDays(2)) : Optional.empty(),
                random.nextInt(4) == 0 ? Optional.of(first.plusDays(4)) : Optional.empty()));
      }
    }
    List<Hours.Dated> dated = new ArrayList<>();
    for (int n = random.nextInt(3); n > 0; n--) {
      Optional<PlaceId> place = place(random);
      List<Hours.Clock> times = new ArrayList<>();
      for (int t = random.nextInt(3); t > 0; t--) {
        times.add(
            new Hours.Clock(
                LocalTime.of(random.nextInt(24), 0), LocalTime.of(random.nextInt(24), 0)));
      }
      dated.add(
          new Hours.Dated(
              first.plusDays(random.nextInt(DAYS)),
              place,
              place.isPresent() ? ZONES[random.nextInt(3)] : zone,
              times));
    }
    return new Hours(weekly, dated);
  }
}
