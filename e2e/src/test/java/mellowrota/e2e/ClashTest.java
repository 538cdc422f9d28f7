package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What clashes in the demo, and each of the remedies. */
public class ClashTest extends OnDemo {

  private static final String RANGE = "?from=2026-11-23&until=2026-12-14";

  /** Who has an account, and its name. */
  private static final Map<String, String> ACCOUNTS =
      Map.of("Ines Okafor", "ines", "Tam Birtles", "tam", "Wren Adeyemi", "wren");

  private Api ines;

  @BeforeClass
  public void begin() {
    ines = Api.of(server, "ines");
  }

  private List<JsonNode> clashes(Api asker, String field, Predicate<JsonNode> which) {
    List<JsonNode> found = new ArrayList<>();
    for (JsonNode one : asker.get("/api/v1/cover" + RANGE).expect(200).json().get(field)) {
      if (which.test(one)) {
        found.add(one);
      }
    }
    return found;
  }

  private static Predicate<JsonNode> of(String kind, String name, boolean never) {
    return one ->
        one.get("kind").asString().equals(kind)
            && one.path("name").asString("").equals(name)
            && one.get("never").asBoolean() == never;
  }

  private static Predicate<JsonNode> keyed(String key) {
    return one -> one.get("key").asString().equals(key);
  }

  private static List<String> titles(JsonNode clash) {
    List<String> found = new ArrayList<>();
    clash.get("items").forEach(item -> found.add(item.path("title").asString("")));
    return found;
  }

  @Test(priority = -1)
  public void theClashesOfTheDemoAreTold() {
    JsonNode wren = clashes(hana, "clashes", of("DOUBLE", "Wren Adeyemi", false)).get(0);
    assertThat(titles(wren)).containsExactly("Clean the weir screen", "Moor the survey buoy");
    assertThat(clashes(hana, "clashes", of("DOUBLE", "Osk Fenwright", true))).hasSize(1);
    assertThat(clashes(hana, "clashes", of("SKILL", "Kofi Brandreth", true))).isNotEmpty();
    assertThat(clashes(hana, "clashes", one -> one.get("kind").asString().equals("REST")))
        .isNotEmpty();
    JsonNode pile = clashes(hana, "pileUps", of("DUE", "Pell Ombury", false)).get(0);
    assertThat(titles(pile)).contains("Tell the marinas", "Order stop planks");
  }

  /** A team coordinator is told of their own people alone, a worker of nobody. */
  @Test
  public void whoAnswersForNobodyIsToldOfNobody() {
    Api marguerite = Api.of(server, "marguerite");
    hana.record(
        """
        {"kind": "JOB", "title": "Maybe while away", "state": "TENTATIVE", "visits": [{"start":
         "2026-12-04T09:00", "end": "2026-12-04T10:00"}], "people": [{"role": 0, "person": %d}]}
        """
            .formatted(hana.idOf("people", "Nell Ashdown")));
    List<JsonNode> hers = clashes(marguerite, "clashes", one -> true);
    assertThat(hers).isNotEmpty();
    assertThat(hers)
        .allMatch(
            one ->
                List.of(
                        "Nell Ashdown",
                        "Ravi Thistlewood",
                        "Solveig Marsh",
                        "Isla Wherry",
                        "Marguerite Pell")
                    .contains(one.path("name").asString()));
    for (String path : List.of("/cover/fill" + RANGE, "/limits", "/cover" + RANGE)) {
      ines.get("/api/v1" + path).expect(403);
    }
    ines.get("/api/v1/cover/who-could-take?record=1&visit=1&from=2").expect(403);
    ines.post("/api/v1/cover/hand-over", "{}").expect(403);
    ines.get("/api/v1/cover/swaps?record=1&visit=1&person=2").expect(403);
    ines.post("/api/v1/cover/swap", "{}").expect(403);
    ines.post("/api/v1/cover/let-stand", "{}").expect(403);
    ines.put("/api/v1/limits", "{}").expect(403);
    String key = hers.get(0).get("key").asString();
    marguerite.post("/api/v1/cover/let-stand", standing(key)).expect(403);
    marguerite.delete("/api/v1/cover/let-stand/" + key).expect(403);
    marguerite.put("/api/v1/limits", "{}").expect(403);
  }

  private static String standing(String key) {
    return """
        {"clash": "%s", "from": "2026-11-23", "until": "2026-12-14", "reason": "Only this once"}
        """
        .formatted(key);
  }

