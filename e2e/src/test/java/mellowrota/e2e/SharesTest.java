package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Calendars shown to one more reader, as a calendar program of theirs gets them. */
public class SharesTest extends OnDemo {

  private static final String OWN = "Ines Okafor, own";

  private Api ines;
  private Api wren;
  private long calendar;

  @BeforeClass
  public void start() {
    ines = Api.of(server, "ines");
    wren = Api.of(server, "wren");
    calendar = hana.idOf("calendars", OWN);
    hana.record(
        """
        {"title": "Shared with care", "place": 1, "due": {"at": "2027-02-03T10:17"},
         "people": [{"role": 0, "person": %d}], "details": {"phone": "0555 0177"}}
        """
            .formatted(hana.idOf("people", "Ines Okafor")));
  }

  private long offer(Api giver, String reader, String more) {
    return giver
        .post(
            "/api/v1/shares",
            "{\"calendar\": %d, \"reader\": %d%s}"
                .formatted(calendar, hana.idOf("people", reader), more))
        .expect(201)
        .json()
        .get("id")
        .asLong();
  }

  private List<String> titles(Api reader) {
    return new Calendars(reader)
        .events(OWN, "20270203T101700").values().stream()
            .map(
                e ->
                    e.getSummary().getValue()
                        + (e.getLocation() == null ? "" : " @ " + e.getLocation().getValue()))
            .toList();
  }

  /** What the calendar answers a program of theirs. */
  private int opens(Api reader) {
    return reader
        .dav(
            "PROPFIND",
            "/dav/calendars/" + calendar + "/",
            "<propfind xmlns='DAV:'><prop><displayname/></prop></propfind>",
            "Depth",
            "0")
        .status();
  }

  private boolean isListed(Api reader) {
    return reader.get("/api/v1/shares").expect(200).json().toString().contains("\"accepted\":true");
  }

  @Test
  public void itShowsOnceAcceptedAtItsLevelAndGoesInTheSameAct() {
    long share = offer(ines, "Wren Adeyemi", "");
    assertThat(isListed(wren)).isFalse();
    assertThat(opens(wren)).isEqualTo(404);
    hana.post("/api/v1/shares/" + share + "/accept", "{}").expect(403);
    wren.post("/api/v1/shares/" + share + "/accept", "{}").expect(204);
    wren.post("/api/v1/shares/" + share + "/accept", "{}").expect(204);
    assertThat(titles(wren)).containsExactly("Work @ Lock 1, Thornmere Flight");

    Calendars theirs = new Calendars(wren);
    String href = theirs.href(OWN);
    String token = theirs.sync(href, "").token();
    ines.put("/api/v1/shares/" + share, "{\"level\": \"ALL\"}").expect(204);
    assertThat(titles(wren))
        .as("crew sees what is for crew, and no phone")
        .hasSize(1)
        .allSatisfy(title -> assertThat(title).contains("Shared with care"));
    ines.put("/api/v1/shares/" + share, "{\"level\": \"BUSY_ONLY\"}").expect(204);
    assertThat(titles(wren)).containsExactly("Work");
    assertThat(theirs.sync(href, "").live().toString()).doesNotContain("Shared with care");
    assertThat(token).isNotEmpty();

    ines.delete("/api/v1/shares/" + share).expect(204);
    assertThat(opens(wren)).isEqualTo(404);
    wren.delete("/api/v1/shares/" + share).expect(404);
  }

  @Test
  public void itIsOverOnItsLastDay() {
    long share = offer(hana, "Tam Birtles", ", \"until\": \"2026-11-26\"");
    Api tam = Api.of(server, "tam");
    tam.post("/api/v1/shares/" + share + "/accept", "{}").expect(204);
    assertThat(titles(tam)).hasSize(1);
    server.setClock("2026-11-26T00:00:30Z");
    Await.until("the share is over", java.time.Duration.ofSeconds(45), () -> opens(tam) == 404);
    server.setClock(Demo.NOW);
    hana.delete("/api/v1/shares/" + share).expect(204);
  }

