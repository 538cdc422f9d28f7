package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.component.VTodo;
import biweekly.io.TimezoneAssignment;
import biweekly.util.Duration;
import biweekly.util.Frequency;
import biweekly.util.Recurrence;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Date;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TimeZone;
import java.util.stream.Collectors;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Files that come in: read, looked at row by row, mended, taken once. */
public class IncomingTest extends OnDemo {

  private static final String HEADER =
      "Id,Kind,Title,Place,Team,Start,End,Zone,Due,Lead,Support,Tags,State,Private,"
          + "Minimum headcount,Phone,Parts,Estimate,People wanted,Skills wanted";
  private static final int ROWS = Integer.getInteger("file.rows", 600);
  private static final int AT_ONCE = 500;

  /** A file as somebody brings it: its columns as suggested, its rows, and where it comes from. */
  private final class Brought {
    private final JsonNode read;
    private final ObjectNode sent = Api.JSON.createObjectNode();

    Brought(String what, String source, byte[] file) {
      read =
          hana.sendBytes(
                  "POST", "/api/v1/files/read?what=" + what, file, "Content-Type", "text/csv")
              .expect(200)
              .json();
      sent.put("what", what).put("source", source);
      ArrayNode fields = sent.putArray("fields");
      read.get("columns").forEach(column -> fields.add(column.get("field").asString()));
      sent.set("rows", read.get("rows"));
    }

    Brought with(String name, String value) {
      sent.put(name, value);
      return this;
    }

    List<JsonNode> look() {
      return rows(hana.post("/api/v1/files/look", sent.toString()).expect(200).json());
    }

    /** Takes all of it, a part at a time, and gives what became of the rows. */
    List<JsonNode> take() {
      List<JsonNode> verdicts = new ArrayList<>();
      ArrayNode all = (ArrayNode) sent.get("rows");
      for (int from = 0; from < all.size(); from += AT_ONCE) {
        ObjectNode part = sent.deepCopy();
        ArrayNode some = part.putArray("rows");
        for (int i = from; i < Math.min(all.size(), from + AT_ONCE); i++) {
          some.add(all.get(i));
        }
        verdicts.addAll(rows(takePart(part)));
      }
      return verdicts;
    }

    JsonNode takePart(ObjectNode part) {
      return hana.post("/api/v1/files/take", part.toString()).expect(200).json();
    }

    List<String> notRead() {
      List<String> found = new ArrayList<>();
      read.get("notRead")
          .forEach(one -> found.add(one.get("what").asString() + ": " + one.get("why").asString()));
      return found;
    }

    /** The fault of a row at a column by its name. */
    String fault(JsonNode verdict, String column) {
      for (JsonNode fault : verdict.get("faults")) {
        boolean row = !fault.has("column");
        String at =
            row ? "" : read.get("columns").get(fault.get("column").asInt()).get("name").asString();
        if (at.equals(column)) {
          return fault.get("message").asString();
        }
      }
      return "no fault there, but " + verdict;
    }
  }

  /** Names of places may hold commas, so that a semicolon parts them. */
  @Test
  public void whatWorkUsesComesByName() {
    String file =
        """
        Title,Place,Also uses
        Tow it home,Osier Weir,"The barge; Lock 7, Thornmere Flight"
        Tow it out,Osier Weir,A raft
        """;
    Brought brought = new Brought("RECORDS", "what is used", file.getBytes(StandardCharsets.UTF_8));
    List<JsonNode> rows = brought.look();
    assertThat(rows.get(0).get("faults").size()).isZero();
    assertThat(brought.fault(rows.get(1), "Also uses")).contains("A raft");
    brought.take();
    assertThat(hana.get("/api/v1/records.csv?find=Tow").expect(200).text())
        .contains("Tow it home,Osier Weir,")
        .contains("The barge")
        .contains("Lock 7, Thornmere Flight");
  }

  private static List<JsonNode> rows(JsonNode answer) {
    List<JsonNode> found = new ArrayList<>();
    answer.get("rows").forEach(found::add);
    return found;
  }

  private Brought records(String source, String... lines) {
    return new Brought("RECORDS", source, csv(lines));
  }

  private static byte[] csv(String... lines) {
    return (HEADER + "\r\n" + String.join("\r\n", lines) + "\r\n").getBytes(StandardCharsets.UTF_8);
  }

  private static Map<String, Long> verdicts(List<JsonNode> rows) {
    return rows.stream()
        .collect(Collectors.groupingBy(r -> r.get("verdict").asString(), Collectors.counting()));
  }

