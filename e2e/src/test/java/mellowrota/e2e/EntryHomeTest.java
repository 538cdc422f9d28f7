package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import biweekly.property.Geo;
import java.util.HashMap;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Entries lead to their record, and say where its place is, as far as their readers may know. */
public class EntryHomeTest extends OnDemo {

  private static final String OWN = "Ines Okafor, own";

  private Api ines;
  private long place;
  private long record;

  @BeforeClass
  public void make() {
    ines = Api.of(server, "ines");
    place =
        hana.post("/api/v1/places", "{\"code\": \"RB\", \"name\": \"Reed Bank\"}")
            .expect(201)
            .json()
            .get("id")
            .asLong();
    terms("{\"address\": \"1 Reed Lane, Osier\", \"latitude\": 51.5, \"longitude\": -0.25}");
    record =
        hana.record(
            """
            {"kind": "JOB", "title": "Homing", "state": "CONFIRMED", "place": %d,
             "visits": [{"start": "2026-11-29T09:00", "end": "2026-11-29T10:00"}],
             "people": [{"role": 0, "person": %d}]}
            """
                .formatted(place, hana.idOf("people", "Ines Okafor")));
  }

  private void terms(String body) {
    hana.put("/api/v1/places/" + place + "/terms", body, "If-Match", "*").expect(204);
  }

  private VEvent entry(Api reader, String calendar) {
    return new Calendars(reader).events(calendar, "Homing").values().iterator().next();
  }

  private static String keyOf(VEvent event) {
    String address = event.getUrl().getValue();
    return address.substring(address.lastIndexOf('/') + 1);
  }

  @Test
  public void itsAddressOpensItsRecordForWhoMayOpenIt() {
    String address = entry(ines, OWN).getUrl().getValue();
    String key = keyOf(entry(ines, OWN));
    assertThat(address).startsWith("http").contains("/open/" + key);
    assertThat(key).doesNotContain("" + record).hasSize(36);
    String open = "/api/v1/open/" + key;
    assertThat(ines.get(open).expect(200).json().get("record").asLong()).isEqualTo(record);
    assertThat(hana.get(open).expect(200).json().get("record").asLong()).isEqualTo(record);
    Map<String, Api> apart = new HashMap<>();
    People.invited(server, hana, "Rushlight Finch", "OUTSIDE", apart);
    Api other = apart.get("Rushlight Finch");
    String hidden = other.get(open).expect(404).text();
    String nothing =
        other.get("/api/v1/open/00000000-0000-3000-8000-000000000000").expect(404).text();
    assertThat(plain(hidden).replace(key, ""))
        .isEqualTo(plain(nothing).replaceAll("0[0-9-]{35}", ""));
    new Api(server).get(open).expect(401);
    assertThat(ines.get("/open/" + key).expect(200).header("Content-Type")).startsWith("text/html");
  }

  private static String plain(String text) {
    return text.replaceAll("\"request\":\"[0-9a-f]+\"", "");
  }

  /** A secret address is read by anybody, who can open nothing. */
  @Test
  public void whoReadsASecretAddressIsLedNowhere() {
    long own = hana.idOf("calendars", OWN);
    String address =
        ines.post(
                "/api/v1/feeds",
                "{\"calendar\": %d, \"level\": \"ALL\", \"label\": \"phone\"}".formatted(own))
            .expect(201)
            .json()
            .get("address")
            .asString();
    assertThat(new Api(server).get(address).expect(200).text())
        .contains("BEGIN:VEVENT")
        .doesNotContain("URL:")
        .doesNotContain("/open/");
  }

  /** Where the place is goes with the place: set, moved, and kept from whom it is not for. */
  @Test(dependsOnMethods = "itsAddressOpensItsRecordForWhoMayOpenIt")
  public void whereThePlaceIsGoesWithThePlace() {
    Geo at = entry(ines, OWN).getGeo();
    assertThat(at.getLatitude()).isEqualTo(51.5);
    assertThat(at.getLongitude()).isEqualTo(-0.25);
    JsonNode view = ines.get("/api/v1/records/" + record).json().get("place");
    assertThat(view.get("address").asString()).isEqualTo("1 Reed Lane, Osier");
    assertThat(view.get("latitude").asDouble()).isEqualTo(51.5);
    terms("{\"address\": \"2 Reed Lane\", \"latitude\": 51.75, \"longitude\": -0.25}");
    assertThat(entry(ines, OWN).getGeo().getLatitude()).isEqualTo(51.75);
    ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").json();
    set.remove("counts");
    set.get("wordings")
        .forEach(
            one -> ((ObjectNode) one).put("text", "[{place address}]").put("title", "{title}"));
    take(set);
    assertThat(entry(ines, OWN).getDescription().getValue()).isEqualTo("2 Reed Lane");
    ObjectNode narrower = (ObjectNode) hana.get("/api/v1/rules").json();
    narrower.remove("counts");
    narrower
        .get("details")
        .forEach(
            one -> {
              if (one.get("key").asString().equals("place")) {
                ((ObjectNode) one).putObject("for").put("office", true);
              }
            });
    take(narrower);
    VEvent kept = entry(ines, OWN);
    assertThat(kept.getGeo()).isNull();
    assertThat(kept.getDescription()).isNull();
    assertThat(ines.get("/api/v1/records/" + record).text()).doesNotContain("Reed Lane");
  }

  private void take(ObjectNode set) {
    set.put("looked", Looking.at(hana, set).get("looked").asString());
    hana.post("/api/v1/rules/take", set.toString()).expect(200);
  }
}
