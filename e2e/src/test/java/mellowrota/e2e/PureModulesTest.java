package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.ColorScheme;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.stream.LongStream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * What the front end computes, asked by tables: a page that holds its pure modules and nothing
 * else, on the Wednesday of the demo.
 */
public class PureModulesTest {

  private Playwright playwright;
  private Page page;

  @BeforeClass
  public void load() {
    playwright = Playwright.create();
    Browser browser = InBrowser.launch(playwright);
    page = InBrowser.window(browser, ColorScheme.LIGHT);
    page.navigate("about:blank");
    page.addScriptTag(
        new Page.AddScriptTagOptions().setPath(Path.of(Database.environment("MELLOW_TEST_PURE"))));
  }

  @AfterClass(alwaysRun = true)
  public void close() {
    playwright.close();
  }

  /** What a function answers, as JSON. */
  private JsonNode ask(String function, Object... with) {
    Object said =
        page.evaluate(
            "([name, text]) => JSON.stringify(pure[name](...JSON.parse(text)) ?? null)",
            List.of(function, Api.JSON.writeValueAsString(with)));
    return Api.JSON.readTree((String) said);
  }

  private static JsonNode json(String text) {
    return Api.JSON.readTree(text.replace('\'', '"'));
  }

  @DataProvider
  public Object[][] sick() {
    return new Object[][] {
      {"Tam sick", "Tam Birtles"},
      {"sick tam", "Tam Birtles"},
      {"Birtles is sick", "Tam Birtles"},
      {"sick Marguerite Pell", "Marguerite Pell"},
      {"Pell Ombury sick", "Pell Ombury"},
      {"sick pell", null},
      {"sick", null},
      {"sick notes", null},
      {"homesick", null},
    };
  }

  @Test(dataProvider = "sick")
  public void whoIsSickIsHeardWhereOnePersonFits(String line, String name) {
    List<Map<String, String>> people =
        List.of(
            Map.of("name", "Tam Birtles"),
            Map.of("name", "Marguerite Pell"),
            Map.of("name", "Pell Ombury"));
    assertThat(ask("whoIsSick", line, people).path("name").asString(null)).isEqualTo(name);
  }

  @DataProvider
  public Object[][] clocks() {
    return new Object[][] {
      {"8", "'08:00'"},
      {"08:30", "'08:30'"},
      {" 8.30 ", "'08:30'"},
      {"830", "'08:30'"},
      {"23:59", "'23:59'"},
      {"0:05", "'00:05'"},
      {"24:00", "null"},
      {"9:60", "null"},
      {"9:5", "null"},
      {"noon", "null"},
      {"", "null"},
    };
  }

  @Test(dataProvider = "clocks")
  public void aTimeOfDayIsReadAsPeopleTypeIt(String typed, String clock) {
    assertThat(ask("readClock", typed)).isEqualTo(json(clock));
  }

  @DataProvider
  public Object[][] dueTimes() {
    return new Object[][] {
      {"Fri 13:00", "{'at': '2026-11-27T13:00'}"},
      {"fri, 13.00", "{'at': '2026-11-27T13:00'}"},
      {"Wednesday", "{'date': '2026-11-25'}"},
      {"tomorrow 9", "{'at': '2026-11-26T09:00'}"},
      {"today", "{'date': '2026-11-25'}"},
      {"13:00", "{'at': '2026-11-25T13:00'}"},
      {"27 Nov 13:00", "{'at': '2026-11-27T13:00'}"},
      {"27 November", "{'date': '2026-11-27'}"},
      {"3 Mar", "{'date': '2027-03-03'}"},
      {"1 Nov", "{'date': '2026-11-01'}"},
      {"3 Mar 2028", "{'date': '2028-03-03'}"},
      {"2026-12-24", "{'date': '2026-12-24'}"},
      {"2026-12-24T18:30", "{'at': '2026-12-24T18:30'}"},
      {"", "null"},
      {"31 Nov", "null"},
      {"25:00", "null"},
      {"Fri 24", "null"},
      {"whenever", "null"},
      {"Fri 13:00 or so", "null"},
    };
  }

  @Test(dataProvider = "dueTimes")
  public void aDueTimeIsReadAsPeopleTypeIt(String typed, String due) {
    assertThat(ask("readDue", typed)).isEqualTo(json(due));
  }