  @Test
  public void aClashStandsWithAReasonUntilEitherSideChanges() {
    JsonNode clash = clashes(hana, "clashes", of("DOUBLE", "Wren Adeyemi", false)).get(0);
    String key = clash.get("key").asString();
    hana.post("/api/v1/cover/let-stand", standing(key)).expect(204);
    JsonNode stands = clashes(hana, "clashes", keyed(key)).get(0).get("letStand");
    assertThat(stands.get("reason").asString()).isEqualTo("Only this once");
    assertThat(stands.get("by").asString()).isEqualTo("Hana Vesely");
    hana.delete("/api/v1/cover/let-stand/" + key).expect(204);
    hana.delete("/api/v1/cover/let-stand/" + key).expect(404);
    hana.post("/api/v1/cover/let-stand", standing(key)).expect(204);
    JsonNode item = clash.get("items").get(1);
    long act =
        hana.change(
            item.get("record").asLong(),
            "{\"visits\": [{\"start\": \"2026-11-25T18:15\", \"end\": \"2026-11-25T21:00\"}]}");
    assertThat(clashes(hana, "clashes", keyed(key))).isEmpty();
    JsonNode other = clashes(hana, "clashes", of("DOUBLE", "Wren Adeyemi", false)).get(0);
    assertThat(other.has("letStand")).as("it is open again").isFalse();
    hana.post("/api/v1/acts/" + act + "/undo", "").expect(200);
    assertThat(clashes(hana, "clashes", keyed(key)).get(0).has("letStand"))
        .as("as it was, it stands as it did")
        .isTrue();
    String never =
        clashes(hana, "clashes", of("DOUBLE", "Osk Fenwright", true)).get(0).get("key").asString();
    assertThat(hana.post("/api/v1/cover/let-stand", standing(never)).expect(422).text())
        .contains("the limits do not allow it");
    hana.post("/api/v1/cover/let-stand", standing("nothing")).expect(404);
    assertThat(hana.post("/api/v1/cover/let-stand", "{\"clash\": \"x\"}").expect(422).text())
        .contains("/reason");
  }

  /** The first who could and whose own calendar can be read with a calendar program. */
  private static JsonNode withCalendar(JsonNode all) {
    for (JsonNode one : all) {
      if (!one.get("verdict").asString().equals("NO")
          && ACCOUNTS.containsKey(one.get("name").asString())) {
        return one;
      }
    }
    throw new AssertionError("nobody with an account could: " + all);
  }

  /** When something so called stands on somebody's own calendar, read over CalDAV. */
  private List<String> on(String name, String title) {
    return new Calendars(Api.of(server, ACCOUNTS.get(name)))
        .events(name + ", own", title).values().stream()
            .map(event -> event.getDateStart().getValue().toInstant().toString())
            .toList();
  }

  @Test
  public void aWorkIsHandedOverAndNothingClashesAndBack() {
    JsonNode clash = clashes(hana, "clashes", of("DOUBLE", "Osk Fenwright", true)).get(0);
    JsonNode job = null;
    for (JsonNode item : clash.get("items")) {
      job = item.get("ref").asString().startsWith("J-") ? item : job;
    }
    long record = job.get("record").asLong();
    long from = clash.get("person").asLong();
    String who =
        "/api/v1/cover/who-could-take?record=%d&visit=%d&from=%d"
            .formatted(record, job.get("visit").asInt(), from);
    JsonNode all = hana.get(who).expect(200).json();
    JsonNode holder = null;
    for (JsonNode one : all) {
      holder = one.get("person").asLong() == from ? one : holder;
    }
    assertThat(holder.get("verdict").asString()).isEqualTo("NO");
    assertThat(holder.get("reasons").toString()).contains("HERE");
    assertThat(all.get(0).get("verdict").asString()).isEqualTo("YES");
    JsonNode best = withCalendar(all);
    String title = job.get("title").asString();
    int before = on(best.get("name").asString(), title).size();
    String body =
        "{\"record\": %d, \"visit\": %d, \"from\": %d, \"to\": %d}"
            .formatted(record, job.get("visit").asInt(), from, best.get("person").asLong());
    JsonNode given = hana.post("/api/v1/cover/hand-over", body).expect(200).json();
    assertThat(clashes(hana, "clashes", keyed(clash.get("key").asString()))).isEmpty();
    assertThat(hana.get("/api/v1/records/" + record).expect(200).json().get("people").toString())
        .contains(best.get("name").asString())
        .doesNotContain("Osk Fenwright");
    assertThat(on(best.get("name").asString(), title)).hasSize(before + 1);
    assertThat(hana.post("/api/v1/cover/hand-over", body).expect(422).text()).contains("/from");
    String undo = "/api/v1/acts/" + given.get("act").asLong() + "/undo";
    assertThat(hana.post(undo, "").expect(409).text()).contains("Osk Fenwright already has");
    hana.warned().post(undo, "").expect(200);
    hana.minding("NEVER");
    assertThat(on(best.get("name").asString(), title)).hasSize(before);
    assertThat(clashes(hana, "clashes", keyed(clash.get("key").asString()))).hasSize(1);
  }

