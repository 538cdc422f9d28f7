package mellowrota.server.incoming;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class CalendarTableTest {

  private static final ZoneId LONDON = ZoneId.of("Europe/London");
  private static final LocalDate TODAY = LocalDate.of(2026, 11, 25);

  private static Table read(String... lines) {
    String text =
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\n" + String.join("\r\n", lines) + "\r\nEND:VCALENDAR\r\n";
    return CalendarTable.read(text.getBytes(StandardCharsets.UTF_8), LONDON, TODAY);
  }

  private static Table event(String... lines) {
    return read(
        "BEGIN:VEVENT\r\nUID:u\r\nSUMMARY:s\r\n" + String.join("\r\n", lines) + "\r\nEND:VEVENT");
  }

  private static String cell(Table table, int row, String column) {
    return table.rows().get(row).cells().get(table.columns().indexOf(column));
  }

  @DataProvider
  public Object[][] spans() {
    return new Object[][] {
      {
        "DTSTART:20270301T090000Z", "DTEND:20270301T100000Z", "2027-03-01T09:00", "2027-03-01T10:00"
      },
      {
        "DTSTART:20270701T090000Z", "DTEND:20270701T100000Z", "2027-07-01T10:00", "2027-07-01T11:00"
      },
      {"DTSTART:20270701T090000", "DTEND:20270701T100000", "2027-07-01T09:00", "2027-07-01T10:00"},
      {"DTSTART:20270701T090000", "DURATION:PT1H30M", "2027-07-01T09:00", "2027-07-01T10:30"},
      {"DTSTART:20270701T090000", "X-NOTHING:1", "2027-07-01T09:00", "2027-07-01T09:00"},
      {"DTSTART;VALUE=DATE:20270701", "DTEND;VALUE=DATE:20270703", "2027-07-01", "2027-07-02"},
      {"DTSTART;VALUE=DATE:20270701", "X-NOTHING:1", "2027-07-01", "2027-07-01"},
      {"DTSTART;VALUE=DATE:20270701", "DURATION:P2D", "2027-07-01", "2027-07-02"},
      {"DTSTART:soon", "DTEND:later", "soon", "later"},
    };
  }

  @Test(dataProvider = "spans")
  public void anEventsSpan(String first, String second, String start, String end) {
    Table table = event(first, second);
    assertThat(cell(table, 0, "start")).isEqualTo(start);
    assertThat(cell(table, 0, "end")).isEqualTo(end);
  }

  @DataProvider
  public Object[][] zones() {
    return new Object[][] {
      {"Europe/Paris", "Europe/Paris"},
      {"/office.example/2026a/Europe/Paris", "Europe/Paris"},
      {"Nowhere Time", "Nowhere Time"},
    };
  }

  @Test(dataProvider = "zones")
  public void aZoneIsKnownOrTold(String written, String told) {
    Table table = event("DTSTART;TZID=" + written + ":20270701T090000");
    assertThat(cell(table, 0, "zone")).isEqualTo(told);
    assertThat(cell(table, 0, "start")).isEqualTo("2027-07-01T09:00");
  }

  @DataProvider
  public Object[][] series() {
    return new Object[][] {
      {"FREQ=DAILY;COUNT=3", List.of("2027-03-26T09:00", "2027-03-27T09:00", "2027-03-28T09:00")},
      {
        "FREQ=WEEKLY;UNTIL=20270409T080000Z",
        List.of("2027-03-26T09:00", "2027-04-02T09:00", "2027-04-09T09:00")
      },
      {"FREQ=WEEKLY;UNTIL=20270402", List.of("2027-03-26T09:00", "2027-04-02T09:00")},
      {"FREQ=MONTHLY;BYDAY=-1FR;COUNT=2", List.of("2027-03-26T09:00", "2027-04-30T09:00")},
      {"FREQ=YEARLY;COUNT=2", List.of("2027-03-26T09:00", "2028-03-26T09:00")},
    };
  }

  @Test(dataProvider = "series")
  public void whatRepeatsIsARowForEachOccurrence(String rule, List<String> starts) {
    Table table =
        event(
            "DTSTART;TZID=Europe/London:20270326T090000",
            "DTEND;TZID=Europe/London:20270326T100000",
            "RRULE:" + rule);
    assertThat(table.rows().stream().map(row -> row.cells().get(4))).isEqualTo(starts);
    assertThat(table.rows().stream().map(row -> row.cells().get(0)).distinct())
        .as("each with an id of its own")
        .hasSize(starts.size());
  }

  @Test
  public void aSeriesThatNeverEndsIsTakenForAYearAndTold() {
    Table table = event("DTSTART;VALUE=DATE:20200101", "RRULE:FREQ=MONTHLY");
    assertThat(table.rows()).hasSize(12);
    assertThat(cell(table, 0, "start")).isEqualTo("2026-12-01");
    assertThat(table.notRead()).anyMatch(one -> one.why().startsWith("repeats without end"));
  }

  @DataProvider
  public Object[][] byTheHour() {
    return new Object[][] {
      {"FREQ=HOURLY;INTERVAL=6;COUNT=4", List.of("09:00", "15:00", "21:00", "03:00")},
      {"FREQ=DAILY;BYHOUR=9,14;COUNT=4", List.of("09:00", "14:00", "09:00", "14:00")},
      {"FREQ=MINUTELY;INTERVAL=45;COUNT=3", List.of("09:00", "09:45", "10:30")},
    };
  }

  @Test(dataProvider = "byTheHour")
  public void whatRepeatsByTheHourComesInAtItsHours(String rule, List<String> hours) {
    Table table =
        event("DTSTART;TZID=Europe/London:20270301T090000", "DURATION:PT30M", "RRULE:" + rule);
    List<String> starts = new java.util.ArrayList<>();
    for (int row = 0; row < table.rows().size(); row++) {
      starts.add(cell(table, row, "start").substring(11));
      assertThat(
              java.time.Duration.between(
                      java.time.LocalDateTime.parse(cell(table, row, "start")),
                      java.time.LocalDateTime.parse(cell(table, row, "end")))
                  .toMinutes())
          .isEqualTo(30);
    }
    assertThat(starts).isEqualTo(hours);
  }

  /** 01:30 UTC on the morning of the change is the second half past one in London. */
  @Test
  public void theSecondPassOfAnHourComesInAsItself() {
    Table table = event("DTSTART:20271031T013000Z", "DTEND:20271031T023000Z");
    assertThat(cell(table, 0, "zone")).isEqualTo("Etc/UTC");
    assertThat(cell(table, 0, "start")).isEqualTo("2027-10-31T01:30");
    assertThat(cell(table, 0, "end")).isEqualTo("2027-10-31T02:30");
    Table ends = event("DTSTART:20271031T003000Z", "DTEND:20271031T013000Z");
    assertThat(cell(ends, 0, "zone")).isEqualTo("Etc/UTC");
    assertThat(cell(ends, 0, "start")).isEqualTo("2027-10-31T00:30");
    assertThat(cell(ends, 0, "end")).isEqualTo("2027-10-31T01:30");
  }

  @Test
  public void aRuleThatIsNoneTakesTheFirstAlone() {
    Table table = event("DTSTART:20270301T090000Z", "RRULE:FREQ=SOMETIMES");
    assertThat(table.rows()).hasSize(1);
    assertThat(table.notRead())
        .anyMatch(one -> one.why().startsWith("line 3: its repetition cannot be followed"));
  }

  @DataProvider
  public Object[][] details() {
    return new Object[][] {
      {"STATUS:TENTATIVE", "state", "tentative"},
      {"STATUS:CANCELLED", "state", "cancelled"},
      {"CLASS:CONFIDENTIAL", "private", "yes"},
      {"CLASS:PUBLIC", "private", ""},
      {"CATEGORIES:a,b", "tags", "a,b"},
      {"LOCATION:Lock 7\\, Thornmere Flight", "place", "Lock 7, Thornmere Flight"},
      {"DESCRIPTION:one\\ntwo\\; three", "notes", "one\ntwo; three"},
      {"ATTENDEE;CN=Ines Okafor:mailto:i@a.example", "attendees", "Ines Okafor"},
      {"ATTENDEE:mailto:i@a.example", "attendees", "i@a.example"},
      {"CONTACT:H. Varga", "contact", "H. Varga"},
    };
  }

  @Test(dataProvider = "details")
  public void propertiesBecomeCells(String line, String column, String text) {
    assertThat(cell(event("DTSTART:20270301T090000Z", line), 0, column)).isEqualTo(text);
  }

  @Test
  public void foldedLinesAreOne() {
    assertThat(cell(event("DTSTART:20270301T090000Z", "LOCATION:Lo\r\n ck 7"), 0, "place"))
        .isEqualTo("Lock 7");
  }

  @Test
  public void aCalendarIsKnownByItsBeginning() {
    assertThat(CalendarTable.isOne("\ufeff begin:vcalendar\n".getBytes(StandardCharsets.UTF_8)))
        .isTrue();
    assertThat(CalendarTable.isOne("Id,Title\n".getBytes(StandardCharsets.UTF_8))).isFalse();
  }
}
