package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Sets of deadlines: made, moved and taken off as one, read as calendar programs read them. */
public class DeadlineSetsTest extends OnDemo {

  private static final String TEXT =
      """
      chain: gate works
      key date: gate shuts
      ask: drained

      10 working days before gate shuts: call ecologist; for Duty Office as Lead; only if drained
      5 days before gate shuts, by chosen method: publish notice; remind 1 working day before
      on gate shuts, at 09:00: shut the gate; for Marguerite Pell as Support
      2 working days after gate shuts: check the gate
      3 days after check the gate: report
      """;

  private Calendars calendars;
  private long lock;
  private long ines;
  private long chain;

  @BeforeClass
  public void begin() {
    calendars = new Calendars(hana);
    lock = hana.idOf("places", "Lock 7, Thornmere Flight");
    ines = hana.idOf("people", "Ines Okafor");
    hana.put(
            "/api/v1/notice-methods",
            """
            {"methods": [{"name": "post", "number": 2, "unit": "WORKING_DAYS"},
              {"name": "hand", "number": 0, "unit": "DAYS"}]}
            """)
        .expect(204);
    chain = chain(TEXT);
  }

  private long job(String day) {
    return hana.record(
        """
        {"kind": "JOB", "title": "Gate works", "state": "CONFIRMED", "place": %d,
         "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "%sT08:00", "end": "%sT12:00", "zone": "Europe/London"}]}
        """
            .formatted(lock, ines, day, day));
  }

  private String making(long job) {
    return """
        {"sets": [{"chain": %d, "record": %d, "follows": {"what": "BEGINS"}, "method": "post",
          "answers": [{"question": "drained", "yes": true}]}]}
        """
        .formatted(chain, job);
  }

  private long make(long job) {
    return hana.post("/api/v1/deadline-sets", making(job))
        .expect(201)
        .json()
        .get("sets")
        .get(0)
        .asLong();
  }

  private JsonNode set(long id) {
    return hana.get("/api/v1/deadline-sets/" + id).expect(200).json();
  }

  private static List<String> steps(JsonNode set) {
    List<String> found = new ArrayList<>();
    for (JsonNode one : set.get("steps")) {
      found.add(
          one.get("name").asString()
              + " | "
              + one.get("standing").asString()
              + " | "
              + due(one.path("date")));
    }
    return found;
  }

  private static String due(JsonNode due) {
    return due.has("date")
        ? due.get("date").asString()
        : due.has("at") ? due.get("at").asString().substring(0, 16) : "-";
  }

  private static List<String> lines(JsonNode looks) {
    List<String> found = new ArrayList<>();
    for (JsonNode one : looks.get("sets").get(0).get("lines")) {
      found.add(
          one.get("step").asString()
              + " | "
              + one.get("kind").asString()
              + " | "
              + due(one.path("before"))
              + " | "
              + due(one.path("after")));
    }
    return found;
  }

  private String moving(JsonNode set, String more) {
    return """
        {"sets": [{"set": %d, "ifMatch": %s%s}]}
        """
        .formatted(set.get("id").asLong(), set.get("tag"), more);
  }

  /** The entries of a set's deadlines, by UID, and what they say. */
  private Map<String, String> served(JsonNode set) {
    List<String> refs = new ArrayList<>();
    for (JsonNode step : set.get("steps")) {
      String record = hana.get("/api/v1/records/" + step.get("record")).expect(200).text();
      refs.add(Api.JSON.readTree(record).get("ref").asString() + " ");
    }
    Map<String, String> found = new TreeMap<>();
    for (VEvent event : calendars.events("Deadlines", "SUMMARY").values()) {
      if (refs.stream().anyMatch(ref -> event.getSummary().getValue().contains(ref))) {
        found.put(event.getUid().getValue(), told(event));
      }
    }
    return found;
  }

  private static String told(VEvent event) {
    return event.getSummary().getValue() + " " + event.getDateStart().getValue();
  }

  private JsonNode act(String what, JsonNode set) {
    return hana.post("/api/v1/deadline-sets/" + what, moving(set, "")).expect(200).json();
  }

  private void undo(JsonNode act) {
    hana.post("/api/v1/acts/" + act.get("act") + "/undo", "").expect(200);
  }

