package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A coordinator's first minutes: from nothing to an entry by a rule of one's own. */
public class EmptyHouseTest {

  /** The keyboard, and how many keys were pressed beside the characters typed as words. */
  private static final class Hands {
    private final Page page;
    private int presses;

    Hands(Page page) {
      this.page = page;
    }

    Hands type(String words) {
      page.keyboard().type(words);
      return this;
    }

    Hands press(String... keys) {
      for (String key : keys) {
        page.keyboard().press(key);
        presses++;
      }
      return this;
    }
  }

  @Test
  public void fromNothingToAnEntryByARuleOfOnesOwn() throws IOException {
    Path link = Path.of(Database.environment("MELLOW_TEST_WORK"), "link-of-the-first");
    try (Server empty = Server.started(Database.empty(), "--mellow.setup-link=" + link);
        Playwright playwright = Playwright.create();
        Browser browser = InBrowser.launch(playwright)) {
      Page page = InBrowser.window(browser, ColorScheme.LIGHT);
      Hands hands = new Hands(page);
      page.navigate(empty.url(Files.readString(link).strip()));
      assertThat(page.getByLabel(Pattern.compile("name", Pattern.CASE_INSENSITIVE)).first())
          .isFocused();
      hands.type("Hana Vesely").press("Tab").type("hana@quillwater.example").press("Tab");
      hands.type("a long enough secret").press("Enter");

      Locator first =
          page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Your people"));
      assertThat(first).isFocused();
      hands.press("Enter").type("");
      page.waitForURL("**/crew/people");
      assertThat(page.locator("input:focus")).isVisible();
      hands.type("Ines Okafor").press("Enter");
      assertThat(
              page.getByRole(
                  AriaRole.ROWHEADER, new Page.GetByRoleOptions().setName("Ines Okafor")))
          .isVisible();

      hands.press("Tab", "g", "l");
      page.waitForURL("**/rules");
      assertThat(page.getByText("Every due time in one list.")).isVisible();
      hands.press("a");
      assertThat(page.locator("[role=button]:focus")).hasText("nowhere yet");
      hands.press("Enter");
      assertThat(page.locator("input[type=checkbox]:focus")).isVisible();
      hands.press("Space", "Escape");
      assertThat(page.locator("[role=button]:focus")).hasText("the own calendars of Lead");
      hands.press("Tab", "Enter");
      assertThat(page.locator("input[type=radio]:focus")).isVisible();
      hands.press("ArrowDown", "ArrowDown", "Escape");
      assertThat(page.locator("[role=button]:focus")).hasText("a due mark");
      hands.press("L");
      Locator take = page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Apply"));
      assertThat(take).isFocused();
      hands.press("Enter");
      assertThat(page.getByText(Pattern.compile("^Applied"))).isVisible();

      hands.press("n").type("ticket Paddle stuck, Ines, by Fri 13:00");
      assertThat(page.getByLabel("Understood")).containsText("Ines Okafor");
      hands.press("Enter");
      page.waitForURL(Pattern.compile(".*/records/\\d+$"));
      String record = page.url().replaceAll(".*/", "");
      assertThat(page.getByText("Ines Okafor, own").first()).isVisible();
      assertThat(hands.presses).as("key presses beside the words").isLessThanOrEqualTo(60);

      List<String> lands = new ArrayList<>();
      JsonNode told =
          Api.JSON.readTree(
              page.context()
                  .request()
                  .get(empty.url("/api/v1/records/" + record + "/landings"))
                  .text());
      told.get("lands")
          .forEach(
              one ->
                  lands.add(
                      one.get("name").asString()
                          + " "
                          + one.get("family").asString()
                          + " "
                          + one.get("why").get(0).get("subject").asString()));
      int own = told.get("lands").size();
      assertThat(lands).as("%s entries", own).contains("Ines Okafor, own DUE 15");

      page.navigate(empty.url("/today"));
      assertThat(page.getByText("Getting started")).hasCount(0);
    }
  }
}
