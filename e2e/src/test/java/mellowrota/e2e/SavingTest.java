package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.Supplier;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** No way of giving work saves a clash that the house never allows and that it makes itself. */
public class SavingTest extends OnDemo {

  private static final int ASSIGNERS = 8;

  private long nell;
  private long caio;
  private LocalDate day = LocalDate.of(2028, 1, 3);

  @BeforeClass
  public void begin() {
    nell = hana.idOf("people", "Nell Ashdown");
    caio = hana.idOf("people", "Caio Merrin");
    limit("REST", "WARN", 660);
  }

  private void limit(String kind, String level, int amount) {
    String row = amount < 0 ? "" : ", \"amount\": " + amount;
    hana.put(
            "/api/v1/limits",
            "{\"limits\": [{\"kind\": \"%s\", \"level\": \"%s\"%s}]}".formatted(kind, level, row))
        .expect(204);
  }

  /** A fortnight that nobody has work in; each way has one to itself. */
  private LocalDate fresh() {
    day = day.plusDays(14);
    return day;
  }

  private static String shift(String title, LocalDate on, int from, int until, String people) {
    return """
        {"kind": "SHIFT", "title": "%s", "state": "CONFIRMED", "people": [%s],
         "visits": [{"start": "%sT%02d:00", "end": "%sT%02d:00", "zone": "Europe/London"}]}
        """
        .formatted(title, people, on, from, on, until);
  }

  private static String job(String title, LocalDate on, int from, int until, String people) {
    return shift(title, on, from, until, people).replace("SHIFT", "JOB");
  }

  private static String as(int role, long person) {
    return "{\"role\": %d, \"person\": %d}".formatted(role, person);
  }

  private static String change(String field) {
    return "{" + field + "}";
  }

  private Api.Answer put(long record, String body) {
    return hana.patch("/api/v1/records/" + record, body);
  }

  /** How work comes to somebody who has some from eight until noon: each ends at ten o'clock. */
  private enum Way {
    MADE,
    MADE_AS_SUPPORT,
    MADE_TO_REPEAT,
    GIVEN,
    MOVED,
    LENGTHENED,
    CONFIRMED,
    REOPENED,
    ONE_OF_SEVERAL,
    COME_TO,
    HANDED_OVER,
    SWAPPED
  }

  private Supplier<Api.Answer> way(Way way, LocalDate on, long person) {
    String theirs = as(0, person);
    switch (way) {
      case MADE -> {
        return () -> hana.post("/api/v1/records", shift("More", on, 10, 14, theirs));
      }
      case MADE_AS_SUPPORT -> {
        return () ->
            hana.post(
                "/api/v1/records", job("More", on, 10, 14, as(0, caio) + ", " + as(1, person)));
      }
      case MADE_TO_REPEAT -> {
        String body = shift("More", on.minusDays(7), 10, 14, theirs);
        return () ->
            hana.post(
                "/api/v1/records",
                body.replace(
                    "{\"kind\"", "{\"repeat\": {\"unit\": \"WEEKS\", \"times\": 2}, \"kind\""));
      }
      case GIVEN -> {
        long record = hana.record(shift("More", on, 10, 14, ""));
        return () -> put(record, change("\"people\": [" + theirs + "]"));
      }
      case MOVED -> {
        long record = hana.record(shift("More", on.plusDays(2), 10, 14, theirs));
        return () ->
            put(
                record,
                change(
                    "\"visits\": [{\"start\": \"%1$sT10:00\", \"end\": \"%1$sT14:00\"}]"
                        .formatted(on)));
      }
      case LENGTHENED -> {
        long record = hana.record(shift("More", on, 13, 14, theirs));
        return () ->
            put(
                record,
                change(
                    "\"visits\": [{\"no\": 1, \"start\": \"%1$sT10:00\", \"end\": \"%1$sT14:00\"}]"
                        .formatted(on)));
      }
      case CONFIRMED -> {
        long record =
            hana.record(job("More", on, 10, 14, theirs).replace("CONFIRMED", "TENTATIVE"));
        return () -> put(record, change("\"state\": \"CONFIRMED\""));
      }
      case REOPENED -> {
        long record =
            hana.record(job("More", on, 10, 14, theirs).replace("CONFIRMED", "CANCELLED"));
        return () -> put(record, change("\"state\": \"CONFIRMED\""));
      }
      case ONE_OF_SEVERAL -> {
        long other = hana.record(shift("Other", on.plusDays(2), 10, 14, theirs));
        return () ->
            hana.post(
                "/api/v1/records/several",
                """
                {"items": [
                  {"record": %d, "ifMatch": "*", "change": {"title": "Another name"}},
                  {"make": %s}]}
                """
                    .formatted(other, shift("More", on, 10, 14, theirs)));
      }
      case COME_TO -> {
        long record =
            hana.record(
                job("More", on, 10, 14, "")
                    .replace("{\"kind\"", "{\"wants\": {\"people\": 1}, \"kind\""));
        return () ->
            hana.post(
                "/api/v1/cover/give",
                """
                {"ask": "record:%d/1", "person": %d, "start": "%3$sT10:00:00Z",
                 "end": "%3$sT14:00:00Z"}
                """
                    .formatted(record, person, on));
      }
      case HANDED_OVER -> {
        long record = hana.record(shift("More", on, 10, 14, as(0, caio)));
        return () ->
            hana.post(
                "/api/v1/cover/hand-over",
                "{\"record\": %d, \"visit\": 1, \"from\": %d, \"to\": %d}"
                    .formatted(record, caio, person));
      }
      case SWAPPED -> {
        long record = hana.record(shift("More", on, 10, 14, as(0, caio)));
        long other = hana.record(shift("Other", on.plusDays(2), 10, 14, theirs));
        return () ->
            hana.post(
                "/api/v1/cover/swap",
                """
                {"sides": [{"record": %d, "visit": 1, "person": %d},
                           {"record": %d, "visit": 1, "person": %d}]}
                """
                    .formatted(record, caio, other, person));
      }
      default -> throw new AssertionError(way);
    }
  }

