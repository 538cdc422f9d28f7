package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What wants the coordinator, and a worker's own day, also without network. */
public class TodayTest extends InBrowser {

  private Api hana;
  private Api wren;
  private long wrenId;

  @BeforeClass(dependsOnMethods = "start")
  public void people() {
    hana = Api.of(server, "hana");
    wren = Api.of(server, "wren");
    wrenId = hana.idOf("people", "Wren Adeyemi");
  }

  private static List<String> titles(JsonNode list) {
    List<String> found = new ArrayList<>();
    list.forEach(
        one ->
            found.add(one.path("title").asString(one.path("record").path("title").asString(""))));
    return found;
  }

  private long ticket(String title, String due, long person) {
    String people = person == 0 ? "" : ", \"people\": [{\"role\": 0, \"person\": " + person + "}]";
    return hana.record(
        "{\"title\": \"%s\", \"due\": {\"at\": \"%s\"}%s}".formatted(title, due, people));
  }

  @Test
  public void eachLineStandsWhereItBelongsAndGoesWithItsRemedy() {
    long late = ticket("Late thing", "2026-11-25T08:00", wrenId);
    long open = ticket("Open thing", "2026-11-26T08:00", 0);
    long hidden =
        hana.record(
            """
            {"title": "Hidden thing", "due": {"at": "2026-11-26T09:00"}, "people": [{"role": 0,
             "person": %d}], "exceptions": [{"sort": "NOT_SENT", "reason": "asked"}]}
            """
                .formatted(wrenId));
    JsonNode today = hana.get("/api/v1/today").expect(200).json();
    assertThat(titles(today.get("overdue"))).contains("Late thing").doesNotContain("Open thing");
    assertThat(titles(today.get("nobody"))).contains("Open thing").doesNotContain("Late thing");
    assertThat(titles(today.get("nowhere"))).contains("Hidden thing");
    assertThat(titles(today.get("unseen"))).contains("Late thing");
    assertThat(titles(today.get("ahead"))).contains("Open thing");

    Page page = signedIn("hana", ColorScheme.LIGHT, "/today");
    Locator line =
        page.getByRole(AriaRole.LISTITEM)
            .filter(new Locator.FilterOptions().setHasText("Late thing"));
    line.first()
        .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Finish"))
        .click();
    assertThat(page.getByText(" finished")).isVisible();
    assertThat(hana.get("/api/v1/records/" + late).text()).contains("\"DONE\"");
    String ref = hana.get("/api/v1/records/" + open).json().get("ref").asString();
    page.getByLabel("Assign " + ref + " to").click();
    type(page, "Wren");
    press(page, "Enter");
    assertThat(page.getByText(ref + " assigned to Wren Adeyemi")).isVisible();
    assertThat(hana.get("/api/v1/records/" + open).text()).contains("Wren Adeyemi");
    hana.change(hidden, "{\"exceptions\": []}");
    assertThat(titles(hana.get("/api/v1/today").json().get("nowhere")))
        .doesNotContain("Hidden thing");
  }

  @Test
  public void whatWaitsIsLookedAtAndLetGo() {
    ReleasesTest.ticketsWaitForAYes(hana, true);
    try {
      long record = ticket("Waits here", "2026-11-29T08:00", wrenId);
      ticket("Waits too", "2026-11-29T09:00", wrenId);
      Page page = signedIn("hana", ColorScheme.LIGHT, "/board");
      page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("await approval")).click();
      Locator line =
          page.getByRole(AriaRole.LISTITEM)
              .filter(
                  new Locator.FilterOptions()
                      .setHasText("Waits here")
                      .setHas(button(page, "Approve")));
      line.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Open")).click();
      assertThat(line.getByText("nothing yet")).isVisible();
      line.getByRole(
              AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Approve").setExact(true))
          .click();
      assertThat(page.getByText("1 entry approved")).isVisible();
      assertThat(new Calendars(wren).events("Wren Adeyemi, own", "Waits here")).hasSize(1);
      press(page, "z");
      assertThat(line.first()).isVisible();
      assertThat(new Calendars(wren).events("Wren Adeyemi, own", "Waits here")).isEmpty();
      page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Approve all")).click();
      assertThat(page.getByText("2 entries approved")).isVisible();
      assertThat(new Calendars(wren).events("Wren Adeyemi, own", "Waits ")).hasSize(2);
      assertThat(hana.get("/api/v1/records/" + record + "/landings").text())
          .doesNotContain("\"waits\"");
    } finally {
      ReleasesTest.ticketsWaitForAYes(hana, false);
    }
  }