  /** Two change places in one act; each stands on the other's calendar, and back. */
  @Test
  public void twoChangePlacesAndBack() {
    long ines = hana.idOf("people", "Ines Okafor");
    long tam = hana.idOf("people", "Tam Birtles");
    long hers = job("Grease the winding gear", ines, "2027-02-02T09:00", "2027-02-02T11:00");
    long his = job("Count the stop planks", tam, "2027-02-03T09:00", "2027-02-03T11:00");
    String ask = "/api/v1/cover/swaps?record=%d&visit=1&person=%d".formatted(hers, ines);
    JsonNode swaps = hana.get(ask).expect(200).json();
    JsonNode found = null;
    for (JsonNode one : swaps) {
      assertThat(one.get("person").asLong()).isNotEqualTo(ines);
      found = one.get("record").asLong() == his ? one : found;
    }
    assertThat(found.get("name").asString()).isEqualTo("Tam Birtles");
    assertThat(found.get("title").asString()).isEqualTo("Count the stop planks");
    assertThat(found.get("verdict").asString()).as(found.toString()).isNotEqualTo("NO");
    String body = swap(hers, ines, his, tam);
    long act = hana.post("/api/v1/cover/swap", body).expect(200).json().get("act").asLong();
    assertThat(on("Tam Birtles", "Grease the winding gear")).hasSize(1);
    assertThat(on("Ines Okafor", "Count the stop planks")).hasSize(1);
    assertThat(on("Ines Okafor", "Grease the winding gear")).isEmpty();
    assertThat(hana.post("/api/v1/cover/swap", body).expect(422).text())
        .contains("/sides/0/person", "/sides/1/person");
    hana.post("/api/v1/acts/" + act + "/undo", "").expect(200);
    assertThat(on("Ines Okafor", "Grease the winding gear")).hasSize(1);
    assertThat(on("Tam Birtles", "Grease the winding gear")).isEmpty();
    assertThat(on("Tam Birtles", "Count the stop planks")).hasSize(1);
  }

  private long job(String title, long person, String start, String end) {
    return hana.record(
        """
        {"kind": "JOB", "title": "%s", "state": "CONFIRMED",
         "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "%s", "end": "%s"}]}
        """
            .formatted(title, person, start, end));
  }

  private static String swap(long record, long person, long other, long otherPerson) {
    return """
        {"sides": [{"record": %d, "visit": 1, "person": %d},
          {"record": %d, "visit": 1, "person": %d}]}
        """
        .formatted(record, person, other, otherPerson);
  }

  /** Of one job with two visits, and never into a place that one of them has already. */
  @Test
  public void twoChangePlacesOnVisitsOfOneJob() {
    long ines = hana.idOf("people", "Ines Okafor");
    long tam = hana.idOf("people", "Tam Birtles");
    long job =
        hana.record(
            """
            {"kind": "JOB", "title": "Paint the beam", "state": "CONFIRMED", "people": [
              {"visit": 1, "role": 0, "person": %d}, {"visit": 2, "role": 0, "person": %d}],
             "visits": [{"start": "2027-02-09T09:00", "end": "2027-02-09T11:00"},
               {"start": "2027-02-10T09:00", "end": "2027-02-10T11:00"}]}
            """
                .formatted(ines, tam));
    String body =
        swap(job, ines, job, tam)
            .replaceFirst("\"visit\": 1, \"person\": " + tam, "\"visit\": 2, \"person\": " + tam);
    hana.post("/api/v1/cover/swap", body).expect(200);
    assertThat(on("Tam Birtles", "Paint the beam")).containsExactly("2027-02-09T09:00:00Z");
    assertThat(on("Ines Okafor", "Paint the beam")).containsExactly("2027-02-10T09:00:00Z");
    assertThat(hana.post("/api/v1/cover/swap", swap(job, tam, job, tam)).expect(422).text())
        .contains("/sides");
    assertThat(hana.post("/api/v1/cover/swap", "{\"sides\": []}").expect(422).text())
        .contains("/sides");
  }

