package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What changes of people, teams and places do to entries that stand already. */
public class CrewChangesTest {

  private Api hana;
  private Calendars calendars;

  @BeforeClass
  public void start() {
    hana = Api.of(Server.shared(), "hana");
    calendars = new Calendars(hana);
  }

  private long person(String name) {
    return hana.post("/api/v1/people", "{\"name\": \"" + name + "\"}")
        .expect(201)
        .json()
        .get("id")
        .asLong();
  }

  private long team(String name) {
    return hana.post("/api/v1/teams", "{\"name\": \"" + name + "\"}")
        .expect(201)
        .json()
        .get("id")
        .asLong();
  }

  private void join(long team, String kind, long member) {
    hana.post("/api/v1/teams/" + team + "/members", "{\"" + kind + "\": " + member + "}")
        .expect(204);
  }

  private void leave(long team, String kind, long member) {
    for (JsonNode one : hana.get("/api/v1/teams").expect(200).json()) {
      for (JsonNode membership : one.get("members")) {
        JsonNode number = membership.get(kind);
        if (one.get("id").asLong() == team && number != null && number.asLong() == member) {
          hana.delete("/api/v1/teams/" + team + "/members/" + membership.get("id").asLong())
              .expect(204);
          return;
        }
      }
    }
    throw new AssertionError(member + " is not in " + team);
  }

  private long ticketFor(long lead, String title) {
    return hana.record(
        "{\"title\": \"%s\", \"due\": {\"at\": \"2026-12-08T15:00\"}, \"people\": [{\"role\": 0, \"person\": %d}]}"
            .formatted(title, lead));
  }

  private List<String> landsOn(long record) {
    List<String> found = new java.util.ArrayList<>();
    hana.get("/api/v1/records/" + record + "/landings")
        .expect(200)
        .json()
        .get("lands")
        .forEach(lands -> found.add(lands.get("name").asString()));
    return found;
  }

  private String uid(long record, String calendar) {
    List<String> found =
        Server.shared()
            .database()
            .query(
                "select e.uid || ' ' || e.state from entry e join calendar c on c.id = e.calendar"
                    + " where c.name = '"
                    + calendar
                    + "' and e.record = "
                    + record);
    assertThat(found).as("entries of " + record + " on " + calendar).hasSize(1);
    return found.get(0);
  }

  @Test
  public void workFollowsItsLeadFromTeamToTeamAndBackUnderTheSameUid() {
    long first = team("Ferry crew");
    long second = team("Ice crew");
    long lead = person("Sanna Oakshott");
    join(first, "person", lead);
    long record = ticketFor(lead, "Frozen bollard");
    assertThat(landsOn(record)).contains("Ferry crew, team").doesNotContain("Ice crew, team");
    String uid = uid(record, "Ferry crew, team");

    leave(first, "person", lead);
    join(second, "person", lead);
    assertThat(landsOn(record)).contains("Ice crew, team").doesNotContain("Ferry crew, team");
    assertThat(uid(record, "Ferry crew, team")).isEqualTo(uid.replace("LIVE", "GONE"));

    join(first, "person", lead);
    assertThat(uid(record, "Ferry crew, team")).isEqualTo(uid);
  }

  @Test
  public void joiningTwiceIsOnce() {
    long team = team("Twice crew");
    long person = person("Rufus Alder");
    join(team, "person", person);
    join(team, "person", person);
    assertThat(
            Server.shared()
                .database()
                .query("select count(*) from membership where team = " + team))
        .containsExactly("1");
  }

  @Test
  public void teamsFormNoRing() {
    long outer = team("Outer ring");
    long middle = team("Middle ring");
    long inner = team("Inner ring");
    join(outer, "team", middle);
    join(middle, "team", inner);
    for (long bad : List.of(inner, middle, outer)) {
      Api.Answer refused =
          hana.post("/api/v1/teams/" + bad + "/members", "{\"team\": " + outer + "}").expect(422);
      assertThat(refused.text()).contains("/team").contains("cannot contain each other");
    }
  }

