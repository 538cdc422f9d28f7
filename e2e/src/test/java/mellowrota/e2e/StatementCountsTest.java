package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** How many statements the main readings and writings take, and that rows do not count. */
public class StatementCountsTest {

  private static final String WEEK = "?from=2026-11-30&until=2026-12-07";

  private Server server;
  private Api hana;

  @BeforeClass
  public void start() {
    server = Server.started(Database.demo(), "--mellow.test-statements=true");
    hana = Api.of(server, "hana");
  }

  @AfterClass(alwaysRun = true)
  public void stop() {
    server.close();
  }

  private static int statements(Api.Answer answer) {
    return Integer.parseInt(answer.header("Statements"));
  }

  private static String ticket(Api hana, String due) {
    ObjectNode body = Api.JSON.createObjectNode();
    body.put("kind", "TICKET").put("title", "Counted").put("state", "CONFIRMED");
    body.put("place", hana.idOf("places", "Osier Weir")).putObject("due").put("at", due);
    body.putArray("people")
        .addObject()
        .put("role", 0)
        .put("person", hana.idOf("people", "Ines Okafor"));
    return body.toString();
  }

  @Test
  public void aSaveOfATicketOnItsCalendars() {
    Api.Answer made = hana.post("/api/v1/records", ticket(hana, "2026-12-03T10:00")).expect(201);
    assertThat(made.json().get("entries").asInt()).as("entries of the ticket").isGreaterThan(3);
    assertThat(statements(made)).isLessThanOrEqualTo(15);
    long record = made.json().get("record").get("id").asLong();
    for (String change :
        new String[] {
          "{\"title\":\"Counted again\"}",
          "{\"due\":{\"at\":\"2026-12-04T10:00\"}}",
          "{\"state\":\"DONE\"}"
        }) {
      Api.Answer changed =
          hana.patch("/api/v1/records/" + record, change, "If-Match", "*").expect(200);
      assertThat(statements(changed)).as(change).isLessThanOrEqualTo(15);
    }
  }

  /** What is read, and at most how many statements it takes. */
  @DataProvider
  public Object[][] readings() {
    return new Object[][] {
      {"/api/v1/records?limit=100", 10},
      {"/api/v1/records?limit=100&find=osier", 13},
      {"/api/v1/board" + WEEK, 25},
      {"/api/v1/today", 40},
      {"/api/v1/cover" + WEEK, 35},
    };
  }

  @Test(dataProvider = "readings")
  public void aReadingTakesNoMoreForMoreRows(String path, int most) {
    // What is kept in memory is found there the second time.
    hana.get(path).expect(200);
    int few = statements(hana.get(path).expect(200));
    for (int i = 0; i < 12; i++) {
      hana.post("/api/v1/records", ticket(hana, "2026-12-03T%02d:00".formatted(8 + i))).expect(201);
    }
    hana.get(path).expect(200);
    int many = statements(hana.get(path).expect(200));
    assertThat(many).as(path).isEqualTo(few).isLessThanOrEqualTo(most);
  }

  @Test
  public void aListTakesAsManyForOneAsForAHundred() {
    hana.get("/api/v1/records").expect(200);
    Map<Integer, Integer> taken = new LinkedHashMap<>();
    for (int limit : new int[] {1, 10, 100}) {
      taken.put(limit, statements(hana.get("/api/v1/records?limit=" + limit).expect(200)));
    }
    assertThat(taken.values()).as("by limit: " + taken).containsOnly(taken.get(100));
  }

  @Test
  public void aPageOfDeadlineSetsTakesAsManyForTwoAsForAll() {
    hana.get("/api/v1/deadline-sets").expect(200);
    Map<Integer, Integer> taken = new LinkedHashMap<>();
    for (int limit : new int[] {2, 6, 12}) {
      taken.put(limit, statements(hana.get("/api/v1/deadline-sets?limit=" + limit).expect(200)));
    }
    assertThat(taken.values()).as("by limit: " + taken).allMatch(one -> one <= 25);
    assertThat(taken.get(12)).as("by limit: " + taken).isLessThanOrEqualTo(taken.get(2) + 1);
  }

  @Test
  public void aSyncTakesAsManyForOneChangeAsForAll() {
    String calendar = new Calendars(hana).href("Master");
    String all =
        "<D:sync-collection xmlns:D=\"DAV:\"><D:sync-token/><D:sync-level>1</D:sync-level>"
            + "<D:prop><D:getetag/></D:prop></D:sync-collection>";
    Api.Answer first = hana.dav("REPORT", calendar, all).expect(207);
    Api.Answer one =
        hana.dav(
            "REPORT",
            calendar,
            all.replace(
                "</D:sync-level>", "</D:sync-level><D:limit><D:nresults>1</D:nresults></D:limit>"));
    assertThat(statements(first)).isLessThanOrEqualTo(8);
    assertThat(statements(one)).isLessThanOrEqualTo(statements(first) + 1);
  }

  /** Of a few records by one rule, and of all by every rule. */
  @Test(priority = 1)
  public void aRoutingOfAllTakesHardlyMoreThanOfAFew() {
    Map<Integer, Integer> taken = new LinkedHashMap<>();
    for (int wordings : new int[] {1, 100}) {
      ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").expect(200).json();
      set.remove(List.of("counts", "fallback"));
      int left = wordings;
      for (JsonNode wording : set.get("wordings")) {
        if (left-- > 0) {
          ((ObjectNode) wording).put("title", wording.get("title").asString() + ".");
        }
      }
      set.put("looked", Looking.at(hana, set).get("looked").asString());
      Api.Answer answer = hana.post("/api/v1/rules/take", set.toString()).expect(200);
      assertThat(answer.json().get("work").asBoolean()).as("goes on in the background").isFalse();
      assertThat(answer.json().get("entries").asInt()).as("entries").isPositive();
      taken.put(answer.json().get("entries").asInt(), statements(answer));
    }
    List<Integer> counts = List.copyOf(taken.values());
    assertThat(counts.get(1)).as("by entries: " + taken).isLessThanOrEqualTo(counts.get(0) + 12);
  }
}
