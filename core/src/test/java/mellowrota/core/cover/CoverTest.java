package mellowrota.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.function.Supplier;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.Margins;
import org.testng.annotations.Test;

/**
 * What is short, against a slow version that looks at each minute by itself and tries every way of
 * seating. {@code -Dcrews=20000} looks at more worlds.
 */
public class CoverTest {

  private static final int CREWS = Integer.getInteger("crews", 100);
  private static final int PEOPLE = 6;
  private static final int DAYS = 7;
  private static final ZoneId[] ZONES = {
    ZoneId.of("Europe/London"), ZoneId.of("America/New_York"), ZoneId.of("Asia/Kolkata")
  };

  /** The week of a clock change one way, the other way, and one without. */
  private static final LocalDate[] WEEKS = {
    LocalDate.of(2027, 3, 24), LocalDate.of(2026, 10, 22), LocalDate.of(2026, 12, 7)
  };

  private record Crew(
      TimeSpan range,
      List<Need> needs,
      List<Filling> fillings,
      Map<PersonId, Eligibility> people) {}

  private static Crew crew(SplittableRandom random) {
    LocalDate first = WEEKS[random.nextInt(WEEKS.length)];
    TimeSpan range =
        TimeSpan.of(
            first.atStartOfDay(ZONES[0]).toInstant(),
            first.plusDays(DAYS).atStartOfDay(ZONES[0]).toInstant());
    List<Need> needs = new ArrayList<>();
    int duties = 1 + random.nextInt(3);
    for (int d = 0; d < duties; d++) {
      needs.addAll(duty(random, "duty:" + d, first).needs(range));
    }
    for (int v = random.nextInt(3); v > 0; v--) {
      Instant from = moment(random, range);
      List<Optional<String>> places = new ArrayList<>();
      for (int p = 1 + random.nextInt(3); p > 0; p--) {
        places.add(skill(random));
      }
      needs.add(
          new Need(
              "visit:" + v,
              false,
              ZONES[random.nextInt(3)],
              TimeSpan.of(from, from.plus(Duration.ofMinutes(1 + random.nextInt(900)))),
              places));
    }
    Map<PersonId, Eligibility> people = new HashMap<>();
    List<Filling> fillings = new ArrayList<>();
    for (int p = 1; p <= PEOPLE; p++) {
      people.put(PersonId.of(p), able(random, range, first));
      for (int f = random.nextInt(5); f > 0 && !needs.isEmpty(); f--) {
        Need need = needs.get(random.nextInt(needs.size()));
        Instant from = need.span().start().plusSeconds(60L * (random.nextInt(300) - 150));
        fillings.add(
            new Filling(
                PersonId.of(p),
                need.by(),
                TimeSpan.of(from, from.plusSeconds(60L * (1 + random.nextInt(1200)))),
                Instant.EPOCH.plusSeconds(random.nextInt(3)),
                fillings.size(),
                random.nextInt(4) == 0,
                isMeanwhile(need.by())));
      }
    }
    return new Crew(range, needs, fillings, people);
  }

  /** Every other duty lets other work be done meanwhile. */
  private static boolean isMeanwhile(String by) {
    return by.equals("duty:1");
  }

  private static Optional<String> skill(SplittableRandom random) {
    return random.nextBoolean() ? Optional.empty() : Optional.of("s" + random.nextInt(2));
  }

  private static Instant moment(SplittableRandom random, TimeSpan range) {
    return range.start().plusSeconds(60L * random.nextInt(DAYS * 1440));
  }

  private static Duty duty(SplittableRandom random, String by, LocalDate first) {
    List<Duty.Repeating> spans = new ArrayList<>();
    for (int s = 1 + random.nextInt(2); s > 0; s--) {
      Set<DayOfWeek> weekdays = EnumSet.of(DayOfWeek.of(1 + random.nextInt(7)));
      for (DayOfWeek day : DayOfWeek.values()) {
        if (random.nextBoolean()) {
          weekdays.add(day);
        }
      }
      LocalTime from = LocalTime.of(random.nextInt(24), random.nextInt(60));
      LocalTime until =
          random.nextInt(5) == 0 ? from : LocalTime.of(random.nextInt(24), random.nextInt(60));
      spans.add(
          new Duty.Repeating(
              weekdays,
              stand(random, from, until),
              new Validity(
                  random.nextInt(4) == 0 ? Optional.of(first.plusDays(2)) : Optional.empty(),
                  random.nextInt(4) == 0 ? Optional.of(first.plusDays(4)) : Optional.empty()),
              Optional.empty()));
    }
    return new Duty(
        by,
        ZONES[random.nextInt(3)],
        skill(random),
        spans,
        random.nextInt(3) == 0 ? Set.of(first.plusDays(3)) : Set.of(),
        random.nextInt(3) == 0
            ? List.of(
                new Duty.Other(
                    first.plusDays(2), stand(random, LocalTime.of(6, 0), LocalTime.of(15, 0))))
            : List.of());
  }

