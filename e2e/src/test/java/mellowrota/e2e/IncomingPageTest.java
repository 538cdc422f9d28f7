package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.FileChooser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import org.testng.annotations.Test;

/** A file brought in on its page, mended there, taken, undone; and lists saved as views. */
public class IncomingPageTest extends InBrowser {

  private static void choose(Page page, String name, String type, String text) {
    FileChooser chooser =
        page.waitForFileChooser(() -> page.getByText("Drop a CSV or calendar file").click());
    chooser.setFiles(new FilePayload(name, type, text.getBytes(StandardCharsets.UTF_8)));
  }

  private static void press(Page page, String button) {
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(button).setExact(true))
        .click();
  }

  @Test
  public void aFileIsMendedInPlaceTakenAndUndoneAtOnce() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records");
    press(page, "Files");
    page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName("Import")).click();
    StringBuilder file = new StringBuilder("Ticket no,What,Site,Due by,Given to,Colour\n");
    for (int i = 0; i < 12; i++) {
      String site = i < 3 ? "Osier Basn" : "Osier Basin";
      String due = i == 5 ? "soon" : "2027-05-03 10:00";
      String who = i == 7 ? "" : "Ines Okafor";
      file.append("B-%d,Brought %d,%s,%s,%s,blue\n".formatted(i, i, site, due, who));
    }
    choose(page, "tickets-2027-05.csv", "text/csv", file.toString());
    assertThat(page.getByLabel("Source")).hasValue("tickets");
    var outcome = page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Preview"));
    assertThat(outcome).containsText("8 new");
    assertThat(outcome).containsText("4 with errors");
    var mends = page.getByRole(AriaRole.LISTITEM);
    assertThat(mends).hasCount(2);
    assertThat(mends.first()).containsText("Row 2 and 2 more");
    press(page, "Use Osier Basin");
    assertThat(outcome).containsText("11 new");
    page.getByLabel("Due by from row 7 on").fill("2027-05-04");
    page.keyboard().press("Enter");
    assertThat(outcome).containsText("12 new");
    assertThat(mends).hasCount(0);
    press(page, "Import 12 rows");
    assertThat(page.getByRole(AriaRole.STATUS).last()).containsText("12 rows imported");
    assertThat(outcome).containsText("12 unchanged");
    Api hana = Api.of(server, "hana");
    assertThat(hana.get("/api/v1/records?find=Brought").json().get("items")).hasSize(12);

    press(page, "Undo");
    assertThat(page.getByRole(AriaRole.STATUS).last()).containsText("Undone");
    assertThat(hana.get("/api/v1/records?find=Brought&state=CONFIRMED").json().get("items"))
        .isEmpty();
  }

  @Test
  public void aCalendarFileTellsWhatItCouldNotRead() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/files");
    choose(
        page,
        "office.ics",
        "text/calendar",
        """
        BEGIN:VCALENDAR
        BEGIN:VEVENT
        UID:one
        SUMMARY:Weir walk
        DTSTART:20270601T080000Z
        DTEND:20270601T090000Z
        END:VEVENT
        BEGIN:VJOURNAL
        SUMMARY:Diary
        END:VJOURNAL
        END:VCALENDAR
        """);
    assertThat(page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Not readable")))
        .containsText("VJOURNAL “Diary”");
    assertThat(page.getByText("1 not readable")).isVisible();
    assertThat(page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Import 1 row")))
        .isEnabled();
  }

  @Test
  public void workersHaveNoSuchPage() {
    Page page = signedIn("ines", ColorScheme.LIGHT, "/files");
    page.waitForURL("**/my-day");
    assertThat(page.getByText("Drop a CSV")).hasCount(0);
  }

  @Test
  public void aNarrowedListIsSavedShownAndLetGo() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records?state=all&kind=JOB&find=gate");
    press(page, "Saved views");
    page.getByPlaceholder("Name", new Page.GetByPlaceholderOptions().setExact(true))
        .fill("All gate jobs");
    page.getByLabel("For everybody in the office").check();
    press(page, "Save");
    assertThat(page.getByText("View “All gate jobs” saved")).isVisible();

    Page other = signedIn("marguerite", ColorScheme.LIGHT, "/records");
    press(other, "Saved views");
    other.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("All gate jobs")).click();
    other.waitForURL("**/records?state=all&kind=JOB&find=gate");
    assertThat(
            other.getByRole(
                AriaRole.GROUP, new Page.GetByRoleOptions().setName("What is looked for")))
        .containsText("gate");

    press(page, "Delete view All gate jobs");
    assertThat(page.getByText("All gate jobs").and(page.locator("button"))).hasCount(0);
  }
}
