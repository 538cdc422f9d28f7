package mellowrota.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.ColorScheme;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/** What hands do on the board, by mouse and by keyboard, and what calendars hold afterwards. */
public class BoardTest extends InBrowser {

  /** A quiet week for each test, so that none meets another's work. */
  private static final String TAM = "Tam Birtles";

  private static final String WREN = "Wren Adeyemi";

  private Api hana;
  private Calendars tams;
  private Calendars wrens;
  private long tam;

  @BeforeClass(dependsOnMethods = "start")
  public void people() {
    hana = Api.of(server, "hana").warned();
    tams = new Calendars(Api.of(server, "tam"));
    wrens = new Calendars(Api.of(server, "wren"));
    tam = hana.idOf("people", TAM);
  }

  /** A confirmed job of Tam's. */
  private long job(String title, String start, String end) {
    return hana.record(
        """
        {"kind": "JOB", "state": "CONFIRMED", "title": "%s",
         "visits": [{"start": "%s", "end": "%s", "before": 30, "after": 15}],
         "people": [{"role": 0, "person": %d}]}
        """
            .formatted(title, start, end, tam));
  }

  private Page board(String query) {
    Page page = signedIn("hana", ColorScheme.LIGHT, "/board?" + query);
    page.getByRole(AriaRole.GRID).waitFor();
    // The fourth team is Saltgate crew, in which both are.
    press(page, "4");
    assertThat(page.locator("[role=gridcell]:focus"))
        .hasAttribute("aria-label", Pattern.compile("^Bram Idowu, "));
    return page;
  }

  private static Locator lane(Page page, String name) {
    return page.getByRole(AriaRole.ROWHEADER, new Page.GetByRoleOptions().setName(name)).first();
  }

