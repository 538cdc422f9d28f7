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
    chain =
        hana.post(
                "/api/v1/chains",
                "{\"text\": " + JsonMapper.shared().writeValueAsString(TEXT) + "}")
            .expect(201)
            .json()
            .get("id")
            .asLong();
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

  /** The entries of a set's deadlines on Nell's and the master calendar, by calendar and UID. */
  private Map<String, String> served(JsonNode set) {
    Map<String, String> found = new TreeMap<>();
    for (String calendar : List.of("Deadlines")) {
      for (JsonNode step : set.get("steps")) {
        calendars
            .events(calendar, step.get("name").asString())
            .values()
            .forEach(event -> found.put(calendar + " " + event.getUid().getValue(), told(event)));
      }
    }
    return found;
  }

  private static String told(VEvent event) {
    return event.getSummary().getValue()
        + " "
        + event.getDateStart().getValue()
        + " "
        + Calendars.sequence(event);
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
    Map<String, String> before = served(made);
    System.out.println(before);
    // The work moves: its deadlines do not by themselves, but it is offered.
    JsonNode visit = hana.get("/api/v1/records/" + job).expect(200).json();
    hana.patch(
            "/api/v1/records/" + job,
            """
            {"visits": [{"no": 1, "start": "2028-05-24T08:00", "end": "2028-05-24T12:00",
              "zone": "Europe/London"}]}
            """,
            "If-Match",
            "*")
        .expect(200);
    JsonNode offered = set(id);
    assertThat(offered.get("offer").toString())
        .isEqualTo("{\"newerText\":false,\"keyDate\":true,\"changes\":5}");
    JsonNode moved =
        hana.post("/api/v1/deadline-sets/move", moving(offered, "")).expect(200).json();
    assertThat(steps(set(id)))
        .containsExactly(
            "call ecologist | RECKONED | 2028-05-10",
            "publish notice | RECKONED | 2028-05-17",
            "shut the gate | RECKONED | 2028-05-24T09:00",
            "check the gate | RECKONED | 2028-05-26",
            "report | RECKONED | 2028-05-29");
    System.out.println(served(set(id)));
    hana.post("/api/v1/acts/" + moved.get("act").asLong() + "/undo", "").expect(200);
    assertThat(steps(set(id))).isEqualTo(steps(made));
    JsonNode off = hana.post("/api/v1/deadline-sets/off", moving(set(id), "")).expect(200).json();
    hana.get("/api/v1/deadline-sets/" + id).expect(200);
    System.out.println(served(made));
    hana.post("/api/v1/acts/" + off.get("act").asLong() + "/undo", "").expect(200);
    assertThat(steps(set(id))).isEqualTo(steps(made));
    System.out.println(served(made));
  }
}
