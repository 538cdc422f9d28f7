package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Details that hold numbers, amounts, days and the like: kept, said, found and tested as such. */
public class DetailValuesTest extends OnDemo {

  private static final Map<String, String> SORTS =
      Map.of(
          "boats", "NUMBER", "price", "MONEY", "survey", "DATE", "mail", "MAIL", "lit", "YES_NO");

  private final Map<String, Long> records = new LinkedHashMap<>();

  @BeforeClass
  public void define() {
    ObjectNode set = set();
    ArrayNode details = (ArrayNode) set.get("details");
    SORTS.forEach(
        (key, sort) -> {
          ObjectNode one = details.addObject();
          one.put("key", key)
              .put("label", key.toUpperCase(java.util.Locale.ROOT).charAt(0) + key.substring(1));
          one.put("sort", sort).putArray("choices");
          one.putArray("kinds").add("TICKET").add("JOB");
          one.putArray("states");
          one.putObject("for").put("office", true).put("crew", key.equals("boats"));
          switch (sort) {
            case "NUMBER" -> one.put("unit", "boats");
            case "MONEY" -> one.put("unit", "EUR");
            default -> {}
          }
        });
    ArrayNode wordings = (ArrayNode) set.get("wordings");
    wordings
        .addObject()
        .put("id", 9001)
        .put("fresh", true)
        .put("name", "Moored")
        .put("title", "{title}")
        .put("place", "")
        .put("text", "[{boats}][ · {price}][ · {survey}]")
        .putArray("categories");
    ObjectNode rule = ((ArrayNode) set.get("rules")).insertObject(0);
    rule.put("on", true).put("as", "AS_IT_COMES").put("wording", 9001).put("whenDone", "COMES_OFF");
    rule.putObject("when")
        .putArray("all")
        .addObject()
        .putArray("over")
        .add("boats")
        .add("20 boats");
    rule.putArray("lands").addObject().putArray("ownOf").add(0);
    set.put("looked", Looking.at(hana, set).get("looked").asString());
    hana.post("/api/v1/rules/take", set.toString()).expect(200);
    keep("many", "{\"boats\": \"31\", \"price\": \"EUR 1200\", \"survey\": \"2026-11-27\"}");
    keep("few", "{\"boats\": \"4,5\", \"price\": \"99.5\", \"lit\": \"Yes\"}");
    keep("twenty", "{\"boats\": \"20\", \"survey\": \"2026-12-04\", \"mail\": \"a@b.example\"}");
    keep("none", "{}");
    hana.record(
        """
        {"title": "Inspections of the mooring rings", "people": [{"role": 0, "person": %d}],
         "details": {"quote": "Repainted hulls"}}
        """
            .formatted(hana.idOf("people", "Ines Okafor")));
  }

  private ObjectNode set() {
    ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").expect(200).json();
    set.remove("counts");
    return set;
  }

  private void keep(String name, String details) {
    records.put(
        name,
        hana.record(
            """
            {"title": "Moored %s", "due": {"at": "2026-12-05T10:00"}, "place": 1,
             "people": [{"role": 0, "person": %d}], "details": %s}
            """
                .formatted(name, hana.idOf("people", "Ines Okafor"), details)));
  }

  @DataProvider
  public Object[][] lines() {
    return new Object[][] {
      {"boats over 20", List.of("many")},
      {"boats under 20", List.of("few")},
      {"boats is 20", List.of("twenty")},
      {"with boats", List.of("many", "few", "twenty")},
      {"without boats", List.of("none")},
      {"price over 100", List.of("many")},
      {"price under 100 EUR", List.of("few", "?eur")},
      {"priced", List.of("many", "few")},
      {"without price", List.of("twenty", "none")},
      {"survey before 2 Dec", List.of("many")},
      {"survey on 4 Dec", List.of("twenty")},
      {"survey after next week", List.of()},
      {"lit is yes", List.of("few")},
      {"mail is A@B.example", List.of("twenty")},
      {"boats over 20 priced", List.of("many")},
    };
  }

  /** Found by the office; by a worker only by what they see. */
  @Test(dataProvider = "lines")
  public void valuesAreFound(String line, List<String> names) {
    boolean asWord = names.contains("?eur");
    assertThat(found(hana, line)).containsExactlyInAnyOrderElementsOf(asWord ? List.of() : names);
    assertThat(found(Api.of(server, "ines"), line))
        .containsExactlyInAnyOrderElementsOf(
            line.contains("boats") && !line.contains("priced") ? names : List.of());
  }