  /** A row of the file with an id of its own, one cell changed. */
  private static String row(String id, Map<String, String> changed) {
    Map<String, String> cells =
        new HashMap<>(
            Map.of(
                "Id", id,
                "Kind", "ticket",
                "Title", "Clear trash screen " + id,
                "Place", "Lock 7, Thornmere Flight",
                "Due", "2027-02-01 12:00",
                "Lead", "Ines Okafor",
                "Phone", "0555 0170"));
    cells.putAll(changed);
    return List.of(HEADER.split(",")).stream()
        .map(column -> "\"" + cells.getOrDefault(column, "").replace("\"", "\"\"") + "\"")
        .collect(Collectors.joining(","));
  }

  /** What is changed in a good row, the column told, and words of what is told. */
  private static final Object[][] FAULTS = {
    {Map.of("Id", ""), "Id", "is missing; each row needs its own id"},
    {
      Map.of("Kind", "chore"), "Kind", "“chore” is not a kind; write job, ticket, shift or deadline"
    },
    {Map.of("Title", ""), "Title", "is missing; enter what is to be done"},
    {Map.of("Title", "x".repeat(201)), "Title", "is longer than 200 characters"},
    {Map.of("Title", "a\u0007b"), "Title", "cannot be saved, at position 2"},
    {Map.of("Place", "Lock 77"), "Place", "is not a known place"},
    {Map.of("Place", "Lock 7, Thornmere Fligt"), "Place", "did you mean Lock 7, Thornmere Flight"},
    {Map.of("Team", "Moon crew"), "Team", "is not a known team; add it first"},
    {Map.of("Lead", "Ines Okafr"), "Lead", "did you mean Ines Okafor?"},
    {
      Map.of("Support", "Tam Birtles; Nobody Real"),
      "Support",
      "“Nobody Real” is not a known person"
    },
    {Map.of("Support", "Tam Birtles, Tam Birtles"), "Support", "names somebody twice"},
    {Map.of("Due", "next Friday"), "Due", "is not a date; write 2026-11-27"},
    {Map.of("Due", "2027-02-30"), "Due", "is not in the calendar"},
    {Map.of("Due", "2027-02-01 25:00"), "Due", "is not a time"},
    {Map.of("Due", "03/04/2027"), "Due", "can be read in two ways"},
    {Map.of("Due", "1807-01-01"), "Due", "must be between 1990 and 2199"},
    {Map.of("Start", "2027-02-01 09:00"), "End", "has a start but no end"},
    {Map.of("End", "2027-02-01 09:00"), "Start", "has an end but no start"},
    {Map.of("Start", "2027-02-01 09:00", "End", "2027-02-01 08:00"), "End", "is before its start"},
    {Map.of("Start", "2027-02-01 09:00", "End", "2027-02-02"), "End", "must both have a time"},
    {
      Map.of("Start", "2027-02-01 09:00", "End", "2027-02-01 10:00", "Zone", "Moon/Sea"),
      "Zone",
      "must be a time zone such as Europe/London"
    },
    {Map.of("Kind", "shift", "Due", ""), "Start", "need a start and an end"},
    {Map.of("Kind", "deadline", "Due", ""), "Due", "a deadline needs a date or a time"},
    {
      Map.of("Kind", "deadline", "Start", "2027-02-01", "End", "2027-02-01"),
      "Start",
      "a deadline has only a due date or time"
    },
    {Map.of("State", "parked"), "State", "write draft, tentative, confirmed, done or cancelled"},
    {Map.of("Private", "perhaps"), "Private", "must be yes or no"},
    {
      Map.of("Kind", "job", "Minimum headcount", "two"),
      "Minimum headcount",
      "must be a whole number"
    },
    {Map.of("Minimum headcount", "2"), "Minimum headcount", "is for jobs"},
    {Map.of("Estimate", "long"), "Estimate", "must be a number of hours such as 2.5 or 2:30"},
    {Map.of("Estimate", "1001"), "Estimate", "from 0 to"},
    {Map.of("People wanted", "some"), "People wanted", "must be a whole number"},
    {Map.of("People wanted", "1000"), "People wanted", "must be from 1 to"},
    {
      Map.of("People wanted", "1", "Skills wanted", "sluice, gates"),
      "Skills wanted",
      "are more than the people"
    },
    {Map.of("Parts", "hinge pins"), "Parts", "a ticket has no parts"},
    {Map.of("Id", "x".repeat(121)), "Id", "is longer than 120 characters"},
  };

  @DataProvider
  public Object[][] faults() {
    return FAULTS;
  }

