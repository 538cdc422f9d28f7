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
      // Tentative takes time too.
      {
        new String[] {"DTSTART:20261201T120000Z", "DTEND:20261201T130000Z", "STATUS:TENTATIVE"},
        List.of("2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z")
      },
      {
        new String[] {
          "DTSTART:20261201T120000Z", "DTEND:20261201T130000Z", "STATUS:CONFIRMED", "TRANSP:OPAQUE"
        },
        List.of("2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z")
      },
      {
        new String[] {"DTSTART:20261201T120000Z", "DTEND:20261201T130000Z", "TRANSP:transparent"},
        List.of()
      },
      // Nothing and less than nothing.
      {new String[] {"DTSTART:20261201T120000Z", "DTEND:20261201T120000Z"}, List.of()},
      {new String[] {"DTSTART:20261201T120000Z", "DTEND:20261201T110000Z"}, List.of()},
      {
        new String[] {"DTSTART:20261201T120000Z", "DURATION:P1D"},
        List.of("2026-12-01T12:00:00Z to 2026-12-02T12:00:00Z")
      },
      {
        new String[] {"DTSTART:20261201T120000Z", "DURATION:PT1H30M15S"},
        List.of("2026-12-01T12:00:00Z to 2026-12-01T13:30:15Z")
      },
      {
        new String[] {"DTSTART;VALUE=DATE:20261201", "DURATION:P2D"},
        List.of("2026-12-01 to 2026-12-03")
      },
      // A day that ends as it begins is that day.
      {
        new String[] {"DTSTART;VALUE=DATE:20261201", "DTEND;VALUE=DATE:20261201"},
        List.of("2026-12-01 to 2026-12-02")
      },
      {new String[] {"DTSTART;VALUE=DATE:20261201", "TRANSP:TRANSPARENT"}, List.of()},
      {
        new String[] {
          "DTSTART;VALUE=DATE:20261201", "RRULE:FREQ=WEEKLY;COUNT=3", "EXDATE;VALUE=DATE:20261208"
        },
        List.of("2026-12-01 to 2026-12-02", "2026-12-15 to 2026-12-16")
      },
      // Begun in one zone and ended in another.
      {
        new String[] {
          "DTSTART;TZID=America/New_York:20261201T090000",
          "DTEND;TZID=Europe/London:20261201T153000"
        },
        List.of("2026-12-01T14:00:00Z to 2026-12-01T15:30:00Z")
      },
      {
        new String[] {
          "DTSTART;TZID=Asia/Kolkata:20261201T000000", "DTEND;TZID=Asia/Kolkata:20261201T010000"
        },
        List.of("2026-11-30T18:30:00Z to 2026-11-30T19:30:00Z")
      },
      // A zone that nobody knows: that of the house.
      {
        new String[] {
          "DTSTART;TZID=Nowhere/Known:20261201T120000", "DTEND;TZID=Nowhere/Known:20261201T130000"
        },
        List.of("2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z")
      },
      // One that the file itself defines.
      {
        new String[] {
          "DTSTART;TZID=Own Zone:20261201T120000",
          "DTEND;TZID=Own Zone:20261201T130000",
          "END:VEVENT",
          "BEGIN:VTIMEZONE",
          "TZID:Own Zone",
          "BEGIN:STANDARD",
          "DTSTART:19700101T000000",
          "TZOFFSETFROM:+0500",
          "TZOFFSETTO:+0500",
          "END:STANDARD",
          "END:VTIMEZONE",
          "BEGIN:VEVENT",
          "UID:u"
        },
        List.of("2026-12-01T07:00:00Z to 2026-12-01T08:00:00Z")
      },
      // Half past one comes twice that night; the first is meant.
      {
        new String[] {
          "DTSTART;TZID=Europe/London:20261025T013000", "DTEND;TZID=Europe/London:20261025T023000"
        },
        List.of("2026-10-25T00:30:00Z to 2026-10-25T02:30:00Z")
      },
      // Half past one does not come that night (RFC 5545 §3.3.5).
      {
        new String[] {"DTSTART;TZID=Europe/London:20270328T013000", "DURATION:PT1H"},
        List.of("2027-03-28T01:30:00Z to 2027-03-28T02:30:00Z")
      },
      // A night of six hours.
      {
        new String[] {
          "DTSTART;TZID=Europe/London:20270327T230000", "DTEND;TZID=Europe/London:20270328T060000"
        },
        List.of("2027-03-27T23:00:00Z to 2027-03-28T05:00:00Z")
      },
      // And one of eight.
      {
        new String[] {
          "DTSTART;TZID=Europe/London:20261024T230000", "DTEND;TZID=Europe/London:20261025T060000"
        },
        List.of("2026-10-24T22:00:00Z to 2026-10-25T06:00:00Z")
      },
      {
        new String[] {
          "DTSTART;TZID=Europe/London:20261201T120000",
          "DTEND;TZID=Europe/London:20261201T130000",
          "RRULE:FREQ=DAILY;COUNT=3",
          "EXDATE;TZID=Europe/London:20261202T120000"
        },
        List.of(
            "2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z",
            "2026-12-03T12:00:00Z to 2026-12-03T13:00:00Z")
      },
      {
        new String[] {
          "DTSTART:20261201T120000Z",
          "DTEND:20261201T130000Z",
          "RRULE:FREQ=DAILY;UNTIL=20261203T120000Z"
        },
        List.of(
            "2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z",
            "2026-12-02T12:00:00Z to 2026-12-02T13:00:00Z",
            "2026-12-03T12:00:00Z to 2026-12-03T13:00:00Z")
      },
      // Two left out in one line, the first among them.
      {
        new String[] {
          "DTSTART:20261201T120000Z",
          "DTEND:20261201T130000Z",
          "RRULE:FREQ=DAILY;COUNT=3",
          "EXDATE:20261201T120000Z,20261203T120000Z"
        },
        List.of("2026-12-02T12:00:00Z to 2026-12-02T13:00:00Z")
      },
      {
        new String[] {
          "DTSTART:20261201T120000Z",
          "DTEND:20261201T130000Z",
          "RRULE:FREQ=MONTHLY;BYDAY=1TU;COUNT=2"
        },
        List.of(
            "2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z",
            "2027-01-05T12:00:00Z to 2027-01-05T13:00:00Z")
      },
      {
        new String[] {
          "DTSTART:20261201T120000Z",
          "DTEND:20261201T130000Z",
          "RRULE:FREQ=WEEKLY;BYDAY=TU,TH;COUNT=3"
        },
        List.of(
            "2026-12-01T12:00:00Z to 2026-12-01T13:00:00Z",
            "2026-12-03T12:00:00Z to 2026-12-03T13:00:00Z",
            "2026-12-08T12:00:00Z to 2026-12-08T13:00:00Z")
      },
      // A whole day that was moved.
      {
        new String[] {
          "DTSTART;VALUE=DATE:20261201",
          "RRULE:FREQ=WEEKLY;COUNT=2",
          "END:VEVENT",
          "BEGIN:VEVENT",
          "UID:u",
          "RECURRENCE-ID;VALUE=DATE:20261208",
          "DTSTART;VALUE=DATE:20261210"
        },
        List.of("2026-12-01 to 2026-12-02", "2026-12-10 to 2026-12-11")
      },
      // One occurrence that takes no time.
      {
        new String[] {
          "DTSTART:20261201T120000Z",
          "DTEND:20261201T130000Z",
          "RRULE:FREQ=DAILY;COUNT=2",
          "END:VEVENT",
          "BEGIN:VEVENT",
          "UID:u",
          "RECURRENCE-ID:20261202T120000Z",
          "DTSTART:20261202T120000Z",
          "DTEND:20261202T130000Z",
          "TRANSP:TRANSPARENT"
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
