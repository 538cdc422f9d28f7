package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.regex.Pattern;
import org.testng.annotations.Test;

/** Rules edited where they stand, looked at, put in force, undone: what calendars then hold. */
public class RulesPageTest extends InBrowser {

  private static Locator button(Page page, String name) {
    return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
  }

  private static Locator rule(Page page, int number) {
    return page.getByRole(
        AriaRole.LISTITEM, new Page.GetByRoleOptions().setName("Rule " + number).setExact(true));
  }

  private static Locator token(Locator rule, String label) {
    return rule.getByRole(
        AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(Pattern.compile("^" + label)));
  }

  private long ticket(Api hana, String title) {
    return hana.record(
        """
        {"title": "%s", "place": 1, "due": {"at": "2026-12-03T10:00"},
         "people": [{"role": 0, "person": %d}]}
        """
            .formatted(title, hana.idOf("people", "Ines Okafor")));
  }

  @Test
  public void aRuleIsEditedByKeyboardLookedAtAndPutInForce() {
    Api hana = Api.of(server, "hana");
    ticket(hana, "Ruled work");
    Calendars master = new Calendars(hana);
    Page page = signedIn("hana", ColorScheme.LIGHT, "/");
    page.waitForURL("**/today");
    page.keyboard().press("g");
    page.keyboard().press("l");
    Locator third = rule(page, 3);
    token(third, "lands on: Due times").focus();
    page.keyboard().press("Enter");
    Locator closures =
        page.getByRole(AriaRole.CHECKBOX, new Page.GetByRoleOptions().setName("Closures"));
    closures.focus();
    page.keyboard().press("Space");
    assertThat(token(third, "lands on: Due times and Closures")).isVisible();
    page.keyboard().press("Escape");
    assertThat(page.getByText("1 change not applied yet")).isVisible();

    button(page, "Preview").focus();
    page.keyboard().press("Enter");
    Locator look = page.getByRole(AriaRole.DIALOG);
    assertThat(look.getByText("Becomes visible", new Locator.GetByTextOptions().setExact(true)))
        .isVisible();
    assertThat(
            look.getByRole(
                AriaRole.ROW, new Locator.GetByRoleOptions().setName(Pattern.compile("^Closures"))))
        .isVisible();
    assertThat(master.events("Closures", "Ruled work")).isEmpty();
    button(page, "Apply").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText(Pattern.compile("^Applied: \\d+ entries on 1 calendar"))).isVisible();
    assertThat(look).hasCount(0);
    assertThat(master.events("Closures", "Ruled work")).hasSize(1);