  @Test
  public void aNestedTeamsPeopleGetWhatTheOuterTeamIsGivenFree() {
    long outer = team("Weekend pool");
    long inner = team("Night pool");
    long member = person("Bettina Crowe");
    join(inner, "person", member);
    join(outer, "team", inner);
    long record =
        hana.record(
            "{\"title\": \"Pool work\", \"due\": {\"at\": \"2026-12-09T09:00\"},"
                + " \"people\": [{\"role\": 0, \"team\": "
                + outer
                + "}]}");
    assertThat(landsOn(record)).contains("Bettina Crowe, own", "Weekend pool, team");
    leave(outer, "team", inner);
    assertThat(landsOn(record)).doesNotContain("Bettina Crowe, own").contains("Weekend pool, team");
  }

  @Test
  public void aNewNameOfAPlaceReachesEntriesWithoutANewSequence() {
    long place =
        hana.post("/api/v1/places", "{\"code\": \"TW\", \"name\": \"Tumbling Weir\"}")
            .expect(201)
            .json()
            .get("id")
            .asLong();
    long record =
        hana.record(
            "{\"title\": \"Weir rail\", \"place\": "
                + place
                + ", \"due\": {\"at\": \"2026-12-10T11:00\"}}");
    VEvent before = only("Master", "Tumbling Weir");
    hana.patch("/api/v1/places/" + place, "{\"code\": \"TW\", \"name\": \"Tumbled Weir\"}")
        .expect(204);
    VEvent after = only("Master", "Tumbled Weir");
    assertThat(after.getUid().getValue()).isEqualTo(before.getUid().getValue());
    assertThat(Calendars.sequence(after)).isEqualTo(Calendars.sequence(before));
    assertThat(calendars.events("Master", "Tumbling Weir")).isEmpty();
    assertThat(landsOn(record)).contains("Master");
  }

  /**
   * With another zone of its place, work ahead keeps its local times; work of before its moments.
   */
  @Test
  public void workFollowsTheZoneOfItsPlace() {
    long place =
        hana.post("/api/v1/places", "{\"code\": \"ZN\", \"name\": \"Zoned quay\"}")
            .expect(201)
            .json()
            .get("id")
            .asLong();
    long ahead = quayWork(place, "2026-12-08", "");
    long before = quayWork(place, "2026-11-03", "");
    long elsewhere = quayWork(place, "2026-12-09", ", \"zone\": \"Asia/Tokyo\"");
    String path = "/api/v1/places/" + place;
    String body = "{\"code\": \"ZN\", \"name\": \"Zoned quay\", \"zone\": \"Europe/Berlin\"}";
    JsonNode look = hana.patch(path, body, "Look-First", "true").expect(200).json();
    assertThat(look.get("changed").asInt()).isPositive();
    assertThat(starts(ahead)).isEqualTo("2026-12-08T09:00 Europe/London 2026-12-08T09:00:00Z");
    hana.patch(path, body).expect(204);
    assertThat(starts(ahead)).isEqualTo("2026-12-08T09:00 Europe/Berlin 2026-12-08T08:00:00Z");
    assertThat(starts(before)).endsWith("Europe/London 2026-11-03T09:00:00Z");
    assertThat(starts(elsewhere)).endsWith("Asia/Tokyo 2026-12-09T00:00:00Z");
    assertThat(hana.get("/api/v1/records/" + ahead + "/history").text())
        .contains("\"kind\":\"crew.place\"");
    // Where nothing is said of it, it stays.
    hana.patch(path, "{\"code\": \"ZN\", \"name\": \"Zoned wharf\"}").expect(204);
    assertThat(place(place).get("zone").asString()).isEqualTo("Europe/Berlin");
    long act =
        Long.parseLong(
            hana.patch(path, body.replace("\"Europe/Berlin\"", "null"))
                .expect(204)
                .header("Act")
                .split(";")[0]);
    assertThat(starts(ahead)).endsWith("Europe/London 2026-12-08T09:00:00Z");
    hana.post("/api/v1/acts/" + act + "/undo", "").expect(200);
    assertThat(starts(ahead)).endsWith("Europe/Berlin 2026-12-08T08:00:00Z");
    assertThat(place(place).get("zone").asString()).isEqualTo("Europe/Berlin");
    assertThat(hana.patch(path, body.replace("Berlin", "Nowhere")).expect(422).text())
        .contains("/zone");
  }

