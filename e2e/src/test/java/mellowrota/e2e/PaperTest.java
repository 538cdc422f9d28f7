package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.StreamSupport;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.apache.pdfbox.text.TextPosition;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What is printed, read back from the PDF that a browser makes of it. */
public class PaperTest extends InBrowser {

  /** Half a point, for what rounding moves. */
  private static final double ROUNDED = 0.5;

  /** The text of each sheet; none lies on its edge. */
  private static List<String> sheets(Page page, boolean across) throws IOException {
    return sheets(page, new Page.PdfOptions().setFormat("A4").setLandscape(across));
  }

  /** The same, of the size and lie that the page asks for. */
  private static List<String> sheets(Page page) throws IOException {
    return sheets(page, new Page.PdfOptions().setPreferCSSPageSize(true));
  }

  private static List<String> sheets(Page page, Page.PdfOptions how) throws IOException {
    List<String> found = new ArrayList<>();
    try (PDDocument document = Loader.loadPDF(page.pdf(how.setPrintBackground(false)))) {
      PDFTextStripper text =
          new PDFTextStripper() {
            @Override
            protected void processTextPosition(TextPosition at) {
              assertThat(at.getXDirAdj() + at.getWidthDirAdj())
                  .as("what stands beside the sheet: %s", at)
                  .isLessThan((float) (at.getPageWidth() + ROUNDED));
              super.processTextPosition(at);
            }
          };
      text.setSortByPosition(true);
      for (int sheet = 1; sheet <= document.getNumberOfPages(); sheet++) {
        text.setStartPage(sheet);
        text.setEndPage(sheet);
        found.add(text.getText(document));
      }
    }
    for (int i = 0; i < found.size(); i++) {
      assertThat(found.get(i)).contains("%d / %d".formatted(i + 1, found.size()));
    }
    return found;
  }

  /** In one line, however it is broken. */
  private static String together(List<String> sheets) {
    return String.join(" ", sheets).replaceAll("\\s+", " ");
  }

  @DataProvider
  public Object[][] ways() {
    return new Object[][] {{false}, {true}};
  }

  /** Each record once, on numbered sheets that all say what their columns are. */
  @Test(dataProvider = "ways")
  public void theListThatStandsThereIsPrintedWhole(boolean across) throws IOException {
    List<String> refs = new ArrayList<>();
    String cursor = "";
    do {
      JsonNode part =
          Api.of(server, "hana").get("/api/v1/records?limit=200" + cursor).expect(200).json();
      part.get("items").forEach(one -> refs.add(one.get("ref").asString()));
      cursor = part.has("next") ? "&cursor=" + part.get("next").asString() : "";
    } while (!cursor.isEmpty());
    assertThat(refs).hasSizeGreaterThan(200);

    Page page = signedIn("hana", ColorScheme.DARK, "/records/paper?state=all");
    assertThat(page.getByRole(AriaRole.HEADING)).containsText(refs.size() + " records");
    List<String> sheets = sheets(page, across);
    assertThat(sheets).hasSizeGreaterThan(4);
    sheets.forEach(one -> assertThat(one).contains("Ref").contains("People").contains("State"));
    List<String> printed =
        sheets.stream()
            .flatMap(String::lines)
            .flatMap(line -> List.of(line.split("\\s+")).stream().limit(1))
            .filter(refs::contains)
            .toList();
    assertThat(printed).containsExactlyElementsOf(refs);
  }

  @Test
  public void whatIsLookedForStandsAtTheHead() throws IOException {
    Page page =
        signedIn(
            "ines", ColorScheme.LIGHT, "/records/paper?state=all&find=tickets+Ines&sort=LATEST");
    assertThat(page.getByRole(AriaRole.HEADING)).containsText("Ticket · Ines Okafor");
    assertThat(String.join("", sheets(page, false)))
        .contains("Ines Okafor")
        .doesNotContain("This list")
        .doesNotContain("Back to the list");
  }

