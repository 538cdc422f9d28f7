package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** What is settled for the crew and the house is told, taken back and done again, whole. */
public class SettledTest extends OnDemo {

  private static final String HOUR = "{\"weekday\": 1, \"from\": \"06:00\", \"until\": \"10:00\"}";

  private static final String HERS = "Ravi Thistlewood";

  private Api marguerite;
  private Api ines;
  private long person;
  private long team;
  private long place;
  private long region;

  @BeforeClass
  public void begin() {
    marguerite = Api.of(server, "marguerite");
    ines = Api.of(server, "ines");
    person = hana.idOf("people", "Ines Okafor");
    team = hana.idOf("teams", "Saltgate crew");
    place = hana.get("/api/v1/places").json().get(0).get("id").asLong();
    region = regionWithHolidays();
  }

  private String of(String path) {
    return path.replace("{person}", Long.toString(person))
        .replace("{team}", Long.toString(team))
        .replace("{place}", Long.toString(place));
  }

  /** The act that an answer names in its header. */
  private static long act(Api.Answer answer) {
    assertThat(answer.status()).as(answer.text()).isBetween(200, 299);
    assertThat(answer.header("Act")).matches("[0-9]+;kind=[a-z.-]+");
    return Long.parseLong(answer.header("Act").split(";")[0]);
  }

  private static Api.Answer undo(Api asker, long act) {
    return asker.post("/api/v1/acts/" + act + "/undo", "");
  }

  /** All that may be settled, as the coordinator is told it. */
  private Map<String, JsonNode> all() {
    Map<String, JsonNode> found = new TreeMap<>();
    for (String path :
        List.of(
            "/api/v1/people",
            "/api/v1/people/{person}/times",
            "/api/v1/people/{person}/skills",
            "/api/v1/teams",
            "/api/v1/places",
            "/api/v1/places/{place}/terms",
            "/api/v1/places/{place}/days",
            "/api/v1/house",
            "/api/v1/house/days",
            "/api/v1/regions",
            "/api/v1/duties",
            "/api/v1/limits",
            "/api/v1/margins",
            "/api/v1/calendars")) {
      found.put(path, hana.get(of(path)).expect(200).json());
    }
    return found;
  }

  private record Deed(String kind, Function<SettledTest, Api.Answer> done) {
    @Override
    public String toString() {
      return kind;
    }
  }

  private static Deed post(String kind, String path, String body) {
    return new Deed(kind, t -> t.hana.post(t.of(path), t.of(body)));
  }

  private static Deed put(String kind, String path, String body) {
    return new Deed(kind, t -> t.hana.put(t.of(path), t.of(body)));
  }

  private static Deed patch(String kind, String path, String body) {
    return new Deed(kind, t -> t.hana.patch(t.of(path), t.of(body)));
  }

  private static Deed delete(String kind, Function<SettledTest, String> path) {
    return new Deed(kind, t -> t.hana.delete(path.apply(t)));
  }

  private static final String DUTY =
      """
      {"name": "Ferry watch", "place": {place}, "role": 0, "skill": "boat",
       "spans": [{"weekdays": [1, 2], "from": "06:00", "until": "14:00", "count": 2}],
       "lifted": ["2026-12-25"],
       "others": [{"day": "2026-12-24", "from": "06:00", "until": "10:00",
                   "places": [{"skill": "boat"}, {}]}]}
      """;

