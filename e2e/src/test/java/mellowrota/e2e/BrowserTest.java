package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.args.AxeRunOptions;
import com.deque.html.axecore.playwright.AxeBuilder;
import com.deque.html.axecore.results.Rule;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The real interface in a real browser. */
public class BrowserTest extends InBrowser {

  /** A fast hand types on before the line is there to be typed into. */
  @Test
  public void whatIsTypedAheadOfTheLineStandsInIt() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records");
    page.getByText("Fallen willow").first().waitFor();
    page.evaluate(
        """
        for (const key of 'nGate stuck, Ines, by Fri 13:00') {
          document.body.dispatchEvent(
              new KeyboardEvent('keydown', {key, bubbles: true, cancelable: true}));
        }
        """);
    Locator line = page.locator("#line");
    assertThat(line).isFocused();
    assertThat(line).hasValue("Gate stuck, Ines, by Fri 13:00");
    assertThat(page.getByLabel("Understood")).containsText("Ines Okafor");
    type(page, "!");
    assertThat(line).hasValue("Gate stuck, Ines, by Fri 13:00!");
  }

  /** No pointer, no fill, no focus: the whole first run by keyboard. */
  @Test
  public void aCoordinatorDoesItAllByKeyboard() {
    Page page = page(ColorScheme.LIGHT);
    page.navigate(server.url("/records"));
    page.getByLabel("Email address").waitFor();
    type(page, "hana@quillwater.example");
    press(page, "Tab");
    type(page, "still-water");
    press(page, "Enter");
    page.getByText("Fallen willow").first().waitFor();
    press(page, "n");
    page.getByLabel("What", new Page.GetByLabelOptions().setExact(true)).waitFor();
    press(page, "Tab", "Tab");
    type(page, "Keyboard paddle");
    press(page, "Tab");
    find(page, "Lock 7");
    press(page, "Enter", "Tab");
    type(page, "Fri 13:00");
    press(page, "Tab");
    find(page, "Ines Okafor");
    press(page, "Tab", "Tab", "Tab");
    type(page, "H. Varga");
    press(page, "Tab");
    type(page, "0555 0142");
    press(page, "Tab");
    type(page, "4471");
    assertThat(page.getByText("Will land on 4 calendars")).isVisible();
    press(page, "Enter");

    assertThat(page.getByText("Lands on 4 calendars")).isVisible();
    assertThat(page.getByText("7 of 10 details")).isVisible();
    assertThat(page.getByText("4 of 10 details")).hasCount(2);
    assertThat(page.getByText("3 of 10 details")).isVisible();
    assertThat(page.getByText("4 entries on 4 calendars")).isVisible();
    Api ines = Api.of(server, "ines");
    Calendars calendars = new Calendars(ines);
    Map<String, ?> own = calendars.events("Ines Okafor, own", "Keyboard paddle");
    assertThat(own).hasSize(1);
    String text = calendars.sync(calendars.href("Ines Okafor, own"), "").live().toString();
    assertThat(Calendars.unfold(text)).contains("0555 0142").contains("4471");

    press(page, "e");
    page.getByText("Edit T-").waitFor();
    press(page, "Tab", "Tab", "Control+a");
    type(page, "Fri 16:00");
    press(page, "Enter");
    assertThat(page.getByText("due Fri 27 Nov, 16:00")).isVisible();

    press(page, "e");
    page.getByText("Edit T-").waitFor();
    press(page, "Tab", "Tab", "Tab");
    find(page, "Tam Birtles");
    press(page, "Shift+Tab", "Enter");
    assertThat(page.getByText(" saved: 5 entries on 5 calendars")).isVisible();
    assertThat(page.getByText("Tam Birtles, own")).isVisible();
    assertThat(calendars.events("Ines Okafor, own", "Keyboard paddle")).isEmpty();

    press(page, "f");
    assertThat(page.getByText("Lands on 2 calendars")).isVisible();
    press(page, "z");
    assertThat(page.getByText("Lands on 4 calendars")).isVisible();
    press(page, "Escape");
    assertThat(page.getByText("Lands on 4 calendars")).isHidden();
  }

  @Test
  public void whatAnotherDoesAppearsByItself() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records");
    page.getByText("Fallen willow").first().waitFor();
    Api hana = Api.of(server, "hana");
    hana.post(
            "/api/v1/records",
            "{\"title\": \"From elsewhere\", \"due\": {\"at\": \"2026-11-24T07:00\"}}")
        .expect(201);
    assertThat(page.getByText("From elsewhere")).isVisible();
  }

  @Test
  public void manyAreChosenLookedAtAndDoneAtOnce() {
    Api hana = Api.of(server, "hana");
    for (int i = 1; i <= 3; i++) {
      hana.record(
          "{\"title\": \"Many %d\", \"due\": {\"at\": \"2026-11-30T1%d:00\"}}".formatted(i, i));
    }
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records?find=Many&state=all");
    page.getByText("Many 3").waitFor();
    for (int i = 0; i < 3; i++) {
      page.getByRole(AriaRole.CHECKBOX).nth(i).check();
    }
    assertThat(page.getByText("3 selected")).isVisible();
    page.getByLabel("Assign to…").click();
    find(page, "Wren Adeyemi");
    press(page, "Enter");
    Locator look = page.getByRole(AriaRole.DIALOG);
    assertThat(look.getByText("Wren Adeyemi", new Locator.GetByTextOptions().setExact(true)))
        .hasCount(3);
    assertThat(look.getByLabel("Becomes visible")).containsText("Wren Adeyemi, own");
    assertThat(hana.get("/api/v1/records?find=Many").text()).doesNotContain("Wren");
    // Any part of it is taken.
    look.getByLabel("Many 2").uncheck();
    look.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Apply 2 changes"))
        .click();
    assertThat(page.getByText("Assign to Wren Adeyemi: 2 records changed")).isVisible();
    Calendars wrens = new Calendars(Api.of(server, "wren"));
    assertThat(wrens.events("Wren Adeyemi, own", "Many")).hasSize(2);
    press(page, "z");
    assertThat(page.getByText("Undone")).isVisible();
    assertThat(wrens.events("Wren Adeyemi, own", "Many")).isEmpty();
  }

  /** What a refusal leaves is gone on with, and all of it comes back with one undo. */
  @Test
  public void aRefusalInManyLeavesTheRestAsItWas() {
    Api hana = Api.of(server, "hana");
    long gone = 0;
    for (int i = 1; i <= 3; i++) {
      gone =
          hana.record(
              "{\"title\": \"Lot %d\", \"due\": {\"at\": \"2026-12-01T1%d:00\"}}".formatted(i, i));
    }
    Page page = signedIn("hana", ColorScheme.DARK, "/records?find=Lot&state=all");
    page.getByText("Lot 3").waitFor();
    for (int i = 0; i < 3; i++) {
      page.getByRole(AriaRole.CHECKBOX).nth(i).check();
    }
    button(page, "Tag…").click();
    page.getByLabel("Tag", new Page.GetByLabelOptions().setExact(true)).fill("urgent");
    press(page, "Enter");
    Locator look = page.getByRole(AriaRole.DIALOG);
    assertThat(look.getByText("no tags")).hasCount(3);
    // Somebody is quicker with one of them.
    hana.change(gone, "{\"title\": \"Lot 3 quicker\"}");
    look.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Apply 3 changes"))
        .click();
    assertThat(look.getByRole(AriaRole.ALERT).first()).isVisible();
    assertThat(hana.get("/api/v1/records?find=Lot").text()).doesNotContain("urgent");
    look.getByLabel("Lot 3").uncheck();
    look.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Go on with 2")).click();
    assertThat(page.getByText("Tag as urgent: 2 records changed")).isVisible();
    assertThat(hana.get("/api/v1/records?find=Lot").text().split("urgent", -1)).hasSize(3);
    press(page, "z");
    assertThat(page.getByText("Undone")).isVisible();
    assertThat(hana.get("/api/v1/records?find=Lot").text()).doesNotContain("urgent");
  }

  private static Locator button(Page page, String name) {
    return page.getByRole(
        AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  /** Each looked at before it is done: over to another, on a calendar more, off one, off all. */
  @Test
  public void fromTheSheetItIsHandedOnCopiedPutElsewhereAndCancelled() {
    Api hana = Api.of(server, "hana");
    Calendars wrens = new Calendars(Api.of(server, "wren"));
    long tam = hana.idOf("people", "Tam Birtles");
    long record =
        hana.record(
            """
            {"kind": "JOB", "title": "Sheet work", "state": "CONFIRMED", "visits": [{"start":
             "2026-12-07T21:00", "end": "2026-12-07T22:00"}], "people": [{"role": 0, "person": %d}]}
            """
                .formatted(tam));
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records/" + record);
    more(page, "Hand over…");
    page.getByLabel("To", new Page.GetByLabelOptions().setExact(true)).click();
    find(page, "Wren");
    press(page, "Enter");
    button(page, "Hand over").click();
    apply(page);
    assertThat(page.getByText(" handed over: ")).isVisible();
    assertThat(wrens.events("Wren Adeyemi, own", "Sheet work")).hasSize(1);
    assertThat(new Calendars(Api.of(server, "tam")).events("Tam Birtles, own", "Sheet work"))
        .isEmpty();

    more(page, "Come again on another day…");
    button(page, "Add the visit").click();
    apply(page);
    assertThat(page.getByText(" has one more visit: ")).isVisible();
    assertThat(wrens.events("Wren Adeyemi, own", "Sheet work")).hasSize(2);

    button(page, "Why?").click();
    page.getByLabel("Never on this calendar…: Wren Adeyemi, own").click();
    page.getByLabel("Because").fill("Wren asked for it");
    button(page, "Keep it off").click();
    apply(page);
    assertThat(page.getByText(" kept off the calendar: ")).isVisible();
    assertThat(wrens.events("Wren Adeyemi, own", "Sheet work")).isEmpty();

    more(page, "Cancel the work");
    apply(page);
    assertThat(page.getByText(" cancelled: ")).isVisible();
    assertThat(hana.get("/api/v1/records/" + record).json().get("state").asString())
        .isEqualTo("CANCELLED");

    more(page, "Copy to another day…");
    button(page, "Copy").click();
    page.waitForURL(url -> !url.endsWith("/" + record));
    // In the sheet, and in its history once that has come.
    assertThat(page.getByText("Tue 8 Dec 21:00").first()).isVisible();
  }

  /** Two visits, two helpers, and one of them is off on the second day: told, refused, mended. */
  @Test
  public void oneOfTwoHelpersIsOffOnTheSecondDay() {
    Api hana = Api.of(server, "hana");
    long yusuf = hana.idOf("people", "Yusuf Larch");
    hana.post("/api/v1/people/" + yusuf + "/leave", "{\"first\": \"2026-12-08\"}").expect(204);
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records/new");
    page.getByText("Job", new Page.GetByTextOptions().setExact(true)).first().click();
    page.getByLabel("What", new Page.GetByLabelOptions().setExact(true)).fill("Two visits");
    page.locator("#span").fill("7 Dec 2026 09:00-11:00");
    button(page, "Add visit").click();
    page.locator("#span2").fill("8 Dec 2026 09:00-11:00");
    page.getByText("Confirmed", new Page.GetByTextOptions().setExact(true)).first().click();
    choose(page, "#lead", "Bram Idowu");
    choose(page, "#support", "Anneke Dray");
    choose(page, "#support", "Yusuf Larch");
    assertThat(page.getByText("Yusuf Larch").last()).isVisible();
    button(page, "Save").click();
    assertThat(page.getByText("Yusuf Larch is on leave").first()).isVisible();
    assertThat(hana.get("/api/v1/records?find=Two%20visits").text()).doesNotContain("Two visits");
    // Each visit with people of its own: the second without who is off.
    page.getByText("Different people on each visit").click();
    page.locator("#support2").click();
    press(page, "Backspace", "Tab");
    button(page, "Save").click();
    assertThat(page.getByText(Pattern.compile("J-\\d+ saved"))).isVisible();
    JsonNode made = hana.get("/api/v1/records?find=Two%20visits").json().get("items").get(0);
    List<String> support = new ArrayList<>();
    made.get("people")
        .forEach(
            one -> {
              if (one.get("role").asInt() == 1) {
                support.add(one.get("name").asString() + " " + one.path("visit").asString("-"));
              }
            });
    assertThat(support)
        .containsExactlyInAnyOrder("Anneke Dray 1", "Yusuf Larch 1", "Anneke Dray 2");
  }

  private static void choose(Page page, String field, String name) {
    page.locator(field).click();
    find(page, name);
    press(page, "Enter", "Tab");
  }

  private static void more(Page page, String what) {
    button(page, "More…").click();
    page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(what)).click();
  }

  private static void apply(Page page) {
    assertThat(button(page, "Apply")).isVisible();
    button(page, "Apply").click();
  }

  @Test
  public void aConflictShowsTheirsAndKeepsMine() {
    Api hana = Api.of(server, "hana");
    long id =
        hana.post("/api/v1/records", "{\"title\": \"Mine and theirs\"}")
            .expect(201)
            .json()
            .get("record")
            .get("id")
            .asLong();
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records/" + id + "?edit=1");
    page.getByText("Edit T-").waitFor();
    press(page, "Control+a");
    type(page, "My words");
    hana.patch("/api/v1/records/" + id, "{\"title\": \"Their words\"}", "If-Match", "*")
        .expect(200);
    press(page, "Enter");
    assertThat(page.getByText("Somebody else has changed")).isVisible();
    assertThat(page.getByText("Their words").first()).isVisible();
    assertThat(page.getByLabel("What", new Page.GetByLabelOptions().setExact(true)))
        .hasValue("My words");
    press(page, "Enter");
    assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("My words")))
        .isVisible();
  }

  @Test
  public void anInvitedPersonSetsAPasswordAndIsIn() {
    Api hana = Api.of(server, "hana");
    String link =
        hana.post(
                "/api/v1/people/" + hana.idOf("people", "Nell Ashdown") + "/invitation",
                "{\"email\": \"nell@quillwater.example\", \"right\": \"WORKER\"}")
            .expect(201)
            .json()
            .get("link")
            .asString();
    Page page = page(ColorScheme.LIGHT);
    page.navigate(server.url(link));
    assertThat(page.getByText("Welcome, Nell Ashdown")).isVisible();
    page.getByLabel("Password").waitFor();
    type(page, "a long new password");
    press(page, "Enter");
    page.getByRole(
            AriaRole.NAVIGATION, new Page.GetByRoleOptions().setName("Sections").setExact(true))
        .waitFor();
    assertThat(
            page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName("New").setExact(true)))
        .isHidden();
  }

  @DataProvider
  Object[][] pages() {
    String[][] views = {
      {"hana", "/records", "Fallen willow"},
      {"hana", "/records/13", "Lands on"},
      {"hana", "/records/new", "Lands on no calendar"},
      {"hana", "/today", "Next two weeks"},
      {"hana", "/files", "Drop a CSV"},
      {"hana", "/rules", "Test a record"},
      {"hana", "/calendars", "Next 7 days"},
      {"ines", "/calendars", "Next 7 days"},
      {"hana", "/who-sees-what", "Everybody counts once"},
      {"hana", "/who-sees-what?record=41", "What they see"},
      {"hana", "/who-sees-what?by=detail&of=phone", "Counts include"},
      {"hana", "/rules?tab=wordings", "Usual wordings"},
      {"hana", "/rules?tab=details", "The details a record can have"},
      {"hana", "/who-sees-what?by=person&of=5", "Counts include"},
      {"ines", "/my-day", "Coming up"},
      {"hana", "/board", "Bank and Dredging"},
      {"hana", "/board?zoom=day", "Bank and Dredging"},
      {"hana", "/board?zoom=weeks", "Bank and Dredging"},
      {"hana", "/board?zoom=season&by=place", "Osier Basin"},
      {"ines", "/board", "Bank and Dredging"},
      {"hana", "/records/13?edit=1", "Will land on"},
      {"hana", "/records?find=nothing-like-it", "No records"},
      {"ines", "/records/13", "Lands on"},
      {"hana", "/crew/people", "Anneke Dray"},
      {"hana", "/crew/people?person=2", "Weekly hours"},
      {"hana", "/crew/places?place=1", "Opening hours"},
      {"hana", "/crew/limits", "Nights in a row"},
      {"hana", "/crew/house", "Working days"},
      {"hana", "/board/paper?from=2026-11-26", "Bank and Dredging"},
      {"hana", "/cover/paper?from=2026-11-23", "Flood watch"},
      {"hana", "/records/13/paper", "History"},
      {"hana", "/crew/teams", "Thornmere crew"},
      {"hana", "/crew/teams?team=1", "Members"},
      {"hana", "/crew/places", "Osier Weir"},
      {"hana", "/crew/regions", "Quill Vale"},
      {"hana", "/crew/changes", "Show earlier"},
      {"hana", "/account", "Create app password"},
      {"hana", "/copies", "No account is linked yet"},
      {"hana", "/cover", "1 more needed"},
      {"hana", "/deadlines/1", "lock the gates"},
      {"hana", "/deadlines?make=set", "The key date belongs to"},
      {"hana", "/deadlines/chains/1", "No faults"},
      {"hana", "/cover?load=1", "By due date"},
      {"", "/", "This is the demo"},
      {"", "/welcome/nothing", "This invitation has been used"}
    };
    return views;
  }

  @DataProvider
  Object[][] pagesThatRead() {
    return new Object[][] {
      {"/today", "Next two weeks"},
      {"/board", "Bank and Dredging"},
      {"/board?zoom=season", "Bank and Dredging"},
      {"/records", "Fallen willow"},
      {"/records/13", "Lands on"},
      {"/cover", "1 more needed"},
      {"/deadlines", "Stoppage"},
      {"/deadlines/chains", "planned stoppage"},
      {"/rules", "Test a record"},
      {"/calendars", "Next 7 days"},
      {"/who-sees-what", "Everybody counts once"},
      {"/who-sees-what?record=41", "What they see"},
      {"/who-sees-what?by=person&of=5", "Counts include"},
      {"/copies", "No account is linked yet"},
      {"/crew/people", "Anneke Dray"},
      {"/crew/people?person=2", "Weekly hours"},
      {"/crew/teams", "Thornmere crew"},
      {"/crew/places?place=1", "Opening hours"},
      {"/crew/limits", "Nights in a row"},
      {"/crew/margins", "Margins"},
      {"/crew/regions", "Quill Vale"},
      {"/crew/house", "Working days"},
      {"/crew/changes", "Show earlier"},
      {"/account", "Create app password"},
    };
  }

  /** Says what it waits for, then that it failed, and is whole once it was asked to try again. */
  @Test(dataProvider = "pagesThatRead")
  public void aPageSaysWhatItWaitsForAndMendsWhatFailed(String path, String shows) {
    Page page = looking("hana", ColorScheme.LIGHT);
    List<Route> held = new CopyOnWriteArrayList<>();
    AtomicBoolean fails = new AtomicBoolean();
    Predicate<String> reads = url -> url.contains("/api/v1/") && !url.contains("/session");
    page.route(
        reads,
        route -> {
          if (!route.request().method().equals("GET")) {
            route.resume();
          } else if (fails.get()) {
            fail(route);
          } else {
            held.add(route);
          }
        });
    page.navigate(server.url(path));
    Locator waits =
        page.locator("main [role=status]")
            .filter(new Locator.FilterOptions().setHasText(Pattern.compile("…$")));
    assertThat(waits.first()).isVisible();
    fails.set(true);
    held.forEach(BrowserTest::fail);
    Locator again =
        page.locator("main")
            .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Try again"));
    assertThat(again.first()).isVisible();
    assertThat(page.locator("main [role=alert]").first()).containsText("is at rest");
    page.unroute(reads);
    again.first().click();
    assertThat(page.getByText(shows).first()).isVisible();
    assertThat(again).hasCount(0);
  }

  private static void fail(Route route) {
    route.fulfill(
        new Route.FulfillOptions()
            .setStatus(503)
            .setContentType("application/problem+json")
            .setBody(
                "{\"status\": 503, \"title\": \"At rest\", \"detail\": \"The database is at rest.\"}"));
  }

  /** WCAG 2.2 AA as far as a program can tell, in light and in dark. */
  @Test(dataProvider = "pages")
  public void axeFindsNothing(String who, String path, String shows) {
    Page page = looking(who, ColorScheme.LIGHT);
    // A few lanes of the board are like all the others, and sooner judged.
    page.setViewportSize(
        1280, !path.startsWith("/board") ? 800 : path.contains("season") ? 260 : 420);
    page.navigate(server.url(path));
    page.getByText(shows).first().waitFor();
    for (ColorScheme scheme : List.of(ColorScheme.LIGHT, ColorScheme.DARK)) {
      page.emulateMedia(new Page.EmulateMediaOptions().setColorScheme(scheme));
      page.waitForFunction(
          "scheme => document.documentElement.style.colorScheme === scheme",
          scheme.name().toLowerCase(Locale.ROOT));
      // Our pages have no frames, for which it would open another page to gather what it found.
      AxeRunOptions told = new AxeRunOptions();
      told.setResultTypes(List.of("violations"));
      AxeBuilder axe = new AxeBuilder(page).setLegacyMode(true).options(told);
      if (scheme == ColorScheme.LIGHT) {
        axe.withTags(List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"));
      } else {
        // The rest is the same page.
        axe.withRules(List.of("color-contrast"));
      }
      List<String> found = axe.analyze().getViolations().stream().map(BrowserTest::words).toList();
      assertThat(found).as(path + " " + scheme).isEmpty();
    }
  }

  private static String words(Rule rule) {
    return rule.getId()
        + ": "
        + rule.getHelp()
        + " "
        + rule.getNodes().stream().map(node -> node.getHtml()).limit(3).toList();
  }
}
