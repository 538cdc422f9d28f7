package mellowrota.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Who could, by hand: each letter of a day is an hour, the gap is from eight until twelve. */
public class WhoCouldTest {

  private static final Instant MIDNIGHT = Instant.parse("2026-12-07T00:00:00Z");
  private static final TimeSpan GAP = hours(8, 12);

  private static TimeSpan hours(int from, int until) {
    return TimeSpan.of(MIDNIGHT.plusSeconds(3600L * from), MIDNIGHT.plusSeconds(3600L * until));
  }

  private static List<TimeSpan> spans(String list) {
    return list.isEmpty()
        ? List.of()
        : Arrays.stream(list.split(" "))
            .map(one -> one.split("-"))
            .map(one -> hours(Integer.parseInt(one[0]), Integer.parseInt(one[1])))
            .toList();
  }

  private static final Limits LIMITS =
      new Limits(
          Map.of(
              Clash.Kind.DOUBLE, Clash.Level.NEVER,
              Clash.Kind.LEAVE, Clash.Level.NEVER,
              Clash.Kind.SKILL, Clash.Level.NEVER),
          Duration.ofHours(11),
          Duration.ofHours(10),
          DayOfWeek.MONDAY,
          Duration.ofHours(40),
          0,
          Duration.ZERO,
          0,
          0,
          0);

  private static final Travel TRAVEL =
      new Travel(
          Map.of(
              new Travel.Way(PlaceId.of(1), PlaceId.of(2)), Duration.ofMinutes(90),
              new Travel.Way(PlaceId.of(1), PlaceId.of(3)), Duration.ofMinutes(20),
              new Travel.Way(PlaceId.of(1), PlaceId.of(4)), Duration.ofMinutes(60)),
          Map.of(),
          0);

  private static final Bounds BOUNDS = new Bounds(LIMITS, TRAVEL, Map.of());

  private static Work work(String id, TimeSpan span, boolean tentative, long place, String skill) {
    return new Work(
        id,
        span,
        Optional.empty(),
        tentative,
        Optional.of(PlaceId.of(place)),
        Margins.NONE,
        false,
        skill.isEmpty() ? List.of() : List.of(Optional.of(skill)),
        ZoneOffset.UTC);
  }

  /** The hours of the day by their beginning and end. */
  private static Hours at(String list) {
    if (list.equals("?")) {
      return Hours.UNSAID;
    }
    List<Hours.Clock> times =
        spans(list).stream()
            .map(one -> new Hours.Clock(clock(one.start()), clock(one.end())))
            .toList();
    LocalDate day = LocalDate.ofInstant(MIDNIGHT, ZoneOffset.UTC);
    return new Hours(
        List.of(), List.of(new Hours.Dated(day, Optional.empty(), ZoneOffset.UTC, times)));
  }

  private static LocalTime clock(Instant at) {
    return LocalTime.ofInstant(at, ZoneOffset.UTC);
  }

  private static Commitments commitments(
      long id, String hours, String leave, List<Work> work, String busy, Eligibility able) {
    return new Commitments(
        PersonId.of(id),
        ZoneOffset.UTC,
        at(hours),
        spans(leave).stream().map(span -> new Commitments.Leave("leave", span)).toList(),
        spans(busy).stream().map(span -> new Commitments.Busy(span, false)).toList(),
        work,
        able);
  }

  private static List<Work> works(String work, String maybe) {
    List<Work> all = new ArrayList<>();
    spans(work).forEach(span -> all.add(work("w" + all.size(), span, false, 1, "")));
    spans(maybe).forEach(span -> all.add(work("w" + all.size(), span, true, 1, "")));
    return all;
  }

  private static WhoCould.Candidate candidate(Commitments of, String here, String alone) {
    return new WhoCould.Candidate(
        of,
        "Somebody",
        false,
        spans(here),
        spans(alone),
        Duration.ZERO,
        Optional.empty(),
        WhoCould.Ties.NONE);
  }

  private static WhoCould.Answer answer(WhoCould.Candidate one, String skill) {
    Work trial = work("trial", GAP, false, 1, skill);
    return WhoCould.of(trial, List.of(one), BOUNDS).get(0);
  }