  @DataProvider
  public Object[][] spans() {
    return new Object[][] {
      {"Wed 8-15", "{'start': '2026-11-25T08:00', 'end': '2026-11-25T15:00'}"},
      {"Fri 22:00 – 6", "{'start': '2026-11-27T22:00', 'end': '2026-11-28T06:00'}"},
      {"tomorrow 9", "{'start': '2026-11-26T09:00', 'end': '2026-11-26T11:00'}"},
      {"25 Nov 08:30 – 26 Nov 12:00", "{'start': '2026-11-25T08:30', 'end': '2026-11-26T12:00'}"},
      {"25 – 27 Nov", "{'first': '2026-11-25', 'last': '2026-11-27'}"},
      {"2026-12-01 – 2026-12-03", "{'first': '2026-12-01', 'last': '2026-12-03'}"},
      {"tomorrow", "{'first': '2026-11-26', 'last': '2026-11-26'}"},
      {"27 Nov – 25 Nov", "null"},
      {"Wed 8 - 9 - 10", "null"},
      {"Wed 8 to lunch", "null"},
    };
  }

  @Test(dataProvider = "spans")
  public void aSpanIsReadAsPeopleTypeIt(String typed, String span) {
    assertThat(ask("readSpan", typed, 120)).isEqualTo(json(span));
  }

  @DataProvider
  public Object[][] seeds() {
    return LongStream.range(0, Long.getLong("seeds", 30))
        .mapToObj(seed -> new Object[] {seed})
        .toArray(Object[][]::new);
  }

  @Test(dataProvider = "seeds")
  public void aSpanIsReadAgainAsItIsEdited(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    String first = "2026-12-%02d".formatted(random.nextInt(1, 15));
    String last = "2026-12-%02d".formatted(random.nextInt(15, 31));
    JsonNode span =
        random.nextBoolean()
            ? json("{'first': '%s', 'last': '%s'}".formatted(first, last))
            : json(
                "{'start': '%sT%02d:%02d', 'end': '%sT%02d:00'}"
                    .formatted(
                        first, random.nextInt(24), random.nextInt(60), last, random.nextInt(24)));
    String typed = ask("spanInput", span).asString();
    assertThat(ask("readSpan", typed, 60)).as(typed).isEqualTo(span);
  }

  @Test(dataProvider = "seeds")
  public void railsLieInRowsNoneOverAnother(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    List<Map<String, Object>> tickets = new ArrayList<>();
    for (int i = 0; i < random.nextInt(1, 40); i++) {
      int start = random.nextInt(1000);
      tickets.add(
          Map.of(
              "key",
              "t" + i,
              "shape",
              "ticket",
              "start",
              start,
              "end",
              start + random.nextInt(200)));
    }
    JsonNode rows =
        ask(
            "packRails",
            tickets,
            Map.of("edges", List.of(0, 1000), "dates", List.of("2026-12-01")));
    int laid = 0;
    for (JsonNode row : rows) {
      for (int i = 1; i < row.size(); i++) {
        assertThat(row.get(i).get("start").asInt())
            .isGreaterThanOrEqualTo(row.get(i - 1).get("end").asInt());
      }
      laid += row.size();
    }
    long lasting = tickets.stream().filter(t -> !t.get("start").equals(t.get("end"))).count();
    assertThat(laid).isEqualTo((int) lasting);
  }

  private static final String RECORD =
      """
      {"id": 7, "kind": "JOB", "isPrivate": false, "state": "CONFIRMED", "title": "Paddle",
       "due": {"at": "2026-11-27T13:00"}, "people": [{"role": 0, "person": 3, "name": "A"}],
       "visits": [{"no": 1, "start": "2026-11-26T08:00", "end": "2026-11-26T12:00"}],
       "tags": ["gate"], "estimateMinutes": 150, "leastHeadCount": 2, "details": [],
       "mayChange": ["title"]}
      """;

  @DataProvider
  public Object[][] edits() {
    return new Object[][] {
      {"{}", "{}"},
      {"{'title': 'Paddle stuck'}", "{'title': 'Paddle stuck'}"},
      {"{'due': 'Sat 9'}", "{'due': {'at': '2026-11-28T09:00'}}"},
      {"{'due': ''}", "{'due': null}"},
      {"{'tags': 'gate, dredge'}", "{'tags': ['gate', 'dredge']}"},
      {"{'numbers': {'estimateMinutes': '1,5', 'leastHeadCount': '2'}}", "{'estimateMinutes': 90}"},
      {
        "{'numbers': {'estimateMinutes': '', 'leastHeadCount': ''}}",
        "{'estimateMinutes': null, 'leastHeadCount': null}"
      },
      {"{'numbers': {'estimateMinutes': '2.5', 'leastHeadCount': '3'}}", "{'leastHeadCount': 3}"},
      {"{'isPrivate': true}", "{'private': true}"},
      {"{'lead': -2}", "{'people': [{'role': 0, 'team': 2}]}"},
      {"{'lead': null}", "{'people': []}"},
      {
        "{'support': [4, -2]}",
        "{'people': [{'role': 0, 'person': 3}, {'role': 1, 'person': 4}, {'role': 1, 'team': 2}]}"
      },
      {
        "{'others': {'2': [4], '3': [-2]}}",
        "{'people': [{'role': 0, 'person': 3}, {'role': 2, 'person': 4}, {'role': 3, 'team': 2}]}"
      },
    };
  }