  @Test
  public void aFillBreaksNothingThatMustNeverBe() {
    String range = "?from=2026-11-25&until=2026-12-07";
    List<Long> acts = new ArrayList<>();
    // What is taken from who has a calendar program comes back to somebody like them.
    for (String name : ACCOUNTS.keySet()) {
      hana.get("/api/v1/cover/left" + range + "&person=" + hana.idOf("people", name))
          .expect(200)
          .json()
          .forEach(
              one -> {
                if (one.get("ref").asString().startsWith("S-")) {
                  acts.add(hana.change(one.get("record").asLong(), "{\"people\": []}"));
                }
              });
    }
    final int taken = acts.size();
    JsonNode before = hana.get("/api/v1/cover" + range).expect(200).json();
    long neverBefore = count(before.get("clashes"));
    Map<String, String> names = new HashMap<>();
    before
        .get("asks")
        .forEach(ask -> names.put(ask.get("key").asString(), ask.get("name").asString()));
    List<String[]> readable = new ArrayList<>();
    int nobody = 0;
    for (JsonNode one : hana.get("/api/v1/cover/fill" + range).expect(200).json()) {
      if (!one.has("person")) {
        assertThat(one.get("reasons").isEmpty()).isFalse();
        nobody++;
        continue;
      }
      for (JsonNode reason : one.get("reasons")) {
        assertThat(reason.get("never").asBoolean()).isFalse();
        assertThat(reason.get("why").asString()).isNotEqualTo("UNKNOWN");
      }
      String body =
          "{\"ask\": \"%s\", \"start\": \"%s\", \"end\": \"%s\", \"person\": %d}"
              .formatted(
                  one.get("ask").asString(),
                  one.get("start").asString(),
                  one.get("end").asString(),
                  one.get("person").asLong());
      acts.add(hana.post("/api/v1/cover/give", body).expect(200).json().get("act").asLong());
      String name = one.get("name").asString();
      if (ACCOUNTS.containsKey(name)) {
        readable.add(
            new String[] {name, names.get(one.get("ask").asString()), one.get("start").asString()});
      }
    }
    assertThat(readable).as("what was given to who has a calendar program").isNotEmpty();
    for (String[] one : readable) {
      assertThat(on(one[0], one[1])).as("own calendar of " + one[0]).contains(one[2]);
    }
    JsonNode after = hana.get("/api/v1/cover" + range).expect(200).json();
    long over = 0;
    for (JsonNode gap : after.get("gaps")) {
      over += gap.get("end").asString().compareTo(Demo.NOW) <= 0 ? 1 : 0;
    }
    assertThat(acts).hasSizeGreaterThan(3 + taken);
    assertThat(after.get("gaps").size()).isEqualTo((int) over + nobody);
    assertThat(count(after.get("clashes"))).isEqualTo(neverBefore);
    for (int i = acts.size() - 1; i >= 0; i--) {
      if (i == taken - 1) {
        assertThat(hana.get("/api/v1/cover" + range).expect(200).json().get("gaps"))
            .isEqualTo(before.get("gaps"));
        for (String[] one : readable) {
          assertThat(on(one[0], one[1])).as("own calendar of " + one[0]).doesNotContain(one[2]);
        }
      }
      hana.post("/api/v1/acts/" + acts.get(i) + "/undo", "").expect(200);
    }
  }

  private static long count(JsonNode clashes) {
    long found = 0;
    for (JsonNode one : clashes) {
      found += one.get("never").asBoolean() ? 1 : 0;
    }
    return found;
  }

  @Test
  public void aLimitIsTheHousesToSet() {
    ObjectNode before = (ObjectNode) hana.get("/api/v1/limits").expect(200).json();
    assertThat(clashes(hana, "clashes", one -> one.get("kind").asString().equals("WEEK")))
        .isEmpty();
    hana.put(
            "/api/v1/limits",
            "{\"limits\": [{\"kind\": \"WEEK\", \"level\": \"NEVER\", \"amount\": 1200}]}")
        .expect(204);
    List<JsonNode> over =
        clashes(hana, "clashes", one -> one.get("kind").asString().equals("WEEK"));
    assertThat(over).isNotEmpty().allMatch(one -> one.get("never").asBoolean());
    hana.put("/api/v1/limits", before.deepCopy().without("tag").toString()).expect(204);
    assertThat(hana.get("/api/v1/limits").expect(200).json()).isEqualTo(before);
  }

