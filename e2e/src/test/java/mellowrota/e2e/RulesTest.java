package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Rules and wordings written by a coordinator: tried, looked at, taken, undone. */
public class RulesTest extends OnDemo {

  private ObjectNode set() {
    ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").expect(200).json();
    set.remove("counts");
    return set;
  }

  private JsonNode look(ObjectNode set) {
    return Looking.at(hana, set);
  }

  /** Looks, then takes; gives the act's number. */
  private long take(ObjectNode set) {
    set.put("looked", look(set).get("looked").asString());
    return hana.post("/api/v1/rules/take", set.toString()).expect(200).json().get("act").asLong();
  }

  private static ObjectNode wording(ObjectNode set, String name) {
    for (JsonNode one : set.get("wordings")) {
      if (one.get("name").asString().equals(name)) {
        return (ObjectNode) one;
      }
    }
    throw new AssertionError("no wording " + name);
  }

  private static ObjectNode detail(ObjectNode set, String key) {
    for (JsonNode one : set.get("details")) {
      if (one.get("key").asString().equals(key)) {
        return (ObjectNode) one;
      }
    }
    throw new AssertionError("no detail " + key);
  }

  private static String berth(String sort) {
    return """
        {"key": "berth", "label": "Berth", "kinds": ["TICKET", "JOB"], "for": {"everyone": true},
         "sort": "%s", "choices": [], "states": []}
        """
        .formatted(sort);
  }

  private static ObjectNode rule(String json) {
    return (ObjectNode) Api.JSON.readTree(json);
  }

  /** What is done to the set. */
  private interface Edit {
    void on(ObjectNode set);
  }

  @DataProvider
  public Object[][] edits() {
    Edit newRule =
        set ->
            ((ArrayNode) set.get("rules"))
                .add(
                    rule(
                        """
                        {"on": true, "when": {"all": [{"kind": ["TICKET"]}, {"none": [{"private":
                         true}]}]}, "lands": [{"thePlaces": true}], "as": "DUE_MARK",
                         "wording": %d, "whenDone": "COMES_OFF", "note": "Each place sees it"}
                        """
                            .formatted(wording(set, "Title").get("id").asLong())));
    Edit off = set -> ((ObjectNode) set.get("rules").get(1)).put("on", false);
    Edit worded = set -> wording(set, "Title and people").put("title", "{title}");
    Edit order =
        set -> {
          ArrayNode rules = (ArrayNode) set.get("rules");
          rules.insert(0, rules.remove(rules.size() - 1));
        };
    Edit gone = set -> ((ArrayNode) set.get("rules")).remove(2);
    Edit shape = set -> ((ObjectNode) set.get("rules").get(4)).put("as", "WHOLE_DAY");
    Edit everywhere =
        set -> ((ObjectNode) set.get("rules").get(0)).putObject("when").putArray("all");
    Edit wider = set -> detail(set, "notes").set("for", rule("{\"everyone\": true}"));
    Edit narrower =
        set -> detail(set, "title").set("for", rule("{\"office\": true, \"roles\": [0]}"));
    Edit applies = set -> detail(set, "contact").putArray("states").add("TENTATIVE");
    Edit usual =
        set -> {
          set.putObject("usual").put("TICKET", wording(set, "Due").get("id").asLong());
          set.get("rules").forEach(one -> ((ObjectNode) one).remove("wording"));
        };
    Edit freshWording =
        set -> {
          ((ArrayNode) set.get("wordings"))
              .add(
                  rule(
                      """
                      {"id": 9001, "fresh": true, "name": "By the lock", "title": "{title} by {lead}",
                       "place": "", "text": "", "categories": [], "fixed": "The marina reads it"}
                      """));
          ((ObjectNode) set.get("rules").get(3)).put("wording", 9001);
        };
    Edit ownDetail =
        set -> {
          ((ArrayNode) set.get("details")).add(rule(berth("TEXT")));
          wording(set, "Title").put("title", "{title}[ · {berth}]");
        };
    return new Object[][] {
      {"a detail for more", wider},
      {"a detail for fewer", narrower},
      {"a detail in some states", applies},
      {"a kind's usual wording", usual},
      {"a new wording", freshWording},
      {"a detail of one's own", ownDetail},
      {"a new rule", newRule},
      {"a rule switched off", off},
      {"another wording", worded},
      {"another order", order},
      {"a rule taken out", gone},
      {"another shape", shape},
      {"a rule for everything", everywhere},
    };
  }