  @Test(dataProvider = "faults")
  public void aFaultIsToldAtItsCellWithARemedy(
      Map<String, String> changed, String column, String words) {
    Brought brought = records("faults", row("F-1", changed));
    JsonNode row = brought.look().get(0);
    assertThat(row.get("verdict").asString()).isEqualTo("FAULTY");
    assertThat(row.get("row").asInt()).isEqualTo(2);
    assertThat(brought.fault(row, column)).contains(words);
    assertThat(row.get("faults")).as("one fault, told once").hasSize(1);
  }

  @Test
  public void rowsThatClashWithOneAnotherOrTheHeaderAreTold() {
    Brought brought =
        records("clash", row("C-1", Map.of()), row("C-1", Map.of()), row("C-2", Map.of()) + ",x");
    List<JsonNode> rows = brought.look();
    assertThat(rows.get(0).get("verdict").asString()).isEqualTo("NEW");
    assertThat(brought.fault(rows.get(1), "Id")).contains("is also the id of row 2");
    assertThat(brought.fault(rows.get(2), "")).contains("has 21 cells, but the header has 20");
  }

  @Test
  public void theRestIsTakenOnceAndTheSameFileAgainChangesNothing() {
    List<String> lines = new ArrayList<>();
    int faulty = 0;
    for (int i = 0; i < ROWS; i++) {
      boolean bad = i % 33 == 7;
      Object[] fault = FAULTS[(i / 33) % FAULTS.length];
      @SuppressWarnings("unchecked")
      Map<String, String> changed = bad ? (Map<String, String>) fault[0] : Map.of();
      String due = LocalDate.of(2027, 4, 1).plusDays(i % 200) + "T09:00";
      Map<String, String> cells = new HashMap<>(Map.of("Due", due));
      cells.putAll(changed);
      lines.add(row("L-" + i, cells));
      faulty += bad ? 1 : 0;
    }
    Brought brought = records("ledger", lines.toArray(String[]::new));
    List<JsonNode> looked = brought.look();
    List<JsonNode> bad =
        looked.stream().filter(r -> r.get("verdict").asString().equals("FAULTY")).toList();
    assertThat(bad).hasSize(faulty);
    for (JsonNode row : bad) {
      int i = row.get("row").asInt() - 2;
      Object[] fault = FAULTS[(i / 33) % FAULTS.length];
      assertThat(i % 33).isEqualTo(7);
      assertThat(brought.fault(row, (String) fault[1])).contains((String) fault[2]);
    }
    assertThat(verdicts(brought.take()))
        .isEqualTo(Map.of("NEW", (long) ROWS - faulty, "FAULTY", (long) faulty));
    String state = state("ledger");
    assertThat(verdicts(brought.take()))
        .isEqualTo(Map.of("SAME", (long) ROWS - faulty, "FAULTY", (long) faulty));
    assertThat(state("ledger")).isEqualTo(state);
    assertThat(server.database().query("select count(*) from record where source = 'ledger'"))
        .containsExactly("" + (ROWS - faulty));
    JsonNode one = found("screen L-0");
    assertThat(one.get("due").get("at").asString()).isEqualTo("2027-04-01T09:00");
    assertThat(one.get("people").get(0).get("name").asString()).isEqualTo("Ines Okafor");
  }

  /** All that could have changed about the records of a source, in one text. */
  private String state(String source) {
    return server
        .database()
        .query(
            "select coalesce(sum(version), 0) || ' ' || (select count(*) from history h join"
                + " record r on r.id = h.record where r.source = '%1$s') || ' ' || (select"
                    .formatted(source)
                + " coalesce(sum(e.change_no), 0) from entry e join record r on r.id = e.record"
                + " where r.source = '%1$s') from record where source = '%1$s'".formatted(source))
        .toString();
  }

  private JsonNode found(String words) {
    JsonNode items =
        hana.get("/api/v1/records?find=" + words.replace(" ", "+")).expect(200).json().get("items");
    assertThat(items).as("records found by " + words).hasSize(1);
    return items.get(0);
  }

  @Test
  public void aLaterFileChangesOnlyWhatItSaysOtherwise() {
    records("later", row("P-1", Map.of("Title", "Prop the gate"))).take();
    long id = found("Prop the gate").get("id").asLong();
    hana.change(id, "{\"due\": {\"date\": \"2027-02-09\"}, \"details\": {\"notes\": \"ours\"}}");

    List<JsonNode> again = records("later", row("P-1", Map.of("Title", "Prop the gate"))).take();
    assertThat(verdicts(again)).isEqualTo(Map.of("SAME", 1L));
    Map<String, String> changed =
        Map.of("Title", "Prop the lower gate", "Lead", "", "Support", "Tam Birtles; Ines Okafor");
    assertThat(verdicts(records("later", row("P-1", changed)).take()))
        .isEqualTo(Map.of("CHANGED", 1L));

    JsonNode now = found("Prop the lower gate");
    assertThat(now.get("id").asLong()).isEqualTo(id);
    assertThat(now.get("due").get("date").asString())
        .as("moved here since")
        .isEqualTo("2027-02-09");
    assertThat(
            now.get("people")
                .valueStream()
                .map(p -> p.get("role").asInt() + p.get("name").asString()))
        .containsExactlyInAnyOrder("1Tam Birtles", "1Ines Okafor");
    assertThat(now.toString()).contains("ours");
  }

