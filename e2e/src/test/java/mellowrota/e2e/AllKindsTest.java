package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Jobs with visits, shifts, deadlines: made, landed by the house's rules, changed, taken back. */
public class AllKindsTest {

  private Api hana;
  private Api ines;
  private long inesId;
  private long tamId;
  private long lock;

  @BeforeClass
  public void start() {
    Server server = Server.shared();
    hana = Api.of(server, "hana").warned();
    ines = Api.of(server, "ines");
    inesId = hana.idOf("people", "Ines Okafor");
    tamId = hana.idOf("people", "Tam Birtles");
    lock = hana.idOf("places", "Lock 5, Thornmere Flight");
  }

  private String job(String title, String more) {
    return """
        {"kind": "JOB", "title": "%s", "place": %d, "details": {"gate code": "9913",
         "contact": "D. Osei", "phone": "0555 0177", "parts": "two hinges", "notes": "mind the ice"},
         "visits": [{"start": "2027-04-05T08:00", "end": "2027-04-05T12:00", "before": 30, "after": 45},
                    {"start": "2027-04-07T22:00", "end": "2027-04-08T02:00"}],
         "people": [{"role": 0, "person": %d}, {"role": 1, "person": %d, "visit": 2}] %s}
        """
        .formatted(title, lock, inesId, tamId, more);
  }

  private Map<String, String> landings(long record) {
    Map<String, String> found = new TreeMap<>();
    hana.get("/api/v1/records/" + record + "/landings")
        .expect(200)
        .json()
        .get("lands")
        .forEach(
            l ->
                found.merge(
                    l.get("name").asString(),
                    l.get("family").asString() + " " + l.path("visit").asString("-"),
                    (one, other) -> one + ", " + other));
    return found;
  }

  @Test
  public void aJobBeginsAsADraftAndIsOnNoCalendar() {
    long record = hana.record(job("Draft job", ""));
    assertThat(landings(record)).isEmpty();
    assertThat(hana.get("/api/v1/records/" + record).text()).contains("\"DRAFT\"");
    hana.change(record, "{\"state\": \"CONFIRMED\"}");
    assertThat(landings(record))
        .isEqualTo(
            Map.of(
                "Ines Okafor, own", "WORK 1, WORK 2",
                "Tam Birtles, own", "WORK 2",
                "Thornmere crew, team", "WORK 1, WORK 2",
                "Saltgate crew, team", "WORK 2",
                "Lock 5, Thornmere Flight, place", "WORK 1, WORK 2",
                "Master", "WORK 1, WORK 2"));
  }

  @Test
  public void eachCalendarReadsAJobInItsOwnWords() {
    long record = hana.record(job("Worded job", ", \"state\": \"CONFIRMED\""));
    String ref = hana.get("/api/v1/records/" + record).json().get("ref").asString();
    Calendars calendars = new Calendars(ines);
    List<VEvent> own = new ArrayList<>(calendars.events("Ines Okafor, own", "Worded job").values());
    own.sort(java.util.Comparator.comparing(e -> e.getDateStart().getValue()));
    assertThat(own).hasSize(2);
    VEvent first = own.get(0);
    assertThat(first.getSummary().getValue())
        .isEqualTo(ref + " Worded job · Lock 5, Thornmere Flight");
    assertThat(first.getDescription().getValue())
        .isEqualTo(
            """
            Gate code 9913
            D. Osei
            0555 0177
            Parts: two hinges
            mind the ice

            The work itself: Mon 5 Apr 08:00 to 12:00""");
    assertThat(first.getDateStart().getValue()).hasToString("Mon Apr 05 06:30:00 UTC 2027");
    assertThat(first.getDateEnd().getValue()).hasToString("Mon Apr 05 11:45:00 UTC 2027");
    assertThat(first.getTransparency().getValue()).isEqualTo("OPAQUE");
    VEvent team =
        calendars.events("Thornmere crew, team", "Worded job").values().stream()
            .filter(e -> e.getSummary().getValue().contains("Tam"))
            .findFirst()
            .orElseThrow();
    assertThat(team.getSummary().getValue()).isEqualTo("Worded job · Ines Okafor, Tam Birtles");
    assertThat(team.getDescription()).isNull();
    VEvent place =
        calendars
            .events("Lock 5, Thornmere Flight, place", "Worded job")
            .values()
            .iterator()
            .next();
    assertThat(place.getSummary().getValue()).isEqualTo("Worded job");
    assertThat(place.getDateStart().getValue()).hasToString("Mon Apr 05 07:00:00 UTC 2027");
  }