  private static Duty.Stand stand(SplittableRandom random, LocalTime from, LocalTime until) {
    int count = 1 + random.nextInt(3);
    List<Optional<String>> skills = new ArrayList<>();
    for (int place = random.nextInt(3) == 0 ? count : 0; place > 0; place--) {
      skills.add(skill(random));
    }
    return new Duty.Stand(from, until, count, skills);
  }

  private static Eligibility able(SplittableRandom random, TimeSpan range, LocalDate first) {
    Map<String, Validity> skills = new HashMap<>();
    for (int s = 0; s < 2; s++) {
      if (random.nextBoolean()) {
        skills.put(
            "s" + s,
            new Validity(
                random.nextInt(4) == 0
                    ? Optional.of(first.plusDays(random.nextInt(DAYS)))
                    : Optional.empty(),
                random.nextInt(3) == 0
                    ? Optional.of(first.plusDays(random.nextInt(DAYS)))
                    : Optional.empty()));
      }
    }
    List<TimeSpan> leave = new ArrayList<>();
    if (random.nextInt(4) == 0) {
      Instant from = moment(random, range);
      leave.add(TimeSpan.of(from, from.plusSeconds(60L * random.nextInt(3000))));
    }
    return new Eligibility(
        skills,
        random.nextInt(5) == 0,
        leave,
        random.nextInt(8) == 0 ? Optional.of(moment(random, range)) : Optional.empty());
  }

  @Test
  public void isTheSameMinuteByMinute() {
    SplittableRandom seeds = new SplittableRandom(26);
    long looked = 0;
    for (int i = 0; i < CREWS; i++) {
      long seed = seeds.nextLong();
      Crew crew = crew(new SplittableRandom(seed));
      Cover cover = Cover.of(crew.needs(), crew.fillings(), crew.people());
      looked += compare("seed " + seed, crew, cover);
    }
    assertThat(looked).as("minutes of a need that were compared").isGreaterThan(CREWS * 500L);
  }

  /** One person's change followed is the same as all of it from nothing. */
  @Test
  public void aChangeIsFollowedAsIfFromNothing() {
    SplittableRandom seeds = new SplittableRandom(27);
    Limits limits = Limits.usual();
    int changed = 0;
    for (int i = 0; i < CREWS; i++) {
      long seed = seeds.nextLong();
      SplittableRandom random = new SplittableRandom(seed);
      Crew crew = crew(random);
      List<Commitments> all = new ArrayList<>();
      crew.people().keySet().forEach(id -> all.add(commitments(crew, id, crew.people().get(id))));
      Covered covered = Covered.of(crew.needs(), crew.fillings(), all, limits, Travel.UNKNOWN);
      assertThat(covered.cover().gaps())
          .as("seed " + seed)
          .isEqualTo(Cover.of(crew.needs(), crew.fillings(), crew.people()).gaps());
      PersonId one = PersonId.of(1 + random.nextInt(PEOPLE));
      List<Filling> others =
          new ArrayList<>(crew.fillings().stream().filter(f -> !f.person().equals(one)).toList());
      List<Filling> theirs =
          new ArrayList<>(crew.fillings().stream().filter(f -> f.person().equals(one)).toList());
      if (!theirs.isEmpty()) {
        theirs.remove(random.nextInt(theirs.size()));
        changed++;
      }
      Map<PersonId, Eligibility> people = new HashMap<>(crew.people());
      if (random.nextBoolean()) {
        people.put(one, Eligibility.PLAIN);
      }
      others.addAll(theirs);
      Crew after = new Crew(crew.range(), crew.needs(), others, people);
      Commitments of = commitments(after, one, people.get(one));
      covered.change(of, theirs);
      Cover fresh = Cover.of(after.needs(), after.fillings(), after.people());
      assertThat(covered.cover().gaps()).as("seed " + seed).isEqualTo(fresh.gaps());
      assertThat(covered.cover().share()).as("seed " + seed).isEqualTo(fresh.share());
      assertThat(covered.clashes(one))
          .as("seed " + seed)
          .isEqualTo(Clashes.of(of, limits, Travel.UNKNOWN));
    }
    assertThat(changed).isGreaterThan(CREWS / 2);
  }

