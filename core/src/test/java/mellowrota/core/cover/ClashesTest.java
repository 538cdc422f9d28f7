package mellowrota.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Position;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Clashes by hand. Times are hours from Monday 7 December 2026; {@code 24} is Tuesday's midnight.
 * Places 1 and 2 are 30 minutes apart, 1 and 3 are 40, the way back 20; nobody knows how far 4 is.
 */
public class ClashesTest {

  private static final LocalDate MONDAY = LocalDate.of(2026, 12, 7);
  private static final Pattern THING =
      Pattern.compile(
          "([wtmaAlbB])(\\d+(?::\\d\\d)?)-(\\d+(?::\\d\\d)?)(?:@(\\d))?(?:\\+(\\d+)/(\\d+))?(?:!(.*))?");

  private static final Travel TRAVEL =
      new Travel(
          Map.of(way(1, 2), minutes(30), way(1, 3), minutes(40), way(3, 1), minutes(20)),
          Map.of(),
          0);

  private static final Limits NONE = limits(0, 0, 0, 0, 0);

  private static Travel.Way way(long from, long to) {
    return new Travel.Way(PlaceId.of(from), PlaceId.of(to));
  }

  private static Duration minutes(int minutes) {
    return Duration.ofMinutes(minutes);
  }

  private static Limits limits(int rest, int longest, int week, int days, int nights) {
    Map<Clash.Kind, Clash.Level> levels = new EnumMap<>(Clash.Kind.class);
    levels.put(Clash.Kind.DOUBLE, Clash.Level.NEVER);
    levels.put(Clash.Kind.LEAVE, Clash.Level.NEVER);
    levels.put(Clash.Kind.SKILL, Clash.Level.NEVER);
    levels.put(Clash.Kind.REST, Clash.Level.NEVER);
    levels.put(Clash.Kind.MARGIN, Clash.Level.NEVER);
    return new Limits(
        levels,
        Duration.ofHours(rest),
        Duration.ofHours(longest),
        DayOfWeek.MONDAY,
        Duration.ofHours(week),
        0,
        Duration.ZERO,
        days,
        nights,
        3);
  }

  private static Instant at(String hours, ZoneId zone) {
    String[] parts = hours.split(":");
    int hour = Integer.parseInt(parts[0]);
    LocalTime time = LocalTime.of(hour % 24, parts.length > 1 ? Integer.parseInt(parts[1]) : 0);
    return MONDAY.plusDays(hour / 24).atTime(time).atZone(zone).toInstant();
  }

  private static String told(Instant at) {
    long minutes = Duration.between(at("0", ZoneOffset.UTC), at).toMinutes();
    return minutes / 60 + (minutes % 60 == 0 ? "" : ":%02d".formatted(minutes % 60));
  }

  /**
   * @param things w work, t tentative, m lets other work be done meanwhile, a all day and A all day
   *     tentative (days from until), l leave, b busy and B busy tentatively; {@code @} a place,
   *     {@code +} margins in minutes, {@code !} skills that its places want, {@code -} for none
   */
  private static Commitments day(Hours hours, Eligibility able, ZoneId zone, String things) {
    List<Work> work = new ArrayList<>();
    List<Commitments.Leave> leave = new ArrayList<>();
    List<Commitments.Busy> busy = new ArrayList<>();
    for (String one : things.isEmpty() ? new String[0] : things.split(" ")) {
      Matcher found = THING.matcher(one);
      assertThat(found.matches()).as(one).isTrue();
      char sort = found.group(1).charAt(0);
      boolean allDay = Character.toLowerCase(sort) == 'a';
      String factor = allDay ? found.group(2) : null;
      TimeSpan span =
          TimeSpan.of(
              at(factor == null ? found.group(2) : 24 * Integer.parseInt(factor) + "", zone),
              at(
                  factor == null ? found.group(3) : 24 * Integer.parseInt(found.group(3)) + "",
                  zone));
      switch (sort) {
        case 'l' -> leave.add(new Commitments.Leave("l" + leave.size(), span));
        case 'b', 'B' -> busy.add(new Commitments.Busy(span, sort == 'B'));
        default ->
            work.add(
                new Work(
                    "" + (char) ('A' + work.size()),
                    span,
                    allDay ? Optional.of(days(span, zone)) : Optional.empty(),
                    sort == 't' || sort == 'A',
                    Optional.ofNullable(found.group(4)).map(Long::valueOf).map(PlaceId::of),
                    found.group(5) == null
                        ? Margins.NONE
                        : new Margins(
                            minutes(Integer.parseInt(found.group(5))),
                            minutes(Integer.parseInt(found.group(6)))),
                    sort == 'm',
                    skills(found.group(7)),
                    ZoneOffset.UTC));
      }
    }
    return new Commitments(PersonId.of(1), zone, hours, leave, busy, work, able);
  }