  @Test
  public void aVisitGoesAndComesBackWithItsIdentity() {
    long record = hana.record(job("Visited", ", \"state\": \"CONFIRMED\""));
    Calendars calendars = new Calendars(ines);
    var before = calendars.events("Ines Okafor, own", "Visited").keySet();
    long act =
        hana.change(
            record,
            "{\"visits\": [{\"no\": 1, \"start\": \"2027-04-05T08:00\", \"end\": \"2027-04-05T12:00\"}]}");
    assertThat(calendars.events("Ines Okafor, own", "Visited")).hasSize(1);
    JsonNode view = hana.get("/api/v1/records/" + record).json();
    assertThat(view.get("visits").get(0).get("before").asInt()).as("margins stay").isEqualTo(30);
    hana.post("/api/v1/acts/" + act + "/undo", "").expect(200);
    assertThat(calendars.events("Ines Okafor, own", "Visited").keySet()).isEqualTo(before);
    assertThat(hana.get("/api/v1/records/" + record).json().get("people").toString())
        .contains("Tam Birtles");
  }

  @Test
  public void aJobUnderItsLeastHeadCountIsTentative() {
    long record =
        hana.record(job("Few hands", ", \"state\": \"CONFIRMED\", \"leastHeadCount\": 2"));
    Map<String, String> states = new TreeMap<>();
    new Calendars(ines)
        .events("Ines Okafor, own", "Few hands")
        .values()
        .forEach(
            e ->
                states.put(
                    e.getDateStart().getValue().toString().substring(0, 10),
                    e.getStatus().getValue()));
    assertThat(states).isEqualTo(Map.of("Mon Apr 05", "TENTATIVE", "Wed Apr 07", "CONFIRMED"));
    JsonNode visits = hana.get("/api/v1/records/" + record).json().get("visits");
    assertThat(visits.get(0).get("tentative").asBoolean()).isTrue();
    assertThat(visits.get(1).get("tentative").asBoolean()).isFalse();
  }

  @Test
  public void aShiftStandsOnWhoStandsItAndOnItsPlace() {
    long record =
        hana.record(
            """
            {"kind": "SHIFT", "title": "Night watch", "place": %d, "people": [{"role": 0, "person": %d}],
             "visits": [{"start": "2027-04-10T20:00", "end": "2027-04-11T08:00"}]}
            """
                .formatted(lock, inesId));
    assertThat(landings(record))
        .isEqualTo(
            Map.of("Ines Okafor, own", "WORK -", "Lock 5, Thornmere Flight, place", "WORK -"));
    VEvent own =
        new Calendars(ines).events("Ines Okafor, own", "Night watch").values().iterator().next();
    assertThat(own.getSummary().getValue()).isEqualTo("Night watch · Lock 5, Thornmere Flight");
    assertThat(own.getTransparency().getValue()).isEqualTo("OPAQUE");
  }

  @Test
  public void aDeadlineIsADueMarkInThreePlaces() {
    long record =
        hana.record(
            """
            {"kind": "DEADLINE", "title": "Tell the anglers", "due": {"date": "2027-04-12"},
             "people": [{"role": 0, "person": %d}]}
            """
                .formatted(inesId));
    assertThat(landings(record))
        .isEqualTo(
            Map.of("Ines Okafor, own", "DUE -", "Deadlines", "DUE -", "Master", "GIVEN_DUE -"));
    VEvent own =
        new Calendars(ines).events("Ines Okafor, own", "anglers").values().iterator().next();
    assertThat(own.getDateStart().getValue().hasTime()).isFalse();
    assertThat(own.getDateStart().getValue().toString()).contains("Apr 12");
  }

  @Test
  public void whatIsTaggedAsAClosureStandsOnClosures() {
    long record =
        hana.record(job("Shut for repairs", ", \"state\": \"CONFIRMED\", \"tags\": [\"closure\"]"));
    assertThat(landings(record)).containsEntry("Closures", "WORK 1, WORK 2");
    VEvent closure =
        new Calendars(hana).events("Closures", "Shut for repairs").values().iterator().next();
    assertThat(closure.getSummary().getValue()).isEqualTo("Shut for repairs");
    assertThat(closure.getTransparency().getValue()).isEqualTo("TRANSPARENT");
    assertThat(closure.getDescription()).isNull();
  }

