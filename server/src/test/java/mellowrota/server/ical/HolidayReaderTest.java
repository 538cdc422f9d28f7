package mellowrota.server.ical;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Which days are holidays by a calendar file, as a table. */
public class HolidayReaderTest {

  private static final ZoneId LONDON = ZoneId.of("Europe/London");
  private static final LocalDate FIRST = LocalDate.parse("2026-01-01");
  private static final LocalDate LAST = LocalDate.parse("2028-12-31");

  private static HolidayReader.Read read(String... events) {
    StringBuilder text = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n");
    for (String event : events) {
      text.append("BEGIN:VEVENT\r\n")
          .append(event.replace("|", "\r\n"))
          .append("\r\nEND:VEVENT\r\n");
    }
    return HolidayReader.read(text.append("END:VCALENDAR\r\n").toString(), LONDON, FIRST, LAST);
  }

  private static List<String> days(HolidayReader.Read read) {
    return read.holidays().stream()
        .map(one -> one.day() + " " + one.name() + (one.half() ? " half" : ""))
        .toList();
  }

  @DataProvider
  public Object[][] files() {
    String lantern = "UID:l|SUMMARY:Lantern Day|";
    return new Object[][] {
      {
        "a day without an end",
        new String[] {lantern + "DTSTART;VALUE=DATE:20261225"},
        List.of("2026-12-25 Lantern Day")
      },
      {
        "the day of DTEND is not one of them",
        new String[] {lantern + "DTSTART;VALUE=DATE:20261225|DTEND;VALUE=DATE:20261227"},
        List.of("2026-12-25 Lantern Day", "2026-12-26 Lantern Day")
      },
      {
        "a length in place of an end",
        new String[] {lantern + "DTSTART;VALUE=DATE:20261225|DURATION:P2D"},
        List.of("2026-12-25 Lantern Day", "2026-12-26 Lantern Day")
      },
      {
        "that it blocks no time says nothing",
        new String[] {lantern + "DTSTART;VALUE=DATE:20261225|TRANSP:TRANSPARENT"},
        List.of("2026-12-25 Lantern Day")
      },
      {
        "what was called off is none",
        new String[] {lantern + "DTSTART;VALUE=DATE:20261225|STATUS:CANCELLED"},
        List.of()
      },
      {
        "every year, as far as is asked",
        new String[] {lantern + "DTSTART;VALUE=DATE:20251225|RRULE:FREQ=YEARLY"},
        List.of(
            "2025-12-25 Lantern Day",
            "2026-12-25 Lantern Day",
            "2027-12-25 Lantern Day",
            "2028-12-25 Lantern Day")
      },
      {
        "without the year that is left out",
        new String[] {
          lantern
              + "DTSTART;VALUE=DATE:20261225|RRULE:FREQ=YEARLY;COUNT=3|EXDATE;VALUE=DATE:20271225"
        },
        List.of("2026-12-25 Lantern Day", "2028-12-25 Lantern Day")
      },
      {
        "moved in one year, and only there",
        new String[] {
          lantern + "DTSTART;VALUE=DATE:20261225|RRULE:FREQ=YEARLY;COUNT=2",
          lantern + "RECURRENCE-ID;VALUE=DATE:20271225|DTSTART;VALUE=DATE:20271227",
          "UID:other|SUMMARY:Frost Fair|DTSTART;VALUE=DATE:20271225"
        },
        List.of("2026-12-25 Lantern Day", "2027-12-25 Frost Fair", "2027-12-27 Lantern Day")
      },
      {
        "on days that are listed",
        new String[] {lantern + "DTSTART;VALUE=DATE:20261225|RDATE;VALUE=DATE:20270102"},
        List.of("2026-12-25 Lantern Day", "2027-01-02 Lantern Day")
      },
      {
        "with times it is half a day",
        new String[] {
          lantern
              + "DTSTART;TZID=Europe/London:20261224T120000|DTEND;TZID=Europe/London:20261224T180000"
        },
        List.of("2026-12-24 Lantern Day half")
      },
      {
        "from midnight to midnight it is whole, what is over it is half",
        new String[] {lantern + "DTSTART:20261224T000000|DTEND:20261225T120000"},
        List.of("2026-12-24 Lantern Day", "2026-12-25 Lantern Day half")
      },
      {
        "a day that two name is once there, whole if one of them is",
        new String[] {
          lantern + "DTSTART;VALUE=DATE:20261225",
          "UID:f|SUMMARY:Frost Fair|DTSTART:20261225T120000|DTEND:20261225T150000"
        },
        List.of("2026-12-25 Lantern Day, Frost Fair")
      },
      {
        "twice by one name",
        new String[] {
          lantern + "DTSTART;VALUE=DATE:20261225", lantern + "DTSTART;VALUE=DATE:20261225"
        },
        List.of("2026-12-25 Lantern Day")
      },
      {
        "escapes and folds are no part of the name",
        new String[] {"UID:e|SUMMARY:Salt\\, sand\\nand| wind|DTSTART;VALUE=DATE:20261225"},
        List.of("2026-12-25 Salt, sand andwind")
      },
      {
        "it need not have a name",
        new String[] {"UID:n|DTSTART;VALUE=DATE:20261225"},
        List.of("2026-12-25 ")
      },
    };
  }

  @Test(dataProvider = "files")
  public void daysAreTaken(String what, String[] events, List<String> days) {
    HolidayReader.Read read = read(events);
    assertThat(days(read)).as(what).isEqualTo(days);
    assertThat(read.notRead()).as(what).isEmpty();
  }

  @DataProvider
  public Object[][] faults() {
    return new Object[][] {
      {"UID:x|SUMMARY:Odd", "no DTSTART"},
      {"UID:x|SUMMARY:Odd|DTSTART;VALUE=DATE:20261340", "cannot be read"},
      {"UID:x|SUMMARY:Odd|DTSTART;VALUE=DATE:20261225|RRULE:FREQ=SOMETIMES", "cannot be read"},
      {
        "UID:x|SUMMARY:Odd|DTSTART;VALUE=DATE:20261225|RECURRENCE-ID;VALUE=DATE:soon",
        "cannot be read"
      },
      {"UID:x|SUMMARY:Odd|DTSTART:20261225T120000|DTEND:20261225T120000", "has no length"},
      {"UID:x|SUMMARY:Odd|DTSTART;VALUE=DATE:20260101|DTEND;VALUE=DATE:20270101", "longer than"},
      {"UID:x|SUMMARY:Odd|DTSTART;VALUE=DATE", "is not a line of iCalendar"},
    };
  }

  /** One that cannot be read is told, and takes none of the others with it. */
  @Test(dataProvider = "faults")
  public void whatIsNotTakenIsTold(String event, String why) {
    HolidayReader.Read read = read(event, "UID:l|SUMMARY:Lantern Day|DTSTART;VALUE=DATE:20261225");
    assertThat(days(read)).containsExactly("2026-12-25 Lantern Day");
    assertThat(read.notRead()).hasSize(1);
    HolidayReader.NotRead one = read.notRead().get(0);
    assertThat(one.number()).isEqualTo(1);
    assertThat(one.summary()).isEqualTo("Odd");
    assertThat(one.why()).contains(why);
  }
}