  /** Hours, leave, work, tentative work, outside busy, stands there; what is said of it. */
  @DataProvider
  public Object[][] days() {
    return new Object[][] {
      {"7-16", "", "", "", "", "", "YES"},
      {"?", "", "", "", "", "", "YES"},
      {"", "", "", "", "", "", "WITH_REASON HOURS 8-12"},
      {"8-12", "", "", "", "", "", "YES"},
      {"9-16", "", "", "", "", "", "WITH_REASON HOURS 8-9"},
      {"7-11", "", "", "", "", "", "WITH_REASON HOURS 11-12"},
      {"7-9 10-16", "", "", "", "", "", "WITH_REASON HOURS 9-10"},
      {"7-9 9-16", "", "", "", "", "", "YES"},
      {"9-16 7-9", "", "", "", "", "", "YES"},
      {"7-10 9-16", "", "", "", "", "", "YES"},
      {"7-16", "0-24", "", "", "", "", "NO LEAVE 8-12"},
      {"7-16", "12-24", "", "", "", "", "YES"},
      {"7-16", "11-24", "", "", "", "", "NO LEAVE 11-12"},
      {"7-16", "", "6-8 12-14", "", "", "", "YES"},
      {"7-16", "", "7-9", "", "", "", "NO DOUBLE 8-9"},
      {"7-16", "", "9-10 11-12", "", "", "", "NO DOUBLE 9-10, DOUBLE 11-12"},
      {"7-16", "", "9-9", "", "", "", "YES"},
      {"7-16", "", "", "9-10", "", "", "WITH_REASON DOUBLE 9-10"},
      {"7-16", "", "", "", "11-13", "", "WITH_REASON BUSY 11-12"},
      {"7-16", "", "", "", "12-13", "", "YES"},
      {"7-16", "", "", "", "", "8-10", "NO HERE 8-10"},
      {"9-16", "", "", "", "11-13", "", "WITH_REASON HOURS 8-9, BUSY 11-12"},
      {"9-16", "8-9", "10-11", "", "", "", "NO LEAVE 8-9, HOURS 8-9, DOUBLE 10-11"},
      // Limits of the house: eleven hours of rest, ten at a stretch, forty in the week.
      {"?", "", "12-18", "", "", "", "YES"},
      {"?", "", "12-19", "", "", "", "WITH_REASON LONGEST 8-19"},
      {"?", "", "4-8 12-16", "", "", "", "WITH_REASON LONGEST 4-16"},
      {"?", "", "14-15", "", "", "", "YES"},
      {"?", "", "15-16", "", "", "", "WITH_REASON REST 12-15"},
      {"?", "", "22-23", "", "", "", "WITH_REASON REST 12-22"},
      {"?", "", "", "22-23", "", "", "WITH_REASON REST 12-22"},
      {"?", "", "23-24", "", "", "", "YES"},
    };
  }

  @Test(dataProvider = "days")
  public void whatSpeaksAgainstItIsSaid(
      String hours,
      String leave,
      String work,
      String maybe,
      String busy,
      String here,
      String said) {
    Commitments of = commitments(1, hours, leave, works(work, maybe), busy, Eligibility.PLAIN);
    assertThat(told(answer(candidate(of, here, ""), ""))).isEqualTo(said);
  }

  /** Where somebody lives; leave, busy times and work in UTC hours of the day; what is said. */
  @DataProvider
  public Object[][] wholeDays() {
    return new Object[][] {
      {"Z", "", "", "", "YES"},
      {"Z", "23-30", "", "", "NO LEAVE 23-24"},
      {"Z", "24-30", "", "", "YES"},
      // The day begins eleven hours sooner there, and ends as much sooner.
      {"+11:00", "13-20", "", "", "YES"},
      {"+11:00", "-12--11", "", "", "YES"},
      {"+11:00", "-12--10", "", "", "NO LEAVE -11--10"},
      {"+11:00", "12-20", "", "", "NO LEAVE 12-13"},
      {"+11:00", "", "13-14", "", "YES"},
      {"+11:00", "", "12-14", "", "WITH_REASON BUSY 12-13"},
      {"+11:00", "", "", "12-14", "NO DOUBLE 12-13"},
      {"-10:00", "0-10", "", "", "YES"},
      {"-10:00", "30-40", "", "", "NO LEAVE 30-34"},
      {"-10:00", "", "", "33-36", "NO DOUBLE 33-34"},
    };
  }