  /** Where it is had, what must stand on it, and how many sheets it may take. */
  @DataProvider
  public Object[][] sorts() {
    long team = idOf("/api/v1/teams", "Thornmere crew");
    long ines = idOf("/api/v1/people", "Ines Okafor");
    long lock = idOf("/api/v1/places", "Lock 7, Thornmere Flight");
    JsonNode master =
        StreamSupport.stream(
                Api.of(server, "hana").get("/api/v1/calendars").json().spliterator(), false)
            .filter(one -> one.get("sort").asString().equals("MASTER"))
            .findFirst()
            .orElseThrow();
    long rehang =
        Api.of(server, "hana")
            .get("/api/v1/records?find=rehang&limit=1")
            .json()
            .get("items")
            .get(0)
            .get("id")
            .asLong();
    String day = "&from=2026-11-26&days=1";
    String weeks = "&from=2026-11-23&days=14";
    return new Object[][] {
      {"/board/paper", List.of("Crew", "Thursday 26 November", "Short ·", "Unassigned"), 6},
      {"/board/paper?of=team-" + team + day, List.of("Thornmere crew", "Kofi Brandreth"), 2},
      {"/board/paper?of=team-" + team + weeks, List.of("Mon 23", "Sun 6", "Kofi Brandreth"), 6},
      {"/board/paper?of=person-" + ines + weeks, List.of("Ines Okafor", "With", "Sun 6 Dec"), 3},
      {"/board/paper?of=place-" + lock + weeks, List.of("Lock 7", "Mon 23 Nov", "Rehang"), 4},
      {
        "/board/paper?of=calendar-" + master.get("id").asLong() + day,
        List.of(master.get("name").asString(), "People"),
        4
      },
      {"/cover/paper?from=2026-11-23&days=7", List.of("Short ·", "Flood watch", "1 of 2"), 6},
      {"/cover/paper?from=2026-11-23&days=21", List.of("Sun 13", "Flood watch"), 20},
      {"/records/" + rehang + "/paper", List.of("People", "Details", "Lands on", "History"), 4},
    };
  }

  private long idOf(String path, String name) {
    return StreamSupport.stream(Api.of(server, "hana").get(path).json().spliterator(), false)
        .filter(one -> one.get("name").asString().equals(name))
        .findFirst()
        .orElseThrow(() -> new AssertionError(path + " without " + name))
        .get("id")
        .asLong();
  }

  @Test(dataProvider = "sorts")
  public void everySortOfPaperIsWhole(String path, List<String> holds, int most)
      throws IOException {
    Page page = signedIn("hana", ColorScheme.DARK, path);
    page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setLevel(1)).waitFor();
    holds.forEach(text -> assertThat(page.getByRole(AriaRole.MAIN)).containsText(text));
    List<String> sheets = sheets(page);
    assertThat(together(sheets)).contains(holds).doesNotContain("Back to").doesNotContain("Undo");
    assertThat(sheets).hasSizeLessThanOrEqualTo(most);
  }

  /** Everybody and every day of the week, all across; of sixty people too. */
  @Test
  public void theCrewsWeekHoldsEverybody() throws IOException {
    Api hana = Api.of(server, "hana");
    for (int i = 1; i <= 36; i++) {
      hana.post("/api/v1/people", "{\"name\": \"Hand-%02d of a longish name\"}".formatted(i))
          .expect(201);
    }
    Page page = signedIn("hana", ColorScheme.LIGHT, "/board/paper?from=2026-11-23&days=7");
    page.getByRole(AriaRole.TABLE).waitFor();
    List<String> people =
        StreamSupport.stream(hana.get("/api/v1/people").json().spliterator(), false)
            .filter(one -> one.path("standing").asString("").equals("HOUSE"))
            .map(one -> one.get("name").asString())
            .toList();
    assertThat(people).hasSizeGreaterThan(58);
    List<String> sheets = sheets(page);
    String text = together(sheets);
    people.forEach(name -> assertThat(text).contains(name));
    assertThat(text).contains("Mon 23").contains("Sun 29");
    assertThat(sheets).hasSizeLessThan(15);
  }

  /** Three keys: on paper, the second team, print. */
  @Test
  public void tomorrowOfATeamIsThreeKeysAway() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/today");
    page.addInitScript("window.print = () => document.body.dataset.printed = 'yes'");
    page.reload();
    page.getByText("Next two weeks").last().waitFor();
    press(page, "P");
    page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Crew")).waitFor();
    press(page, "2");
    String second =
        Api.of(server, "hana").get("/api/v1/teams").json().get(1).get("name").asString();
    assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setLevel(1)))
        .hasText(second + " Thursday 26 November");
    press(page, "Enter");
    assertThat(page.locator("body")).hasAttribute("data-printed", "yes");
  }

  /** A worker prints their own weeks, of which they see what they see. */
  @Test
  public void aWorkersOwnWeeksArePrinted() throws IOException {
    Page page = signedIn("wren", ColorScheme.LIGHT, "/my-day");
    page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("On paper")).click();
    page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Wren")).waitFor();
    assertThat(together(sheets(page)))
        .contains("Wren Adeyemi")
        .contains("Wed 25 Nov")
        .doesNotContain("Short ·");
    page.navigate(server.url("/cover/paper"));
    page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Crew")).waitFor();
    assertThat(page.getByText("Short ·")).hasCount(0);
  }
}
