package mellowrota.core.deadline;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.Due;
import org.testng.annotations.Test;

/** Dates of chains, beside those that are found day by day. */
public final class ReckonerTest {

  /** 20 000 on demand. */
  private static final int SETS = Integer.getInteger("sets", 500);

  /** With clocks that are changed by an hour, by half of one, at midnight, and by a whole day. */
  private static final List<ZoneId> ZONES =
      List.of(
          ZoneId.of("Europe/London"),
          ZoneId.of("Australia/Lord_Howe"),
          ZoneId.of("America/Sao_Paulo"),
          ZoneId.of("Pacific/Apia"),
          ZoneId.of("UTC"));

  private static final List<LocalDate> ABOUT =
      List.of(
          LocalDate.of(2026, 10, 25),
          LocalDate.of(2027, 3, 28),
          LocalDate.of(2027, 12, 31),
          LocalDate.of(2028, 2, 29),
          LocalDate.of(2011, 12, 30),
          LocalDate.of(2018, 11, 4),
          LocalDate.of(1900, 3, 1),
          LocalDate.of(2199, 11, 1));

  @Test
  public void areTheSameDayByDay() {
    SplittableRandom seeds = new SplittableRandom(2030);
    Map<Reckoned.Standing, Integer> stood = new EnumMap<>(Reckoned.Standing.class);
    Set<Reckoned.Reason> reasons = new TreeSet<>();
    for (int i = 0; i < SETS; i++) {
      long seed = seeds.nextLong();
      SplittableRandom random = new SplittableRandom(seed);
      Chain chain = new RandomChains(random).chain(8);
      SlowReckoner.House house = house(random);
      Given given = given(random, chain, house);
      SlowReckoner slow = new SlowReckoner(chain, given, house);
      for (Reckoned one : Reckoner.of(chain, given)) {
        String said = one.standing() + " " + said(one.date()) + " " + said(one.counts());
        assertThat(said)
            .as("seed " + seed + ", " + one.step().name() + "\n" + Spelling.of(chain) + given)
            .isEqualTo(slow.said(one.step()));
        stood.merge(one.standing(), 1, Integer::sum);
        one.why().ifPresent(why -> reasons.add(why.reason()));
        one.sum().ifPresent(sum -> assertThat(adds(sum)).as("seed " + seed + sum).isTrue());
      }
    }
    assertThat(stood).hasSameSizeAs(Reckoned.Standing.values());
    assertThat(reasons).hasSameSizeAs(Reckoned.Reason.values());
  }

  /** The parts of a sum lead on from one another to its result. */
  private static boolean adds(Sum sum) {
    Due before = sum.addition().map(one -> one.counted().result()).orElse(sum.counted().result());
    boolean isRolled = sum.roll().off().isPresent();
    return (isRolled || sum.roll().result().equals(before))
        && (sum.at().isPresent() || sum.result().equals(sum.roll().result()));
  }

  private static String said(Optional<Due> due) {
    return due.map(one -> SlowReckoner.of(one).toString()).orElse("-");
  }

  private static SlowReckoner.House house(SplittableRandom random) {
    Set<Integer> weekdays = new HashSet<>();
    weekdays.add(1 + random.nextInt(7));
    for (int day = 1; day <= 7; day++) {
      if (random.nextInt(3) > 0) {
        weekdays.add(day);
      }
    }
    LocalDate about = ABOUT.get(random.nextInt(ABOUT.size()));
    Set<LocalDate> holidays = new HashSet<>();
    for (int i = random.nextInt(20); i > 0; i--) {
      holidays.add(about.plusDays(random.nextInt(200) - 100));
    }
    List<LocalDate[]> closures = new ArrayList<>();
    for (int i = random.nextInt(3); i > 0; i--) {
      LocalDate first = about.plusDays(random.nextInt(100) - 50);
      closures.add(
          new LocalDate[] {
            first, first.plusDays(random.nextInt(4) == 0 ? 420 : random.nextInt(9) + 1)
          });
    }
    return new SlowReckoner.House(
        ZONES.get(random.nextInt(ZONES.size())), weekdays, holidays, closures);
  }

  private static Given given(SplittableRandom random, Chain chain, SlowReckoner.House house) {
    Map<LocalDate, String> off =
        house.holidays().stream().collect(Collectors.toMap(day -> day, LocalDate::toString));
    WorkingDays days =
        new WorkingDays(
            new WorkingWeek(
                house.weekdays().stream().map(DayOfWeek::of).collect(Collectors.toSet())),
            off,
            house.closures().stream()
                .map(one -> new WorkingDays.Closure(DaySpan.of(one[0], one[1]), "closed"))
                .toList());
    Map<Name, Boolean> answers = new HashMap<>();
    chain.questions().stream()
        .filter(one -> random.nextInt(3) > 0)
        .forEach(one -> answers.put(one, random.nextBoolean()));
    Map<Name, Given.Fixed> fixed = new HashMap<>();
    for (Step step : chain.steps()) {
      if (random.nextInt(5) == 0) {
        fixed.put(
            step.name(),
            new Given.Fixed(
                random.nextInt(3) == 0, maybe(random, house.zone()), maybe(random, house.zone())));
      }
    }
    return new Given(
        random.nextInt(12) == 0 ? Optional.empty() : Optional.of(due(random, house.zone())),
        random.nextInt(4) == 0
            ? Optional.empty()
            : Optional.of(
                RandomChains.ODD
                    .methods()
                    .get(random.nextInt(RandomChains.ODD.methods().size()))
                    .name()),
        answers,
        fixed,
        RandomChains.ODD.methods(),
        days,
        house.zone());
  }

  private static Optional<Due> maybe(SplittableRandom random, ZoneId zone) {
    return random.nextInt(3) == 0 ? Optional.of(due(random, zone)) : Optional.empty();
  }

  private static Due due(SplittableRandom random, ZoneId zone) {
    LocalDate day = ABOUT.get(random.nextInt(ABOUT.size())).plusDays(random.nextInt(5) - 2);
    return random.nextInt(3) == 0
        ? new Due.On(day)
        : new Due.At(
            LocalTimes.resolve(
                day.atTime(LocalTime.of(random.nextInt(24), 30 * random.nextInt(2))), zone));
  }
}