  @Test(dataProvider = "wholeDays")
  public void allDayWorkIsTriedInTheDaysOfEach(
      String zone, String leave, String busy, String work, String said) {
    LocalDate day = LocalDate.ofInstant(MIDNIGHT, ZoneOffset.UTC);
    Work trial =
        new Work(
            "trial",
            DaySpan.ofDay(day).in(ZoneOffset.UTC),
            Optional.of(DaySpan.ofDay(day)),
            false,
            Optional.empty(),
            Margins.NONE,
            false,
            List.of(),
            ZoneOffset.UTC);
    Commitments of =
        new Commitments(
            PersonId.of(1),
            ZoneOffset.of(zone),
            // Hours on that day there alone.
            new Hours(
                List.of(),
                List.of(
                    new Hours.Dated(
                        day,
                        Optional.empty(),
                        ZoneOffset.of(zone),
                        List.of(new Hours.Clock(LocalTime.of(0, 30), LocalTime.of(1, 30)))))),
            about(leave).stream().map(span -> new Commitments.Leave("leave", span)).toList(),
            about(busy).stream().map(span -> new Commitments.Busy(span, false)).toList(),
            about(work).stream().map(span -> work("w", span, false, 1, "")).toList(),
            Eligibility.PLAIN);
    Limits limits =
        new Limits(
            LIMITS.levels(),
            Duration.ZERO,
            Duration.ZERO,
            DayOfWeek.MONDAY,
            Duration.ZERO,
            0,
            Duration.ZERO,
            0,
            0,
            0);
    WhoCould.Answer answer =
        WhoCould.of(trial, List.of(candidate(of, "", "")), new Bounds(limits, TRAVEL, Map.of()))
            .get(0);
    List<WhoCould.Reason> about =
        answer.reasons().stream()
            .filter(one -> one.why() != WhoCould.Why.HOURS || work.isEmpty())
            .toList();
    assertThat(
            told(
                new WhoCould.Answer(
                    answer.candidate(), answer.verdict(), about, answer.way(), answer.there())))
        .isEqualTo(said);
  }

  /** In hours from the day's beginning, also before it. */
  private static List<TimeSpan> about(String span) {
    if (span.isEmpty()) {
      return List.of();
    }
    String[] ends = span.split("(?<=\\d)-");
    return List.of(
        TimeSpan.of(
            MIDNIGHT.plus(Duration.ofHours(Long.parseLong(ends[0]))),
            MIDNIGHT.plus(Duration.ofHours(Long.parseLong(ends[1])))));
  }

  private static String told(WhoCould.Answer answer) {
    StringBuilder told = new StringBuilder(answer.verdict().name());
    for (int i = 0; i < answer.reasons().size(); i++) {
      WhoCould.Reason reason = answer.reasons().get(i);
      told.append(i == 0 ? " " : ", ").append(reason.why()).append(' ');
      told.append(hour(reason.span().start())).append('-').append(hour(reason.span().end()));
    }
    return told.toString();
  }

  private static long hour(Instant at) {
    return (at.getEpochSecond() - MIDNIGHT.getEpochSecond()) / 3600;
  }

  /**
   * The skill they have until which day of the month (from it, where it is below 0), where they
   * would be alone.
   */
  @DataProvider
  public Object[][] able() {
    return new Object[][] {
      {"sluice", 0, "", "YES"},
      {"sluice", 7, "", "YES"},
      {"sluice", 6, "", "NO SKILL 8-12"},
      {"sluice", -7, "", "YES"},
      {"sluice", -8, "", "NO SKILL 8-12"},
      {"crane", 0, "", "NO SKILL 8-12"},
      {"sluice", 0, "9-11", "NO ALONE 9-11"},
      {"sluice", 0, "12-24", "YES"},
    };
  }

  @Test(dataProvider = "able")
  public void whoIsNotAbleCannot(String skill, int last, String alone, String said) {
    Validity days =
        last == 0
            ? Validity.ALWAYS
            : last > 0
                ? Validity.until(LocalDate.of(2026, 12, last))
                : new Validity(Optional.of(LocalDate.of(2026, 12, -last)), Optional.empty());
    Eligibility able = new Eligibility(Map.of(skill, days), false, List.of(), Optional.empty());
    Commitments of = commitments(1, "?", "", List.of(), "", able);
    assertThat(told(answer(candidate(of, "", alone), "sluice"))).isEqualTo(said);
  }

