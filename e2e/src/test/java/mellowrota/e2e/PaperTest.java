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
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What is printed, read back from the PDF that a browser makes of it. */
public class PaperTest extends InBrowser {

  /** The text of each sheet of A4. */
  private static List<String> sheets(Page page, boolean across) throws IOException {
    byte[] pdf =
        page.pdf(
            new Page.PdfOptions().setFormat("A4").setLandscape(across).setPrintBackground(false));
    List<String> found = new ArrayList<>();
    try (PDDocument document = Loader.loadPDF(pdf)) {
      PDFTextStripper text = new PDFTextStripper();
      text.setSortByPosition(true);
      for (int sheet = 1; sheet <= document.getNumberOfPages(); sheet++) {
        text.setStartPage(sheet);
        text.setEndPage(sheet);
        found.add(text.getText(document));
      }
    }
    return found;
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
    for (int i = 0; i < sheets.size(); i++) {
      assertThat(sheets.get(i)).contains("Ref").contains("People").contains("State");
      assertThat(sheets.get(i)).contains("%d / %d".formatted(i + 1, sheets.size()));
    }
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

  /** Everybody and every day of the week, all across. */
  @Test
  public void theCrewsWeekHoldsEverybody() throws IOException {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/board/print?from=2026-11-23");
    page.getByRole(AriaRole.TABLE).waitFor();
    String text = String.join(" ", sheets(page, true)).replaceAll("\\s+", " ");
    List<String> people =
        StreamSupport.stream(
                Api.of(server, "hana").get("/api/v1/people").json().spliterator(), false)
            .filter(one -> one.path("standing").asString("").equals("HOUSE"))
            .map(one -> one.get("name").asString())
            .toList();
    assertThat(people).hasSizeGreaterThan(20);
    people.forEach(name -> assertThat(text).contains(name));
    assertThat(text).contains("Mon 23").contains("Sun 29").contains("1 / ");
  }
}