  private static List<Optional<String>> skills(String list) {
    return list == null
        ? List.of()
        : Arrays.stream(list.split(","))
            .map(one -> one.equals("-") ? Optional.<String>empty() : Optional.of(one))
            .toList();
  }

  private static String told(List<Clash> clashes) {
    List<String> all = new ArrayList<>();
    for (Clash one : clashes) {
      StringBuilder text = new StringBuilder(one.kind().name());
      one.also().forEach(kind -> text.append('+').append(kind));
      text.append(one.level() == Clash.Level.NEVER ? " never " : " ");
      text.append(told(one.span().start())).append('-').append(told(one.span().end())).append(' ');
      one.items().forEach(item -> text.append(item.sort() == Clash.Sort.BUSY ? "b" : item.id()));
      all.add(text.toString());
    }
    return String.join(", ", all);
  }

  private static void check(
      Limits limits, Hours hours, Eligibility able, ZoneId zone, String things, String said) {
    assertThat(told(Clashes.of(day(hours, able, zone, things), limits, TRAVEL)))
        .as(things)
        .isEqualTo(said);
  }

  // ---- Pairs -----------------------------------------------------------------------------------

  @DataProvider
  public Object[][] pairs() {
    return new Object[][] {
      // Two works.
      {"", ""},
      {"w8-12", ""},
      {"w8-12 w12-16", ""},
      {"w8-12 w11-16", "DOUBLE never 11-12 AB"},
      {"w8-12 w9-10", "DOUBLE never 9-10 AB"},
      {"w8-12 w8-12", "DOUBLE never 8-12 AB"},
      {"w8-12 w9-9", ""},
      {"w8-12 w8-8", ""},
      {"w8-12 w9-10 w11-13", "DOUBLE never 9-10 AB, DOUBLE never 11-12 AC"},
      {"w8-12 w9-12 w10-12", "DOUBLE never 9-12 AB, DOUBLE never 10-12 AC, DOUBLE never 10-12 BC"},
      {"w8-12 t11-16", "DOUBLE 11-12 AB"},
      {"t8-12 t11-16", "DOUBLE 11-12 AB"},
      {"w8-12 t9-10 w11-13", "DOUBLE 9-10 AB, DOUBLE never 11-12 AC"},
      {"w8-12 m9-16", ""},
      {"m8-12 m9-16", ""},
      {"w20-30 w29-32", "DOUBLE never 29-30 AB"},
      // All-day work takes the day.
      {"a0-1 w8-12", "DOUBLE never 8-12 AB"},
      {"a0-1 w24-28", ""},
      {"a0-2 w24-28", "DOUBLE never 24-28 AB"},
      {"A0-1 w8-12", "DOUBLE 8-12 AB"},
      {"a0-1 a0-1", "DOUBLE never 0-24 AB"},
      {"a0-1 a1-2", ""},
      // Leave.
      {"l0-24 w8-12", "LEAVE never 8-12 l0A"},
      {"l0-24 w24-28", ""},
      {"l0-24 w23-28", "LEAVE never 23-24 l0A"},
      {"l0-24 t8-12", "LEAVE 8-12 l0A"},
      {"l0-24 m8-12", "LEAVE never 8-12 l0A"},
      {"l0-24 a0-1", "LEAVE never 0-24 Al0"},
      {"l0-24 l24-48 w20-28", "LEAVE never 20-24 l0A, LEAVE never 24-28 Al1"},
      {"l0-24 w8-12 w14-16", "LEAVE never 8-12 l0A, LEAVE never 14-16 l0B"},
      {"l0-24 w8-12 w11-16", "LEAVE never 8-12 l0A, DOUBLE never 11-12 AB, LEAVE never 11-16 l0B"},
      // Busy elsewhere.
      {"b10-11 w8-12", "BUSY 10-11 Ab"},
      {"b12-13 w8-12", ""},
      {"b7-8 w8-12", ""},
      {"b10-11 b11-13 w8-12", "BUSY 10-12 Ab"},
      {"b9-10 b11-13 w8-12", "BUSY 9-10 Ab, BUSY 11-12 Ab"},
      {"b9-11 b10-13 w8-12", "BUSY 9-12 Ab"},
      {"B10-11 w8-12", "BUSY 10-11 Ab"},
      {"b10-11 t8-12", "BUSY 10-11 Ab"},
      {"b10-11 B11-12 w8-12", "BUSY 10-11 Ab, BUSY 11-12 Ab"},
      {"b10-11 m8-12", "BUSY 10-11 Ab"},
      {"b7-13 w8-12", "BUSY 8-12 bA"},
      // Margins: at one place the larger, else both.
      {"w8-12@1+0/30 w13-16@1+30/0", ""},
      {"w8-12@1+0/30 w12:30-16@1+30/0", ""},
      {"w8-12@1+0/30 w12:29-16@1+30/0", "MARGIN 12-12:29 AB"},
      {"w8-12@1+0/30 w12:29-16@1", "MARGIN 12-12:29 AB"},
      {"w8-12@1 w12:29-16@1+30/0", "MARGIN 12-12:29 AB"},
      {"w8-12+0/30 w13-16+30/0", ""},
      {"w8-12+0/30 w12:59-16+30/0", "MARGIN 12-12:59 AB"},
      {"w8-12+0/30 w12:59-16@4+30/0", "MARGIN 12-12:59 AB"},
      {"w8-12@4+0/30 w12:59-16@1+30/0", "MARGIN 12-12:59 AB"},
      {"w8-12@1+0/30 w12-16@1", "MARGIN 12-12 AB"},
      {"w8-12@1 w12-16@1", ""},
      {"t8-12@1+0/30 w12-16@1", "MARGIN 12-12 AB"},
      {"w8-12+0/240 w13-14 w15-16", "MARGIN 12-13 AB"},
      {"w8-12+0/240 t13-14 w15-16", "MARGIN 12-13 AB, MARGIN 12-15 AC"},
      {"w8-12+0/60 m12-13 w13-14+0/60", ""},
      {"m8-12+0/60 w12-13+60/0", ""},
      {"w8-12+0/60 w10-12 w12-16", "DOUBLE never 10-12 AB, MARGIN 12-12 AC"},
      {"w8-12+0/60 w9-13 w13-16", "DOUBLE never 9-12 AB"},
      {"a0-1 w24-28+60/0", "MARGIN 24-24 AB"},
      {"l0-24 w24:30-28+60/0", "MARGIN 23:30-24 l0A"},
      {"l0-24 w24-28+60/0", "MARGIN 23-24 l0A"},
      {"l24-48 w20-24+0/60", "MARGIN 24-25 Al0"},
      {"l0-24 w25-28+60/0", ""},
      {"l0-24 w20-28+60/0", "LEAVE never 20-24 l0A"},
      {"b12:30-13 w8-12+0/60", "MARGIN 12:30-13 Ab"},
      {"b13-14 w8-12+0/60", ""},
      {"b7-8 w8-12+60/0", "MARGIN 7-8 bA"},
      // Travel between neighbours, by the table both ways unless the way back has its own.
      {"w8-12@1 w12:30-16@2", ""},
      {"w8-12@1 w12:29-16@2", "TRAVEL 12-12:29 AB"},
      {"w8-12@2 w12:29-16@1", "TRAVEL 12-12:29 AB"},
      {"w8-12@1 w12-16@2", "TRAVEL 12-12 AB"},
      {"w8-12@1 w12:39-16@3", "TRAVEL 12-12:39 AB"},
      {"w8-12@3 w12:20-16@1", ""},
      {"w8-12@3 w12:19-16@1", "TRAVEL 12-12:19 AB"},
      {"w8-12@1 w12-16@4", ""},
      {"w8-12@1 w12-16", ""},
      {"w8-12 w12-16@2", ""},
      {"w8-12@1 w12-16@1", ""},
      {"a0-1@1 w24-28@2", ""},
      {"m8-12@1 w12-16@2", ""},
      {"t8-12@1 w12-16@2", "TRAVEL 12-12 AB"},
      {"w8-12@1 w12-12:10@1 w12:20-16@2", "TRAVEL 12:10-12:20 BC"},
      {"w8-12@1 t12-12:10@1 w12:20-16@2", "TRAVEL 12-12:20 AC, TRAVEL 12:10-12:20 BC"},
      {"w8-12@1+0/15 w12:29-16@2+15/0", "TRAVEL+MARGIN 12-12:29 AB"},
      {"w8-12@1 w11-16@2", "DOUBLE never 11-12 AB"},
    };
  }

