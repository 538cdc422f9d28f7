package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.time.Duration;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The pages of a coordinator and of a worker on a phone, 390 px wide. */
public class PhoneTest extends InBrowser {

  private Page phone(String who, String path) {
    Page page = signedIn(who, ColorScheme.LIGHT, "/account");
    page.setViewportSize(390, 844);
    page.navigate(server.url(path));
    return page;
  }

  private static Locator button(Page page, String name) {
    return page.getByRole(
        AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  @DataProvider
  public Object[][] pages() {
    return new Object[][] {
      {"hana", "/today", "Overdue"},
      {"hana", "/board", "Duty Office"},
      {"hana", "/records", "Records"},
      {"hana", "/cover", "Short ·"},
      {"ines", "/my-day", "Today"},
      {"ines", "/my-day?tab=weeks", "Flight keeper"},
    };
  }

  @Test(dataProvider = "pages")
  public void nothingIsWiderThanThePhone(String who, String path, String holds) {
    Page page = phone(who, path);
    page.getByText(holds).first().waitFor();
    assertThat(page.evaluate("document.documentElement.scrollWidth")).isEqualTo(390);
    Object wider =
        page.evaluate(
            """
            [...document.querySelectorAll('button, a, h1, h2, h3, li, td')]
              .filter((one) => one.getClientRects().length > 0
                && one.getBoundingClientRect().right > 391
                && !one.closest('nav, [aria-hidden=true], .ant-segmented'))
              .map((one) => one.textContent.slice(0, 60)).join(' | ')
            """);
    assertThat(wider).isEqualTo("");
    List<String> found =
        new AxeBuilder(page)
                .setLegacyMode(true)
                .withTags(List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"))
                .analyze()
                .getViolations()
                .stream()
                .map(rule -> rule.getId() + " " + rule.getNodes().get(0).getHtml())
                .toList();
    assertThat(found).isEmpty();
  }

  /** The work, more, hand over, to whom, and yes to what it does. */
  @Test
  public void workIsHandedOverInFiveTouches() {
    Api hana = Api.of(server, "hana");
    long record =
        hana.record(
            """
            {"kind": "JOB", "title": "Passed on by thumb", "place": 1, "state": "CONFIRMED",
             "visits": [{"start": "2026-11-25T16:00", "end": "2026-11-25T17:00"}],
             "people": [{"role": 0, "person": %d}]}
            """
                .formatted(hana.idOf("people", "Ines Okafor")));
    Page page = phone("hana", "/board");
    page.getByRole(AriaRole.BUTTON)
        .filter(new Locator.FilterOptions().setHasText("Passed on by thumb"))
        .first()
        .click();
    button(page, "More…").click();
    page.getByRole(AriaRole.MENUITEM).getByText("Hand over").click();
    Locator best = page.getByRole(AriaRole.DIALOG).getByRole(AriaRole.LISTITEM).first();
    String name = best.locator("strong").textContent();
    best.click();
    button(page, "Apply").click();
    assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
    Await.until(
        "it is " + name + "'s",
        Duration.ofSeconds(30),
        () -> hana.get("/api/v1/records/" + record).text().contains("\"name\":\"" + name + "\""));
  }

  @Test
  public void aSwipeTurnsTheDayAndATeamIsShownAlone() {
    Page page = phone("hana", "/board");
    Locator day = page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setLevel(1));
    assertThat(day).hasText("Wednesday 25 November");
    swipe(page, 300, 80);
    assertThat(day).hasText("Thursday 26 November");
    swipe(page, 80, 300);
    assertThat(day).hasText("Wednesday 25 November");
    assertThat(heading(page, "Saltgate crew")).isVisible();
    page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Shown")).click();
    find(page, "Thornmere crew");
    press(page, "Enter");
    assertThat(heading(page, "Thornmere crew")).isVisible();
    assertThat(heading(page, "Saltgate crew")).hasCount(0);
    page.reload();
    assertThat(heading(page, "Thornmere crew")).isVisible();
    assertThat(heading(page, "Saltgate crew")).hasCount(0);
  }

  private static Locator heading(Page page, String name) {
    return page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setLevel(2))
        .getByText(name);
  }

  private static void swipe(Page page, int from, int to) {
    page.evaluate(
        """
        ([from, to]) => {
          const on = document.elementFromPoint(from, 500);
          const at = (x) => new Touch({ identifier: 1, target: on, clientX: x, clientY: 500 });
          const send = (type, touches, changedTouches) =>
            on.dispatchEvent(new TouchEvent(type, { bubbles: true, touches, changedTouches }));
          send('touchstart', [at(from)], [at(from)]);
          send('touchend', [], [at(to)]);
        }
        """,
        List.of(from, to));
  }

  /** Without network the day stays, ticks wait, and go as soon as it is back. */
  @Test
  public void whatIsTickedOfflineGoesOutWhenTheNetworkIsBack() {
    Api hana = Api.of(server, "hana");
    long record =
        hana.record(
            """
            {"kind": "JOB", "title": "Ticked in the tunnel", "place": 1, "state": "CONFIRMED",
             "visits": [{"start": "2026-11-25T15:30", "end": "2026-11-25T16:30"}],
             "people": [{"role": 0, "person": %d}]}
            """
                .formatted(hana.idOf("people", "Tam Birtles")));
    Page page = phone("tam", "/my-day");
    Locator work =
        page.getByRole(AriaRole.ARTICLE)
            .filter(new Locator.FilterOptions().setHasText("Ticked in the tunnel"));
    work.waitFor();
    page.context().setOffline(true);
    work.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Done")).click();
    assertThat(work).containsText("✓");
    assertThat(page.getByText("1 change waiting")).isVisible();
    page.context().setOffline(false);
    assertThat(page.getByText("1 change waiting")).hasCount(0);
    assertThat(hana.get("/api/v1/records/" + record).text()).contains("\"state\":\"DONE\"");
  }
}