  @DataProvider
  public Object[][] ways() {
    List<Object[]> all = new ArrayList<>();
    for (Way way : Way.values()) {
      for (String kind : List.of("DOUBLE", "LEAVE", "REST", "LEFT")) {
        // An end that stays where it is leaves as much rest as it did.
        if (way != Way.LENGTHENED || !kind.equals("REST")) {
          all.add(new Object[] {way.name(), kind});
        }
      }
    }
    return all.toArray(Object[][]::new);
  }

  /** What stands in the way of {@link #way} on a day. */
  private void against(String kind, LocalDate on) {
    switch (kind) {
      case "DOUBLE" -> hana.record(shift("First", on, 8, 12, as(0, nell)));
      case "LEAVE" ->
          hana.post("/api/v1/people/%d/leave".formatted(nell), "{\"first\": \"%s\"}".formatted(on))
              .expect(204);
      case "LEFT" -> lastDay("\"%s\"".formatted(on.minusDays(1)));
      default -> hana.record(shift("First", on.plusDays(1), 0, 4, as(0, nell)));
    }
  }

  private void lastDay(String day) {
    hana.put("/api/v1/people/%d/terms".formatted(nell), "{\"lastDay\": %s}".formatted(day))
        .expect(204);
  }

  /** Of an end on a day no house can only warn: it is taken off instead. */
  private void mind(String kind, String level) {
    if (!kind.equals("LEFT")) {
      limit(kind, level, kind.equals("REST") ? 660 : -1);
    } else if (level.equals("WARN")) {
      lastDay("null");
    }
  }

  @Test(dataProvider = "ways")
  public void noWaySavesWhatIsNeverAllowed(String name, String kind) {
    Way way = Way.valueOf(name);
    LocalDate on = fresh();
    mind(kind, "WARN");
    Supplier<Api.Answer> save = way(way, on, nell);
    against(kind, on);
    String before = hana.get("/api/v1/board?from=%s&until=%s".formatted(on, on.plusDays(1))).text();
    mind(kind, "NEVER");
    Api.Answer refused = save.get().expect(409);
    assertThat(refused.json().get("type").asString()).endsWith(":clash");
    assertThat(refused.json().get("detail").asString()).contains("Nell Ashdown", "hoose");
    assertThat(refused.json().get("clashes").valueStream().map(one -> one.get("kind").asString()))
        .containsOnly(kind);
    assertThat(hana.get("/api/v1/board?from=%s&until=%s".formatted(on, on.plusDays(1))).text())
        .as("nothing of it is kept")
        .isEqualTo(before);
    mind(kind, "WARN");
    assertThat(save.get().status()).as("only warned of, it is saved").isBetween(200, 201);
    if (!kind.equals("REST")) {
      mind(kind, "NEVER");
    }
  }