  private void moveWork(long job, String day) {
    hana.patch(
            "/api/v1/records/" + job,
            """
            {"visits": [{"no": 1, "start": "%1$sT08:00", "end": "%1$sT12:00",
              "zone": "Europe/London"}]}
            """
                .formatted(day),
            "If-Match",
            "*")
        .expect(200);
  }

  @Test
  public void aKeyDateMakesAFamilyThatMovesAndComesOffAsOne() {
    long job = job("2028-05-17");
    JsonNode look = hana.post("/api/v1/deadline-sets/look", making(job)).expect(200).json();
    assertThat(lines(look))
        .containsExactly(
            "call ecologist | NOW_DATED | - | 2028-05-03",
            "publish notice | NOW_DATED | - | 2028-05-10",
            "shut the gate | NOW_DATED | - | 2028-05-17T09:00",
            "check the gate | NOW_DATED | - | 2028-05-19",
            "report | NOW_DATED | - | 2028-05-22");
    assertThat(look.get("calendars").asInt()).isPositive();
    assertThat(look.get("people").toString()).contains("Ines Okafor", "Marguerite Pell");
    assertThat(look.get("sets").get(0).get("teamsLead").toString())
        .as("all of a team that leads see what the Lead sees")
        .isEqualTo("[\"Duty Office\"]");
    long id = make(job);
    JsonNode made = set(id);
    assertThat(steps(made))
        .containsExactly(
            "call ecologist | RECKONED | 2028-05-03",
            "publish notice | RECKONED | 2028-05-10",
            "shut the gate | RECKONED | 2028-05-17T09:00",
            "check the gate | RECKONED | 2028-05-19",
            "report | RECKONED | 2028-05-22");
    assertThat(made.get("steps").get(4).get("sum").asString())
        .isEqualTo("Mon 22 May: 3 days after Fri 19 May (check the gate); Mon is a working day");
    assertThat(made.has("offer")).isFalse();
    Map<String, String> before = served(made);
    assertThat(before).hasSize(5);
    moveWork(job, "2028-05-24");
    JsonNode offered = set(id);
    assertThat(steps(offered)).as("nothing moves by itself").isEqualTo(steps(made));
    assertThat(offered.get("offer").toString())
        .isEqualTo("{\"newerText\":false,\"keyDate\":true,\"changes\":5}");
    JsonNode moved = act("move", offered);
    assertThat(steps(set(id)))
        .containsExactly(
            "call ecologist | RECKONED | 2028-05-10",
            "publish notice | RECKONED | 2028-05-17",
            "shut the gate | RECKONED | 2028-05-24T09:00",
            "check the gate | RECKONED | 2028-05-26",
            "report | RECKONED | 2028-05-29");
    assertThat(served(made).values()).doesNotContainAnyElementsOf(before.values());
    assertThat(served(made).keySet()).isEqualTo(before.keySet());
    undo(moved);
    assertThat(steps(set(id))).isEqualTo(steps(made));
    assertThat(served(made)).isEqualTo(before);
    hana.change(made.get("steps").get(0).get("record").asLong(), "{\"state\": \"DONE\"}");
    JsonNode looked =
        hana.post("/api/v1/deadline-sets/off/look", moving(set(id), "")).expect(200).json();
    assertThat(looked.get("counts").toString()).isEqualTo("{\"REMOVED\":4,\"DONE\":1}");
    JsonNode off = act("off", set(id));
    assertThat(served(made)).as("none of them stands any more").isEmpty();
    assertThat(set(id).get("mayChange").asBoolean()).isFalse();
    assertThat(set(id).has("offer")).as("what is off is not reckoned anew").isFalse();
    assertThat(hana.get("/api/v1/records/" + made.get("steps").get(0).get("record")).text())
        .as("what is done stays done")
        .contains("\"state\":\"DONE\"");
    hana.post("/api/v1/deadline-sets/move", moving(made, "")).expect(404);
    undo(off);
    assertThat(steps(set(id)).subList(1, 5)).isEqualTo(steps(made).subList(1, 5));
    assertThat(served(made).keySet()).isSubsetOf(before.keySet()).hasSize(4);
  }