  @Test(dataProvider = "pairs")
  public void whatCannotStandBesideOneAnotherIsSaid(String things, String said) {
    check(NONE, Hours.UNSAID, Eligibility.PLAIN, ZoneOffset.UTC, things, said);
  }

  /** Rest 11 hours never, longest 13, a week 40, six days and three nights in a row. */
  @DataProvider
  public Object[][] sums() {
    return new Object[][] {
      // Rest.
      {"w8-18 w29-30", ""},
      {"w8-18 w28:59-30", "REST never 18-28:59 AB"},
      {"w8-18 t28-30", "REST 18-28 AB"},
      {"w8-18 t20-21 w28-30", "REST never 18-28 AC, REST 21-28 BC"},
      {"w8-12 w12-18 w28-30", "REST never 18-28 BC"},
      {"w8-12 w14:59-18 w28-30", "REST never 18-28 BC"},
      {"w8-12 w15-18", "REST never 12-15 AB"},
      {"w8-12 w14-15 w17-18", ""},
      {"w20-23 w24-26", "REST never 23-24 AB"},
      {"w8-18 w9-10 w28-30", "DOUBLE never 9-10 AB, REST never 18-28 AC"},
      {"m8-18 w28-30", "REST never 18-28 AB"},
      {"w8-18+0/300 w29-30+300/0", ""},
      {"a0-1 w24-28", ""},
      {"w8-18@1+0/900 w28-30@2", "REST+MARGIN never 18-28 AB"},
      // The longest stretch.
      {"w6-19", ""},
      {"w6-19:01", "LONGEST 6-19:01 A"},
      {"w6-12 w12-20", "LONGEST 6-20 AB"},
      {"w6-12 w13-20", ""},
      {"w6-12 t12-20", "LONGEST 6-20 AB"},
      {"w6-20 t20-22", "LONGEST 6-20 A"},
      {"m6-20", "LONGEST 6-20 A"},
      {"a0-1", ""},
      // A week; each minute once, more than the limit.
      {"w8-18 w32-42 w56-66 w80-90", ""},
      {"w8-18 w32-42 w56-66 w80-90:01", "WEEK 0-168 ABCD"},
      {"w8-18 w32-42 w56-66 w80-90 t104-105", "WEEK 0-168 ABCDE"},
      {"w8-18 w32-42 w56-66 w80-90 w85-86", "DOUBLE never 85-86 DE"},
      {"w8-18 w32-42 w56-66 w80-90 w164-169", "WEEK 0-168 ABCDE"},
      {"w8-18 w32-42 w56-66 w80-90 w168-170", ""},
      {"w8-18+60/60 w32-42 w56-66 w80-90", ""},
      {"w8-18 w32-42 w56-66 w80-90 a4-5", ""},
      // Days in a row on which work begins.
      {"w8-9 w32-33 w56-57 w80-81 w104-105 w128-129", ""},
      {"w8-9 w32-33 w56-57 w80-81 w104-105 w128-129 w152-153", "DAYS 0-168 ABCDEFG"},
      {"w8-9 w32-33 w56-57 w80-81 w104-105 w128-129 t152-153", "DAYS 0-168 ABCDEFG"},
      {"w8-9 w32-33 w56-57 w80-81 w104-105 w152-153 w176-177", ""},
      {"w8-9 w32-33 w56-57 w80-81 w104-105 w128-129 a6-7", "DAYS 0-168 ABCDEFG"},
      {"w8-9 w32-33 w56-57 w80-81 w104-105 w140-148", ""},
      {"w8-9 w32-33 w56-57 w80-81 w104-105 w128-129 w152-153 t176-177", "DAYS 0-168 ABCDEFG"},
      // Nights: three hours of work between 23:00 and 06:00.
      {"w20-26 w44-50 w68-74", ""},
      {"w20-26 w44-50 w68-74 w92-98", "NIGHTS 23-102 ABCD"},
      {"w20-26 w44-50 w68-74 w92-97:59", ""},
      {"w20-26 w44-50 w68-74 t92-98", "NIGHTS 23-102 ABCD"},
      {"w22-26 w46-50 w70-74 w98-99 w100-102", "NIGHTS 23-102 ABCDE"},
      {"w20-26 w44-50 w92-98 w116-122", ""},
    };
  }

