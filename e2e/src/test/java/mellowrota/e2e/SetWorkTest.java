package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Changes of the set go through the records: in one act in a small house, some at a time in a large
 * one. What was looked at is what happens, however it comes about.
 */
public class SetWorkTest {

  private static final List<String> PATTERNS =
      List.of(
          "{title}", "{ref}[ · {place}]", "{title}[ · {lead}][, {others}]", "{due} {title}", "");
  private static final List<String> SHAPES =
      List.of("SPAN", "SPAN_WITH_MARGINS", "WHOLE_DAY", "AS_IT_COMES", "GIVEN_DUE", "DUE_MARK");

  private Server small;
  private Server large;

  @BeforeClass
  public void start() {
    small = Server.started(Database.demo());
    // Three records count as many here, so that the demo goes through in many parts.
    large =
        Server.started(
            Database.demo(),
            "--mellow.records-in-one-act=3",
            "--mellow.records-at-once=8",
            "--mellow.rest-between-parts=80ms");
  }

  @AfterClass(alwaysRun = true)
  public void stop() {
    small.close();
    large.close();
  }

  private static ObjectNode set(Api hana) {
    ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").expect(200).json();
    set.remove("counts");
    return set;
  }

  /** Looks until all records were looked at. */
  private static JsonNode look(Api hana, ObjectNode set) {
    JsonNode[] told = {hana.post("/api/v1/rules/look", set.toString()).expect(200).json()};
    Await.until(
        "the look is finished",
        Duration.ofSeconds(30),
        () -> {
          if (!told[0].get("finished").asBoolean()) {
            String token = told[0].get("looked").asString();
            told[0] = hana.get("/api/v1/rules/looks/" + token).expect(200).json();
          }
          return told[0].get("finished").asBoolean();
        });
    return told[0];
  }

  private static long take(Api hana, ObjectNode set) {
    set.put("looked", look(hana, set).get("looked").asString());
    return hana.post("/api/v1/rules/take", set.toString()).expect(200).json().get("act").asLong();
  }

  private static JsonNode work(Api hana) {
    return hana.get("/api/v1/rules/work").expect(200).json();
  }

  private static void awaitWork(Api hana) {
    Await.until("the work ended", Duration.ofSeconds(60), () -> work(hana).isEmpty());
  }

  private static void undo(Api hana, long act) {
    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(200);
    awaitWork(hana);
  }

  /** Live entries in the order of their keys, each with the digest of each rendering's face. */
  private static Map<String, Map<String, String>> entries(Server server) {
    Map<String, Map<String, String>> found = new TreeMap<>();
    server
        .database()
        .query(
            """
            select lpad(e.record::text, 9) || ' ' || e.visit || ' ' || lpad(e.calendar::text, 9)
              || ' ' || array_position(array['WORK', 'GIVEN_DUE', 'DUE'], e.family) || '|' || e.uid
              || '|' || coalesce(string_agg(f.rendering || '=' || md5(f.content), ','
                order by f.rendering) filter (where f.live), '')
            from entry e left join face f on f.entry = e.id where e.state = 'LIVE' group by e.id
            """)
        .forEach(
            row -> {
              String[] parts = row.split("\\|", -1);
              Map<String, String> faces = new TreeMap<>();
              for (String face : parts[2].isEmpty() ? new String[0] : parts[2].split(",")) {
                faces.put(String.format("%9s", face.split("=")[0]), face.split("=")[1]);
              }
              faces.put("uid", parts[1]);
              found.put(parts[0], faces);
            });
    return found;
  }

  /** The rows by which the database differs, as a look writes and digests them. */
  private static String digest(
      Map<String, Map<String, String>> before, Map<String, Map<String, String>> after) {
    StringBuilder rows = new StringBuilder();
    TreeMap<String, Map<String, String>> all = new TreeMap<>(before);
    all.putAll(after);
    for (String key : all.keySet()) {
      Map<String, String> was = new TreeMap<>(before.getOrDefault(key, Map.of()));
      Map<String, String> is = new TreeMap<>(after.getOrDefault(key, Map.of()));
      TreeMap<String, String> renderings = new TreeMap<>(was);
      renderings.putAll(is);
      renderings.keySet().removeIf(r -> r.equals("uid") || same(was.get(r), is.get(r)));
      String move = was.isEmpty() ? "ADDED" : is.isEmpty() ? "TAKEN_OFF" : "CHANGED";
      if (!move.equals("CHANGED") || !renderings.isEmpty()) {
        String[] parts = key.strip().split(" +");
        String family = List.of("WORK", "GIVEN_DUE", "DUE").get(Integer.parseInt(parts[3]) - 1);
        String faces = String.join(",", renderings.keySet().stream().map(String::strip).toList());
        rows.append(
            "%s %s %s %s %s %s\n".formatted(parts[0], parts[1], parts[2], family, move, faces));
      }
    }
    try {
      MessageDigest sha = MessageDigest.getInstance("SHA-256");
      return HexFormat.of().formatHex(sha.digest(rows.toString().getBytes(StandardCharsets.UTF_8)));
    } catch (java.security.NoSuchAlgorithmException impossible) {
      throw new AssertionError(impossible);
    }
  }