  /**
   * Eight in the morning of the working day before: as long before the end of the day of a due mark
   * by the clock, also where the clock changes in between.
   */
  @Test
  public void aStepRemindsWhoHasIt() {
    assertThat(alarmOfNotice("2028-06-14", "2028-06-07")).isEqualTo("-P1DT16H");
    // Due on a Monday; the clocks went forward on the Sunday before, and Friday rings.
    assertThat(alarmOfNotice("2028-04-03", "2028-03-27")).isEqualTo("-P3DT16H");
  }

  private String alarmOfNotice(String key, String day) {
    JsonNode notice = set(make(job(key))).get("steps").get(1);
    assertThat(due(notice.get("date"))).isEqualTo(day);
    String text =
        calendars.sync(calendars.href("Deadlines"), "").live().values().stream()
            .filter(one -> one.contains("publish notice"))
            .filter(one -> one.contains("DTSTART;VALUE=DATE:" + day.replace("-", "")))
            .findFirst()
            .orElseThrow();
    String trigger = Calendars.line(text, "TRIGGER");
    assertThat(trigger).startsWith("TRIGGER;RELATED=END:");
    return trigger.substring(trigger.indexOf(':') + 1);
  }

  /** Its working days are those of where the work is now. */
  @Test
  public void workThatIsMovedElsewhereIsReckonedByTheDaysThere() {
    long elsewhere =
        hana.post("/api/v1/places", "{\"code\": \"EW\", \"name\": \"Eel Weir\"}")
            .expect(201)
            .json()
            .get("id")
            .asLong();
    hana.put(
            "/api/v1/places/%d/days".formatted(elsewhere),
            """
            {"closures": [{"first": "2029-02-16", "last": "2029-02-16", "why": "Eel run"}]}
            """,
            "If-Match",
            "*")
        .expect(204);
    long job = job("2029-02-14");
    JsonNode made = set(make(job));
    assertThat(steps(made)).contains("check the gate | RECKONED | 2029-02-16");
    hana.change(job, "{\"place\": %d}".formatted(elsewhere));
    assertThat(set(made.get("id").asLong()).get("offer").toString()).contains("\"changes\":2");
    act("move", set(made.get("id").asLong()));
    assertThat(steps(set(made.get("id").asLong())))
        .contains("check the gate | RECKONED | 2029-02-19");
  }

  @Test
  public void whatDoesNotFitIsRefusedAndNothingIsDone() {
    long job = job("2028-07-12");
    String sets = "/api/v1/deadline-sets";
    hana.post(sets, making(job).replace("\"chain\": " + chain, "\"chain\": 999999")).expect(422);
    hana.post(sets, making(999_999)).expect(422);
    hana.post(sets, making(job).replace("\"post\"", "\"pigeon\"")).expect(422);
    hana.post(sets, making(job).replace("drained", "frozen")).expect(422);
    hana.post(sets, making(job).replace("BEGINS", "SOMETIME")).expect(422);
    hana.post(sets, "{\"sets\": []}").expect(422);
    String key = "once-" + job;
    JsonNode first = hana.post(sets, making(job), "Idempotency-Key", key).expect(201).json();
    JsonNode again = hana.post(sets, making(job), "Idempotency-Key", key).expect(201).json();
    assertThat(again.get("sets")).isEqualTo(first.get("sets"));
    long id = first.get("sets").get(0).asLong();
    JsonNode seen = set(id);
    hana.post(sets + "/move", moving(seen, ", \"keyDate\": {\"date\": \"2028-08-01\"}"))
        .expect(409);
    hana.post(sets + "/move", moving(seen, ", \"steps\": [{\"step\": \"swim\"}]")).expect(400);
    hana.change(seen.get("steps").get(4).get("record").asLong(), "{\"state\": \"DONE\"}");
    assertThat(hana.post(sets + "/move", moving(seen, "")).expect(412).text())
        .as("with theirs")
        .contains("\"DONE\"");
    moveWork(job, "2028-07-19");
    JsonNode moved = act("move", set(id));
    moveWork(job, "2028-07-20");
    act("move", set(id));
    hana.post("/api/v1/acts/" + moved.get("act") + "/undo", "").expect(409);
    hana.delete("/api/v1/chains/" + chain).expect(409);
    for (String who : List.of("ines", "marguerite")) {
      Api other = Api.of(server, who);
      other.post(sets, making(job)).expect(403);
      other.post(sets + "/look", making(job)).expect(403);
      other.post(sets + "/move", moving(seen, "")).expect(403);
      other.post(sets + "/off", moving(seen, "")).expect(403);
      other.post("/api/v1/acts/" + moved.get("act") + "/undo", "").expect(404);
    }
  }