  @Test(dataProvider = "sums")
  public void whatAddsUpIsSaid(String things, String said) {
    Limits strict = limits(11, 13, 40, 6, 3);
    check(strict, Hours.UNSAID, Eligibility.PLAIN, ZoneOffset.UTC, things, said);
  }

  @Test
  public void aPeriodIsOverWhereItsMeanIs() {
    Limits limits =
        new Limits(
            Map.of(Clash.Kind.PERIOD, Clash.Level.NEVER),
            Duration.ZERO,
            Duration.ZERO,
            DayOfWeek.MONDAY,
            Duration.ZERO,
            2,
            Duration.ofHours(10),
            0,
            0,
            0);
    // Weeks of 12, 8, 9 and 12 hours: over with the fourth week, whose mean with the third is 10.5.
    String weeks = "w0-12 w168-176 w336-345 w504-516";
    check(limits, Hours.UNSAID, Eligibility.PLAIN, ZoneOffset.UTC, weeks, "PERIOD never 504-672 D");
    check(limits, Hours.UNSAID, Eligibility.PLAIN, ZoneOffset.UTC, "w0-20", "");
    check(limits, Hours.UNSAID, Eligibility.PLAIN, ZoneOffset.UTC, "w0-21", "PERIOD never 0-168 A");
    // A week without work between two that are over is over with its neighbours.
    check(
        limits,
        Hours.UNSAID,
        Eligibility.PLAIN,
        ZoneOffset.UTC,
        "w0-21 w336-357",
        "PERIOD never 0-504 AB");
  }

