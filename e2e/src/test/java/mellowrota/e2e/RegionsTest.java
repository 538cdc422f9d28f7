package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Regions, their holidays from a file, weeks of places, closures: what is kept and what follows.
 */
public class RegionsTest extends OnDemo {

  private long region(String name) {
    return hana.post("/api/v1/regions", Api.JSON.writeValueAsString(Map.of("name", name)))
        .expect(201)
        .json()
        .get("id")
        .asLong();
  }

  private long place(String code) {
    return hana.post(
            "/api/v1/places", "{\"code\": \"%s\", \"name\": \"Place %s\"}".formatted(code, code))
        .expect(201)
        .json()
        .get("id")
        .asLong();
  }

  private JsonNode kept(long id) {
    for (JsonNode one : hana.get("/api/v1/regions").expect(200).json()) {
      if (one.get("id").asLong() == id) {
        return one;
      }
    }
    throw new AssertionError("no region " + id);
  }

  /** A file is read, looked at and kept; its name and week with it. */
  @Test
  public void holidaysComeFromACalendarFile() {
    long id = region("Reed Shore");
    String file =
        """
        BEGIN:VCALENDAR
        VERSION:2.0
        BEGIN:VEVENT
        UID:one
        SUMMARY:Reed Day
        DTSTART;VALUE=DATE:20200301
        RRULE:FREQ=YEARLY
        END:VEVENT
        BEGIN:VEVENT
        UID:two
        SUMMARY:Eve of it
        DTSTART:20270228T120000
        DTEND:20270228T180000
        END:VEVENT
        BEGIN:VEVENT
        UID:three
        SUMMARY:Never
        END:VEVENT
        END:VCALENDAR
        """;
    JsonNode read =
        hana.post("/api/v1/regions/read", file, "Content-Type", "text/calendar").expect(200).json();
    List<String> days = new ArrayList<>();
    for (JsonNode one : read.get("holidays")) {
      days.add(one.get("day").asString() + (one.get("half").asBoolean() ? " half" : ""));
    }
    assertThat(days)
        .contains("2027-02-28 half", "2027-03-01", "2030-03-01")
        .doesNotContain("2031-03-01");
    assertThat(read.get("until").asString()).isEqualTo("2030-12-31");
    assertThat(read.get("notRead").get(0).get("summary").asString()).isEqualTo("Never");
    assertThat(kept(id).get("holidays")).as("nothing is kept by reading").isEmpty();

    hana.put(
            "/api/v1/regions/" + id,
            "{\"name\": \"Reed Coast\", \"week\": [\"TUESDAY\", \"MONDAY\"], \"holidays\": %s}"
                .formatted(read.get("holidays")))
        .expect(204);
    JsonNode kept = kept(id);
    assertThat(kept.get("name").asString()).isEqualTo("Reed Coast");
    assertThat(kept.get("week").toString()).isEqualTo("[\"MONDAY\",\"TUESDAY\"]");
    assertThat(kept.get("holidays")).isEqualTo(read.get("holidays"));
    assertThat(hana.get("/api/v1/days-off?from=2027-02-28&until=2027-03-01").json().toString())
        .contains("Eve of it", "Reed Coast")
        .doesNotContain("Reed Day");
  }

  private JsonNode given(String name) {
    for (JsonNode one :
        hana.get("/api/v1/cover/loads?from=2026-11-23&until=2026-12-14").expect(200).json()) {
      if (one.get("name").asString().equals(name)) {
        return one.get("given");
      }
    }
    throw new AssertionError("nothing is told of " + name);
  }

  /** What given work adds to the days from the demo's today to its due day. */
  private List<Integer> spread(String place, String due) {
    JsonNode before = given("Nell Ashdown");
    long record =
        hana.record(
            """
            {"title": "Paint the rails", %s "due": {"date": "%s"}, "estimateMinutes": 600,
             "people": [{"role": 0, "person": %d}]}
            """
                .formatted(place, due, hana.idOf("people", "Nell Ashdown")));
    JsonNode after = given("Nell Ashdown");
    List<Integer> found = new ArrayList<>();
    for (int day = 2; day < 14; day++) {
      found.add(after.get(day).asInt() - before.get(day).asInt());
    }
    hana.change(record, "{\"state\": \"CANCELLED\"}");
    return found;
  }

