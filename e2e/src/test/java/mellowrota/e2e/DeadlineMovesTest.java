package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Moves of a set of deadlines as the table in {@code deadline-moves.txt} has them: what the look
 * says, what then stands, what a calendar program reads, and that undo gives the start.
 */
public class DeadlineMovesTest extends OnDemo {

  private static final String TEXT =
      """
      chain: gate works %d
      key date: gate shuts
      ask: drained

      10 working days before gate shuts: call the ecologist; only if drained
      5 days before gate shuts, by chosen method: publish notice
      on gate shuts, at 09:00: shut the gate
      2 working days after gate shuts: check the gate
      3 days after check the gate: report
      24 hours before shut the gate, on any day: walk the bank
      """;

  private static final Map<String, String> START = new LinkedHashMap<>();

  static {
    START.put("call the ecologist", "2028-05-03");
    START.put("publish notice", "2028-05-10");
    START.put("shut the gate", "2028-05-17T09:00");
    START.put("check the gate", "2028-05-19");
    START.put("report", "2028-05-22");
    START.put("walk the bank", "2028-05-16T09:00");
  }

  private Calendars calendars;
  private String deadlines;
  private final Map<Long, String> refs = new HashMap<>();
  private int made;

  /** A row of the table. */
  private record Row(String name, List<String> first, String move, List<Wanted> lines) {
    @Override
    public String toString() {
      return name;
    }
  }

  /** What is wanted of a step; whether its SEQUENCE rises. */
  private record Wanted(String step, String told, boolean rises) {}