  // ---- Hours -----------------------------------------------------------------------------------

  private static Hours.Weekly on(
      DayOfWeek day, int from, int until, Long place, ZoneId zone, String first, String last) {
    return new Hours.Weekly(
        day,
        LocalTime.of(from, 0),
        LocalTime.of(until, 0),
        Optional.ofNullable(place).map(PlaceId::of),
        zone,
        Optional.ofNullable(first).map(LocalDate::parse),
        Optional.ofNullable(last).map(LocalDate::parse));
  }

  private static Hours.Dated on(String day, Long place, int... times) {
    List<Hours.Clock> clocks = new ArrayList<>();
    for (int i = 0; i < times.length; i += 2) {
      clocks.add(new Hours.Clock(LocalTime.of(times[i], 0), LocalTime.of(times[i + 1], 0)));
    }
    return new Hours.Dated(
        LocalDate.parse(day), Optional.ofNullable(place).map(PlaceId::of), ZoneOffset.UTC, clocks);
  }

  private static final Hours WEEK =
      new Hours(
          List.of(
              on(DayOfWeek.MONDAY, 8, 16, null, ZoneOffset.UTC, null, null),
              on(DayOfWeek.MONDAY, 16, 18, 1L, ZoneOffset.UTC, null, null),
              on(DayOfWeek.TUESDAY, 22, 6, null, ZoneOffset.UTC, null, null),
              on(DayOfWeek.THURSDAY, 8, 8, null, ZoneOffset.UTC, null, null),
              on(DayOfWeek.SATURDAY, 8, 16, null, ZoneOffset.UTC, "2026-12-13", null),
              on(DayOfWeek.SUNDAY, 8, 16, null, ZoneOffset.UTC, null, "2026-12-13")),
          List.of(on("2026-12-14", null, 10, 12), on("2026-12-21", 1L, 18, 20)));