  private static boolean same(String one, String other) {
    return one != null && one.equals(other);
  }

  private static <T> T any(SplittableRandom random, List<T> list) {
    return list.get(random.nextInt(list.size()));
  }

  private static ObjectNode any(SplittableRandom random, JsonNode list) {
    return (ObjectNode) list.get(random.nextInt(list.size()));
  }

  /** One to three things anywhere in the set. */
  private static void edit(SplittableRandom random, ObjectNode set) {
    for (int i = 1 + random.nextInt(3); i > 0; i--) {
      ObjectNode rule = any(random, set.get("rules"));
      ObjectNode wording = any(random, set.get("wordings"));
      ArrayNode rules = (ArrayNode) set.get("rules");
      switch (random.nextInt(10)) {
        case 0 -> rule.put("on", !rule.get("on").asBoolean());
        case 1 -> rule.put("as", any(random, SHAPES));
        case 2 -> rule.put("wording", wording.get("id").asLong());
        case 3 -> rule.put("busy", random.nextBoolean());
        case 4 -> rule.put("whenDone", any(random, List.of("STAYS_WITH_TICK", "COMES_OFF")));
        case 5 -> wording.put("title", any(random, PATTERNS));
        case 6 -> wording.put("text", any(random, PATTERNS));
        case 7 -> rules.insert(0, rules.remove(random.nextInt(rules.size())));
        case 8 ->
            any(random, seenByTheOffice(set))
                .set(
                    "for",
                    Api.JSON.readTree(
                        any(
                            random,
                            List.of(
                                "{\"everyone\": true}",
                                "{\"office\": true}",
                                "{\"office\": true, \"crew\": true}",
                                "{\"office\": true, \"roles\": [0]}"))));
        default -> ((ArrayNode) rule.get("lands")).addObject().put("thePlaces", true);
      }
    }
  }

  /** The others count as filled everywhere for whoever may not see them. */
  private static ArrayNode seenByTheOffice(ObjectNode set) {
    ArrayNode found = Api.JSON.createArrayNode();
    set.get("details").values().stream()
        .filter(
            one ->
                one.get("for").path("everyone").asBoolean()
                    || one.get("for").path("office").asBoolean())
        .forEach(found::add);
    return found;
  }

  /** A look does not tell in which records a gate code is that its asker may not see. */
  @Test
  public void aLookTellsNotWhereSomethingUnseenIs() {
    Api hana = Api.of(small, "hana");
    ObjectNode set = set(hana);
    ObjectNode gateCode =
        (ObjectNode)
            set.get("details").values().stream()
                .filter(one -> one.get("label").asString().equals("Gate code"))
                .findFirst()
                .orElseThrow();
    assertThat(gateCode.get("for").path("office").asBoolean()).isFalse();
    gateCode.set("for", Api.JSON.readTree("{\"everyone\": true}"));
    long record =
        hana.record(
            """
            {"title": "Twin", "due": {"at": "2026-12-05T10:00"},
             "people": [{"role": 1, "person": %d}], "details": {"gate code": "4711"}}
            """
                .formatted(hana.idOf("people", "Ines Okafor")));
    JsonNode filled = look(hana, set);
    hana.patch("/api/v1/records/" + record, "{\"details\": {\"gate code\": null}}", "If-Match", "*")
        .expect(200);
    JsonNode empty = look(hana, set);
    assertThat(filled.get("shown")).isNotEmpty().isEqualTo(empty.get("shown"));
    for (String told : List.of("hidden", "calendars", "changed", "digest")) {
      assertThat(filled.get(told)).as(told).isEqualTo(empty.get(told));
    }
    hana.patch("/api/v1/records/" + record, "{\"state\": \"CANCELLED\"}", "If-Match", "*")
        .expect(200);
  }

  @DataProvider
  public Object[][] seeds() {
    return IntStream.range(0, Integer.getInteger("changes", 12))
        .mapToObj(seed -> new Object[] {(long) seed})
        .toArray(Object[][]::new);
  }