  @Test
  public void whoWasTakenOffHereIsNotPutBackByAFileThatNamesThemAsBefore() {
    Map<String, String> cells = Map.of("Title", "Seats of a file", "Support", "Tam Birtles");
    records("seats", row("Q-1", cells)).take();
    long id = found("Seats of a file").get("id").asLong();
    hana.change(id, "{\"people\": []}");
    Map<String, String> later = new HashMap<>(cells);
    later.put("Support", "Tam Birtles; Wren Adeyemi");
    records("seats", row("Q-1", later)).take();
    assertThat(
            found("Seats of a file").get("people").valueStream().map(p -> p.get("name").asString()))
        .containsExactly("Wren Adeyemi");
  }

  @Test
  public void whatIsUndoneIsTakenUpAgain() {
    Brought brought = records("undone", row("U-1", Map.of("Title", "Undo me once")));
    long act = brought.takePart(brought.sent).get("act").asLong();
    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(200);
    assertThat(found("Undo me once").get("state").asString()).isEqualTo("CANCELLED");
    assertThat(verdicts(brought.look())).isEqualTo(Map.of("CHANGED", 1L));
    brought.take();
    assertThat(found("Undo me once").get("state").asString()).isEqualTo("CONFIRMED");
    assertThat(verdicts(brought.look())).isEqualTo(Map.of("SAME", 1L));
  }

  @Test
  public void aFileIsTakenOnceUnderItsKey() {
    Brought brought = records("key", row("K-1", Map.of("Title", "Keyed row")));
    String body = brought.sent.toString();
    long first =
        hana.post("/api/v1/files/take", body, "Idempotency-Key", "rows-1")
            .expect(200)
            .json()
            .get("act")
            .asLong();
    JsonNode again =
        hana.post("/api/v1/files/take", body, "Idempotency-Key", "rows-1").expect(200).json();
    assertThat(again.get("act").asLong()).isEqualTo(first);
    assertThat(found("Keyed row").get("source")).isNull();
  }

  @DataProvider
  public Object[][] writings() {
    String plain = "Id;Title;Lead\nW-1;Häfen prüfen;Ines Okafor\n";
    return new Object[][] {
      {"UTF-8", plain.getBytes(StandardCharsets.UTF_8)},
      {"UTF-8", ("\ufeff" + plain).getBytes(StandardCharsets.UTF_8)},
      {"windows-1252", plain.getBytes(Charset.forName("windows-1252"))},
      {"UTF-16", ("\ufeff" + plain).getBytes(StandardCharsets.UTF_16LE)},
      {"UTF-8", plain.replace(';', '\t').getBytes(StandardCharsets.UTF_8)},
      {"UTF-8", plain.replace(';', ',').replace("\n", "\r\n").getBytes(StandardCharsets.UTF_8)},
    };
  }

  @Test(dataProvider = "writings")
  public void filesOfManyWritersAreRead(String written, byte[] file) {
    Brought brought = new Brought("RECORDS", "writings", file);
    assertThat(brought.read.get("written").asString()).isEqualTo(written);
    assertThat(brought.read.get("rows").get(0).get("cells").get(1).asString())
        .isEqualTo("Häfen prüfen");
    assertThat(verdicts(brought.look())).isEqualTo(Map.of("NEW", 1L));
  }

  @Test
  public void datesWithStrokesAreReadAsTheBringerSays() {
    Brought brought =
        records(
            "strokes", row("S-1", Map.of("Title", "Stroke dates", "Due", "03/04/2027 1:30 PM")));
    brought.with("strokes", "DAY_FIRST").take();
    assertThat(found("Stroke dates").get("due").get("at").asString()).isEqualTo("2027-04-03T13:30");
  }