  @Test(dataProvider = "edits")
  public void whatWasLookedAtIsWhatHappensAndUndoPutsItBack(String name, Edit edit) {
    // What the office may not see would count as filled everywhere, in a look of the office.
    ObjectNode seen = set();
    ObjectNode gateCode = detail(seen, "gate code");
    if (!gateCode.get("for").path("office").asBoolean()) {
      gateCode.set("for", Api.JSON.readTree("{\"office\": true, \"roles\": [0]}"));
      take(seen);
    }
    Map<String, String> before = Entries.of(server.database());
    ObjectNode was = set();
    ObjectNode set = was.deepCopy();
    edit.on(set);
    JsonNode preview = look(set);
    long act = take(set);
    Map<String, String> after = Entries.of(server.database());
    assertThat(Entries.counted(before, after)).as(name).isEqualTo(Entries.counted(preview));
    assertThat(entriesWithoutARule()).isEmpty();

    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(200);
    assertThat(Entries.of(server.database())).as(name + ", undone").isEqualTo(before);
    ObjectNode again = set();
    assertThat(again.get("rules")).isEqualTo(was.get("rules"));
    assertThat(again.get("wordings")).isEqualTo(was.get("wordings"));
    assertThat(again.get("details")).isEqualTo(was.get("details"));
    assertThat(again.get("usual")).isEqualTo(was.get("usual"));
    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(409);
  }

  /** Entries whose reasons name a rule that is not there. */
  private List<String> entriesWithoutARule() {
    return server
        .database()
        .query(
            """
            select e.id || ' ' || r.rule from entry e, unnest(string_to_array(e.rules, ',')) r(rule)
            where e.state = 'LIVE' and not exists (select 1 from rule where id = r.rule::bigint)
            """);
  }

  @Test
  public void aWordingNeverShowsADetailToThoseItIsNotForAndTellsWhomItShowsAnother() {
    ObjectNode set = set();
    wording(set, "Short, with Lead").put("text", "{phone}\n{notes}");
    hana.record(
        """
        {"title": "Sight of rules", "due": {"at": "2026-12-03T10:00"}, "people": [{"role": 0,
         "person": %d}], "details": {"phone": "0555 0188", "notes": "Mind the swans"}}
        """
            .formatted(hana.idOf("people", "Ines Okafor")));
    JsonNode preview = look(set);
    List<String> shown = new ArrayList<>();
    preview
        .get("shown")
        .forEach(
            one -> shown.add(one.get("detail").asString() + " on " + one.get("name").asString()));
    assertThat(shown)
        .as("notes are for crew, the phone for people on it")
        .contains("Notes on Thornmere crew, team")
        .doesNotContain("Phone on Thornmere crew, team");

    hana.post("/api/v1/rules/take", set.toString()).expect(409);
    long act = take(set);
    Api ines = Api.of(server, "ines");
    String text =
        new Calendars(ines)
            .events("Thornmere crew, team", "Sight of rules")
            .values()
            .iterator()
            .next()
            .getDescription()
            .getValue();
    assertThat(text).isEqualTo("Mind the swans");
    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(200);
  }

  @Test
  public void aRecordIsTriedAgainstTheSetAsItIsEdited() {
    long id =
        hana.record(
            """
            {"title": "Tried", "due": {"at": "2026-12-04T10:00"}, "tags": ["closure"],
             "people": [{"role": 0, "person": %d}]}
            """
                .formatted(hana.idOf("people", "Ines Okafor")));
    ObjectNode set = set();
    ((ObjectNode) set.get("rules").get(0)).put("on", false);
    set.put("record", id);
    JsonNode tried =
        hana.post("/api/v1/rules/try", set.toString()).expect(200).json().get("landings");
    List<String> lands = new ArrayList<>();
    tried.get("lands").forEach(one -> lands.add(one.get("name").asString()));
    assertThat(lands).contains("Thornmere crew, team").doesNotContain("Ines Okafor, own");
    List<String> nowhere = new ArrayList<>();
    tried.get("nowhere").forEach(one -> nowhere.add(one.get("name").asString()));
    assertThat(nowhere).contains("Ines Okafor, own");
    assertThat(hana.get("/api/v1/records/" + id + "/landings").json().toString())
        .as("nothing was kept")
        .contains("Ines Okafor, own");
  }

