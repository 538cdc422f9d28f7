package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** What waits for a coordinator's yes, and what calendar programs get meanwhile. */
public class ReleasesTest extends OnDemo {

  private static final String OWN = "Ines Okafor, own";

  private Api ines;

  @BeforeClass
  public void start() {
    ines = Api.of(server, "ines");
    JsonNode look = ticketsWaitForAYes(hana, true);
    assertThat(look.get("waits").asLong()).as("what stands there needs no yes").isZero();
    assertThat(waiting(hana)).isEmpty();
  }

  /** What lands on own calendars of tickets waits for a yes, or does no longer; gives the look. */
  static JsonNode ticketsWaitForAYes(Api hana, boolean waits) {
    ObjectNode set = set(hana);
    ((ObjectNode) ofOwnCalendars(set)).put("afterYes", waits);
    return take(hana, set);
  }

  private static ObjectNode set(Api hana) {
    ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").expect(200).json();
    set.remove("counts");
    return set;
  }

  /** The rule for tickets on own calendars. */
  static JsonNode ofOwnCalendars(ObjectNode set) {
    for (JsonNode rule : set.get("rules")) {
      boolean tickets = rule.get("when").toString().contains("TICKET");
      if (tickets && rule.get("lands").toString().contains("ownOf")) {
        return rule;
      }
    }
    throw new AssertionError("no rule for tickets on own calendars");
  }

  static JsonNode take(Api hana, ObjectNode set) {
    JsonNode look = Looking.at(hana, set);
    set.put("looked", look.get("looked").asString());
    hana.post("/api/v1/rules/take", set.toString()).expect(200);
    return look;
  }

  private long ticket(String title, String due) {
    return hana.record(
        """
        {"title": "%s", "place": 1, "due": {"at": "%s"},
         "people": [{"role": 0, "person": %d}], "details": {"phone": "0555 0188", "gate code": "KESTREL"}}
        """
            .formatted(title, due, hana.idOf("people", "Ines Okafor")));
  }

  private List<JsonNode> waiting(Api who) {
    List<JsonNode> found = new ArrayList<>();
    who.get("/api/v1/releases").expect(200).json().forEach(found::add);
    return found;
  }

  private JsonNode waiting(long record) {
    return waiting(hana).stream()
        .filter(one -> one.get("record").asLong() == record)
        .findFirst()
        .orElseThrow();
  }

  static String yes(JsonNode... all) {
    ObjectNode body = Api.JSON.createObjectNode();
    ArrayNode items = body.putArray("items");
    for (JsonNode one : all) {
      items.addObject().put("entry", one.get("entry").asLong()).put("as", one.get("as").asString());
    }
    return body.toString();
  }

  private List<String> onOwn(String words) {
    return new Calendars(ines)
        .events(OWN, words).values().stream().map(ReleasesTest::told).toList();
  }

  private static String told(VEvent event) {
    return event.getSummary().getValue()
        + " until "
        + event.getDateEnd().getValue().getRawComponents();
  }

  private void undo(long act) {
    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(200);
  }

  private String landing(Api who, long record, String calendar) {
    for (JsonNode one :
        who.get("/api/v1/records/" + record + "/landings").expect(200).json().get("lands")) {
      if (one.get("name").asString().equals(calendar)) {
        return (one.has("waits") ? one.get("waits").asString() : "released")
            + " "
            + one.get("times").get("end").asString();
      }
    }
    return "not there";
  }

