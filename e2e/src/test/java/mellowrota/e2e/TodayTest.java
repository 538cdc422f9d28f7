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
}
