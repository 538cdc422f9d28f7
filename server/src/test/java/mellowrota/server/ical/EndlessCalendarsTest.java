package mellowrota.server.ical;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Calendar files that would never end: each is read within 2 s and 1 ms a component of a processor,
 * and within 64 MB and 50 octets an octet of memory, or told with its line.
 */
public class EndlessCalendarsTest {

  private static final ZoneId LONDON = ZoneId.of("Europe/London");
  private static final LocalDate FIRST = LocalDate.of(2026, 1, 1);

  private static String event(String... lines) {
    return "BEGIN:VEVENT\r\nUID:u\r\nSUMMARY:s\r\n"
        + String.join("\r\n", lines)
        + "\r\nEND:VEVENT\r\n";
  }

  private static String calendar(String inside) {
    return "BEGIN:VCALENDAR\r\nVERSION:2.0\r\n" + inside + "END:VCALENDAR\r\n";
  }

  private static String many(int count, Function<Integer, String> one) {
    return IntStream.range(0, count).mapToObj(one::apply).collect(Collectors.joining());
  }

  private static String zone(String start, String rule) {
    return "BEGIN:VTIMEZONE\r\nTZID:Made up\r\nBEGIN:STANDARD\r\nDTSTART:"
        + start
        + "\r\nTZOFFSETFROM:+0100\r\nTZOFFSETTO:+0000\r\nRRULE:"
        + rule
        + "\r\nEND:STANDARD\r\nEND:VTIMEZONE\r\n";
  }

  private static final String IN_IT = event("DTSTART;TZID=Made up:20260301T100000");

  /** Told by its name, since a report would hold all of its text. */
  private record Sample(String text) {
    @Override
    public String toString() {
      return text.length() + " letters";
    }
  }

  @DataProvider
  Object[][] files() {
    return Arrays.stream(texts())
        .map(one -> new Object[] {one[0], new Sample((String) one[1]), one[2]})
        .toArray(Object[][]::new);
  }

  private static Object[][] texts() {
    return new Object[][] {
      {"a zone by the second", zone("20200101T000000", "FREQ=SECONDLY") + IN_IT, true},
      {"a zone from the year 1", zone("00010101T000000", "FREQ=YEARLY;BYMONTH=10") + IN_IT, false},
      {"daily since 1601", event("DTSTART:16010101T100000", "RRULE:FREQ=DAILY"), false},
      {"by the second since 1601", event("DTSTART:16010101T100000", "RRULE:FREQ=SECONDLY"), true},
      {"by the minute", event("DTSTART:20200101T100000", "RRULE:FREQ=MINUTELY"), true},
      {
        "each second of each day",
        event(
            "DTSTART:20200101T100000",
            "RRULE:FREQ=YEARLY;BYMONTHDAY="
                + list(1, 31)
                + ";BYHOUR="
                + list(0, 23)
                + ";BYMINUTE="
                + list(0, 59)
                + ";BYSECOND="
                + list(0, 59)),
        true
      },
      {
        "900 000 exceptions",
        event(
            "DTSTART:20200101T100000",
            "RRULE:FREQ=DAILY",
            "EXDATE:" + "20200101T100000,".repeat(900_000) + "20200101T100000"),
        true
      },
      {
        "300 series without an end",
        many(
            300,
            i ->
                event("DTSTART:19%02d0101T100000".formatted(i % 100), "RRULE:FREQ=DAILY")
                    .replace("UID:u", "UID:u" + i)),
        false
      },
      {
        "50 000 parts in one another",
        event(
            "DTSTART:20260101T100000\r\n"
                + "BEGIN:VALARM\r\n".repeat(50_000)
                + "END:VALARM\r\n".repeat(50_000).strip()),
        true
      },
      {
        "50 000 parts",
        many(50_000, i -> event("DTSTART:20260101T100000").replace("UID:u", "UID:" + i)),
        true
      },
      {
        "a duration beyond reason",
        event("DTSTART:20260101T100000", "DURATION:P99999999999999999D"),
        true
      },
      {"a duration of ages", event("DTSTART:20260101T100000", "DURATION:P999999999D"), true},
      {
        "a rule that never fits",
        event("DTSTART:20260101T100000", "RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30"),
        false
      },
    };
  }