  private long quayWork(long place, String day, String zone) {
    return hana.record(
        """
        {"kind": "JOB", "title": "Quay work", "state": "CONFIRMED", "place": %d,
         "visits": [{"start": "%sT09:00", "end": "%sT11:00"%s}]}
        """
            .formatted(place, day, day, zone));
  }

  private String starts(long record) {
    JsonNode visit = hana.get("/api/v1/records/" + record).expect(200).json().get("visits").get(0);
    return "%s %s %s"
        .formatted(
            visit.get("start").asString(),
            visit.get("zone").asString(),
            visit.get("starts").asString());
  }

  private VEvent only(String calendar, String words) {
    Map<String, VEvent> found = calendars.events(calendar, words);
    assertThat(found).as(words + " on " + calendar).hasSize(1);
    return found.values().iterator().next();
  }

  @Test
  public void whoLeavesTheHouseHasNoEntriesAndNoNewWork() {
    long lead = person("Emil Harrow");
    long record = ticketFor(lead, "Last job");
    assertThat(landsOn(record)).contains("Emil Harrow, own");
    hana.patch("/api/v1/people/" + lead, "{\"standing\": \"LEFT\"}").expect(204);
    assertThat(landsOn(record)).doesNotContain("Emil Harrow, own").contains("Master");
    Api.Answer refused =
        hana.post(
            "/api/v1/records",
            "{\"title\": \"x\", \"people\": [{\"role\": 0, \"person\": " + lead + "}]}");
    assertThat(refused.expect(422).text()).contains("/people/0/person");
    hana.patch("/api/v1/people/" + lead, "{\"standing\": \"HOUSE\"}").expect(204);
    assertThat(landsOn(record)).as("back again").contains("Emil Harrow, own");
  }

  @DataProvider
  Object[][] doublesAndStrangers() {
    return new Object[][] {
      {"/api/v1/teams", "{\"name\": \"Thornmere crew\"}", "/name"},
      {"/api/v1/places", "{\"code\": \"L7\", \"name\": \"Another\"}", "/code"},
      {"/api/v1/places", "{\"code\": \"ZZ\", \"name\": \"Osier Weir\"}", "/name"},
      {"/api/v1/places", "{\"code\": \"ZY\", \"name\": \"Far\", \"zone\": \"Mars/Base\"}", "/zone"},
      {"/api/v1/teams", "{\"name\": \"New\", \"hue\": \"neon\"}", "/hue"},
      {"/api/v1/people", "{\"name\": \"  \"}", "/name"},
      {"/api/v1/people", "{\"name\": \"A\", \"standing\": \"BOSS\"}", "/standing"}
    };
  }

  @Test(dataProvider = "doublesAndStrangers")
  public void whatCannotBeIsRefusedAtItsField(String path, String body, String pointer) {
    JsonNode problem = hana.post(path, body).expect(422).json();
    assertThat(problem.get("faults").get(0).get("pointer").asString()).endsWith(pointer);
    assertThat(problem.get("faults").get(0).get("message").asString()).isNotBlank();
  }

  @DataProvider
  Object[][] crewCalls() {
    return new Object[][] {
      {"POST", "/api/v1/people", "{\"name\": \"x\"}"},
      {"PATCH", "/api/v1/people/1", "{\"name\": \"x\"}"},
      {"POST", "/api/v1/teams", "{\"name\": \"x\"}"},
      {"PATCH", "/api/v1/teams/1", "{\"name\": \"x\"}"},
      {"POST", "/api/v1/teams/1/members", "{\"person\": 1}"},
      {"DELETE", "/api/v1/teams/1/members/1", null},
      {"POST", "/api/v1/places", "{\"code\": \"x\", \"name\": \"x\"}"},
      {"PATCH", "/api/v1/places/1", "{\"code\": \"x\", \"name\": \"x\"}"},
      {"POST", "/api/v1/people/1/invitation", "{\"email\": \"a@b.example\", \"right\": \"WORKER\"}"}
    };
  }