  @DataProvider
  public Object[][] limitFaults() {
    return new Object[][] {
      {"{\"limits\": [{\"level\": \"NEVER\"}]}", "/limits/0/kind"},
      {"{\"limits\": [{\"kind\": \"SLEEP\"}]}", "/limits/0/kind"},
      {"{\"limits\": [{\"kind\": \"MARGIN\", \"level\": \"NEVER\"}]}", "/limits/0/kind"},
      {"{\"limits\": [{\"kind\": \"REST\", \"level\": \"MAYBE\"}]}", "/limits/0/level"},
      {"{\"limits\": [{\"kind\": \"REST\", \"amount\": -1}]}", "/limits/0/amount"},
      {"{\"weekBegins\": \"SOMEDAY\"}", "/weekBegins"},
      {"{\"periodWeeks\": 54}", "/periodWeeks"},
    };
  }

  @Test(dataProvider = "limitFaults")
  public void aLimitThatCannotBeIsToldAtItsField(String body, String pointer) {
    assertThat(hana.put("/api/v1/limits", body).expect(422).text()).contains("\"" + pointer + "\"");
  }

  // ---- Places ----------------------------------------------------------------------------------

  @Test
  public void aPlaceHoldsSoMuchAndIsSoFar() {
    long basin = hana.idOf("places", "Osier Basin");
    long weir = hana.idOf("places", "Osier Weir");
    long yusuf = hana.idOf("people", "Yusuf Larch");
    String visit =
        """
        {"kind": "SHIFT", "title": "%s", "place": %d, "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "2026-12-09T%s", "end": "2026-12-09T%s"}]}
        """;
    hana.record(visit.formatted("Buoys", basin, yusuf, "09:00", "10:00"));
    hana.record(visit.formatted("Screens", weir, yusuf, "10:20", "11:00"));
    long third = hana.idOf("people", "Caio Merrin");
    hana.record(visit.formatted("Moorings", basin, third, "09:30", "11:00"));
    Predicate<JsonNode> far = of("TRAVEL", "Yusuf Larch", false);
    Predicate<JsonNode> full =
        one ->
            one.get("kind").asString().equals("CAPACITY")
                && one.get("start").asString().equals("2026-12-09T09:30:00Z");
    assertThat(clashes(hana, "clashes", far.or(full))).isEmpty();
    String terms = "/api/v1/places/" + basin + "/terms";
    hana.put(terms, "{\"capacity\": 1, \"ways\": [{\"to\": %d, \"minutes\": 30}]}".formatted(weir))
        .expect(204);
    assertThat(clashes(hana, "clashes", far)).hasSize(1);
    JsonNode held = clashes(hana, "clashes", full).get(0);
    assertThat(titles(held)).containsExactly("Buoys", "Moorings");
    assertThat(held.has("person")).isFalse();
    assertThat(hana.get(terms).expect(200).json().get("capacity").asInt()).isEqualTo(1);
    // The same by the distance: two kilometres at forty an hour take three minutes.
    hana.put(terms, "{\"capacity\": 2, \"latitude\": 52.0, \"longitude\": 0}").expect(204);
    String weirs = "/api/v1/places/" + weir + "/terms";
    hana.put(weirs, "{\"latitude\": 52.018, \"longitude\": 0}").expect(204);
    assertThat(clashes(hana, "clashes", far.or(full))).isEmpty();
    hana.put(weirs, "{\"latitude\": 52.18, \"longitude\": 0}").expect(204);
    assertThat(clashes(hana, "clashes", far)).hasSize(1);
    hana.put(weirs, "{}").expect(204);
    hana.put(terms, "{}").expect(204);
    ines.get(terms).expect(403);
    ines.put(terms, "{}").expect(403);
    hana.get("/api/v1/places/99999/terms").expect(404);
  }

  @DataProvider
  public Object[][] placeFaults() {
    return new Object[][] {
      {"{\"capacity\": 0}", "/capacity"},
      {"{\"latitude\": 91, \"longitude\": 0}", "/latitude"},
      {"{\"latitude\": \"north\", \"longitude\": 0}", "/latitude"},
      {"{\"latitude\": 52}", "/longitude"},
      {"{\"ways\": [{\"to\": 99999, \"minutes\": 5}]}", "/ways/0/to"},
      {"{\"ways\": [{\"to\": 2, \"minutes\": 5000}]}", "/ways/0/minutes"},
      {"{\"ways\": [{\"to\": 2, \"minutes\": 5}, {\"to\": 2, \"minutes\": 6}]}", "/ways/1/to"},
    };
  }

  @Test(dataProvider = "placeFaults")
  public void whatAPlaceCannotHoldIsToldAtItsField(String body, String pointer) {
    assertThat(hana.put("/api/v1/places/1/terms", body).expect(422).text())
        .contains("\"" + pointer + "\"");
  }

