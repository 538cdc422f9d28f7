package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Any change of people, teams, shares, feeds or records, looked at first, then done. */
public class LookFirstTest extends OnDemo {

  private Api ines;
  private long inesId;
  private long wrenId;

  @BeforeClass
  public void start() {
    ines = Api.of(server, "ines");
    inesId = hana.idOf("people", "Ines Okafor");
    wrenId = hana.idOf("people", "Wren Adeyemi");
  }

  private List<String> tables() {
    return server
        .database()
        .query(
            """
            select concat_ws(' ', (select count(*) from person), (select count(*) from membership),
              (select count(*) from share), (select count(*) from rendering),
              (select count(*) from record), (select count(*) from history),
              (select count(*) from act), (select world_version from house))
            """);
  }

  /** Looks, sees that nothing changed, does it, and sees that what was told came about. */
  private JsonNode lookThenDo(Api who, String method, String path, String body, int expected) {
    Map<String, String> before = Entries.of(server.database());
    List<String> tables = tables();
    JsonNode look =
        who.send(method, path, body, "Look-First", "true", "If-Match", "*").expect(200).json();
    assertThat(Entries.of(server.database())).as("nothing was done").isEqualTo(before);
    assertThat(tables()).isEqualTo(tables);
    who.send(method, path, body, "If-Match", "*").expect(expected);
    assertThat(Entries.counted(look))
        .as("%s %s %s", method, path, body)
        .isEqualTo(Entries.counted(before, Entries.of(server.database())));
    return look;
  }

  private static List<String> shown(JsonNode look) {
    return look.get("shown")
        .valueStream()
        .map(one -> one.get("name").asString() + ": " + one.get("detail").asString())
        .toList();
  }

  private long team(String name) {
    for (JsonNode one : hana.get("/api/v1/teams").expect(200).json()) {
      if (one.get("name").asString().equals(name)) {
        return one.get("id").asLong();
      }
    }
    throw new AssertionError("no team " + name);
  }

  private long membership(long team, long person) {
    for (JsonNode one : hana.get("/api/v1/teams").expect(200).json()) {
      for (JsonNode member : one.get("members")) {
        if (one.get("id").asLong() == team && member.path("person").asLong() == person) {
          return member.get("id").asLong();
        }
      }
    }
    throw new AssertionError(person + " is not in " + team);
  }

  @Test
  public void joiningAndLeavingATeam() {
    long team = team("Duty Office");
    JsonNode joins =
        lookThenDo(
            hana,
            "POST",
            "/api/v1/teams/" + team + "/members",
            "{\"person\": " + inesId + "}",
            204);
    assertThat(joins.get("added").asLong() + joins.get("changed").asLong()).isPositive();
    assertThat(joins.get("shown").get(0).toString())
        .as("who newly reads what stands there")
        .contains("Duty Office, team", "Ines Okafor", "Everything");
    JsonNode leaves =
        lookThenDo(
            hana,
            "DELETE",
            "/api/v1/teams/" + team + "/members/" + membership(team, inesId),
            null,
            204);
    assertThat(leaves.get("hidden").toString()).contains("Ines Okafor", "Everything");
  }

  @Test
  public void marginsMoveWhatStandsWithThem() {
    String path = "/api/v1/margins";
    long place = hana.idOf("places", "Osier Weir");
    String all = "{\"margins\": [%s]}";
    // On work that states none itself, by what it is, whose and where.
    for (String one :
        List.of(
            "{\"before\": 5}",
            "{\"kind\": \"JOB\", \"before\": 25}",
            "{\"person\": %d, \"before\": 35}".formatted(wrenId),
            "{\"place\": %d, \"after\": 45}".formatted(place))) {
      JsonNode look = lookThenDo(hana, "PUT", path, all.formatted(one), 204);
      assertThat(look.get("changed").asLong()).as(one).isPositive();
    }
    JsonNode back = lookThenDo(hana, "PUT", path, all.formatted(""), 204);
    assertThat(back.get("changed").asLong()).isPositive();
  }

  @Test
  public void standingAndRight() {
    long guest =
        hana.post("/api/v1/people", "{\"name\": \"Guest of the yard\"}")
            .expect(201)
            .json()
            .get("id")
            .asLong();
    hana.record(
        """
        {"title": "For a guest", "due": {"at": "2027-04-05T10:00"},
         "people": [{"role": 0, "person": %d}]}
        """
            .formatted(guest));
    String path = "/api/v1/people/" + guest;
    lookThenDo(hana, "PATCH", path, "{\"standing\": \"AGENCY\"}", 204);
    lookThenDo(hana, "PATCH", path, "{\"name\": \"Guest of the mill\"}", 204);
    JsonNode leaves = lookThenDo(hana, "PATCH", path, "{\"standing\": \"LEFT\"}", 204);
    assertThat(leaves.get("takenOff").asLong()).isPositive();
  }