  @Test
  public void aRenameBreaksNothing() {
    long someone =
        hana.post("/api/v1/people", "{\"name\": \"Ash Reed\"}")
            .expect(201)
            .json()
            .get("id")
            .asLong();
    String text =
        """
        chain: renamed works
        key date: gate shuts
        3 days before gate shuts, by courier: tell; for Ash Reed as Support
        """;
    methods("\"courier\", \"number\": 1");
    long other = chain(text);
    String making =
        """
        {"sets": [{"chain": %d, "keyDate": {"date": "2028-05-17"}}]}
        """;
    long id =
        hana.post("/api/v1/deadline-sets", making.formatted(other))
            .expect(201)
            .json()
            .get("sets")
            .get(0)
            .asLong();
    assertThat(steps(set(id))).containsExactly("tell | RECKONED | 2028-05-12");
    hana.patch("/api/v1/people/" + someone, "{\"name\": \"Ash Rush\"}", "If-Match", "*")
        .expect(204);
    JsonNode methods = hana.get("/api/v1/notice-methods").expect(200).json().get("methods");
    for (JsonNode one : methods) {
      if (one.get("name").asString().equals("courier")) {
        hana.put(
                "/api/v1/notice-methods",
                methods
                    .toString()
                    .transform(all -> "{\"methods\": " + all + "}")
                    .replace("courier", "rider")
                    .replace("\"number\":1", "\"number\":4"))
            .expect(204);
      }
    }
    assertThat(set(id).get("offer").toString()).contains("\"changes\":1");
    act("move", set(id));
    assertThat(steps(set(id))).containsExactly("tell | RECKONED | 2028-05-10");
    long next =
        hana.post("/api/v1/deadline-sets", making.formatted(other).replace("17", "24"))
            .expect(201)
            .json()
            .get("sets")
            .get(0)
            .asLong();
    assertThat(set(next).get("steps").get(0).get("people").toString()).contains("Ash Rush");
    hana.put("/api/v1/chains/" + other, text(text.replace("3 days", "4 days"))).expect(204);
    methods("\"post\", \"number\": 2");
  }

  private void methods(String one) {
    hana.put(
            "/api/v1/notice-methods",
            """
            {"methods": [{"name": "post", "number": 2, "unit": "WORKING_DAYS"},
              {"name": "hand", "number": 0, "unit": "DAYS"}%s]}
            """
                .formatted(
                    one.startsWith("\"post")
                        ? ""
                        : ", {\"name\": %s, \"unit\": \"DAYS\"}".formatted(one)))
        .expect(204);
  }

  private static String text(String text) {
    return "{\"text\": " + JsonMapper.shared().writeValueAsString(text) + "}";
  }

  private long chain(String text) {
    return hana.post("/api/v1/chains", text(text)).expect(201).json().get("id").asLong();
  }

  @Test
  public void itsEntriesAreLookedAtFirstLikeThoseOfAnyChange() {
    long job = job("2029-01-17");
    JsonNode looked =
        hana.post("/api/v1/deadline-sets", making(job), "Look-First", "true").expect(200).json();
    assertThat(Entries.counted(looked)).isNotEmpty().allMatch(one -> one.endsWith("~0 -0"));
    assertThat(hana.get("/api/v1/records/%d/deadline-sets".formatted(job)).expect(200).json())
        .as("nothing is kept")
        .isEmpty();
  }