  @Test
  public void whatIsNoFileIsRefusedAndABrokenRestIsTold() {
    Api.Answer sheet =
        hana.sendBytes(
            "POST",
            "/api/v1/files/read?what=RECORDS",
            new byte[] {'P', 'K', 3, 4, 0},
            "Content-Type",
            "application/octet-stream");
    assertThat(sheet.expect(422).text()).contains("Save it as CSV");
    Brought broken = records("broken", row("B-1", Map.of()), "\"B-2,ticket,never closed");
    assertThat(broken.sent.get("rows")).hasSize(1);
    assertThat(broken.notRead()).hasSize(1);
    assertThat(broken.notRead().get(0))
        .contains("row 3 and everything below it")
        .contains("quotation mark");
  }

  /** How long it takes and whom it wants, as far as the file says it. */
  @Test
  public void needsComeWithTheWork() {
    String start = "2027-02-01 09:00";
    String end = "2027-02-01 10:00";
    Map<String, String> first =
        Map.of(
            "Start",
            start,
            "End",
            end,
            "Estimate",
            "2:30",
            "People wanted",
            "3",
            "Skills wanted",
            "sluice; gates");
    Map<String, String> second = Map.of("Start", start, "End", end, "Skills wanted", "bridge");
    hana.warned();
    records("needs", row("N-1", first), row("N-2", second)).take();
    assertThat(needs("N-1")).isEqualTo("150 {\"people\":3,\"skills\":[\"gates\",\"sluice\"]}");
    assertThat(needs("N-2")).isEqualTo("null {\"people\":1,\"skills\":[\"bridge\"]}");
    Map<String, String> later = new HashMap<>(first);
    later.putAll(Map.of("Estimate", "1.25", "People wanted", "", "Skills wanted", ""));
    records("needs", row("N-1", later), row("N-2", second)).take();
    hana.minding("NEVER");
    assertThat(needs("N-1")).isEqualTo("75 null");
    assertThat(needs("N-2")).isEqualTo("null {\"people\":1,\"skills\":[\"bridge\"]}");
  }

  private static Map<String, String> at(String day, String from, String until) {
    return Map.of("Start", day + " " + from, "End", day + " " + until, "Due", "", "Kind", "job");
  }

  /** Of rows that are in each other's way, and in the way of what stands, the later wait. */
  @Test
  public void rowsThatWouldClashAreLeftUntilTheyAreMended() {
    String day = "2027-03-03";
    hana.record(
        """
        {"kind": "JOB", "title": "Stands already", "state": "CONFIRMED",
         "visits": [{"start": "2027-03-03T08:00", "end": "2027-03-03T10:00"}],
         "people": [{"role": 0, "person": %d}]}
        """
            .formatted(hana.idOf("people", "Ines Okafor")));
    Map<String, String> confirmed = Map.of("State", "confirmed");
    List<Map<String, String>> cells = new ArrayList<>();
    for (Map<String, String> times :
        List.of(
            at(day, "09:00", "11:00"),
            at(day, "10:00", "12:00"),
            at(day, "11:00", "13:00"),
            at(day, "12:00", "14:00"))) {
      Map<String, String> all = new HashMap<>(times);
      all.putAll(confirmed);
      cells.add(all);
    }
    Brought file =
        records(
            "clashing",
            row("C-1", cells.get(0)),
            row("C-2", cells.get(1)),
            row("C-3", cells.get(2)),
            row("C-4", cells.get(3)));
    List<JsonNode> look = file.look();
    assertThat(look.stream().map(one -> one.get("verdict").asString()))
        .containsExactly("FAULTY", "NEW", "FAULTY", "NEW");
    assertThat(file.fault(look.get(0), "")).contains("Ines Okafor already has other work");
    assertThat(verdicts(file.take())).isEqualTo(Map.of("FAULTY", 2L, "NEW", 2L));
    // The first is mended by another time, the third by somebody else.
    cells.get(0).putAll(at("2027-03-04", "09:00", "11:00"));
    cells.get(2).put("Lead", "Tam Birtles");
    List<JsonNode> mended =
        records(
                "clashing",
                row("C-1", cells.get(0)),
                row("C-2", cells.get(1)),
                row("C-3", cells.get(2)),
                row("C-4", cells.get(3)))
            .take();
    assertThat(mended.stream().map(one -> one.get("verdict").asString()))
        .containsExactly("NEW", "SAME", "NEW", "SAME");
  }

  private String needs(String id) {
    for (JsonNode one :
        hana.get("/api/v1/records?find=Clear+trash+screen+" + id).json().get("items")) {
      JsonNode record = hana.get("/api/v1/records/" + one.get("id").asLong()).json();
      return record.get("estimateMinutes") + " " + record.get("wants");
    }
    throw new AssertionError("no record of " + id);
  }