  @DataProvider
  public Object[][] hours() {
    return new Object[][] {
      {"w8-16", ""},
      {"w7-16", "HOURS 7-8 A"},
      {"w8-17", "HOURS 16-17 A"},
      {"w7-17", "HOURS 7-8 A, HOURS 16-17 A"},
      {"w8-18@1", ""},
      {"w8-18@2", "HOURS 16-18 A"},
      {"w8-19@1", "HOURS 18-19 A"},
      {"t7-16", "HOURS 7-8 A"},
      {"m7-16", "HOURS 7-8 A"},
      {"w16-17 w17-18", "HOURS 16-18 AB"},
      {"w16-17 t17-18", "HOURS 16-17 A, HOURS 17-18 B"},
      // Over midnight they belong to the day they begin on.
      {"w46-54", ""},
      {"w46-55", "HOURS 54-55 A"},
      {"w24-25", "HOURS 24-25 A"},
      // Round the clock.
      {"w80-104", ""},
      {"w79-104", "HOURS 79-80 A"},
      // Valid from until.
      {"w128-130", "HOURS 128-130 A"},
      {"w296-298", ""},
      {"w152-154", ""},
      {"w320-322", "HOURS 320-322 A"},
      // A dated exception without a place stands for all hours of the day, one with it for its own.
      {"w178-180", ""},
      {"w176-180", "HOURS 176-178 A"},
      {"w184-185@1", "HOURS 184-185 A"},
      {"w354-356@1", ""},
      {"w352-354@1", "HOURS 352-354 A"},
      {"w344-352@1", ""},
      {"w354-356", "HOURS 354-356 A"},
      // A whole day is outside where it has no hours at all.
      {"a0-1", ""},
      {"a4-5", ""},
      {"a5-6", "HOURS 120-144 A"},
      {"a2-4", ""},
      // A margin leaves the hours where the work beside it is within them.
      {"w8-12+60/0", "MARGIN 7-8 A"},
      {"w9-12+60/0", ""},
      {"w12-16+0/30", "MARGIN 16-16:30 A"},
      {"w12-16@1+0/30", ""},
      {"w7-12+60/0", "HOURS 7-8 A"},
      {"w8-12+60/0 t12-16+0/60", "MARGIN 7-8 A, MARGIN 16-17 B"},
      {"m8-12+60/0", ""},
    };
  }

  @Test(dataProvider = "hours")
  public void workOutsideHoursIsSaid(String things, String said) {
    check(NONE, WEEK, Eligibility.PLAIN, ZoneOffset.UTC, things, said);
  }

  @Test
  public void hoursOfAPlaceAreInItsZone() {
    ZoneId india = ZoneId.of("Asia/Kolkata");
    Hours hours = new Hours(List.of(on(DayOfWeek.MONDAY, 9, 17, 1L, india, null, null)), List.of());
    check(NONE, hours, Eligibility.PLAIN, ZoneOffset.UTC, "w3:30-11:30@1", "");
    check(
        NONE,
        hours,
        Eligibility.PLAIN,
        ZoneOffset.UTC,
        "w3-12@1",
        "HOURS 3-3:30 A, HOURS 11:30-12 A");
  }

  // ---- Skills ----------------------------------------------------------------------------------

  @DataProvider
  public Object[][] skills() {
    return new Object[][] {
      {"w8-12", ""},
      {"w8-12!sluice", ""},
      {"w8-12!crane", "SKILL never 8-12 A"},
      {"w8-12!crane,-", ""},
      {"w8-12!crane,sluice", ""},
      {"w20-28!sluice", "SKILL never 24-28 A"},
      {"t20-28!sluice", "SKILL 24-28 A"},
      {"w24-28!sluice", "SKILL never 24-28 A"},
      {"w20-28!sluice,boat", ""},
      {"w20-28!weir", "SKILL never 20-24 A"},
      {"w20-28!sluice,weir", ""},
      {"w8-12!weir", "SKILL never 8-12 A"},
      {"w8-10!crane w10-12!crane", "SKILL never 8-12 AB"},
    };
  }

  @Test(dataProvider = "skills")
  public void whatTheyCannotIsSaid(String things, String said) {
    Eligibility able =
        new Eligibility(
            Map.of(
                "sluice",
                Validity.until(MONDAY),
                "boat",
                Validity.ALWAYS,
                "weir",
                new Validity(Optional.of(MONDAY.plusDays(1)), Optional.empty())),
            false,
            List.of(),
            Optional.empty());
    check(NONE, Hours.UNSAID, able, ZoneOffset.UTC, things, said);
  }

  // ---- Their last day --------------------------------------------------------------------------