  @DataProvider
  public Object[][] orders() {
    return new Object[][] {
      {"DETAIL:boats", List.of("few", "twenty", "many", "none"), true},
      {"DETAIL_LAST:boats", List.of("many", "twenty", "few", "none"), true},
      {"DETAIL:price", List.of("few", "many", "twenty", "none"), false},
      {"DETAIL:survey", List.of("many", "twenty", "few", "none"), false},
      {"DETAIL_LAST:lit", List.of("few", "none", "twenty", "many"), false},
    };
  }

  /** Numbers as numbers; whoever does not see the detail learns nothing of its order. */
  @Test(dataProvider = "orders")
  public void valuesAreSortedBy(String sort, List<String> names, boolean forCrew) {
    assertThat(found(hana, "&sort=" + sort)).isEqualTo(names);
    List<String> made = List.of("many", "few", "twenty", "none");
    List<String> unsorted = sort.contains("LAST") ? List.of("none", "twenty", "few", "many") : made;
    assertThat(found(Api.of(server, "ines"), "&sort=" + sort))
        .isEqualTo(forCrew ? names : unsorted);
  }

  @DataProvider
  public Object[][] forms() {
    return new Object[][] {
      {"inspecting moorings", true},
      {"INSPECTED mooring", true},
      {"\"inspecting\" moorings", false},
      {"inspector\u2019s", false},
      {"insp", true},
    };
  }

  /** Words find other forms of themselves in what one sees; in quotes as they stand. */
  @Test(dataProvider = "forms")
  public void anotherFormOfAWordFinds(String line, boolean finds) {
    String find = URLEncoder.encode(line, StandardCharsets.UTF_8);
    String title = "Inspections of the mooring rings";
    Api ines = Api.of(server, "ines");
    for (Api who : List.of(hana, ines)) {
      assertThat(walked(who, find).contains(title)).isEqualTo(finds);
    }
    assertThat(walked(hana, "repainting")).contains(title);
    assertThat(walked(ines, "repainting")).doesNotContain(title);
  }

  @Test
  public void anOrderByADetailNamesOneThatIsTyped() {
    for (String sort : List.of("DETAIL", "DETAIL:", "DETAIL:hue", "DETAIL:times", "PLACE:boats")) {
      assertThat(hana.get("/api/v1/records?sort=" + sort).expect(400).text()).contains("sort");
    }
    // A cursor of somebody else's leads on to nothing that its holder does not see.
    Api ines = Api.of(server, "ines");
    String theirs =
        hana.get("/api/v1/records?find=%22Moored%22&sort=DETAIL:price&limit=1")
            .json()
            .get("next")
            .asString();
    assertThat(
            ines.get("/api/v1/records?find=%22Moored%22&sort=DETAIL:price&cursor=" + theirs)
                .expect(200)
                .json()
                .get("items"))
        .hasSize(4);
  }

  private List<String> found(Api api, String line) {
    if (line.startsWith("&")) {
      return walked(api, "%22Moored%22" + line);
    }
    return walked(api, URLEncoder.encode("\"Moored\" " + line, StandardCharsets.UTF_8));
  }

  private List<String> walked(Api api, String find) {
    List<String> found = new ArrayList<>();
    String cursor = "";
    do {
      JsonNode page = api.get("/api/v1/records?limit=1&find=" + find + cursor).expect(200).json();
      page.get("items")
          .forEach(one -> found.add(one.get("title").asString().replace("Moored ", "")));
      cursor = page.has("next") ? "&cursor=" + page.get("next").asString() : "";
    } while (!cursor.isEmpty());
    return found;
  }

  /** A rule lands what is over its value, worded with units; and no longer once it is not. */
  @Test
  public void aRuleTestsAValueAndItsWordingSaysItsUnit() {
    assertThat(textOf("many")).isEqualTo("31 boats");
    assertThat(textOf("few")).doesNotContain("boats");
    hana.change(records.get("few"), "{\"details\": {\"boats\": \"21\"}}");
    assertThat(textOf("few")).isEqualTo("21 boats");
    hana.change(records.get("few"), "{\"details\": {\"boats\": \"4.5\"}}");
    assertThat(textOf("few")).doesNotContain("boats");
    assertThat(hana.get("/api/v1/records/" + records.get("many")).text())
        .contains("\"1200.00\"")
        .doesNotContain("EUR 1200");
  }

  private String textOf(String name) {
    VEvent event =
        new Calendars(Api.of(server, "ines"))
            .events("Ines Okafor, own", "Moored " + name)
            .values()
            .iterator()
            .next();
    return event.getDescription() == null ? "" : event.getDescription().getValue();
  }

