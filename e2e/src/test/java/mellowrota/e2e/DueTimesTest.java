package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Due times as typed, as kept, and as calendar programs get them. */
public class DueTimesTest {

  private Api hana;

  @BeforeClass
  public void start() {
    hana = Api.of(Server.shared(), "hana");
  }

  @DataProvider
  Object[][] times() {
    return new Object[][] {
      {"2026-12-01T10:00", null, "2026-12-01T10:00:00Z"},
      {"2026-07-01T10:00", null, "2026-07-01T09:00:00Z"},
      {"2026-12-01T10:00", "Europe/Paris", "2026-12-01T09:00:00Z"},
      {"2026-12-01T10:00", "Asia/Kolkata", "2026-12-01T04:30:00Z"},
      {"2026-12-31T23:59", "Pacific/Kiritimati", "2026-12-31T09:59:00Z"},
      // Clocks go forward at 01:00: the hour is not there, and the time moves on by it.
      {"2027-03-28T01:30", null, "2027-03-28T01:30:00Z"},
      // Clocks go back at 02:00: of the two the earlier is meant.
      {"2027-10-31T01:30", null, "2027-10-31T00:30:00Z"}
    };
  }

  @Test(dataProvider = "times")
  public void aLocalTimeMeansOneInstant(String at, String zone, String instant) {
    String title = "Due " + at + " " + (zone == null ? "here" : zone);
    JsonNode made =
        hana.post(
                "/api/v1/records",
                "{\"title\": \"%s\", \"due\": {\"at\": \"%s\"%s}}"
                    .formatted(title, at, zone == null ? "" : ", \"zone\": \"" + zone + "\""))
            .expect(201)
            .json()
            .get("record");
    assertThat(made.get("due").get("instant").asString()).isEqualTo(instant);
    assertThat(made.get("due").get("zone").asString())
        .isEqualTo(zone == null ? "Europe/London" : zone);
    VEvent event =
        new Calendars(hana).events("Due times", title).values().stream().findFirst().orElseThrow();
    assertThat(event.getDateEnd().getValue().toInstant()).hasToString(instant);
  }

  @Test
  public void aDateIsAWholeDayEverywhere() {
    long id = hana.record("{\"title\": \"By the day\", \"due\": {\"date\": \"2026-12-12\"}}");
    JsonNode due = hana.get("/api/v1/records/" + id).expect(200).json().get("due");
    assertThat(due.get("date").asString()).isEqualTo("2026-12-12");
    assertThat(due.has("instant")).isFalse();
    Calendars calendars = new Calendars(hana);
    String text =
        calendars.sync(calendars.href("Due times"), "").live().values().stream()
            .filter(one -> Calendars.unfold(one).contains("By the day"))
            .findFirst()
            .orElseThrow();
    assertThat(Calendars.line(text, "DTSTART")).isEqualTo("DTSTART;VALUE=DATE:20261212");
    assertThat(Calendars.line(text, "DTEND")).isEqualTo("DTEND;VALUE=DATE:20261213");
    hana.change(id, "{\"due\": {\"at\": \"2026-12-12T08:00\"}}");
    hana.change(id, "{\"due\": null}");
    assertThat(calendars.events("Due times", "By the day")).isEmpty();
  }

  @DataProvider
  Object[][] badTimes() {
    return new Object[][] {
      {"{\"at\": \"tomorrow\"}", "/due/at"},
      {"{\"at\": \"2026-02-30T10:00\"}", "/due/at"},
      {"{\"at\": \"2026-12-01T24:30\"}", "/due/at"},
      {"{\"at\": \"1901-12-01T10:00\"}", "/due/at"},
      {"{\"at\": \"2026-12-01T10:00\", \"zone\": \"Atlantis\"}", "/due/zone"},
      {"{\"date\": \"2026-13-01\"}", "/due/date"},
      {"{\"at\": \"2026-12-01T10:00\", \"date\": \"2026-12-01\"}", "/due"},
      {"{}", "/due"}
    };
  }

  @Test(dataProvider = "badTimes")
  public void aTimeThatIsNoneIsRefusedAtItsField(String due, String pointer) {
    JsonNode problem =
        hana.post("/api/v1/records", "{\"title\": \"x\", \"due\": " + due + "}").expect(422).json();
    assertThat(problem.get("faults").get(0).get("pointer").asString()).endsWith(pointer);
  }
}