  private static Commitments commitments(Crew crew, PersonId person, Eligibility able) {
    List<Work> work =
        crew.fillings().stream()
            .filter(one -> one.person().equals(person))
            .map(
                one ->
                    new Work(
                        "w" + one.order(),
                        one.span(),
                        Optional.empty(),
                        one.tentative(),
                        Optional.empty(),
                        Margins.NONE,
                        false,
                        List.of(),
                        ZONES[0]))
            .toList();
    return new Commitments(person, ZONES[0], Hours.UNSAID, List.of(), List.of(), work, able);
  }

  private static long compare(String seed, Crew crew, Cover cover) {
    Map<String, List<Cover.Stretch>> byNeed = new HashMap<>();
    cover
        .stretches()
        .forEach(one -> byNeed.computeIfAbsent(one.need().by(), key -> new ArrayList<>()).add(one));
    Map<String, List<Need>> needs = new HashMap<>();
    crew.needs().forEach(n -> needs.computeIfAbsent(n.by(), key -> new ArrayList<>()).add(n));
    long looked = 0;
    long filled = 0;
    long needed = 0;
    Instant end = crew.range().end().plusSeconds(86_400);
    for (Map.Entry<String, List<Need>> one : needs.entrySet()) {
      Instant from = crew.range().start();
      for (Instant at = from; at.isBefore(end); at = at.plusSeconds(60)) {
        Instant now = at;
        Optional<Need> asked = asked(one.getValue(), now);
        Optional<Cover.Stretch> stretch =
            byNeed.getOrDefault(one.getKey(), List.of()).stream()
                .filter(s -> contains(s.span(), now))
                .findFirst();
        // Said only where it fails: a moment in words costs more than all that is compared.
        Supplier<String> where = () -> seed + " " + one.getKey() + " at " + now;
        assertThat(stretch.isPresent()).as(where).isEqualTo(asked.isPresent());
        if (asked.isPresent()) {
          looked++;
          int[] sure = best(crew, asked.get(), now, false);
          int[] all = best(crew, asked.get(), now, true);
          Cover.Stretch told = stretch.get();
          assertThat(told.filled()).as(where).isEqualTo(sure[0]);
          assertThat(told.open().stream().filter(Optional::isPresent).count())
              .as(() -> where.get() + ", skilled places open")
              .isEqualTo(skilled(asked.get()) - sure[1]);
          assertThat(told.maybe()).as(() -> where.get() + ", maybe").isEqualTo(all[0] - sure[0]);
          filled += sure[0];
          needed += asked.get().places().size();
        }
      }
    }
    assertThat(cover.share()).as(seed).isEqualTo(new Cover.Share(filled, needed));
    return looked;
  }

  private static boolean contains(TimeSpan span, Instant at) {
    return !at.isBefore(span.start()) && at.isBefore(span.end());
  }

  private static long skilled(Need need) {
    return need.places().stream().filter(Optional::isPresent).count();
  }

  /** The larger count asks; of equals what began first. */
  private static Optional<Need> asked(List<Need> needs, Instant at) {
    return needs.stream()
        .filter(need -> contains(need.span(), at))
        .min(
            Comparator.comparing((Need need) -> -need.places().size())
                .thenComparing(need -> need.span().start()));
  }

  /** As many as can sit, and of those ways the one with most of the skilled places. */
  private static int[] best(Crew crew, Need need, Instant at, boolean tentativeToo) {
    List<Eligibility> here = new ArrayList<>();
    for (int p = 1; p <= PEOPLE; p++) {
      PersonId person = PersonId.of(p);
      Eligibility able = crew.people().get(person);
      boolean away =
          able.leave().stream().anyMatch(l -> contains(l, at))
              || able.until().map(u -> !at.isBefore(u)).orElse(false);
      Filling first = null;
      Filling beside = null;
      for (Filling one : crew.fillings()) {
        boolean counts =
            one.person().equals(person)
                && contains(one.span(), at)
                && crew.needs().stream()
                    .anyMatch(n -> n.by().equals(one.of()) && contains(n.span(), at));
        if (!counts) {
          continue;
        }
        if (!one.meanwhile() && (first == null || Filling.FIRST.compare(one, first) < 0)) {
          first = one;
        }
        if (one.meanwhile()
            && one.of().equals(need.by())
            && (beside == null || Filling.FIRST.compare(one, beside) < 0)) {
          beside = one;
        }
      }
      first = isMeanwhile(need.by()) ? beside : first;
      if (!away
          && first != null
          && first.of().equals(need.by())
          && (tentativeToo || !first.tentative())) {
        here.add(able);
      }
    }
    return seated(here, 0, new boolean[need.places().size()], 0, 0, false, need, at);
  }

