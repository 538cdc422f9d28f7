package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import org.testng.annotations.Test;

/**
 * Chains written, sets made and moved, and the way from a deadline to its key date, on the page.
 */
public class DeadlinesPageTest extends InBrowser {

  private static final String TEXT =
      """
      chain: lock drained for works
      key date: works begin
      ask: fish moved

      28 days before works begin, by chosen method: publish notice; for Duty Office as Lead
      14 dys before works begin: order the planks
      10 working days before works begin: ask the ecologist; only if fish moved
      5 working days before works begin: book the crane
      24 hours before works begin, on any day: walk the bank
      on works begin, at 07:00: lock the gates
      2 working days after works begin: inspect
      1 week after inspekt: report
      """;

  /** What a hand does beside typing words. */
  private static final int MOST_KEYS_AND_CLICKS = 90;

  private int done;

  private void click(Locator what) {
    done++;
    what.click();
  }

  private void press(Page page, String key) {
    done++;
    page.keyboard().press(key);
  }

  private static Locator button(Page page, String name) {
    return page.getByRole(
        AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  private static Locator field(Page page, String name) {
    return page.locator("[role=dialog]")
        .getByLabel(name, new Locator.GetByLabelOptions().setExact(true))
        .first();
  }

  private void choose(Page page, String field, String option) {
    click(field(page, field));
    page.keyboard().insertText(option);
    press(page, "Enter");
  }

  @Test
  public void fromNothingToASetThatIsMovedAndBack() {
    done = 0;
    Page page = signedIn("hana", ColorScheme.LIGHT, "/deadlines");
    click(page.getByText("Chains", new Page.GetByTextOptions().setExact(true)));
    click(button(page, "Methods of notice…"));
    click(button(page, "Add a method"));
    click(page.locator("[role=dialog] input[aria-label=Name]").last());
    page.keyboard().insertText("notice board");
    click(button(page, "Save").last());
    assertThat(page.getByText("Methods of notice changed")).isVisible();
    click(page.getByText("+ New chain"));
    click(page.locator("#chain-text"));
    press(page, "Control+A");
    page.keyboard().insertText(TEXT);
    assertThat(page.getByText("Line 6, column 4")).isVisible();
    assertThat(button(page, "Save")).isDisabled();
    click(button(page, "Mend").last());
    assertThat(page.getByText("Line 12, column 14")).isVisible();
    click(button(page, "Mend").last());
    assertThat(page.getByText("No faults")).isVisible();
    assertThat(page.getByText("nobody has answered yet: fish moved")).isVisible();
    click(button(page, "Save"));
    assertThat(page.getByText("Chain lock drained for works saved")).isVisible();

    click(page.getByText("‹ All sets"));
    click(button(page, "New set"));
    choose(page, "Chain", "lock drained");
    press(page, "Escape");
    choose(page, "Place", "Lock 5");
    click(field(page, "works begin"));
    page.keyboard().insertText("Wed 17 Mar 2027 8:00");
    choose(page, "Method of notice", "notice board");
    choose(page, "fish moved", "Yes");
    assertThat(page.getByText("8 new")).isVisible();
    assertThat(page.getByText("Wed 3 Mar: 14 days before Wed 17 Mar 08:00; Wed is a working day"))
        .isVisible();
    click(button(page, "Make 8 deadlines"));
    assertThat(page.getByText("1 set of deadlines made")).isVisible();
    Locator side = page.locator("aside");
    assertThat(side.getByText("walk the bank")).isVisible();

    click(button(page, "Change…"));
    assertThat(page.locator("#key-date")).isFocused();
    press(page, "Control+A");
    page.keyboard().insertText("Wed 24 Mar 2027 8:00");
    assertThat(page.getByText("8 moved")).isVisible();
    // One stays where it is.
    click(field(page, "Take it: report"));
    assertThat(page.getByText("7 moved · 1 kept by hand")).isVisible();
    click(button(page, "Change 7 deadlines"));
    assertThat(page.getByText("7 deadlines changed")).isVisible();
    assertThat(side.getByText("set by hand")).isVisible();
    assertThat(side.getByText("Wed 24 Mar, 07:00")).isVisible();
    click(button(page, "Undo"));
    assertThat(side.getByText("Wed 17 Mar, 07:00")).isVisible();
    org.assertj.core.api.Assertions.assertThat(done)
        .as("keys and clicks beside words")
        .isLessThan(MOST_KEYS_AND_CLICKS);
  }

  /** By keys alone: down the rows, into one, through its steps to the key date and back. */
  @Test
  public void fromAnyStepOneKeyLeadsToTheKeyDateAndBack() {
    Page page = signedIn("hana", ColorScheme.DARK, "/deadlines?find=drawdown");
    Locator rows = page.locator("[data-set]");
    assertThat(rows).hasCount(2);
    rows.first().focus();
    page.keyboard().press("ArrowDown");
    page.keyboard().press("ArrowUp");
    page.keyboard().press("Enter");
    Locator steps = page.locator("aside [data-step]");
    assertThat(steps).hasCount(7);
    steps.nth(1).focus();
    page.keyboard().press("ArrowDown");
    String here = steps.nth(2).getAttribute("data-step");
    page.keyboard().press("Home");
    assertThat(page.locator("[data-step=key]")).isFocused();
    assertThat(page.locator("[data-step=key]")).containsText("sluices open");
    page.keyboard().press("Home");
    assertThat(page.locator("[data-step='" + here + "']")).isFocused();
    page.keyboard().press("Escape");
    assertThat(page.locator("aside [data-step]")).hasCount(0);
  }

  /** Every set stands under something, whatever they are grouped by. */
  @Test
  public void setsStandTogetherByWhatIsChosen() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/deadlines?fold=chain");
    assertThat(page.locator("h2", new Page.LocatorOptions().setHasText("planned stoppage")))
        .containsText("3 sets");
    page.navigate(server.url("/deadlines?fold=team"));
    assertThat(page.locator("h2", new Page.LocatorOptions().setHasText("Duty Office")).first())
        .isVisible();
    assertThat(page.locator("h2", new Page.LocatorOptions().setHasText("–")).first()).isVisible();
    page.navigate(server.url("/deadlines?which=late"));
    assertThat(page.locator("[data-set]")).hasCount(1);
    assertThat(page.locator("[data-set]")).containsText("plan with the neighbours");
  }

  @Test
  public void whoeverMovesTheWorkIsShownWhatFollows() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records?find=slipway");
    page.getByText("Drawdown for the slipway").first().click();
    Locator hang = page.getByText("basin drawdown · 6 deadlines");
    assertThat(hang).isVisible();
    String work = page.url().replaceAll(".*/records/(\\d+).*", "$1");
    button(page, "Edit").click();

    page.locator("#span").fill("22 Jan 2027 07:00 – 15:00");
    button(page, "Save").click();
    assertThat(page.locator("[role=dialog]")).containsText("basin drawdown");
    assertThat(page.locator("[role=dialog]")).containsText("Follows the record");
    page.locator("[role=dialog] button[type=submit]").click();
    assertThat(page.getByText("deadlines changed")).isVisible();
    page.navigate(server.url("/records/" + work));
    hang.click();
    assertThat(page.locator("aside")).containsText("Drawdown for the slipway");
    page.locator("aside [data-step] button").first().click();
    page.getByText("Open record").click();
    assertThat(page.getByText("Because of")).isVisible();
    assertThat(page.getByText("Drawdown for the slipway").last()).isVisible();
  }

  /** The form writes the text, and what it does not touch stays as it was typed. */
  @Test
  public void theFormWritesTheSameText() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/deadlines/chains");
    page.getByText("swing bridge inspection").first().click();
    page.getByText("Form", new Page.GetByTextOptions().setExact(true)).click();
    Locator steps = page.locator("li");
    assertThat(steps.getByText("3 months before certificate ends: book inspector")).isVisible();
    button(page, "Add a step").click();
    page.getByLabel("How many").fill("3");
    page.getByLabel("Step", new Page.GetByLabelOptions().setExact(true))
        .fill("ring the owner; twice");
    button(page, "Add a step").click();
    assertThat(steps.getByText("3 working days before certificate ends: \"ring the owner; twice\""))
        .isVisible();
    page.getByText("Text", new Page.GetByTextOptions().setExact(true)).click();
    assertThat(page.locator("#chain-text")).containsText("# Every bridge has a certificate");
    assertThat(page.locator("#chain-text")).containsText("\"ring the owner; twice\"");
    assertThat(page.getByText("No faults")).isVisible();
  }
}