  @Test(dataProvider = "crewCalls")
  public void onlyCoordinatorsChangeTheCrew(String method, String path, String body) {
    for (String who : List.of("marguerite", "ines")) {
      Api.of(Server.shared(), who).send(method, path, body).expect(403);
    }
    new Api(Server.shared()).send(method, path, body).expect(403);
  }

  private JsonNode place(long id) {
    return hana.get("/api/v1/places")
        .expect(200)
        .json()
        .valueStream()
        .filter(one -> one.get("id").asLong() == id)
        .findFirst()
        .orElseThrow();
  }

  /** Of two who saw the same, the second is shown what the first did and keeps what they typed. */
  @Test
  public void whoChangesWhatSomebodyChangedMeanwhileSeesTheirs() {
    long id =
        hana.post("/api/v1/places", "{\"code\": \"TWICE\", \"name\": \"Twice renamed\"}")
            .expect(201)
            .json()
            .get("id")
            .asLong();
    String path = "/api/v1/places/" + id;
    String seen = place(id).get("tag").asString();
    List<CompletableFuture<Api.Answer>> both =
        Stream.of("First bank", "Second bank")
            .map(
                name ->
                    CompletableFuture.supplyAsync(
                        () ->
                            Api.of(Server.shared(), "hana")
                                .patch(
                                    path,
                                    "{\"code\": \"TWICE\", \"name\": \"" + name + "\"}",
                                    "If-Match",
                                    seen)))
            .toList();
    List<Api.Answer> answers =
        both.stream()
            .map(CompletableFuture::join)
            .sorted(Comparator.comparing(Api.Answer::status))
            .toList();
    answers.get(0).expect(204);
    JsonNode refused = answers.get(1).expect(412).json();
    JsonNode now = place(id);
    assertThat(refused.get("theirs")).isEqualTo(now);
    assertThat(refused.get("mine").get("name")).isNotEqualTo(now.get("name"));
    hana.patch(
            path,
            Api.JSON.writeValueAsString(refused.get("mine")),
            "If-Match",
            refused.get("theirsTag").asString())
        .expect(204);
    assertThat(place(id).get("name")).isEqualTo(refused.get("mine").get("name"));
  }

  /** Days of their own are no change of the week's hours. */
  @Test
  public void partsOfSomebodysTimesAreChangedEachByItsOwnTag() {
    String times = "/api/v1/people/" + person("Parted") + "/times";
    JsonNode before = hana.get(times).expect(200).json().get("tags");
    String day = times.replace("/times", "/days/2026-12-07");
    hana.put(day, "{\"times\": []}", "If-Match", before.get("days").asString()).expect(204);
    hana.put(day, "{\"times\": []}", "If-Match", before.get("days").asString()).expect(412);
    String hours = times.replace("/times", "/hours");
    hana.put(hours, "{\"hours\": []}", "If-Match", before.get("hours").asString()).expect(204);
  }

  /** As when the first answer is lost on its way. */
  @Test(dataProvider = "makers")
  public void whatIsMadeTwiceUnderOneKeyIsMadeOnce(String path, String body) {
    String key = "made-once-" + path;
    Api.Answer first = hana.post(path, body, "Idempotency-Key", key).expect(201);
    Api.Answer again = hana.post(path, body, "Idempotency-Key", key).expect(201);
    assertThat(again.json()).isEqualTo(first.json());
    String other = body.replace("Once", "Twice");
    hana.post(path, other, "Idempotency-Key", key).expect(422);
    hana.post(
            "/api/v1/teams".equals(path) ? "/api/v1/people" : "/api/v1/teams",
            body.replaceAll("\"code\"[^,]*, ", ""),
            "Idempotency-Key",
            key)
        .expect(422);
    assertThat(
            hana.get(path)
                .expect(200)
                .json()
                .valueStream()
                .filter(one -> one.get("name").asString().contains("ce and again")))
        .hasSize(1);
  }

  @DataProvider
  public Object[][] makers() {
    return new Object[][] {
      {"/api/v1/people", "{\"name\": \"Once and again\"}"},
      {"/api/v1/teams", "{\"name\": \"Once and again\"}"},
      {"/api/v1/places", "{\"code\": \"ONCE\", \"name\": \"Once and again\"}"},
      {"/api/v1/regions", "{\"name\": \"Once and again\"}"},
    };
  }
}