  private static int[] seated(
      List<Eligibility> here,
      int next,
      boolean[] taken,
      int sat,
      int skilled,
      boolean company,
      Need need,
      Instant at) {
    if (next == here.size()) {
      return company ? new int[] {sat, skilled} : new int[] {0, 0};
    }
    Eligibility able = here.get(next);
    int[] best = seated(here, next + 1, taken, sat, skilled, company, need, at);
    for (int place = 0; place < taken.length; place++) {
      Optional<String> wants = need.places().get(place);
      if (taken[place] || !has(able, wants, at, need.zone())) {
        continue;
      }
      taken[place] = true;
      int[] found =
          seated(
              here,
              next + 1,
              taken,
              sat + 1,
              skilled + (wants.isPresent() ? 1 : 0),
              company || !able.notAlone(),
              need,
              at);
      taken[place] = false;
      if (found[0] > best[0] || found[0] == best[0] && found[1] > best[1]) {
        best = found;
      }
    }
    return best;
  }

  private static boolean has(Eligibility able, Optional<String> skill, Instant at, ZoneId site) {
    if (skill.isEmpty()) {
      return true;
    }
    Validity days = able.skills().get(skill.get());
    LocalDate day = LocalDate.ofInstant(at, site);
    return days != null
        && (days.first().isEmpty() || !day.isBefore(days.first().get()))
        && (days.last().isEmpty() || !day.isAfter(days.last().get()));
  }

  // ---- By hand ---------------------------------------------------------------------------------

  private static Instant at(String local) {
    return LocalDateTime.parse(local).atZone(ZONES[0]).toInstant();
  }

  private static TimeSpan span(String from, String until) {
    return TimeSpan.of(at(from), at(until));
  }

  private static Filling stands(long person, String of, String from, String until) {
    return new Filling(
        PersonId.of(person), of, span(from, until), Instant.EPOCH, person, false, false);
  }

  @Test
  public void gapsOfADutyMergeOverMidnightAndThoseOfVisitsDoNot() {
    Duty night =
        new Duty(
            "watch",
            ZONES[0],
            Optional.empty(),
            List.of(
                new Duty.Repeating(
                    EnumSet.allOf(DayOfWeek.class),
                    Duty.Stand.of(LocalTime.of(8, 0), LocalTime.of(8, 0), 1),
                    Validity.ALWAYS,
                    Optional.empty())),
            Set.of(),
            List.of());
    TimeSpan range = span("2026-12-07T00:00", "2026-12-10T00:00");
    Cover cover =
        Cover.of(
            night.needs(range),
            List.of(stands(1, "watch", "2026-12-07T00:00", "2026-12-07T18:00")),
            Map.of());
    assertThat(cover.gaps())
        .containsExactly(
            new Cover.Gap(
                "watch", span("2026-12-07T18:00", "2026-12-10T00:00"), List.of(Optional.empty())));
    List<Need> visits = new ArrayList<>();
    for (Need need : night.needs(range)) {
      visits.add(new Need("visit", false, need.zone(), need.span(), need.places()));
    }
    assertThat(Cover.of(visits, List.of(), Map.of()).gaps()).hasSize(4);
  }

  @Test
  public void nothingNeededIsNoShareAndTenthsAreRoundedDown() {
    assertThat(Cover.of(List.of(), List.of(), Map.of()).share().perMille()).isEmpty();
    Need need =
        new Need(
            "n",
            true,
            ZONES[0],
            span("2026-12-07T08:00", "2026-12-07T11:00"),
            Need.places(1, Optional.empty()));
    Cover cover =
        Cover.of(
            List.of(need),
            List.of(stands(1, "n", "2026-12-07T08:00", "2026-12-07T10:00")),
            Map.of());
    assertThat(cover.share().perMille()).contains(666L);
  }

  @Test
  public void aSkillHoldsOnItsLastDayAtTheSite() {
    Need need =
        new Need(
            "n",
            true,
            ZONES[2],
            span("2026-12-07T08:00", "2026-12-08T08:00"),
            Need.places(1, Optional.of("sluice")));
    Eligibility able =
        new Eligibility(
            Map.of("sluice", Validity.until(LocalDate.of(2026, 12, 7))),
            false,
            List.of(),
            Optional.empty());
    Cover cover =
        Cover.of(
            List.of(need),
            List.of(stands(1, "n", "2026-12-07T08:00", "2026-12-08T08:00")),
            Map.of(PersonId.of(1), able));
    // Midnight in Kolkata is half past six in London.
    assertThat(cover.gaps())
        .containsExactly(
            new Cover.Gap(
                "n", span("2026-12-07T18:30", "2026-12-08T08:00"), List.of(Optional.of("sluice"))));
  }
}