  /** A day of one who is sick, from the key to the last work handed over. */
  @Test
  public void sickIsCoveredInFiveActions() {
    String sick = "Isla Wherry";
    long id = hana.idOf("people", sick);
    String left = "/api/v1/cover/left?from=2026-11-25&until=2026-12-02&person=" + id;
    long takers = 0;
    JsonNode before = hana.get(left).json();
    for (JsonNode one : before) {
      takers += one.has("person") ? 1 : 0;
    }
    assertThat(takers).isPositive();
    Page page = signedIn("hana", ColorScheme.LIGHT, "/today");
    button(page, "Report sick…").waitFor();
    press(page, "k"); // 1
    assertThat(page.getByLabel("Person")).isFocused();
    type(page, sick);
    press(page, "Enter"); // 2
    assertThat(page.getByLabel("Last day")).isVisible();
    page.getByLabel("Last day").fill("1 Dec 2026"); // 3
    press(page, "Enter"); // 4
    assertThat(page.getByText("Work to reassign from " + sick)).isVisible();
    button(page, "Hand " + takers + " over").click(); // 5
    assertThat(page.getByText(takers + " handed over")).isVisible();
    assertThat(hana.get(left).json().size()).isEqualTo((int) (before.size() - takers));
    assertThat(hana.get("/api/v1/people/" + id + "/times").text())
        .contains("\"first\":\"2026-11-25\",\"last\":\"2026-12-01\"")
        .contains("\"sick\":true");
  }

  @Test
  public void leaveThatIsAskedForIsAgreedToFromToday() {
    wren.post(
            "/api/v1/people/" + wrenId + "/leave",
            "{\"first\": \"2027-01-04\", \"last\": \"2027-01-05\"}")
        .expect(204);
    assertThat(hana.get("/api/v1/today").json().get("leave").toString()).contains("Wren Adeyemi");
    // Of somebody else's people a team coordinator is told nothing.
    assertThat(Api.of(server, "marguerite").get("/api/v1/today").json().get("leave").size())
        .isZero();
    assertThat(wren.get("/api/v1/today").json().get("leave").size()).isZero();
    Page page = signedIn("hana", ColorScheme.LIGHT, "/today");
    button(page, "Leave requests 1").click();
    button(page, "Agree").click();
    assertThat(page.getByText("Leave requests")).hasCount(0);
    assertThat(wren.get("/api/v1/people/" + wrenId + "/times").text()).contains("\"agreed\":true");
  }

  /** What is told in one place is told nowhere else, and five people who have not seen it once. */
  @Test
  public void nothingStandsThereTwice() {
    StringBuilder people = new StringBuilder();
    for (String name : List.of("Joss Hallard", "Hedda Quay", "Caio Merrin", "Bram Idowu")) {
      people.append(", {\"role\": 1, \"person\": ").append(hana.idOf("people", name)).append('}');
    }
    String body =
        "{\"title\": \"%s\", \"due\": {\"at\": \"%s\"}, \"people\": [{\"role\": 0, \"person\": %d}%s]}";
    hana.record(body.formatted("Five to see it", "2026-12-05T08:00", wrenId, people));
    hana.record(body.formatted("Late and unseen", "2026-11-25T07:00", wrenId, people));
    JsonNode today = hana.get("/api/v1/today").json();
    List<String> unseen = titles(today.get("unseen"));
    assertThat(unseen).containsOnlyOnce("Five to see it").containsOnlyOnce("Late and unseen");
    for (JsonNode one : today.get("unseen")) {
      if (one.get("record").get("title").asString().equals("Five to see it")) {
        assertThat(one.get("people").size()).isEqualTo(5);
      }
    }
    long cannot = ticket("Late, and cannot be", "2026-11-25T07:30", 0);
    hana.change(cannot, "{\"cant\": true, \"note\": \"no boat\"}");
    today = hana.get("/api/v1/today").json();
    assertThat(titles(today.get("cant"))).contains("Late, and cannot be");
    for (String list : List.of("overdue", "dueToday", "nobody", "nobodyLater", "nowhere")) {
      assertThat(titles(today.get(list))).doesNotContain("Late, and cannot be");
    }
    Page page = signedIn("hana", ColorScheme.LIGHT, "/today?open=unseen");
    assertThat(page.getByText("Five to see it")).hasCount(1);
    assertThat(
            page.getByRole(AriaRole.LISTITEM)
                .filter(new Locator.FilterOptions().setHasText("Late and unseen"))
                .getByText("(not acknowledged)"))
        .hasCount(1);
  }

