package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.regex.Pattern;
import org.testng.annotations.Test;

/** Finding as it is done all day: one line, and what was understood under it. */
public class FindPageTest extends InBrowser {

  private static Locator pieces(Page page) {
    return page.getByRole(
        AriaRole.GROUP, new Page.GetByRoleOptions().setName("What is looked for"));
  }

  private static Locator rows(Page page) {
    return page.locator("[role=row][data-index]");
  }

  private static Locator button(Locator in, String name) {
    return in.getByRole(
        AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(name).setExact(true));
  }

  private Page found(String line) {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/today");
    page.getByText("Overdue").first().waitFor();
    press(page, "/");
    page.keyboard().type(line);
    press(page, "Enter");
    pieces(page).waitFor();
    return page;
  }

  @Test
  public void aMonthsWorkAtAPlaceIsOneLine() {
    Api hana = Api.of(server, "hana");
    long place = hana.idOf("places", "Lock 7, Thornmere Flight");
    hana.record(
        """
        {"kind": "JOB", "title": "Grease the gear", "state": "DONE", "place": %d,
         "visits": [{"start": "2026-10-07T08:00", "end": "2026-10-07T10:00"}]}
        """
            .formatted(place));
    Page page = found("Lock 7 last month");
    assertThat(pieces(page)).containsText("Lock 7, Thornmere Flight");
    assertThat(pieces(page)).containsText("Thu 1 Oct – Sat 31 Oct");
    assertThat(rows(page)).hasCount(1);
    assertThat(rows(page)).containsText("Grease the gear");
    assertThat(page).hasTitle("Records · Mellow Rota");

    button(pieces(page), "Take out Thu 1 Oct – Sat 31 Oct").click();
    assertThat(pieces(page)).not().containsText("Oct");
    assertThat(page.getByLabel("Find ref, name, place…")).hasValue("Lock 7");
    assertThat(rows(page).nth(1)).isVisible();
    button(pieces(page), "Show all").click();
    assertThat(pieces(page)).hasCount(0);
  }

  @Test
  public void whatMayBeMeantIsOfferedAndANearNameIsSaid() {
    Page page = found("Osier");
    assertThat(pieces(page)).containsText("“Osier” may mean");
    button(pieces(page), "Osier Weir").click();
    assertThat(pieces(page)).containsText("placeOsier Weir");
    assertThat(pieces(page)).not().containsText("may mean");

    page = found("Birtels");
    assertThat(pieces(page)).containsText("or Tam Birtles");
    assertThat(rows(page).first()).containsText("Tam Birtles");
    button(pieces(page), "not Tam Birtles").click();
    assertThat(rows(page)).hasCount(0);
  }

  @Test
  public void theLineGoesOnWithNamesAndTheListSorts() {
    Page page = signedIn("hana", ColorScheme.DARK, "/records");
    rows(page).first().waitFor();
    press(page, "/");
    page.keyboard().type("jobs Thornmere c");
    Locator option =
        page.locator(".ant-select-item-option")
            .filter(new Locator.FilterOptions().setHasText(Pattern.compile("^Thornmere crew$")));
    option.waitFor();
    option.click();
    press(page, "Enter");
    assertThat(pieces(page)).containsText("teamThornmere crew");
    page.getByRole(AriaRole.COLUMNHEADER).getByText("When").click();
    assertThat(page).hasURL(Pattern.compile("sort=LATEST"));
    assertThat(
            page.getByRole(AriaRole.COLUMNHEADER)
                .filter(new Locator.FilterOptions().setHasText("When")))
        .hasAttribute("aria-sort", "descending");
    String first =
        Api.of(server, "hana")
            .get("/api/v1/records?find=jobs+Thornmere+crew&sort=LATEST&limit=1")
            .expect(200)
            .json()
            .get("items")
            .get(0)
            .get("ref")
            .asString();
    assertThat(rows(page).first()).containsText(first);
    assertThat(first).isNotEmpty();
  }

  /** Kept in the address, so that paper, a saved view and whoever gets the link have them too. */
  @Test
  public void columnsAreChosen() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records?find=Rehang&state=all");
    rows(page).first().waitFor();
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Columns")).click();
    page.getByRole(AriaRole.CHECKBOX, new Page.GetByRoleOptions().setName("Team")).click();
    page.getByRole(AriaRole.CHECKBOX, new Page.GetByRoleOptions().setName("Parts")).click();
    assertThat(page).hasURL(Pattern.compile("columns=team%2Cparts"));
    Locator heads = page.getByRole(AriaRole.COLUMNHEADER);
    assertThat(heads.filter(new Locator.FilterOptions().setHasText("Team"))).isVisible();
    assertThat(rows(page).first()).containsText("Thornmere crew");
    assertThat(rows(page).first()).containsText("hinge pins");
    press(page, "Escape", "P");
    assertThat(page.getByRole(AriaRole.TABLE)).containsText("hinge pins");
    page.reload();
    assertThat(page.getByRole(AriaRole.TABLE)).containsText("hinge pins");
  }
}
