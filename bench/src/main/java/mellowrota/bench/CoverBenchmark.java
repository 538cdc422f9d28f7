package mellowrota.bench;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import mellowrota.core.cover.Bounds;
import mellowrota.core.cover.Commitments;
import mellowrota.core.cover.Covered;
import mellowrota.core.cover.Duty;
import mellowrota.core.cover.Eligibility;
import mellowrota.core.cover.Filling;
import mellowrota.core.cover.Hours;
import mellowrota.core.cover.Limits;
import mellowrota.core.cover.Need;
import mellowrota.core.cover.Travel;
import mellowrota.core.cover.WhoCould;
import mellowrota.core.cover.Work;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Threads;
import org.openjdk.jmh.annotations.Warmup;

/** Cover of a crew over thirteen weeks with forty duties, on one core: time for each. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Fork(1)
@Threads(1)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 4, time = 2)
public class CoverBenchmark {

  private static final int DAYS = 91;
  private static final int DUTIES = 40;
  private static final ZoneId ZONE = ZoneId.of("Europe/London");
  private static final LocalDate FIRST = LocalDate.of(2026, 9, 28);

  @Param({"250", "500", "1000"})
  int people;

  private final List<Duty> duties = new ArrayList<>();
  private final List<Filling> fillings = new ArrayList<>();
  private final Map<PersonId, List<Filling>> fillingsOf = new HashMap<>();
  private final List<Commitments> crew = new ArrayList<>();
  private final List<WhoCould.Candidate> candidates = new ArrayList<>();
  private final Limits limits = Limits.usual();
  private Covered covered;
  private TimeSpan range;
  private Work trial;
  private int turn;

  /** Each works four days of seven on one duty by day, with hours, now and then busy or away. */
  @Setup
  public void lay() {
    range =
        TimeSpan.of(
            FIRST.atStartOfDay(ZONE).toInstant(),
            FIRST.plusDays(DAYS).atStartOfDay(ZONE).toInstant());
    for (int d = 0; d < DUTIES; d++) {
      duties.add(duty(d));
    }
    SplittableRandom random = new SplittableRandom(1);
    for (int p = 1; p <= people; p++) {
      person(PersonId.of(p), random);
    }
    LocalDate day = FIRST.plusDays(45);
    TimeSpan gap = LocalTimes.span(day, LocalTime.of(8, 0), LocalTime.of(20, 0), ZONE).get();
    trial = work("trial", gap, 1);
    for (Commitments one : crew) {
      candidates.add(
          new WhoCould.Candidate(
              around(one, gap),
              "Person " + one.person().value(),
              false,
              List.of(),
              List.of(),
              one.load(gap),
              Optional.empty(),
              WhoCould.Ties.NONE));
    }
    covered = all();
  }

  private static Duty duty(int d) {
    List<Duty.Repeating> spans = new ArrayList<>();
    for (int half = 0; half < 2; half++) {
      spans.add(
          new Duty.Repeating(
              EnumSet.allOf(DayOfWeek.class),
              Duty.Stand.of(
                  LocalTime.of(half == 0 ? 8 : 20, 0), LocalTime.of(half == 0 ? 20 : 8, 0), 3),
              Validity.ALWAYS,
              Optional.empty()));
    }
    Optional<String> skill = d % 4 == 0 ? Optional.of("sluice") : Optional.empty();
    return new Duty("duty:" + d, ZONE, skill, spans, Set.of(), List.of());
  }

  private void person(PersonId id, SplittableRandom random) {
    int duty = random.nextInt(DUTIES);
    List<Work> work = new ArrayList<>();
    List<Filling> theirs = new ArrayList<>();
    int off = random.nextInt(7);
    for (int d = 0; d < DAYS; d++) {
      if ((d + off) % 7 > 3) {
        continue;
      }
      TimeSpan span =
          LocalTimes.span(FIRST.plusDays(d), LocalTime.of(8, 0), LocalTime.of(20, 0), ZONE).get();
      String name = "r" + id.value() + "d" + d;
      work.add(work(name, span, 1 + duty % 5));
      theirs.add(
          new Filling(id, "duty:" + duty, span, Instant.EPOCH, d, random.nextInt(20) == 0, false));
      if (random.nextInt(8) == 0) {
        Instant from = span.end().minusSeconds(3600L * random.nextInt(4));
        work.add(work(name + "j", TimeSpan.of(from, from.plusSeconds(7200)), 2 + duty % 4));
      }
    }
    List<Hours.Weekly> weekly = new ArrayList<>();
    for (DayOfWeek day : DayOfWeek.values()) {
      weekly.add(
          new Hours.Weekly(
              day,
              LocalTime.of(7, 0),
              LocalTime.of(21, 0),
              Optional.empty(),
              ZONE,
              Optional.empty(),
              Optional.empty()));
    }
    Instant away = FIRST.plusDays(random.nextInt(DAYS)).atStartOfDay(ZONE).toInstant();
    List<Commitments.Busy> busy = new ArrayList<>();
    for (int b = 0; b < 13; b++) {
      Instant from = range.start().plus(Duration.ofHours(random.nextInt(DAYS * 24)));
      busy.add(new Commitments.Busy(TimeSpan.of(from, from.plusSeconds(3600)), false));
    }
    Map<String, Validity> skills =
        random.nextBoolean()
            ? Map.of("sluice", Validity.until(FIRST.plusDays(random.nextInt(200))))
            : Map.of();
    crew.add(
        new Commitments(
            id,
            ZONE,
            new Hours(weekly, List.of()),
            List.of(new Commitments.Leave("l", TimeSpan.of(away, away.plus(Duration.ofDays(5))))),
            busy,
            work,
            new Eligibility(
                skills,
                random.nextInt(20) == 0,
                List.of(TimeSpan.of(away, away.plus(Duration.ofDays(5)))),
                Optional.empty())));
    fillings.addAll(theirs);
    fillingsOf.put(id, theirs);
  }

  private static Work work(String id, TimeSpan span, long place) {
    return new Work(
        id,
        span,
        Optional.empty(),
        false,
        Optional.of(PlaceId.of(place)),
        Margins.NONE,
        false,
        List.of(),
        ZONE);
  }

  /** As much around a gap as the server brings. */
  private static Commitments around(Commitments one, TimeSpan gap) {
    Duration weeks = Duration.ofDays(15);
    TimeSpan wide = TimeSpan.of(gap.start().minus(weeks), gap.end().plus(weeks));
    return new Commitments(
        one.person(),
        one.zone(),
        one.hours(),
        one.leave(),
        one.busy().stream().filter(busy -> busy.span().overlaps(wide)).toList(),
        one.work().stream().filter(work -> work.span().overlaps(wide)).toList(),
        one.able());
  }

  private Covered all() {
    List<Need> needs = new ArrayList<>();
    duties.forEach(one -> needs.addAll(one.needs(range)));
    return Covered.of(needs, fillings, crew, limits, Travel.UNKNOWN);
  }

  /** Needs, stretches, gaps, the share and everybody's clashes. */
  @Benchmark
  public Object fromNothing() {
    Covered found = all();
    return List.of(found.cover().gaps(), found.cover().share());
  }

  /** One shift of one person taken off and given back. */
  @Benchmark
  public Object afterOneChange() {
    Commitments one = crew.get(turn++ % people);
    List<Filling> all = fillingsOf.get(one.person());
    boolean whole = turn % 2 == 0;
    Commitments less =
        new Commitments(
            one.person(),
            one.zone(),
            one.hours(),
            one.leave(),
            one.busy(),
            one.work().subList(whole ? 0 : 1, one.work().size()),
            one.able());
    covered.change(less, all.subList(whole ? 0 : 1, all.size()));
    return covered.clashes(one.person());
  }

  /** For one gap, of all of them. */
  @Benchmark
  public Object whoCould() {
    return WhoCould.of(trial, candidates, new Bounds(limits, Travel.UNKNOWN, Map.of()));
  }
}