  private static String list(int from, int to) {
    return IntStream.rangeClosed(from, to)
        .mapToObj(String::valueOf)
        .collect(Collectors.joining(","));
  }

  @Test(dataProvider = "files")
  public void isReadInBoundsOrToldWithItsLine(String what, Sample file, boolean told) {
    String inside = file.text();
    String text = calendar(inside);
    long components = inside.split("BEGIN:", -1).length;
    ThreadMXBean thread = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    long allocated = thread.getCurrentThreadAllocatedBytes();
    long worked = thread.getCurrentThreadCpuTime();
    HolidayReader.Read holidays = HolidayReader.read(text, LONDON, FIRST, FIRST.plusYears(5));
    BusyReader.read(text, LONDON, Instant.parse("2026-11-25T09:00:00Z"));
    double seconds = (thread.getCurrentThreadCpuTime() - worked) / 1e9;
    long octets = thread.getCurrentThreadAllocatedBytes() - allocated;
    // Two readings of it, and a build that is not warm.
    assertThat(seconds).as(what + ": seconds").isLessThan(2 * (2 + components / 1000.0));
    assertThat(octets).as(what + ": octets").isLessThan(2 * (64L << 20) + 100L * text.length());
    if (told) {
      assertThat(holidays.notRead().toString() + IcalendarReader.read(text).broken())
          .as(what)
          .containsPattern("line \\d+");
    }
  }

  @Test
  public void aZoneFromTheYearOneStillSaysTheRightHour() {
    String rule = "FREQ=YEARLY;BYMONTH=%d;BYDAY=-1SU";
    String zone =
        "BEGIN:VTIMEZONE\r\nTZID:Made up\r\nBEGIN:STANDARD\r\nDTSTART:00011028T020000\r\n"
            + "TZOFFSETFROM:+0100\r\nTZOFFSETTO:+0000\r\nRRULE:"
            + rule.formatted(10)
            + "\r\nEND:STANDARD\r\nBEGIN:DAYLIGHT\r\nDTSTART:16010325T010000\r\n"
            + "TZOFFSETFROM:+0000\r\nTZOFFSETTO:+0100\r\nRRULE:"
            + rule.formatted(3)
            + "\r\nEND:DAYLIGHT\r\nEND:VTIMEZONE\r\n";
    for (String[] one :
        new String[][] {{"20260701T100000", "09:00"}, {"20261201T100000", "10:00"}}) {
      BusyReader.Read read =
          BusyReader.read(
              calendar(zone + event("DTSTART;TZID=Made up:" + one[0], "DURATION:PT1H")),
              LONDON,
              Instant.parse("2026-06-25T09:00:00Z"));
      assertThat(read.spans().get(0).starts().toString()).as(one[0]).contains("T" + one[1]);
    }
  }

  @Test
  public void aSeriesFromLongAgoHappensOnItsDays() {
    BusyReader.Read read =
        BusyReader.read(
            calendar(
                event(
                    "DTSTART:16010101T100000Z",
                    "DTEND:16010101T110000Z",
                    "RRULE:FREQ=WEEKLY;INTERVAL=3")),
            LONDON,
            Instant.parse("2026-11-25T09:00:00Z"));
    Instant first = Instant.parse("1601-01-01T10:00:00Z");
    assertThat(read.spans()).isNotEmpty();
    assertThat(read.spans())
        .allSatisfy(
            one ->
                assertThat((one.starts().getEpochSecond() - first.getEpochSecond()) % (21 * 86_400))
                    .isZero());
  }
}
