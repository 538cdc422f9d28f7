package mellowrota.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.regex.Pattern;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import mellowrota.standin.Faults;
import org.testng.annotations.Test;

/** Makes the pictures of docs/screenshots; run by ./screenshots, no part of the tests. */
public class Screenshots {

  private static final Path FOLDER = Path.of("..", "docs", "screenshots");

  private static final String FILE =
      """
      Ticket no,What,Site,Due by,Given to,Phone,Remark
      N-1001,Windlass missing,Quill Weir,2026-12-01 12:00,Ines Okafor,0555 0131,
      N-1002,Clear trash screen,Osier Basin,2026-12-02 09:00,Tam Birtles,0555 0132,by the gate
      N-1003,Stuck paddle,Osier Basn,2026-12-02 16:00,Ines Okafr,,
      N-1004,Oil hinges,Osier Basn,2026-12-03 10:00,Wren Adeyemi,0555 0134,
      N-1005,Bridge lifts slowly,Quill Weir,soon,Ines Okafr,0555 0135,"said, by post"
      N-1006,Moorings to check,Quill Weir,2026-12-04 11:00,Tam Birtles,,
      N-1006,Moorings to paint,Quill Weir,2026-12-09 11:00,Tam Birtles,,
      """;

  private static Outside wrens;

  @Test
  public void ofEveryMainView() {
    try (Outside outside = Outside.start();
        Server server = Server.started(Database.demo(), outside.options().toArray(String[]::new));
        Playwright playwright = Playwright.create()) {
      Browser browser = InBrowser.launch(playwright);
      shoot(browser, server, "today", "hana", "/today", "Next two weeks", ColorScheme.LIGHT);
      String week = "/board?from=2026-11-23";
      shoot(
          browser,
          server,
          "board-week",
          "hana",
          week + "&record=41",
          "Lands on",
          ColorScheme.LIGHT);
      shoot(
          browser, server, "deadlines", "hana", "/deadlines/1", "lock the gates", ColorScheme.DARK);
      shoot(
          browser,
          server,
          "chain",
          "hana",
          "/deadlines/chains/1",
          "Mon 18 Jan, 08:00",
          ColorScheme.LIGHT);
      shoot(
          browser,
          server,
          "board-day",
          "hana",
          "/board?zoom=day&by=place&from=2026-11-27",
          "Quill Weir",
          ColorScheme.LIGHT);
      shoot(
          browser,
          server,
          "board-season",
          "hana",
          "/board?zoom=season&from=2026-11-23",
          "Yusuf Larch",
          ColorScheme.LIGHT);
      shoot(browser, server, "records", "hana", "/records", "Fallen willow", ColorScheme.LIGHT);
      shoot(browser, server, "record-sheet", "hana", "/records/13", "served", ColorScheme.LIGHT);
      shoot(
          browser,
          server,
          "cover",
          "hana",
          "/cover?from=2026-11-23",
          "Their day",
          ColorScheme.LIGHT);
      shoot(browser, server, "my-day", "tam", "/my-day", "Coming up", ColorScheme.LIGHT);
      shoot(
          browser,
          server,
          "crew",
          "hana",
          "/crew/people?person=2",
          "Weekly hours",
          ColorScheme.LIGHT);
      shoot(browser, server, "rules", "hana", "/rules", "Test a record", ColorScheme.LIGHT);
      shoot(
          browser,
          server,
          "look-first",
          "hana",
          "/rules?tab=wordings",
          "Usual wordings",
          ColorScheme.LIGHT);
      shoot(
          browser,
          server,
          "who-sees-what",
          "hana",
          "/who-sees-what?record=41",
          "What they see",
          ColorScheme.LIGHT);
      shoot(
          browser,
          server,
          "who-sees-what-map",
          "hana",
          "/who-sees-what",
          "Everybody counts once",
          ColorScheme.LIGHT);
      shoot(browser, server, "file-in", "hana", "/files", "Drop a CSV", ColorScheme.LIGHT);
      shoot(browser, server, "account", "hana", "/account", "last used", ColorScheme.LIGHT);
      copies(outside, server);
      shoot(
          browser, server, "copies", "hana", "/copies", "Links of other people", ColorScheme.LIGHT);
      wrens = outside;
      shoot(browser, server, "linking", "wren", "/copies", "No account", ColorScheme.LIGHT);
    }
  }