  @DataProvider
  public Object[][] moves() throws IOException {
    String table;
    try (InputStream in = getClass().getResourceAsStream("/deadline-moves.txt")) {
      table = new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
    List<Object[]> rows = new ArrayList<>();
    String[] parts = table.split("\n== ");
    for (int i = 1; i < parts.length; i++) {
      rows.add(new Object[] {row(parts[i])});
    }
    assertThat(rows).hasSizeGreaterThanOrEqualTo(60);
    return rows.toArray(Object[][]::new);
  }

  private static Row row(String text) {
    List<String> lines = text.strip().lines().toList();
    List<String> first = List.of();
    String move = "";
    List<Wanted> wanted = new ArrayList<>();
    for (String line : lines.subList(1, lines.size())) {
      if (line.startsWith("first: ")) {
        // A text holds semicolons of its own.
        first = List.of(line.substring(7).split("; (?!only)"));
      } else if (line.startsWith("move: ")) {
        move = line.substring(6);
      } else {
        int colon = line.indexOf(": ");
        String told = line.substring(colon + 2);
        boolean rises = told.endsWith(" (+)") || told.startsWith("MOVED");
        wanted.add(
            new Wanted(line.substring(0, colon), told.replaceAll(" \\([+=]\\)$", ""), rises));
      }
    }
    return new Row(lines.get(0), first, move, wanted);
  }

  @BeforeClass
  public void begin() {
    calendars = new Calendars(hana);
    deadlines = calendars.href("Deadlines");
    hana.put(
            "/api/v1/notice-methods",
            """
            {"methods": [{"name": "post", "number": 2, "unit": "WORKING_DAYS"},
              {"name": "hand", "number": 0, "unit": "DAYS"}]}
            """)
        .expect(204);
  }

  /** One set, with what it takes to change it. */
  private final class Set {
    final long place;
    final long chain;
    final long id;
    String text;

    Set() {
      int no = ++made;
      text = TEXT.formatted(no);
      place =
          made("/api/v1/places", "{\"code\": \"GW%d\", \"name\": \"Gate %d\"}".formatted(no, no));
      chain = made("/api/v1/chains", text());
      id =
          hana.post(
                  "/api/v1/deadline-sets",
                  """
                  {"sets": [{"chain": %d, "place": %d, "keyDate": {"at": "2028-05-17T08:00"},
                    "method": "post", "answers": [{"question": "drained", "yes": true}]}]}
                  """
                      .formatted(chain, place))
              .expect(201)
              .json()
              .get("sets")
              .get(0)
              .asLong();
    }

    private long made(String path, String body) {
      return hana.post(path, body).expect(201).json().get("id").asLong();
    }

    private String text() {
      return "{\"text\": " + JsonMapper.shared().writeValueAsString(text) + "}";
    }

    JsonNode now() {
      return hana.get("/api/v1/deadline-sets/" + id).expect(200).json();
    }

    Map<String, String> dates() {
      Map<String, String> found = new LinkedHashMap<>();
      now().get("steps").forEach(one -> found.put(one.get("name").asString(), due(one, "date")));
      return found;
    }

    private long record(String step) {
      for (JsonNode one : now().get("steps")) {
        if (one.get("name").asString().equals(step)) {
          return one.get("record").asLong();
        }
      }
      throw new AssertionError("no step " + step);
    }

    private void patch(String step, String body) {
      hana.patch("/api/v1/records/" + record(step), body, "If-Match", "*").expect(200);
    }

    /** Does one thing beforehand. */
    void first(String what) {
      String[] words = what.split(" ", 2);
      String rest = words.length > 1 ? words[1] : "";
      switch (words[0]) {
        case "done" -> patch(rest, "{\"state\": \"DONE\"}");
        case "undone" -> patch(rest, "{\"state\": \"CONFIRMED\"}");
        case "cancel" -> patch(rest, "{\"state\": \"CANCELLED\"}");
        case "drag" -> {
          int space = rest.lastIndexOf(' ');
          patch(
              rest.substring(0, space),
              "{\"due\": {\"date\": \"%s\"}}".formatted(rest.substring(space + 1)));
        }
        case "close" -> {
          String[] days = rest.split(" ");
          closures(
              "{\"first\": \"%s\", \"last\": \"%s\", \"why\": \"Regatta\"}"
                  .formatted(days[0], days[1]));
        }
        case "open" -> closures("");
        case "text" -> {
          String[] sides = rest.replace("/", "\n").split(" => ");
          text = text.replace(sides[0], sides[1]);
          hana.put("/api/v1/chains/" + chain, text(), "If-Match", "*").expect(204);
        }
        default -> move(what);
      }
    }

    private void closures(String closure) {
      hana.put(
              "/api/v1/places/%d/days".formatted(place),
              "{\"closures\": [%s]}".formatted(closure),
              "If-Match",
              "*")
          .expect(204);
    }

    /** The act, or nothing where it changed nothing. */
    JsonNode move(String moves) {
      return hana.post("/api/v1/deadline-sets/move", body(moves)).expect(200).json();
    }

    String body(String moves) {
      List<String> fields = new ArrayList<>();
      List<String> steps = new ArrayList<>();
      for (String one : moves.split("; ")) {
        String[] words = one.split(" ", 2);
        String rest = words.length > 1 ? words[1] : "";
        int space = rest.lastIndexOf(' ');
        String last = rest.substring(space + 1);
        switch (words[0]) {
          case "anew" -> {}
          case "newest" -> fields.add("\"newest\": true");
          case "key" -> fields.add("\"keyDate\": " + date(rest));
          case "method" ->
              fields.add("\"method\": " + (rest.equals("none") ? "null" : '"' + rest + '"'));
          case "answer" ->
              fields.add(
                  "\"answers\": [{\"question\": \"%s\", \"yes\": %s}]"
                      .formatted(
                          rest.substring(0, space),
                          last.equals("none") ? "null" : last.equals("yes")));
          case "hand" -> steps.add(step(rest.substring(0, space), "\"date\": " + date(last)));
          case "chain" -> steps.add(step(rest, "\"date\": null"));
          case "out" -> steps.add(step(rest, "\"leftOut\": true"));
          case "in" -> steps.add(step(rest, "\"leftOut\": false"));
          case "keep" -> steps.add(step(rest, "\"keep\": true"));
          default -> throw new AssertionError(one);
        }
      }
      if (!steps.isEmpty()) {
        fields.add("\"steps\": [" + String.join(", ", steps) + "]");
      }
      fields.add(0, "\"set\": " + id);
      fields.add(1, "\"ifMatch\": " + now().get("tag"));
      return "{\"sets\": [{" + String.join(", ", fields) + "}]}";
    }

    private static String step(String name, String what) {
      return "{\"step\": \"%s\", %s}".formatted(name, what);
    }

    private static String date(String text) {
      return text.equals("none")
          ? "null"
          : "{\"%s\": \"%s\"}".formatted(text.contains("T") ? "at" : "date", text);
    }

    /** Its entries as a calendar program has them, by step. */
    Map<String, VEvent> served() {
      Map<String, String> refs = new HashMap<>();
      for (JsonNode one : now().get("steps")) {
        if (one.has("record")) {
          refs.put(ref(one.get("record").asLong()), one.get("name").asString());
        }
      }
      Map<String, VEvent> found = new HashMap<>();
      for (String text : calendars.sync(deadlines, "").live().values()) {
        String summary = Calendars.line(text, "SUMMARY");
        refs.forEach(
            (ref, step) -> {
              if (summary.contains(ref)) {
                found.put(step, Calendars.event(text));
              }
            });
      }
      return found;
    }
  }

  private String ref(long record) {
    return refs.computeIfAbsent(
        record,
        id -> hana.get("/api/v1/records/" + id).expect(200).json().get("ref").asString() + " ");
  }

  private static String due(JsonNode one, String field) {
    JsonNode due = one.path(field);
    return due.has("date")
        ? due.get("date").asString()
        : due.has("at") ? due.get("at").asString().substring(0, 16) : "-";
  }

  private static String told(JsonNode line) {
    String told =
        line.get("kind").asString() + " " + due(line, "before") + " > " + due(line, "after");
    if (line.get("past").asBoolean()) {
      told += " past";
    }
    if (line.has("off")) {
      told += " off";
    }
    for (JsonNode other : line.get("sameDay")) {
      told += " same " + other.asString();
    }
    return told;
  }

  private static int sequence(VEvent event) {
    return event == null ? -1 : Calendars.sequence(event);
  }

  @Test(dataProvider = "moves")
  public void asTheTableHasIt(Object given) {
    Row row = (Row) given;
    Set set = new Set();
    assertThat(set.dates()).isEqualTo(START);
    Map<String, Integer> lastServed = new HashMap<>();
    Map<String, String> uids = new HashMap<>();
    set.served()
        .forEach(
            (step, event) -> {
              lastServed.put(step, sequence(event));
              uids.put(step, event.getUid().getValue());
            });
    for (String one : row.first()) {
      set.first(one);
      set.served().forEach((step, event) -> lastServed.put(step, sequence(event)));
    }
    Map<String, String> before = set.dates();
    String body = set.body(row.move());
    JsonNode look = hana.post("/api/v1/deadline-sets/move/look", body).expect(200).json();
    Map<String, Wanted> wanted = new LinkedHashMap<>();
    row.lines().forEach(line -> wanted.put(line.step(), line));
    for (JsonNode line : look.get("sets").get(0).get("lines")) {
      String step = line.get("step").asString();
      Wanted one = wanted.remove(step);
      if (one == null) {
        assertThat(line.get("kind").asString()).as(step).isEqualTo("UNCHANGED");
        assertThat(due(line, "after")).as(step).isEqualTo(before.get(step));
      } else {
        String full = one.told().replaceAll(" (?=\\d\\d-\\d\\d)", " 2028-");
        assertThat(told(line)).as(step).isEqualTo(full);
      }
    }
    assertThat(wanted).as("steps that the look does not have").isEmpty();
    JsonNode done = hana.post("/api/v1/deadline-sets/move", body).expect(200).json();
    Map<String, VEvent> served = set.served();
    for (JsonNode line : look.get("sets").get(0).get("lines")) {
      String step = line.get("step").asString();
      if (line.get("kind").asString().equals("DONE")) {
        assertThat(set.dates()).containsEntry(step, due(line, "before"));
      } else if (line.has("after")) {
        assertThat(set.dates()).as("as it was looked at").containsEntry(step, due(line, "after"));
        VEvent event = served.get(step);
        boolean rises =
            row.lines().stream().anyMatch(one -> one.step().equals(step) && one.rises());
        assertThat(sequence(event))
            .as("SEQUENCE of " + step)
            .isEqualTo(lastServed.getOrDefault(step, 0) + (rises ? 1 : 0));
        if (uids.containsKey(step)) {
          assertThat(event.getUid().getValue()).isEqualTo(uids.get(step));
        }
      } else {
        assertThat(served).as("without a date it stands nowhere").doesNotContainKey(step);
      }
    }
    if (done.get("sets").isEmpty()) {
      return;
    }
    hana.post("/api/v1/acts/" + done.get("act") + "/undo", "").expect(200);
    assertThat(set.dates()).as("undo gives what stood before").isEqualTo(before);
    set.served()
        .forEach(
            (step, event) ->
                assertThat(event.getUid().getValue()).isEqualTo(uids.getOrDefault(step, "")));
  }
}
