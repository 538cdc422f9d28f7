package mellowrota.core.time;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Which days are worked, by hand: December 2026 begins on a Tuesday. */
public class WorkingDaysTest {

  private static WorkingWeek week(String days) {
    return new WorkingWeek(
        Arrays.stream(days.split(" "))
            .map(day -> DayOfWeek.of(Integer.parseInt(day)))
            .collect(Collectors.toCollection(() -> EnumSet.noneOf(DayOfWeek.class))));
  }

  private static Optional<WorkingWeek> maybe(String days) {
    return days.isEmpty() ? Optional.empty() : Optional.of(week(days));
  }

  /** Days of December, a half day with an h behind it. */
  private static List<WorkingDays.Holiday> holidays(String days) {
    return days.isEmpty()
        ? List.of()
        : Arrays.stream(days.split(" "))
            .map(
                day ->
                    new WorkingDays.Holiday(
                        december(Integer.parseInt(day.replace("h", ""))), "Day", day.endsWith("h")))
            .toList();
  }

  private static LocalDate december(int day) {
    return LocalDate.of(2026, 12, day);
  }

  /**
   * The place's week, closure; whether it has a region, that one's week and holidays; the house's
   * week, the office's week and holidays; the days of the month's first half that are worked.
   */
  @DataProvider
  public Object[][] cases() {
    String house = "1 2 3 4 5";
    return new Object[][] {
      {"the house's week", "", "", "", "", "", house, "", "", "1 2 3 4 7 8 9 10 11 14"},
      {"the office's week", "", "", "", "", "", house, "6 7", "", "5 6 12 13"},
      {"the office's holidays", "", "", "", "", "", house, "", "8 9", "1 2 3 4 7 10 11 14"},
      {"the region's week", "", "", "R", "7 1", "", house, "", "", "6 7 13 14"},
      {"a region without a week", "", "", "R", "", "", house, "6", "", "1 2 3 4 7 8 9 10 11 14"},
      {
        "its holidays, not the office's",
        "",
        "",
        "R",
        "",
        "1 2",
        house,
        "",
        "7",
        "3 4 7 8 9 10 11 14"
      },
      {"the place's week first", "3", "", "R", "7", "", house, "6", "", "2 9"},
      {"and its region's holidays", "3", "", "R", "7", "9", house, "6", "2", "2"},
      {"and without a region the office's", "3", "", "", "", "", house, "6", "2", "9"},
      {"a half day counts", "", "", "R", "", "3h 4", house, "", "", "1 2 3 7 8 9 10 11 14"},
      {"also the office's", "", "", "", "", "", house, "", "3 4h", "1 2 4 7 8 9 10 11 14"},
      {"both on one day: off", "", "", "R", "", "3h 3", house, "", "", "1 2 4 7 8 9 10 11 14"},
      {"closed, both ends included", "", "2-8", "", "", "", house, "", "", "1 9 10 11 14"},
      {"closed on days off", "", "5-6", "", "", "", house, "", "", "1 2 3 4 7 8 9 10 11 14"},
      {"a holiday on a day off", "", "", "R", "", "5", house, "", "", "1 2 3 4 7 8 9 10 11 14"},
      {"no day of the week is off by itself", "6 7", "", "", "", "", house, "", "", "5 6 12 13"},
      {"nothing is left", "1", "7-14", "", "", "", house, "", "", ""},
    };
  }

  @Test(dataProvider = "cases")
  public void eachPartIsThePlacesElseTheRegionsElseTheHouses(
      String what,
      String place,
      String closed,
      String region,
      String regionWeek,
      String regionDays,
      String house,
      String officeWeek,
      String officeDays,
      String worked) {
    List<WorkingDays.Closure> closures =
        closed.isEmpty()
            ? List.of()
            : List.of(
                new WorkingDays.Closure(
                    DaySpan.through(
                        december(Integer.parseInt(closed.split("-")[0])),
                        december(Integer.parseInt(closed.split("-")[1]))),
                    "closed"));
    WorkingDays days =
        WorkingDays.of(
            maybe(place),
            region.isEmpty()
                ? Optional.empty()
                : Optional.of(new WorkingDays.Region(maybe(regionWeek), holidays(regionDays))),
            closures,
            week(house),
            new WorkingDays.Region(maybe(officeWeek), holidays(officeDays)));
    String found =
        days.between(december(1), december(14)).stream()
            .map(day -> "" + day.getDayOfMonth())
            .collect(Collectors.joining(" "));
    assertThat(found).as(what).isEqualTo(worked);
  }

  @Test
  public void noDaysAreBetweenALaterAndAnEarlierOne() {
    WorkingDays days =
        WorkingDays.of(
            Optional.empty(),
            Optional.empty(),
            List.of(),
            week("1 2 3 4 5"),
            WorkingDays.Region.UNSAID);
    assertThat(days.between(december(9), december(8))).isEmpty();
    assertThat(days.between(december(8), december(8))).containsExactly(december(8));
  }

  @Test
  public void holidaysAreKnownInTheYearsThatHaveSome() {
    WorkingWeek week = new WorkingWeek(Set.of(DayOfWeek.MONDAY));
    WorkingDays none = new WorkingDays(week, Map.of(), List.of());
    assertThat(none.knowsHolidays(LocalDate.of(2030, 1, 1))).as("none are missing").isTrue();
    WorkingDays some =
        new WorkingDays(
            week,
            Map.of(LocalDate.of(2026, 12, 25), "Midwinter", LocalDate.of(2028, 1, 3), "Start"),
            List.of());
    assertThat(some.knowsHolidays(LocalDate.of(2025, 12, 31))).isFalse();
    assertThat(some.knowsHolidays(LocalDate.of(2026, 1, 1))).isTrue();
    assertThat(some.knowsHolidays(LocalDate.of(2027, 6, 1))).isTrue();
    assertThat(some.knowsHolidays(LocalDate.of(2029, 1, 1))).isFalse();
  }
}
