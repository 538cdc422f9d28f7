package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What is short, who could, and giving it, as the server tells it of the demo. */
public class CoverTest {

  private static final String FORTNIGHT = "?from=2026-11-23&until=2026-12-07";
  private static final List<String> WITH_CALENDARS =
      List.of("Ines Okafor", "Tam Birtles", "Wren Adeyemi");

  private Server server;
  private Api hana;

  @BeforeClass
  public void begin() {
    server = Server.started(Database.demo());
    hana = Api.of(server, "hana");
  }

  @AfterClass(alwaysRun = true)
  public void end() {
    server.close();
  }

  private JsonNode cover(String range) {
    return hana.get("/api/v1/cover" + range).expect(200).json();
  }

  private long duty(String name) {
    return hana.idOf("duties", name);
  }

  private List<String> gaps(String range, String name) {
    long duty = duty(name);
    List<String> found = new ArrayList<>();
    for (JsonNode gap : cover(range).get("gaps")) {
      if (gap.get("duty").asLong() == duty) {
        found.add(
            "%s/%s %d"
                .formatted(
                    gap.get("start").asString(),
                    gap.get("end").asString(),
                    gap.get("shortBy").asInt()));
      }
    }
    return found;
  }

  @Test
  public void theGapsOfTheDemoAreTold() {
    assertThat(gaps(FORTNIGHT, "Swing bridge"))
        .contains("2026-11-26T06:00:00Z/2026-11-26T20:00:00Z 1");
    assertThat(gaps(FORTNIGHT, "Flight keeper"))
        .contains("2026-11-29T07:00:00Z/2026-11-29T19:00:00Z 1");
  }

  /** Stretches, gaps and the share are one computation. */
  @Test
  public void theNumbersAgree() {
    JsonNode cover = cover(FORTNIGHT);
    long needed = 0;
    long filled = 0;
    for (JsonNode one : cover.get("stretches")) {
      needed += minutes(one) * one.get("needed").asInt();
      filled += minutes(one) * one.get("filled").asInt();
    }
    long missing = 0;
    for (JsonNode gap : cover.get("gaps")) {
      missing += minutes(gap) * gap.get("shortBy").asInt();
    }
    assertThat(cover.get("neededMinutes").asLong()).isEqualTo(needed).isPositive();
    assertThat(cover.get("filledMinutes").asLong()).isEqualTo(filled);
    assertThat(missing).isEqualTo(needed - filled).isPositive();
    assertThat(cover.get("sharePerMille").asLong()).isEqualTo(1000 * filled / needed);
  }

  private static long minutes(JsonNode one) {
    return Duration.between(
            Instant.parse(one.get("start").asString()), Instant.parse(one.get("end").asString()))
        .toMinutes();
  }

  @Test
  public void aGapThatIsGivenIsClosedStandsInTheirCalendarAndIsUndone() {
    String gap = "2026-11-26T06:00:00Z/2026-11-26T20:00:00Z 1";
    long duty = duty("Swing bridge");
    JsonNode taker = taker(duty, "2026-11-26T06:00:00Z", "2026-11-26T20:00:00Z");
    String name = taker.get("name").asString();
    String account = name.split(" ")[0].toLowerCase(java.util.Locale.ROOT);
    Api theirs =
        new Api(server).withAppPassword(account + "@quillwater.example:still-water-" + account);
    long own = Api.of(server, account).idOf("calendars", name + ", own");
    assertThat(onTheDay(theirs, own)).isEmpty();
    JsonNode given =
        hana.post(
                "/api/v1/cover/give",
                """
                {"duty": %d, "start": "2026-11-26T06:00:00Z", "end": "2026-11-26T20:00:00Z",
                 "person": %d}
                """
                    .formatted(duty, taker.get("person").asLong()))
            .expect(200)
            .json();
    assertThat(gaps(FORTNIGHT, "Swing bridge")).doesNotContain(gap);
    assertThat(onTheDay(theirs, own)).hasSize(1);
    hana.post("/api/v1/acts/" + given.get("act").asLong() + "/undo", "").expect(200);
    assertThat(gaps(FORTNIGHT, "Swing bridge")).contains(gap);
    assertThat(onTheDay(theirs, own)).isEmpty();
  }

