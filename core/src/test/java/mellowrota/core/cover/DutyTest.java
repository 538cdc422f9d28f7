package mellowrota.core.cover;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.MonthDay;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.Season;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** When a duty asks for how many, with which skills. */
public class DutyTest {

  private static final ZoneId LONDON = ZoneId.of("Europe/London");
  private static final Set<DayOfWeek> EVERY_DAY = EnumSet.allOf(DayOfWeek.class);
  private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("d HH:mm");

  /** As "08-20" for one person, "08-20 crane,-" for two of whom one needs a skill. */
  private static Duty.Stand stand(String text) {
    String[] parts = text.split(" ");
    String[] hours = parts[0].split("-");
    List<Optional<String>> skills =
        parts.length == 1
            ? List.of()
            : Arrays.stream(parts[1].split(","))
                .map(one -> Optional.of(one).filter(skill -> !skill.equals("-")))
                .toList();
    return new Duty.Stand(
        LocalTime.of(Integer.parseInt(hours[0]), 0),
        LocalTime.of(Integer.parseInt(hours[1]), 0),
        Math.max(1, skills.size()),
        skills);
  }

  private static Duty.Repeating daily(String stand, Validity days, String season) {
    return new Duty.Repeating(
        EVERY_DAY,
        stand(stand),
        days,
        season.isEmpty()
            ? Optional.empty()
            : Optional.of(
                new Season(
                    MonthDay.parse("--" + season.split(" ")[0]),
                    MonthDay.parse("--" + season.split(" ")[1]))));
  }

  private static Duty duty(
      List<Duty.Repeating> spans, Set<LocalDate> lifted, List<Duty.Other> others) {
    return new Duty("watch", LONDON, Optional.of("sluice"), spans, lifted, others);
  }

  private static TimeSpan days(String first, String last) {
    return DaySpan.through(LocalDate.parse(first), LocalDate.parse(last)).in(LONDON);
  }

  /** As "4 08:00-4 20:00 crane,-". */
  private static String said(Duty duty, TimeSpan range) {
    return duty.needs(range).stream()
        .map(
            need ->
                CLOCK.format(need.span().start().atZone(LONDON))
                    + "-"
                    + CLOCK.format(need.span().end().atZone(LONDON))
                    + need.places().stream()
                        .map(skill -> skill.orElse("-"))
                        .collect(Collectors.joining(",", " ", "")))
        .collect(Collectors.joining("; "));
  }

  @DataProvider
  public Object[][] exceptions() {
    return new Object[][] {
      {"as every day", "", "", "7 08:00-7 20:00 sluice; 8 08:00-8 20:00 sluice"},
      {"lifted", "2026-12-07", "", "8 08:00-8 20:00 sluice"},
      {"other hours", "", "2026-12-07 10-12", "7 10:00-7 12:00 sluice; 8 08:00-8 20:00 sluice"},
      {
        "other hours twice a day",
        "",
        "2026-12-07 10-12|2026-12-07 14-16 crane,-",
        "7 10:00-7 12:00 sluice; 7 14:00-7 16:00 crane,-; 8 08:00-8 20:00 sluice"
      },
      {
        "other hours over midnight, that begin on the day",
        "",
        "2026-12-07 22-06",
        "7 22:00-8 06:00 sluice; 8 08:00-8 20:00 sluice"
      },
      {
        "of the night before, cut where the range begins",
        "",
        "2026-12-06 22-06",
        "7 00:00-7 06:00 sluice; 7 08:00-7 20:00 sluice; 8 08:00-8 20:00 sluice"
      },
      {"of another day", "", "2026-12-20 10-12", "7 08:00-7 20:00 sluice; 8 08:00-8 20:00 sluice"},
    };
  }

  @Test(dataProvider = "exceptions")
  public void exceptionsReplaceWhatRepeats(
      String name, String lifted, String others, String expected) {
    Duty duty =
        duty(
            List.of(daily("08-20", Validity.ALWAYS, "")),
            lifted.isEmpty() ? Set.of() : Set.of(LocalDate.parse(lifted)),
            others.isEmpty()
                ? List.of()
                : Arrays.stream(others.split("\\|"))
                    .map(
                        one ->
                            new Duty.Other(
                                LocalDate.parse(one.substring(0, 10)), stand(one.substring(11))))
                    .toList());
    assertThat(said(duty, days("2026-12-07", "2026-12-08"))).as(name).isEqualTo(expected);
  }

