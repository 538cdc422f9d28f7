package mellowrota.bench;

import com.google.gson.JsonObject;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.CDPSession;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;

/**
 * The board of a large house in Chromium: until it can be used, how many lanes stand on the page,
 * and what a drag costs. After {@link BoardLoad}, on the same server. Argument: its address without
 * a slash at the end.
 */
public final class BoardInBrowser {

  private static final int OPENINGS = 5;
  private static final int MOVES = 120;
  private static final String PIECE = "[data-piece]";

  private BoardInBrowser() {}

  public static void main(String[] arguments) {
    try (Playwright playwright = Playwright.create()) {
      Browser browser = launch(playwright);
      Page page = browser.newPage(new Browser.NewPageOptions().setViewportSize(1280, 800));
      signIn(page, arguments[0]);
      for (String zoom : List.of("week", "weeks")) {
        measure(page, arguments[0], zoom);
      }
    }
  }

  static Browser launch(Playwright playwright) {
    return playwright
        .chromium()
        .launch(
            new BrowserType.LaunchOptions()
                .setExecutablePath(Path.of("/usr/bin/chromium-headless-shell"))
                .setChromiumSandbox(false)
                .setArgs(List.of("--disable-gpu", "--disable-dev-shm-usage")));
  }

  static void signIn(Page page, String server) {
    page.navigate(server + "/");
    page.getByLabel("Mail address").fill("hana@quillwater.example");
    page.getByLabel("Password").fill("still-water");
    page.keyboard().press("Enter");
    page.getByRole(AriaRole.NAVIGATION).first().waitFor();
  }

  private static void measure(Page page, String server, String zoom) {
    LocalDate monday = BoardLoad.MONDAY;
    double[] ready = new double[OPENINGS];
    for (int i = 0; i < OPENINGS; i++) {
      long from = System.nanoTime();
      page.navigate(server + "/board?zoom=" + zoom + "&from=" + monday);
      page.getByRole(AriaRole.ROWHEADER).nth(5).waitFor();
      ready[i] = (System.nanoTime() - from) / 1e6;
    }
    // The ninth team is one of the busy ones.
    page.keyboard().press("9");
    page.locator(PIECE).first().waitFor();
    Arrays.sort(ready);
    int lanes = page.getByRole(AriaRole.ROWHEADER).count();
    Drag drag = drag(page);
    System.out.printf(
        "board in Chromium, %s: ready in %.0f ms (slowest of %d: %.0f), %d lanes on the page;"
            + " dragging: script of a move p95 %.1f ms, longest frame %.0f ms%n",
        zoom,
        ready[OPENINGS / 2],
        OPENINGS,
        ready[OPENINGS - 1],
        lanes,
        drag.script(),
        drag.frame());
  }

  private record Drag(double script, double frame) {}

  /** Drags a line up and down over the lanes, and lets it go where it was with Escape. */
  private static Drag drag(Page page) {
    CDPSession session = page.context().newCDPSession(page);
    session.send("Performance.enable");
    Locator line = page.locator(PIECE).nth(20);
    BoundingBox box = line.boundingBox();
    page.evaluate(
        """
        () => {
          window.longest = 0;
          let last = performance.now();
          const frame = (now) => {
            window.longest = Math.max(window.longest, now - last);
            last = now;
            window.frame = requestAnimationFrame(frame);
          };
          window.frame = requestAnimationFrame(frame);
        }
        """);
    page.mouse().move(box.x + 8, box.y + 6);
    page.mouse().down();
    double[] scripts = new double[MOVES];
    for (int i = 0; i < MOVES; i++) {
      double before = script(session);
      double turn = Math.sin(i / 8.0);
      page.mouse().move(box.x + 8 + 300 * turn, 300 + 220 * Math.cos(i / 5.0));
      page.evaluate("() => new Promise(requestAnimationFrame)");
      scripts[i] = (script(session) - before) * 1000;
    }
    page.keyboard().press("Escape");
    page.mouse().up();
    double longest = ((Number) page.evaluate("() => window.longest")).doubleValue();
    page.evaluate("() => cancelAnimationFrame(window.frame)");
    Arrays.sort(scripts);
    return new Drag(scripts[(int) (MOVES * 0.95)], longest);
  }

  /** Seconds of script the page has run so far. */
  private static double script(CDPSession session) {
    JsonObject answer = session.send("Performance.getMetrics");
    for (var metric : answer.getAsJsonArray("metrics")) {
      JsonObject one = metric.getAsJsonObject();
      if (one.get("name").getAsString().equals("ScriptDuration")) {
        return one.get("value").getAsDouble();
      }
    }
    throw new IllegalStateException("Chromium tells no ScriptDuration");
  }
}
