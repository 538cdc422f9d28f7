package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

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
}