  /** What is wrong already hinders nobody who does not make it worse. */
  @Test
  public void whatWasWrongBeforeIsNotHeldAgainstAnybody() {
    LocalDate on = fresh();
    limit("DOUBLE", "WARN", -1);
    hana.record(shift("First", on, 8, 12, as(0, nell)));
    long record = hana.record(job("Second", on, 10, 14, as(0, nell)));
    limit("DOUBLE", "NEVER", -1);
    String shorter =
        "\"visits\": [{\"no\": 1, \"start\": \"%1$sT11:00\", \"end\": \"%1$sT14:00\"}]";
    String longer = shorter.replace("T11", "T09");
    for (String field :
        List.of(
            "\"title\": \"Another name\"",
            "\"details\": {\"notes\": \"Bring the long ladder\"}",
            "\"people\": [%s, %s]".formatted(as(0, nell), as(1, caio)),
            shorter.formatted(on))) {
      put(record, change(field)).expect(200);
    }
    put(record, change(longer.formatted(on))).expect(409);
    put(record, change("\"state\": \"DONE\"")).expect(200);
    put(record, change("\"state\": \"CONFIRMED\"")).expect(200);
    put(record, change("\"state\": \"CANCELLED\"")).expect(200);
  }

  /** Taking back brings no clash back. */
  @Test
  public void whatWouldClashAgainIsNotTakenBack() {
    LocalDate on = fresh();
    long record = hana.record(shift("First", on, 8, 12, as(0, nell)));
    long act =
        put(record, change("\"people\": [%s]".formatted(as(0, caio))))
            .expect(200)
            .json()
            .get("act")
            .asLong();
    hana.record(shift("Second", on, 10, 14, as(0, nell)));
    Api.Answer refused = hana.post("/api/v1/acts/%d/undo".formatted(act), "{}").expect(409);
    assertThat(refused.json().get("detail").asString()).contains("Nell Ashdown already has");
    assertThat(
            hana.get("/api/v1/records/" + record)
                .json()
                .get("people")
                .get(0)
                .get("person")
                .asLong())
        .isEqualTo(caio);
  }

  /** Work that follows the zone of its place is checked, and asked about, like any other. */
  @Test
  public void anotherZoneOfAPlaceIsAskedAboutToo() {
    LocalDate on = fresh();
    String place = "{\"code\": \"ZW\", \"name\": \"Zoned wharf\"%s}";
    long id =
        hana.post("/api/v1/places", place.formatted("")).expect(201).json().get("id").asLong();
    hana.record(job("Before", on, 8, 9, as(0, caio)));
    long moves =
        hana.record(
            job("Follows", on, 9, 11, as(0, caio)).replaceFirst("\\{", "{\"place\": " + id + ", "));
    String berlin = place.formatted(", \"zone\": \"Europe/Berlin\"");
    hana.put(
            "/api/v1/limits",
            "{\"limits\": [{\"kind\": \"DOUBLE\", \"level\": \"WARN\", \"asksReason\": true}]}")
        .expect(204);
    try {
      Api.Answer refused = hana.patch("/api/v1/places/" + id, berlin).expect(409);
      assertThat(refused.json().get("type").asString()).endsWith(":reason");
      hana.patch("/api/v1/places/" + id, berlin, "Act-Reason", "agreed").expect(204);
      assertThat(hana.get("/api/v1/records/" + moves + "/history").text())
          .contains("\"reason\":\"agreed\"");
    } finally {
      hana.put(
              "/api/v1/limits",
              "{\"limits\": [{\"kind\": \"DOUBLE\", \"level\": \"NEVER\", \"asksReason\": false}]}")
          .expect(204);
    }
  }