  /** Work at a place outside its opening hours is told of the work, of nobody, and only warns. */
  @Test
  public void aPlaceHasOpeningHours() {
    long place = hana.idOf("places", "Osier Basin");
    String terms = "/api/v1/places/" + place + "/terms";
    JsonNode before = hana.get(terms).expect(200).json();
    assertThat(before.get("opening").size()).isZero();
    String body = "{\"opening\": [{\"weekday\": 2, \"from\": \"08:00\", \"until\": \"16:00\"}]}";
    hana.put(terms, body).expect(204);
    assertThat(hana.get(terms).expect(200).json().get("opening").toString())
        .isEqualTo("[{\"weekday\":2,\"from\":\"08:00\",\"until\":\"16:00\"}]");
    assertThat(hana.get("/api/v1/settled").text()).contains("Opening hours");
    String job =
        "{\"kind\": \"JOB\", \"title\": \"%s\", \"state\": \"CONFIRMED\", \"place\": %d, \"visits\": [%s]}";
    long timed =
        hana.record(
            job.formatted(
                "Until the evening",
                place,
                "{\"start\": \"2027-06-01T09:00\", \"end\": \"2027-06-01T18:00\"}"));
    hana.record(
        job.formatted(
            "The whole day", place, "{\"first\": \"2027-06-01\", \"last\": \"2027-06-01\"}"));
    List<String> told = new ArrayList<>();
    for (JsonNode one :
        hana.get("/api/v1/cover?from=2027-06-01&until=2027-06-02").json().get("clashes")) {
      told.add(
          one.get("kind").asString()
              + " "
              + one.path("name").asString("-")
              + " "
              + one.get("items").get(0).get("record").asLong()
              + " "
              + one.get("start").asString()
              + " "
              + one.get("never").asBoolean());
    }
    assertThat(told).containsExactly("SHUT Osier Basin " + timed + " 2027-06-01T15:00:00Z false");
    for (String[] fault :
        new String[][] {
          {"{\"weekday\": 8, \"from\": \"08:00\", \"until\": \"16:00\"}", "/opening/0/weekday"},
          {"{\"weekday\": 2, \"from\": \"8\", \"until\": \"16:00\"}", "/opening/0/from"},
          {"{\"weekday\": 2, \"from\": \"08:00\"}", "/opening/0/until"},
        }) {
      assertThat(hana.put(terms, "{\"opening\": [" + fault[0] + "]}").expect(422).text())
          .contains("\"" + fault[1] + "\"");
    }
    hana.put(terms, "{\"opening\": []}").expect(204);
  }

  /** A skill that ends is told ahead, with the work after it that wants it. */
  @Test
  public void skillsThatEndAreToldAhead() {
    assertThat(ending(hana)).contains("Lerato Quist gates 2026-12-25 0");
    String job =
        """
        {"kind": "JOB", "title": "Gates after Christmas", "state": "CONFIRMED", "wants": {"people": 1,
         "skills": ["gates"]}, "visits": [{"start": "%s", "end": "%s"}], "people": [{"role": 0, "person": %d}]}
        """;
    long lerato = hana.idOf("people", "Lerato Quist");
    hana.record(job.formatted("2026-12-24T21:00", "2026-12-24T22:00", lerato));
    assertThat(ending(hana)).contains("Lerato Quist gates 2026-12-25 0");
    long after =
        hana.record(
            job.replace("CONFIRMED", "TENTATIVE")
                .formatted("2026-12-28T21:00", "2026-12-28T22:00", lerato));
    assertThat(ending(hana)).contains("Lerato Quist gates 2026-12-25 1");
    hana.change(after, "{\"state\": \"CANCELLED\"}");
    assertThat(ending(hana)).contains("Lerato Quist gates 2026-12-25 0");
    assertThat(ending(Api.of(server, "marguerite"))).noneMatch(one -> one.startsWith("Lerato"));
    ines.get("/api/v1/cover/skills-ending").expect(403);
  }

  private static List<String> ending(Api who) {
    List<String> found = new ArrayList<>();
    for (JsonNode one : who.get("/api/v1/cover/skills-ending").expect(200).json()) {
      found.add(
          one.get("name").asString()
              + " "
              + one.get("skill").asString()
              + " "
              + one.get("last").asString()
              + " "
              + one.get("touched").asInt());
    }
    return found;
  }

  // ---- Hours and leave -------------------------------------------------------------------------

