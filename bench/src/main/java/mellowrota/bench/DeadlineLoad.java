package mellowrota.bench;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * 300 sets of 20 deadlines: made, listed, looked at and moved by one table of key dates, then one
 * of them alone. Its argument: the server's address.
 */
public final class DeadlineLoad {

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final int SETS = 300;
  private static final int STEPS = 20;
  private static final int TIMES = 20;
  private static final LocalDate FIRST = LocalDate.of(2028, 3, 6);

  private final DemoClient coordinator;

  private DeadlineLoad(String server) throws Exception {
    coordinator = new DemoClient(server);
  }

  public static void main(String[] arguments) throws Exception {
    new DeadlineLoad(arguments[0]).run();
  }

  private void run() throws Exception {
    StringBuilder text = new StringBuilder("chain: load\nkey date: zero\n");
    for (int i = 1; i <= STEPS; i++) {
      text.append(i).append(" working days before zero: step ").append(i);
      text.append("; for Thornmere crew as Support; for Ines Okafor as Lead\n");
    }
    long chain =
        JSON.readTree(
                coordinator.send(
                    "POST",
                    "/api/v1/chains",
                    "{\"text\": " + JSON.writeValueAsString(text.toString()) + "}"))
            .get("id")
            .asLong();
    List<String> makings = new ArrayList<>();
    for (int i = 0; i < SETS; i++) {
      makings.add(
          "{\"chain\": %d, \"keyDate\": {\"date\": \"%s\"}}".formatted(chain, FIRST.plusDays(i)));
    }
    JsonNode made = timed("made", "/api/v1/deadline-sets", makings);
    List<Long> sets = made.get("sets").valueStream().map(JsonNode::asLong).toList();
    long from = System.nanoTime();
    coordinator.send("GET", "/api/v1/deadline-sets?limit=200", null);
    System.out.printf(Locale.ROOT, "the first 200 listed: %.2f s%n", seconds(from));
    timed("looked at", "/api/v1/deadline-sets/move/look", moves(sets, 7));
    timed("moved", "/api/v1/deadline-sets/move", moves(sets, 7));
    timed("moved again", "/api/v1/deadline-sets/move", moves(sets, 14));
    List<Double> looks = new ArrayList<>();
    List<Double> alone = new ArrayList<>();
    for (int i = 0; i < TIMES; i++) {
      List<String> one = moves(sets.subList(0, 1), 20 + i);
      long begun = System.nanoTime();
      send("/api/v1/deadline-sets/move/look", one);
      looks.add(seconds(begun) * 1000);
      begun = System.nanoTime();
      send("/api/v1/deadline-sets/move", one);
      alone.add(seconds(begun) * 1000);
    }
    told("one set looked at", looks);
    told("one set moved", alone);
  }

  private static List<String> moves(List<Long> sets, int days) {
    List<String> found = new ArrayList<>();
    for (int i = 0; i < sets.size(); i++) {
      found.add(
          "{\"set\": %d, \"ifMatch\": \"*\", \"keyDate\": {\"date\": \"%s\"}}"
              .formatted(sets.get(i), FIRST.plusDays(i + days)));
    }
    return found;
  }

  private JsonNode send(String path, List<String> sets) throws Exception {
    String body = sets.stream().collect(Collectors.joining(", ", "{\"sets\": [", "]}"));
    return JSON.readTree(coordinator.send("POST", path, body));
  }

  private JsonNode timed(String what, String path, List<String> sets) throws Exception {
    long from = System.nanoTime();
    JsonNode answer = send(path, sets);
    System.out.printf(Locale.ROOT, "%d sets of %d %s: %.2f s%n", SETS, STEPS, what, seconds(from));
    return answer;
  }

  private static void told(String what, List<Double> all) {
    List<Double> sorted = all.stream().sorted().toList();
    System.out.printf(
        Locale.ROOT,
        "%s: p50 %.0f ms, p95 %.0f ms%n",
        what,
        sorted.get(sorted.size() / 2),
        sorted.get(sorted.size() * 95 / 100));
  }

  private static double seconds(long from) {
    return (System.nanoTime() - from) / 1e9;
  }
}