  /** What people can comes with its last day; what is said here stays. */
  @Test
  public void skillsComeWithPeople() {
    String people =
        "No,Name,Skills\r\n1,Pia Reedmace,\"sluice, bridge until 2027-03-01\"\r\n"
            + "2,Kit Sallow,bridge until soon\r\n";
    Brought brought = new Brought("PEOPLE", "able", people.getBytes(StandardCharsets.UTF_8));
    List<JsonNode> rows = brought.take();
    assertThat(brought.fault(rows.get(1), "Skills")).contains("such as 2027-03-01");
    String skills = "/api/v1/people/" + hana.idOf("people", "Pia Reedmace") + "/skills";
    assertThat(hana.get(skills).json().get("skills").toString())
        .isEqualTo("[{\"skill\":\"bridge\",\"last\":\"2027-03-01\"},{\"skill\":\"sluice\"}]");
    hana.put(
            skills,
            "{\"skills\": [{\"skill\": \"bridge\"}, {\"skill\": \"sluice\"}, {\"skill\": \"diver\"}]}")
        .expect(204);
    new Brought(
            "PEOPLE",
            "able",
            people
                .replace("sluice, bridge until 2027-03-01", "gates, bridge until 2027-04-01")
                .getBytes(StandardCharsets.UTF_8))
        .take();
    assertThat(hana.get(skills).json().get("skills").toString())
        .as("what the file named is as it says now, what was added here stays")
        .isEqualTo(
            "[{\"skill\":\"bridge\",\"last\":\"2027-04-01\"},{\"skill\":\"diver\"},"
                + "{\"skill\":\"gates\"}]");
  }

  @Test
  public void peopleAndPlacesComeInAndStayOne() {
    String people =
        "No,Name,Teams\r\n1,Ada Ferncliff,Thornmere crew\r\n2,Ines Okafor,\r\n3,Bo Marsh,No crew\r\n";
    Brought brought = new Brought("PEOPLE", "staff", people.getBytes(StandardCharsets.UTF_8));
    List<JsonNode> rows = brought.take();
    assertThat(rows.stream().map(r -> r.get("verdict").asString()))
        .containsExactly("NEW", "CHANGED", "FAULTY");
    assertThat(brought.fault(rows.get(2), "Teams")).contains("is not a known team");
    assertThat(verdicts(brought.take())).isEqualTo(Map.of("SAME", 2L, "FAULTY", 1L));
    long ada = hana.idOf("people", "Ada Ferncliff");
    assertThat(members("Thornmere crew")).contains(ada);
    new Brought(
            "PEOPLE",
            "staff",
            people
                .replace("Ada Ferncliff,Thornmere crew", "Ada Fernhill,Saltgate crew")
                .getBytes(StandardCharsets.UTF_8))
        .take();
    assertThat(hana.idOf("people", "Ada Fernhill")).isEqualTo(ada);
    assertThat(members("Thornmere crew")).doesNotContain(ada);
    assertThat(members("Saltgate crew")).contains(ada);

    String places =
        "Code,Name,Zone\r\nQX1,Quarry Staithe,Europe/London\r\nQX1,Other Staithe,\r\nQX2,Moon,Moon/Sea\r\n";
    Brought sites = new Brought("PLACES", "sites", places.getBytes(StandardCharsets.UTF_8));
    List<JsonNode> taken = sites.take();
    assertThat(verdicts(taken)).isEqualTo(Map.of("NEW", 1L, "FAULTY", 2L));
    assertThat(sites.fault(taken.get(1), "Code")).contains("is already the code of another place");
    assertThat(sites.fault(taken.get(2), "Zone")).contains("is not a time zone");
    assertThat(hana.idOf("places", "Quarry Staithe")).isPositive();
  }

  private List<Long> members(String team) {
    List<Long> found = new ArrayList<>();
    for (JsonNode one : hana.get("/api/v1/teams").json()) {
      if (one.get("name").asString().equals(team)) {
        one.get("members").forEach(m -> found.add(m.path("person").asLong(0)));
      }
    }
    return found;
  }

  @Test
  public void onlyTheOfficeBringsFilesAndATeamsOfficeOnlyForItsTeams() {
    Brought brought =
        records(
            "marguerite",
            row("M-1", Map.of("Title", "Hers", "Team", "Upper Quill crew", "Lead", "")),
            row("M-2", Map.of("Title", "Not hers", "Team", "Saltgate crew", "Lead", "")));
    Api ines = Api.of(server, "ines");
    ines.post("/api/v1/files/look", brought.sent.toString()).expect(403);
    ines.post("/api/v1/files/take", brought.sent.toString()).expect(403);
    ines.sendBytes("POST", "/api/v1/files/read?what=RECORDS", csv(), "Content-Type", "text/csv")
        .expect(403);
    Api marguerite = Api.of(server, "marguerite");
    List<JsonNode> rows =
        rows(marguerite.post("/api/v1/files/look", brought.sent.toString()).expect(200).json());
    assertThat(rows.get(0).get("verdict").asString()).isEqualTo("NEW");
    assertThat(brought.fault(rows.get(1), "")).contains("only for your teams");
    ObjectNode people = brought.sent.deepCopy();
    people.put("what", "PEOPLE").putArray("fields");
    people.putArray("rows");
    marguerite.post("/api/v1/files/look", people.toString()).expect(403);
  }