  @Test
  public void nobodyIsServedItBeforeTheFirstYes() {
    long record = ticket("Never seen", "2027-03-01T11:00");
    assertThat(onOwn("Never seen")).isEmpty();
    assertThat(new Calendars(hana).events("Due times", "Never seen"))
        .as("other rules need no yes")
        .hasSize(1);
    assertThat(landing(hana, record, OWN)).isEqualTo("FIRST 2027-03-01T11:00");
    assertThat(landing(ines, record, OWN)).isEqualTo("not there");
    JsonNode one = waiting(record);
    assertThat(one.has("before")).isFalse();
    assertThat(one.get("after").get("title").asString()).contains("Never seen");
    assertThat(one.get("after").get("text").asString())
        .as("what is for the Lead is covered before the office")
        .doesNotContain("KESTREL");
    ines.get("/api/v1/releases").expect(403);
    ines.post("/api/v1/releases", yes(one)).expect(403);

    long act = hana.post("/api/v1/releases", yes(one)).expect(200).json().get("act").asLong();
    assertThat(onOwn("Never seen")).hasSize(1);
    assertThat(landing(hana, record, OWN)).isEqualTo("released 2027-03-01T11:00");
    hana.post("/api/v1/releases", yes(one)).expect(409);

    undo(act);
    assertThat(onOwn("Never seen")).isEmpty();
    hana.post("/api/v1/releases", yes(waiting(record))).expect(200);
    assertThat(onOwn("Never seen")).hasSize(1);
  }

  @Test
  public void readersKeepWhatTheyHadUntilTheNextYes() {
    long record = ticket("Kept as it was", "2027-03-02T11:00");
    hana.post("/api/v1/releases", yes(waiting(record))).expect(200);
    Calendars theirs = new Calendars(ines);
    String href = theirs.href(OWN);
    String token = theirs.sync(href, "").token();
    List<String> before = onOwn("Kept as it was");
    hana.change(record, "{\"due\": {\"at\": \"2027-03-02T15:00\"}}");
    assertThat(onOwn("Kept as it was")).isEqualTo(before);
    assertThat(theirs.sync(href, token).live()).as("nothing to fetch").isEmpty();
    assertThat(landing(hana, record, OWN)).isEqualTo("CHANGE 2027-03-02T15:00");
    assertThat(landing(ines, record, OWN)).isEqualTo("released 2027-03-02T11:00");
    JsonNode one = waiting(record);
    assertThat(one.get("before").get("times").get("end").asString()).contains("11:00");
    assertThat(one.get("after").get("times").get("end").asString()).contains("15:00");

    hana.change(record, "{\"due\": {\"at\": \"2027-03-02T16:00\"}}");
    hana.post("/api/v1/releases", yes(one)).expect(409);
    assertThat(onOwn("Kept as it was")).isEqualTo(before);

    hana.change(record, "{\"due\": {\"at\": \"2027-03-02T11:00\"}}");
    assertThat(waiting(hana).toString()).as("nothing to say yes to").doesNotContain("Kept as");
    hana.change(record, "{\"due\": {\"at\": \"2027-03-02T15:00\"}}");
    hana.post("/api/v1/releases", yes(waiting(record))).expect(200);
    assertThat(onOwn("Kept as it was")).hasSize(1).isNotEqualTo(before);
    assertThat(theirs.sync(href, token).live()).hasSize(1);
  }

  @Test
  public void hidingNeverWaits() {
    long record = ticket("Taken back", "2027-03-03T11:00");
    hana.post("/api/v1/releases", yes(waiting(record))).expect(200);
    assertThat(new Calendars(ines).events(OWN, "0555 0188")).isNotEmpty();
    hana.change(record, "{\"title\": \"Another title\"}");
    JsonNode phone = phoneIsFor((ObjectNode) Api.JSON.readTree("{\"office\": true}"));
    List<String> texts =
        new Calendars(ines)
            .events(OWN, "Taken back").values().stream()
                .map(
                    event ->
                        event.getDescription() == null ? "" : event.getDescription().getValue())
                .toList();
    assertThat(texts).as("the title of then, without the phone").hasSize(1);
    assertThat(texts.get(0)).doesNotContain("0555 0188");
    phoneIsFor((ObjectNode) phone);
    assertThat(new Calendars(ines).events(OWN, "Taken back").values())
        .as("it was for them then and is now")
        .allSatisfy(event -> assertThat(event.getDescription().getValue()).contains("0555 0188"));
    hana.change(record, "{\"state\": \"CANCELLED\"}");
    assertThat(onOwn("Taken back")).isEmpty();
    assertThat(waiting(hana).toString()).doesNotContain("Another title");
  }

  /** Gives whom it was for. */
  private JsonNode phoneIsFor(ObjectNode readers) {
    ObjectNode set = set(hana);
    for (JsonNode one : set.get("details")) {
      if (one.get("key").asString().equals("phone")) {
        JsonNode before = ((ObjectNode) one).replace("for", readers);
        take(hana, set);
        return before;
      }
    }
    throw new AssertionError("no phone");
  }