  /** As its reader may know it: the key date, and what hangs on it as its children. */
  @Test
  public void aSetAndAChainAreHadAsFiles() {
    long id = make(job("2028-12-13"));
    String csv = hana.get("/api/v1/deadline-sets/%d.csv".formatted(id)).expect(200).text();
    assertThat(csv.lines().toList())
        .hasSize(7)
        .contains("gate shuts,2028-12-13,08:00,Europe/London,key date,,")
        .contains(
            "check the gate,2028-12-15,,,,Ines Okafor,"
                + "Fri 15 Dec: 2 working days after Wed 13 Dec 08:00; Fri is a working day");
    String file = hana.get("/api/v1/deadline-sets/%d.ics".formatted(id)).expect(200).text();
    List<VEvent> events = biweekly.Biweekly.parse(file).first().getEvents();
    assertThat(events).hasSize(6);
    String key = events.get(0).getUid().getValue();
    assertThat(events.get(0).getSummary().getValue()).isEqualTo("gate shuts");
    assertThat(events.subList(1, 6))
        .allSatisfy(
            event -> {
              assertThat(event.getRelatedTo()).hasSize(1);
              assertThat(event.getRelatedTo().get(0).getValue()).isEqualTo(key);
              assertThat(event.getRelatedTo().get(0).getRelationshipType().getValue())
                  .isEqualToIgnoringCase("PARENT");
            });
    Api ines = Api.of(server, "ines");
    assertThat(ines.get("/api/v1/deadline-sets/%d.ics".formatted(id)).expect(200).text())
        .as("the work is hers, its key date too")
        .contains("RELATED-TO")
        .doesNotContain("working day");
    String text = hana.get("/api/v1/chains/%d.txt".formatted(chain)).expect(200).text();
    assertThat(text).startsWith("language: 1\nchain: gate works\n").contains("; only if drained\n");
    hana.post("/api/v1/chains/read", text(text.replace("gate works", "gate works again")))
        .expect(200);
    ines.get("/api/v1/chains/%d.txt".formatted(chain)).expect(403);
  }

  // ---- Who sees what ---------------------------------------------------------------------------

  @Test
  public void ofAPrivateKeyDateOnlyTheirOwnStepIsTold() {
    long tam = hana.idOf("people", "Tam Birtles");
    long private1 = privateJob("Hidden weir", "2028-10-11");
    long hidden =
        chain(
            """
            chain: weir %1$s
            key date: gauge %1$s
            3 days before gauge %1$s: lift the boom; for Ines Okafor as Support
            5 days before gauge %1$s: dredge %1$s; for Tam Birtles as Support
            """
                .formatted("cnrA"));
    assertThat(tam).isPositive();
    long id = make(hidden, private1);
    JsonNode whole = set(id);
    long step = whole.get("steps").get(0).get("record").asLong();
    Api ines = Api.of(server, "ines");
    String around = "/api/v1/records/" + step + "/deadline-sets";
    JsonNode told = ines.get(around).expect(200).json().get(0);
    assertThat(told.toString()).doesNotContain("cnrA", "Hidden", "keyDate\"", "sum", "zone\":\"E");
    assertThat(told.get("steps")).hasSize(1);
    assertThat(told.get("steps").get(0).get("name").asString()).isEqualTo("lift the boom");
    ines.get("/api/v1/records/" + private1 + "/deadline-sets").expect(404);
    long others = whole.get("steps").get(1).get("record").asLong();
    ines.get("/api/v1/records/" + others + "/deadline-sets").expect(404);
    assertThat(ines.get("/api/v1/deadline-sets/" + id).expect(200).json()).isEqualTo(told);
    ines.get("/api/v1/deadline-sets").expect(403);
    Api wren = Api.of(server, "wren");
    wren.get("/api/v1/deadline-sets/" + id).expect(404);
    wren.get(around).expect(404);
  }

  /** What a set would come to tells of the work: of what is hidden from the office too. */
  @Test(priority = 1)
  public void whatIsHiddenFromTheOfficeNoLookTells() {
    long open = job("2029-03-14");
    long id = make(open);
    long hidden = job("2029-03-15");
    JsonNode before = timesAreFor("{\"roles\": [0]}");
    Api.Answer looked = hana.post("/api/v1/deadline-sets/look", making(hidden)).expect(422);
    assertThat(looked.text())
        .isEqualTo(
            hana.post("/api/v1/deadline-sets/look", making(999_999))
                .expect(422)
                .text()
                .replaceAll("\"request\":\"[0-9a-f]+\"", request(looked)));
    hana.post("/api/v1/deadline-sets", making(hidden)).expect(422);
    JsonNode told = set(id);
    assertThat(told.has("keyDate")).isFalse();
    assertThat(told.has("offer")).isFalse();
    assertThat(told.get("mayChange").asBoolean()).isFalse();
    assertThat(told.toString()).doesNotContain("\"sum\"");
    String any = "{\"sets\": [{\"set\": %d, \"ifMatch\": \"*\"}]}".formatted(id);
    for (String path : List.of("move/look", "move", "off/look", "off")) {
      hana.post("/api/v1/deadline-sets/" + path, any).expect(403);
    }
    timesAreFor(before.toString());
    assertThat(steps(set(id))).contains("report | RECKONED | 2029-03-19");
  }