  /** What speaks against Hedda on a Tuesday morning at the weir. */
  private List<String> against(String start, String end) {
    JsonNode all =
        hana.get(
                "/api/v1/cover/who-could?ask=duty:%d&start=%s&end=%s"
                    .formatted(hana.idOf("duties", "Flood watch"), start, end))
            .expect(200)
            .json();
    List<String> found = new ArrayList<>();
    for (JsonNode one : all) {
      if (one.get("name").asString().equals("Hedda Quay")) {
        one.get("reasons").forEach(reason -> found.add(reason.get("why").asString()));
      }
    }
    found.remove("SKILL");
    return found;
  }

  @Test
  public void hoursHoldAtAPlaceForATimeAndOtherwiseOnADay() {
    String hedda = "/api/v1/people/" + hana.idOf("people", "Hedda Quay");
    String tuesday = "2026-12-15T08:00:00Z";
    String noon = "2026-12-15T12:00:00Z";
    JsonNode before = hana.get(hedda + "/times").expect(200).json();
    int days = before.get("days").size();
    assertThat(against(tuesday, noon)).isEmpty();
    long weir = hana.idOf("places", "Quill Weir");
    long basin = hana.idOf("places", "Osier Basin");
    String row = "{\"weekday\": 2, \"from\": \"07:00\", \"until\": \"16:00\"%s}";
    hours(hedda, row.formatted(", \"place\": " + basin));
    assertThat(against(tuesday, noon)).containsExactly("HOURS");
    hours(hedda, row.formatted(", \"place\": " + weir));
    assertThat(against(tuesday, noon)).isEmpty();
    hours(hedda, row.formatted(", \"last\": \"2026-12-14\""));
    assertThat(against(tuesday, noon)).containsExactly("HOURS");
    hours(hedda, row.formatted(", \"first\": \"2026-12-15\""));
    assertThat(against(tuesday, noon)).isEmpty();
    String day = hedda + "/days/2026-12-15";
    hana.put(day, "{\"times\": []}").expect(204);
    assertThat(against(tuesday, noon)).containsExactly("HOURS");
    hana.put(day, "{\"times\": [{\"from\": \"08:00\", \"until\": \"12:00\"}]}").expect(204);
    assertThat(against(tuesday, noon)).isEmpty();
    hana.put(day, "{\"times\": [], \"place\": %d}".formatted(weir)).expect(204);
    assertThat(hana.get(hedda + "/times").expect(200).json().get("days").size())
        .isEqualTo(days + 2);
    hana.delete(day + "?place=" + weir).expect(204);
    hana.delete(day).expect(204);
    hana.put(hedda + "/terms", "{\"zone\": \"Asia/Kolkata\", \"contractMinutes\": 1800}")
        .expect(204);
    assertThat(against(tuesday, noon)).as("seven until four in Kolkata").containsExactly("HOURS");
    hana.put(
            hedda + "/terms",
            "{\"contractMinutes\": %d}".formatted(before.get("contractMinutes").asInt()))
        .expect(204);
    hours(hedda, before.get("hours").toString().replaceAll("^\\[|\\]$", ""));
    assertThat(hana.get(hedda + "/times").expect(200).json()).isEqualTo(before);
  }

  private void hours(String person, String rows) {
    hana.put(person + "/hours", "{\"hours\": [" + rows + "]}").expect(204);
  }

  /** Leave of some hours is in the way of these alone. */
  @Test
  public void leaveMayBeOfSomeHours() {
    String hedda = "/api/v1/people/" + hana.idOf("people", "Hedda Quay");
    String leave = "{\"first\": \"2026-12-10\", \"from\": \"13:00\", \"until\": \"15:00\"}";
    hana.post(hedda + "/leave", leave).expect(204);
    JsonNode kept = null;
    for (JsonNode one : hana.get(hedda + "/times").expect(200).json().get("leave")) {
      kept = one.get("first").asString().equals("2026-12-10") ? one : kept;
    }
    assertThat(kept.get("hours").toString()).isEqualTo("{\"from\":\"13:00\",\"until\":\"15:00\"}");
    assertThat(against("2026-12-10T09:00:00Z", "2026-12-10T13:00:00Z")).isEmpty();
    assertThat(against("2026-12-10T12:00:00Z", "2026-12-10T14:00:00Z")).contains("LEAVE");
    assertThat(hana.get("/api/v1/settled").expect(200).text()).contains("13:00–15:00");
    JsonNode board = hana.get("/api/v1/board?from=2026-12-10&until=2026-12-11").json();
    assertThat(board.get("away").toString()).contains("\"starts\":\"2026-12-10T13:00:00Z\"");
    for (String[] fault :
        new String[][] {
          {"{\"first\": \"2026-12-10\", \"from\": \"13:00\"}", "/until"},
          {"{\"first\": \"2026-12-10\", \"from\": \"13:00\", \"until\": \"13:00\"}", "/until"},
          {
            "{\"first\": \"2026-12-10\", \"last\": \"2026-12-11\", \"from\": \"13:00\", \"until\": \"14:00\"}",
            "/last"
          },
        }) {
      assertThat(hana.post(hedda + "/leave", fault[0]).expect(422).text()).contains(fault[1]);
    }
    hana.delete(hedda + "/leave/" + kept.get("id").asLong()).expect(204);
  }

