package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.args.AxeRunOptions;
import com.deque.html.axecore.playwright.AxeBuilder;
import com.deque.html.axecore.results.Rule;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

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
    assertThat(look.getByLabel("Becomes visible")).containsText("Wren Adeyemi, own");
    assertThat(look.getByRole(AriaRole.ROW)).hasCount(4);
    assertThat(hana.get("/api/v1/records?find=Many").text()).doesNotContain("Wren");
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Apply")).click();
    assertThat(page.getByText("3 assigned to Wren Adeyemi: 9 entries")).isVisible();
    assertThat(new Calendars(Api.of(server, "wren")).events("Wren Adeyemi, own", "Many"))
        .hasSize(3);
    press(page, "z");
    assertThat(page.getByText("Undone")).isVisible();
    assertThat(new Calendars(Api.of(server, "wren")).events("Wren Adeyemi, own", "Many")).isEmpty();
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
    page.getByRole(AriaRole.NAVIGATION, new Page.GetByRoleOptions().setName("Pages").setExact(true))
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
      {"hana", "/who-sees-what?record=41", "What they see"},
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
      {"hana", "/crew/teams", "Thornmere crew"},
      {"hana", "/crew/places", "Osier Weir"},
      {"hana", "/crew/regions", "Quill Vale"},
      {"hana", "/crew/changes", "Show earlier"},
      {"hana", "/account", "Create app password"},
      {"hana", "/copies", "No account is linked yet"},
      {"hana", "/cover", "1 more needed"},
      {"hana", "/cover?load=1", "By due date"},
      {"", "/", "This is the demo"},
      {"", "/welcome/nothing", "This invitation has been used"}
    };
    return views;
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