  @Test
  public void whoCannotGetThereInTimeIsTold() {
    Work far = work("w", hours(13, 14), false, 2, "");
    Commitments of = commitments(1, "?", "", List.of(far), "", Eligibility.PLAIN);
    assertThat(told(answer(candidate(of, "", ""), ""))).isEqualTo("WITH_REASON TRAVEL 12-13");
  }

  @Test
  public void moreThanAWeekHoldsIsTold() {
    List<Work> week = new ArrayList<>();
    for (int day = 1; day < 5; day++) {
      week.add(work("d" + day, hours(24 * day + 8, 24 * day + 18), false, 1, ""));
    }
    Commitments of = commitments(1, "?", "", week, "", Eligibility.PLAIN);
    WhoCould.Answer answer = answer(candidate(of, "", ""), "");
    assertThat(told(answer)).isEqualTo("WITH_REASON WEEK 0-168");
    assertThat(answer.reasons().get(0).with()).hasSize(4);
  }

  private static WhoCould.Candidate laden(
      long id, String name, String maybe, long load, long contract, long from) {
    List<Work> work = works("", maybe);
    if (from > 0) {
      // The day before, long enough for rest.
      work.add(work("before", hours(-10, -8), false, from, ""));
    }
    return new WhoCould.Candidate(
        commitments(
            id,
            "?",
            "",
            work,
            "",
            new Eligibility(
                Map.of(),
                false,
                List.of(),
                name.equals("Left") ? Optional.of(MIDNIGHT) : Optional.empty())),
        name,
        name.startsWith("Unknown"),
        List.of(),
        List.of(),
        Duration.ofHours(load),
        contract == 0 ? Optional.empty() : Optional.of(Duration.ofHours(contract)),
        WhoCould.Ties.NONE);
  }

  @Test
  public void whoCouldStandsFirstAndOfThoseTheLeastLadenAndTheNearest() {
    List<WhoCould.Candidate> all =
        List.of(
            laden(8, "Left", "", 0, 0, 0),
            laden(7, "Unknown, and maybe", "9-10", 0, 0, 0),
            laden(6, "Maybe", "9-10", 0, 0, 0),
            laden(5, "Half of forty", "", 20, 0, 0),
            laden(4, "A third of thirty, far", "", 10, 30, 4),
            laden(3, "A third of thirty, near", "", 10, 30, 3),
            laden(2, "A third of thirty, and nobody knows", "", 10, 30, 0),
            laden(1, "A third of thirty, and nobody knows", "", 10, 30, 0));
    Work trial = work("trial", GAP, false, 1, "");
    assertThat(
            WhoCould.of(trial, all, BOUNDS).stream()
                .map(one -> one.candidate().person().value())
                .toList())
        .containsExactly(3L, 4L, 1L, 2L, 5L, 6L, 7L, 8L);
  }

  private static WhoCould.Candidate tied(
      long id, String hours, boolean agency, boolean team, int there) {
    List<Work> work =
        there == 0 ? List.of() : List.of(work("there", hours(there, there + 1), false, 1, ""));
    return new WhoCould.Candidate(
        commitments(id, hours, "", work, "", Eligibility.PLAIN),
        "Same name",
        false,
        List.of(),
        List.of(),
        Duration.ZERO,
        Optional.empty(),
        new WhoCould.Ties(agency, false, team));
  }

  /** Among those who are free: known hours, ours, their team, at the place that day. */
  @Test
  public void ofThoseWhoAreFreeTheNearestToItAreFirst() {
    List<WhoCould.Candidate> all =
        List.of(
            tied(1, "?", false, true, 0),
            tied(2, "0-24", true, true, 0),
            tied(3, "0-24", false, false, 0),
            tied(4, "0-24", false, false, 13),
            tied(5, "0-24", false, true, 0));
    assertThat(
            WhoCould.of(work("trial", GAP, false, 1, ""), all, BOUNDS).stream()
                .map(one -> one.candidate().person().value())
                .toList())
        .containsExactly(5L, 4L, 3L, 2L, 1L);
  }

  @DataProvider
  public Object[][] figures() {
    return new Object[][] {
      {"12-19", "LONGEST 660 of 600"},
      {"15-16", "REST 180 of 660"},
      {"9-10", "DOUBLE"},
    };
  }