  /**
   * Wednesday 25 November is today; each part as the place states it, else its region, else the
   * house.
   */
  @Test
  public void givenWorkIsSpreadOverTheDaysWorkedAtItsPlace() {
    long place = place("RG1");
    String at = "\"place\": " + place + ",";
    assertThat(spread(at, "2026-12-01"))
        .as("as the house")
        .containsExactly(120, 120, 120, 0, 0, 120, 120, 0, 0, 0, 0, 0);

    long region = region("Thorn Hills");
    hana.put(
            "/api/v1/regions/" + region,
            """
            {"name": "Thorn Hills", "holidays": [
              {"day": "2026-11-26", "name": "Hill Day", "half": false},
              {"day": "2026-11-27", "name": "Hill Eve", "half": true}]}
            """)
        .expect(204);
    hana.put("/api/v1/places/" + place + "/days", "{\"region\": %d}".formatted(region)).expect(204);
    assertThat(spread(at, "2026-12-01"))
        .as("without the holiday; half a day is one")
        .containsExactly(150, 0, 150, 0, 0, 150, 150, 0, 0, 0, 0, 0);

    hana.put(
            "/api/v1/places/" + place + "/days",
            """
            {"region": %d, "week": ["FRIDAY", "SATURDAY", "SUNDAY"],
             "closures": [{"first": "2026-11-28", "last": "2026-11-28", "why": "Market"}]}
            """
                .formatted(region))
        .expect(204);
    assertThat(spread(at, "2026-12-01"))
        .as("in its own week, without the day it is closed")
        .containsExactly(0, 0, 300, 0, 300, 0, 0, 0, 0, 0, 0, 0);
    assertThat(hana.get("/api/v1/places/" + place + "/days").json().toString())
        .contains("\"region\":" + region, "FRIDAY", "Market");

    ObjectNode house = (ObjectNode) hana.get("/api/v1/house/days").expect(200).json();
    hana.put(
            "/api/v1/house/days",
            """
            {"region": %d, "closures": [{"first": "2026-11-27", "last": "2026-11-29", "why": "Flood"}]}
            """
                .formatted(region))
        .expect(204);
    assertThat(spread("", "2026-12-01"))
        .as("without a place: the office's region, and the house is closed")
        .containsExactly(200, 0, 0, 0, 0, 200, 200, 0, 0, 0, 0, 0);
    assertThat(spread(at, "2026-12-01"))
        .as("none are left before the due day: on it")
        .containsExactly(0, 0, 0, 0, 0, 0, 600, 0, 0, 0, 0, 0);
    hana.put("/api/v1/house/days", house.without("tag").toString()).expect(204);
  }

  @Test
  public void aRegionInUseStays() {
    long region = region("Silt Flats");
    long place = place("RG2");
    hana.put("/api/v1/places/" + place + "/days", "{\"region\": %d}".formatted(region)).expect(204);
    assertThat(hana.delete("/api/v1/regions/" + region).expect(409).text()).contains("Place RG2");
    hana.put("/api/v1/places/" + place + "/days", "{}").expect(204);
    hana.delete("/api/v1/regions/" + region).expect(204);
    hana.delete("/api/v1/regions/" + region).expect(404);
    region("Silt Banks");
    assertThat(hana.post("/api/v1/regions", "{\"name\": \"Silt Banks\"}").expect(409).text())
        .contains("of this name");
  }

  @DataProvider
  public Object[][] faults() {
    String holidays = "{\"name\": \"Odd\", \"holidays\": [%s]}";
    return new Object[][] {
      {"PUT", "/regions/1", "{\"name\": \"Odd\"}", "/holidays"},
      {"PUT", "/regions/1", "{\"name\": \"\", \"holidays\": []}", "/name"},
      {"PUT", "/regions/1", "{\"name\": \"Odd\", \"week\": [], \"holidays\": []}", "/week"},
      {"PUT", "/regions/1", "{\"name\": \"Odd\", \"week\": [\"DAY\"], \"holidays\": []}", "/week"},
      {"PUT", "/regions/1", holidays.formatted("{\"name\": \"x\"}"), "/holidays/0/day"},
      {"PUT", "/regions/1", holidays.formatted("{\"day\": \"soon\"}"), "/holidays/0/day"},
      {
        "PUT",
        "/regions/1",
        holidays.formatted("{\"day\": \"2026-12-01\"}, {\"day\": \"2026-12-01\"}"),
        "is listed twice"
      },
      {"PUT", "/places/1/days", "{\"region\": 99999}", "/region"},
      {
        "PUT", "/places/1/days", "{\"closures\": [{\"last\": \"2026-12-01\"}]}", "/closures/0/first"
      },
      {
        "PUT",
        "/places/1/days",
        "{\"closures\": [{\"first\": \"2026-12-02\", \"last\": \"2026-12-01\"}]}",
        "before the first day"
      },
      {"PUT", "/house/days", "{\"week\": [\"MONDAY\"]}", "week"},
      {"POST", "/regions/read", "no calendar", "no calendar event"},
    };
  }

  @Test(dataProvider = "faults")
  public void whatIsWrongIsSaidAndNothingKept(
      String method, String path, String body, String said) {
    String before = hana.get("/api/v1/regions").json().toString();
    assertThat(hana.send(method, "/api/v1" + path, body).expect(422).text()).contains(said);
    assertThat(hana.get("/api/v1/regions").json().toString()).isEqualTo(before);
  }

  /** The office sees them, coordinators say them. */
  @Test
  public void rights() {
    Api marguerite = Api.of(server, "marguerite");
    Api ines = Api.of(server, "ines");
    for (String path :
        List.of(
            "regions",
            "places/1/days",
            "house/days",
            "days-off?from=2026-11-23&until=2026-11-30")) {
      marguerite.get("/api/v1/" + path).expect(200);
      ines.get("/api/v1/" + path).expect(403);
    }
    for (Api one : List.of(marguerite, ines)) {
      one.post("/api/v1/regions", "{\"name\": \"Mine\"}").expect(403);
      one.put("/api/v1/regions/1", "{\"name\": \"Mine\", \"holidays\": []}").expect(403);
      one.delete("/api/v1/regions/1").expect(403);
      one.put("/api/v1/places/1/days", "{}").expect(403);
      one.put("/api/v1/house/days", "{}").expect(403);
      one.post("/api/v1/regions/read", "BEGIN:VCALENDAR").expect(403);
    }
    hana.get("/api/v1/places/99999/days").expect(404);
    hana.get("/api/v1/days-off?from=2026-11-23&until=2026-11-23").expect(422);
  }
}
