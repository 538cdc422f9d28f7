package mellowrota.core.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The day of a due time or date, and from when on open work is overdue. */
public class DueTest {

  @DataProvider
  public Object[][] dues() {
    return new Object[][] {
      // A time is where it is said, its day where the house is.
      {at("2026-11-27T23:30Z[Europe/London]"), "Europe/Rome", "2026-11-28", "2026-11-27T23:30:00Z"},
      {
        at("2026-11-27T00:30+01:00[Europe/Rome]"),
        "Europe/London",
        "2026-11-26",
        "2026-11-26T23:30:00Z"
      },
      // A date ends where the house is, also on the days on which clocks change.
      {on("2026-11-27"), "Europe/London", "2026-11-27", "2026-11-28T00:00:00Z"},
      {on("2026-11-27"), "Pacific/Auckland", "2026-11-27", "2026-11-27T11:00:00Z"},
      {on("2027-03-28"), "Europe/London", "2027-03-28", "2027-03-28T23:00:00Z"},
    };
  }

  private static Due at(String time) {
    return new Due.At(ZonedDateTime.parse(time));
  }

  private static Due on(String day) {
    return new Due.On(LocalDate.parse(day));
  }

  @Test(dataProvider = "dues")
  public void isOfADayAndOverdueFromAMoment(Due due, String house, String day, String overdueFrom) {
    assertThat(due.day(ZoneId.of(house))).isEqualTo(LocalDate.parse(day));
    assertThat(due.overdueFrom(ZoneId.of(house))).isEqualTo(Instant.parse(overdueFrom));
  }
}
