package mellowrota.server.platform;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneId;
import mellowrota.core.time.TimeSpan;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A span reads as a person says it, in the zone it is for. */
public class SpanWordsTest {

  @DataProvider
  public Object[][] spans() {
    return new Object[][] {
      {"2026-12-10T08:00:00Z", "2026-12-10T12:30:00Z", "Europe/London", "Thu 10 Dec 08:00–12:30"},
      {
        "2026-12-10T20:00:00Z",
        "2026-12-11T08:00:00Z",
        "Europe/London",
        "Thu 10 Dec 20:00–Fri 11 Dec 08:00"
      },
      // Midnight at the end belongs to the day before.
      {"2026-12-10T20:00:00Z", "2026-12-11T00:00:00Z", "Europe/London", "Thu 10 Dec 20:00–24:00"},
      {
        "2026-12-10T00:00:00Z",
        "2026-12-12T00:00:00Z",
        "Europe/London",
        "Thu 10 Dec 00:00–Fri 11 Dec 24:00"
      },
      {"2026-12-10T00:00:00Z", "2026-12-10T00:00:00Z", "Europe/London", "Thu 10 Dec 00:00–00:00"},
      {"2026-12-10T20:00:00Z", "2026-12-10T22:00:00Z", "Asia/Kolkata", "Fri 11 Dec 01:30–03:30"},
      // The hour that comes twice is said as the clock shows it.
      {"2026-10-25T00:30:00Z", "2026-10-25T01:30:00Z", "Europe/London", "Sun 25 Oct 01:30–01:30"},
      {"2026-07-31T23:00:00Z", "2026-08-01T01:00:00Z", "Europe/London", "Sat 1 Aug 00:00–02:00"},
    };
  }

  @Test(dataProvider = "spans")
  public void itIsSaidInTheZone(String from, String until, String zone, String said) {
    assertThat(
            SpanWords.said(TimeSpan.of(Instant.parse(from), Instant.parse(until)), ZoneId.of(zone)))
        .isEqualTo(said);
  }
}