  /** Of those who give the same at once, one gives it and the others are told. */
  @Test
  public void whatSeveralGiveAtOnceIsGivenOnce() throws Exception {
    long duty = duty("Flight keeper");
    List<CompletableFuture<Integer>> answers = new ArrayList<>();
    List<String> people = List.of("Caio Merrin", "Hedda Quay", "Yusuf Larch", "Bram Idowu");
    for (String name : people) {
      long person = hana.idOf("people", name);
      Api one = Api.of(server, "hana");
      String body =
          """
          {"duty": %d, "start": "2026-11-29T07:00:00Z", "end": "2026-11-29T19:00:00Z",
           "person": %d}
          """
              .formatted(duty, person);
      answers.add(
          CompletableFuture.supplyAsync(() -> one.post("/api/v1/cover/give", body).status()));
    }
    long given = 0;
    for (CompletableFuture<Integer> answer : answers) {
      assertThat(answer.get()).isIn(200, 412);
      given += answer.get() == 200 ? 1 : 0;
    }
    assertThat(given).isPositive();
    // Whoever was told that they have it has it: nobody was put in somebody's stead.
    long standing = 0;
    for (JsonNode one : whoCould(hana, duty, "2026-11-29T07:00:00Z", "2026-11-29T19:00:00Z")) {
      boolean here = one.get("reasons").toString().contains("HERE");
      standing += here && people.contains(one.get("name").asString()) ? 1 : 0;
    }
    assertThat(standing).isEqualTo(given);
  }

  /** One of those whose calendars can be read, who could. */
  private JsonNode taker(long duty, String start, String end) {
    for (JsonNode one : whoCould(hana, duty, start, end)) {
      if (!one.get("verdict").asString().equals("NO")
          && WITH_CALENDARS.contains(one.get("name").asString())) {
        return one;
      }
    }
    throw new AssertionError("nobody of " + WITH_CALENDARS + " could");
  }

  private static JsonNode whoCould(Api asker, long duty, String start, String end) {
    return asker
        .get("/api/v1/cover/who-could?duty=%d&start=%s&end=%s".formatted(duty, start, end))
        .expect(200)
        .json();
  }

  /** Swing bridge shifts of that day in a calendar, read over CalDAV. */
  private static List<String> onTheDay(Api reader, long calendar) {
    String answer =
        reader
            .dav(
                "REPORT",
                "/dav/calendars/" + calendar + "/",
                """
                <c:calendar-query xmlns='DAV:' xmlns:c='urn:ietf:params:xml:ns:caldav'>
                <prop><c:calendar-data/></prop><c:filter><c:comp-filter name='VCALENDAR'>
                <c:comp-filter name='VEVENT'>
                <c:time-range start='20261126T000000Z' end='20261127T000000Z'/>
                </c:comp-filter></c:comp-filter></c:filter></c:calendar-query>
                """,
                "Depth",
                "1")
            .expect(207)
            .text();
    List<String> found = new ArrayList<>();
    for (String event : answer.split("BEGIN:VEVENT")) {
      if (event.contains("Swing bridge") && event.contains("20261126T060000")) {
        found.add(event);
      }
    }
    return found;
  }

  @Test
  public void everybodyIsToldWithWhatSpeaksAgainstThem() {
    long duty = duty("Flight keeper");
    JsonNode all = whoCould(hana, duty, "2026-11-29T07:00:00Z", "2026-11-29T19:00:00Z");
    List<String> verdicts = new ArrayList<>();
    for (JsonNode one : all) {
      verdicts.add(one.get("verdict").asString());
      assertThat(one.get("reasons").isEmpty())
          .isEqualTo(one.get("verdict").asString().equals("YES"));
    }
    assertThat(verdicts).contains("NO", "WITH_REASON").isSortedAccordingTo(CoverTest::compare);
  }