  @Test
  public void whatMayBePassedOnGoesWithWhatItCameFrom() {
    long first =
        offer(ines, "Marguerite Pell", ", \"mayPassOn\": true, \"level\": \"TIMES_AND_PLACE\"");
    Api marguerite = Api.of(server, "marguerite");
    marguerite.post("/api/v1/shares/" + first + "/accept", "{}").expect(204);
    String wide =
        "{\"calendar\": %d, \"reader\": %d, \"level\": \"ALL\"}"
            .formatted(calendar, hana.idOf("people", "Priya Lund"));
    assertThat(marguerite.post("/api/v1/shares", wide).expect(422).text())
        .contains("more than you see there yourself");
    long second = offer(marguerite, "Priya Lund", ", \"level\": \"TIMES_AND_PLACE\"");
    ines.put(
            "/api/v1/shares/" + first,
            "{\"level\": \"BUSY_ONLY\", \"mayPassOn\": true, \"until\": \"2026-12-24\"}")
        .expect(204);
    for (JsonNode share : hana.get("/api/v1/shares").json()) {
      if (share.get("id").asLong() == second) {
        assertThat(share.get("level").asString()).isEqualTo("BUSY_ONLY");
        assertThat(share.get("until").asString()).isEqualTo("2026-12-24");
      }
    }
    String longer =
        "{\"calendar\": %d, \"reader\": %d, \"level\": \"BUSY_ONLY\"}"
            .formatted(calendar, hana.idOf("people", "Dov Castellan"));
    assertThat(marguerite.post("/api/v1/shares", longer).expect(422).text())
        .contains("is later than your own access ends; at the latest 2026-12-24");
    ines.delete("/api/v1/shares/" + first).expect(204);
    assertThat(hana.get("/api/v1/shares").json().toString())
        .doesNotContain("\"id\":" + second + ",");
  }

  @DataProvider
  public Object[][] faults() {
    long priya = hana.idOf("people", "Priya Lund");
    return new Object[][] {
      {"{\"reader\": %d}".formatted(priya), 422, "/calendar: is missing"},
      {"{\"calendar\": %d}".formatted(calendar), 422, "/reader: is missing"},
      {"{\"calendar\": %d, \"reader\": 999}".formatted(calendar), 422, "is not a person here"},
      {
        "{\"calendar\": %d, \"reader\": %d}"
            .formatted(calendar, hana.idOf("people", "Ines Okafor")),
        422,
        "already reads this calendar"
      },
      {
        "{\"calendar\": %d, \"reader\": %d, \"level\": \"SOME\"}".formatted(calendar, priya),
        422,
        "must be one of BUSY_ONLY"
      },
      {
        "{\"calendar\": %d, \"reader\": %d, \"until\": \"2026-11-25\"}".formatted(calendar, priya),
        422,
        "must be after today"
      },
      {
        "{\"calendar\": 99999, \"reader\": %d}".formatted(priya),
        404,
        "does not exist, or you may not open it"
      },
    };
  }

  @Test(dataProvider = "faults")
  public void aFaultSaysWhatToMend(String body, int status, String words) {
    assertThat(hana.post("/api/v1/shares", body).expect(status).text()).contains(words);
  }

  @Test
  public void onlyItsOwnerOrAnOfficeSharesACalendar() {
    String body =
        "{\"calendar\": %d, \"reader\": %d}".formatted(calendar, hana.idOf("people", "Priya Lund"));
    assertThat(wren.post("/api/v1/shares", body).expect(403).text())
        .contains("You can share your own calendar");
    long share = offer(hana, "Priya Lund", "");
    wren.put("/api/v1/shares/" + share, "{\"level\": \"ALL\"}").expect(404);
    wren.delete("/api/v1/shares/" + share).expect(404);
    assertThat(hana.post("/api/v1/shares", body).expect(422).text())
        .contains("already has a share of this calendar");
    JsonNode seen = ines.get("/api/v1/shares").expect(200).json();
    assertThat(seen.toString()).as("its owner knows").contains("Priya Lund");
    ines.delete("/api/v1/shares/" + share).expect(204);
  }
}