  @DataProvider
  public Object[][] seasons() {
    return new Object[][] {
      {"04-01 10-31", "2026-03-31", false},
      {"04-01 10-31", "2026-04-01", true},
      {"04-01 10-31", "2026-10-31", true},
      {"04-01 10-31", "2026-11-01", false},
      {"04-01 10-31", "2031-07-04", true},
      {"11-01 03-31", "2026-12-31", true},
      {"11-01 03-31", "2027-01-01", true},
      {"11-01 03-31", "2027-03-31", true},
      {"11-01 03-31", "2027-04-01", false},
      {"11-01 03-31", "2027-10-31", false},
      {"02-29 03-05", "2027-02-28", false},
      {"02-29 03-05", "2027-03-01", true},
      {"02-29 03-05", "2028-02-29", true},
      {"02-01 02-29", "2027-02-28", true},
      {"02-01 02-29", "2027-03-01", false},
      {"12-25 12-25", "2026-12-25", true},
      {"12-25 12-25", "2026-12-26", false},
    };
  }

  @Test(dataProvider = "seasons")
  public void aSeasonComesEveryYear(String season, String day, boolean asks) {
    Duty duty = duty(List.of(daily("08-20", Validity.ALWAYS, season)), Set.of(), List.of());
    assertThat(duty.needs(days(day, day)).isEmpty()).isEqualTo(!asks);
  }

  @Test
  public void aSeasonHoldsOnlyInTheYearsInWhichItsHoursAreValid() {
    Validity from2027 = new Validity(Optional.of(LocalDate.of(2027, 1, 1)), Optional.empty());
    Duty duty = duty(List.of(daily("08-20", from2027, "04-01 10-31")), Set.of(), List.of());
    assertThat(duty.needs(days("2026-07-01", "2026-07-01"))).isEmpty();
    assertThat(duty.needs(days("2027-02-01", "2027-02-01"))).isEmpty();
    assertThat(duty.needs(days("2027-07-01", "2027-07-01"))).hasSize(1);
  }

  @Test
  public void thePlacesOneByOneReplaceTheSkillOfAll() {
    Duty duty =
        duty(
            List.of(
                daily("08-14 crane,-", Validity.ALWAYS, ""), daily("14-20", Validity.ALWAYS, "")),
            Set.of(),
            List.of());
    TimeSpan day = days("2026-12-07", "2026-12-07");
    assertThat(said(duty, day)).isEqualTo("7 08:00-7 14:00 crane,-; 7 14:00-7 20:00 sluice");
    assertThat(duty.asks(day).places())
        .containsExactly(Optional.of("crane"), Optional.empty(), Optional.of("sluice"));
    TimeSpan afternoon = TimeSpan.of(day.start().plusSeconds(14 * 3600), day.end());
    assertThat(duty.asks(afternoon).places()).containsExactly(Optional.of("sluice"));
    assertThat(duty.asks(day).unmet(day, Eligibility.PLAIN, duty.zone()))
        .as("who knows neither has a place until 14, and after 20 none is asked for")
        .containsExactly(TimeSpan.of(afternoon.start(), day.start().plusSeconds(20 * 3600)));
    Duty all = duty(List.of(daily("08-20", Validity.ALWAYS, "")), Set.of(), List.of());
    assertThat(all.asks(TimeSpan.of(day.start(), day.start().plusSeconds(60))).places())
        .as("asked of everybody at any hour")
        .containsExactly(Optional.of("sluice"));
  }

  @Test
  public void asManySkillsAsPlacesAreListed() {
    assertThatThrownBy(
            () ->
                new Duty.Stand(
                    LocalTime.NOON, LocalTime.MIDNIGHT, 3, List.of(Optional.of("crane"))))
        .isInstanceOf(IllegalArgumentException.class);
  }
}