  @Test
  public void exceptionsWithTheirReasons() {
    long master = hana.idOf("calendars", "Master");
    long closures = hana.idOf("calendars", "Closures");
    long record = hana.record(job("Excepted", ", \"state\": \"CONFIRMED\""));
    hana.change(
        record,
        """
        {"exceptions": [{"sort": "NEVER_HERE", "calendar": %d, "reason": "too small for it"},
                        {"sort": "ALSO_HERE", "calendar": %d, "visit": 1, "reason": "marina asked"}]}
        """
            .formatted(master, closures));
    assertThat(landings(record)).doesNotContainKey("Master").containsEntry("Closures", "WORK 1");
    String why = hana.get("/api/v1/records/" + record + "/landings").text();
    assertThat(why).contains("too small for it").contains("marina asked");
    assertThat(hana.get("/api/v1/records/" + record + "/history").text())
        .contains("never on Master: too small for it");
    hana.change(record, "{\"exceptions\": [{\"sort\": \"NOT_SENT\", \"reason\": \"asked\"}]}");
    assertThat(landings(record)).isEmpty();
  }

  @Test
  public void whatComesAgainIsARecordEachAndGoesTogether() {
    JsonNode made =
        hana.post(
                "/api/v1/records",
                """
                {"kind": "DEADLINE", "title": "Gear inspection", "due": {"date": "2027-01-31"},
                 "repeat": {"unit": "MONTHS", "times": 3}, "people": [{"role": 0, "person": %d}]}
                """
                    .formatted(inesId))
            .expect(201)
            .json();
    assertThat(made.get("records").size()).isEqualTo(3);
    List<String> days = new ArrayList<>();
    made.get("records")
        .forEach(
            id ->
                days.add(
                    hana.get("/api/v1/records/" + id.asLong())
                        .json()
                        .get("due")
                        .get("date")
                        .asString()));
    assertThat(days).containsExactly("2027-01-31", "2027-02-28", "2027-03-31");
    hana.post("/api/v1/acts/" + made.get("act").asLong() + "/undo", "").expect(200);
    assertThat(new Calendars(ines).events("Ines Okafor, own", "Gear inspection")).isEmpty();
  }

  @Test
  public void severalAreOneActOrNone() {
    long one = hana.record("{\"title\": \"First of two\"}");
    long two = hana.record("{\"title\": \"Second of two\"}");
    String items =
        """
        {"items": [{"record": %d, "ifMatch": "*", "change": {"title": "First changed"}},
                   {"record": %d, "ifMatch": "%s", "change": {"title": "Second changed"}},
                   {"like": %d, "make": {"title": "A third"}}]}
        """;
    Api.Answer refused =
        hana.post("/api/v1/records/several", items.formatted(one, two, "\\\"stale\\\"", one));
    assertThat(refused.status()).as(refused.text()).isEqualTo(412);
    assertThat(refused.json().get("item").asInt()).isEqualTo(1);
    assertThat(hana.get("/api/v1/records/" + one).text()).contains("First of two");
    JsonNode done =
        hana.post("/api/v1/records/several", items.formatted(one, two, "*", one))
            .expect(200)
            .json();
    assertThat(done.get("records").size()).isEqualTo(3);
    assertThat(hana.get("/api/v1/records/" + two).text()).contains("Second changed");
    hana.post("/api/v1/acts/" + done.get("act").asLong() + "/undo", "").expect(200);
    assertThat(hana.get("/api/v1/records/" + one).text()).contains("First of two");
    assertThat(hana.get("/api/v1/records/" + done.get("records").get(2).asLong()).text())
        .contains("CANCELLED");
  }