  @DataProvider
  Object[][] deeds() {
    List<Deed> deeds =
        List.of(
            post("crew.person", "/api/v1/people", "{\"name\": \"Bram Oste\"}"),
            patch("crew.person", "/api/v1/people/{person}", "{\"name\": \"Ines Okafor-Reed\"}"),
            patch("crew.person", "/api/v1/people/{person}", "{\"standing\": \"AGENCY\"}"),
            patch(
                "crew.person",
                "/api/v1/people/{person}",
                "{\"right\": \"TEAM_COORDINATOR\", \"coordinates\": [{team}]}"),
            post("crew.team", "/api/v1/teams", "{\"name\": \"Ferries\"}"),
            patch("crew.team", "/api/v1/teams/{team}", "{\"name\": \"Locks and gates\"}"),
            post("crew.membership", "/api/v1/teams/{team}/members", "{\"person\": 1}"),
            delete("crew.membership", t -> t.member()),
            post("crew.place", "/api/v1/places", "{\"code\": \"FY\", \"name\": \"Ferry yard\"}"),
            patch(
                "crew.place",
                "/api/v1/places/{place}",
                "{\"code\": \"XX\", \"name\": \"Far off\"}"),
            put(
                "crew.skills",
                "/api/v1/people/{person}/skills",
                "{\"notAlone\": true, \"skills\": [{\"skill\": \"crane\", \"last\": \"2027-05-01\"}]}"),
            put("crew.hours", "/api/v1/people/{person}/hours", "{\"hours\": [" + HOUR + "]}"),
            put(
                "crew.hours",
                "/api/v1/people/{person}/days/2026-12-01",
                "{\"times\": [{\"from\": \"10:00\", \"until\": \"12:00\"}]}"),
            put(
                "crew.terms",
                "/api/v1/people/{person}/terms",
                "{\"zone\": \"Europe/Lisbon\", \"contractMinutes\": 1200}"),
            post(
                "crew.leave",
                "/api/v1/people/{person}/leave",
                "{\"first\": \"2026-12-21\", \"last\": \"2026-12-23\"}"),
            put(
                "house.place",
                "/api/v1/places/{place}/terms",
                "{\"capacity\": 3, \"latitude\": 52.5, \"longitude\": 1.25, \"ways\": [{\"to\": 2, \"minutes\": 17}]}"),
            put(
                "house.days",
                "/api/v1/places/{place}/days",
                "{\"week\": [\"SUNDAY\"], \"closures\": [{\"first\": \"2026-12-24\", \"last\": \"2026-12-26\", \"why\": \"frost\"}]}"),
            put(
                "house.days",
                "/api/v1/house/days",
                "{\"closures\": [{\"first\": \"2027-01-01\", \"last\": \"2027-01-01\", \"why\": \"new year\"}]}"),
            post("house.region", "/api/v1/regions", "{\"name\": \"Upper Reach\"}"),
            delete("house.region", t -> "/api/v1/regions/" + t.region),
            patch(
                "house.settle",
                "/api/v1/house",
                "{\"name\": \"Quillwater and Reach\", \"week\": [\"MONDAY\"]}"),
            put(
                "house.limits",
                "/api/v1/limits",
                "{\"periodWeeks\": 4, \"limits\": [{\"kind\": \"REST\", \"level\": \"NEVER\", \"amount\": 660}]}"),
            put(
                "house.margins",
                "/api/v1/margins",
                "{\"margins\": [{\"before\": 10}, {\"person\": {person}, \"after\": 20}]}"),
            put("crew.terms", "/api/v1/people/{person}/terms", "{\"lastDay\": \"2027-03-31\"}"),
            put(
                "crew.skills",
                "/api/v1/people/{person}/skills",
                "{\"skills\": [{\"skill\": \"weir\", \"first\": \"2027-02-01\"}]}"),
            post("duty.add", "/api/v1/duties", DUTY),
            delete(
                "duty.remove",
                t ->
                    "/api/v1/duties/"
                        + t.hana.get("/api/v1/duties").json().get(0).get("id").asLong()));
    return deeds.stream().map(deed -> new Object[] {deed}).toArray(Object[][]::new);
  }

  private String member() {
    for (JsonNode one : hana.get("/api/v1/teams").json()) {
      if (one.get("id").asLong() == team) {
        return "/api/v1/teams/" + team + "/members/" + one.get("members").get(0).get("id").asLong();
      }
    }
    throw new AssertionError("no such team");
  }

  /** One with holidays, in which nothing lies. */
  private long regionWithHolidays() {
    String name = "{\"name\": \"Lower Reach\"}";
    long id = hana.post("/api/v1/regions", name).expect(201).json().get("id").asLong();
    hana.put(
            "/api/v1/regions/" + id,
            """
            {"name": "Lower Reach",
             "holidays": [{"day": "2026-12-28", "name": "Reach Day", "half": true}]}
            """)
        .expect(204);
    return id;
  }

