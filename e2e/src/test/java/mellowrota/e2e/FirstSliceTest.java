package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A ticket from its making to its undo, and what each reader's calendar program sees of it. */
public class FirstSliceTest extends OnDemo {

  private Api ines;
  private long record;
  private String ref;
  private final Map<String, String> tokens = new TreeMap<>();
  private final Map<String, String> uids = new TreeMap<>();
  private static final Map<String, String> WHERE =
      new LinkedHashMap<>(
          Map.of(
              "Ines Okafor, own", "Ease",
              "Thornmere crew, team", "Ease",
              "Due times", "Ease",
              "Master", ""));

  @BeforeClass
  public void start() {
    ines = Api.of(server, "ines");
  }

  private Api reader(String calendar) {
    return calendar.equals("Master") ? hana : ines;
  }

  private Map<String, VEvent> events(String calendar) {
    return new Calendars(reader(calendar))
        .events(calendar, calendar.equals("Master") ? ref : "Ease");
  }

  private VEvent event(String calendar) {
    Map<String, VEvent> found = events(calendar);
    assertThat(found).as("on " + calendar).hasSize(1);
    return found.values().iterator().next();
  }

  private JsonNode change(String body) {
    String tag = hana.get("/api/v1/records/" + record).header("ETag");
    return hana.patch("/api/v1/records/" + record, body, "If-Match", tag).expect(200).json();
  }

  @Test
  public void aTicketStandsOnFourCalendarsEachWithItsOwnDetails() {
    String body =
        """
        {"kind": "TICKET", "title": "Ease the paddle gear", "place": %d, "due": {"at": "2026-11-27T13:00"},
         "people": [{"role": 0, "person": %d}],
         "details": {"contact": "H. Varga", "phone": "0555 0142", "gate code": "hook 4471"}}
        """
            .formatted(
                hana.idOf("places", "Lock 7, Thornmere Flight"),
                hana.idOf("people", "Ines Okafor"));
    JsonNode made = hana.post("/api/v1/records", body).expect(201).json();
    record = made.get("record").get("id").asLong();
    ref = made.get("record").get("ref").asString();
    assertThat(made.get("calendars").asInt()).isEqualTo(4);

    JsonNode landings = hana.get("/api/v1/records/" + record + "/landings").expect(200).json();
    Map<String, String> told = new TreeMap<>();
    landings
        .get("lands")
        .forEach(
            l ->
                told.put(
                    l.get("name").asString(),
                    l.get("asked").asInt() + " of " + l.get("ofDetails").asInt()));
    assertThat(told)
        .isEqualTo(
            Map.of(
                "Ines Okafor, own", "7 of 10",
                "Thornmere crew, team", "4 of 10",
                "Due times", "3 of 10",
                "Master", "4 of 10"));

    VEvent own = event("Ines Okafor, own");
    assertThat(own.getDescription().getValue())
        .isEqualTo("Gate code hook 4471\nH. Varga\n0555 0142");
    assertThat(own.getDateStart().getValue().toString()).startsWith("Wed Nov 25 09:0");
    assertThat(own.getDateEnd().getValue()).hasToString("Fri Nov 27 13:00:00 UTC 2026");
    VEvent team = event("Thornmere crew, team");
    assertThat(team.getSummary().getValue()).isEqualTo("Ease the paddle gear · Ines Okafor");
    assertThat(team.getDescription()).isNull();
    VEvent master = event("Master");
    assertThat(master.getSummary().getValue()).isEqualTo(ref + " · Ines Okafor");
    assertThat(master.getLocation().getValue()).isEqualTo("Lock 7, Thornmere Flight");
    assertThat(event("Due times").getSummary().getValue()).isEqualTo(ref + " Ease the paddle gear");
    for (String calendar : WHERE.keySet()) {
      uids.put(calendar, event(calendar).getUid().getValue());
      Calendars calendars = new Calendars(reader(calendar));
      tokens.put(calendar, calendars.sync(calendars.href(calendar), "").token());
    }
  }