  @DataProvider
  public Object[][] ends() {
    return new Object[][] {
      {"w8-12", ""},
      {"w20-24", ""},
      {"w20-28", "LEFT never 24-28 A"},
      {"w24-28 w28-30", "LEFT never 24-30 AB"},
      {"t24-28", "LEFT 24-28 A"},
    };
  }

  /** Whatever else a house lets pass. */
  @Test(dataProvider = "ends")
  public void afterTheirLastDayTheyDoNothing(String things, String said) {
    Eligibility able =
        new Eligibility(Map.of(), false, List.of(), Validity.until(MONDAY).ends(ZoneOffset.UTC));
    check(NONE, Hours.UNSAID, able, ZoneOffset.UTC, things, said);
  }

  // ---- Places ----------------------------------------------------------------------------------

  /** Stays of so many people; a capacity of two. */
  @DataProvider
  public Object[][] stays() {
    return new Object[][] {
      {"8-12x1 9-13x1", false, ""},
      {"8-12x1 9-13x1 10-11x1", false, "CAPACITY never 10-11 012"},
      {"8-12x1 8-12x1 12-13x1", false, ""},
      {"8-12x1 8-12x1 8-10x1 10-12x1", false, "CAPACITY never 8-12 0123"},
      {"8-12x3", false, ""},
      {"8-12x3", true, "CAPACITY never 8-12 0"},
      {"8-12x1 9-13x2", true, "CAPACITY never 9-12 01"},
      {"8-12x1 9-13x2?", true, "CAPACITY 9-12 01"},
      {"8-12x1 8-12x1 8-12x1 11-13x1?", false, "CAPACITY never 8-12 012"},
      {"8-12x0 8-12x2", true, ""},
    };
  }

  private static Set<PersonId> people(int stay, int count) {
    return LongStream.range(0, count)
        .mapToObj(one -> PersonId.of(1 + 10L * stay + one))
        .collect(Collectors.toSet());
  }

  /** Whoever is on two visits at once takes one place. */
  @Test
  public void aPersonIsCountedOnce() {
    TimeSpan morning = TimeSpan.of(at("8", ZoneOffset.UTC), at("12", ZoneOffset.UTC));
    Set<PersonId> both = Set.of(PersonId.of(1), PersonId.of(2));
    List<Clashes.Stay> stays =
        List.of(
            new Clashes.Stay("one", morning, both, false),
            new Clashes.Stay("other", morning, both, false));
    assertThat(Clashes.of(new Clashes.Capacity(PlaceId.of(1), 2, true), stays, Limits.usual()))
        .isEmpty();
    assertThat(Clashes.of(new Clashes.Capacity(PlaceId.of(1), 1, false), stays, Limits.usual()))
        .hasSize(1);
  }

  @Test(dataProvider = "stays")
  public void aPlaceHoldsSoMuch(String list, boolean people, String said) {
    List<Clashes.Stay> stays = new ArrayList<>();
    for (String one : list.split(" ")) {
      String[] parts = one.replace("?", "").split("[-x]");
      stays.add(
          new Clashes.Stay(
              "" + stays.size(),
              TimeSpan.of(at(parts[0], ZoneOffset.UTC), at(parts[1], ZoneOffset.UTC)),
              people(stays.size(), Integer.parseInt(parts[2])),
              one.endsWith("?")));
    }
    Limits limits =
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
    List<Clash> clashes = Clashes.of(new Clashes.Capacity(PlaceId.of(1), 2, people), stays, limits);
    assertThat(told(clashes)).isEqualTo(said);
    assertThat(clashes).allMatch(one -> one.person().isEmpty());
  }

  /** A place that is open on Mondays from eight until noon and from one until five. */
  @DataProvider
  public Object[][] shut() {
    return new Object[][] {
      {"8-12", ""},
      {"8-13", "SHUT 12-13 0"},
      {"7-18", "SHUT 7-8 0, SHUT 12-13 0, SHUT 17-18 0"},
      {"12-13", "SHUT 12-13 0"},
      {"13-17", ""},
    };
  }