  /** Calendar files of three libraries that write them, with the same work in each. */
  @DataProvider
  public Object[][] calendarWriters() throws IOException {
    Path clients = Path.of("clients").toAbsolutePath();
    return new Object[][] {
      {"bw", biweekly(), "2027-03-01T09:00"},
      {"py", output(clients, "/usr/bin/python3", "write.py"), "2027-03-01T09:00"},
      {"js", output(clients, "node", "write.mjs"), "2027-03-01T09:00"},
    };
  }

  private static byte[] output(Path folder, String... command) throws IOException {
    Process process =
        new ProcessBuilder(command)
            .directory(folder.toFile())
            .redirectError(ProcessBuilder.Redirect.INHERIT)
            .start();
    return process.getInputStream().readAllBytes();
  }

  private static byte[] biweekly() {
    ICalendar calendar = new ICalendar();
    ZoneId london = ZoneId.of("Europe/London");
    calendar
        .getTimezoneInfo()
        .setDefaultTimezone(
            new TimezoneAssignment(TimeZone.getTimeZone("Europe/London"), "Europe/London"));
    VEvent timed = event("bw-1@office.example", "Grease the sluice; paint, too");
    timed.setLocation("Lock 7, Thornmere Flight");
    timed.setDescription("Bring the long brush.\nAnd gloves.");
    timed.setDateStart(date(london, 2027, 3, 1, 9, 0));
    timed.setDateEnd(date(london, 2027, 3, 1, 11, 30));
    calendar.addEvent(timed);
    VEvent days = event("bw-2@office.example", "Towpath closed");
    days.setDateStart(date(ZoneId.systemDefault(), 2027, 3, 2, 0, 0), false);
    days.setDateEnd(date(ZoneId.systemDefault(), 2027, 3, 4, 0, 0), false);
    days.addCategories("closure");
    calendar.addEvent(days);
    VEvent weekly = event("bw-3@office.example", "Weir reading");
    weekly.setDateStart(date(london, 2027, 3, 24, 9, 0));
    weekly.setDuration(Duration.builder().minutes(45).build());
    weekly.setRecurrenceRule(new Recurrence.Builder(Frequency.WEEKLY).count(3).build());
    calendar.addEvent(weekly);
    VTodo todo = new VTodo();
    todo.setUid("bw-4@office.example");
    todo.setSummary("Order hinge pins");
    todo.setDateDue(date(london, 2027, 3, 5, 16, 0));
    calendar.addTodo(todo);
    return Biweekly.write(calendar).go().getBytes(StandardCharsets.UTF_8);
  }

  private static VEvent event(String uid, String title) {
    VEvent event = new VEvent();
    event.setUid(uid);
    event.setSummary(title);
    return event;
  }

  private static Date date(ZoneId zone, int year, int month, int day, int hour, int minute) {
    return Date.from(LocalDateTime.of(year, month, day, hour, minute).atZone(zone).toInstant());
  }