  private static int compare(String one, String other) {
    List<String> order = List.of("YES", "WITH_REASON", "NO");
    return Integer.compare(order.indexOf(one), order.indexOf(other));
  }

  /**
   * Who lost the skill fills nothing that asks for it, and is told so where it is asked who could.
   */
  @Test
  public void aSkillThatEndsOpensAGapAndRulesOut() {
    String range = "?from=2026-11-30&until=2026-12-07";
    long tam = hana.idOf("people", "Tam Birtles");
    String skills = "/api/v1/people/" + tam + "/skills";
    long place = hana.idOf("places", "Osier Weir");
    hana.put(
            skills,
            "{\"skills\": [{\"skill\": \"gauge\", \"last\": \"2026-12-01\"}, {\"skill\": \"bridge\"}]}")
        .expect(204);
    long id =
        hana.post(
                "/api/v1/duties",
                """
                {"name": "Night gauge", "place": %d, "skill": "gauge", "spans": [
                  {"weekdays": [2], "from": "22:00", "until": "02:00"}]}
                """
                    .formatted(place))
            .expect(201)
            .json()
            .get("id")
            .asLong();
    hana.post(
            "/api/v1/cover/give",
            """
            {"duty": %d, "start": "2026-12-01T22:00:00Z", "end": "2026-12-02T02:00:00Z",
             "person": %d}
            """
                .formatted(id, tam))
        .expect(200);
    assertThat(gaps(range, "Night gauge"))
        .containsExactly("2026-12-02T00:00:00Z/2026-12-02T02:00:00Z 1");
    JsonNode all = whoCould(hana, id, "2026-12-02T00:00:00Z", "2026-12-02T02:00:00Z");
    for (JsonNode one : all) {
      assertThat(one.get("reasons").toString()).contains("SKILL");
    }
    hana.put(skills, "{\"skills\": [{\"skill\": \"gauge\"}]}").expect(204);
    assertThat(gaps(range, "Night gauge")).isEmpty();
    hana.put(skills, "{\"skills\": [{\"skill\": \"gauge\"}], \"notAlone\": true}").expect(204);
    assertThat(gaps(range, "Night gauge"))
        .containsExactly("2026-12-01T22:00:00Z/2026-12-02T02:00:00Z 1");
    Api ines = Api.of(server, "ines");
    ines.get(skills).expect(403);
    ines.put(skills, "{\"skills\": []}").expect(403);
    assertThat(Api.of(server, "tam").get(skills).expect(200).json().get("notAlone").asBoolean())
        .isTrue();
    assertThat(hana.put(skills, "{}").expect(422).text()).contains("/skills");
    hana.put(skills, "{\"skills\": [{\"skill\": \"bridge\"}]}").expect(204);
    hana.delete("/api/v1/duties/" + id).expect(204);
  }

  @Test
  public void itIsTheOfficesAndOfATeamCoordinatorsOwnPeople() {
    long duty = duty("Swing bridge");
    Api ines = Api.of(server, "ines");
    ines.get("/api/v1/cover" + FORTNIGHT).expect(403);
    ines.get("/api/v1/duties").expect(403);
    String who =
        "/api/v1/cover/who-could?duty=%d&start=2026-11-26T06:00:00Z&end=2026-11-26T20:00:00Z"
            .formatted(duty);
    ines.get(who).expect(403);
    ines.post("/api/v1/cover/give", "{}").expect(403);
    Api marguerite = Api.of(server, "marguerite");
    marguerite.get("/api/v1/cover" + FORTNIGHT).expect(200);
    assertThat(marguerite.get(who).expect(200).json().size())
        .isPositive()
        .isLessThan(hana.get(who).expect(200).json().size());
    marguerite.delete("/api/v1/duties/" + duty).expect(403);
  }