  /** Where a limit only warns, the house may ask why: said, it is kept with the clash. */
  @Test
  public void aLimitMayAskForAReason() {
    LocalDate on = fresh();
    hana.put(
            "/api/v1/limits",
            "{\"limits\": [{\"kind\": \"LONGEST\", \"amount\": 540, \"asksReason\": true}]}")
        .expect(204);
    try {
      assertThat(hana.get("/api/v1/limits").text())
          .contains("\"kind\":\"LONGEST\",\"level\":\"WARN\",\"amount\":540,\"asksReason\":true");
      String body = job("Ten hours", on, 8, 18, as(0, caio));
      Api.Answer refused = hana.post("/api/v1/records", body).expect(409);
      assertThat(refused.json().get("type").asString()).endsWith(":reason");
      assertThat(refused.json().get("detail").asString()).contains("Caio Merrin");
      hana.post("/api/v1/records", body, "Act-Reason", "%").expect(400);
      long record =
          hana.post("/api/v1/records", body, "Act-Reason", "agreed%20by%20phone%20%E2%80%93%20Caio")
              .expect(201)
              .json()
              .get("record")
              .get("id")
              .asLong();
      JsonNode stands = null;
      for (JsonNode clash :
          hana.get("/api/v1/cover?from=" + on + "&until=" + on.plusDays(1)).json().get("clashes")) {
        stands = clash.get("kind").asString().equals("LONGEST") ? clash : stands;
      }
      assertThat(stands.get("letStand").get("reason").asString())
          .isEqualTo("agreed by phone – Caio");
      assertThat(stands.get("letStand").get("by").asString()).isEqualTo("Hana Vesely");
      assertThat(hana.get("/api/v1/records/" + record + "/history").text())
          .contains("agreed by phone – Caio");
      // Whatever makes no clash is asked nothing, and what is longer is another clash.
      put(record, change("\"title\": \"Ten long hours\"")).expect(200);
      String longer = change("\"visits\": [{\"start\": \"%1$sT08:00\", \"end\": \"%1$sT19:00\"}]");
      put(record, longer.formatted(on)).expect(409);
      assertThat(hana.get("/api/v1/records/" + record).text()).contains(on + "T18:00");
      put(record, change("\"state\": \"CANCELLED\"")).expect(200);
    } finally {
      hana.put(
              "/api/v1/limits",
              "{\"limits\": [{\"kind\": \"LONGEST\", \"amount\": 840, \"asksReason\": false}]}")
          .expect(204);
    }
  }

  /** Whoever does not answer for a person is told only that they are not available. */
  @Test
  public void whoAnswersForNobodyIsToldNoReason() {
    Api wren = Api.of(server, "wren");
    long me = hana.idOf("people", "Wren Adeyemi");
    List<String> told = new ArrayList<>();
    for (String kind : List.of("DOUBLE", "LEAVE")) {
      LocalDate on = fresh();
      long record =
          hana.record(job("Mine to lead", on.plusDays(2), 10, 14, as(0, me) + ", " + as(1, nell)));
      against(kind, on);
      Api.Answer refused =
          wren.patch(
                  "/api/v1/records/" + record,
                  change(
                      "\"visits\": [{\"no\": 1, \"start\": \"%1$sT10:00\", \"end\": \"%1$sT14:00\"}]"
                          .formatted(on)))
              .expect(409);
      assertThat(refused.json().get("clashes").size()).isZero();
      told.add(refused.text().replaceAll("\"instance\":\"[^\"]*\"|\"request\":\"[^\"]*\"", ""));
    }
    assertThat(told.get(0)).contains("Nell Ashdown can’t be given this").isEqualTo(told.get(1));
  }

  private static String tried(String change) {
    return "{\"change\": " + change + "}";
  }

  private static JsonNode of(JsonNode trial, long person) {
    return trial
        .get("people")
        .valueStream()
        .filter(one -> one.get("person").asLong() == person)
        .findFirst()
        .orElseThrow(() -> new AssertionError("nothing is said of " + person));
  }

  /**
   * What a form is told is what a save is refused for, and who could do it, with what is in the
   * way.
   */
  @Test
  public void whatIsTriedIsWhatIsRefused() {
    LocalDate on = fresh();
    hana.record(job("Stands there", on, 8, 12, as(0, nell)));
    String wanted = shift("Second", on, 10, 14, as(0, nell));
    JsonNode trial = hana.post("/api/v1/cover/trial", tried(wanted)).expect(200).json();
    Api.Answer refused = hana.post("/api/v1/records", wanted).expect(409);
    assertThat(trial.get("refused").size()).isEqualTo(1);
    assertThat(refused.json().get("detail").asString())
        .endsWith(trial.get("refused").get(0).asString());
    JsonNode hers = of(trial, nell);
    assertThat(hers.get("verdict").asString()).isEqualTo("NO");
    assertThat(hers.get("reasons").toString()).contains("Stands there");
    assertThat(of(trial, caio).get("verdict").asString()).isNotEqualTo("NO");
    assertThat(trial.get("start").asString()).startsWith(on + "T");
    // A draft is on nobody's calendar and breaks nothing.
    JsonNode draft =
        hana.post(
                "/api/v1/cover/trial",
                tried(job("Draft", on, 10, 14, as(0, nell)).replace("CONFIRMED", "DRAFT")))
            .expect(200)
            .json();
    assertThat(draft.get("refused").size() + draft.get("warns").size()).isZero();
    assertThat(of(draft, nell).get("verdict").asString()).isEqualTo("NO");
    assertThat(hana.post("/api/v1/cover/trial", "{\"record\": 999999, \"change\": {}}").status())
        .isEqualTo(404);
    assertThat(hana.post("/api/v1/cover/trial", tried("{\"title\": 7}")).expect(422).text())
        .contains("/title");
  }