  @Test
  public void aRuleRemindsAndInvites() {
    ObjectNode set = set(hana);
    ObjectNode first = (ObjectNode) ofOwnCalendars(set);
    first.set(
        "reminders",
        Api.JSON.readTree(
            """
            [{"amount": 30, "unit": "MINUTES"}, {"amount": 2, "unit": "WORKING_DAYS"}]
            """));
    first.put("attendees", "EVERYBODY");
    take(hana, set);
    // A Monday: two working days before are the Thursday.
    long record = ticket("Rings twice", "2027-03-08T11:00");
    hana.post("/api/v1/releases", yes(waiting(record))).expect(200);
    VEvent event = new Calendars(ines).events(OWN, "Rings twice").values().iterator().next();
    assertThat(event.getAlarms())
        .extracting(
            alarm ->
                alarm.getTrigger().getDuration() + " " + alarm.getTrigger().getRelated().getValue())
        .containsExactly("-P4D END", "-PT30M END");
    assertThat(event.getAttendees())
        .extracting(one -> one.getCommonName() + " " + one.getUri().startsWith("urn:uuid:"))
        .containsExactly("Ines Okafor true");
    assertThat(event.getOrganizer()).isNull();
    set = set(hana);
    first = (ObjectNode) ofOwnCalendars(set);
    first.put("attendees", "ONLY_ONESELF");
    first.remove("reminders");
    take(hana, set);
    JsonNode after = waiting(record).get("after");
    assertThat(after.get("reminders")).isEmpty();
    assertThat(after.get("invited")).hasSize(1);
    hana.change(record, "{\"state\": \"CANCELLED\"}");
  }

  @Test
  public void manyAtOnceOrNone() {
    long one = ticket("Many first", "2027-03-04T11:00");
    long other = ticket("Many second", "2027-03-04T12:00");
    JsonNode first = waiting(one);
    ObjectNode stale = (ObjectNode) waiting(other).deepCopy();
    stale.put("as", "what it was");
    hana.post("/api/v1/releases", yes(first, stale)).expect(409);
    assertThat(onOwn("Many first")).isEmpty();
    JsonNode done = hana.post("/api/v1/releases", yes(first, waiting(other))).expect(200).json();
    assertThat(done.get("entries").asInt()).isEqualTo(2);
    assertThat(onOwn("Many ")).hasSize(2);
    undo(done.get("act").asLong());
    assertThat(onOwn("Many ")).isEmpty();
    hana.post("/api/v1/releases", "{\"items\": []}").expect(422);
  }

  @Test
  public void aTeamCoordinatorSaysYesOnTheirTeamsRecordsAlone() {
    long record = ticket("Of Thornmere", "2027-03-05T11:00");
    Api marguerite = Api.of(server, "marguerite");
    boolean theirs =
        marguerite.get("/api/v1/records/" + record).status() == 200
            && marguerite.get("/api/v1/records/" + record + "/landings").text().contains("FIRST");
    assertThat(waiting(marguerite).toString().contains("Of Thornmere")).isEqualTo(theirs);
    marguerite.post("/api/v1/releases", yes(waiting(record))).expect(theirs ? 200 : 409);
  }

  @Test(
      dependsOnMethods = {
        "nobodyIsServedItBeforeTheFirstYes",
        "aRuleRemindsAndInvites",
        "hidingNeverWaits",
        "manyAtOnceOrNone",
        "readersKeepWhatTheyHadUntilTheNextYes",
        "aTeamCoordinatorSaysYesOnTheirTeamsRecordsAlone"
      })
  public void aRuleThatNeedsItNoLongerLetsAllOut() {
    ticket("Let out by the rule", "2027-03-06T11:00");
    assertThat(onOwn("Let out by the rule")).isEmpty();
    JsonNode look = ticketsWaitForAYes(hana, false);
    assertThat(look.get("added").asLong()).isPositive();
    assertThat(onOwn("Let out by the rule")).hasSize(1);
    assertThat(waiting(hana)).isEmpty();
  }
}