  @Test
  public void aLookTellsWhatWouldBeAndKeepsNothing() {
    long one = hana.record(job("Looked at", ", \"state\": \"CONFIRMED\""));
    String before = hana.get("/api/v1/records/" + one).text();
    String items =
        "{\"items\": [{\"record\": %d, \"ifMatch\": \"*\", \"change\": {\"state\": \"CANCELLED\"}}]}"
            .formatted(one);
    JsonNode look =
        hana.post("/api/v1/records/several", items, "Look-First", "true").expect(200).json();
    assertThat(look.get("takenOff").asInt()).isEqualTo(10);
    assertThat(look.get("calendars")).hasSize(6);
    assertThat(hana.get("/api/v1/records/" + one).text()).isEqualTo(before);
    assertThat(new Calendars(ines).events("Ines Okafor, own", "Looked at")).hasSize(2);
    JsonNode done = hana.post("/api/v1/records/several", items).expect(200).json();
    assertThat(done.get("entries")).as("as the look told").isEqualTo(look.get("takenOff"));
    assertThat(new Calendars(ines).events("Ines Okafor, own", "Looked at")).isEmpty();
  }

  @DataProvider
  Object[][] faults() {
    return new Object[][] {
      {"{\"kind\": \"SHIFT\", \"title\": \"x\"}", "/visits", "need a start and an end"},
      {"{\"kind\": \"DEADLINE\", \"title\": \"x\"}", "/due", "a deadline needs a date"},
      {"{\"kind\": \"JOB\"}", "/title", "is missing"},
      {
        "{\"title\": \"x\", \"visits\": [{\"start\": \"2027-01-01T08:00\", \"end\": \"2027-01-01T09:00\"},"
            + " {\"start\": \"2027-01-02T08:00\", \"end\": \"2027-01-02T09:00\"}]}",
        "/visits",
        "only a job"
      },
      {
        "{\"kind\": \"JOB\", \"title\": \"x\", \"visits\": [{\"start\": \"2027-01-01T08:00\", \"end\": \"2027-01-01T07:00\"}]}",
        "/visits/0/end",
        "before its start"
      },
      {
        "{\"kind\": \"JOB\", \"title\": \"x\", \"visits\": [{\"start\": \"2027-01-01T08:00\", \"first\": \"2027-01-01\"}]}",
        "/visits/0",
        "not both"
      },
      {
        "{\"kind\": \"JOB\", \"title\": \"x\", \"visits\": [{\"first\": \"2027-01-02\", \"last\": \"2027-01-01\"}]}",
        "/visits/0/last",
        "before the first day"
      },
      {
        "{\"kind\": \"JOB\", \"title\": \"x\", \"people\": [{\"role\": 0, \"person\": 1, \"visit\": 7}]}",
        "/people/0/visit",
        "not a visit of this record"
      },
      {
        "{\"title\": \"x\", \"exceptions\": [{\"sort\": \"NEVER_HERE\", \"reason\": \"y\"}]}",
        "/exceptions/0/calendar",
        "is not a calendar"
      },
      {"{\"title\": \"x\", \"leastHeadCount\": 2}", "/leastHeadCount", "is for jobs"},
      {
        "{\"title\": \"x\", \"repeat\": {\"unit\": \"WEEKS\", \"times\": 500}}",
        "/repeat/times",
        "from 1 to 200"
      },
      {
        "{\"title\": \"x\", \"dates\": [{\"name\": \"a\", \"date\": \"2027-01-01\"}, {\"name\": \"a\", \"date\": \"2027-01-02\"}]}",
        "/dates/1/name",
        "is listed twice"
      },
    };
  }

  @Test(dataProvider = "faults")
  public void faultsSayWhereAndWhat(String body, String pointer, String message) {
    JsonNode problem = hana.post("/api/v1/records", body).expect(422).json();
    assertThat(problem.get("faults").toString()).contains("\"" + pointer + "\"").contains(message);
  }

  @Test
  public void aLeadMovesTimesAndNobodyElseDoes() {
    long record = hana.record(job("Moved by whom", ", \"state\": \"CONFIRMED\""));
    String later =
        "{\"visits\": [{\"no\": 1, \"start\": \"2027-04-06T08:00\", \"end\": \"2027-04-06T12:00\"},"
            + " {\"no\": 2, \"start\": \"2027-04-07T22:00\", \"end\": \"2027-04-08T02:00\"}]}";
    ines.change(record, later);
    Api tam = Api.of(Server.shared(), "tam");
    tam.patch("/api/v1/records/" + record, later, "If-Match", "*").expect(403);
    assertThat(hana.get("/api/v1/records/" + record).text()).contains("2027-04-06T08:00");
  }
}
