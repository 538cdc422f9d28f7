package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What the organisation settles for all, and that calendars follow in the same act. */
public class HouseTest extends OnDemo {

  private Api ines;

  @BeforeClass
  public void start() {
    ines = Api.of(server, "ines");
  }

  private void settle(String change) {
    hana.patch("/api/v1/house", change).expect(204);
  }

  private String feed(String calendar, String more) {
    return hana.post(
            "/api/v1/feeds",
            "{\"calendar\": %d, \"label\": \"Board in the yard\"%s}"
                .formatted(hana.idOf("calendars", calendar), more))
        .expect(201)
        .json()
        .get("address")
        .asString();
  }

  @Test
  public void theLimitForOutsideHoldsOnEveryFeedAtOnce() {
    String address = feed("Due times", "");
    hana.record("{\"title\": \"Seen by passers\", \"due\": {\"at\": \"2027-05-03T10:00\"}}");
    assertThat(ines.get(address).expect(200).text()).contains("Seen by passers");
    JsonNode look =
        hana.patch("/api/v1/house", "{\"outsideLimit\": \"BUSY_ONLY\"}", "Look-First", "true")
            .expect(200)
            .json();
    assertThat(look.get("hidden").toString()).contains("Title");
    assertThat(ines.get(address).text()).contains("Seen by passers");
    settle("{\"outsideLimit\": \"BUSY_ONLY\", \"outsideReason\": \"neighbours read along\"}");
    assertThat(ines.get(address).expect(200).text())
        .contains("SUMMARY:Work")
        .doesNotContain("Seen by passers");
    assertThat(ines.get("/api/v1/house").expect(200).json().get("outsideReason").asString())
        .isEqualTo("neighbours read along");
    settle("{\"outsideLimit\": \"ALL\", \"outsideReason\": \"\"}");
    assertThat(ines.get(address).text()).contains("Seen by passers");
  }

  @Test
  public void remindersGoByTheDaysWorkedAtThePlace() {
    ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").expect(200).json();
    set.remove("counts");
    ((ObjectNode) ReleasesTest.ofOwnCalendars(set))
        .set("reminders", Api.JSON.readTree("[{\"amount\": 1, \"unit\": \"WORKING_DAYS\"}]"));
    ReleasesTest.take(hana, set);
    long place =
        hana.post("/api/v1/places", "{\"code\": \"RB\", \"name\": \"Ringing Basin\"}")
            .expect(201)
            .json()
            .get("id")
            .asLong();
    // A Monday.
    hana.record(
        """
        {"title": "Rings before", "due": {"at": "2027-05-10T10:00"},
         "place": %d, "people": [{"role": 0, "person": %d}]}
        """
            .formatted(place, hana.idOf("people", "Ines Okafor")));
    assertThat(rings()).isEqualTo("-P3D");
    settle("{\"week\": [\"MONDAY\", \"SUNDAY\"]}");
    assertThat(rings()).isEqualTo("-P1D");
    settle("{\"week\": [\"MONDAY\"]}");
    assertThat(rings()).isEqualTo("-P7D");
    settle("{\"week\": [\"MONDAY\", \"TUESDAY\", \"WEDNESDAY\", \"THURSDAY\", \"FRIDAY\"]}");

    String days = "/api/v1/places/" + place + "/days";
    String shut = "{\"closures\": [{\"first\": \"2027-05-06\", \"last\": \"2027-05-07\"}]}";
    JsonNode look = hana.put(days, shut, "Look-First", "true").expect(200).json();
    assertThat(look.get("changed").asInt()).isEqualTo(1);
    assertThat(rings()).as("looking changes nothing").isEqualTo("-P3D");
    hana.put(days, shut).expect(204);
    assertThat(rings()).isEqualTo("-P5D");
    ObjectNode house = (ObjectNode) hana.get("/api/v1/house/days").expect(200).json();
    house.remove("tag");
    JsonNode before = house.deepCopy();
    house.withArray("closures").addObject().put("first", "2027-05-05").put("why", "stocktaking");
    hana.put("/api/v1/house/days", house.toString()).expect(204);
    assertThat(rings()).isEqualTo("-P6D");
    hana.put("/api/v1/house/days", before.toString()).expect(204);
    assertThat(rings()).isEqualTo("-P5D");
  }

  private String rings() {
    return new Calendars(ines)
        .events("Ines Okafor, own", "Rings before")
        .values()
        .iterator()
        .next()
        .getAlarms()
        .get(0)
        .getTrigger()
        .getDuration()
        .toString();
  }

  @Test
  public void aFeedIsOverOnItsLastDay() {
    String address = feed("Due times", ", \"until\": \"2026-11-26\"");
    assertThat(ines.get(address).status()).isEqualTo(200);
    server.setClock("2026-11-26T00:00:30Z");
    Await.until(
        "the feed is over", Duration.ofSeconds(45), () -> ines.get(address).status() == 404);
    server.setClock(Demo.NOW);
  }

  @DataProvider
  Object[][] faults() {
    return new Object[][] {
      {"{\"week\": []}", "/week", "at least one"},
      {"{\"week\": [\"SOMEDAY\"]}", "/week", "only MONDAY"},
      {"{\"week\": \"MONDAY\"}", "/week", ""},
      {"{\"outsideLimit\": \"SOME\"}", "/outsideLimit", "ALL"},
      {"{\"name\": \"\"}", "/name", "missing"},
      {"{\"zone\": \"UTC\"}", "/zone", ""},
      {"{\"trustsOwnFeeds\": 3}", "/trustsOwnFeeds", ""},
    };
  }

  @Test(dataProvider = "faults")
  public void eachFaultIsNamedAtItsPlace(String body, String pointer, String words) {
    JsonNode fault = hana.patch("/api/v1/house", body).expect(422).json().get("faults").get(0);
    assertThat(fault.get("pointer").asString()).isEqualTo(pointer);
    assertThat(fault.get("message").asString()).contains(words);
  }

  @Test
  public void onlyCoordinatorsSettleIt() {
    ines.patch("/api/v1/house", "{\"outsideLimit\": \"ALL\"}").expect(403);
    Api.of(server, "marguerite").patch("/api/v1/house", "{\"name\": \"Ours\"}").expect(403);
  }
}