  private static Locator line(Page page, String title) {
    return page.getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile(title + "$")))
        .first();
  }

  /** What the strip along the bottom tells. */
  private static Locator told(Page page, String text) {
    return page.getByRole(AriaRole.STATUS)
        .filter(new Locator.FilterOptions().setHasText(text))
        .first();
  }

  private static Locator cell(Page page, String person, String day) {
    // People stand under each of their teams; the last is Saltgate crew's.
    return page.getByRole(
            AriaRole.GRIDCELL,
            new Page.GetByRoleOptions()
                .setName(Pattern.compile("^" + person + ", \\w+ " + day + ":")))
        .last();
  }

  private static void drag(Page page, Locator from, Locator to) {
    BoundingBox a = from.boundingBox();
    BoundingBox b = to.boundingBox();
    drag(page, a.x + 12, a.y + 6, b.x + 12, b.y + b.height / 2);
  }

  private static void drag(Page page, double x, double y, double toX, double toY) {
    page.mouse().move(x, y);
    page.mouse().down();
    page.mouse().move((x + toX) / 2, (y + toY) / 2);
    page.mouse().move(toX, toY);
    page.mouse().up();
  }

  private static String times(Calendars calendars, String calendar, String words) {
    Map<String, VEvent> found = calendars.events(calendar, words);
    assertThat(found).as(words + " on " + calendar).hasSize(1);
    VEvent event = found.values().iterator().next();
    return event.getDateStart().getValue() + " to " + event.getDateEnd().getValue();
  }

  /** Every entry about something on these calendars, but for what may differ after an undo. */
  private Map<String, String> entries(String words) {
    Map<String, String> found = new TreeMap<>();
    found.putAll(plain(tams, TAM + ", own", words));
    found.putAll(plain(wrens, WREN + ", own", words));
    found.putAll(plain(tams, "Saltgate crew, team", words));
    found.putAll(plain(new Calendars(hana), "Master", ""));
    return found;
  }

  private static Map<String, String> plain(Calendars calendars, String name, String words) {
    Map<String, String> found = new TreeMap<>();
    calendars
        .sync(calendars.href(name), "")
        .live()
        .forEach(
            (href, text) -> {
              if (Calendars.unfold(text).contains(words)) {
                found.put(
                    href,
                    text.replaceAll("(?m)^(SEQUENCE|DTSTAMP|LAST-MODIFIED)[^\r\n]*\r?\n", ""));
              }
            });
    return found;
  }

  @Test
  public void movedByMouseOntoAnotherDayAndAnotherLane() {
    job("Mouse work", "2027-01-04T08:00", "2027-01-04T12:00");
    Map<String, String> before = entries("Mouse work");
    Page page = board("from=2027-01-04");
    drag(page, line(page, "Mouse work"), cell(page, WREN, "6 Jan"));
    assertThat(told(page, "moved: ")).isVisible();
    assertThat(times(wrens, WREN + ", own", "Mouse work"))
        .isEqualTo("Wed Jan 06 07:30:00 UTC 2027 to Wed Jan 06 12:15:00 UTC 2027");
    assertThat(tams.events(TAM + ", own", "Mouse work")).isEmpty();
    press(page, "z");
    assertThat(told(page, "Undone")).isVisible();
    assertThat(entries("Mouse work")).isEqualTo(before);
    press(page, "Z");
    assertThat(told(page, "Redone")).isVisible();
    assertThat(wrens.events(WREN + ", own", "Mouse work")).hasSize(1);
  }

  @Test
  public void movedByKeyboardOntoAnotherDayAndAnotherLane() {
    job("Key work", "2027-01-11T08:00", "2027-01-11T12:00");
    Page page = board("from=2027-01-11");
    to(page, TAM, "Key work");
    press(page, "m");
    assertThat(told(page, "Move with the arrow keys")).isVisible();
    press(page, "ArrowRight", "ArrowRight", "ArrowDown", "Enter");
    assertThat(told(page, "moved: ")).isVisible();
    assertThat(times(wrens, WREN + ", own", "Key work"))
        .isEqualTo("Wed Jan 13 07:30:00 UTC 2027 to Wed Jan 13 12:15:00 UTC 2027");
  }

  @Test
  public void movedOverAClockChangeAndCopiedToTheNextWeekByKeyboard() {
    job("Keyed week", "2027-03-27T08:00", "2027-03-27T12:00");
    Map<String, String> before = entries("Keyed week");
    Page page = board("from=2027-03-22");
    toLane(page, TAM);
    for (int i = 0; i < 5; i++) {
      press(page, "ArrowRight");
    }
    press(page, "ArrowDown");
    assertThat(line(page, "Keyed week")).isFocused();
    press(page, "m", "ArrowRight", "Enter");
    assertThat(told(page, "moved: ")).isVisible();
    String text = String.join("", plain(tams, TAM + ", own", "Keyed week").values());
    assertThat(Calendars.line(text.substring(text.indexOf("BEGIN:VEVENT")), "DTSTART"))
        .isEqualTo("DTSTART;TZID=Europe/London:20270328T073000");

    press(page, "ArrowDown");
    assertThat(line(page, "Keyed week")).isFocused();
    press(page, "c");
    assertThat(told(page, "1 copied")).isVisible();
    press(page, "]");
    assertThat(page.getByText("29 March – 4 April").or(page.getByText("29 Mar – 4 Apr")).first())
        .isVisible();
    press(page, "v");
    assertThat(told(page, "1 pasted: ")).isVisible();
    assertThat(tams.events(TAM + ", own", "Keyed week")).hasSize(2);
    press(page, "z", "z");
    Await.until(
        "both are undone",
        java.time.Duration.ofSeconds(30),
        () -> entries("Keyed week").equals(before));
  }

  @Test
  public void drawnByKeyboard() {
    Page page = board("from=2027-04-12");
    toLane(page, TAM);
    press(page, "ArrowRight", "ArrowRight", "Enter");
    page.getByLabel("What", new Page.GetByLabelOptions().setExact(true)).waitFor();
    type(page, "Keyed draw");
    press(page, "Enter");
    assertThat(told(page, " saved: ")).isVisible();
    assertThat(tams.events(TAM + ", own", "Keyed draw")).hasSize(1);
    // Its rail would lie on the lane in every week before it is due.
    long id =
        hana.get("/api/v1/records?find=Keyed+draw").json().get("items").get(0).get("id").asLong();
    hana.change(id, "{\"state\": \"CANCELLED\"}");
  }

  /** Goes with the arrows to the first cell of a lane and into its first piece. */
  private static void to(Page page, String person, String title) {
    toLane(page, person);
    press(page, "ArrowDown");
    assertThat(line(page, title)).isFocused();
  }

  private static void toLane(Page page, String person) {
    for (int i = 0; i < 40; i++) {
      String at =
          (String) page.evaluate("document.activeElement?.getAttribute('aria-label') ?? ''");
      if (at.startsWith(person + ",")) {
        return;
      }
      press(page, "ArrowDown");
      page.evaluate("() => new Promise(done => requestAnimationFrame(() => done()))");
    }
    throw new AssertionError("no lane of " + person);
  }

  @Test
  public void stretchedByKeyboardAndOverMidnight() {
    job("Long work", "2027-01-18T18:00", "2027-01-18T23:45");
    Page page = board("from=2027-01-18");
    to(page, TAM, "Long work");
    press(page, ">");
    assertThat(told(page, "moved: ")).isVisible();
    press(page, ">");
    Await.until(
        "it ends after midnight",
        java.time.Duration.ofSeconds(30),
        () ->
            times(tams, TAM + ", own", "Long work")
                .equals("Mon Jan 18 17:30:00 UTC 2027 to Tue Jan 19 00:30:00 UTC 2027"));
  }

  @Test
  public void stretchedByMouse() {
    job("Stretched", "2027-01-25T08:00", "2027-01-25T12:00");
    Page page = board("from=2027-01-25&zoom=day");
    Locator handle = page.locator("[data-edge]").first();
    BoundingBox box = handle.boundingBox();
    BoundingBox day = cell(page, TAM, "25 Jan").boundingBox();
    drag(page, box.x + 4, box.y + 8, box.x + 4 + day.width / 24 * 2, box.y + 8);
    assertThat(told(page, "moved: ")).isVisible();
    assertThat(times(tams, TAM + ", own", "Stretched"))
        .isEqualTo("Mon Jan 25 07:30:00 UTC 2027 to Mon Jan 25 14:15:00 UTC 2027");
  }

  @Test
  public void draggedOverMidnight() {
    job("Night work", "2027-01-26T18:00", "2027-01-26T21:00");
    Page page = board("from=2027-01-26&zoom=day");
    BoundingBox day = cell(page, TAM, "26 Jan").boundingBox();
    BoundingBox box = line(page, "Night work").boundingBox();
    drag(page, box.x + 12, box.y + 6, box.x + 12 + day.width / 24 * 4, box.y + 6);
    assertThat(told(page, "moved: ")).isVisible();
    assertThat(times(tams, TAM + ", own", "Night work"))
        .as("with its margins")
        .isEqualTo("Tue Jan 26 21:30:00 UTC 2027 to Wed Jan 27 01:15:00 UTC 2027");
    press(page, "z");
    assertThat(told(page, "Undone")).isVisible();
    assertThat(times(tams, TAM + ", own", "Night work"))
        .isEqualTo("Tue Jan 26 17:30:00 UTC 2027 to Tue Jan 26 21:15:00 UTC 2027");
  }

  @Test
  public void workKeepsItsClockOverAClockChange() {
    job("Clock work", "2027-03-27T08:00", "2027-03-27T12:00");
    Page page = board("from=2027-03-22");
    drag(page, line(page, "Clock work"), cell(page, TAM, "28 Mar"));
    assertThat(told(page, "moved: ")).isVisible();
    // As it stands in the object: the reading library errs on the day of a change itself.
    String text = String.join("", plain(tams, TAM + ", own", "Clock work").values());
    assertThat(Calendars.line(text.substring(text.indexOf("BEGIN:VEVENT")), "DTSTART"))
        .isEqualTo("DTSTART;TZID=Europe/London:20270328T073000");
    assertThat(Calendars.line(text, "DTEND")).isEqualTo("DTEND;TZID=Europe/London:20270328T121500");
  }

  @Test
  public void drawnOnALane() {
    Page page = board("from=2027-02-01&zoom=day");
    BoundingBox box = cell(page, TAM, "1 Feb").boundingBox();
    double hour = box.width / 24;
    drag(page, box.x + 9 * hour, box.y + 30, box.x + 13 * hour, box.y + 30);
    page.getByLabel("What", new Page.GetByLabelOptions().setExact(true)).waitFor();
    type(page, "Drawn work");
    assertThat(page.getByText("On no calendar until it is confirmed.")).isVisible();
    page.getByText("Confirmed", new Page.GetByTextOptions().setExact(true)).click();
    assertThat(page.getByText("Will land on")).isVisible();
    page.getByLabel("What", new Page.GetByLabelOptions().setExact(true)).focus();
    press(page, "Enter");
    assertThat(page.getByText("Drawn work").first()).isVisible();
    assertThat(told(page, " saved: ")).isVisible();
    assertThat(times(tams, TAM + ", own", "Drawn work"))
        .isEqualTo("Mon Feb 01 09:00:00 UTC 2027 to Mon Feb 01 13:00:00 UTC 2027");
  }

  @Test
  public void aLaneIsCopiedToTheNextWeekAndAllOfItUndone() {
    job("Weekly one", "2027-02-08T08:00", "2027-02-08T12:00");
    job("Weekly two", "2027-02-10T08:00", "2027-02-10T12:00");
    Map<String, String> before = entries("Weekly");
    Page page = board("from=2027-02-08");
    to(page, TAM, "Weekly one");
    press(page, "a");
    assertThat(told(page, "2 selected")).isVisible();
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Copy to next week"))
        .click();
    assertThat(told(page, "2 pasted: ")).isVisible();
    assertThat(tams.events(TAM + ", own", "Weekly one")).hasSize(2);
    assertThat(tams.events(TAM + ", own", "Weekly two").values().toString())
        .contains("Wed Feb 17 07:30:00 UTC 2027");
    press(page, "Escape");
    press(page, "z");
    assertThat(told(page, "Undone")).isVisible();
    assertThat(entries("Weekly")).isEqualTo(before);
  }

  @Test
  public void aWholeWeekIsCopiedAcrossPeople() {
    job("Week work", "2027-05-10T08:00", "2027-05-10T12:00");
    hana.record(
        """
        {"kind": "SHIFT", "title": "Week watch", "place": 1, "people": [{"role": 0, "person": %d}],
         "visits": [{"start": "2027-05-14T22:00", "end": "2027-05-15T06:00"}]}
        """
            .formatted(hana.idOf("people", WREN)));
    Map<String, String> before = entries("Week w");
    Page page = board("from=2027-05-10");
    press(page, "A");
    assertThat(told(page, " selected")).isVisible();
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Copy to next week"))
        .click();
    assertThat(told(page, " pasted: ")).isVisible();
    assertThat(tams.events(TAM + ", own", "Week work").values().toString())
        .contains("Mon May 17 06:30:00 UTC 2027");
    assertThat(wrens.events(WREN + ", own", "Week watch").values().toString())
        .contains("Fri May 21 21:00:00 UTC 2027");
    press(page, "Escape");
    press(page, "z");
    assertThat(told(page, "Undone")).isVisible();
    assertThat(entries("Week w")).isEqualTo(before);
  }

  @Test
  public void severalGoTogetherAndComeBackTogether() {
    job("Both one", "2027-02-22T08:00", "2027-02-22T12:00");
    job("Both two", "2027-02-23T09:00", "2027-02-23T12:00");
    Map<String, String> before = entries("Both");
    Page page = board("from=2027-02-22");
    to(page, TAM, "Both one");
    press(page, "a");
    drag(page, line(page, "Both one"), cell(page, WREN, "24 Feb"));
    assertThat(told(page, "2 moved: ")).isVisible();
    assertThat(times(wrens, WREN + ", own", "Both two")).startsWith("Thu Feb 25 08:30");
    press(page, "z");
    assertThat(told(page, "Undone")).isVisible();
    assertThat(entries("Both")).isEqualTo(before);
  }

  @Test
  public void whoWasQuickerIsShownAndNothingOfTheirsIsLost() {
    long record = job("Wanted twice", "2027-03-01T08:00", "2027-03-01T12:00");
    Page page = board("from=2027-03-01");
    line(page, "Wanted twice").waitFor();
    // The page is kept from hearing of what another does meanwhile.
    page.route("**/api/v1/board**", route -> route.abort());
    hana.change(
        record,
        "{\"visits\": [{\"no\": 1, \"start\": \"2027-03-01T13:00\", \"end\": \"2027-03-01T15:00\"}],"
            + " \"details\": {\"notes\": \"their words\"}}");
    drag(page, line(page, "Wanted twice"), cell(page, TAM, "3 Mar"));
    assertThat(page.getByText("Somebody else has changed")).isVisible();
    assertThat(page.getByText("Mon 1 Mar 13:00 – 15:00")).isVisible();
    assertThat(page.getByText("Wed 3 Mar 08:00 – 12:00")).isVisible();
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Save my version")).click();
    assertThat(told(page, "moved: ")).isVisible();
    assertThat(times(tams, TAM + ", own", "Wanted twice")).startsWith("Wed Mar 03 12:30");
    assertThat(hana.get("/api/v1/records/" + record).text()).contains("their words");
  }

  @Test
  public void whatOthersDoAppearsAndTheBoardStaysWhereItWas() {
    Page page = board("from=2027-03-08");
    double before = lane(page, WREN).boundingBox().y;
    // A lane above grows by it.
    long dray = hana.idOf("people", "Anneke Dray");
    for (int i = 0; i < 5; i++) {
      hana.record(
          """
          {"kind": "JOB", "state": "CONFIRMED", "title": "Above %d",
           "visits": [{"start": "2027-03-08T1%d:00", "end": "2027-03-08T1%d:30"}],
           "people": [{"role": 0, "person": %d}, {"role": 1, "person": %d}]}
          """
              .formatted(i, i, i, dray, tam));
    }
    assertThat(line(page, "Above 4")).isVisible();
    page.evaluate("() => new Promise(done => requestAnimationFrame(() => done()))");
    double lanes = lane(page, TAM).boundingBox().y;
    assertThat(lanes).as("the lane looked at stays").isLessThan(before);
  }

  @Test
  public void calendarsLieOnTheBoardSideBySideOrOverlaid() {
    long record = job("On calendars", "2027-03-15T08:00", "2027-03-15T12:00");
    hana.change(record, "{\"tags\": [\"closure\"]}");
    long closures = hana.idOf("calendars", "Closures");
    long master = hana.idOf("calendars", "Master");
    Page page =
        signedIn(
            "hana",
            ColorScheme.LIGHT,
            "/board?from=2027-03-15&calendars=" + closures + "," + master);
    assertThat(cell(page, "Closures", "15 Mar")).containsText("On calendars");
    assertThat(cell(page, "Master", "15 Mar")).containsText("On calendars");
    page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Calendars (2)")).click();
    page.getByText("Combine into one lane").click();
    assertThat(cell(page, "Combined", "15 Mar")).containsText("On calendars");
    Api.Answer wrens =
        Api.of(server, "wren")
            .get("/api/v1/board?from=2027-03-15&until=2027-03-16&calendars=" + closures);
    assertThat(wrens.expect(200).text()).doesNotContain("\"on\":");
  }

  @Test
  public void aPhonedInTicketIsOneLine() {
    Page page = board("from=2026-11-23");
    press(page, "n");
    page.getByLabel("In one line").waitFor();
    type(page, "ticket Lock 7 paddle stuck on one line, Tam, by Fri 13:00");
    assertThat(page.getByText("Tam Birtles, Lead")).isVisible();
    assertThat(page.getByText("due 27 Nov 2026 13:00")).isVisible();
    press(page, "Enter");
    assertThat(page.getByText("Lands on 4 calendars")).isVisible();
    assertThat(tams.events(TAM + ", own", "Paddle stuck on one line")).hasSize(1);
    press(page, "s");
    assertThat(told(page, "started: ")).isVisible();
    press(page, "f");
    assertThat(told(page, "finished: ")).isVisible();
  }

  @Test
  public void aLineThatIsNotUnderstoodIsNotTaken() {
    Page page = board("from=2026-11-23");
    press(page, "n");
    page.getByLabel("In one line").waitFor();
    type(page, "ticket Lock 7 not for anybody, Zoltan, by Fri 25:00");
    assertThat(page.getByText("nobody of that name")).isVisible();
    assertThat(page.getByText("no due time; for instance")).isVisible();
    press(page, "Enter");
    assertThat(
            page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Save: say what")))
        .isDisabled();
    assertThat(hana.get("/api/v1/records?find=anybody").expect(200).text())
        .doesNotContain("ot for anybody");
  }

  /** Whose lane it is needs not be looked for. */
  @Test
  public void whoIsSickIsReportedFromTheirLane() {
    Page page = board("from=2026-11-23");
    press(page, ".");
    page.getByRole(
            AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Report sick…")))
        .click();
    Locator dialog =
        page.getByRole(AriaRole.DIALOG).filter(new Locator.FilterOptions().setHasText("Last day"));
    assertThat(dialog).containsText("Bram Idowu");
  }
}