  /** Ines moved and renamed what she has elsewhere, and Tam's password is not taken there. */
  private static void copies(Outside outside, Server server) {
    Api ines = Api.of(server, "ines");
    Api tam = Api.of(server, "tam");
    Account account = outside.account("ines");
    Account other = outside.account("tam");
    outside.link(ines, "Ines Okafor, own", account, "");
    outside.link(tam, "Tam Birtles, own", other, "");
    outside.account("wren");
    outside.link(Api.of(server, "hana"), "Hana Vesely, own", outside.account("hana"), "");
    Collection work = Outside.work(account);
    Outside.edit(
        work, "Towpath washed out", "Towpath washed out", "Towpath washed out, bring waders");
    Outside.again(ines);
    Await.until(
        "it asks",
        Duration.ofSeconds(30),
        () -> !ines.get("/api/v1/outside-changes?state=PROPOSED").json().isEmpty());
    Outside.awaits(Outside.work(other), "Swing bridge");
    other.faults().set(Faults.Mode.WRONG_PASSWORD, true);
    Outside.again(tam);
    Await.until(
        "it is told",
        Duration.ofSeconds(30),
        () -> tam.get("/api/v1/links").text().contains("PASSWORD"));
  }

  /** Up to what a look before tells. */
  private static void linking(Page page) {
    page.getByText("Link an account").first().click();
    page.getByLabel("Address, server or email address").fill(wrens.host().url());
    page.getByLabel("User name").fill("wren");
    page.getByLabel("App password").fill(Outside.PASSWORD);
    page.keyboard().press("Enter");
    page.getByLabel("Work: Copy here").click();
    page.getByTitle("Wren Adeyemi, own").last().click();
    page.getByLabel("Work: Who else reads it?").click();
    page.getByTitle("nobody else").last().click();
    page.getByText("Preview").last().click();
    page.getByText("will be sent").waitFor();
    page.mouse().move(0, 0);
  }

  private static void shoot(
      Browser browser,
      Server server,
      String name,
      String who,
      String path,
      String shows,
      ColorScheme scheme) {
    Page page = InBrowser.window(browser, scheme);
    if (path.equals("/my-day") || name.equals("linking")) {
      page.setViewportSize(390, 844);
    }
    page.navigate(server.url("/"));
    page.getByLabel("Email address").waitFor();
    if (!who.isEmpty()) {
      Api.of(server, who).dav("PROPFIND", "/dav/", null, "Depth", "0").expect(207);
      page.keyboard().type(who + "@quillwater.example");
      page.keyboard().press("Tab");
      page.keyboard().type("still-water");
      page.keyboard().press("Enter");
      page.locator("nav").first().waitFor();
      page.navigate(server.url(path));
    }
    page.getByText(shows).first().waitFor();
    page.waitForLoadState();
    if (name.startsWith("board-week")) {
      // The fourth team has a bit of everything.
      page.keyboard().press("4");
      page.getByText("Moor the survey buoy").first().waitFor();
    }
    if (name.equals("rules")) {
      page.getByLabel("Which record?").click();
      page.getByTitle(Pattern.compile("Windlass missing")).first().click();
      page.getByText("the rule is for another kind").first().waitFor();
      page.getByLabel("Rule 2", new Page.GetByLabelOptions().setExact(true)).click();
    }
    if (name.equals("look-first")) {
      page.getByLabel("Short, with Lead: Text").fill("{notes}");
      page.getByText("Preview").click();
      page.getByText("Becomes visible").waitFor();
      // It has the focus once it stands there whole.
      page.locator("button:focus", new Page.LocatorOptions().setHasText("Apply")).waitFor();
    }
    if (name.equals("file-in")) {
      page.waitForFileChooser(() -> page.getByText("Drop a CSV").click())
          .setFiles(
              new FilePayload("tickets.csv", "text/csv", FILE.getBytes(StandardCharsets.UTF_8)));
      page.getByText("with errors").first().waitFor();
      page.getByText("Use Ines Okafor").waitFor();
    }
    if (name.equals("linking")) {
      linking(page);
    }
    // What moves in has begun and come to rest; what turns for good is no matter.
    page.waitForFunction(
        """
        () => document.getAnimations().every(
          (one) => (one.playState !== 'running' && one.playState !== 'paused')
            || one.effect.getComputedTiming().iterations === Infinity)
        """);
    page.screenshot(new Page.ScreenshotOptions().setPath(FOLDER.resolve(name + ".png")));
    page.context().close();
  }
}