  /** Sets whose the times of all records are; whose they were. */
  private JsonNode timesAreFor(String whom) {
    ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").expect(200).json();
    set.remove("counts");
    JsonNode before = null;
    for (JsonNode detail : set.get("details")) {
      if (detail.get("key").asString().equals("times")) {
        before = detail.get("for");
        ((ObjectNode) detail).set("for", Api.JSON.readTree(whom));
      }
    }
    ReleasesTest.take(hana, set);
    return before;
  }

  private static String request(Api.Answer answer) {
    return answer.text().replaceAll("(?s).*(\"request\":\"[0-9a-f]+\").*", "$1");
  }

  /** Two worlds that differ in what somebody may not see answer them alike. */
  @Test
  public void twinsAnswerAlike() {
    Api ines = Api.of(server, "ines");
    Api marguerite = Api.of(server, "marguerite");
    List<List<String>> answers = new ArrayList<>();
    for (String twin : List.of("a", "b")) {
      long hidden =
          chain(
              """
              chain: twin %1$s
              key date: gauge %1$s
              ask: flood %1$s
              3 days before gauge %1$s, at 10:00: lift the boom; for Ines Okafor as Support
              %2$d days before lift the boom: dredge %1$s; for Tam Birtles as Support
              1 day after gauge %1$s: report %1$s; only if flood %1$s
              """
                  .formatted(twin, twin.equals("a") ? 2 : 5));
      long work = privateJob("Weir " + twin, "2028-11-08");
      long id = make(hidden, work);
      long step = set(id).get("steps").get(0).get("record").asLong();
      List<String> found = new ArrayList<>();
      for (Api one : List.of(ines, marguerite)) {
        for (String path : List.of("/records/" + step + "/deadline-sets", "/deadline-sets/" + id)) {
          Api.Answer answer = one.get("/api/v1" + path);
          found.add(
              answer.status()
                  + answer
                      .text()
                      .replaceAll("\"(id|record|tag|instance|request)\":(\\d+|\"[^,}]*\")", "")
                      .replace("[" + id, "["));
        }
      }
      answers.add(found);
      // The other one takes its place.
      hana.change(work, "{\"state\": \"CANCELLED\"}");
    }
    assertThat(answers.get(0)).isEqualTo(answers.get(1));
  }

  /** In pages of one whoever has office rights on some of it walks over what is hidden. */
  @Test
  public void aTeamCoordinatorWalksTheirOwnSetsInPagesOfOne() {
    Api marguerite = Api.of(server, "marguerite");
    make(chain, job("2028-09-13"));
    make(chain, privateJob("Not theirs", "2028-10-18"));
    List<String> walked = new ArrayList<>();
    String cursor = "0";
    while (cursor != null) {
      JsonNode page =
          marguerite.get("/api/v1/deadline-sets?limit=1&cursor=" + cursor).expect(200).json();
      page.get("sets").forEach(one -> walked.add(one.get("id").toString()));
      cursor = page.has("next") ? page.get("next").asString() : null;
    }
    List<String> once = new ArrayList<>();
    marguerite
        .get("/api/v1/deadline-sets?limit=200")
        .expect(200)
        .json()
        .get("sets")
        .forEach(one -> once.add(one.get("id").toString()));
    assertThat(walked).isEqualTo(once).doesNotHaveDuplicates();
  }

  private long make(long of, long work) {
    return hana.post(
            "/api/v1/deadline-sets",
            """
            {"sets": [{"chain": %d, "record": %d, "follows": {"what": "BEGINS"}}]}
            """
                .formatted(of, work))
        .expect(201)
        .json()
        .get("sets")
        .get(0)
        .asLong();
  }

  private long privateJob(String title, String day) {
    return hana.record(
        """
        {"kind": "JOB", "title": "%1$s", "state": "CONFIRMED", "private": true,
         "people": [{"role": 0, "person": %2$d}],
         "visits": [{"start": "%3$sT08:00", "end": "%3$sT12:00", "zone": "Europe/London"}]}
        """
            .formatted(title, hana.idOf("people", "Tam Birtles"), day));
  }
}
