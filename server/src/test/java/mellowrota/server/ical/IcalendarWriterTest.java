package mellowrota.server.ical;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.Biweekly;
import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.sight.Face;
import mellowrota.core.sync.Content;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.work.Position;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What is written reads back the same in a library nobody here wrote (RFC 5545). */
public class IcalendarWriterTest {

  private static final Instant AT = Instant.parse("2026-11-25T09:00:00.123Z");
  private static final String UID = "aeffad5b-cbd9-3583-9932-ff87a6090871";
  private static final List<String> ZONES =
      List.of(
          "Europe/London",
          "America/New_York",
          "Europe/Lisbon",
          "Asia/Kathmandu",
          "America/Sao_Paulo",
          "Africa/Casablanca",
          "Pacific/Apia",
          "UTC");

  private final IcalendarWriter writer = new IcalendarWriter("https://rota.example/");

  private static Entry.Marks marks() {
    return new Entry.Marks(false, false, false, false, false);
  }

  private static Face face(String title, String text, EntryTimes times) {
    return new Face(title, "Lock 7, Thornmere; Flight", text, times, marks(), List.of("Ticket"));
  }

  private static VEvent read(String text) {
    ICalendar calendar = Biweekly.parse(text).first();
    assertThat(calendar.validate(ICalVersion.V2_0).isEmpty())
        .as(calendar.validate(ICalVersion.V2_0) + "\n" + text)
        .isTrue();
    return calendar.getEvents().get(0);
  }

  @DataProvider
  Object[][] seeds() {
    Object[][] seeds = new Object[300][];
    for (int i = 0; i < seeds.length; i++) {
      seeds[i] = new Object[] {(long) i};
    }
    return seeds;
  }

  @Test(dataProvider = "seeds")
  public void timesInAnyZoneAreTheSameMoments(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    ZoneId zone = ZoneId.of(ZONES.get(random.nextInt(ZONES.size())));
    LocalDateTime local =
        LocalDateTime.of(2025, 1, 1, 0, 0).plusMinutes(random.nextInt(4 * 365 * 24 * 60));
    var start = LocalTimes.resolve(local, zone);
    var end = start.plusMinutes(1 + random.nextInt(400_000));
    VEvent event = read(text(UID, 3, AT, face("x", "", new EntryTimes.Timed(start, end))));
    assertThat(event.getDateStart().getValue().toInstant()).isEqualTo(start.toInstant());
    assertThat(event.getDateEnd().getValue().toInstant()).isEqualTo(end.toInstant());
  }

  @Test(dataProvider = "seeds")
  public void anyTextReadsBackAndFoldsByOctets(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    String title = text(random, false);
    String body = text(random, true);
    EntryTimes day = new EntryTimes.AllDay(DaySpan.ofDay(LocalDate.of(2026, 11, 27)));
    String written = text(UID, 0, AT, face(title, body, day));
    for (String line : written.split("\r\n")) {
      assertThat(line.getBytes(StandardCharsets.UTF_8).length).isLessThanOrEqualTo(75);
      assertThat(line).doesNotContain("\ufffd");
    }
    VEvent event = read(written);
    assertThat(event.getSummary().getValue()).isEqualTo(title);
    assertThat(event.getLocation().getValue()).isEqualTo("Lock 7, Thornmere; Flight");
    if (!body.isEmpty()) {
      assertThat(event.getDescription().getValue()).isEqualTo(body);
    }
  }

  private static String text(SplittableRandom random, boolean lines) {
    String[] parts = {
      "a", "ü", "水", "🦆", ",", ";", "\\", ":", "\"", " b", "n", "\\n", "{", "é", lines ? "\n" : "c"
    };
    StringBuilder out = new StringBuilder("t");
    for (int i = random.nextInt(120); i > 0; i--) {
      out.append(parts[random.nextInt(parts.length)]);
    }
    return out.append('.').toString();
  }

