package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import biweekly.component.VEvent;
import biweekly.util.ICalDate;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.TimeZone;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The list of calendars: what stands on each in the next days, who reads it, what lands there. */
public class CalendarListTest extends OnDemo {

  private static final String WEEK = "/api/v1/calendars/week";

  @DataProvider
  public Object[][] askers() {
    return new Object[][] {{"hana"}, {"marguerite"}, {"ines"}, {"wren"}};
  }

  /** As many as a calendar program that reads all of it counts in those days. */
  @Test(dataProvider = "askers")
  public void eachCountsWhatAProgramReads(String who) {
    Api asker = Api.of(server, who);
    Map<Long, Long> told = new HashMap<>();
    for (JsonNode one : asker.get(WEEK).expect(200).json()) {
      told.put(one.get("calendar").asLong(), one.get("entries").asLong());
    }
    Instant now = Instant.parse(asker.get("/api/v1/session").json().get("now").asString());
    Instant until = now.plus(Duration.ofDays(7));
    Calendars program = new Calendars(asker);
    long all = 0;
    for (JsonNode calendar : asker.get("/api/v1/calendars").expect(200).json()) {
      if (calendar.get("reads").asBoolean()) {
        long read =
            program.events(calendar.get("name").asString(), "").values().stream()
                .filter(one -> moment(one.getDateStart().getValue()).isBefore(until))
                .filter(one -> moment(end(one)).isAfter(now))
                .count();
        assertThat(told.get(calendar.get("id").asLong()))
            .as(calendar.get("name").asString())
            .isEqualTo(read);
        all += read;
      }
    }
    assertThat(all).isPositive();
  }

  private static ICalDate end(VEvent event) {
    return event.getDateEnd().getValue();
  }

  /** Whole days are those of UTC. */
  private static Instant moment(ICalDate date) {
    return date.hasTime()
        ? date.toInstant()
        : date.getRawComponents().toDate(TimeZone.getTimeZone("UTC")).toInstant();
  }

  @Test
  public void readersAndRulesAreForWhoMayListThem() {
    long own = hana.idOf("calendars", "Ines Okafor, own");
    hana.post("/api/v1/feeds", "{\"calendar\": %d, \"label\": \"x\"}".formatted(own)).expect(201);
    JsonNode office = of(hana, own);
    assertThat(office.get("readers").toString()).contains("Ines Okafor").contains("FEED");
    assertThat(office.get("rules")).isNotEmpty();
    Api ines = Api.of(server, "ines");
    assertThat(of(ines, own).get("readers")).isEqualTo(office.get("readers"));
    assertThat(of(ines, own).has("rules")).isFalse();
    long due = hana.idOf("calendars", "Due times");
    assertThat(of(hana, due).get("readers")).isNotEmpty();
    assertThat(of(ines, due).get("readers")).isEmpty();
    long tams = hana.idOf("calendars", "Tam Birtles, own");
    assertThat(ines.get(WEEK).json().valueStream().map(one -> one.get("calendar").asLong()))
        .doesNotContain(tams);
    assertThat(of(hana, tams).get("entries").asLong()).isPositive();
  }

  private static JsonNode of(Api asker, long calendar) {
    return asker
        .get(WEEK)
        .expect(200)
        .json()
        .valueStream()
        .filter(one -> one.get("calendar").asLong() == calendar)
        .findFirst()
        .orElseThrow();
  }
}