  /** What is measured is told with what the house allows. */
  @Test(dataProvider = "figures")
  public void aReasonSaysHowMuchOfHowMuch(String work, String said) {
    Commitments of = commitments(1, "?", "", works(work, ""), "", Eligibility.PLAIN);
    WhoCould.Reason reason = answer(candidate(of, "", ""), "").reasons().get(0);
    assertThat(
            reason.why()
                + reason.figure().map(one -> " " + one.is() + " of " + one.limit()).orElse(""))
        .isEqualTo(said);
  }

  @Test
  public void theOfficeIsSuggestedForNothingButItsTeams() {
    WhoCould.Candidate office =
        new WhoCould.Candidate(
            commitments(1, "?", "", List.of(), "", Eligibility.PLAIN),
            "Office",
            false,
            List.of(),
            List.of(),
            Duration.ZERO,
            Optional.empty(),
            new WhoCould.Ties(false, true, false));
    assertThat(filled(List.of(gap("a", 8, 12, "-")), office)).containsExactly("a nobody");
  }

  /** How much the place holds, of people or of visits; what stands there; what is said of it. */
  @DataProvider
  public Object[][] rooms() {
    return new Object[][] {
      {1, false, "", "YES"},
      {1, false, "9-10", "WITH_REASON CAPACITY 9-10"},
      {1, false, "12-14 6-8", "YES"},
      {1, false, "6-9 11-14", "WITH_REASON CAPACITY 8-9, CAPACITY 11-12"},
      {2, false, "9-10", "YES"},
      {2, false, "9-11 10-12", "WITH_REASON CAPACITY 10-11"},
      // Three people each.
      {3, true, "9-10", "WITH_REASON CAPACITY 9-10"},
      {4, true, "9-10", "YES"},
      {6, true, "9-11 10-12", "WITH_REASON CAPACITY 10-11"},
      // Who comes to a visit that stands there makes no other, and is one more.
      {1, false, "trial", "YES"},
      {3, true, "trial", "WITH_REASON CAPACITY 8-12"},
    };
  }

  private static final Set<PersonId> THREE = Set.of(PersonId.of(7), PersonId.of(8), PersonId.of(9));

  private static Set<PersonId> others(TimeSpan span) {
    long from = 100 + 10 * hour(span.start());
    return Set.of(PersonId.of(from), PersonId.of(from + 1), PersonId.of(from + 2));
  }

  @Test(dataProvider = "rooms")
  public void aPlaceThatHoldsNoMoreIsTold(int most, boolean ofPeople, String stays, String said) {
    List<Clashes.Stay> there =
        stays.equals("trial")
            ? List.of(new Clashes.Stay("trial", GAP, THREE, false))
            : spans(stays).stream()
                .map(span -> new Clashes.Stay("stay " + span.start(), span, others(span), false))
                .toList();
    Bounds bounds =
        new Bounds(
            LIMITS,
            TRAVEL,
            Map.of(
                PlaceId.of(1),
                new Bounds.Room(new Clashes.Capacity(PlaceId.of(1), most, ofPeople), there)));
    Commitments of = commitments(1, "?", "", List.of(), "", Eligibility.PLAIN);
    Work trial = work("trial", GAP, false, 1, "");
    assertThat(told(WhoCould.of(trial, List.of(candidate(of, "", "")), bounds).get(0)))
        .isEqualTo(said);
  }

  @Test
  public void aFillPutsNoMoreIntoAPlaceThanTheHouseEverWants() {
    Limits strict =
        new Limits(
            Map.of(Clash.Kind.CAPACITY, Clash.Level.NEVER),
            Duration.ZERO,
            Duration.ZERO,
            DayOfWeek.MONDAY,
            Duration.ZERO,
            0,
            Duration.ZERO,
            0,
            0,
            0);
    Bounds.Room room = new Bounds.Room(new Clashes.Capacity(PlaceId.of(1), 1, false), List.of());
    List<Fill.Suggestion> found =
        Fill.suggest(
            List.of(gap("a", 8, 12, "-", "-")),
            List.of(able(1, false, false, ""), able(2, false, false, "")),
            new Bounds(strict, TRAVEL, Map.of(PlaceId.of(1), room)));
    assertThat(found)
        .extracting(one -> one.person().map(PersonId::value).orElse(0L))
        .containsExactly(1L, 0L);
    assertThat(found.get(1).reasons())
        .extracting(WhoCould.Reason::why)
        .containsExactly(WhoCould.Why.CAPACITY);
  }

