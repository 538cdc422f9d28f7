package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Who leaves takes with them what they made, in the same act (SIGHT 11). */
public class LeaverTest extends OnDemo {

  private Api leaver;
  private Api anybody;
  private long person;
  private String feed;
  private String appPassword;

  @BeforeClass
  public void someoneMakesThings() {
    anybody = new Api(server);
    person = hana.idOf("people", "Priya Lund");
    leaver = People.invite(server, hana, person, "Priya Lund", "COORDINATOR");
    feed =
        leaver
            .post(
                "/api/v1/feeds",
                "{\"calendar\": %d, \"label\": \"Wall\", \"level\": \"ALL\"}"
                    .formatted(hana.idOf("calendars", "Thornmere crew, team")))
            .expect(201)
            .json()
            .get("address")
            .asString();
    appPassword =
        leaver
            .post(
                "/api/v1/account/app-passwords",
                "{\"label\": \"Phone\", \"password\": \"" + People.PASSWORD + "\"}")
            .expect(201)
            .json()
            .get("text")
            .asString();
    leaver.withAppPassword(People.email("Priya Lund") + ":" + appPassword);
  }

  @Test
  public void allOfItEndsAndTheLookSaysSo() {
    Map<String, Api> others = new LinkedHashMap<>();
    long yard = People.invited(server, hana, "Weirside Yard", "OUTSIDE", others);
    Api outsider = others.get("Weirside Yard");
    long share =
        leaver
            .post(
                "/api/v1/shares",
                "{\"calendar\": %d, \"reader\": %d, \"level\": \"ALL\"}"
                    .formatted(hana.idOf("calendars", "Saltgate crew, team"), yard))
            .expect(201)
            .json()
            .get("id")
            .asLong();
    outsider.post("/api/v1/shares/" + share + "/accept", "{}").expect(204);
    anybody.get(feed).expect(200);
    leaver.dav("PROPFIND", "/dav/calendars/", null, "Depth", "1").expect(207);

    String leaves = "{\"standing\": \"LEFT\"}";
    JsonNode look =
        hana.patch("/api/v1/people/" + person, leaves, "Look-First", "true").expect(200).json();
    List<String> ends =
        look.get("ends").valueStream().map(one -> one.get("sort").asString()).sorted().toList();
    assertThat(ends).containsExactly("APP_PASSWORD", "FEED", "SHARE");
    anybody.get(feed).expect(200);

    hana.patch("/api/v1/people/" + person, leaves).expect(204);
    Api.Answer gone = anybody.get(feed);
    Api.Answer never = anybody.get("/feeds/none-at-all.ics");
    assertThat(gone.status()).isEqualTo(404);
    String named = "\"(request|instance)\":\"[^\"]+\"";
    assertThat(gone.text().replaceAll(named, "")).isEqualTo(never.text().replaceAll(named, ""));
    leaver.get("/api/v1/session").expect(200);
    leaver.get("/api/v1/records").expect(401);
    leaver.dav("PROPFIND", "/dav/calendars/", null, "Depth", "1").expect(401);
    assertThat(outsider.get("/api/v1/shares").expect(200).text()).doesNotContain("Saltgate crew");
    assertThat(outsider.get("/api/v1/calendars").expect(200).json())
        .noneSatisfy(
            one -> {
              assertThat(one.get("name").asString()).isEqualTo("Saltgate crew");
              assertThat(one.get("reads").asBoolean()).isTrue();
            });

    hana.patch("/api/v1/people/" + person, "{\"standing\": \"HOUSE\"}").expect(204);
    assertThat(anybody.get(feed).status()).as("nothing comes back with them").isEqualTo(404);
    leaver.dav("PROPFIND", "/dav/calendars/", null, "Depth", "1").expect(401);
  }

  /**
   * Until then they work as ever; from the next day on they do nothing, and have left by
   * themselves.
   */
  @Test(dependsOnMethods = "allOfItEndsAndTheLookSaysSo")
  public void whoseLastDayIsOverHasLeft() {
    long dov = hana.idOf("people", "Dov Castellan");
    String terms = "/api/v1/people/%d/terms".formatted(dov);
    assertThat(hana.put(terms, "{\"lastDay\": \"2026-11-01\"}").expect(422).text())
        .contains("/lastDay");
    Api.of(server, "marguerite").put(terms, "{\"lastDay\": \"2027-01-15\"}").expect(403);
    hana.put(terms, "{\"lastDay\": \"2027-01-15\"}").expect(204);
    hana.put(terms, "{\"contractMinutes\": 1200}").expect(204);
    assertThat(hana.get("/api/v1/people/%d/times".formatted(dov)).expect(200).text())
        .as("what is not sent stays")
        .contains("\"lastDay\":\"2027-01-15\"");

    assertThat(hana.post("/api/v1/records", shift("2027-01-15", dov)).status()).isEqualTo(201);
    assertThat(hana.post("/api/v1/records", shift("2027-01-16", dov)).expect(409).text())
        .contains("Dov Castellan has left by then");
    assertThat(
            hana.post("/api/v1/cover/trial", "{\"change\": %s}".formatted(shift("2027-01-16", dov)))
                .expect(200)
                .text())
        .contains("\"LEFT\"");

    server.setClock("2027-01-15T22:00:00Z");
    Api then = Api.of(server, "hana");
    assertThat(standing(then, dov)).isEqualTo("HOUSE");
    server.setClock("2027-01-16T00:00:01Z");
    Api next = Api.of(server, "hana");
    Await.until("they have left", Duration.ofSeconds(60), () -> standing(next, dov).equals("LEFT"));
    next.patch("/api/v1/people/" + dov, "{\"standing\": \"HOUSE\"}").expect(204);
    assertThat(next.get("/api/v1/people/%d/times".formatted(dov)).expect(200).text())
        .as("who comes back has no last day")
        .doesNotContain("lastDay");
  }

  private static String shift(String day, long person) {
    return """
        {"kind": "SHIFT", "title": "Lamp round", "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "%sT09:00", "end": "%sT12:00", "zone": "Europe/London"}]}
        """
        .formatted(person, day, day);
  }

  private static String standing(Api who, long person) {
    for (JsonNode one : who.get("/api/v1/people").expect(200).json()) {
      if (one.get("id").asLong() == person) {
        return one.get("standing").asString();
      }
    }
    throw new AssertionError("nobody has the number " + person);
  }
}