  @Test
  public void whoWasQuickerIsNotWrittenOver() {
    ObjectNode mine = set();
    ((ObjectNode) mine.get("rules").get(0)).put("note", "mine");
    ObjectNode theirs = set();
    ((ObjectNode) theirs.get("rules").get(0)).put("note", "theirs");
    long act = take(theirs);
    hana.post("/api/v1/rules/look", mine.toString()).expect(412);
    mine.put("looked", "x");
    hana.post("/api/v1/rules/take", mine.toString()).expect(412);
    ObjectNode later = set();
    ((ObjectNode) later.get("rules").get(0)).put("note", "later");
    long second = take(later);
    assertThat(hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(409).text())
        .contains("Undo that change first");
    hana.post("/api/v1/acts/" + second + "/undo", "{}").expect(200);
    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(200);
  }

  @DataProvider
  public Object[][] faults() {
    return new Object[][] {
      {"when", "{\"kind\": [\"CHORE\"]}", "/rules/0/when/kind", "only JOB, TICKET"},
      {"when", "{\"kind\": []}", "/rules/0/when/kind", "is empty; name at least one of"},
      {"when", "{\"state\": [\"OPEN\"]}", "/rules/0/when/state", "only DRAFT"},
      {"when", "{\"tag\": \"\"}", "/rules/0/when/tag", "is missing"},
      {"when", "{\"team\": 999}", "/rules/0/when/team", "is not a team here"},
      {"when", "{\"place\": \"x\"}", "/rules/0/when/place", "must be a whole number"},
      {"when", "{\"role\": 59}", "/rules/0/when/role", "is not a role here"},
      {"when", "{\"madeBy\": 999}", "/rules/0/when/madeBy", "is not a person here"},
      {"when", "{\"detail\": \"colour\"}", "/rules/0/when/detail", "is not a detail"},
      {"when", "{\"private\": false}", "/rules/0/when/private", "put it under none"},
      {"when", "{\"allDay\": 1}", "/rules/0/when/allDay", "must be true or false"},
      {"when", "{\"startsBetween\": [\"25:00\", \"6\"]}", "/rules/0/when/startsBetween", "22:00"},
      {"when", "{\"all\": [{\"any\": [{}]}]}", "/rules/0/when/all/0/any/0", "exactly one of"},
      {"when", "{\"kind\": [\"JOB\"], \"tag\": \"x\"}", "/rules/0/when", "exactly one of"},
      {"when", "{\"weather\": \"wet\"}", "/rules/0/when/weather", "is not a field here"},
      {"when", "null", "/rules/0/when", "is missing"},
      {"lands", "[]", "/rules/0/lands", "say which calendars"},
      {"lands", "[{\"ownOf\": []}]", "/rules/0/lands/0/ownOf", "must be a list of roles"},
      {"lands", "[{\"teamsOf\": [77]}]", "/rules/0/lands/0/teamsOf", "must be a list of roles"},
      {"lands", "[{\"calendar\": 1}]", "/rules/0/lands/0/calendar", "date list or named"},
      {"lands", "[{}]", "/rules/0/lands/0", "exactly one of"},
      {"as", "\"ROUND\"", "/rules/0/as", "must be one of"},
      {"as", "null", "/rules/0/as", "is missing; one of SPAN"},
      {"wording", "999", "/rules/0/wording", "is not a wording of the set"},
      {"whenDone", "\"MAYBE\"", "/rules/0/whenDone", "must be one of STAYS_WITH_TICK"},
      {"id", "999", "/rules/0/id", "is not a rule here"},
      {"busy", "\"yes\"", "/rules/0/busy", "must be true or false"},
      {"afterYes", "\"yes\"", "/rules/0/afterYes", "must be true or false"},
      {"attendees", "\"FRIENDS\"", "/rules/0/attendees", "must be one of NOBODY"},
      {
        "reminders", "[{\"unit\": \"HOURS\"}]", "/rules/0/reminders/0/amount", "whole number from 0"
      },
      {"reminders", "[{\"amount\": 5}]", "/rules/0/reminders/0/unit", "is missing; one of MINUTES"},
      {
        "reminders",
        "[{\"amount\": 400, \"unit\": \"WORKING_DAYS\"}]",
        "/rules/0/reminders/0/amount",
        "within a year"
      },
    };
  }

