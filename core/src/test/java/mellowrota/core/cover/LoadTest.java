package mellowrota.core.cover;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.Margins;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** How much somebody has, by hand: the week from Monday 7 December 2026 in London. */
public class LoadTest {

  private static final ZoneId ZONE = ZoneId.of("Europe/London");
  private static final WorkingDays WEEKDAYS =
      new WorkingDays(
          new WorkingWeek(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY)),
          Map.of(december(10), "Midwinter"),
          List.of());

  private static LocalDate december(int day) {
    return LocalDate.of(2026, 12, day);
  }

  /** As 7T09:00-12:00, with an m before it if it is tentative, a d if it takes whole days. */
  private static List<Work> works(String list) {
    List<Work> found = new ArrayList<>();
    for (String one : list.isEmpty() ? new String[0] : list.split(" ")) {
      String[] ends = one.replaceAll("[md]", "").split("-");
      LocalDateTime from = time(ends[0], "");
      LocalDateTime until = time(ends[1], ends[0].split("T")[0]);
      found.add(
          new Work(
              "w" + found.size(),
              TimeSpan.of(from.atZone(ZONE).toInstant(), until.atZone(ZONE).toInstant()),
              one.contains("d")
                  ? Optional.of(DaySpan.of(from.toLocalDate(), until.toLocalDate()))
                  : Optional.empty(),
              one.contains("m"),
              Optional.empty(),
              new Margins(Duration.ofMinutes(30), Duration.ofMinutes(30)),
              false,
              List.of(),
              ZONE));
    }
    return found;
  }

  private static LocalDateTime time(String text, String day) {
    String[] parts = text.contains("T") ? text.split("T", 2) : new String[] {day, text};
    return LocalDateTime.parse(
        december(Integer.parseInt(parts[0])) + "T" + (parts[1].isEmpty() ? "00:00" : parts[1]));
  }

  private static Commitments of(String works) {
    return new Commitments(
        PersonId.of(1), ZONE, Hours.UNSAID, List.of(), List.of(), works(works), Eligibility.PLAIN);
  }

  private static final DaySpan WEEK = DaySpan.of(december(7), december(14));

  /** Works; minutes, minutes maybe, whole days and whole days maybe of each day with any. */
  @DataProvider
  public Object[][] works() {
    return new Object[][] {
      {"nothing", "", ""},
      {"without margins", "7T09:00-12:00", "7: 180 0 0 0"},
      {"each minute once", "7T09:00-12:00 7T11:00-13:00", "7: 240 0 0 0"},
      {"twice at once", "7T09:00-12:00 7T09:00-12:00", "7: 180 0 0 0"},
      {"over midnight to each local day", "7T22:00-8T06:00", "7: 120 0 0 0, 8: 360 0 0 0"},
      {"touching ones", "7T09:00-10:00 7T10:00-11:00", "7: 120 0 0 0"},
      {"tentative apart", "m7T09:00-12:00", "7: 0 180 0 0"},
      {"only what is tentative alone", "7T09:00-12:00 m7T11:00-13:00", "7: 180 60 0 0"},
      {"tentative within sure", "7T09:00-12:00 m7T10:00-11:00", "7: 180 0 0 0"},
      {"whole days have no hours", "d7T-9T", "7: 0 0 1 0, 8: 0 0 1 0"},
      {"counted beside hours", "d8T-9T 8T09:00-10:00", "8: 60 0 1 0"},
      {"two of them, one tentative", "d8T-9T md8T-9T d8T-10T", "8: 0 0 2 1, 9: 0 0 1 0"},
      {"before the week, but for what reaches in", "6T20:00-7T02:00", "7: 120 0 0 0"},
    };
  }

  @Test(dataProvider = "works")
  public void workIsAddedUpByLocalDays(String what, String works, String load) {
    Load found = Load.of(of(works), List.of(), WEEK, december(7));
    assertThat(found.days()).hasSize(7);
    String told =
        found.days().stream()
            .filter(
                day ->
                    !day.sure().isZero()
                        || !day.maybe().isZero()
                        || day.allDay() + day.allDayMaybe() > 0)
            .map(
                day ->
                    "%d: %d %d %d %d"
                        .formatted(
                            day.day().getDayOfMonth(),
                            day.sure().toMinutes(),
                            day.maybe().toMinutes(),
                            day.allDay(),
                            day.allDayMaybe()))
            .collect(Collectors.joining(", "));
    assertThat(told).as(what).isEqualTo(load);
  }

  @Test
  public void aDayOnWhichTheClockIsChangedHasItsMinutes() {
    LocalDate spring = LocalDate.of(2027, 3, 28);
    Work night =
        new Work(
            "w",
            TimeSpan.of(
                spring.atStartOfDay(ZONE).toInstant(),
                spring.plusDays(1).atStartOfDay(ZONE).toInstant()),
            Optional.empty(),
            false,
            Optional.empty(),
            Margins.NONE,
            false,
            List.of(),
            ZONE);
    Load found =
        Load.of(of("").and(night), List.of(), DaySpan.ofDay(spring), LocalDate.of(2027, 3, 1));
    assertThat(found.days().get(0).sure()).isEqualTo(Duration.ofHours(23));
  }

  /**
   * Today, the hand-over, the due day and the estimate in minutes; what each day gets. Thursday the
   * tenth is a holiday there.
   */
  @DataProvider
  public Object[][] given() {
    return new Object[][] {
      {"evenly over the days left", 7, "", 9, 180, "7: 60, 8: 60, 9: 60"},
      {"from the hand-over where it is later", 7, "8", 9, 180, "8: 90, 9: 90"},
      {"from today where that is later", 8, "7", 9, 180, "8: 90, 9: 90"},
      {"odd minutes to the first days", 7, "", 9, 182, "7: 61, 8: 61, 9: 60"},
      {"fewer minutes than days", 7, "", 9, 2, "7: 1, 8: 1"},
      {"not on a holiday", 9, "", 11, 120, "9: 60, 11: 60"},
      {"not at the weekend", 11, "", 14, 120, "11: 60"},
      {"due today", 9, "7", 9, 120, "9: 120"},
      {"none left: the due day", 10, "", 10, 120, "10: 120"},
      {"none left: the due day, at the weekend", 12, "", 13, 120, "13: 120"},
      {"handed over after it is due", 7, "9", 8, 120, "8: 120"},
      {"over: today", 9, "", 8, 120, "9: 120"},
      {"over, today is a holiday", 10, "", 8, 120, "10: 120"},
      {"handed over later, and over", 9, "11", 8, 120, "9: 120"},
      {"nothing to do", 7, "", 9, 0, ""},
    };
  }

  @Test(dataProvider = "given")
  public void anEstimateIsSpreadOverTheWorkingDaysLeft(
      String what, int today, String handed, int due, long minutes, String load) {
    for (boolean tentative : new boolean[] {false, true}) {
      Load.Given work =
          new Load.Given(
              "t",
              Optional.of(Duration.ofMinutes(minutes)),
              handed.isEmpty() ? Optional.empty() : Optional.of(december(Integer.parseInt(handed))),
              december(due),
              WEEKDAYS,
              tentative);
      Load found = Load.of(of(""), List.of(work), WEEK, december(today));
      String told =
          found.days().stream()
              .filter(day -> !(tentative ? day.givenMaybe() : day.given()).isZero())
              .map(
                  day ->
                      day.day().getDayOfMonth()
                          + ": "
                          + (tentative ? day.givenMaybe() : day.given()).toMinutes())
              .collect(Collectors.joining(", "));
      assertThat(told).as(what).isEqualTo(load);
      assertThat(found.unestimated()).isEmpty();
    }
  }

  @Test
  public void estimatesAddUpInFullAndWhatHasNoneIsCountedApart() {
    List<Load.Given> all =
        Arrays.asList(
            new Load.Given(
                "one",
                Optional.of(Duration.ofMinutes(60)),
                Optional.empty(),
                december(8),
                WEEKDAYS,
                false),
            new Load.Given(
                "two",
                Optional.of(Duration.ofMinutes(30)),
                Optional.empty(),
                december(7),
                WEEKDAYS,
                false),
            new Load.Given(
                "three", Optional.empty(), Optional.empty(), december(7), WEEKDAYS, false));
    Load found = Load.of(of("7T09:00-10:00"), all, WEEK, december(7));
    assertThat(found.days().get(0).given()).isEqualTo(Duration.ofMinutes(60));
    assertThat(found.days().get(0).whole()).isEqualTo(Duration.ofMinutes(120));
    assertThat(found.days().get(1).given()).isEqualTo(Duration.ofMinutes(30));
    assertThat(found.unestimated()).containsExactly("three");
  }
}