  /** Half an hour of summer time, which the second library takes for a whole one. */
  @Test
  public void aTimeZoneTellsItsExactOffsets() {
    var start = LocalDateTime.of(2025, 3, 23, 6, 45).atZone(ZoneId.of("Australia/Lord_Howe"));
    String text = text(UID, 0, AT, face("x", "", new EntryTimes.Timed(start, start.plusHours(1))));
    assertThat(text)
        .contains("DTSTART;TZID=Australia/Lord_Howe:20250323T064500")
        .contains(
            String.join(
                "\r\n",
                "BEGIN:DAYLIGHT",
                "DTSTART:20241006T020000",
                "TZOFFSETFROM:+1030",
                "TZOFFSETTO:+1100"));
  }

  @Test
  public void theSameFaceGivesTheSameOctets() {
    Face face = face("x", "y", new EntryTimes.AllDay(DaySpan.ofDay(LocalDate.of(2026, 11, 27))));
    assertThat(text(UID, 1, AT, face)).isEqualTo(text(UID, 1, AT, face));
    assertThat(text(UID, 1, AT, face))
        .contains("DTSTAMP:20261125T090000Z")
        .contains("SEQUENCE:1")
        .contains("DTEND;VALUE=DATE:20261128")
        .endsWith("END:VCALENDAR\r\n");
  }

  @Test
  public void marksAreTold() {
    EntryTimes day = new EntryTimes.AllDay(DaySpan.ofDay(LocalDate.of(2026, 11, 27)));
    Face done =
        new Face("x", "", "", day, new Entry.Marks(true, true, true, false, false), List.of());
    String text = text(UID, 0, AT, done);
    assertThat(text).contains("SUMMARY:✓ x").contains("STATUS:TENTATIVE").contains("TRANSP:OPAQUE");
    assertThat(text).contains("CLASS:PUBLIC").doesNotContain("LOCATION").doesNotContain("METHOD");
  }

  private String text(String uid, int sequence, Instant at, Face face) {
    return writer.write(new IcalendarWriter.Written(uid, sequence, at, face));
  }

  /** The address only for who may open it and read it in full; the position where it is shown. */
  @Test
  public void entriesLeadHome() {
    EntryTimes day = new EntryTimes.AllDay(DaySpan.ofDay(LocalDate.of(2026, 11, 27)));
    Face plain = face("x", "y", day);
    assertThat(text(UID, 1, AT, plain)).doesNotContain("URL").doesNotContain("GEO");
    Face placed =
        new Face(
            "x",
            "Lock 7",
            "",
            day,
            marks(),
            List.of(),
            List.of(),
            List.of(),
            Optional.of(new Position(51.5, -0.25)),
            Optional.empty(),
            false);
    String opens =
        writer.write(new IcalendarWriter.Written(UID, 1, AT, placed, Optional.empty(), true));
    assertThat(opens)
        .contains("URL:https://rota.example/open/" + UID + "\r\n")
        .contains("GEO:51.5;-0.25\r\n");
    assertThat(Face.parse(placed.canonical())).isEqualTo(placed);
    Face bare = Face.bare("Work", "", day, marks());
    assertThat(writer.write(new IcalendarWriter.Written(UID, 1, AT, bare, Optional.empty(), true)))
        .doesNotContain("URL");
  }

  /** Beside margins, in a block that is no part of the text when it is read back (LANDING 19). */
  @Test
  public void theWorksOwnTimesStandBesideItsMargins() {
    EntryTimes.Timed times = timed("2026-11-27T08:30", "2026-11-27T12:15");
    for (String words : List.of("", "Bring waders")) {
      Face face =
          new Face(
              "x",
              "",
              words,
              times,
              marks(),
              List.of(),
              List.of(),
              List.of(),
              Optional.empty(),
              Optional.of(timed("2026-11-27T09:00", "2026-11-27T12:00")),
              false);
      String text = text(UID, 1, AT, face);
      assertThat(text).contains("The work itself: Fri 27 Nov 09:00 to 12:00");
      String copy = CopyText.about(text, "Changes made here are asked about.");
      assertThat(CopyText.read(copy, UID, ZoneId.of("Europe/London")).orElseThrow().content())
          .isEqualTo(new Content("x", "", words, times));
    }
  }

  private static EntryTimes.Timed timed(String from, String until) {
    ZoneId zone = ZoneId.of("Europe/London");
    return new EntryTimes.Timed(
        LocalDateTime.parse(from).atZone(zone), LocalDateTime.parse(until).atZone(zone));
  }
}
