package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Work that takes more than its place: a barge lands on its calendar and is full when taken. */
public class UsesTest extends OnDemo {

  private static final String DAY = "2028-05-03";

  private long lock;
  private long barge;
  private long nell;
  private long caio;

  @BeforeClass
  public void begin() {
    lock = hana.idOf("places", "Lock 7, Thornmere Flight");
    nell = hana.idOf("people", "Nell Ashdown");
    caio = hana.idOf("people", "Caio Merrin");
    barge =
        hana.post("/api/v1/places", "{\"code\": \"PN\", \"name\": \"Punt Newt\"}")
            .expect(201)
            .json()
            .get("id")
            .asLong();
  }

  @AfterMethod(alwaysRun = true)
  public void anyNumber() {
    terms("{}");
    mind("WARN");
  }

  private void terms(String body) {
    hana.put("/api/v1/places/%d/terms".formatted(barge), body).expect(204);
  }

  private void mind(String level) {
    hana.put(
            "/api/v1/limits",
            "{\"limits\": [{\"kind\": \"CAPACITY\", \"level\": \"%s\"}]}".formatted(level))
        .expect(204);
  }

  private String job(String day, String from, String until, long person, String more) {
    return """
        {"kind": "JOB", "title": "Sound the pool", "state": "CONFIRMED", "place": %d,
         "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "%sT%s", "end": "%sT%s", "zone": "Europe/London"}]%s}
        """
        .formatted(lock, person, day, from, day, until, more);
  }

  private String using(long... things) {
    return ", \"uses\": " + Arrays.toString(things);
  }

  private static List<String> names(JsonNode record) {
    return record.path("uses").valueStream().map(one -> one.get("name").asString()).toList();
  }

  @Test
  public void itIsSaidAndToldAndFound() {
    long id = hana.record(job(DAY, "09:00", "12:00", nell, using(barge, lock, barge)));
    JsonNode record = hana.get("/api/v1/records/" + id).expect(200).json();
    assertThat(names(record)).as("each once, and not its place again").containsExactly("Punt Newt");
    assertThat(hana.get("/api/v1/records?place=" + barge).expect(200).text())
        .contains("\"id\":" + id);
    assertThat(hana.get("/api/v1/records?find=punt").expect(200).text()).contains("\"id\":" + id);
    hana.patch("/api/v1/records/" + id, "{\"uses\": []}", "If-Match", "*").expect(200);
    JsonNode change =
        hana.get("/api/v1/records/%d/history".formatted(id)).expect(200).json().get(0);
    assertThat(change.toString()).contains("Also uses", "Punt Newt");
    assertThat(hana.get("/api/v1/records?place=" + barge).expect(200).text())
        .doesNotContain("\"id\":" + id);
    assertThat(
            hana.post("/api/v1/records", job(DAY, "09:00", "12:00", nell, using(99_999)))
                .expect(422)
                .text())
        .contains("/uses");
  }

  /** By a rule that names the place's calendar; the place's own calendar has it too. */
  @Test
  public void itLandsOnTheCalendarOfEach() {
    long calendar = hana.idOf("calendars", "Punt Newt, place");
    long id = hana.record(job("2028-05-04", "09:00", "12:00", nell, ""));
    long before = landed(id, calendar);
    hana.patch("/api/v1/records/" + id, "{\"uses\": [%d]}".formatted(barge), "If-Match", "*")
        .expect(200);
    assertThat(before).isZero();
    assertThat(landed(id, calendar)).isEqualTo(1);
    hana.patch("/api/v1/records/" + id, "{\"uses\": []}", "If-Match", "*").expect(200);
    assertThat(landed(id, calendar)).isZero();
  }

  private long landed(long record, long calendar) {
    return Long.parseLong(
        server
            .database()
            .query(
                "select count(*)::text from entry where state = 'LIVE' and record = %d and calendar = %d"
                    .formatted(record, calendar))
            .get(0));
  }

  @Test
  public void whatIsTakenIsTakenForAllThatUseIt() {
    terms("{\"capacity\": 1}");
    String day = "2028-05-10";
    hana.record(job(day, "09:00", "12:00", nell, using(barge)));
    long other = hana.record(job(day, "11:00", "14:00", caio, ""));
    assertThat(full(day)).isEmpty();
    String uses = "{\"uses\": [%d]}".formatted(barge);
    hana.patch("/api/v1/records/" + other, uses, "If-Match", "*").expect(200);
    assertThat(full(day)).as("named, with both works").containsExactly("Punt Newt 2");
    hana.patch("/api/v1/records/" + other, "{\"uses\": []}", "If-Match", "*").expect(200);
    mind("NEVER");
    assertThat(hana.patch("/api/v1/records/" + other, uses, "If-Match", "*").expect(409).text())
        .contains("room");
    hana.patch(
            "/api/v1/records/" + other,
            "{\"visits\": [{\"no\": 1, \"start\": \"%1$sT12:00\", \"end\": \"%1$sT14:00\"}], \"uses\": [%2$d]}"
                .formatted(day, barge),
            "If-Match",
            "*")
        .expect(200);
    assertThat(full(day)).isEmpty();
  }

  /** CAPACITY clashes of a day: of which place, with how many works. */
  private List<String> full(String day) {
    String path = "/api/v1/cover?from=%s&until=%s".formatted(day, day.replace("-10", "-11"));
    return hana.get(path)
        .expect(200)
        .json()
        .get("clashes")
        .valueStream()
        .filter(one -> one.get("kind").asString().equals("CAPACITY"))
        .map(one -> one.get("name").asString() + " " + one.get("items").size())
        .toList();
  }

  @Test
  public void whatIsUsedWhileItIsShutIsTold() {
    terms("{\"opening\": [{\"weekday\": 2, \"from\": \"08:00\", \"until\": \"10:00\"}]}");
    // A Tuesday.
    hana.record(job("2028-05-16", "09:00", "12:00", nell, using(barge)));
    JsonNode shut =
        hana.get("/api/v1/cover?from=2028-05-16&until=2028-05-17")
            .expect(200)
            .json()
            .get("clashes")
            .valueStream()
            .filter(one -> one.get("kind").asString().equals("SHUT"))
            .findFirst()
            .orElseThrow();
    assertThat(shut.get("name").asString()).isEqualTo("Punt Newt");
    assertThat(shut.get("start").asString()).isEqualTo("2028-05-16T09:00:00Z");
  }

  /** A copy of the work, and each of its series, uses the same. */
  @Test
  public void whatRepeatsUsesTheSame() {
    String body =
        job(
            "2028-06-01",
            "09:00",
            "10:00",
            nell,
            using(barge) + ", \"repeat\": {\"unit\": \"WEEKS\", \"times\": 3}");
    hana.post("/api/v1/records", body.replace("Sound the pool", "Thrice")).expect(201);
    List<JsonNode> all =
        hana.get("/api/v1/records?find=Thrice")
            .expect(200)
            .json()
            .get("items")
            .valueStream()
            .toList();
    assertThat(all).hasSize(3);
    assertThat(all).allSatisfy(one -> assertThat(names(one)).containsExactly("Punt Newt"));
  }
}
