package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.util.List;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A coordinator looks at pages with somebody else's eyes. */
public class SeenByTest extends InBrowser {

  private Api hana;
  private Api ines;
  private Api wren;
  private long inesId;
  private long wrenId;
  private long record;

  @BeforeClass(dependsOnMethods = "start")
  public void people() {
    hana = Api.of(server, "hana");
    ines = Api.of(server, "ines");
    wren = Api.of(server, "wren");
    inesId = hana.idOf("people", "Ines Okafor");
    wrenId = hana.idOf("people", "Wren Adeyemi");
    record =
        hana.record(
            """
            {"title": "Seen by two", "place": 1, "due": {"at": "2026-11-26T10:00"},
             "people": [{"role": 0, "person": %d}],
             "details": {"phone": "0555 0166", "gate code": "HERONRY", "quote": "900"}}
            """
                .formatted(inesId));
  }

  private Api.Answer as(long person, String path) {
    return hana.get(path, "As-Seen-By", Long.toString(person));
  }

  private List<String> pages() {
    return List.of(
        "/api/v1/records?limit=200",
        "/api/v1/records?find=two",
        "/api/v1/records/" + record + "/landings",
        "/api/v1/board?from=2026-11-23&until=2026-11-30",
        "/api/v1/my-day",
        "/api/v1/people",
        "/api/v1/teams",
        "/api/v1/places",
        "/api/v1/calendars",
        "/api/v1/people/" + wrenId + "/times");
  }

  /** Wren is on nothing here that the office may not see. */
  @Test
  public void eachPageAnswersAsItAnswersThem() {
    for (String path : pages()) {
      Api.Answer theirs = wren.get(path);
      Api.Answer seen = as(wrenId, path);
      assertThat(seen.status()).as(path).isEqualTo(theirs.status());
      assertThat(uncovered(seen)).as(path).isEqualTo(uncovered(theirs));
    }
    assertThat(as(wrenId, "/api/v1/audit?detail=phone").status()).isEqualTo(403);
    assertThat(as(wrenId, "/api/v1/rules").status()).isEqualTo(403);
  }

  /** But for the clock, and the gate code, which is for the Lead and never for the office. */
  private static String uncovered(Api.Answer answer) {
    return answer
        .text()
        .replaceAll("\\{\"key\":\"gate code\"[^}]*}", "")
        .replaceAll("\"at\":\"[^\"]+\",\"zone\"", "");
  }

  @Test
  public void whatTheCoordinatorMayNotSeeStaysCovered() {
    assertThat(ines.get("/api/v1/records/" + record).text()).contains("HERONRY");
    JsonNode seen = as(inesId, "/api/v1/records/" + record).expect(200).json();
    assertThat(seen.toString()).contains("0555 0166").doesNotContain("HERONRY");
    assertThat(seen.get("details").valueStream().map(one -> one.get("key").asString()))
        .as("that she has a gate code there is told, what it says is not")
        .contains("gate code")
        .doesNotContain("quote");
    for (String path : pages()) {
      assertThat(as(inesId, path).text()).as(path).doesNotContain("HERONRY");
    }
    assertThat(ines.get("/api/v1/records?find=HERONRY").json().get("items")).hasSize(1);
    assertThat(as(inesId, "/api/v1/records?find=HERONRY").json().get("items")).isEmpty();
    assertThat(as(inesId, "/api/v1/records/" + record + "/history").text())
        .doesNotContain("HERONRY");
  }

  /**
   * A team coordinator who leads the work reads the gate code in what waits; the office does not.
   */
  @Test
  public void whatWaitsIsCoveredToo() {
    ReleasesTest.ticketsWaitForAYes(hana, true);
    try {
      Api marguerite = Api.of(server, "marguerite");
      long her = hana.idOf("people", "Marguerite Pell");
      hana.record(
          """
          {"title": "Waits for two", "due": {"at": "2026-11-27T10:00"},
           "people": [{"role": 0, "person": %d}], "details": {"gate code": "OSPREYS"}}
          """
              .formatted(her));
      assertThat(marguerite.get("/api/v1/releases").text()).contains("OSPREYS");
      assertThat(as(her, "/api/v1/releases").expect(200).text())
          .contains("Waits for two")
          .doesNotContain("OSPREYS");
    } finally {
      ReleasesTest.ticketsWaitForAYes(hana, false);
    }
  }

  @Test
  public void nothingIsChangedAndNothingElseIsRead() {
    String id = Long.toString(wrenId);
    hana.post("/api/v1/records", "{\"title\": \"x\"}", "As-Seen-By", id).expect(403);
    hana.patch("/api/v1/records/" + record, "{}", "If-Match", "*", "As-Seen-By", id).expect(403);
    for (String path :
        List.of(
            "/api/v1/account/app-passwords",
            "/api/v1/feeds",
            "/api/v1/shares",
            "/api/v1/records.csv",
            "/api/v1/events")) {
      hana.get(path, "As-Seen-By", id).expect(403);
    }
    wren.get("/api/v1/records", "As-Seen-By", Long.toString(inesId)).expect(403);
    Api.of(server, "marguerite").get("/api/v1/records", "As-Seen-By", id).expect(403);
    hana.get("/api/v1/records", "As-Seen-By", "999999").expect(404);
    hana.get("/api/v1/records", "As-Seen-By", "nobody").expect(404);
    new Api(server).get("/api/v1/records", "As-Seen-By", id).expect(401);
  }

  @Test
  public void thePagesSayWhoseEyesTheseAre() {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/who-sees-what");
    page.getByLabel("View pages as…").click();
    find(page, "Wren Adeyemi");
    press(page, "Enter");
    PlaywrightAssertions.assertThat(page.getByText("You are viewing this page as Wren Adeyemi"))
        .isVisible();
    PlaywrightAssertions.assertThat(
            page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("My day")))
        .isVisible();
    PlaywrightAssertions.assertThat(
            page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Calendars")))
        .hasCount(0);
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Back to your own view"))
        .click();
    PlaywrightAssertions.assertThat(
            page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Calendars")).first())
        .isVisible();
  }
}
