package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What is short, who could, and giving it, as the server tells it of the demo. */
public class CoverTest extends OnDemo {

  private static final String FORTNIGHT = "?from=2026-11-23&until=2026-12-07";
  private static final List<String> WITH_CALENDARS =
      List.of("Ines Okafor", "Tam Birtles", "Wren Adeyemi");

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
      if (gap.get("ask").asString().equals("duty:" + duty)) {
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

  /** Of one person in the week of the demo's today, as the asker is told. */
  private JsonNode load(Api asker, String name) {
    for (JsonNode one :
        asker.get("/api/v1/cover/loads?from=2026-11-23&until=2026-11-30").expect(200).json()) {
      if (one.get("name").asString().equals(name)) {
        return one;
      }
    }
    throw new AssertionError("nothing is told of " + name);
  }

  /** Of given work, by day. */
  private static List<Integer> more(JsonNode before, JsonNode after) {
    List<Integer> found = new ArrayList<>();
    for (int day = 0; day < 7; day++) {
      found.add(after.get("given").get(day).asInt() - before.get("given").get(day).asInt());
    }
    return found;
  }

  /** From today over the days left, in full for each; what has none is counted. */
  @Test
  public void anEstimateIsInEverybodysLoad() {
    Api marguerite = Api.of(server, "marguerite");
    Map<String, JsonNode> before = new HashMap<>();
    for (String name : List.of("Nell Ashdown", "Ravi Thistlewood")) {
      before.put(name, load(hana, name));
    }
    long record =
        hana.record(
            """
            {"title": "Oil the racks", "due": {"date": "2026-11-27"}, "estimateMinutes": 182,
             "people": [{"role": 0, "person": %d}, {"role": 1, "person": %d}]}
            """
                .formatted(
                    hana.idOf("people", "Nell Ashdown"), hana.idOf("people", "Ravi Thistlewood")));
    for (String name : List.of("Nell Ashdown", "Ravi Thistlewood")) {
      assertThat(more(before.get(name), load(hana, name))).containsExactly(0, 0, 61, 61, 60, 0, 0);
      assertThat(load(marguerite, name)).isEqualTo(load(hana, name));
    }
    int unestimated = load(hana, "Nell Ashdown").get("unestimated").asInt();
    long act = hana.change(record, "{\"estimateMinutes\": null}");
    assertThat(more(before.get("Nell Ashdown"), load(hana, "Nell Ashdown"))).containsOnly(0);
    assertThat(load(hana, "Nell Ashdown").get("unestimated").asInt()).isEqualTo(unestimated + 1);
    hana.post("/api/v1/acts/" + act + "/undo", "").expect(200);
    assertThat(hana.get("/api/v1/records/" + record).json().get("estimateMinutes").asInt())
        .isEqualTo(182);
    assertThat(hana.get("/api/v1/records/" + record + "/history").expect(200).text())
        .contains("Estimate", "3 h 2 min");
    hana.change(record, "{\"state\": \"DONE\"}");
    assertThat(load(hana, "Nell Ashdown")).isEqualTo(before.get("Nell Ashdown"));
  }

  /** The office's alone, and a number that can be. */
  @Test
  public void anEstimateIsTheOffices() {
    long ticket =
        hana.record(
            """
            {"title": "Look at the gauge", "due": {"date": "2026-11-27"}, "estimateMinutes": 60,
             "people": [{"role": 0, "person": %d}]}
            """
                .formatted(hana.idOf("people", "Ines Okafor")));
    Api ines = Api.of(server, "ines");
    JsonNode seen = ines.get("/api/v1/records/" + ticket).expect(200).json();
    assertThat(seen.has("estimateMinutes")).isFalse();
    ines.patch("/api/v1/records/" + ticket, "{\"estimateMinutes\": 5}", "If-Match", "*")
        .expect(403);
    ines.get("/api/v1/cover/loads?from=2026-11-23&until=2026-11-30").expect(403);
    for (String bad : List.of("-1", "60001", "\"two\"")) {
      assertThat(
              hana.patch(
                      "/api/v1/records/" + ticket,
                      "{\"estimateMinutes\": " + bad + "}",
                      "If-Match",
                      "*")
                  .expect(422)
                  .text())
          .contains("/estimateMinutes");
    }
    for (JsonNode one :
        Api.of(server, "marguerite")
            .get("/api/v1/cover/loads?from=2026-11-23&until=2026-11-30")
            .expect(200)
            .json()) {
      assertThat(one.get("name").asString()).isNotIn("Ines Okafor", "Hana Vesely");
    }
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
    Set<String> apart = new HashSet<>();
    for (JsonNode ask : cover.get("asks")) {
      if (ask.get("tentative").asBoolean()) {
        apart.add(ask.get("key").asString());
      }
    }
    assertThat(apart).as("what is tentative and asks for nobody yet").isNotEmpty();
    for (JsonNode one : cover.get("stretches")) {
      if (apart.contains(one.get("ask").asString())) {
        continue;
      }
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
                {"ask": "duty:%d", "start": "2026-11-26T06:00:00Z", "end": "2026-11-26T20:00:00Z",
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
          {"ask": "duty:%d", "start": "2026-11-29T07:00:00Z", "end": "2026-11-29T19:00:00Z",
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
        .get("/api/v1/cover/who-could?ask=duty:%d&start=%s&end=%s".formatted(duty, start, end))
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

  /** Whoever has left is told of with the rest, that they cannot; coordinators know of them. */
  @Test
  public void whoeverHasLeftIsToldOfToo() {
    Api.Answer added = hana.post("/api/v1/people", "{\"name\": \"Gregor Tarn\"}").expect(201);
    String them = "/api/v1/people/" + added.json().get("id").asLong();
    hana.patch(them, "{\"standing\": \"LEFT\"}").expect(204);
    long duty = duty("Flight keeper");
    String start = "2026-12-14T07:00:00Z";
    String end = "2026-12-14T19:00:00Z";
    JsonNode gone = null;
    for (JsonNode one : whoCould(hana, duty, start, end)) {
      gone = one.get("name").asString().equals("Gregor Tarn") ? one : gone;
    }
    assertThat(gone).isNotNull();
    assertThat(gone.get("verdict").asString()).isEqualTo("NO");
    assertThat(gone.get("reasons").toString()).contains("LEFT");
    assertThat(whoCould(Api.of(server, "marguerite"), duty, start, end).toString())
        .doesNotContain("Gregor Tarn");
  }

  private static int compare(String one, String other) {
    List<String> order = List.of("YES", "WITH_REASON", "NO");
    return Integer.compare(order.indexOf(one), order.indexOf(other));
  }

  // ---- Work that wants people ------------------------------------------------------------------

  private static final String WANTED_DAYS = "?from=2026-12-07&until=2026-12-14";

  private long wanting(String title, String state) {
    return hana.record(
        """
        {"kind": "JOB", "title": "%s", "state": "%s", "place": %d,
         "visits": [{"start": "2026-12-08T09:00", "end": "2026-12-08T15:00"}],
         "people": [{"role": 0, "person": %d}], "wants": {"people": 3, "skills": ["dredger"]}}
        """
            .formatted(
                title,
                state,
                hana.idOf("places", "Osier Basin"),
                hana.idOf("people", "Hedda Quay")));
  }

  /** What is short of a record, as start/end and the skills that are missing. */
  private List<String> shortOf(Api asker, long record) {
    List<String> found = new ArrayList<>();
    for (JsonNode gap : asker.get("/api/v1/cover" + WANTED_DAYS).expect(200).json().get("gaps")) {
      if (gap.get("ask").asString().equals("record:" + record + "/1")) {
        found.add(
            "%s/%s %d %s"
                .formatted(
                    gap.get("start").asString(),
                    gap.get("end").asString(),
                    gap.get("shortBy").asInt(),
                    gap.get("skills")));
      }
    }
    return found;
  }

  @Test
  public void aVisitThatWantsPeopleIsShortUntilTheyAreGiven() {
    long job = wanting("Lay the boom", "CONFIRMED");
    String span = "2026-12-08T09:00:00Z/2026-12-08T15:00:00Z ";
    assertThat(shortOf(hana, job)).containsExactly(span + "2 [\"dredger\"]");
    assertThat(hana.get("/api/v1/records/" + job).expect(200).json().get("wants").toString())
        .isEqualTo("{\"people\":3,\"skills\":[\"dredger\"]}");
    JsonNode all =
        hana.get(
                "/api/v1/cover/who-could?ask=record:%d/1&start=2026-12-08T09:00:00Z".formatted(job)
                    + "&end=2026-12-08T15:00:00Z")
            .expect(200)
            .json();
    for (JsonNode one : all) {
      boolean here = one.get("name").asString().equals("Hedda Quay");
      assertThat(one.get("reasons").toString().contains("HERE")).isEqualTo(here);
      // Of two places one wants no skill.
      assertThat(one.get("reasons").toString()).doesNotContain("SKILL");
    }
    join(job, "Tam Birtles").expect(200);
    assertThat(shortOf(hana, job)).containsExactly(span + "1 [\"dredger\"]");
    long act = join(job, "Caio Merrin").expect(200).json().get("act").asLong();
    assertThat(shortOf(hana, job)).isEmpty();
    assertThat(join(job, "Tam Birtles").expect(422).text()).contains("is already on it");
    hana.post("/api/v1/acts/" + act + "/undo", "").expect(200);
    assertThat(shortOf(hana, job)).containsExactly(span + "1 [\"dredger\"]");
    hana.change(job, "{\"wants\": null}");
    assertThat(shortOf(hana, job)).isEmpty();
    assertThat(hana.get("/api/v1/records/" + job + "/history").expect(200).text())
        .contains("People needed");
    hana.change(job, "{\"state\": \"CANCELLED\"}");
  }

  private Api.Answer join(long job, String name) {
    return hana.post(
        "/api/v1/cover/give",
        """
        {"ask": "record:%d/1", "start": "2026-12-08T09:00:00Z", "end": "2026-12-08T15:00:00Z",
         "person": %d}
        """
            .formatted(job, hana.idOf("people", name)));
  }

  /** It is shown apart, and is short from when it is confirmed. */
  @Test
  public void tentativeWorkAsksForNobodyYet() {
    long job = wanting("Lift the boom", "TENTATIVE");
    assertThat(shortOf(hana, job)).isEmpty();
    JsonNode cover = hana.get("/api/v1/cover" + WANTED_DAYS).expect(200).json();
    List<String> apart = new ArrayList<>();
    for (JsonNode ask : cover.get("asks")) {
      if (ask.path("record").asLong() == job) {
        apart.add(ask.get("name").asString() + " " + ask.get("tentative").asBoolean());
      }
    }
    assertThat(apart).containsExactly("Lift the boom true");
    hana.change(job, "{\"state\": \"CONFIRMED\"}");
    assertThat(shortOf(hana, job)).hasSize(1);
    hana.change(job, "{\"state\": \"DONE\"}");
    assertThat(shortOf(hana, job)).hasSize(1);
    hana.change(job, "{\"state\": \"CANCELLED\"}");
  }

  /** What a visit wants is for its office: neither workers nor other teams' coordinators see it. */
  @Test
  public void whatAVisitWantsIsForItsOffice() {
    long job = wanting("Tow the boom", "CONFIRMED");
    Api marguerite = Api.of(server, "marguerite");
    assertThat(shortOf(hana, job)).hasSize(1);
    String cover = marguerite.get("/api/v1/cover" + WANTED_DAYS).expect(200).text();
    assertThat(cover).doesNotContain("Tow the boom").doesNotContain("record:" + job + "/");
    marguerite
        .get(
            "/api/v1/cover/who-could?ask=record:%d/1&start=2026-12-08T09:00:00Z".formatted(job)
                + "&end=2026-12-08T15:00:00Z")
        .expect(404);
    assertThat(Api.of(server, "wren").get("/api/v1/records/" + job).text())
        .doesNotContain("\"wants\"");
    hana.change(job, "{\"state\": \"CANCELLED\"}");
  }

  @DataProvider
  public Object[][] badWants() {
    return new Object[][] {
      {"{\"people\": 1, \"skills\": [\"a\", \"b\"]}", "/wants/skills", "more than the people"},
      {"{\"people\": 41, \"skills\": []}", "/wants/people", "from 1 to 40"},
      {"{\"people\": 2, \"skills\": [\"\"]}", "/wants/skills", "empty text"},
      {"{\"people\": 2, \"who\": []}", "/wants/who", "is not a field here"},
      {"3", "/wants", "must be an object"},
    };
  }

  @Test(dataProvider = "badWants")
  public void badWantsAreToldWhereAndWhy(String wants, String pointer, String why) {
    assertThat(
            hana.post("/api/v1/records", "{\"title\": \"x\", \"wants\": %s}".formatted(wants))
                .expect(422)
                .text())
        .contains(pointer)
        .contains(why);
  }

  @DataProvider
  public Object[][] noAsks() {
    return new Object[][] {{"duty:x"}, {"record:1"}, {"record:1/x"}, {"holiday:1"}, {""}};
  }

  @Test(dataProvider = "noAsks")
  public void whatIsNoAskIsTold(String ask) {
    assertThat(
            hana.get(
                    "/api/v1/cover/who-could?ask="
                        + ask
                        + "&start=2026-12-08T09:00:00Z&end=2026-12-08T15:00:00Z")
                .expect(400)
                .text())
        .contains("that needs people");
  }

  // ---- Moved, and when -------------------------------------------------------------------------

  private long visit(String title, String day, String from, String until, String who) {
    return hana.record(
        """
        {"kind": "JOB", "title": "%s", "state": "CONFIRMED",
         "visits": [{"start": "%sT%s", "end": "%sT%s"}], "people": [{"role": 0, "person": %d}]}
        """
            .formatted(title, day, from, day, until, hana.idOf("people", who)));
  }

  private List<String> reasons(JsonNode all, String name) {
    List<String> found = new ArrayList<>();
    for (JsonNode one : all) {
      if (one.get("name").asString().equals(name)) {
        one.get("reasons").forEach(reason -> found.add(reason.get("why").asString()));
      }
    }
    return found;
  }

  /** While something is moved everybody is told of as it would be there. */
  @Test
  public void whatIsMovedIsTriedWhereItWouldBe() {
    long moved = visit("Moved about", "2026-12-15", "09:00", "11:00", "Hedda Quay");
    long other = visit("In the way", "2026-12-16", "10:00", "12:00", "Hedda Quay");
    long theirs = visit("In his way", "2026-12-15", "10:00", "12:00", "Caio Merrin");
    String take =
        "/api/v1/cover/who-could-take?record=%d&visit=1&from=%d"
            .formatted(moved, hana.idOf("people", "Hedda Quay"));
    JsonNode now = hana.get(take).expect(200).json();
    assertThat(reasons(now, "Hedda Quay")).contains("HERE");
    assertThat(reasons(now, "Caio Merrin")).contains("DOUBLE");
    JsonNode nextDay = hana.get(take + "&days=1").expect(200).json();
    assertThat(reasons(nextDay, "Hedda Quay")).contains("DOUBLE").doesNotContain("HERE");
    assertThat(reasons(nextDay, "Caio Merrin")).doesNotContain("DOUBLE");
    JsonNode later = hana.get(take + "&days=1&minutes=180").expect(200).json();
    assertThat(reasons(later, "Hedda Quay")).doesNotContain("DOUBLE");
    // What nobody has yet is tried as well.
    hana.change(moved, "{\"people\": []}");
    JsonNode nobody =
        hana.get("/api/v1/cover/who-could-take?visit=1&record=" + moved).expect(200).json();
    assertThat(reasons(nobody, "Hedda Quay")).doesNotContain("HERE").doesNotContain("DOUBLE");
    hana.get(take + "&days=4000").expect(400);
    Api.of(server, "ines").get(take).expect(403);
    for (long one : List.of(moved, other, theirs)) {
      hana.change(one, "{\"state\": \"CANCELLED\"}");
    }
  }

  private static String when(String first, String last, String said) {
    return "2026-12-17T%s:00Z/2026-12-17T%s:00Z %s".formatted(first, last, said);
  }

  /** Every start of a day, as it fits two people and as one of them is in the way. */
  @Test
  public void startsThatFitAreToldAndWhyOthersDoNot() {
    long own = visit("Already there", "2026-12-17", "09:00", "11:00", "Hedda Quay");
    long hedda = hana.idOf("people", "Hedda Quay");
    long odile = hana.idOf("people", "Odile Strand");
    String path =
        "/api/v1/cover/when-could?person=%d&person=%d&minutes=120&from=2026-12-17&until=2026-12-18"
            .formatted(hedda, odile);
    List<String> told = new ArrayList<>();
    assertThat(hana.get(path).expect(200).json().get("zone").asString()).isEqualTo("Europe/London");
    for (JsonNode one : hana.get(path).expect(200).json().get("starts")) {
      List<String> why = new ArrayList<>();
      for (JsonNode reason : one.get("against")) {
        assertThat(reason.get("name").asString()).isEqualTo("Hedda Quay");
        why.add(reason.get("why").asString());
      }
      told.add(
          one.get("first").asString()
              + "/"
              + one.get("last").asString()
              + " "
              + (why.contains("DOUBLE") ? "DOUBLE" : why.isEmpty() ? "YES" : "REASON"));
    }
    assertThat(told).contains(when("07:15", "10:45", "DOUBLE"));
    assertThat(told.get(0)).startsWith("2026-12-17T00:00:00Z");
    assertThat(told.get(told.size() - 1)).contains("/2026-12-17T22:00:00Z");
    // What is moved is not in its own way.
    assertThat(hana.get(path + "&record=" + own).expect(200).text()).doesNotContain("DOUBLE");
    for (String bad : List.of("&minutes=0", "&minutes=x", "&before=-1", "&until=2027-12-18")) {
      String name = bad.substring(0, bad.indexOf('=') + 1);
      hana.get(path.replaceAll(name + "[^&]*", "") + bad).expect(400);
    }
    hana.get(path + "&record=999999").expect(404);
    Api.of(server, "ines").get(path).expect(403);
    Api.of(server, "marguerite").get(path).expect(403);
    hana.change(own, "{\"state\": \"CANCELLED\"}");
  }

  /** Who is away leaves work, for each of which somebody is proposed. */
  @Test
  public void whatSomebodyLeavesIsProposedToOthers() {
    hana.warned();
    long first = visit("Left behind", "2026-12-15", "13:00", "15:00", "Hedda Quay");
    long second = visit("Left as well", "2026-12-15", "13:30", "15:30", "Hedda Quay");
    String path =
        "/api/v1/cover/left?person=%d&from=2026-12-15&until=2026-12-16"
            .formatted(hana.idOf("people", "Hedda Quay"));
    JsonNode left = hana.get(path).expect(200).json();
    List<String> titles = new ArrayList<>();
    Set<Long> takers = new HashSet<>();
    for (JsonNode one : left) {
      titles.add(one.get("title").asString());
      takers.add(one.get("person").asLong());
    }
    assertThat(titles).containsExactly("Left behind", "Left as well");
    assertThat(takers).hasSize(2).doesNotContain(hana.idOf("people", "Hedda Quay"));
    hana.get(path.replace("&until=2026-12-16", "&until=2027-12-16")).expect(400);
    Api.of(server, "ines").get(path).expect(403);
    Api.of(server, "marguerite").get(path).expect(403);
    hana.change(first, "{\"state\": \"CANCELLED\"}");
    hana.change(second, "{\"state\": \"CANCELLED\"}");
    hana.minding("NEVER");
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
    hana.warned()
        .post(
            "/api/v1/cover/give",
            """
            {"ask": "duty:%d", "start": "2026-12-01T22:00:00Z", "end": "2026-12-02T02:00:00Z",
             "person": %d}
            """
                .formatted(id, tam))
        .expect(200);
    hana.minding("NEVER");
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
        "/api/v1/cover/who-could?ask=duty:%d&start=2026-11-26T06:00:00Z&end=2026-11-26T20:00:00Z"
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

  /** Round the clock it is short without an end: told two days further, and that it goes on. */
  @Test
  public void aGapThatGoesOnSaysSo() {
    long id =
        hana.post(
                "/api/v1/duties",
                """
                {"name": "Round the clock", "place": %d, "spans": [
                  {"weekdays": [1, 2, 3, 4, 5, 6, 7], "from": "00:00", "until": "00:00",
                   "first": "2027-03-01"}]}
                """
                    .formatted(hana.idOf("places", "Osier Weir")))
            .expect(201)
            .json()
            .get("id")
            .asLong();
    Map<String, String> told =
        Map.of(
            "?from=2027-03-01&until=2027-03-02", "2027-03-01T00:00:00Z/2027-03-04T00:00:00Z on",
            "?from=2027-03-04&until=2027-03-05",
                "2027-03-02T00:00:00Z/2027-03-07T00:00:00Z before on",
            "?from=2027-03-03&until=2027-03-05", "2027-03-01T00:00:00Z/2027-03-07T00:00:00Z on");
    told.forEach(
        (range, gap) -> {
          List<String> found = new ArrayList<>();
          for (JsonNode one : hana.get("/api/v1/cover" + range).expect(200).json().get("gaps")) {
            if (one.get("ask").asString().equals("duty:" + id)) {
              String said = one.get("start").asString() + "/" + one.get("end").asString();
              said += one.get("beganBefore").asBoolean() ? " before" : "";
              found.add(said + (one.get("goesOn").asBoolean() ? " on" : ""));
            }
          }
          assertThat(found).as(range).containsExactly(gap);
        });
    hana.delete("/api/v1/duties/" + id).expect(204);
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

  /** Of leave of some hours only what lies in them is left. */
  @Test
  public void whoIsAwayForHoursLeavesWhatLiesInThem() {
    long caio = hana.idOf("people", "Caio Merrin");
    String job =
        """
        {"kind": "JOB", "title": "%s", "state": "CONFIRMED", "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "2028-09-06T%s", "end": "2028-09-06T%s", "zone": "Europe/London"}]}
        """;
    hana.record(job.formatted("Morning", caio, "08:00", "10:00"));
    hana.record(job.formatted("Noon", caio, "11:00", "13:00"));
    String left = "/api/v1/cover/left?person=%d&from=2028-09-06&until=2028-09-07".formatted(caio);
    assertThat(hana.get(left).expect(200).text()).contains("Morning", "Noon");
    assertThat(hana.get(left + "&hoursFrom=10:00&hoursUntil=11:30").expect(200).text())
        .contains("Noon")
        .doesNotContain("Morning");
    assertThat(hana.get(left + "&hoursFrom=10:00&hoursUntil=11:00").expect(200).json()).isEmpty();
    hana.get(left + "&hoursFrom=10:00").expect(400);
    hana.get(left + "&hoursFrom=11:00&hoursUntil=10:00").expect(400);
    hana.get(left + "&hoursFrom=ten&hoursUntil=11:00").expect(400);
  }

  /** Two of whom one needs a skill, only in the season; on one day other hours, on one none. */
  @Test
  public void aDutyAsksByPlaceSeasonAndDay() {
    long place = hana.idOf("places", "Osier Weir");
    String body =
        """
        {"name": "Weir hands", "place": %d,
         "spans": [{"weekdays": [1, 2, 3, 4, 5, 6, 7], "from": "08:00", "until": "10:00",
                    "places": [{"skill": "sluice"}, {}],
                    "season": {"first": "11-01", "last": "11-30"}}],
         "lifted": ["2026-11-27"],
         "others": [{"day": "2026-11-28", "from": "12:00", "until": "13:00"}]}
        """
            .formatted(place);
    long id = hana.post("/api/v1/duties", body).expect(201).json().get("id").asLong();
    assertThat(gaps("?from=2026-11-26&until=2026-12-03", "Weir hands"))
        .containsExactly(
            "2026-11-26T08:00:00Z/2026-11-26T10:00:00Z 2",
            "2026-11-28T12:00:00Z/2026-11-28T13:00:00Z 1",
            "2026-11-29T08:00:00Z/2026-11-29T10:00:00Z 2",
            "2026-11-30T08:00:00Z/2026-11-30T10:00:00Z 2");
    JsonNode known =
        hana.get("/api/v1/duties")
            .expect(200)
            .json()
            .valueStream()
            .filter(one -> one.get("id").asLong() == id)
            .findFirst()
            .orElseThrow();
    assertThat(known.get("spans").get(0).get("places").toString())
        .isEqualTo("[{\"skill\":\"sluice\"},{}]");
    assertThat(known.get("spans").get(0).get("count").asInt()).isEqualTo(2);
    assertThat(known.get("spans").get(0).get("season").toString())
        .isEqualTo("{\"first\":\"11-01\",\"last\":\"11-30\"}");
    // Who stands there first takes the place that any may take; the skilled one stays open.
    long caio = hana.idOf("people", "Caio Merrin");
    hana.warned()
        .post(
            "/api/v1/cover/give",
            """
            {"ask": "duty:%d", "start": "2026-11-30T08:00:00Z", "end": "2026-11-30T10:00:00Z",
             "person": %d}
            """
                .formatted(id, caio))
        .expect(200);
    hana.minding("NEVER");
    assertThat(gaps("?from=2026-11-30&until=2026-12-01", "Weir hands"))
        .containsExactly("2026-11-30T08:00:00Z/2026-11-30T10:00:00Z 1");
    JsonNode who = whoCould(hana, id, "2026-11-30T08:00:00Z", "2026-11-30T10:00:00Z");
    assertThat(who.valueStream().filter(one -> one.get("verdict").asString().equals("YES")))
        .as("those who can fill the skilled place")
        .isNotEmpty()
        .allSatisfy(one -> assertThat(skills(one.get("person").asLong())).contains("sluice"));
    hana.delete("/api/v1/duties/" + id).expect(204);
  }

  private String skills(long person) {
    return hana.get("/api/v1/people/%d/skills".formatted(person)).expect(200).text();
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
      {
        span(
            "\"weekdays\": [1], \"from\": \"08:00\", \"until\": \"09:00\", \"count\": 3,"
                + " \"places\": [{\"skill\": \"sluice\"}, {}]"),
        "/spans/0/places"
      },
      {
        span(
            "\"weekdays\": [1], \"from\": \"08:00\", \"until\": \"09:00\","
                + " \"season\": {\"first\": \"1 April\", \"last\": \"10-31\"}"),
        "/spans/0/season/first"
      },
      {
        span(
            "\"weekdays\": [1], \"from\": \"08:00\", \"until\": \"09:00\","
                + " \"season\": {\"first\": \"04-01\"}"),
        "/spans/0/season/last"
      },
      {others("\"from\": \"08:00\", \"until\": \"09:00\""), "/others/0/day"},
      {others("\"day\": \"2026-12-25\", \"from\": \"08:00\""), "/others/0/until"},
      {
        others("\"day\": \"2026-12-26\", \"from\": \"08:00\", \"until\": \"09:00\""),
        "/others/0/day"
      },
    };
  }

  private static String others(String fields) {
    return "{\"name\": \"X\", \"place\": 1, \"spans\": [], \"lifted\": [\"2026-12-26\"],"
        + " \"others\": [{%s}]}".formatted(fields);
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
      {"/api/v1/cover/who-could?ask=duty:1&start=2026-11-26T06:00:00Z&end=2026-11-26T06:00:00Z"},
      {"/api/v1/cover/who-could?ask=duty:1&start=2026-11-26T06:00:00Z&end=2027-11-26T06:00:00Z"},
      {"/api/v1/cover/who-could?ask=duty:1&start=six&end=2026-11-26T06:00:00Z"},
    };
  }

  @Test(dataProvider = "ranges")
  public void aRangeThatCannotBeIsRefused(String path) {
    hana.get(path).expect(400);
  }
}