  /**
   * Who is on it in which role, as people and teams; what the draft is changed to; what is sent.
   */
  @DataProvider
  public Object[][] holders() {
    String teams = "[{'role': 0, 'team': 2}, {'role': 3, 'team': 5}, {'role': 4, 'person': 3}]";
    return new Object[][] {
      {teams, "{}", "{}"},
      {teams, "{'lead': -2, 'others': {'3': [-5], '4': [3]}}", "{}"},
      {
        teams,
        "{'support': [3]}",
        "{'people': [{'role': 0, 'team': 2}, {'role': 1, 'person': 3}, {'role': 3, 'team': 5},"
            + " {'role': 4, 'person': 3}]}"
      },
      {
        teams,
        "{'others': {'3': [-5, 7]}}",
        "{'people': [{'role': 0, 'team': 2}, {'role': 3, 'team': 5}, {'role': 3, 'person': 7}]}"
      },
      // A second Lead has no field, and stays.
      {
        "[{'role': 0, 'person': 3}, {'role': 0, 'team': 2}]",
        "{'support': [4]}",
        "{'people': [{'role': 0, 'person': 3}, {'role': 1, 'person': 4}, {'role': 0, 'team': 2}]}"
      },
    };
  }

  @Test(dataProvider = "holders")
  public void whoIsOnItStaysAsItIsButForWhatWasChanged(String people, String typed, String change) {
    ObjectNode record = (ObjectNode) Api.JSON.readTree(RECORD);
    record.set("people", json(people));
    assertThat(changes(record, typed)).isEqualTo(json(change));
  }

  /** What the form sends once a draft of a record is changed so. */
  private JsonNode changes(JsonNode record, String typed) {
    Object said =
        page.evaluate(
            """
            ([record, typed]) => {
              const one = JSON.parse(record);
              const draft = { ...pure.draftOf(one), ...JSON.parse(typed) };
              return JSON.stringify(pure.changesOf(one, draft));
            }
            """,
            List.of(record.toString(), json(typed).toString()));
    return Api.JSON.readTree((String) said);
  }

  @Test(dataProvider = "edits")
  public void onlyWhatDiffersIsSent(String typed, String change) {
    JsonNode record = Api.JSON.readTree(RECORD);
    assertThat(changes(record, typed)).isEqualTo(json(change));
  }

  @Test
  public void aNewRecordSendsOnlyTheNumbersOfItsKind() {
    for (String kind : List.of("JOB", "TICKET")) {
      Object said =
          page.evaluate(
              """
              ([record, kind]) =>
                JSON.stringify(pure.newRecord({ ...pure.draftOf(JSON.parse(record)), kind }))
              """,
              List.of(RECORD, kind));
      JsonNode sent = Api.JSON.readTree((String) said);
      assertThat(sent.get("estimateMinutes").asInt()).isEqualTo(150);
      assertThat(sent.has("leastHeadCount")).as(kind).isEqualTo(kind.equals("JOB"));
    }
  }

  @DataProvider
  public Object[][] lines() {
    return new Object[][] {
      {"ticket Paddle stuck, Ines, by Fri 13:00", "kind title person due"},
      {"Paddle stuck, Ines Okafor", "title person"},
      {"job Lock 7 dredge, Thu 8-12", "kind place title span"},
      {"ticket Paddle, Nobody Known", "kind title fault"},
      {"ticket Paddle, by whenever", "kind title fault"},
      {"ticket Paddle stuck, Thornmere crew, by Fri 13:00", "kind title person due"},
      {"shift Keeper, Tam, Thornmere crew, Fri 7-19", "kind title person person span"},
      {"ticket Paddle stuck, Lock 7, Ines", "kind title place person"},
      {"ticket Lock 7 paddle stuck, Lock 7", "kind place title fault"},
      {"ticket Paddle, Thornmere", "kind title fault"},
      {"job Dredge, Ines, Fri 9-12, confirmed", "kind title person span state"},
      {"ticket Dredge, confirmed", "kind title fault"},
    };
  }

