package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.Map;
import java.util.regex.Pattern;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Work written down while somebody is on the telephone, in one line and by hand beside it. */
public class ShortLineTest extends InBrowser {

  private Page writing() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/records");
    page.getByText("Fallen willow").first().waitFor();
    press(page, "n");
    page.getByLabel("In one line").waitFor();
    return page;
  }

  private static Locator button(Page page, String name) {
    return page.getByRole(
        AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(false));
  }

  @Test
  public void correctingTheLineLeavesWhatWasTypedByHand() {
    Page page = writing();
    Locator line = page.getByLabel("In one line");
    line.fill("ticket Lift stuck, Ines, by Fri 13:00");
    page.getByLabel("Notes").fill("Bring the long hook");
    page.getByLabel("Contact").fill("H. Varga");
    page.getByLabel("Gate code").fill("4471");
    page.getByLabel("What", new Page.GetByLabelOptions().setExact(true))
        .fill("Lift stuck for good");
    line.fill("ticket Lift stuck, Tam, by Fri 15:00");
    assertThat(page.getByLabel("Notes")).hasValue("Bring the long hook");
    assertThat(page.getByLabel("Contact")).hasValue("H. Varga");
    assertThat(page.getByLabel("Gate code")).hasValue("4471");
    assertThat(page.getByLabel("What", new Page.GetByLabelOptions().setExact(true)))
        .hasValue("Lift stuck for good");
    button(page, "Save").click();
    assertThat(page.getByText("Lands on ")).isVisible();
    JsonNode made = newest();
    assertThat(made.get("title").asString()).isEqualTo("Lift stuck for good");
    assertThat(made.get("due").get("at").asString()).startsWith("2026-11-27T15:00");
    assertThat(made.get("people").toString()).contains("Tam Birtles").doesNotContain("Ines");
    assertThat(made.get("details").toString()).contains("Bring the long hook").contains("H. Varga");
    // Kept from the office, and there all the same for whom it is.
    assertThat(Api.of(server, "tam").get("/api/v1/records/" + made.get("id").asLong()).text())
        .contains("4471");
  }

  @Test
  public void whoCalledIsUnderstoodAndWhatWasNotWaitsToBeSaid() {
    Page page = writing();
    page.getByLabel("In one line")
        .fill("ticket Lift jammed, Inés, from H. Varga 0555 0142, wet, by Fri 13:00");
    assertThat(page.getByLabel("Contact")).hasValue("H. Varga");
    assertThat(page.getByLabel("Phone")).hasValue("0555 0142");
    assertThat(button(page, "Save: say what")).isDisabled();
    Locator understood = page.getByLabel("Understood");
    assertThat(understood).containsText("wet");
    button(page, "Ines Okafor").click();
    assertThat(understood).containsText("Ines Okafor, Lead");
    button(page, "Add to the notes").click();
    assertThat(page.getByLabel("Notes")).hasValue("wet");
    assertThat(page.getByLabel("Contact")).hasValue("H. Varga");
    button(page, "Save").click();
    assertThat(page.getByText("Lands on ")).isVisible();
    JsonNode made = newest();
    assertThat(made.get("people").toString()).contains("Ines Okafor");
    assertThat(made.get("details").toString())
        .contains("H. Varga")
        .contains("0555 0142")
        .contains("wet");
  }

  /** Who called and their number, a team that does it, all in one line, and Enter. */
  @Test
  public void aTicketFromTheTelephoneIsOneLineAndEnter() {
    Page page = writing();
    page.getByLabel("In one line")
        .fill("ticket Lock 7 sluice leaks, Thornmere crew, Mrs Reed 0555 0147, by Fri 13:00");
    assertThat(page.getByLabel("Understood")).containsText("Thornmere crew, Lead");
    assertThat(page.getByText("sees what the Lead sees")).isVisible();
    press(page, "Enter");
    page.getByText(" saved: ").waitFor();
    JsonNode made = newest();
    assertThat(made.get("people").size()).isEqualTo(1);
    assertThat(made.get("people").get(0).get("name").asString()).isEqualTo("Thornmere crew");
    assertThat(made.get("people").get(0).has("person")).isFalse();
    assertThat(made.get("details").toString()).contains("Mrs Reed").contains("0555 0147");
    // Whoever is in the team has it from now on.
    assertThat(Api.of(server, "ines").get("/api/v1/records/" + made.get("id").asLong()).text())
        .contains("Sluice leaks");
  }

  /** What only warns is read beside the button, and saved by a second Enter. */
  @Test
  public void whatSavingWouldBreakIsSaidBeforeItIsSaved() {
    Page page = writing();
    page.getByLabel("In one line").fill("shift Long watch, Hedda, Wed 3:00-18:00");
    Locator breaks = page.getByLabel("What saving would break");
    assertThat(breaks).containsText("Warning: Hedda Quay would work outside their hours");
    assertThat(page.getByLabel("Their days around it")).containsText("Hedda Quay");
    String before = newest().get("title").asString();
    press(page, "Enter");
    assertThat(button(page, "Save all the same")).isVisible();
    assertThat(newest().get("title").asString()).isEqualTo(before);
    press(page, "Enter");
    page.getByText(" saved: ").waitFor();
    assertThat(newest().get("title").asString()).isEqualTo("Long watch");
  }

  /** What is never allowed is said as it is typed, is not saved, and is once it is mended. */
  @Test
  public void whatIsNeverAllowedIsMendedInTheForm() {
    Page page = writing();
    String line = "shift Second watch, Wren, Tue %s";
    Api hana = Api.of(server, "hana");
    hana.record(
        """
        {"kind": "SHIFT", "title": "First watch", "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "2026-12-08T09:00", "end": "2026-12-08T12:00"}]}
        """
            .formatted(hana.idOf("people", "Wren Adeyemi")));
    String from = line.formatted("8 Dec 10:00-13:00");
    page.getByLabel("In one line").fill(from);
    Locator breaks = page.getByLabel("What saving would break");
    assertThat(breaks).containsText("Can’t be saved: Wren Adeyemi already has other work");
    assertThat(page.getByLabel("Their days around it")).containsText("First watch");
    String newest = newest().get("title").asString();
    press(page, "Enter");
    assertThat(breaks).containsText("Can’t be saved");
    assertThat(newest().get("title").asString()).isEqualTo(newest);
    page.getByLabel("In one line").fill(line.formatted("8 Dec 12:00-15:00"));
    assertThat(breaks).not().containsText("Can’t be saved");
    press(page, "Enter");
    page.getByText(Pattern.compile(" saved: |Save all the same")).first().waitFor();
    if (button(page, "Save all the same").count() > 0) {
      press(page, "Enter");
      page.getByText(" saved: ").waitFor();
    }
    assertThat(newest().get("title").asString()).isEqualTo("Second watch");
  }

  /** Of several visits the one that is being typed is the one people are chosen for. */
  @Test
  public void whoCouldIsAskedOfTheVisitInHand() {
    Page page = writing();
    Api hana = Api.of(server, "hana");
    hana.record(
        """
        {"kind": "SHIFT", "title": "Quay watch", "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "2026-12-10T09:00", "end": "2026-12-10T12:00"}]}
        """
            .formatted(hana.idOf("people", "Tam Birtles")));
    page.getByLabel("In one line").fill("job Two goes, Tam, Wed 9 Dec 10:00-11:00");
    Locator days = page.getByLabel("Their days around it");
    assertThat(days).containsText("Tam Birtles");
    assertThat(days).not().containsText("other work");
    button(page, "Add visit").click();
    page.getByLabel("Visit 2").fill("Thu 10 Dec 10:00-11:00");
    assertThat(days).containsText("other work");
    page.getByLabel("Visit 1").focus();
    assertThat(days).not().containsText("other work");
    assertThat(days).hasCount(1);
  }

  /** The keys of a record work as soon as it is saved, whichever hand saved it. */
  @Test
  public void theKeysWorkRightAfterASaveByMouse() {
    Map<String, String> told =
        Map.of(
            "o", "J-\\d+ confirmed", "s", "T-\\d+ started", "f", "T-\\d+ finished", "z", "Undone");
    for (String key : told.keySet()) {
      Page page = writing();
      page.getByLabel("In one line")
          .fill(
              key.equals("o")
                  ? "job Key o, Ines, Sun 9:00-12:00"
                  : "ticket Key %s, Ines, by Fri 13:00".formatted(key));
      button(page, "Save").click();
      page.getByText(" saved: ").waitFor();
      press(page, key);
      assertThat(page.getByText(Pattern.compile(told.get(key)))).isVisible();
      page.context().close();
    }
  }

  private JsonNode newest() {
    Api hana = Api.of(server, "hana");
    String id = server.database().query("select max(id)::text from record").get(0);
    return hana.get("/api/v1/records/" + id).expect(200).json();
  }
}
