package mellowrota.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.ColorScheme;
import java.nio.file.Path;
import org.testng.annotations.Test;

/** Makes the pictures of docs/screenshots; run by ./screenshots, no part of the tests. */
public class Screenshots {

  private static final Path FOLDER = Path.of("..", "docs", "screenshots");

  @Test
  public void ofEveryMainView() {
    try (Server server = Server.started(Database.demo());
        Playwright playwright = Playwright.create()) {
      Browser browser = BrowserTest.launch(playwright);
      shoot(browser, server, "sign-in", "", "/", "This is the demo", ColorScheme.LIGHT);
      shoot(browser, server, "records", "hana", "/records", "Fallen willow", ColorScheme.LIGHT);
      shoot(browser, server, "record-sheet", "hana", "/records/13", "served", ColorScheme.LIGHT);
      shoot(
          browser, server, "record-sheet-dark", "hana", "/records/13", "served", ColorScheme.DARK);
      shoot(
          browser,
          server,
          "ticket-form",
          "hana",
          "/records/13?edit=1",
          "Will land on 6 calendars",
          ColorScheme.LIGHT);
      shoot(browser, server, "crew", "hana", "/crew/people", "Anneke Dray", ColorScheme.LIGHT);
      shoot(browser, server, "account", "hana", "/account", "last used", ColorScheme.LIGHT);
    }
  }

  private static void shoot(
      Browser browser,
      Server server,
      String name,
      String who,
      String path,
      String shows,
      ColorScheme scheme) {
    Page page = BrowserTest.window(browser, scheme);
    page.navigate(server.url("/"));
    page.getByLabel("Mail address").waitFor();
    if (!who.isEmpty()) {
      Api.of(server, who).dav("PROPFIND", "/dav/", null, "Depth", "0").expect(207);
      page.keyboard().type(who + "@quillwater.example");
      page.keyboard().press("Tab");
      page.keyboard().type("still-water");
      page.keyboard().press("Enter");
      page.getByText("Records").first().waitFor();
      page.navigate(server.url(path));
    }
    page.getByText(shows).first().waitFor();
    page.waitForLoadState();
    page.screenshot(new Page.ScreenshotOptions().setPath(FOLDER.resolve(name + ".png")));
    page.context().close();
  }
}