    page.keyboard().press("z");
    assertThat(page.getByText("Undone")).isVisible();
    assertThat(master.events("Closures", "Ruled work")).isEmpty();
    assertThat(token(third, "lands on: Due times")).isVisible();
  }

  @Test
  public void rulesAreSwitchedCopiedMovedTakenOutAndLeftAsTheyWere() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/rules");
    Locator second = rule(page, 2);
    // The names that rules use come after them.
    assertThat(rule(page, 1)).containsText("Lead, Support and Supervisor");
    String first = rule(page, 1).textContent();
    second.click();
    button(page, "Switch off").click();
    assertThat(second).containsText("switched off");
    button(page, "Copy").click();
    assertThat(rule(page, 3)).containsText("switched off");
    button(page, "Delete").click();
    assertThat(page.getByText("1 change not applied yet")).isVisible();
    rule(page, 1).click();
    page.keyboard().press("Alt+ArrowDown");
    assertThat(rule(page, 1)).containsText("switched off");
    assertThat(page.getByText("2 changes not applied yet")).isVisible();
    button(page, "Undo").first().click();
    assertThat(page.getByText("1 change not applied yet")).isVisible();
    button(page, "Discard").click();
    assertThat(page.getByText("not applied yet")).hasCount(0);
    assertThat(rule(page, 1).textContent()).isEqualTo(first);
  }

  @Test
  public void aWordingsFaultStandsAtItsCharacter() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/rules?tab=wordings");
    page.getByLabel("Ticket: Title").fill("{ref} {titel}");
    button(page, "Preview").click();
    assertThat(page.getByRole(AriaRole.ALERT))
        .containsText("at character 8: \"titel\" is not a detail");
    page.getByLabel("Ticket: Title").fill("{title}");
    button(page, "Preview").click();
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("Becomes hidden");
    button(page, "Back to the rules").click();
  }

  /** A detail of the house's own: made, chosen for readers, asked for in a wording, on the form. */
  @Test
  public void aDetailOfTheHousesOwnIsMadeAndAskedForOnTheForm() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/rules?tab=details");
    button(page, "New detail").click();
    page.getByLabel("Name").last().fill("Lift code");
    button(page, "Lift code: Visible to: office").click();
    page.getByRole(AriaRole.CHECKBOX, new Page.GetByRoleOptions().setName("Lead")).check();
    page.keyboard().press("Escape");
    assertThat(button(page, "Lift code: Visible to: office, Lead")).isVisible();
    page.getByText("Wordings", new Page.GetByTextOptions().setExact(true)).click();
    Locator title = page.getByLabel("Ticket: Title");
    title.focus();
    page.keyboard().press("End");
    page.keyboard().type("[ · {li");
    assertThat(page.getByRole(AriaRole.OPTION)).hasText("{lift code}");
    page.keyboard().press("Enter");
    page.keyboard().type("]");
    assertThat(title).hasValue(Pattern.compile(".*\\[ · \\{lift code\\}\\]$"));
    button(page, "Preview").click();
    button(page, "Apply").click();
    assertThat(page.getByText(Pattern.compile("^Applied"))).isVisible();

    page.keyboard().press("n");
    page.getByLabel("In one line").fill("ticket Lift stuck, Ines, by Fri 13:00");
    page.getByLabel("Lift code").fill("8812 B");
    button(page, "Save").click();
    assertThat(page.getByText("Lift stuck").first()).isVisible();
    assertThat(
            new Calendars(Api.of(server, "ines"))
                .events("Ines Okafor, own", "Lift stuck")
                .values()
                .iterator()
                .next()
                .getSummary()
                .getValue())
        .endsWith("Lift stuck · 8812 B");
  }

  /** What is typed of a wording is read at once as each audience would get it. */
  @Test
  public void aWordingIsReadByEachAudienceAsItIsTyped() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/rules?tab=wordings");
    page.getByLabel(Pattern.compile("^or type one"))
        .fill("ticket Lock 7 paddle stuck, Ines, by Fri 13:00");
    Locator read =
        page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Test a record"));
    assertThat(read).containsText("Paddle stuck · Ines Okafor");
    page.getByLabel("Short, with Lead: Title").fill("{lead} at {place}");
    assertThat(read).containsText("Ines Okafor at Lock 7, Thornmere Flight");
    page.getByLabel("Short, with Lead: Title").fill("{lead} at {plaice}");
    assertThat(read).containsText("Cannot be read: at character 12");
    page.getByLabel(Pattern.compile("^or type one")).fill("ticket Lock 77 paddle stuck, Inez");
    assertThat(read.getByRole(AriaRole.ALERT).first()).isVisible();
    button(page, "Discard").click();
  }

  private static com.microsoft.playwright.options.FilePayload yaml(String text) {
    return new com.microsoft.playwright.options.FilePayload(
        "rules.yaml", "application/yaml", text.getBytes(java.nio.charset.StandardCharsets.UTF_8));
  }

  /** A file with faults says where; mended, it is edited and looked at like anything else. */
  @Test
  public void theSetComesInAsAFile() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/rules");
    assertThat(rule(page, 1)).isVisible();
    Locator file = page.getByLabel("Import");
    String text =
        """
        rules:
          - note: From a file
            when:
              - kind: [chore]
            lands on:
              - Master
            as: as it comes
            when done: comes off
        """;
    file.setInputFiles(yaml(text));
    Locator told = page.getByRole(AriaRole.ALERT);
    assertThat(told).containsText("line 4, column 16");
    assertThat(told)
        .containsText("\"chore\" is not possible for kind; one of deadline, job, shift, ticket");
    button(page, "Close").click();
    file.setInputFiles(yaml(text.replace("chore", "job")));
    assertThat(rule(page, 1)).containsText("From a file");
    assertThat(rule(page, 2)).hasCount(0);
    button(page, "Preview").click();
    assertThat(page.getByRole(AriaRole.DIALOG)).containsText("Becomes hidden");
    button(page, "Back to the rules").click();
    button(page, "Discard").click();
    assertThat(rule(page, 2)).isVisible();
  }

  /** One offers, the other accepts and leaves: each on their own account page. */
  @Test
  public void aCalendarIsSharedAndLeft() {
    Page ines = signedIn("ines", ColorScheme.LIGHT, "/account");
    Locator shares =
        ines.locator("section").filter(new Locator.FilterOptions().setHasText("Shared calendars"));
    shares.getByLabel("Which calendar?").click();
    find(ines, "Ines Okafor, own");
    ines.keyboard().press("Enter");
    shares.getByLabel("With whom?").click();
    find(ines, "Wren Adeyemi");
    ines.keyboard().press("Enter");
    button(ines, "Share").click();
    // What it will show stands there before it is offered.
    assertThat(ines.getByLabel("Becomes visible")).containsText("Ines Okafor, own: Wren Adeyemi");
    button(ines, "Apply").click();
    assertThat(shares).containsText("Ines Okafor, own, with Wren Adeyemi");
    assertThat(shares).containsText("not accepted yet");
    Page wren = signedIn("wren", ColorScheme.DARK, "/account");
    button(wren, "Accept").click();
    assertThat(button(wren, "Accept")).hasCount(0);
    button(wren, "Delete Ines Okafor, own, Wren Adeyemi").click();
    assertThat(wren.getByText("No shared calendars yet.")).isVisible();
  }

  @Test
  public void aRecordIsTried() {
    Api hana = Api.of(server, "hana");
    ticket(hana, "Tried on the page");
    Page page = signedIn("hana", ColorScheme.LIGHT, "/rules");
    page.getByLabel("Which record?").click();
    page.keyboard().type("Tried on");
    page.getByTitle(Pattern.compile("Tried on the page")).first().click();
    Locator tried =
        page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Test a record"));
    assertThat(tried).containsText("Ines Okafor, own");
    assertThat(tried).containsText("the rule is for another kind");
    rule(page, 1).click();
    button(page, "Switch off").click();
    assertThat(tried.getByRole(AriaRole.LISTITEM).first()).not().containsText("Ines Okafor, own");
  }

  @Test
  public void whoSeesWhatIsShownForARealRecord() {
    Api hana = Api.of(server, "hana");
    long id =
        hana.record(
            """
            {"title": "Seen by whom", "place": 1, "due": {"at": "2026-12-03T10:00"},
             "people": [{"role": 0, "person": %d}],
             "details": {"phone": "0555 0177", "gate code": "hook 5511"}}
            """
                .formatted(hana.idOf("people", "Ines Okafor")));
    Page page = signedIn("hana", ColorScheme.LIGHT, "/who-sees-what?record=" + id);
    Locator phone =
        page.getByRole(
            AriaRole.ROW, new Page.GetByRoleOptions().setName(Pattern.compile("^Phone")));
    assertThat(phone).containsText("0555 0177");
    Locator gate =
        page.getByRole(
            AriaRole.ROW, new Page.GetByRoleOptions().setName(Pattern.compile("^Gate code")));
    assertThat(gate).containsText("••••");
    Locator entries =
        page.getByRole(
            AriaRole.ROW, new Page.GetByRoleOptions().setName(Pattern.compile("^What they see")));
    assertThat(entries).containsText("Gate code ••••");
    assertThat(entries).containsText("Seen by whom");
    assertThat(page.getByText("hook 5511")).hasCount(0);
  }

  @Test
  public void workersHaveNoSuchPage() {
    Page page = signedIn("marguerite", ColorScheme.LIGHT, "/rules");
    page.waitForURL("**/today");
    assertThat(page.getByText("Test a record")).hasCount(0);
  }

  /** A word changed on the map leads to the look, which closes once the change is in force. */
  @Test
  public void whomADetailIsForIsChangedOnTheMap() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/who-sees-what");
    Locator row =
        page.getByRole(AriaRole.ROW).filter(new Locator.FilterOptions().setHasText("Quote"));
    assertThat(row).containsText("in this app");
    row.getByRole(
            AriaRole.BUTTON,
            new Locator.GetByRoleOptions().setName(Pattern.compile("^Quote: Visible to")))
        .focus();
    page.keyboard().press("Enter");
    Locator crew = page.getByRole(AriaRole.CHECKBOX, new Page.GetByRoleOptions().setName("crew"));
    crew.focus();
    page.keyboard().press("Space");
    page.keyboard().press("Escape");
    row.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Preview")).click();
    page.waitForURL("**/rules?tab=details");
    Locator look = page.getByRole(AriaRole.DIALOG);
    assertThat(look).containsText("office → crew");
    button(page, "Apply").click();
    assertThat(look).hasCount(0);
    assertThat(page.getByText(Pattern.compile("^Applied: "))).isVisible();
    page.reload();
    assertThat(page.getByRole(AriaRole.HEADING).first()).isVisible();
    assertThat(look).hasCount(0);
    page.navigate(server.url("/who-sees-what"));
    Locator seen =
        row.getByRole(
            AriaRole.BUTTON,
            new Locator.GetByRoleOptions().setName(Pattern.compile("^Quote, crew: ")));
    seen.click();
    page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Ines Okafor")).click();
    page.waitForURL("**/who-sees-what?by=person&of=*");
    assertThat(page.getByText("Counts include records")).isVisible();
  }
}