  @Test(dataProvider = "faults")
  public void aFaultOfARuleIsToldAtItsPlace(
      String field, String value, String pointer, String words) {
    ObjectNode set = set();
    ((ObjectNode) set.get("rules").get(0)).set(field, Api.JSON.readTree(value));
    JsonNode answer = hana.post("/api/v1/rules/look", set.toString()).expect(422).json();
    List<String> told = new ArrayList<>();
    answer
        .get("faults")
        .forEach(f -> told.add(f.get("pointer").asString() + " " + f.get("message").asString()));
    assertThat(told).as(told.toString()).hasSize(1);
    assertThat(told.get(0)).startsWith(pointer + " ").contains(words);
  }

  @DataProvider
  public Object[][] detailFaults() {
    return new Object[][] {
      {"key", "\"Berth No\"", "key", "lower-case letters"},
      {"key", "\"phone\"", "key", "is listed twice"},
      {"key", "\"lead\"", "key", "already used in wordings"},
      {"key", "null", "key", "is missing"},
      {"label", "\"Phone\"", "label", "is already the name of another detail"},
      {"label", "\"\"", "label", "is missing"},
      {"kinds", "[]", "kinds", "is empty; name at least one of JOB"},
      {"kinds", "[\"CHORE\"]", "kinds", "only JOB"},
      {"for", "{}", "for", "visible to somebody"},
      {"for", "null", "for", "say who may see it"},
      {"for", "{\"roles\": [58]}", "for/roles", "must hold roles"},
      {"for", "{\"marina\": true}", "for/marina", "is not a field here"},
      {"sort", "\"COLOUR\"", "sort", "must be one of TEXT"},
      {"sort", "\"CHOICE\"", "choices", "list the choices"},
      {"choices", "[\"A\"]", "choices", "to a detail of type CHOICE"},
      {"unit", "\"EUR\"", "unit", "only to a detail of type NUMBER or MONEY"},
      {"states", "[\"OPEN\"]", "states", "only DRAFT"},
    };
  }

  @Test(dataProvider = "detailFaults")
  public void aFaultOfADetailIsToldAtItsPlace(
      String field, String value, String pointer, String words) {
    ObjectNode set = set();
    ArrayNode details = (ArrayNode) set.get("details");
    ObjectNode berth = rule(berth("TEXT"));
    berth.set(field, Api.JSON.readTree(value));
    details.add(berth);
    List<String> told = new ArrayList<>();
    hana.post("/api/v1/rules/look", set.toString())
        .expect(422)
        .json()
        .get("faults")
        .forEach(f -> told.add(f.get("pointer").asString() + " " + f.get("message").asString()));
    assertThat(told).as(told.toString()).hasSize(1);
    assertThat(told.get(0))
        .startsWith("/details/" + (details.size() - 1) + "/" + pointer + " ")
        .contains(words);
  }

  @Test
  public void whatEveryHouseHasStaysAndKeepsItsSort() {
    ObjectNode set = set();
    ((ArrayNode) set.get("details")).removeIf(one -> one.get("key").asString().equals("phone"));
    assertThat(hana.post("/api/v1/rules/look", set.toString()).expect(422).text())
        .contains("lack phone")
        .contains("/details");
    ObjectNode other = set();
    detail(other, "notes").put("sort", "DATE");
    assertThat(hana.post("/api/v1/rules/look", other.toString()).expect(422).text())
        .contains("was NOTES and can become only TEXT");
    ObjectNode without = set();
    long plain = without.get("fallback").asLong();
    ((ArrayNode) without.get("wordings")).removeIf(one -> one.get("id").asLong() == plain);
    assertThat(hana.post("/api/v1/rules/look", without.toString()).expect(422).text())
        .contains("lack Plain, the default wording");
  }

