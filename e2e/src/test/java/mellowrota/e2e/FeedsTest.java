package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import java.util.zip.GZIPInputStream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Secret addresses of calendars: what they show, to whom, and how they are withdrawn. */
public class FeedsTest {

  private Api hana;
  private Api wren;
  private Api anybody;
  private long wrenId;

  @BeforeClass
  public void start() {
    Server server = Server.shared();
    hana = Api.of(server, "hana");
    wren = Api.of(server, "wren");
    anybody = new Api(server);
    wrenId = hana.idOf("people", "Wren Adeyemi");
  }

  private String feed(Api maker, String calendar, String more) {
    return maker
        .post(
            "/api/v1/feeds",
            "{\"calendar\": %d, \"label\": \"%s\"%s}"
                .formatted(maker.idOf("calendars", calendar), calendar, more))
        .expect(201)
        .json()
        .get("address")
        .asString();
  }

  private void ticket(String title, String due) {
    hana.record(
        """
        {"title": "%s", "place": 1, "due": {"at": "%s"}, "people": [{"role": 0, "person": %d}],
         "details": {"phone": "0555 0199", "contact": "D. Osei", "gate code": "hook 7788"}}
        """
            .formatted(title, due, wrenId));
  }

  private List<VEvent> events(String address, String words) {
    ICalendar calendar = Biweekly.parse(anybody.get(address).expect(200).text()).first();
    assertThat(calendar.validate(biweekly.ICalVersion.V2_0).isEmpty())
        .as(calendar.validate(biweekly.ICalVersion.V2_0).toString())
        .isTrue();
    return calendar.getEvents().stream()
        .filter(e -> e.getSummary().getValue().contains(words))
        .toList();
  }

  @Test
  public void aFeedIsReadByOutsideAndHoldsNoMore() {
    ticket("Fed ticket", "2027-06-01T10:00");
    String address = feed(wren, "Wren Adeyemi, own", "");
    List<VEvent> found = events(address, "Fed ticket");
    assertThat(found).hasSize(1);
    assertThat(found.get(0).getSummary().getValue())
        .as("no ref, which is for crew")
        .isEqualTo("Fed ticket · Lock 1, Thornmere Flight");
    String text = Calendars.unfold(anybody.get(address).text());
    assertThat(text)
        .doesNotContain("0555 0199")
        .doesNotContain("hook 7788")
        .doesNotContain("D. Osei")
        .contains("REFRESH-INTERVAL;VALUE=DURATION:PT15M")
        .containsOnlyOnce("BEGIN:VTIMEZONE");
    assertThat(Calendars.unfold(wren.dav("GET", anOwn("Fed ticket"), null).text()))
        .as("the same work on their own calendar")
        .contains("0555 0199");
  }

  private String anOwn(String words) {
    return new Calendars(wren).events("Wren Adeyemi, own", words).keySet().iterator().next();
  }

  @Test
  public void aHeadAnswersAsAGet() {
    String address = feed(wren, "Wren Adeyemi, own", "");
    Api.Answer head = anybody.send("HEAD", address, null).expect(200);
    Api.Answer get = anybody.get(address).expect(200);
    assertThat(head.text()).isEmpty();
    assertThat(head.header("ETag")).isEqualTo(get.header("ETag"));
    assertThat(head.header("Content-Type")).isEqualTo(get.header("Content-Type"));
    anybody.send("HEAD", "/feeds/none-at-all.ics", null).expect(404);
  }

  /** LANDING 18: done goes with the times, and stands in no words below level all. */
  @Test
  public void doneStandsInNoTitleOfBusyOnly() {
    ticket("Done and untold", "2027-06-04T10:00");
    long record =
        hana.get("/api/v1/records?find=%22Done%20and%20untold%22")
            .json()
            .get("items")
            .get(0)
            .get("id")
            .asLong();
    hana.change(record, "{\"state\": \"DONE\"}");
    String busy = feed(hana, "Wren Adeyemi, own", ", \"level\": \"BUSY_ONLY\"");
    assertThat(anybody.get(busy).expect(200).text()).doesNotContain("\u2713");
    String all = feed(wren, "Wren Adeyemi, own", "");
    assertThat(anybody.get(all).expect(200).text()).contains("SUMMARY:\u2713 Done and untold");
  }

  @Test
  public void busyOnlyTellsNoTitle() {
    ticket("Untold ticket", "2027-06-02T10:00");
    String address = feed(hana, "Wren Adeyemi, own", ", \"level\": \"BUSY_ONLY\"");
    assertThat(anybody.get(address).expect(200).text())
        .doesNotContain("Untold")
        .doesNotContain("Lock 1")
        .contains("SUMMARY:Work");
  }

  @Test
  public void itsTagMovesOnlyWithWhatItShows() {
    ticket("Tagged ticket", "2027-06-03T10:00");
    long record =
        hana.get("/api/v1/records?find=Tagged%20ticket")
            .json()
            .get("items")
            .get(0)
            .get("id")
            .asLong();
    String address = feed(wren, "Wren Adeyemi, own", "");
    String tag = anybody.get(address).header("ETag");
    assertThat(anybody.get(address, "If-None-Match", tag).status()).isEqualTo(304);
    hana.change(record, "{\"details\": {\"phone\": \"0555 0198\"}}");
    assertThat(anybody.get(address, "If-None-Match", tag).status())
        .as("a phone number it does not show")
        .isEqualTo(304);
    hana.change(record, "{\"title\": \"Tagged anew\"}");
    assertThat(anybody.get(address, "If-None-Match", tag).status()).isEqualTo(200);
    assertThat(events(address, "Tagged anew")).hasSize(1);
  }

  @Test
  public void itComesPackedWhereThatIsWanted() throws IOException {
    String address = feed(hana, "Master", "");
    Api.Answer packed = anybody.get(address, "Accept-Encoding", "gzip");
    assertThat(packed.header("Content-Encoding")).isEqualTo("gzip");
    try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(packed.bytes()))) {
      assertThat(new String(in.readAllBytes(), java.nio.charset.StandardCharsets.UTF_8))
          .startsWith("BEGIN:VCALENDAR");
    }
    assertThat(packed.header("Content-Type")).startsWith("text/calendar");
  }

  @Test
  public void withdrawnItAnswersAsOneThatNeverWas() {
    String address = feed(wren, "Wren Adeyemi, own", "");
    anybody.get(address).expect(200);
    JsonNode mine = wren.get("/api/v1/feeds").expect(200).json();
    JsonNode last = mine.get(mine.size() - 1);
    assertThat(last.get("lastUsedAt").asString()).startsWith("2026-11-25T");
    assertThat(mine.toString()).doesNotContain(address.substring(7, 20));
    wren.delete("/api/v1/feeds/" + last.get("id").asLong()).expect(204);
    Api.Answer gone = anybody.get(address);
    Api.Answer never = anybody.get("/feeds/nothing.ics");
    assertThat(gone.status()).isEqualTo(404);
    assertThat(never.status()).isEqualTo(404);
    wren.delete("/api/v1/feeds/" + last.get("id").asLong()).expect(404);
  }

  @Test
  public void othersCalendarsAreForCoordinators() {
    long master = hana.idOf("calendars", "Master");
    wren.post("/api/v1/feeds", "{\"calendar\": %d, \"label\": \"x\"}".formatted(master))
        .expect(403);
    String address = feed(hana, "Master", "");
    assertThat(wren.get("/api/v1/feeds").text()).doesNotContain("Master");
    assertThat(anybody.get(address).expect(200).text()).contains("BEGIN:VEVENT");
  }
}