  @Test(dataProvider = "deeds")
  public void whatIsSettledIsTakenBackAndDoneAgain(Deed deed) {
    Map<String, JsonNode> before = all();
    Api.Answer answer = deed.done().apply(this);
    long act = act(answer);
    assertThat(answer.header("Act")).endsWith(";kind=" + deed.kind());
    Map<String, JsonNode> done = all();
    assertThat(done).isNotEqualTo(before);
    long undone = undo(hana, act).expect(200).json().get("act").asLong();
    assertThat(all()).isEqualTo(before);
    long again = undo(hana, undone).expect(200).json().get("act").asLong();
    assertThat(all()).isEqualTo(done);
    undo(hana, again).expect(200);
    assertThat(all()).isEqualTo(before);
    assertThat(undo(hana, act).expect(409).text()).contains("already undone");
  }

  /** Only what an act changed of a row is looked at, and others' changes of the same stay. */
  @Test
  public void whatSomebodyChangedSinceStays() {
    String path = of("/api/v1/places/{place}");
    JsonNode was = hana.get("/api/v1/places").json().get(0);
    long first = act(hana.patch(path, place("Q1", was.get("name").asString())));
    long second = act(hana.patch(path, place("Q2", was.get("name").asString())));
    long third = act(hana.patch(path, place("Q2", "Elsewhere")));
    assertThat(undo(hana, first).expect(409).text()).contains("has been changed since");
    undo(hana, second).expect(200);
    undo(hana, first).expect(200);
    JsonNode now = hana.get("/api/v1/places").json();
    assertThat(now.toString())
        .contains("\"code\":\"%s\",\"name\":\"Elsewhere\"".formatted(was.get("code").asString()));
    undo(hana, third).expect(200);
  }

  private static String place(String code, String name) {
    return "{\"code\": \"%s\", \"name\": \"%s\"}".formatted(code, name);
  }

  @Test
  public void whatIsNamedByNowIsNotTakenAway() {
    Api.Answer made = hana.post("/api/v1/people", "{\"name\": \"Odo Marrick\"}");
    long added = act(made);
    long record =
        hana.record(
            "{\"title\": \"Named\", \"people\": [{\"role\": 0, \"person\": %d}]}"
                .formatted(made.json().get("id").asLong()));
    assertThat(undo(hana, added).expect(409).text()).contains("Undo those changes first");
    hana.change(record, "{\"people\": []}");
    assertThat(undo(hana, added).expect(409).text()).as("history tells of them").contains("in-use");

    Api.Answer team = hana.post("/api/v1/teams", "{\"name\": \"Weirs\"}");
    String members = "/api/v1/teams/%d/members".formatted(team.json().get("id").asLong());
    long nobodyYet =
        hana.post("/api/v1/people", "{\"name\": \"Elke Vane\"}").json().get("id").asLong();
    long joined = act(hana.post(members, "{\"person\": %d}".formatted(nobodyYet)));
    assertThat(undo(hana, act(team)).expect(409).text()).contains("depends on this by now");
    undo(hana, joined).expect(200);
    undo(hana, act(team)).expect(200);
  }

  /** The hours of somebody whom Marguerite answers for. */
  private String hers() {
    return "/api/v1/people/" + hana.idOf("people", HERS) + "/hours";
  }