  /** A detail of one's own is typed, kept in one form, refused where it can't be, and served. */
  @Test
  public void aDetailOfTheHousesOwnIsTypedAndServed() {
    ObjectNode set = set();
    ObjectNode fee = rule(berth("MONEY"));
    fee.put("key", "fee")
        .put("label", "Fee")
        .set("for", rule("{\"office\": true, \"roles\": [0]}"));
    ((ArrayNode) set.get("details")).add(fee);
    wording(set, "Ticket").put("text", "[Fee {fee}]");
    long act = take(set);
    JsonNode told = hana.get("/api/v1/settled").expect(200).json().get("items").get(0);
    assertThat(told.get("act").asLong()).isEqualTo(act);
    assertThat(told.get("kind").asString()).isEqualTo("rules.change");
    String body =
        """
        {"title": "With a fee", "due": {"at": "2026-12-05T10:00"}, "people": [{"role": 0,
         "person": %d}, {"role": 1, "person": %d}], "details": {"fee": "%s"}}
        """;
    long lead = hana.idOf("people", "Ines Okafor");
    long support = hana.idOf("people", "Tam Birtles");
    JsonNode fault =
        hana.post("/api/v1/records", body.formatted(lead, support, "£20")).expect(422).json();
    assertThat(fault.get("faults").get(0).get("pointer").asString()).isEqualTo("/details/fee");
    long id = hana.record(body.formatted(lead, support, "20,5"));
    assertThat(hana.get("/api/v1/records/" + id).text()).contains("\"20.50\"");
    assertThat(textOf("ines", "Ines Okafor, own")).isEqualTo("Fee 20.50");
    assertThat(textOf("tam", "Tam Birtles, own")).as("Support is not shown it").isEmpty();
    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(200);
    assertThat(textOf("ines", "Ines Okafor, own")).doesNotContain("20.50");
  }

  private String textOf(String who, String calendar) {
    biweekly.component.VEvent event =
        new Calendars(Api.of(server, who))
            .events(calendar, "With a fee")
            .values()
            .iterator()
            .next();
    return event.getDescription() == null ? "" : event.getDescription().getValue();
  }

  /** SIGHT 12: what is kept back stands word for word where more people read it. */
  @Test
  public void aKeptBackValueInsideAWiderDetailIsWarnedOf() {
    String record =
        """
        {"title": "Ring 0555 0123 first", "due": {"at": "2026-12-05T10:00"}, "people": [{"role": 0,
         "person": %d}], "details": {"phone": "0555 0123", "notes": "no number here"}}
        """
            .formatted(hana.idOf("people", "Ines Okafor"));
    long id = hana.record(record);
    JsonNode warnings = hana.get("/api/v1/records/" + id).json().get("warnings");
    assertThat(warnings.toString())
        .isEqualTo("[{\"detail\":\"Phone\",\"inside\":\"Title\",\"insideFor\":\"everyone\"}]");
    assertThat(Api.of(server, "wren").get("/api/v1/records/" + id).text())
        .as("who does not see the phone learns nothing of it")
        .doesNotContain("warnings");
  }

  /** LANDING 4: that an entry stands there may tell what its readers may not see. */
  @Test
  public void aRuleThatTestsWhatItsReadersMayNotSeeIsWarnedOf() {
    ObjectNode set = set();
    assertThat(look(set).get("warnings")).isEmpty();
    ((ArrayNode) set.get("rules"))
        .add(
            rule(
                """
                {"on": true, "when": {"all": [{"none": [{"detail": "quote"}]}]},
                 "lands": [{"thePlaces": true}], "as": "AS_IT_COMES", "whenDone": "COMES_OFF"}
                """));
    assertThat(look(set).get("warnings").get(0).asString())
        .matches(
            "Rule \\d+ tests Quote, which is visible to office; .* who reads .*, can tell it .*");
  }

