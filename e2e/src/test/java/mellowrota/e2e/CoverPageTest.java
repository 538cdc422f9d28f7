package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A gap chosen, given to the first who could, and taken back, on the page. */
public class CoverPageTest extends InBrowser {

  @Test
  public void aGapIsGivenToTheFirstWhoCouldAndTakenBack() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/cover?from=2026-11-23");
    Locator gap =
        page.locator("aside button", new Page.LocatorOptions().setHasText("Swing bridge")).first();
    assertThat(gap).containsText("Thu 26 Nov, 06:00 – 20:00");
    gap.focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("Swing bridge, Thu 26 Nov, 06:00 – 20:00")).isVisible();
    String share = page.getByText("% of required hours covered").textContent();
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Assign")))
        .first()
        .click();
    assertThat(page.getByText("Swing bridge assigned to")).isVisible();
    assertThat(page.getByText("Swing bridge, Thu 26 Nov, 06:00 – 20:00")).hasCount(0);
    assertThat(page.getByText(share)).hasCount(0);
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Undo").setExact(true))
        .click();
    assertThat(page.getByText("Undone")).isVisible();
    assertThat(page.getByText(share)).isVisible();
    page.navigate(server.url("/today"));
    page.getByLabel("Find cover: Swing bridge").first().click();
    assertThat(page.getByText("1 more needed")).isVisible();
  }

  private static Locator button(Page page, String name) {
    return page.getByRole(
        AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  private static Locator line(Page page, String who, String what) {
    return page.locator("aside li")
        .filter(new Locator.FilterOptions().setHasText(who))
        .filter(new Locator.FilterOptions().setHasText(what));
  }

  private static void undo(Page page) {
    button(page, "Undo").click();
    assertThat(page.getByText("Undone")).isVisible();
  }

  /** Wren's two works at once are let stand with a reason, and opened again; keyboard only. */
  @Test
  public void aClashIsLetStandWithAReason() {
    Page page = signedIn("hana", ColorScheme.DARK, "/cover?from=2026-11-23");
    Locator clash = line(page, "Wren Adeyemi", "double-booked");
    clash.locator("button").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("warning", new Page.GetByTextOptions().setExact(true))).isVisible();
    page.getByLabel("Accept this clash, because").focus();
    page.keyboard().type("Agreed with Wren");
    page.keyboard().press("Escape");
    button(page, "Accept").focus();
    page.keyboard().press("Enter");
    assertThat(page.getByText("Accepted until either side changes")).isVisible();
    assertThat(page.getByText("Accepted · 1")).isVisible();
    assertThat(page.getByText("Agreed with Wren")).isVisible();
    button(page, "Reopen").click();
    assertThat(page.getByText("Accepted · 1")).hasCount(0);
  }

  /** One of two works at once is handed to the first who could; nothing clashes, and back again. */
  @Test
  public void aWorkThatClashesIsHandedOver() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/today");
    page.getByLabel("Open: Osk Fenwright").first().click();
    assertThat(page.getByText("not allowed by the organisation’s limits")).isVisible();
    assertThat(page.getByText("The limits do not allow this")).isVisible();
    page.getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Hand over: J-")))
        .click();
    assertThat(page.getByText("Who can take J-")).isVisible();
    page.getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Assign:")))
        .first()
        .click();
    assertThat(page.getByText("handed over to")).isVisible();
    assertThat(line(page, "Osk Fenwright", "double-booked")).hasCount(0);
    Api hana = Api.of(server, "hana").warned();
    undo(page);
    assertThat(line(page, "Osk Fenwright", "double-booked")).hasCount(1);
    hana.minding("NEVER");
  }

  /** The other way out: somebody changes it for something of theirs; nothing clashes, and back. */
  @Test
  public void aWorkThatClashesIsSwapped() {
    Page page = signedIn("hana", ColorScheme.DARK, "/today");
    page.getByLabel("Open: Osk Fenwright").first().click();
    page.getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Swap: J-")))
        .click();
    assertThat(page.getByText("Swaps for")).isVisible();
    page.getByRole(
            AriaRole.BUTTON,
            new Page.GetByRoleOptions().setName(Pattern.compile("^Swap anyway: [A-Z][a-z]+ ")))
        .first()
        .click();
    assertThat(page.getByText(Pattern.compile("J-\\d+ now goes to .+, and .+ to Osk Fenwright")))
        .isVisible();
    assertThat(line(page, "Osk Fenwright", "double-booked")).hasCount(0);
    Api hana = Api.of(server, "hana").warned();
    undo(page);
    assertThat(line(page, "Osk Fenwright", "double-booked")).hasCount(1);
    hana.minding("NEVER");
  }

  /** Minutes of work by a due day in the week of the demo's today. */
  private static long given(Api hana) {
    long sum = 0;
    for (JsonNode one :
        hana.get("/api/v1/cover/loads?from=2026-11-23&until=2026-11-30").expect(200).json()) {
      if (one.get("name").asString().equals("Dov Castellan")) {
        for (JsonNode day : one.get("given")) {
          sum += day.asLong();
        }
      }
    }
    return sum;
  }

  /** As the page says it: to the tenth, a whole number without it. */
  private static String hours(long minutes) {
    long tenths = Math.round(minutes / 6.0);
    return (tenths % 10 == 0 ? "" + tenths / 10 : tenths / 10 + "." + tenths % 10) + " h";
  }

  /** An estimate is typed in the form, and is in the hours of whoever has it. */
  @Test
  public void anEstimateIsInTheHoursOfWhoeverHasIt() {
    Api hana = Api.of(server, "hana");
    long before = given(hana);
    long record =
        hana.record(
            """
            {"title": "Count the keys", "due": {"date": "2026-11-26"},
             "people": [{"role": 0, "person": %d}]}
            """
                .formatted(hana.idOf("people", "Dov Castellan")));
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records/" + record + "?edit=1");
    page.getByText("Edit T-").waitFor();
    page.getByText(Pattern.compile("^More")).click();
    Locator estimate = page.getByLabel("Estimate, hours");
    estimate.focus();
    page.keyboard().type("7x,5");
    assertThat(estimate).hasValue("7,5");
    page.keyboard().press("Enter");
    assertThat(page.getByText("Estimate 7.5 h per person")).isVisible();
    page.navigate(server.url("/cover?from=2026-11-23"));
    button(page, "Hours").click();
    Locator hours = page.getByLabel("Crew hours");
    assertThat(
            hours.getByRole(AriaRole.ROW, new Locator.GetByRoleOptions().setName("Dov Castellan")))
        .containsText(hours(before + 450));
    button(page, "Close").click();
    assertThat(hours).hasCount(0);
  }

  /** A fill is looked at, taken without one of it, and taken back. */
  @Test
  public void aFillIsLookedAtTakenInPartAndTakenBack() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/cover?from=2026-11-23&zoom=weeks");
    String share = page.getByText("% of required hours covered").textContent();
    page.getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Suggest cover")))
        .click();
    assertThat(page.getByText("nobody is assigned until you confirm")).isVisible();
    Locator ticked = page.locator("tbody input[type=checkbox]:checked");
    assertThat(ticked.first()).isVisible();
    int all = ticked.count();
    ticked.first().uncheck();
    button(page, all == 2 ? "Assign 1" : "Assign " + (all - 1)).click();
    assertThat(page.getByText(Pattern.compile("^\\d+ assigned$"))).isVisible();
    assertThat(page.getByText(share)).hasCount(0);
    undo(page);
    assertThat(page.getByText(share)).isVisible();
  }

  /** What must be stood is said, said anew and taken out. */
  @Test
  public void aDutyIsMadeOnThePage() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/cover?from=2026-11-23");
    button(page, "New duty").click();
    page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Gauge round");
    page.getByLabel("Place", new Page.GetByLabelOptions().setExact(true)).click();
    page.keyboard().type("Osier Weir");
    assertThat(page.locator(".ant-select-item-option-active")).hasText("Osier Weir");
    page.keyboard().press("Enter");
    button(page, "Save").click();
    Locator label = button(page, "Edit Gauge round");
    assertThat(label).isVisible();
    assertThat(line(page, "Gauge round", "Mon 23 Nov")).hasCount(1);
    label.click();
    page.getByLabel("People", new Page.GetByLabelOptions().setExact(true)).fill("2");
    button(page, "Save").click();
    assertThat(page.getByText("2 · Osier Weir")).isVisible();
    label.click();
    button(page, "Delete").click();
    assertThat(label).hasCount(0);
  }

  /** Hours and leave are settled where people are listed; leave asked for waits there. */
  @Test
  public void hoursAndLeaveAreSettledOnThePage() {
    Page phone = signedIn("ines", ColorScheme.LIGHT, "/my-day?tab=times");
    phone.setViewportSize(390, 844);
    Locator first = phone.getByLabel("First day");
    first.fill("21 Dec");
    first.press("Tab");
    button(phone, "Request leave").click();
    assertThat(phone.getByText("requested")).isVisible();
    Page page = signedIn("hana", ColorScheme.LIGHT, "/crew/people");
    link(page, "Ines Okafor").click();
    button(page, "Hours and leave of Ines Okafor").click();
    assertThat(page.getByRole(AriaRole.DIALOG).getByText("requested")).isVisible();
    button(page, "Approve").click();
    assertThat(page.getByText("requested")).hasCount(0);
    page.getByLabel("Contracted hours a week").fill("36");
    button(page, "Save").click();
    assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
    button(page, "Hours and leave of Ines Okafor").click();
    assertThat(page.getByLabel("Contracted hours a week")).hasValue("36");
  }

  /** A region is made, its holidays come from a file, and Cover names them. */
  @Test
  public void aRegionTakesItsHolidaysFromACalendarFile() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/crew/regions");
    page.getByLabel("Add region").fill("Reed Shore");
    button(page, "Add").click();
    page.locator("input[type=file]")
        .setInputFiles(
            new FilePayload(
                "reeds.ics",
                "text/calendar",
                """
                BEGIN:VCALENDAR
                BEGIN:VEVENT
                UID:r
                SUMMARY:Reed Day
                DTSTART;VALUE=DATE:20261128
                END:VEVENT
                BEGIN:VEVENT
                UID:o
                SUMMARY:Odd day
                END:VEVENT
                END:VCALENDAR
                """
                    .getBytes(StandardCharsets.UTF_8)));
    assertThat(page.getByText("1 day in the file")).isVisible();
    assertThat(page.getByText("Not imported: part 2 (Odd day)")).isVisible();
    assertThat(page.getByLabel("Holiday")).hasValue("Reed Day");
    button(page, "Save").last().click();
    assertThat(page.getByText("1, until Sat 28 Nov 2026")).isVisible();
    page.navigate(server.url("/cover"));
    assertThat(page.getByText("Sat 28 Nov Reed Day (Reed Shore)")).isVisible();
    page.navigate(server.url("/crew/places"));
    link(page, "Osier Weir").click();
    button(page, "Capacity and travel: Osier Weir").click();
    page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Region")).click();
    find(page, "Reed Shore");
    press(page, "Enter");
    button(page, "Save").click();
    assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
    button(page, "Capacity and travel: Osier Weir").click();
    assertThat(page.getByRole(AriaRole.DIALOG).getByText("Reed Shore")).isVisible();
  }

  /**
   * A place's zone is looked at before its work moves with it; a team is named anew on its sheet.
   */
  @Test
  public void placesAndTeamsAreNamedOnTheirSheets() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/crew/places");
    link(page, "Quill Weir").click();
    button(page, "Change Quill Weir").click();
    page.getByLabel("Time zone").fill("Europe/Berlin");
    button(page, "Save").click();
    Locator look = page.getByRole(AriaRole.DIALOG, new Page.GetByRoleOptions().setName("Preview"));
    assertThat(look.getByRole(AriaRole.ROW).nth(1)).isVisible();
    button(page, "Apply").click();
    assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
    Locator sheet =
        page.getByRole(AriaRole.COMPLEMENTARY, new Page.GetByRoleOptions().setName("Quill Weir"));
    assertThat(sheet).containsText("QW · Europe/Berlin");
    undo(page);
    assertThat(sheet).not().containsText("Berlin");
    link(page, "Teams").click();
    link(page, "Saltgate crew").click();
    button(page, "Change Saltgate crew").click();
    page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Saltgate hands");
    button(page, "Save").click();
    assertThat(link(page, "Saltgate hands")).isVisible();
    undo(page);
    assertThat(link(page, "Saltgate crew").first()).isVisible();
  }

  @Test
  public void limitsAreSetOnThePage() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/crew/limits");
    Locator rest =
        page.getByLabel(
            "Rest between working days, at least", new Page.GetByLabelOptions().setExact(true));
    rest.fill("10");
    button(page, "Save").click();
    assertThat(page.getByText("Limits saved")).isVisible();
    page.reload();
    assertThat(rest).hasValue("10");
    rest.fill("11");
    button(page, "Save").click();
    assertThat(page.getByText("Limits saved")).isVisible();
  }

  /** A form that stays on its page follows what is taken back, there or in the list of changes. */
  @Test
  public void whatIsSettledIsTakenBackOnThePages() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/crew/limits");
    Locator rest =
        page.getByLabel(
            "Rest between working days, at least", new Page.GetByLabelOptions().setExact(true));
    String before = rest.inputValue();
    rest.fill("9");
    button(page, "Save").click();
    assertThat(page.getByText("Limits saved")).isVisible();
    undo(page);
    assertThat(rest).hasValue(before);
    link(page, "Change log").click();
    page.getByRole(
            AriaRole.BUTTON,
            new Page.GetByRoleOptions().setName(Pattern.compile("^Undo: Undone: Limits changed")))
        .first()
        .click();
    assertThat(page.getByRole(AriaRole.STATUS)).containsText("Undone");
    link(page, "Limits").click();
    assertThat(rest).hasValue("9");
    undo(page);
    assertThat(rest).hasValue(before);
  }

  /** While Caio's work of Saturday is held over Friday, each lane says how that would be. */
  @Test
  public void everyLaneSaysWhetherTheyCouldTakeWhatIsHeld() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/board?from=2026-11-23");
    BoundingBox held =
        page.locator("[data-piece]", new Page.LocatorOptions().setHasText("Drawdown of the basin"))
            .first()
            .boundingBox();
    page.mouse().move(held.x + 20, held.y + 6);
    page.mouse().down();
    page.mouse().move(held.x - 20, held.y + 30);
    page.mouse().move(held.x - 100, held.y + 60);
    Locator caio =
        page.getByRole(
            AriaRole.ROWHEADER, new Page.GetByRoleOptions().setName(Pattern.compile("^Caio")));
    assertThat(caio).containsText("outside working hours");
    Locator anneke =
        page.getByRole(
            AriaRole.ROWHEADER, new Page.GetByRoleOptions().setName(Pattern.compile("^Anneke")));
    assertThat(anneke).containsText("not available: on leave");
    page.keyboard().press("Escape");
    assertThat(caio).not().containsText("outside working hours");
    page.mouse().up();
  }

  /** Who is away leaves work; it is looked at, handed over in one go, and taken back. */
  @Test
  public void whatSomebodyLeavesIsHandedOverAndTakenBack() {
    Page page = signedIn("hana", ColorScheme.DARK, "/crew/people");
    link(page, "Anneke Dray").click();
    assertThat(page.getByRole(AriaRole.COMPLEMENTARY)).containsText("No skills entered.");
    button(page, "Hours and leave of Anneke Dray").click();
    page.getByText("work to reassign").first().click();
    assertThat(page.getByText(Pattern.compile("^Work to reassign from Anneke Dray"))).isVisible();
    assertThat(page.getByText("No work on these days.")).isVisible();
    page.navigate(
        server.url(
            "/cover?away=" + id("Caio Merrin") + "&who=Caio&first=2026-11-28&last=2026-12-01"));
    Locator ticked = page.locator("tbody input[type=checkbox]:checked");
    assertThat(ticked.first()).isVisible();
    int all = ticked.count();
    button(page, "Hand " + all + " over").click();
    assertThat(page.getByText(Pattern.compile("handed over$"))).isVisible();
    undo(page);
  }

  private long id(String name) {
    return Api.of(server, "hana").idOf("people", name);
  }

  /** A start that fits is taken in the form; keyboard only. */
  @Test
  public void aStartThatFitsMovesTheVisit() {
    long record =
        Api.of(server, "hana")
            .record(
                """
                {"kind": "JOB", "title": "When it fits", "state": "CONFIRMED",
                 "visits": [{"start": "2026-12-09T03:00", "end": "2026-12-09T05:00"}],
                 "people": [{"role": 0, "person": %d}]}
                """
                    .formatted(id("Hedda Quay")));
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records/" + record);
    button(page, "Edit").click();
    Locator when = button(page, "Find a time");
    when.focus();
    page.keyboard().press("Enter");
    Locator start =
        page.getByRole(
                AriaRole.BUTTON,
                new Page.GetByRoleOptions().setName(Pattern.compile("^Start Thu 10 Dec \\d\\d:")))
            .first();
    String clock = start.getAttribute("aria-label").substring("Start Thu 10 Dec ".length());
    start.focus();
    page.keyboard().press("Enter");
    assertThat(page.locator("#span")).hasValue(Pattern.compile("^10 Dec 2026 " + clock));
    button(page, "Save").click();
    assertThat(page.getByText("Thu 10 Dec " + clock).first()).isVisible();
  }

  /** What is short and clashes is the same in the API, on Cover, on the board and on Today. */
  @Test
  public void theCountsAreTheSameEverywhere() {
    Api hana = Api.of(server, "hana");
    JsonNode week = hana.get("/api/v1/cover?from=2026-11-23&until=2026-11-30").expect(200).json();
    JsonNode ahead = hana.get("/api/v1/cover?from=2026-11-25&until=2026-12-09").expect(200).json();
    Page page = signedIn("hana", ColorScheme.LIGHT, "/cover?from=2026-11-23");
    assertThat(page.getByText("Short · " + week.get("gaps").size())).isVisible();
    assertThat(page.getByText("Clashes · " + open(week))).isVisible();
    assertThat(page.locator("button[aria-label$=' short']")).hasCount(week.get("gaps").size());
    page.navigate(server.url("/board?from=2026-11-23"));
    assertThat(link(page, week.get("gaps").size() + " short")).isVisible();
    assertThat(link(page, open(week) + " clashes")).isVisible();
    assertThat(page.locator("button[aria-label$=' short']")).hasCount(week.get("gaps").size());
    page.navigate(server.url("/cover?from=2026-11-23"));
    link(page, "On paper").click();
    assertThat(page.getByText("Short · " + week.get("gaps").size())).isVisible();
    assertThat(page.getByText("Clashes · " + open(week))).isVisible();
    assertThat(page.locator("section[aria-label=Cover] li"))
        .hasCount((int) (week.get("gaps").size() + open(week)));
    page.navigate(server.url("/today"));
    String soon = Instant.parse(Demo.NOW).plus(Duration.ofHours(48)).toString();
    List<JsonNode> open =
        ahead
            .get("gaps")
            .valueStream()
            .filter(gap -> gap.get("end").asString().compareTo(Demo.NOW) > 0)
            .toList();
    long near =
        open.stream().filter(gap -> gap.get("start").asString().compareTo(soon) < 0).count();
    assertThat(part(page, "Short of people, next 48 hours")).containsText(Long.toString(near));
    assertThat(part(page, "Short of people, later in two weeks"))
        .containsText(Long.toString(open.size() - near));
    long never = 0;
    Set<String> warned = new HashSet<>();
    ahead.get("pileUps").forEach(one -> warned.add(one.get("name").asString()));
    for (JsonNode clash : ahead.get("clashes")) {
      if (clash.get("never").asBoolean()) {
        never++;
      } else {
        warned.add(clash.get("name").asString());
      }
    }
    assertThat(part(page, "Clashes that are not allowed, next two weeks"))
        .containsText(Long.toString(never));
    assertThat(part(page, "Other clashes, next two weeks"))
        .containsText(Integer.toString(warned.size()));
  }

  private static long open(JsonNode cover) {
    long found = 0;
    for (JsonNode one : cover.get("clashes")) {
      found += one.has("letStand") ? 0 : 1;
    }
    return found;
  }

  private static Locator link(Page page, String name) {
    return page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(name).setExact(true));
  }

  private static Locator part(Page page, String name) {
    return page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(name).setExact(true))
        .locator("h2 span");
  }
}