  @Test(dataProvider = "shut")
  public void aPlaceIsOpenAtItsHours(String span, String said) {
    Hours opening =
        new Hours(
            Stream.of("08:00-12:00", "13:00-17:00")
                .map(
                    one ->
                        new Hours.Weekly(
                            DayOfWeek.MONDAY,
                            LocalTime.parse(one.split("-")[0]),
                            LocalTime.parse(one.split("-")[1]),
                            Optional.empty(),
                            ZoneOffset.UTC,
                            Optional.empty(),
                            Optional.empty()))
                .toList(),
            List.of());
    String[] parts = span.split("-");
    TimeSpan own = TimeSpan.of(at(parts[0], ZoneOffset.UTC), at(parts[1], ZoneOffset.UTC));
    List<Clashes.Stay> stays = List.of(new Clashes.Stay("0", own, Set.of(), false));
    List<Clash> clashes = Clashes.shut(PlaceId.of(1), opening, stays);
    assertThat(told(clashes)).isEqualTo(said);
    assertThat(clashes).allMatch(one -> one.person().isEmpty());
    assertThat(Clashes.shut(PlaceId.of(1), Hours.UNSAID, stays)).isEmpty();
  }

  // ---- Due -------------------------------------------------------------------------------------

  @DataProvider
  public Object[][] due() {
    return new Object[][] {
      {"7 7", ""},
      {"7 7 7", "DUE 0-24 abc"},
      {"7 7 8", ""},
      {"7 7 7 8 8 8", "DUE 0-24 abc, DUE 24-48 def"},
      {"7 7 7 7", "DUE 0-24 abcd"},
    };
  }

  @Test(dataProvider = "due")
  public void muchDueOnOneDayIsAPileUp(String days, String said) {
    List<Clashes.DueItem> items = new ArrayList<>();
    for (String day : days.split(" ")) {
      items.add(
          new Clashes.DueItem(
              "" + (char) ('a' + items.size()),
              MONDAY.withDayOfMonth(Integer.parseInt(day)),
              false));
    }
    Commitments of = day(Hours.UNSAID, Eligibility.PLAIN, ZoneOffset.UTC, "");
    assertThat(told(Clashes.pileUps(of, items, NONE))).isEqualTo(said);
  }

  // ---- Clock changes and ways ------------------------------------------------------------------

  @Test
  public void restIsInRealMinutes() {
    ZoneId london = ZoneId.of("Europe/London");
    Instant evening = LocalDate.of(2027, 3, 27).atTime(20, 0).atZone(london).toInstant();
    Instant morning = LocalDate.of(2027, 3, 28).atTime(7, 0).atZone(london).toInstant();
    Commitments of =
        new Commitments(
            PersonId.of(1),
            london,
            Hours.UNSAID,
            List.of(),
            List.of(),
            List.of(
                work("A", TimeSpan.of(evening.minusSeconds(3600), evening)),
                work("B", TimeSpan.of(morning, morning.plusSeconds(3600)))),
            Eligibility.PLAIN);
    // Eleven hours by the clock, ten that pass.
    assertThat(Clashes.of(of, limits(11, 0, 0, 0, 0), TRAVEL))
        .singleElement()
        .satisfies(
            clash -> {
              assertThat(clash.kind()).isEqualTo(Clash.Kind.REST);
              assertThat(clash.span().length()).isEqualTo(Duration.ofHours(10));
            });
    assertThat(Clashes.of(of, limits(10, 0, 0, 0, 0), TRAVEL)).isEmpty();
  }

  private static DaySpan days(TimeSpan span, ZoneId zone) {
    return DaySpan.of(
        LocalDate.ofInstant(span.start(), zone), LocalDate.ofInstant(span.end(), zone));
  }

  private static Work work(String id, TimeSpan span) {
    return new Work(
        id,
        span,
        Optional.empty(),
        false,
        Optional.empty(),
        Margins.NONE,
        false,
        List.of(),
        ZoneOffset.UTC);
  }

  @Test
  public void distanceServesWhereTheTableSaysNothing() {
    Travel travel =
        new Travel(
            Map.of(),
            Map.of(
                PlaceId.of(1), new Position(0, 0),
                PlaceId.of(2), new Position(0, 1)),
            60);
    // A degree of the equator is 111.195 km.
    assertThat(travel.between(PlaceId.of(1), PlaceId.of(2))).contains(minutes(112));
    assertThat(travel.between(PlaceId.of(2), PlaceId.of(1))).contains(minutes(112));
    assertThat(travel.between(PlaceId.of(1), PlaceId.of(1))).contains(Duration.ZERO);
    assertThat(travel.between(PlaceId.of(1), PlaceId.of(3))).isEmpty();
  }
}