  // ---- When could ------------------------------------------------------------------------------

  /** Hours, leave, work, busy; starts of two hours between six and eighteen, in quarter hours. */
  @DataProvider
  public Object[][] starts() {
    return new Object[][] {
      {"?", "", "", "", "6:00-16:00 YES"},
      {"7-16", "", "", "", "6:00-6:45 HOURS, 7:00-14:00 YES, 14:15-16:00 HOURS"},
      {
        "7-16",
        "12-24",
        "",
        "",
        "6:00-6:45 HOURS, 7:00-10:00 YES, 10:15-14:00 LEAVE, " + "14:15-16:00 HOURS LEAVE"
      },
      {"?", "", "10-11", "", "6:00-8:00 YES, 8:15-10:45 DOUBLE, 11:00-16:00 YES"},
      {"?", "", "", "9-10", "6:00-7:00 YES, 7:15-9:45 BUSY, 10:00-16:00 YES"},
      {"8-9", "", "", "", "6:00-16:00 HOURS"},
    };
  }

  @Test(dataProvider = "starts")
  public void everyStartOnTheGridIsTold(
      String hours, String leave, String work, String busy, String said) {
    Commitments of = commitments(1, hours, leave, works(work, ""), busy, Eligibility.PLAIN);
    assertThat(when(hours(6, 18), candidate(of, "", ""))).isEqualTo(said);
  }

  /** What speaks against one of them speaks against all; work alone has no rest around it. */
  private static String when(TimeSpan range, WhoCould.Candidate... people) {
    Limits restless =
        new Limits(
            LIMITS.levels(),
            Duration.ZERO,
            Duration.ZERO,
            DayOfWeek.MONDAY,
            Duration.ZERO,
            0,
            Duration.ZERO,
            0,
            0,
            0);
    Work work = work("trial", hours(0, 2), false, 1, "");
    List<String> told = new ArrayList<>();
    for (WhenCould.Starts one :
        WhenCould.of(
            work, range, List.of(people), new Bounds(restless, Travel.UNKNOWN, Map.of()))) {
      told.add(
          clock(one.first())
              + "-"
              + clock(one.last())
              + (one.against().isEmpty() ? " YES" : "")
              + one.against().stream()
                  .map(why -> " " + why.why())
                  .sorted()
                  .distinct()
                  .reduce("", String::concat));
    }
    return String.join(", ", told).replaceAll("\\b0(\\d:)", "$1");
  }

  @Test
  public void whatSpeaksAgainstOneSpeaksAgainstAll() {
    WhoCould.Candidate early =
        candidate(commitments(1, "6-12", "", List.of(), "", Eligibility.PLAIN), "", "");
    WhoCould.Candidate late =
        candidate(commitments(2, "9-18", "", List.of(), "", Eligibility.PLAIN), "", "");
    assertThat(when(hours(6, 18), early, late))
        .isEqualTo("6:00-8:45 HOURS, 9:00-10:00 YES, 10:15-16:00 HOURS");
  }

  /** All who come together are in the place at once. */
  @Test
  public void aPlaceHoldsAllWhoComeTogether() {
    List<WhoCould.Candidate> two =
        List.of(
            candidate(commitments(1, "?", "", List.of(), "", Eligibility.PLAIN), "", ""),
            candidate(commitments(2, "?", "", List.of(), "", Eligibility.PLAIN), "", ""));
    Work work = work("trial", hours(0, 2), false, 1, "");
    for (int most = 1; most <= 2; most++) {
      Bounds.Room room =
          new Bounds.Room(new Clashes.Capacity(PlaceId.of(1), most, true), List.of());
      List<WhenCould.Starts> found =
          WhenCould.of(
              work, hours(8, 12), two, new Bounds(LIMITS, TRAVEL, Map.of(PlaceId.of(1), room)));
      assertThat(found).hasSize(1);
      assertThat(found.get(0).against())
          .extracting(WhenCould.Against::why)
          .containsOnly(
              most == 1 ? new WhoCould.Why[] {WhoCould.Why.CAPACITY} : new WhoCould.Why[] {});
    }
  }

