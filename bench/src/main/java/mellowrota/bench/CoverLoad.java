package mellowrota.bench;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import tools.jackson.databind.json.JsonMapper;

/**
 * The page of cover of 500 people over thirteen weeks with forty duties of three, day and night,
 * against a running demo: as the server answers it, and in Chromium. Argument: the server's address
 * without a slash at the end.
 */
public final class CoverLoad {

  /** With the demo's own. */
  private static final int PEOPLE = 475;

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private static final int DUTIES = 40;
  private static final int DAYS = Integer.getInteger("days", 91);
  private static final int READINGS = 60;
  private static final int OPENINGS = 5;
  private static final LocalDate MONDAY = LocalDate.of(2027, 9, 6);

  private CoverLoad() {}

  public static void main(String[] arguments) throws Exception {
    DemoClient hana = new DemoClient(arguments[0]);
    Growth growth = new Growth(hana);
    growth.grow(PEOPLE, 0, MONDAY);
    int shifts = lay(hana, growth);
    String path = "/api/v1/cover?from=" + MONDAY + "&until=" + MONDAY.plusDays(DAYS);
    System.out.printf(
        "cover of 500 people, 13 weeks, %d shifts: %s%n",
        shifts, Readings.of(hana, path, READINGS));
    long somebody =
        JSON.readTree(hana.send("GET", "/api/v1/people", null)).get(2).get("id").asLong();
    System.out.printf(
        "a shift tried while it is planned, all 500 with their reasons: %s%n",
        Readings.of(
            number ->
                hana.send(
                    "POST",
                    "/api/v1/cover/trial",
                    "{\"change\": %s}".formatted(shift(number, somebody))),
            READINGS));
    System.out.printf(
        "a shift saved, with the trial of who gets it: %s%n",
        Readings.of(
            number -> hana.send("POST", "/api/v1/records", shift(number, somebody)), READINGS));
    inBrowser(arguments[0]);
  }

  /** Each at a time of its own. */
  private static String shift(int number, long person) {
    LocalDate day = MONDAY.plusDays(number % DAYS);
    int hour = 2 + 3 * (number / DAYS);
    return """
        {"kind": "SHIFT", "title": "Planned", "people": [{"role": 1, "person": %d}],
         "visits": [{"start": "%sT%02d:00", "end": "%sT%02d:30"}]}
        """
        .formatted(person, day, hour, day, hour + 1);
  }

  /** Four days of seven each, by day or by night. */
  private static int lay(DemoClient hana, Growth growth) throws Exception {
    for (int d = 0; d < DUTIES; d++) {
      String place =
          hana.send(
              "POST",
              "/api/v1/places",
              "{\"code\": \"STN%d\", \"name\": \"Station %d\"}".formatted(d, d));
      hana.send(
          "POST",
          "/api/v1/duties",
          """
          {"name": "Watch %d", "place": %d, "spans": [
            {"weekdays": [1, 2, 3, 4, 5, 6, 7], "from": "08:00", "until": "20:00", "count": 3},
            {"weekdays": [1, 2, 3, 4, 5, 6, 7], "from": "20:00", "until": "08:00", "count": 3}]}
          """
              .formatted(d, JSON.readTree(place).get("id").asLong()));
    }
    List<List<String>> shifts = new ArrayList<>();
    for (int p = 0; p < PEOPLE; p++) {
      for (int day = 0; day < DAYS; day++) {
        if ((day + p) % 7 < 4) {
          boolean night = p / 7 % 2 == 1;
          LocalDate on = MONDAY.plusDays(day);
          shifts.add(
              List.of(
                  "watch %d %s".formatted(p, on),
                  "Watch",
                  "Station " + p % DUTIES,
                  on + (night ? "T20:00" : "T08:00"),
                  (night ? on.plusDays(1) + "T08:00" : on + "T20:00"),
                  Growth.name(p),
                  "confirmed"));
        }
      }
    }
    growth.take(
        "RECORDS",
        "SHIFT",
        List.of("id", "title", "place", "start", "end", "role:0", "state"),
        shifts);
    return shifts.size();
  }

  private static void inBrowser(String server) {
    try (Playwright playwright = Playwright.create()) {
      Browser browser = BoardInBrowser.launch(playwright);
      Page page = browser.newPage(new Browser.NewPageOptions().setViewportSize(1280, 800));
      BoardInBrowser.signIn(page, server);
      double[] ready = new double[OPENINGS];
      for (int i = 0; i < OPENINGS; i++) {
        long from = System.nanoTime();
        page.navigate(server + "/cover?zoom=season&from=" + MONDAY);
        page.getByText("Watch 39").first().waitFor();
        ready[i] = (System.nanoTime() - from) / 1e6;
      }
      double first = ready[0];
      Arrays.sort(ready);
      System.out.printf(
          "the page in Chromium: first ready in %.0f ms, then %.0f ms (slowest of %d: %.0f)%n",
          first, ready[OPENINGS / 2], OPENINGS, ready[OPENINGS - 1]);
    }
  }
}