  /** The digest of the rows looked at is that of the database's difference; undo puts all back. */
  @Test(dataProvider = "seeds")
  public void whatIsLookedAtIsWhatHappens(long seed) {
    Api hana = Api.of(small, "hana");
    Map<String, Map<String, String>> before = entries(small);
    ObjectNode set = set(hana);
    edit(new SplittableRandom(seed), set);
    JsonNode look = look(hana, set);
    set.put("looked", look.get("looked").asString());
    long act =
        hana.post("/api/v1/rules/take", set.toString()).expect(200).json().get("act").asLong();
    assertThat(digest(before, entries(small)))
        .as("seed %s: %s", seed, look)
        .isEqualTo(look.get("digest").asString());
    undo(hana, act);
    assertThat(entries(small)).as("seed %s, undone, the same UIDs too", seed).isEqualTo(before);
  }

  @Test
  public void twoEditsOfDifferentThingsEndTheSameInEitherOrder() {
    Api hana = Api.of(small, "hana");
    List<Map<String, Map<String, String>>> ends = new ArrayList<>();
    for (boolean wordingFirst : List.of(true, false)) {
      List<Long> acts = new ArrayList<>();
      for (boolean wording : List.of(wordingFirst, !wordingFirst)) {
        ObjectNode set = set(hana);
        if (wording) {
          set.get("wordings").forEach(one -> ((ObjectNode) one).put("title", "{title} in short"));
        } else {
          set.get("rules").forEach(one -> ((ObjectNode) one).put("whenDone", "COMES_OFF"));
        }
        acts.add(0, take(hana, set));
      }
      ends.add(entries(small));
      acts.forEach(act -> undo(hana, act));
    }
    assertThat(ends.get(0)).isEqualTo(ends.get(1));
  }

  private static ObjectNode otherTitles(Api hana) {
    ObjectNode set = set(hana);
    set.get("wordings").forEach(one -> ((ObjectNode) one).put("title", "now {title}"));
    ((ObjectNode) set.get("rules").get(0)).put("on", false);
    return set;
  }

  @Test
  public void inALargeHouseItGoesOnWhileOthersWorkAndIsUndone() {
    Api hana = Api.of(large, "hana");
    Map<String, Map<String, String>> before = entries(large);
    ObjectNode set = otherTitles(hana);
    JsonNode look = look(hana, set);
    long act = take(hana, set);
    assertThat(work(hana).get(0).get("act").asLong()).isEqualTo(act);
    ObjectNode next = set(hana);
    next.get("wordings").forEach(one -> ((ObjectNode) one).put("title", "later {title}"));
    next.put("looked", look(hana, next).get("looked").asString());
    assertThat(hana.post("/api/v1/rules/take", next.toString()).expect(409).text())
        .contains("still-being-done");
    long record =
        hana.record(
            """
            {"title": "Made meanwhile", "due": {"at": "2026-12-05T10:00"}}
            """);
    assertThat(new Calendars(hana).events("Due times", "now Made meanwhile"))
        .as("what is made meanwhile is worded as it is now")
        .hasSize(1);
    awaitWork(hana);
    Map<String, Map<String, String>> after = entries(large);
    String own = String.format("%9s ", record);
    after.keySet().removeIf(key -> key.startsWith(own));
    assertThat(digest(before, after)).isEqualTo(look.get("digest").asString());
    undo(hana, act);
    Map<String, Map<String, String>> undone = entries(large);
    undone.keySet().removeIf(key -> key.startsWith(own));
    assertThat(undone).isEqualTo(before);
    hana.patch("/api/v1/records/" + record, "{\"state\": \"CANCELLED\"}", "If-Match", "*")
        .expect(200);
  }

  /** Stopped, killed, gone on with, it ends as if nothing had come between. */
  @Test(dependsOnMethods = "inALargeHouseItGoesOnWhileOthersWorkAndIsUndone")
  public void stoppedAndKilledItEndsTheSame() {
    Api hana = Api.of(large, "hana");
    Map<String, Map<String, String>> before = entries(large);
    ObjectNode set = otherTitles(hana);
    JsonNode look = look(hana, set);
    long act = take(hana, set);
    JsonNode stopped = hana.post("/api/v1/rules/work/" + act + "/stop", "{}").expect(200).json();
    assertThat(stopped.get(0).get("state").asString()).isEqualTo("STOPPED");
    assertThat(stopped.get(0).get("done").asLong())
        .isLessThan(stopped.get(0).get("total").asLong());
    JsonNode again = hana.post("/api/v1/rules/work/" + act + "/stop", "{}").expect(200).json();
    assertThat(again).as("stopped once more it is as it was").isEqualTo(stopped);
    Api.of(large, "ines").get("/api/v1/rules/work").expect(403);
    hana.post("/api/v1/rules/work/" + act + "/go-on", "{}").expect(200);
    Await.until(
        "it went on",
        Duration.ofSeconds(20),
        () -> work(hana).get(0).get("done").asLong() > stopped.get(0).get("done").asLong());
    large.kill();
    large.begin();
    large.ready();
    awaitWork(hana);
    assertThat(digest(before, entries(large))).isEqualTo(look.get("digest").asString());

    undo(hana, act);
    assertThat(entries(large)).isEqualTo(before);
  }