  @Test
  public void whoMayNoLongerSettleItTakesNothingBack() {
    String hours = "{\"hours\": [" + HOUR + "]}";
    long theirs = act(marguerite.put(hers(), hours));
    undo(ines, theirs).expect(404);
    undo(marguerite, theirs).expect(200);
    long hers = act(hana.put(hers(), hours));
    undo(marguerite, hers).expect(404);
    undo(hana, hers).expect(200);

    long asked = act(ines.post(of("/api/v1/people/{person}/leave"), "{\"first\": \"2027-01-11\"}"));
    undo(ines, asked).expect(200);
    assertThat(hana.get(of("/api/v1/people/{person}/times")).json().get("leave").toString())
        .doesNotContain("2027-01-11");

    long tam = hana.idOf("people", "Tam Birtles");
    String him = "/api/v1/people/" + tam;
    act(hana.patch(him, "{\"right\": \"COORDINATOR\"}"));
    Api other = Api.of(server, "tam");
    long renamed = act(other.patch(of("/api/v1/people/{person}"), "{\"name\": \"Ines O.\"}"));
    long down = act(other.patch(him, "{\"right\": \"WORKER\"}"));
    assertThat(undo(other, down).expect(403).text()).contains("Ask a coordinator");
    undo(other, renamed).expect(403);
    undo(hana, renamed).expect(200);
  }

  @Test
  public void aHouseKeepsACoordinator() {
    long wren = hana.idOf("people", "Wren Adeyemi");
    long me = hana.idOf("people", "Hana Vesely");
    long up = act(hana.patch("/api/v1/people/" + wren, "{\"right\": \"COORDINATOR\"}"));
    Api other = Api.of(server, "wren");
    long down = act(other.patch("/api/v1/people/" + me, "{\"right\": \"WORKER\"}"));
    assertThat(undo(other, up).expect(409).text()).contains("needs at least one coordinator");
    undo(other, down).expect(200);
    undo(hana, up).expect(200);
  }

  /** A file of people is taken back whole: who was added goes, who was there is as before. */
  @Test
  public void aFileOfPeopleIsTakenBack() {
    Map<String, JsonNode> before = all();
    String file = "No,Name,Teams,Skills\n1,Alva Reed,{team},boat\n2,Ines Okafor,{team},crane\n";
    ObjectNode sent = Api.JSON.createObjectNode().put("what", "PEOPLE").put("source", "staff");
    JsonNode read =
        hana.post(
                "/api/v1/files/read?what=PEOPLE",
                file.replace("{team}", "Saltgate crew"),
                "Content-Type",
                "text/csv")
            .expect(200)
            .json();
    ArrayNode fields = sent.putArray("fields");
    read.get("columns").forEach(column -> fields.add(column.get("field").asString()));
    sent.set("rows", read.get("rows"));
    Api.Answer taken = hana.post("/api/v1/files/take", sent.toString());
    Map<String, JsonNode> done = all();
    assertThat(done.get("/api/v1/people").toString()).contains("Alva Reed");
    long undone = undo(hana, act(taken)).expect(200).json().get("act").asLong();
    assertThat(all()).isEqualTo(before);
    undo(hana, undone).expect(200);
    assertThat(all()).isEqualTo(done);
  }

  @Test
  public void itIsToldWhoSettledWhat() {
    act(marguerite.put(hers(), "{\"hours\": []}"));
    long mine = act(hana.patch(of("/api/v1/places/{place}"), place("TL", "Told of")));
    JsonNode items = hana.get("/api/v1/settled").expect(200).json().get("items");
    assertThat(items.get(0).get("act").asLong()).isEqualTo(mine);
    assertThat(items.get(0).get("kind").asString()).isEqualTo("crew.place");
    assertThat(items.get(0).get("about").toString()).isEqualTo("[\"Told of\"]");
    assertThat(items.get(1).get("who").asString()).startsWith("Marguerite");
    assertThat(items.get(1).get("about").toString()).contains(HERS);
    undo(hana, mine).expect(200);
    items = hana.get("/api/v1/settled").json().get("items");
    assertThat(items.get(0).get("kind").asString()).isEqualTo("settled.undo");
    assertThat(items.get(1).get("undone").asBoolean()).isTrue();
    long oldest = items.get(items.size() - 1).get("act").asLong();
    for (JsonNode one :
        hana.get("/api/v1/settled?before=" + oldest).expect(200).json().get("items")) {
      assertThat(one.get("act").asLong()).isLessThan(oldest);
    }
    marguerite.get("/api/v1/settled").expect(403);
    ines.get("/api/v1/settled").expect(403);
  }