  /** A record is tried as it would be changed, beside all but itself. */
  @Test
  public void aChangeIsTriedBesideAllButItself() {
    LocalDate on = fresh();
    long record = hana.record(job("Moves", on, 8, 12, as(0, nell)));
    hana.record(job("Stays", on, 14, 16, as(0, nell)));
    String moved =
        "{\"record\": %d, \"change\": {\"visits\": [{\"no\": 1, \"start\": \"%sT%s\", \"end\": \"%sT%s\"}]}}";
    JsonNode free =
        hana.post("/api/v1/cover/trial", moved.formatted(record, on, "09:00", on, "13:00"))
            .expect(200)
            .json();
    assertThat(free.get("refused").size()).isZero();
    JsonNode onto =
        hana.post("/api/v1/cover/trial", moved.formatted(record, on, "13:00", on, "15:00"))
            .expect(200)
            .json();
    assertThat(onto.get("refused").get(0).asString()).contains("14:00–15:00");
    assertThat(of(onto, nell).get("reasons").toString()).contains("Stays").doesNotContain("Moves");
  }

  /** Trying leaves no trace: it tells of those whom the asker answers for, and of nobody else. */
  @Test
  public void whoTriesLearnsOfThoseTheyAnswerForAlone() {
    LocalDate on = fresh();
    Api marguerite = Api.of(server, "marguerite");
    long team = hana.idOf("teams", "Upper Quill crew");
    hana.record(job("In the way", on, 8, 12, as(0, nell)));
    hana.record(shift("In the way too", on, 8, 12, as(0, caio)));
    String hers =
        shift("Second", on, 10, 14, as(0, nell))
            .replace("{\"kind\"", "{\"team\": %d, \"kind\"".formatted(team));
    JsonNode told = marguerite.post("/api/v1/cover/trial", tried(hers)).expect(200).json();
    assertThat(told.get("refused").get(0).asString()).contains("Nell Ashdown already has");
    assertThat(told.get("people").valueStream().map(one -> one.get("name").asString()))
        .contains("Nell Ashdown")
        .doesNotContain("Caio Merrin", "Wren Adeyemi");
    String others = hers.replace(as(0, nell), as(0, caio));
    JsonNode silent = marguerite.post("/api/v1/cover/trial", tried(others)).expect(200).json();
    assertThat(silent.get("refused").size() + silent.get("warns").size()).isZero();
    assertThat(silent.get("clashes").size()).isZero();
    Api.of(server, "wren").post("/api/v1/cover/trial", tried(hers)).expect(403);
  }

  /** It takes nobody's time: it may lie over other work, and fills nothing. */
  @Test
  public void workThatTakesNoTimeIsInNobodysWay() {
    LocalDate on = fresh();
    hana.record(job("Stands there", on, 8, 12, as(0, nell)));
    String open =
        job("Open house", on, 9, 11, as(0, nell)).replace("{\"kind\"", "{\"free\": true, \"kind\"");
    long record = hana.record(open);
    assertThat(hana.get("/api/v1/records/" + record).expect(200).text()).contains("\"free\":true");
    hana.record(job("More over it", on.plusDays(1), 8, 12, as(0, nell)));
    assertThat(
            put(
                    record,
                    change(
                        "\"visits\": [{\"start\": \"%1$sT10:00\", \"end\": \"%1$sT14:00\"}]"
                            .formatted(on.plusDays(1))))
                .status())
        .isEqualTo(200);
    assertThat(put(record, change("\"free\": false")).expect(409).text()).contains("other work");
  }