  @Test(dependsOnMethods = "stoppedAndKilledItEndsTheSame")
  public void halfDoneItIsUndone() {
    Api hana = Api.of(large, "hana");
    Map<String, Map<String, String>> before = entries(large);
    long act = take(hana, otherTitles(hana));
    hana.post("/api/v1/rules/work/" + act + "/stop", "{}").expect(200);
    undo(hana, act);
    assertThat(entries(large)).isEqualTo(before);
  }

  /** From a chosen day on; what would be hidden is hidden everywhere all the same. */
  @Test
  public void workThatEndedBeforeTheDayStaysButForWhatIsHidden() {
    Api hana = Api.of(small, "hana");
    long past =
        hana.record(
            """
            {"title": "Long past", "due": {"at": "2026-11-02T10:00"}, "details": {"notes": "swans"},
             "people": [{"role": 0, "person": %d}]}
            """
                .formatted(hana.idOf("people", "Ines Okafor")));
    ObjectNode set = set(hana);
    for (JsonNode one : set.get("wordings")) {
      if (one.get("name").asString().equals("Due")) {
        ((ObjectNode) one).put("title", "{ref} new {title}");
      }
    }
    set.put("from", "2026-11-20");
    long act = take(hana, set);
    Calendars calendars = new Calendars(hana);
    assertThat(calendars.events("Due times", " new Long past")).isEmpty();
    assertThat(calendars.events("Due times", "Long past")).hasSize(1);
    undo(hana, act);
    ObjectNode hiding = set(hana);
    for (JsonNode detail : hiding.get("details")) {
      if (detail.get("key").asString().equals("title")) {
        ((ObjectNode) detail).set("for", Api.JSON.readTree("{\"office\": true}"));
      }
    }
    hiding.put("from", "2026-11-20");
    long second = take(hana, hiding);
    assertThat(calendars.events("Due times", "Long past")).isEmpty();
    undo(hana, second);
    hana.patch("/api/v1/records/" + past, "{\"state\": \"CANCELLED\"}", "If-Match", "*")
        .expect(200);
  }

  /** What came meanwhile and would newly show something to somebody stops at the look. */
  @Test
  public void aRecordThatCameSinceAndShowsMoreNeedsAnotherLook() {
    Api hana = Api.of(small, "hana");
    ObjectNode set = set(hana);
    for (JsonNode one : set.get("wordings")) {
      if (one.get("name").asString().equals("Due")) {
        ((ObjectNode) one).put("text", "{parts}");
      }
    }
    ((ArrayNode) set.get("rules"))
        .add(
            Api.JSON.readTree(
                """
                {"on": true, "when": {"all": [{"kind": ["JOB"]}, {"tag": "looked"}]},
                 "lands": [{"calendar": %d}], "as": "SPAN", "wording": %d, "whenDone": "COMES_OFF"}
                """
                    .formatted(
                        hana.idOf("calendars", "Due times"),
                        IntStream.range(0, set.get("wordings").size())
                            .mapToObj(i -> set.get("wordings").get(i))
                            .filter(w -> w.get("name").asString().equals("Due"))
                            .findFirst()
                            .orElseThrow()
                            .get("id")
                            .asLong())));
    set.put("looked", look(hana, set).get("looked").asString());
    hana.record(
        """
        {"kind": "JOB", "state": "CONFIRMED", "title": "Came since", "tags": ["looked"],
         "visits": [{"start": "2026-12-05T10:00", "end": "2026-12-05T12:00"}],
         "details": {"parts": "Two hinges"}}
        """);
    assertThat(hana.post("/api/v1/rules/take", set.toString()).expect(409).text())
        .contains("look-first");
    set.put("looked", look(hana, set).get("looked").asString());
    long act =
        hana.post("/api/v1/rules/take", set.toString()).expect(200).json().get("act").asLong();
    undo(hana, act);
  }
}