  @Test(dependsOnMethods = "aTicketStandsOnFourCalendarsEachWithItsOwnDetails")
  public void theDueTimeMovesAndEveryEntryFollows() {
    change("{\"due\": {\"at\": \"2026-11-27T16:00\"}}");
    for (String calendar : WHERE.keySet()) {
      VEvent event = event(calendar);
      assertThat(event.getUid().getValue()).isEqualTo(uids.get(calendar));
      assertThat(Calendars.sequence(event)).as("SEQUENCE on " + calendar).isEqualTo(1);
      assertThat(event.getDateEnd().getValue()).hasToString("Fri Nov 27 16:00:00 UTC 2026");
      Calendars calendars = new Calendars(reader(calendar));
      Calendars.Synced synced = calendars.sync(calendars.href(calendar), tokens.get(calendar));
      assertThat(synced.live()).as("sync of " + calendar).hasSize(1);
      assertThat(synced.gone()).isEmpty();
      assertThat(synced.live().keySet().iterator().next()).contains(uids.get(calendar));
      tokens.put(calendar, synced.token());
    }
  }

  @Test(dependsOnMethods = "theDueTimeMovesAndEveryEntryFollows")
  public void handedOverItGoesFromTheOneAndComesToTheOther() {
    long tam = hana.idOf("people", "Tam Birtles");
    change("{\"people\": [{\"role\": 0, \"person\": " + tam + "}]}");
    assertThat(events("Ines Okafor, own")).isEmpty();
    Calendars calendars = new Calendars(ines);
    Calendars.Synced synced =
        calendars.sync(calendars.href("Ines Okafor, own"), tokens.get("Ines Okafor, own"));
    assertThat(synced.gone()).hasSize(1);
    assertThat(synced.live()).isEmpty();
    Map<String, VEvent> tams =
        new Calendars(Api.of(server, "tam")).events("Tam Birtles, own", "Ease");
    assertThat(tams).hasSize(1);
    VEvent event = tams.values().iterator().next();
    assertThat(event.getDescription().getValue()).contains("0555 0142");
    String wren =
        new Calendars(Api.of(server, "wren"))
            .sync(new Calendars(Api.of(server, "wren")).href("Saltgate crew, team"), "")
            .live()
            .toString();
    assertThat(wren)
        .contains("Ease the paddle gear")
        .doesNotContain("0555 0142")
        .doesNotContain("hook 4471");
  }

  @Test(dependsOnMethods = "handedOverItGoesFromTheOneAndComesToTheOther")
  public void finishedItGoesAsEachRuleSaysAndUndoBringsItBack() {
    Api tam = Api.of(server, "tam");
    VEvent before =
        new Calendars(tam).events("Tam Birtles, own", "Ease").values().iterator().next();
    long act = change("{\"state\": \"DONE\"}").get("act").asLong();
    VEvent ticked =
        new Calendars(tam).events("Tam Birtles, own", "Ease").values().iterator().next();
    assertThat(ticked.getSummary().getValue()).startsWith("✓ ");
    assertThat(new Calendars(tam).events("Saltgate crew, team", "Ease")).isEmpty();
    assertThat(new Calendars(tam).events("Due times", "Ease")).isEmpty();
    assertThat(events("Master")).hasSize(1);

    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(200);
    VEvent after = new Calendars(tam).events("Tam Birtles, own", "Ease").values().iterator().next();
    assertThat(after.getUid().getValue()).isEqualTo(before.getUid().getValue());
    assertThat(after.getSummary().getValue()).isEqualTo(before.getSummary().getValue());
    assertThat(after.getDateEnd().getValue()).isEqualTo(before.getDateEnd().getValue());
    assertThat(Calendars.sequence(after)).isGreaterThan(Calendars.sequence(before));
    assertThat(event("Due times").getUid().getValue()).isEqualTo(uids.get("Due times"));
    hana.post("/api/v1/acts/" + act + "/undo", "{}").expect(409);
  }

  @Test(dependsOnMethods = "finishedItGoesAsEachRuleSaysAndUndoBringsItBack")
  public void atMidnightMembershipThatEndsTakesWorkOff() {
    Set<String> before =
        Set.copyOf(server.database().query("select id::text from act where kind = 'house.day'"));
    server.setClock("2026-11-26T00:00:30Z");
    Await.until(
        "the new day is done",
        java.time.Duration.ofSeconds(60),
        () ->
            server.database().query("select id::text from act where kind = 'house.day'").size()
                > before.size());
    assertThat(server.database().query("select projected::text from house_day"))
        .containsExactly("2026-11-26");
  }
}