  private static Locator button(Page page, String name) {
    return page.getByRole(
        AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  @Test
  public void aChangeIsListedUntilItIsSeen() {
    long record = ticket("To be seen", "2026-11-28T08:00", wrenId);
    wren.post("/api/v1/records/" + record + "/seen", "{}").expect(204);
    assertThat(titles(wren.get("/api/v1/my-day").json().get("changed")))
        .doesNotContain("To be seen");
    hana.change(record, "{\"due\": {\"at\": \"2026-11-28T11:00\"}}");
    JsonNode changed = wren.get("/api/v1/my-day").json().get("changed");
    assertThat(titles(changed)).contains("To be seen");
    assertThat(changed.toString()).contains("Sat 28 Nov").contains("11:00");
    hana.change(record, "{\"details\": {\"notes\": \"no time, place or people\"}}");
    wren.post("/api/v1/records/" + record + "/seen", "{}").expect(204);
    hana.change(record, "{\"details\": {\"notes\": \"again none of these\"}}");
    assertThat(titles(wren.get("/api/v1/my-day").json().get("changed")))
        .doesNotContain("To be seen");
    hana.change(record, "{\"private\": true}");
    Api.of(server, "ines").post("/api/v1/records/" + record + "/seen", "{}").expect(404);
  }

  @Test
  public void cantWithANoteReachesTheOffice() {
    long record = ticket("Cannot be", "2026-11-28T08:00", wrenId);
    wren.change(record, "{\"cant\": true, \"note\": \"water too high\"}");
    JsonNode today = hana.get("/api/v1/today").json();
    assertThat(titles(today.get("cant"))).contains("Cannot be");
    assertThat(today.get("cant").toString())
        .contains("Wren Adeyemi, 25 Nov")
        .contains("water too high");
    wren.change(record, "{\"note\": \"second look tomorrow\"}");
    assertThat(hana.get("/api/v1/records/" + record).text())
        .contains("water too high")
        .contains("second look tomorrow");
    wren.patch("/api/v1/records/" + record, "{\"title\": \"Mine\"}", "If-Match", "*").expect(403);
  }

  @Test
  public void myDayOpensWithoutNetworkAndSendsWhatWasTickedOnce() {
    long record = ticket("Offline work", "2026-11-25T17:00", wrenId);
    Page page = phone();
    Locator work =
        page.getByRole(AriaRole.ARTICLE)
            .filter(new Locator.FilterOptions().setHasText("Offline work"));
    assertThat(work).isVisible();
    page.waitForFunction("() => navigator.serviceWorker?.controller != null");
    // Nothing answers any more, whatever a browser's own switch would let through.
    server.kill();
    page.reload();
    assertThat(page.getByText("No connection. You see your day as of")).isVisible();
    work.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Note")).click();
    type(page, "kept in the pocket");
    work.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Send")).click();
    work.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Start")).click();
    assertThat(page.getByText("2 changes waiting to be sent")).isVisible();
    page.reload();
    assertThat(page.getByText("2 changes waiting to be sent")).isVisible();

    server.begin();
    server.ready();
    page.reload();
    Await.until(
        "both marks have arrived",
        Duration.ofSeconds(60),
        () -> hana.get("/api/v1/records/" + record).json().get("started").asBoolean());
    assertThat(page.getByText("to be sent")).isHidden();
    page.reload();
    assertThat(work).isVisible();
    String text = hana.get("/api/v1/records/" + record).text();
    assertThat(text.split("kept in the pocket", -1)).as("sent once").hasSize(2);
  }

  /** What one had and lost: its day and place as they knew it, until they say they know. */
  @Test
  public void whoLosesWorkIsToldOnceAndOfNoMoreThanTheyKnew() {
    long ines = hana.idOf("people", "Ines Okafor");
    Api inesApi = Api.of(server, "ines");
    long record =
        hana.record(
            """
            {"title": "Secret of the lock", "place": %d, "due": {"at": "2026-12-09T08:00"}, "people":
             [{"role": 0, "person": %d}]}
            """
                .formatted(hana.idOf("places", "Osier Weir"), wrenId));
    assertThat(lost(wren)).isEmpty();
    long act = hana.change(record, "{\"people\": [{\"role\": 0, \"person\": %d}]}".formatted(ines));
    assertThat(lost(wren)).containsExactly(record + " 2026-12-09 Osier Weir false");
    assertThat(wren.get("/api/v1/my-day").text()).doesNotContain("Secret of the lock");
    hana.post("/api/v1/acts/" + act + "/undo", "").expect(200);
    assertThat(lost(wren)).as("it is theirs again").isEmpty();
    assertThat(lost(inesApi)).containsExactly(record + " 2026-12-09 Osier Weir false");
    inesApi.post("/api/v1/my-day/lost/" + record + "/seen", "{}").expect(204);
    assertThat(lost(inesApi)).isEmpty();
    inesApi.post("/api/v1/my-day/lost/" + record + "/seen", "{}").expect(404);

    hana.change(record, "{\"state\": \"CANCELLED\"}");
    assertThat(lost(wren)).containsExactly(record + " 2026-12-09 Osier Weir true");
    Page page = phone();
    assertThat(page.getByText("No longer yours")).isVisible();
    assertThat(page.getByText("Wed 9 Dec · Osier Weir")).isVisible();
    page.getByLabel("Got it: Wed 9 Dec · Osier Weir").click();
    assertThat(page.getByText("No longer yours")).hasCount(0);
    assertThat(lost(wren)).isEmpty();
  }

  private static List<String> lost(Api who) {
    List<String> found = new ArrayList<>();
    for (JsonNode one : who.get("/api/v1/my-day").expect(200).json().get("lost")) {
      found.add(
          one.get("record").asLong()
              + " "
              + one.path("day").asString("-")
              + " "
              + one.path("place").asString("-")
              + " "
              + one.get("cancelled").asBoolean());
    }
    return found;
  }

  /** Who has no account is told by somebody, and it is kept by whom and how. */
  @Test
  public void whoHasNoAccountIsToldByACoordinator() {
    long joss = hana.idOf("people", "Joss Hallard");
    long record = ticket("Told by phone", "2026-12-10T08:00", joss);
    String told = "/api/v1/records/" + record + "/told";
    String body = "{\"person\": %d, \"how\": \"%s\"}";
    assertThat(titles(hana.get("/api/v1/today").json().get("unseen"))).contains("Told by phone");
    wren.post(told, body.formatted(joss, "PHONE")).expect(403);
    assertThat(hana.post(told, body.formatted(wrenId, "PHONE")).expect(422).text())
        .contains("/person");
    assertThat(hana.post(told, body.formatted(joss, "PIGEON")).expect(422).text()).contains("/how");
    Page page = signedIn("hana", ColorScheme.LIGHT, "/today?open=unseen");
    Locator line =
        page.getByRole(AriaRole.LISTITEM)
            .filter(new Locator.FilterOptions().setHasText("Told by phone"));
    line.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Told…")).click();
    page.getByText("Joss Hallard told by phone").click();
    assertThat(line).hasCount(0);
    assertThat(hana.get(told).expect(200).text())
        .contains("Joss Hallard")
        .contains("\"by\":\"Hana Vesely\"")
        .contains("PHONE");
    wren.get(told).expect(403);
    hana.change(record, "{\"due\": {\"at\": \"2026-12-10T09:00\"}}");
    assertThat(titles(hana.get("/api/v1/today").json().get("unseen"))).contains("Told by phone");
  }

  private Page phone() {
    BrowserContext context =
        browser.newContext(
            new Browser.NewContextOptions()
                .setViewportSize(390, 844)
                .setTimezoneId("Europe/London"));
    Page page = context.newPage();
    page.setDefaultTimeout(60_000);
    page.navigate(server.url("/"));
    page.getByLabel("Email address").waitFor();
    type(page, "wren@quillwater.example");
    press(page, "Tab");
    type(page, "still-water");
    press(page, "Enter");
    page.getByText("Today").waitFor();
    return page;
  }

  /** A whole list is looked at, and any of it left out. */
  @Test
  public void muchOfAListIsDoneAtOnce() {
    for (int i = 1; i <= 3; i++) {
      hana.record(
          "{\"title\": \"Row %d\", \"due\": {\"at\": \"2026-11-25T2%d:00\"}}".formatted(i, i));
    }
    Page page = signedIn("hana", ColorScheme.LIGHT, "/today");
    page.getByText("Row 3").first().waitFor();
    button(page, "Edit all: Due today").click();
    button(page, "Tag…").click();
    page.getByLabel("Tag", new Page.GetByLabelOptions().setExact(true)).fill("evening");
    press(page, "Enter");
    Locator look =
        page.getByRole(AriaRole.DIALOG)
            .filter(new Locator.FilterOptions().setHasText("Tag as evening"));
    look.getByLabel("Row 2").uncheck();
    look.getByRole(
            AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(Pattern.compile("^Apply")))
        .click();
    assertThat(page.getByText(Pattern.compile("Tag as evening: \\d+ records changed"))).isVisible();
    assertThat(hana.get("/api/v1/records?find=Row").text().split("\"evening\"", -1)).hasSize(3);
  }
}