  /** How many of eight who give one person the same hours at once are answered so. */
  private static long assigned(Server server, LocalDate on, long person, int status) {
    ExecutorService threads = Executors.newFixedThreadPool(ASSIGNERS);
    try {
      CyclicBarrier together = new CyclicBarrier(ASSIGNERS);
      List<Future<Integer>> all = new ArrayList<>();
      for (int i = 0; i < ASSIGNERS; i++) {
        String body = shift("Assigner " + i, on, 8, 12, as(0, person));
        Api own = Api.of(server, "hana");
        Callable<Integer> assign =
            () -> {
              together.await();
              return own.post("/api/v1/records", body).status();
            };
        all.add(threads.submit(assign));
      }
      long found = 0;
      for (Future<Integer> one : all) {
        found += one.get() == status ? 1 : 0;
      }
      return found;
    } catch (InterruptedException | ExecutionException failure) {
      throw new AssertionError(failure);
    } finally {
      threads.shutdownNow();
    }
  }

  @Test
  public void ofEightAssignersOfOnePersonOneWins() {
    for (int round = 0; round < 3; round++) {
      LocalDate on = fresh();
      assertThat(assigned(server, on, nell, 409)).as(on + ": refused").isEqualTo(ASSIGNERS - 1);
    }
  }

  /** Without the lock several of them win. */
  @Test
  public void theControlOfTheRaceGoesRed() {
    try (Server unlocked =
        Server.started(Database.demo(), "--spring.profiles.active=settable-clock,assign-control")) {
      long won = 0;
      for (int round = 0; round < 10 && won < 2; round++) {
        won = assigned(unlocked, fresh(), nell, 201);
      }
      assertThat(won).as("winners of one race").isGreaterThan(1);
    }
  }

  /** A place holds no more than it has room for. */
  @Test
  public void aPlaceThatIsFullTakesNoMore() {
    LocalDate on = fresh();
    long basin = hana.idOf("places", "Osier Basin");
    JsonNode terms = hana.get("/api/v1/places/%d/terms".formatted(basin)).expect(200).json();
    hana.put("/api/v1/places/%d/terms".formatted(basin), "{\"capacity\": 1}").expect(204);
    limit("CAPACITY", "NEVER", -1);
    String at = "{\"place\": %d, \"kind\"".formatted(basin);
    hana.record(job("First", on, 8, 12, "").replace("{\"kind\"", at));
    Api.Answer refused =
        hana.post("/api/v1/records", job("Second", on, 10, 14, "").replace("{\"kind\"", at))
            .expect(409);
    assertThat(refused.json().get("detail").asString()).contains("Osier Basin would hold more");
    hana.record(job("Second", on, 12, 14, "").replace("{\"kind\"", at));
    limit("CAPACITY", "WARN", -1);
    ((ObjectNode) terms).remove("tag");
    hana.put("/api/v1/places/%d/terms".formatted(basin), terms.toString()).expect(204);
  }

  /** It only warns, of what comes to lie there while it is shut, or to use it. */
  @Test
  public void whoPlansForAPlaceThatIsShutIsWarned() {
    LocalDate on = fresh();
    long basin = hana.idOf("places", "Osier Basin");
    JsonNode terms = hana.get("/api/v1/places/%d/terms".formatted(basin)).expect(200).json();
    String opening =
        "{\"opening\": [{\"weekday\": %d, \"from\": \"08:00\", \"until\": \"11:00\"}]}"
            .formatted(on.getDayOfWeek().getValue());
    hana.put("/api/v1/places/%d/terms".formatted(basin), opening).expect(204);
    for (String how : List.of("{\"place\": %d, \"kind\"", "{\"uses\": [%d], \"kind\"")) {
      String early = job("Early", on, 8, 11, "").replace("{\"kind\"", how.formatted(basin));
      JsonNode open = hana.post("/api/v1/cover/trial", tried(early)).expect(200).json();
      assertThat(open.get("warns").size()).isZero();
      JsonNode shut =
          hana.post("/api/v1/cover/trial", tried(early.replace("T11:00", "T13:00")))
              .expect(200)
              .json();
      assertThat(shut.get("refused").size()).isZero();
      assertThat(shut.get("warns").toString()).contains("Osier Basin is closed", "11:00", "13:00");
      long kept = hana.record(early.replace("T11:00", "T13:00"));
      String title = "{\"record\": %d, \"change\": {\"title\": \"Later\"}}".formatted(kept);
      assertThat(hana.post("/api/v1/cover/trial", title).expect(200).json().get("warns").size())
          .as("what lay so before")
          .isZero();
    }
    ((ObjectNode) terms).remove("tag");
    hana.put("/api/v1/places/%d/terms".formatted(basin), terms.toString()).expect(204);
  }
}