  @DataProvider
  public Object[][] timeFaults() {
    String row = "{\"hours\": [{\"weekday\": 2, \"from\": \"07:00\", \"until\": \"16:00\"%s}]}";
    return new Object[][] {
      {"/hours", row.formatted(", \"place\": 99999"), "/hours/0/place"},
      {"/hours", row.formatted(", \"first\": \"soon\""), "/hours/0/first"},
      {
        "/hours",
        row.formatted(", \"first\": \"2026-12-02\", \"last\": \"2026-12-01\""),
        "/hours/0/last"
      },
      {"/days/2026-12-22", "{}", "/times"},
      {"/days/2026-12-22", "{\"times\": [{\"from\": \"8\"}]}", "/times/0/from"},
      {"/days/2026-12-22", "{\"times\": [], \"place\": 99999}", "/place"},
      {"/terms", "{\"zone\": \"Here\"}", "/zone"},
      {"/terms", "{\"contractMinutes\": 20000}", "/contractMinutes"},
    };
  }

  @Test(dataProvider = "timeFaults")
  public void hoursThatCannotBeAreToldAtTheirField(String path, String body, String pointer) {
    String hedda = "/api/v1/people/" + hana.idOf("people", "Hedda Quay");
    assertThat(hana.put(hedda + path, body).expect(422).text()).contains("\"" + pointer + "\"");
    ines.put(hedda + path, body).expect(403);
  }

  /**
   * Leave that is asked for is between the worker and the office, and lifts nobody off anything.
   */
  @Test
  public void leaveIsAskedForAndAgreed() {
    long id = hana.idOf("people", "Ines Okafor");
    String me = "/api/v1/people/" + id;
    String wish = "{\"first\": \"2026-12-11\", \"last\": \"2026-12-11\"}";
    hana.record(
        """
        {"kind": "SHIFT", "title": "On that day", "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "2026-12-11T08:00", "end": "2026-12-11T16:00"}]}
        """
            .formatted(id));
    ines.post(me + "/leave", wish).expect(204);
    JsonNode asked = ines.get(me + "/times").expect(200).json().get("leave").get(0);
    assertThat(asked.get("agreed").asBoolean()).isFalse();
    Predicate<JsonNode> onLeave = of("LEAVE", "Ines Okafor", true);
    assertThat(clashes(hana, "clashes", onLeave)).isEmpty();
    Api wren = Api.of(server, "wren");
    assertThat(away(wren, id)).as("what a colleague knows of it").isEmpty();
    assertThat(away(hana, id)).as("it lifts nobody off the board").isEmpty();
    assertThat(hana.get(me + "/times").expect(200).json().get("leave").size()).isEqualTo(1);
    wren.get(me + "/times").expect(403);
    String leave = me + "/leave/" + asked.get("id").asLong();
    ines.post(leave + "/agree", "").expect(403);
    wren.delete(leave).expect(403);
    hana.post(leave + "/agree", "").expect(204);
    assertThat(clashes(hana, "clashes", onLeave)).isNotEmpty();
    assertThat(away(wren, id)).isPresent();
    assertThat(away(wren, id).get().has("what")).as("why, to a colleague").isFalse();
    ines.delete(leave).expect(403);
    hana.delete(leave).expect(204);
    ines.post(me + "/leave", wish).expect(204);
    long again = ines.get(me + "/times").expect(200).json().get("leave").get(0).get("id").asLong();
    ines.delete(me + "/leave/" + again).expect(204);
    ines.post("/api/v1/people/1/leave", wish).expect(403);
  }

  private static Optional<JsonNode> away(Api asker, long person) {
    JsonNode board = asker.get("/api/v1/board?from=2026-12-11&until=2026-12-12").expect(200).json();
    for (JsonNode one : board.get("away")) {
      if (one.get("person").asLong() == person) {
        return Optional.of(one);
      }
    }
    return Optional.empty();
  }
}
