package mellowrota.server.ical;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** When an event takes somebody's time, as a table. */
public class BusyReaderTest {

  private static final ZoneId LONDON = ZoneId.of("Europe/London");
  private static final Instant NOW = Instant.parse("2026-11-26T10:00:00Z");

  private static List<String> spans(String... lines) {
    String text =
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:u\r\n"
            + String.join("\r\n", lines)
            + "\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
    return BusyReader.read(text, LONDON, NOW).spans().stream()
        .map(
            one ->
                one.days().isPresent()
                    ? one.days().get().first() + " to " + one.days().get().until()
                    : one.starts() + " to " + one.ends())
        .sorted()
        .toList();
  }

  @DataProvider
  public Object[][] events() {
    String noon = "DTSTART:20261201T120000Z";
    String one = "DTEND:20261201T130000Z";
    return new Object[][] {
      {new String[] {noon, one}, List.of("2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z")},
      {
        new String[] {noon, "DURATION:PT30M"},
        List.of("2026-12-01T12:00:00Z to 2026-12-01T12:30:00Z")
      },
      {new String[] {noon}, List.of()},
      {new String[] {noon, one, "TRANSP:TRANSPARENT"}, List.of()},
      {new String[] {noon, one, "STATUS:CANCELLED"}, List.of()},
      {
        new String[] {"DTSTART;TZID=UTC:20261201T120000Z", one},
        List.of("2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z")
      },
      {
        new String[] {
          "DTSTART;TZID=Europe/Paris:20261201T120000", "DTEND;TZID=Europe/Paris:20261201T130000"
        },
        List.of("2026-12-01T11:00:00Z to 2026-12-01T12:00:00Z")
      },
      {
        new String[] {"DTSTART:20261201T120000", "DTEND:20261201T130000"},
        List.of("2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z")
      },
      {new String[] {"DTSTART;VALUE=DATE:20261201"}, List.of("2026-12-01 to 2026-12-02")},
      {
        new String[] {"DTSTART;VALUE=DATE:20261201", "DTEND;VALUE=DATE:20261204"},
        List.of("2026-12-01 to 2026-12-04")
      },
      {
        new String[] {noon, one, "RRULE:FREQ=WEEKLY;COUNT=3"},
        List.of(
            "2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z",
            "2026-12-08T12:00:00Z to 2026-12-08T13:00:00Z",
            "2026-12-15T12:00:00Z to 2026-12-15T13:00:00Z")
      },
      {
        new String[] {noon, one, "RRULE:FREQ=WEEKLY;COUNT=3", "EXDATE:20261208T120000Z"},
        List.of(
            "2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z",
            "2026-12-15T12:00:00Z to 2026-12-15T13:00:00Z")
      },
      {
        new String[] {noon, one, "RDATE:20261203T120000Z"},
        List.of(
            "2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z",
            "2026-12-03T12:00:00Z to 2026-12-03T13:00:00Z")
      },
      {
        new String[] {"DTSTART;VALUE=DATE:20261201", "RRULE:FREQ=DAILY;COUNT=2"},
        List.of("2026-12-01 to 2026-12-02", "2026-12-02 to 2026-12-03")
      },
      // The clock changes in between: the same local time, another moment.
      {
        new String[] {
          "DTSTART;TZID=Europe/London:20270321T120000",
          "DTEND;TZID=Europe/London:20270321T130000",
          "RRULE:FREQ=WEEKLY;COUNT=2"
        },
        List.of(
            "2027-03-21T12:00:00Z to 2027-03-21T13:00:00Z",
            "2027-03-28T11:00:00Z to 2027-03-28T12:00:00Z")
      },
      // One occurrence was moved.
      {
        new String[] {
          noon,
          one,
          "RRULE:FREQ=WEEKLY;COUNT=2",
          "END:VEVENT",
          "BEGIN:VEVENT",
          "UID:u",
          "RECURRENCE-ID:20261208T120000Z",
          "DTSTART:20261209T150000Z",
          "DTEND:20261209T160000Z"
        },
        List.of(
            "2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z",
            "2026-12-09T15:00:00Z to 2026-12-09T16:00:00Z")
      },
      // One occurrence was called off.
      {
        new String[] {
          noon,
          one,
          "RRULE:FREQ=WEEKLY;COUNT=2",
          "END:VEVENT",
          "BEGIN:VEVENT",
          "UID:u",
          "RECURRENCE-ID:20261208T120000Z",
          "DTSTART:20261208T120000Z",
          "DTEND:20261208T130000Z",
          "STATUS:CANCELLED"
        },
        List.of("2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z")
      },
      // Long ago, and for ever since.
      {new String[] {"DTSTART:20200101T120000Z", "DTEND:20200101T130000Z"}, List.of()},
    };
  }

  @Test(dataProvider = "events")
  public void takesTime(String[] lines, List<String> spans) {
    assertThat(spans(lines)).isEqualTo(spans);
  }

  @Test
  public void whatBeganLongAgoAndNeverEndsIsCountedAroundNow() {
    List<String> found =
        spans("DTSTART:20200101T120000Z", "DTEND:20200101T130000Z", "RRULE:FREQ=DAILY");
    assertThat(found)
        .contains("2026-11-26T12:00:00Z to 2026-11-26T13:00:00Z")
        .hasSizeBetween(400, 440);
  }
}