  @DataProvider
  public Object[][] conditions() {
    return new Object[][] {
      {"{\"over\": [\"boats\", \"many\"]}", "must be a number such as 12.5"},
      {"{\"over\": [\"lit\", \"yes\"]}", "has no order in Lit"},
      {"{\"under\": [\"berth\", \"3\"]}", "must be a detail of the set and a value"},
      {"{\"is\": [\"price\"]}", "must be a detail of the set and a value"},
      {"{\"is\": [\"price\", \"\"]}", "contains an empty text"},
      {"{\"is\": [\"price\", \"1.005\"]}", "which is in EUR"},
      {"{\"over\": [\"ref\", \"3\"]}", "must be a detail of the set and a value"},
    };
  }

  @Test(dataProvider = "conditions")
  public void aConditionThatCannotBeIsToldAtItsPlace(String condition, String told) {
    ObjectNode set = set();
    ((ObjectNode) set.get("rules").get(0)).set("when", Api.JSON.readTree(condition));
    JsonNode faults =
        hana.post("/api/v1/rules/look", set.toString()).expect(422).json().get("faults");
    assertThat(faults).hasSize(1);
    assertThat(faults.get(0).get("pointer").asString()).startsWith("/rules/0/when/");
    assertThat(faults.get(0).get("message").asString()).contains(told);
  }

  /** The set's file says units and values, and is read back as it was. */
  @Test
  public void theFileOfTheSetHoldsThem() {
    String file = hana.get("/api/v1/rules/file").expect(200).text();
    assertThat(file)
        .contains("over: [boats, 20 boats]")
        .contains("in: EUR")
        .contains("holds: mail");
    JsonNode read =
        hana.post("/api/v1/rules/file", file, "Content-Type", "application/yaml")
            .expect(200)
            .json();
    for (String part : List.of("rules", "details")) {
      assertThat(read.get(part)).as(part).isEqualTo(set().get(part));
    }
  }

  /** Text becomes a number from now on; what was typed before stays, and is no number. */
  @Test
  public void textOfBeforeStaysText() {
    long old =
        hana.record(
            "{\"title\": \"Old parts\", \"kind\": \"JOB\", \"details\": {\"parts\": \"a dozen\"}}");
    ObjectNode set = set();
    set.get("details")
        .forEach(
            one -> {
              if (one.get("key").asString().equals("parts")) {
                ((ObjectNode) one).put("sort", "NUMBER").put("unit", "parts");
              }
            });
    set.put("looked", Looking.at(hana, set).get("looked").asString());
    hana.post("/api/v1/rules/take", set.toString()).expect(200);
    assertThat(hana.get("/api/v1/records/" + old).text()).contains("a dozen");
    hana.change(old, "{\"title\": \"Old parts still\"}");
    assertThat(hana.get("/api/v1/records/" + old).text()).contains("a dozen");
    String overOne =
        "/api/v1/records?find="
            + URLEncoder.encode("\"Old parts\" parts over 1", StandardCharsets.UTF_8);
    assertThat(hana.get(overOne).expect(200).json().get("items")).isEmpty();
    hana.patch("/api/v1/records/" + old, "{\"details\": {\"parts\": \"some\"}}", "If-Match", "*")
        .expect(422);
    hana.change(old, "{\"details\": {\"parts\": \"12\"}}");
    assertThat(hana.get(overOne).expect(200).json().get("items")).hasSize(1);
  }

  /** A file with a value that is none is refused at its cell, and one with good values is kept. */
  @Test
  public void filesHoldThem() {
    String csv = hana.get("/api/v1/records.csv?find=Moored+many").expect(200).text();
    assertThat(csv).contains("boats").contains("1200.00");
    String file =
        """
        Kind,Title,Due,Price,Boats
        ticket,Imported moorings,2026-12-06 10:00,12.50 EUR,7
        ticket,Dear moorings,2026-12-06 10:00,a lot,7
        """;
    JsonNode read =
        hana.sendBytes(
                "POST",
                "/api/v1/files/read?what=RECORDS",
                file.getBytes(StandardCharsets.UTF_8),
                "Content-Type",
                "text/csv")
            .expect(200)
            .json();
    ObjectNode sent = Api.JSON.createObjectNode().put("what", "RECORDS").put("source", "moorings");
    ArrayNode fields = sent.putArray("fields");
    read.get("columns").forEach(column -> fields.add(column.get("field").asString()));
    sent.set("rows", read.get("rows"));
    JsonNode rows = hana.post("/api/v1/files/look", sent.toString()).expect(200).json().get("rows");
    assertThat(rows.get(0).get("faults")).isEmpty();
    JsonNode fault = rows.get(1).get("faults").get(0);
    assertThat(read.get("columns").get(fault.get("column").asInt()).get("name").asString())
        .isEqualTo("Price");
    assertThat(fault.get("message").asString()).contains("which is in EUR");
  }
}