  @Test(dataProvider = "calendarWriters")
  public void calendarsOfOtherProgramsComeIn(String writer, byte[] file, String start) {
    Brought brought = new Brought("RECORDS", "calendar " + writer, file);
    brought.with("kind", "JOB");
    assertThat(verdicts(brought.look())).as(brought.look().toString()).isEqualTo(Map.of("NEW", 6L));
    brought.take();
    assertThat(verdicts(brought.take())).isEqualTo(Map.of("SAME", 6L));
    Map<String, JsonNode> byId = new HashMap<>();
    server
        .database()
        .query("select source_id || '|' || id from record where source = 'calendar " + writer + "'")
        .forEach(
            row -> {
              String[] parts = row.split("\\|");
              byId.put(parts[0], hana.get("/api/v1/records/" + parts[1]).expect(200).json());
            });
    String uid = writer + "-%d@office.example";
    JsonNode timed = byId.get(uid.formatted(1));
    assertThat(timed.get("title").asString()).isEqualTo("Grease the sluice; paint, too");
    assertThat(timed.get("place").get("name").asString()).isEqualTo("Lock 7, Thornmere Flight");
    assertThat(timed.get("visits").get(0).get("start").asString()).isEqualTo(start);
    assertThat(timed.get("visits").get(0).get("end").asString()).isEqualTo("2027-03-01T11:30");
    assertThat(timed.toString()).contains("Bring the long brush.\\nAnd gloves.");
    JsonNode days = byId.get(uid.formatted(2));
    assertThat(days.get("visits").get(0).get("first").asString()).isEqualTo("2027-03-02");
    assertThat(days.get("visits").get(0).get("last").asString()).isEqualTo("2027-03-03");
    assertThat(days.get("tags").get(0).asString()).isEqualTo("closure");
    List<String> weekly =
        byId.entrySet().stream()
            .filter(e -> e.getKey().startsWith(uid.formatted(3)))
            .map(e -> e.getValue().get("visits").get(0).get("start").asString())
            .sorted()
            .toList();
    boolean utc = writer.equals("js");
    assertThat(weekly)
        .as("over the change of clocks on 28 March")
        .containsExactly(
            "2027-03-24T09:00",
            utc ? "2027-03-31T10:00" : "2027-03-31T09:00",
            utc ? "2027-04-07T10:00" : "2027-04-07T09:00");
    JsonNode todo = byId.get(uid.formatted(4));
    assertThat(todo.get("kind").asString()).isEqualTo("TICKET");
    assertThat(todo.get("due").get("at").asString()).isEqualTo("2027-03-05T16:00");
    if (writer.equals("py")) {
      assertThat(brought.notRead()).anyMatch(one -> one.startsWith("VALARM in 1 entry"));
    }
  }

  @Test
  public void whatACalendarHoldsBesidesIsListed() {
    String file =
        """
        BEGIN:VCALENDAR
        VERSION:2.0
        BEGIN:VTIMEZONE
        TZID:Office time
        BEGIN:STANDARD
        DTSTART:19700101T000000
        TZOFFSETFROM:+0300
        TZOFFSETTO:+0300
        END:STANDARD
        END:VTIMEZONE
        BEGIN:VEVENT
        UID:own-zone
        SUMMARY:In a zone of its own
        DTSTART;TZID=Office time:20270110T120000
        DTEND;TZID=Office time:20270110T130000
        GEO:1;2
        END:VEVENT
        BEGIN:VEVENT
        UID:broken
        SUMMARY:Broken
        DTSTART;=:;;20270110
        no colon here
        END:VEVENT
        BEGIN:VJOURNAL
        SUMMARY:Diary
        END:VJOURNAL
        BEGIN:VEVENT
        UID:ever
        SUMMARY:For ever
        DTSTART:20270111T080000Z
        DTEND:20270111T090000Z
        RRULE:FREQ=MONTHLY
        EXDATE:20270211T080000Z
        END:VEVENT
        BEGIN:VEVENT
        UID:ever
        RECURRENCE-ID:20270311T080000Z
        SUMMARY:For ever, but later
        DTSTART:20270311T100000Z
        DTEND:20270311T110000Z
        END:VEVENT
        BEGIN:VEVENT
        UID:odd
        SUMMARY:Odd date
        DTSTART:soon
        END:VEVENT
        END:VCALENDAR
        """
            .replace("\n", "\r\n");
    Brought brought = new Brought("RECORDS", "odd", file.getBytes(StandardCharsets.UTF_8));
    assertThat(brought.notRead())
        .anyMatch(one -> one.startsWith("VEVENT at line 18 “Broken”"))
        .anyMatch(one -> one.startsWith("VJOURNAL “Diary”"))
        .anyMatch(one -> one.startsWith("RRULE “For ever”: repeats without end"))
        .anyMatch(one -> one.startsWith("GEO in 1 entry"));
    List<String> starts =
        brought
            .read
            .get("rows")
            .valueStream()
            .filter(row -> row.get("cells").get(0).asString().startsWith("ever"))
            .map(row -> row.get("cells").get(4).asString())
            .sorted()
            .toList();
    assertThat(starts)
        .contains("2027-01-11T08:00", "2027-03-11T10:00", "2027-04-11T09:00")
        .doesNotContain("2027-02-11T08:00", "2027-03-11T08:00");
    JsonNode zoned = brought.read.get("rows").get(0).get("cells");
    assertThat(zoned.get(4).asString())
        .as("told in the house's zone")
        .isEqualTo("2027-01-10T09:00");
    JsonNode odd = brought.look().get(brought.sent.get("rows").size() - 1);
    assertThat(brought.fault(odd, "start")).contains("“soon” is not a date");
  }
}
