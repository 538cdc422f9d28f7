package mellowrota.bench;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import tools.jackson.databind.json.JsonMapper;

/**
 * The board of 500 people over two weeks, 15 000 spans, against a running demo. Argument: the
 * server's address without a slash at the end.
 */
public final class BoardLoad {

  private static final int PEOPLE = 475;
  private static final int TEAMS = 30;
  private static final int DAYS = 14;
  private static final int AT_ONCE = 200;
  private static final int READINGS = 60;

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private BoardLoad() {}

  public static void main(String[] arguments) throws Exception {
    DemoClient hana = new DemoClient(arguments[0]);
    LocalDate monday = LocalDate.of(2027, 6, 7);
    int spans = lay(hana, monday);
    String path = "/api/v1/board?from=" + monday + "&until=" + monday.plusDays(DAYS);
    double first = timed(hana, path);
    for (int i = 0; i < READINGS / 2; i++) {
      timed(hana, path);
    }
    double[] times = new double[READINGS];
    for (int i = 0; i < READINGS; i++) {
      times[i] = timed(hana, path);
    }
    Arrays.sort(times);
    System.out.printf(
        "board of 500 people, %d spans: first %.0f ms, then p50 %.0f ms, p95 %.0f ms%n",
        spans, first, times[READINGS / 2], times[(int) (READINGS * 0.95)]);
  }

  private static double timed(DemoClient client, String path) throws Exception {
    long from = System.nanoTime();
    client.send("GET", path, null);
    return (System.nanoTime() - from) / 1e6;
  }

  private static int lay(DemoClient client, LocalDate monday) throws Exception {
    List<Long> teams = new ArrayList<>();
    for (int i = 0; i < TEAMS; i++) {
      teams.add(made(client, "/api/v1/teams", "{\"name\": \"Stretch crew %d\"}".formatted(i)));
    }
    List<String> items = new ArrayList<>();
    for (int i = 0; i < PEOPLE; i++) {
      long person = made(client, "/api/v1/people", "{\"name\": \"Worker %d\"}".formatted(i));
      client.send(
          "POST",
          "/api/v1/teams/" + teams.get(i % TEAMS) + "/members",
          "{\"person\": " + person + "}");
      for (int day = 0; day < DAYS; day++) {
        for (int k = 0; k < (day % 6 == 0 ? 3 : 2); k++) {
          items.add(span(person, monday.plusDays(day), 7 + 4 * k, 1 + (i + day) % 15));
        }
      }
    }
    for (int from = 0; from < items.size(); from += AT_ONCE) {
      List<String> some = items.subList(from, Math.min(items.size(), from + AT_ONCE));
      client.send(
          "POST", "/api/v1/records/several", "{\"items\": [" + String.join(",", some) + "]}");
    }
    return items.size();
  }

  private static long made(DemoClient client, String path, String body) throws Exception {
    return JSON.readTree(client.send("POST", path, body)).get("id").asLong();
  }

  private static String span(long person, LocalDate day, int hour, int place) {
    return """
        {"make": {"kind": "JOB", "state": "CONFIRMED", "title": "Span", "place": %d,
         "visits": [{"start": "%sT%02d:00", "end": "%sT%02d:30"}],
         "people": [{"role": 0, "person": %d}]}}
        """
        .formatted(place, day, hour, day, hour + 3, person);
  }
}