  @Test(dataProvider = "lines")
  public void aLineIsUnderstoodPieceByPiece(String line, String as) {
    JsonNode known =
        json(
            """
            {'people': [{'value': 3, 'label': 'Ines Okafor'}, {'value': 4, 'label': 'Tam Birtles'}],
             'places': [{'value': 9, 'label': 'Lock 7', 'code': 'L7'}],
             'teams': [{'value': -2, 'label': 'Thornmere crew'}], 'callers': false}
            """);
    List<String> said =
        ask("readShortLine", line, known)
            .get("parts")
            .valueStream()
            .map(part -> part.get("as").asString())
            .toList();
    assertThat(said).containsExactly(as.split(" "));
  }

  @DataProvider
  public Object[][] steps() {
    return new Object[][] {
      {0, 1, "['b', 'a', 'c']"},
      {2, -2, "['c', 'a', 'b']"},
      {0, -1, "['a', 'b', 'c']"},
      {2, 1, "['a', 'b', 'c']"},
    };
  }

  @Test(dataProvider = "steps")
  public void aRuleMovesByAStepAndNotOverTheEdge(int at, int step, String then) {
    assertThat(ask("moved", List.of("a", "b", "c"), at, step)).isEqualTo(json(then));
  }

  @Test
  public void aListIsJoinedByItsLastWord() {
    assertThat(ask("joined", List.of(), " or ").asString()).isEqualTo("…");
    assertThat(ask("joined", List.of("job"), " or ").asString()).isEqualTo("job");
    assertThat(ask("joined", List.of("job", "shift", "ticket"), " or ").asString())
        .isEqualTo("job, shift or ticket");
  }

  // ---- The text of a chain, written by picking
  // ---------------------------------------------------

  private static final String CHAIN =
      """
      # Read this aloud.
      chain: gate works  # of the flight
      key date: gate shuts

      5 days before gate shuts: "tell # all"   # by the board
      on gate shuts: shut it
      one day: no step
      """;

  @Test
  public void theStepsOfAChainAreItsLinesWithoutTheirComments() {
    assertThat(ask("linesOf", CHAIN).toString())
        .isEqualTo(
            "[{\"at\":4,\"text\":\"5 days before gate shuts: \\\"tell # all\\\"\"},"
                + "{\"at\":5,\"text\":\"on gate shuts: shut it\"}]");
    assertThat(ask("headerOf", CHAIN, "chain").asString()).isEqualTo("gate works");
    assertThat(ask("headerOf", CHAIN, "key date").asString()).isEqualTo("gate shuts");
    assertThat(ask("headerOf", CHAIN, "ask").asString()).isEmpty();
  }

  /** What was changed, and which line stands otherwise then; empty: it is gone. */
  @DataProvider
  public Object[][] chainEdits() {
    return new Object[][] {
      {
        "withHeader",
        new Object[] {"chain", "bridge works"},
        "chain: gate works  # of the flight",
        "chain: bridge works  # of the flight"
      },
      {
        "withHeader",
        new Object[] {"ask", "drained, public"},
        "key date: gate shuts\n",
        "key date: gate shuts\nask: drained, public\n"
      },
      {
        "withLine",
        new Object[] {4, "6 days before gate shuts: tell"},
        "5 days before gate shuts: \"tell # all\"   # by the board",
        "6 days before gate shuts: tell   # by the board"
      },
      {
        "withLine",
        new Object[] {null, "1 day after gate shuts: look"},
        "one day: no step\n",
        "one day: no step\n1 day after gate shuts: look\n"
      },
      {"withoutLine", new Object[] {5}, "on gate shuts: shut it\n", ""},
    };
  }

  @Test(dataProvider = "chainEdits")
  public void anEditLeavesAllOtherLinesAsTheyWereTyped(
      String edit, Object[] with, String before, String after) {
    List<Object> all = new ArrayList<>(List.of(CHAIN));
    all.addAll(Arrays.asList(with));
    assertThat(ask(edit, all.toArray()).asString()).isEqualTo(CHAIN.replace(before, after));
  }

  @Test
  public void withoutQuestionsThereIsNoLineForThem() {
    String asking = CHAIN.replace("gate shuts\n\n", "gate shuts\nask: drained\n\n");
    assertThat(ask("headerOf", asking, "ask").asString()).isEqualTo("drained");
    assertThat(ask("withHeader", asking, "ask", "").asString()).isEqualTo(CHAIN);
  }
}