  @Test
  public void aShareIsLookedAtAsIfItWereAccepted() {
    long calendar = hana.idOf("calendars", "Ines Okafor, own");
    String offer =
        "{\"calendar\": %d, \"reader\": %d, \"level\": \"ALL\"}".formatted(calendar, wrenId);
    JsonNode look =
        ines.send("POST", "/api/v1/shares", offer, "Look-First", "true").expect(200).json();
    assertThat(shown(look)).anyMatch(one -> one.startsWith("Ines Okafor, own: "));
    assertThat(shown(look))
        .as("the phone is for people on it")
        .noneMatch(one -> one.endsWith("Phone"));
    long share = ines.post("/api/v1/shares", offer).expect(201).json().get("id").asLong();
    Api wren = Api.of(server, "wren");
    // Whoever only reads it is not told whose calendars change.
    JsonNode accepting =
        wren.send("POST", "/api/v1/shares/" + share + "/accept", "{}", "Look-First", "true")
            .expect(200)
            .json();
    assertThat(accepting.get("calendars")).isEmpty();
    wren.post("/api/v1/shares/" + share + "/accept", "{}").expect(204);
    String path = "/api/v1/shares/" + share;
    JsonNode less = lookThenDo(ines, "PUT", path, "{\"level\": \"BUSY_ONLY\"}", 204);
    assertThat(less.get("hidden")).isNotEmpty();
    JsonNode more = lookThenDo(ines, "PUT", path, "{\"level\": \"ALL\"}", 204);
    assertThat(shown(more)).isNotEmpty();
    lookThenDo(ines, "DELETE", path, null, 204);
  }

  @Test
  public void aFeed() {
    long calendar = hana.idOf("calendars", "Due times");
    String wish = "{\"calendar\": %d, \"label\": \"Notice board\"}".formatted(calendar);
    JsonNode look = lookThenDo(hana, "POST", "/api/v1/feeds", wish, 201);
    assertThat(shown(look)).contains("Due times: Times");
    long feed = 0;
    for (JsonNode one : hana.get("/api/v1/feeds").expect(200).json()) {
      feed = one.path("label").asString("").equals("Notice board") ? one.get("id").asLong() : feed;
    }
    JsonNode gone = lookThenDo(hana, "DELETE", "/api/v1/feeds/" + feed, null, 204);
    assertThat(gone.get("hidden")).isNotEmpty();
  }

  @Test
  public void oneRecordAndMany() {
    long first = ticket("Looked at, first");
    long second = ticket("Looked at, second");
    JsonNode given =
        lookThenDo(
            hana,
            "PATCH",
            "/api/v1/records/" + first,
            "{\"people\": [{\"role\": 0, \"person\": %d}]}".formatted(wrenId),
            200);
    assertThat(shown(given)).contains("Wren Adeyemi, own: Phone");
    String many =
        """
        {"items": [{"record": %d, "ifMatch": "*", "change": {"state": "CANCELLED"}},
          {"record": %d, "ifMatch": "*", "change": {"due": {"at": "2027-04-07T12:00"}}}]}
        """
            .formatted(first, second);
    JsonNode look = lookThenDo(hana, "POST", "/api/v1/records/several", many, 200);
    assertThat(look.get("takenOff").asLong()).isPositive();
    assertThat(look.get("changed").asLong()).isPositive();
    lookThenDo(
        hana,
        "POST",
        "/api/v1/records",
        "{\"title\": \"Looked at, new\", \"due\": {\"at\": \"2027-04-08T12:00\"}}",
        201);
  }

  private long ticket(String title) {
    return hana.record(
        """
        {"title": "%s", "due": {"at": "2027-04-06T10:00"}, "details": {"phone": "0555 0123"},
         "people": [{"role": 0, "person": %d}]}
        """
            .formatted(title, inesId));
  }

  @Test
  public void whatIsNoActCannotBeLookedAt() {
    assertThat(
            hana.send(
                    "POST",
                    "/api/v1/account/app-passwords",
                    "{\"label\": \"x\", \"password\": \"still-water\"}",
                    "Look-First",
                    "true")
                .expect(400)
                .text())
        .contains("no preview of this");
    hana.send("POST", "/api/v1/records", "{\"title\": \"x\"}", "Look-First", "perhaps").expect(400);
    // Who may not do it may not look at it either.
    ines.send("PATCH", "/api/v1/people/" + wrenId, "{\"standing\": \"LEFT\"}", "Look-First", "true")
        .expect(403);
    hana.send("PATCH", "/api/v1/people/" + wrenId, "{\"standing\": \"GONE\"}", "Look-First", "true")
        .expect(422);
  }
}