  /** What each is told as: its lines of label, before and after. */
  @DataProvider
  Object[][] told() {
    String named = "{\"name\": \"%s\"}";
    return new Object[][] {
      {
        put("", "/api/v1/people/{person}/terms", "{\"contractMinutes\": 2250}"),
        "Contracted hours a week: 48 h -> 37 h 30 min"
      },
      {
        put("", "/api/v1/people/{person}/skills", "{\"notAlone\": true, \"skills\": []}"),
        "Not qualified to work alone: no -> yes"
      },
      {
        put("", "/api/v1/people/{person}/days/2026-12-01", "{\"times\": []}"),
        "Hours on a day:  -> Tue 1 Dec 2026 day off"
      },
      {
        post(
            "",
            "/api/v1/people/{person}/leave",
            "{\"first\": \"2026-12-21\", \"last\": \"2026-12-23\", \"sick\": true}"),
        "Leave:  -> Mon 21 Dec 2026 – Wed 23 Dec 2026, sick"
      },
      {post("", "/api/v1/teams", named.formatted("Wharves")), "Team:  -> Wharves"},
      {
        patch("", "/api/v1/people/{person}", "{\"right\": \"TEAM_COORDINATOR\"}"),
        "Account: worker -> team coordinator"
      },
      {
        put(
            "",
            "/api/v1/limits",
            "{\"limits\": [{\"kind\": \"LONGEST\", \"level\": \"NEVER\", \"amount\": 690}]}"),
        "Limit: length of a shift: warn, 14 h -> length of a shift: block, 11 h 30 min"
      },
      {
        put(
            "",
            "/api/v1/places/{place}/days",
            "{\"closures\": [{\"first\": \"2026-12-24\", \"last\": \"2026-12-26\", \"why\": \"frost\"}]}"),
        "Closure:  -> from Thu 24 Dec 2026 until Sat 26 Dec 2026 frost"
      },
      {post("", "/api/v1/duties", DUTY), "Hours of the duty:  -> Mon, Tue 06:00 – 14:00, 2 people"},
      {
        post("", "/api/v1/duties", DUTY),
        "Other hours on a day:  -> Thu 24 Dec 2026 06:00 – 10:00, 2 people (boat, any)"
      },
      {
        put("", "/api/v1/margins", "{\"margins\": [{\"place\": {place}, \"before\": 15}]}"),
        "Margins:  -> Lock 1, Thornmere Flight: 15 min before"
      },
      {
        patch("", "/api/v1/house", "{\"week\": [\"TUESDAY\"]}"),
        "Working days: Mon, Tue, Wed, Thu, Fri -> Tue"
      }
    };
  }

  @Test(dataProvider = "told")
  public void whatChangedIsToldInWords(Deed deed, String line) {
    long act = act(deed.done().apply(this));
    JsonNode told = hana.get("/api/v1/settled").expect(200).json().get("items").get(0);
    assertThat(told.get("act").asLong()).isEqualTo(act);
    assertThat(told.get("lines").valueStream().map(SettledTest::words)).contains(line);
    undo(hana, act).expect(200);
    JsonNode back = hana.get("/api/v1/settled").json().get("items").get(0);
    String[] sides = line.split(": ", 2)[1].split(" -> ", -1);
    assertThat(back.get("lines").valueStream().map(SettledTest::words))
        .contains(line.split(": ")[0] + ": " + sides[1] + " -> " + sides[0]);
  }

  private static String words(JsonNode line) {
    return line.get("label").asString()
        + ": "
        + line.get("before").asString()
        + " -> "
        + line.get("after").asString();
  }

  /** What is only looked at is neither kept nor told. */
  @Test
  public void aLookSettlesNothing() {
    long before = hana.get("/api/v1/settled").json().get("items").path(0).path("act").asLong();
    Api.Answer look =
        hana.patch("/api/v1/house", "{\"name\": \"Looked at\"}", "Look-First", "true").expect(200);
    assertThat(look.header("Act")).isEmpty();
    assertThat(hana.get("/api/v1/settled").json().get("items").path(0).path("act").asLong())
        .isEqualTo(before);
  }
}