  @Test
  public void startsBeginOnTheGridAndEndWithinTheRange() {
    WhoCould.Candidate free =
        candidate(commitments(1, "?", "", List.of(), "", Eligibility.PLAIN), "", "");
    TimeSpan range =
        TimeSpan.of(MIDNIGHT.plusSeconds(6 * 3600 + 60), MIDNIGHT.plusSeconds(9 * 3600));
    assertThat(when(range, free)).isEqualTo("6:15-7:00 YES");
    assertThat(when(hours(6, 7), free)).isEmpty();
  }

  // ---- A fill ----------------------------------------------------------------------------------

  private static Fill.Short gap(String of, int from, int until, String... skills) {
    return gap(Set.of(), of, from, until, skills);
  }

  private static Fill.Short gap(
      Set<PersonId> there, String of, int from, int until, String... skills) {
    List<Optional<String>> asks =
        Arrays.stream(skills)
            .map(one -> one.equals("-") ? Optional.<String>empty() : Optional.of(one))
            .toList();
    Work work =
        new Work(
            of,
            hours(from, until),
            Optional.empty(),
            false,
            Optional.of(PlaceId.of(1)),
            Margins.NONE,
            false,
            asks,
            ZoneOffset.UTC);
    return new Fill.Short(of, work, List.of(hours(from, until)), there, false);
  }

  private static WhoCould.Candidate able(long id, boolean notAlone, boolean unknown, String skill) {
    Map<String, Validity> skills = skill.isEmpty() ? Map.of() : Map.of(skill, Validity.ALWAYS);
    Eligibility able = new Eligibility(skills, notAlone, List.of(), Optional.empty());
    return new WhoCould.Candidate(
        commitments(id, "?", "", List.of(), "", able),
        "P" + id,
        unknown,
        List.of(),
        List.of(),
        Duration.ofHours(id),
        Optional.empty(),
        WhoCould.Ties.NONE);
  }

  private static List<String> filled(List<Fill.Short> gaps, WhoCould.Candidate... people) {
    return Fill.suggest(gaps, List.of(people), BOUNDS).stream()
        .map(
            one ->
                one.gap().of()
                    + " "
                    + one.person().map(person -> "" + person.value()).orElse("nobody")
                    + one.reasons().stream().map(why -> " " + why.why()).reduce("", String::concat))
        .toList();
  }

  @Test
  public void aFillGoesToTheBestAndCountsWhatItGaveBefore() {
    // The second has more load at first; when the first has four hours more, it is the lighter.
    assertThat(
            filled(
                List.of(gap("a", 8, 12, "-"), gap("b", 32, 36, "-")),
                able(1, false, false, ""),
                able(2, false, false, "")))
        .containsExactly("a 1", "b 2");
    assertThat(
            filled(
                List.of(gap("a", 8, 12, "-"), gap("b", 10, 14, "-"), gap("c", 11, 13, "-")),
                able(1, false, false, ""),
                able(2, false, false, "")))
        .containsExactly("a 1", "b 2", "c nobody DOUBLE");
  }

  @Test
  public void aFillBreaksNoNeverAndGivesTheUnknownNothing() {
    assertThat(filled(List.of(gap("a", 8, 12, "-")), able(1, false, true, "")))
        .containsExactly("a nobody UNKNOWN");
    assertThat(filled(List.of(gap("a", 8, 12, "-")), able(1, true, false, "")))
        .containsExactly("a nobody ALONE");
    assertThat(
            filled(
                List.of(gap("a", 8, 12, "-", "sluice")),
                able(1, false, false, "sluice"),
                able(2, false, false, "")))
        .containsExactly("a 1", "a 2");
    assertThat(filled(List.of(gap("a", 8, 12, "sluice")), able(1, false, false, "")))
        .containsExactly("a nobody SKILL");
    assertThat(filled(List.of(gap("a", 8, 12, "-", "-")), able(1, false, false, "")))
        .containsExactly("a 1", "a nobody");
    assertThat(filled(List.of(gap("a", 8, 12, "-")))).containsExactly("a nobody");
    assertThat(
            filled(
                List.of(gap(Set.of(PersonId.of(1)), "a", 8, 12, "-")),
                able(1, false, false, ""),
                able(2, false, false, "")))
        .containsExactly("a 2");
  }
}