  @Test
  public void aDutyIsMadeSaidAnewAndTakenOut() {
    String body =
        """
        {"name": "Gauge round", "place": %d, "spans": [
          {"weekdays": [2], "from": "22:00", "until": "02:00", "count": %d}],
          "lifted": ["2026-12-01"]}
        """;
    long place = hana.idOf("places", "Osier Weir");
    long id =
        hana.post("/api/v1/duties", body.formatted(place, 2)).expect(201).json().get("id").asLong();
    assertThat(gaps(FORTNIGHT, "Gauge round"))
        .containsExactly("2026-11-24T22:00:00Z/2026-11-25T02:00:00Z 2");
    hana.put("/api/v1/duties/" + id, body.formatted(place, 3)).expect(204);
    assertThat(gaps(FORTNIGHT, "Gauge round"))
        .containsExactly("2026-11-24T22:00:00Z/2026-11-25T02:00:00Z 3");
    assertThat(hana.post("/api/v1/duties", body.formatted(place, 2)).expect(422).text())
        .contains("another duty");
    hana.delete("/api/v1/duties/" + id).expect(204);
    hana.delete("/api/v1/duties/" + id).expect(404);
  }

  @DataProvider
  public Object[][] faults() {
    return new Object[][] {
      {"{\"place\": 1, \"spans\": []}", "/name"},
      {"{\"name\": \"X\", \"spans\": []}", "/place"},
      {"{\"name\": \"X\", \"place\": 99999, \"spans\": []}", "/place"},
      {"{\"name\": \"X\", \"place\": 1}", "/spans"},
      {"{\"name\": \"X\", \"place\": 1, \"role\": 59, \"spans\": []}", "/role"},
      {span("\"weekdays\": [], \"from\": \"08:00\", \"until\": \"09:00\""), "/spans/0/weekdays"},
      {span("\"weekdays\": [8], \"from\": \"08:00\", \"until\": \"09:00\""), "/spans/0/weekdays"},
      {span("\"weekdays\": [1], \"from\": \"8\", \"until\": \"09:00\""), "/spans/0/from"},
      {span("\"weekdays\": [1], \"from\": \"08:00\""), "/spans/0/until"},
      {
        span("\"weekdays\": [1], \"from\": \"08:00\", \"until\": \"09:00\", \"count\": 0"),
        "/spans/0/count"
      },
      {
        span(
            "\"weekdays\": [1], \"from\": \"08:00\", \"until\": \"09:00\","
                + " \"first\": \"2026-12-02\", \"last\": \"2026-12-01\""),
        "/spans/0/last"
      },
      {"{\"name\": \"X\", \"place\": 1, \"spans\": [], \"lifted\": [\"soon\"]}", "/lifted"},
    };
  }

  private static String span(String fields) {
    return "{\"name\": \"X\", \"place\": 1, \"spans\": [{" + fields + "}]}";
  }

  @Test(dataProvider = "faults")
  public void aDutyThatCannotBeIsToldAtItsField(String body, String pointer) {
    assertThat(hana.post("/api/v1/duties", body).expect(422).text())
        .contains("\"" + pointer + "\"");
  }

  @DataProvider
  public Object[][] ranges() {
    return new Object[][] {
      {"/api/v1/cover?from=2026-11-23&until=2026-11-23"},
      {"/api/v1/cover?from=2026-11-23&until=2027-11-23"},
      {"/api/v1/cover?from=soon&until=2026-11-23"},
      {"/api/v1/cover?from=2026-11-23"},
      {"/api/v1/cover/who-could?duty=1&start=2026-11-26T06:00:00Z&end=2026-11-26T06:00:00Z"},
      {"/api/v1/cover/who-could?duty=1&start=2026-11-26T06:00:00Z&end=2027-11-26T06:00:00Z"},
      {"/api/v1/cover/who-could?duty=1&start=six&end=2026-11-26T06:00:00Z"},
    };
  }

  @Test(dataProvider = "ranges")
  public void aRangeThatCannotBeIsRefused(String path) {
    hana.get(path).expect(400);
  }
}
