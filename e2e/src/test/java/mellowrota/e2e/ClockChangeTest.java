package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.zone.ZoneOffsetTransition;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import mellowrota.standin.Account;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * Around both clock changes of a year in six zones, whatever tells a time tells the same moment: a
 * local time that exists twice means the first (RFC 5545 §3.3.5), so the second is told in UTC.
 */
public class ClockChangeTest {

  private static final DateTimeFormatter UTC =
      DateTimeFormatter.ofPattern("uuuuMMdd'T'HHmmss'Z'").withZone(ZoneOffset.UTC);
  private static final DateTimeFormatter LOCAL = DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mm");

  private Outside outside;
  private Server server;
  private Api hana;
  private Api ines;
  private long inesId;
  private long own;
  private String feed;
  private Account account;

  @BeforeClass
  public void begin() {
    outside = Outside.start();
    server = Server.started(Database.demo(), outside.options().toArray(String[]::new));
    hana = Api.of(server, "hana").warned();
    ines = Api.of(server, "ines");
    inesId = hana.idOf("people", "Ines Okafor");
    own = ines.idOf("calendars", "Ines Okafor, own");
    account = outside.account("ines");
    outside.link(ines, "Ines Okafor, own", account, "");
    feed =
        ines.post(
                "/api/v1/feeds",
                "{\"calendar\": %d, \"label\": \"Wall\", \"level\": \"ALL\"}".formatted(own))
            .expect(201)
            .json()
            .get("address")
            .asString();
  }

  @AfterClass(alwaysRun = true)
  public void end() {
    server.close();
    outside.close();
  }

  @DataProvider
  public Object[][] changes() {
    List<Object[]> found = new ArrayList<>();
    for (String name :
        List.of(
            "Europe/London",
            "Europe/Athens",
            "America/New_York",
            "America/Santiago",
            "Australia/Sydney",
            "Australia/Lord_Howe")) {
      ZoneId zone = ZoneId.of(name);
      Instant at = Instant.parse("2027-01-01T00:00:00Z");
      for (int i = 0; i < 2; i++) {
        ZoneOffsetTransition change = zone.getRules().nextTransition(at);
        found.add(new Object[] {zone, change});
        at = change.getInstant();
      }
    }
    return found.toArray(Object[][]::new);
  }

  @Test(dataProvider = "changes")
  public void allTellTheSameMoment(ZoneId zone, ZoneOffsetTransition change) {
    // It begins at the first local time that is there once again, and its way there before that.
    LocalDateTime from =
        change.isOverlap() ? change.getDateTimeBefore() : change.getDateTimeAfter();
    Instant start = from.atZone(zone).toInstant().minusSeconds(15 * 60);
    Instant end = from.plusHours(1).atZone(zone).toInstant();
    if (change.isOverlap()) {
      assertThat(start.atZone(zone).toLocalDateTime().atZone(zone).toInstant())
          .as("its second pass")
          .isNotEqualTo(start);
    }
    String title = "Changed %s %s".formatted(zone.getId().replaceAll(".*/", ""), from.getMonth());
    long id =
        hana.record(
            """
            {"kind": "JOB", "title": "%s", "state": "CONFIRMED",
             "people": [{"role": 0, "person": %d}],
             "visits": [{"start": "%s", "end": "%s", "zone": "%s", "before": 15}]}
            """
                .formatted(
                    title, inesId, LOCAL.format(from), LOCAL.format(from.plusHours(1)), zone));
    JsonNode told = hana.get("/api/v1/records/" + id).expect(200).json().get("visits").get(0);
    assertThat(told.get("start").asString()).startsWith(LOCAL.format(from));
    assertThat(told.get("zone").asString()).isEqualTo(zone.getId());

    Calendars calendars = new Calendars(ines);
    String served =
        String.join("", calendars.sync(calendars.href("Ines Okafor, own"), "").live().values());
    assertMoments("served", served, title, start, end);
    // Outside nobody is told of the way there.
    String fed = new Api(server).get(feed).expect(200).text();
    assertMoments("fed", fed, title, from.atZone(zone).toInstant(), end);
    String download = ines.get("/api/v1/calendars/" + own + ".ics").expect(200).text();
    assertMoments("downloaded", download, title, start, end);
    String copy = Outside.awaits(Outside.work(account), title).getValue().text();
    assertMoments("copied", copy, title, start, end);
    assertThat(expanded(calendars, start, end, title))
        .contains("DTSTART:" + UTC.format(start))
        .contains("DTEND:" + UTC.format(end));
  }

