package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Margins that the house settles: on records, on calendars and in cover. */
public class MarginsTest extends OnDemo {

  private static final String MARGINS = "/api/v1/margins";

  private long ines;
  private long nell;
  private long lock;

  @BeforeClass
  public void begin() {
    ines = hana.idOf("people", "Ines Okafor");
    nell = hana.idOf("people", "Nell Ashdown");
    lock = hana.idOf("places", "Lock 7, Thornmere Flight");
  }

  @AfterMethod(alwaysRun = true)
  public void settleNothing() {
    settle("");
  }

  private void settle(String margins) {
    hana.put(MARGINS, "{\"margins\": [" + margins + "]}").expect(204);
  }

  private long job(String day, String from, String until, long person, String more) {
    return hana.record(
        """
        {"kind": "JOB", "title": "Sound the pool", "state": "CONFIRMED", "place": %d,
         "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "%sT%s", "end": "%sT%s", "zone": "Europe/London"%s}]}
        """
            .formatted(lock, person, day, from, day, until, more));
  }

  private JsonNode visit(long record) {
    return hana.get("/api/v1/records/" + record).expect(200).json().get("visits").get(0);
  }

  private static String both(JsonNode visit) {
    return "%s/%s of %s/%s"
        .formatted(
            visit.path("marginBefore").asString("-"),
            visit.path("marginAfter").asString("-"),
            visit.path("before").asString("-"),
            visit.path("after").asString("-"));
  }

  @Test
  public void aRecordSaysWhatItStatesAndWhatItHas() {
    long record = job("2028-03-01", "09:00", "12:00", nell, "");
    assertThat(both(visit(record))).isEqualTo("-/- of -/-");
    settle("{\"before\": 10, \"after\": 15}, {\"kind\": \"JOB\", \"after\": 25}");
    assertThat(both(visit(record))).isEqualTo("10/25 of -/-");
    settle(
        "{\"before\": 10}, {\"place\": %d, \"before\": 40}, {\"person\": %d, \"after\": 5}"
            .formatted(lock, nell));
    assertThat(both(visit(record))).isEqualTo("40/5 of -/-");
    change(record, "\"before\": 0");
    assertThat(both(visit(record))).as("0 is a margin too").isEqualTo("0/5 of 0/-");
    change(record, "\"before\": null, \"after\": 20");
    assertThat(both(visit(record))).as("null is as settled again").isEqualTo("40/20 of -/20");
  }

  private void change(long record, String margins) {
    hana.patch(
            "/api/v1/records/" + record,
            """
            {"visits": [{"no": 1, "start": "2028-03-01T09:00", "end": "2028-03-01T12:00", %s}]}
            """
                .formatted(margins),
            "If-Match",
            "*")
        .expect(200);
  }

  @Test
  public void coverReckonsWithThoseOfThePerson() {
    job("2028-03-06", "09:00", "10:00", nell, "");
    job("2028-03-06", "10:20", "11:00", nell, "");
    assertThat(margins()).isEmpty();
    settle("{\"person\": %d, \"before\": 30, \"after\": 0}".formatted(nell));
    assertThat(margins()).isEqualTo("Nell Ashdown");
    settle("{\"person\": %d, \"before\": 30, \"after\": 0}".formatted(ines));
    assertThat(margins()).as("another's").isEmpty();
    settle("{\"person\": %d, \"before\": 30}, {\"kind\": \"JOB\", \"before\": 0}".formatted(nell));
    assertThat(margins()).as("the kind's goes before the person's").isEmpty();
  }

  private String margins() {
    StringBuilder found = new StringBuilder();
    String path = "/api/v1/cover?from=2028-03-06&until=2028-03-07";
    for (JsonNode one : hana.get(path).expect(200).json().get("clashes")) {
      if (one.get("kind").asString().equals("MARGIN")) {
        found
            .append(one.get("name").asString())
            .append(one.get("never").asBoolean() ? " never" : "");
      }
    }
    return found.toString();
  }

  @Test
  public void whenCouldGoesByThemUnlessItIsTold() {
    job("2028-03-08", "12:00", "13:00", nell, "");
    String asked =
        "/api/v1/cover/when-could?person=%d&minutes=60&place=%d&from=2028-03-08&until=2028-03-09"
            .formatted(nell, lock);
    assertThat(reasons(asked)).doesNotContain("MARGIN");
    settle("{\"person\": %d, \"before\": 45}".formatted(nell));
    assertThat(reasons(asked)).contains("MARGIN");
    assertThat(reasons(asked + "&before=0&after=0")).doesNotContain("14:00:00Z MARGIN");
  }

  private String reasons(String path) {
    return hana.get(path).expect(200).text();
  }

  @DataProvider
  public Object[][] faults() {
    return new Object[][] {
      {"{}", "/margins"},
      {"{\"margins\": [{\"before\": 1441}]}", "/margins/0/before"},
      {"{\"margins\": [{\"before\": -1}]}", "/margins/0/before"},
      {"{\"margins\": [{\"place\": 99999, \"before\": 5}]}", "/margins/0/place"},
      {"{\"margins\": [{\"person\": 99999, \"before\": 5}]}", "/margins/0/person"},
      {"{\"margins\": [{\"kind\": \"BARGE\", \"before\": 5}]}", "/margins/0/kind"},
      {"{\"margins\": [{\"kind\": \"JOB\", \"place\": 1, \"before\": 5}]}", "/margins/0"},
      {"{\"margins\": [{\"before\": 5}, {\"after\": 5}]}", "/margins/1"},
      {"{\"margins\": [{\"kind\": \"JOB\"}, {\"kind\": \"JOB\", \"after\": 5}]}", "/margins/1"},
    };
  }

  @Test(dataProvider = "faults")
  public void whatCannotBeIsToldAtItsField(String body, String pointer) {
    assertThat(hana.put(MARGINS, body).expect(422).text()).contains("\"" + pointer + "\"");
  }

  @Test
  public void coordinatorsAloneSettleThem() {
    for (String who : new String[] {"ines", "marguerite"}) {
      Api.of(server, who).get(MARGINS).expect(403);
      Api.of(server, who).put(MARGINS, "{\"margins\": []}").expect(403);
    }
  }
}