  @Test
  public void lookingTellsWhoWouldReadADetailOnOurScreensToo() {
    ObjectNode set = set();
    detail(set, "phone").set("for", rule("{\"everyone\": true}"));
    JsonNode readers = look(set).get("readers").get(0);
    assertThat(readers.get("before").asString()).isEqualTo("people on the job");
    assertThat(readers.get("after").asString()).isEqualTo("everyone");
    assertThat(readers.get("wider").asBoolean()).isTrue();
    assertThat(readers.get("records").asLong()).isPositive();
  }

  /** On their own calendar people call things as they like, unless house or wording fix it. */
  @Test
  public void aTitleOfOnesOwnHoldsUnlessItIsFixed() {
    Api tam = Api.of(server, "tam");
    hana.record(
        """
        {"title": "With a fee", "due": {"at": "2026-12-07T10:00"}, "people": [{"role": 0,
         "person": %d}], "details": {"phone": "0555 0166"}}
        """
            .formatted(hana.idOf("people", "Tam Birtles")));
    assertThat(tam.put("/api/v1/account/title", "{\"title\": \"{titel}\"}").expect(422).text())
        .contains("at character 2");
    tam.put("/api/v1/account/title", "{\"title\": \"mine: {title}[ {phone}][ {quote}]\"}")
        .expect(204);
    assertThat(titleOf("tam", "Tam Birtles, own")).isEqualTo("mine: With a fee 0555 0166");
    assertThat(titleOf("tam", "Due times")).doesNotContain("mine");
    ObjectNode set = set();
    set.put("titlesFixed", "The marina reads them");
    long act = take(set);
    assertThat(titleOf("tam", "Tam Birtles, own")).doesNotContain("mine");
    assertThat(tam.put("/api/v1/account/title", "{\"title\": \"x\"}").expect(403).text())
        .contains("The marina reads them");
    assertThat(tam.get("/api/v1/account/title").json().get("fixed").asString())
        .isEqualTo("The marina reads them");
    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(200);
    assertThat(titleOf("tam", "Tam Birtles, own")).startsWith("mine");
    tam.put("/api/v1/account/title", "{\"title\": \"\"}").expect(204);
    assertThat(titleOf("tam", "Tam Birtles, own")).doesNotContain("mine");
  }

  private String titleOf(String who, String calendar) {
    return new Calendars(Api.of(server, who))
        .events(calendar, "20261207T").values().stream()
            .map(e -> e.getSummary().getValue())
            .filter(title -> title.contains("With a fee"))
            .findFirst()
            .orElseThrow();
  }

  @DataProvider
  public Object[][] patterns() {
    return new Object[][] {
      {"title", "{title", "at character 1"},
      {"title", "[ · {place}", "at character 1"},
      {"text", "a\n{colour}", "at character 4"},
      {"text", "x } y", "at character 3"},
      {"text", "{start: QQQQQQ}", "at character"},
      {"place", "[[{place}]]", "at character 2"},
    };
  }

  @Test(dataProvider = "patterns")
  public void aFaultOfAWordingIsToldAtItsCharacter(String field, String pattern, String words) {
    ObjectNode set = set();
    ((ObjectNode) set.get("wordings").get(0)).put(field, pattern);
    JsonNode faults =
        hana.post("/api/v1/rules/look", set.toString()).expect(422).json().get("faults");
    assertThat(faults.get(0).get("pointer").asString()).isEqualTo("/wordings/0/" + field);
    assertThat(faults.get(0).get("message").asString()).contains(words);
  }

  @Test
  public void onlyCoordinatorsReadAndWriteRules() {
    ObjectNode set = set();
    for (String who : List.of("ines", "marguerite")) {
      Api other = Api.of(server, who);
      other.get("/api/v1/rules").expect(403);
      other.post("/api/v1/rules/look", set.toString()).expect(403);
      other.post("/api/v1/rules/try", set.toString()).expect(403);
      other.post("/api/v1/rules/take", set.toString()).expect(403);
    }
  }
}