  /** What keeps somebody busy within the hour that is there twice, or is not there. */
  @Test(dataProvider = "changes")
  public void freeAndBusyTellItToo(ZoneId zone, ZoneOffsetTransition change) {
    Instant start = change.getInstant().plusSeconds(10 * 60);
    Instant end = start.plusSeconds(10 * 60);
    hana.record(
        """
        {"kind": "JOB", "title": "Busy in %s", "state": "CONFIRMED", "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "%s", "end": "%s", "zone": "Etc/UTC"}]}
        """
            .formatted(
                zone,
                inesId,
                LOCAL.format(start.atZone(ZoneOffset.UTC)),
                LOCAL.format(end.atZone(ZoneOffset.UTC))));
    String told =
        ines.dav(
                "REPORT",
                new Calendars(ines).href("Ines Okafor, own"),
                "<c:free-busy-query xmlns:c='urn:ietf:params:xml:ns:caldav'><c:time-range start='%s'"
                        .formatted(UTC.format(start))
                    + " end='%s'/></c:free-busy-query>".formatted(UTC.format(end)))
            .expect(200)
            .text();
    assertThat(Calendars.unfold(told)).contains(UTC.format(start) + "/" + UTC.format(end));
  }

  private static void assertMoments(
      String where, String calendar, String title, Instant start, Instant end) {
    String event =
        Arrays.stream(Calendars.unfold(calendar).split("BEGIN:VEVENT"))
            .filter(one -> one.contains(title))
            .map(one -> one.substring(0, one.indexOf("END:VEVENT")))
            .findFirst()
            .orElseThrow();
    assertThat(moment(event, "DTSTART")).as(where + " start").isEqualTo(start);
    assertThat(moment(event, "DTEND")).as(where + " end").isEqualTo(end);
  }

  /** As the standard reads it: of a local time that is there twice, the first is meant. */
  private static Instant moment(String event, String name) {
    String line = Calendars.line(event, name);
    String value = line.substring(line.lastIndexOf(':') + 1);
    if (value.endsWith("Z")) {
      return Instant.from(UTC.parse(value));
    }
    String zone = line.substring(line.indexOf("TZID=") + 5, line.lastIndexOf(':'));
    return LocalDateTime.parse(value, DateTimeFormatter.ofPattern("uuuuMMdd'T'HHmmss"))
        .atZone(ZoneId.of(zone))
        .toInstant();
  }

  private String expanded(Calendars calendars, Instant start, Instant end, String title) {
    String answer =
        ines.dav(
                "REPORT",
                calendars.href("Ines Okafor, own"),
                """
                <c:calendar-query xmlns='DAV:' xmlns:c='urn:ietf:params:xml:ns:caldav'><prop>
                <c:calendar-data><c:expand start='20270101T000000Z' end='20280101T000000Z'/>
                </c:calendar-data></prop><c:filter><c:comp-filter name='VCALENDAR'>
                <c:comp-filter name='VEVENT'><c:time-range start='%s' end='%s'/></c:comp-filter>
                </c:comp-filter></c:filter></c:calendar-query>
                """
                    .formatted(UTC.format(start), UTC.format(end)))
            .expect(207)
            .text();
    assertThat(answer).contains(title);
    return answer;
  }
}
