package mellowrota.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.Cookie;
import com.microsoft.playwright.options.ReducedMotion;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Date;
import java.util.List;
import java.util.Map;
import org.testng.ITestResult;
import org.testng.annotations.AfterClass;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeClass;

/** A browser before a server of its own. */
abstract class InBrowser {

  /** How long a page may take on a busy machine before a test calls it broken, milliseconds. */
  private static final int PATIENCE = Integer.getInteger("patience", 60_000);

  Server server;
  private Playwright playwright;
  Browser browser;

  @BeforeClass
  public void start() {
    server = Server.started(Database.demo(), options());
    playwright = Playwright.create();
    browser = launch(playwright);
    PlaywrightAssertions.setDefaultAssertionTimeout(PATIENCE);
  }

  /** With what the server is started besides. */
  String[] options() {
    return new String[0];
  }

  static Browser launch(Playwright playwright) {
    return playwright
        .chromium()
        .launch(
            new BrowserType.LaunchOptions()
                .setExecutablePath(Path.of("/usr/bin/chromium-headless-shell"))
                .setChromiumSandbox(false)
                .setArgs(
                    List.of(
                        "--disable-gpu",
                        "--disable-quic",
                        "--no-first-run",
                        "--disable-background-networking",
                        "--disable-component-update",
                        "--disable-sync",
                        "--disable-dev-shm-usage")));
  }

  /** A window of a desk; its clock is set as the house's is, and goes on from there. */
  static Page window(Browser browser, ColorScheme scheme) {
    Page page =
        browser
            .newContext(
                new Browser.NewContextOptions()
                    .setViewportSize(1280, 800)
                    .setColorScheme(scheme)
                    .setReducedMotion(ReducedMotion.REDUCE)
                    .setTimezoneId("Europe/London"))
            .newPage();
    page.setDefaultTimeout(PATIENCE);
    page.clock()
        .install(
            new com.microsoft.playwright.Clock.InstallOptions()
                .setTime(Date.from(Instant.parse(Demo.NOW))));
    return page;
  }

  /** What the pages showed when a test failed, under target. */
  @AfterMethod(alwaysRun = true)
  public void closePages(ITestResult result) {
    for (BrowserContext context : browser.contexts()) {
      boolean keep = shared.containsValue(context);
      if (!result.isSuccess()) {
        context
            .pages()
            .forEach(
                page ->
                    page.screenshot(
                        new Page.ScreenshotOptions()
                            .setPath(Path.of("target", result.getName() + ".png"))));
      }
      if (keep) {
        context.pages().forEach(Page::close);
      } else {
        context.close();
      }
    }
  }

  @AfterClass(alwaysRun = true)
  public void stop() {
    if (playwright != null) {
      playwright.close();
    }
    if (server != null) {
      server.close();
    }
  }

  final Page page(ColorScheme scheme) {
    Page page = window(browser, scheme);
    page.onPageError(
        error -> {
          throw new AssertionError("the page failed: " + error);
        });
    return page;
  }

  /** A window of somebody who has signed in, which {@link BrowserTest} alone does by the page. */
  final Page signedIn(String who, ColorScheme scheme, String path) {
    Api api = new Api(server);
    api.signIn(who + "@quillwater.example", "still-water").expect(200);
    Page page = page(scheme);
    page.context()
        .addCookies(
            api.cookies().stream()
                .map(one -> new Cookie(one.getName(), one.getValue()).setUrl(server.url("/")))
                .toList());
    page.navigate(server.url(path));
    return page;
  }

  private final Map<String, BrowserContext> shared = new java.util.HashMap<>();

  /** Pages that are only looked at share a window for each person and scheme. */
  final Page looking(String who, ColorScheme scheme) {
    return shared
        .computeIfAbsent(
            who + scheme,
            key -> (who.isEmpty() ? page(scheme) : signedIn(who, scheme, "/")).context())
        .newPage();
  }

  static void type(Page page, String text) {
    page.keyboard().type(text);
  }

  static void press(Page page, String... keys) {
    for (String key : keys) {
      page.keyboard().press(key);
    }
  }

  /** Types into a choice, as fast as hands do, until what fits is offered first. */
  static void find(Page page, String text) {
    page.keyboard().type(text, new com.microsoft.playwright.Keyboard.TypeOptions().setDelay(30));
    page.locator(".ant-select-item-option:visible", new Page.LocatorOptions().setHasText(text))
        .first()
        .waitFor();
  }
}
