package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The made-up house is well but for what is told of it, on whichever weekday it begins. */
public class DemoTest {

  private static final LocalDate FIRST = LocalDate.parse(Demo.NOW.substring(0, 10));

  @DataProvider
  Object[] days() {
    Object[] days = new Object[Integer.getInteger("weekdays", 1)];
    for (int i = 0; i < days.length; i++) {
      days[i] = FIRST.plusDays(i);
    }
    return days;
  }

  private static String text(JsonNode of, String field) {
    return of.get(field).asString();
  }

  /** What each is, and how many days after the first it begins. */
  private static List<String> days(LocalDate day, JsonNode all, String field) {
    List<String> found = new ArrayList<>();
    for (JsonNode one : all) {
      LocalDate begins = LocalDate.parse(text(one, "start").substring(0, 10));
      found.add(
          text(one, field)
              + " "
              + ChronoUnit.DAYS.between(day, begins)
              + (one.path("never").asBoolean() ? " (not allowed)" : ""));
    }
    return found;
  }

  @Test(dataProvider = "days")
  public void wellButForItsTroubles(LocalDate day) {
    try (Server server =
        day.equals(FIRST)
            ? Server.started(Database.demo())
            : Server.started(
                Database.empty(), "--mellow.demo=true", Server.NOW_IS + day + "T09:00:00Z")) {
      Api hana = Api.of(server, "hana");
      JsonNode cover =
          hana.get("/api/v1/cover?from=%s&until=%s".formatted(day, day.plusDays(21))).json();
      assertThat(days(day, cover.get("clashes"), "kind"))
          .containsExactlyInAnyOrder(
              "DOUBLE 0", "DOUBLE 1 (not allowed)", "SKILL 4 (not allowed)", "REST 9");
      assertThat(days(day, cover.get("pileUps"), "name")).contains("Pell Ombury 5");
      assertThat(cover.get("pileUps").size()).isLessThanOrEqualTo(2);
      Map<String, String> asks = new HashMap<>();
      cover.get("asks").forEach(one -> asks.put(text(one, "key"), text(one, "name")));
      assertThat(
              days(day, cover.get("gaps"), "ask").stream()
                  .map(one -> asks.get(one.split(" ")[0]) + one.substring(one.indexOf(' '))))
          .containsExactlyInAnyOrder(
              "Swing bridge 1",
              "Fell leaning alders 1",
              "Flood watch 2",
              "Flight keeper 4",
              "Flood watch 4");
      // What comes after is a draft, and is not asked for yet.
      JsonNode later =
          hana.get("/api/v1/cover?from=%s&until=%s".formatted(day.plusDays(21), day.plusDays(100)))
              .json();
      assertThat(later.get("gaps").size()).isZero();
      assertThat(later.get("clashes").size()).isZero();
    }
  }
}
