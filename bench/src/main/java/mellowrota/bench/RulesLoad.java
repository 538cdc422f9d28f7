package mellowrota.bench;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicBoolean;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * One rule edited in a large house: the look's first count and its last, the act from its beginning
 * to the last record, and saves by others meanwhile. Arguments: the server's address, and {@code
 * rules-off}, {@code rules-on} or {@code edit}.
 */
public final class RulesLoad {

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final int OTHERS = 4;

  private final DemoClient coordinator;
  private final String server;

  private RulesLoad(String server) throws Exception {
    this.server = server;
    coordinator = new DemoClient(server);
  }

  public static void main(String[] arguments) throws Exception {
    RulesLoad load = new RulesLoad(arguments[0]);
    switch (arguments[1]) {
      case "rules-off" -> load.turn(false);
      case "rules-on" -> load.turn(true);
      default -> load.edit();
    }
  }

  private ObjectNode set() throws Exception {
    ObjectNode set = (ObjectNode) JSON.readTree(coordinator.send("GET", "/api/v1/rules", null));
    set.remove("counts");
    return set;
  }

  private void turn(boolean on) throws Exception {
    ObjectNode set = set();
    for (JsonNode rule : set.get("rules")) {
      ((ObjectNode) rule).put("on", on);
    }
    long from = System.nanoTime();
    take(set, look(set, false));
    if (on) {
      System.out.printf("all rules put in force: %.1f s%n", seconds(from));
    }
  }

  private void edit() throws Exception {
    ObjectNode set = set();
    for (JsonNode wording : set.get("wordings")) {
      if (wording.get("name").asString().equals("Due")) {
        ((ObjectNode) wording).put("title", "{title} " + System.nanoTime() % 100);
      }
    }
    JsonNode looked = look(set, true);
    AtomicBoolean done = new AtomicBoolean();
    List<CompletableFuture<List<Double>>> others = new ArrayList<>();
    for (int i = 0; i < OTHERS; i++) {
      DemoClient other = new DemoClient(server);
      int number = i;
      others.add(CompletableFuture.supplyAsync(() -> saves(other, number, done)));
    }
    long from = System.nanoTime();
    long entries = take(set, looked);
    double act = seconds(from);
    done.set(true);
    List<Double> times = new ArrayList<>();
    for (CompletableFuture<List<Double>> one : others) {
      times.addAll(one.get());
    }
    Collections.sort(times);
    System.out.printf(
        "the act: %d entries in %.1f s; %d saves by %d others meanwhile: p50 %.0f ms, p95 %.0f ms%n",
        entries,
        act,
        times.size(),
        OTHERS,
        times.get(times.size() / 2),
        times.get((int) (times.size() * 0.95)));
  }

  /** Four others, each a save and a pause of as long as a person's click. */
  private static List<Double> saves(DemoClient client, int number, AtomicBoolean done) {
    List<Double> times = new ArrayList<>();
    try {
      for (int i = 0; !done.get(); i++) {
        long from = System.nanoTime();
        client.post(
            "/api/v1/records",
            "{\"title\": \"Meanwhile %d %d\", \"due\": {\"at\": \"2026-12-05T10:00\"}}"
                .formatted(number, i));
        times.add((System.nanoTime() - from) / 1e6);
        Thread.sleep(150);
      }
    } catch (Exception failure) {
      throw new IllegalStateException(failure);
    }
    return times;
  }

  private JsonNode look(ObjectNode set, boolean tells) throws Exception {
    long from = System.nanoTime();
    JsonNode told = JSON.readTree(coordinator.send("POST", "/api/v1/rules/look", set.toString()));
    double first = seconds(from);
    long counted = told.get("records").asLong();
    while (!told.get("finished").asBoolean()) {
      Thread.sleep(50);
      String path = "/api/v1/rules/looks/" + told.get("looked").asString();
      told = JSON.readTree(coordinator.send("GET", path, null));
    }
    if (tells) {
      System.out.printf(
          "the look at %d records: first count (%d) after %.2f s, the exact one after %.2f s%n",
          told.get("total").asLong(), counted, first, seconds(from));
    }
    return told;
  }

  private long take(ObjectNode set, JsonNode looked) throws Exception {
    set.put("looked", looked.get("looked").asString());
    JsonNode taken = JSON.readTree(coordinator.send("POST", "/api/v1/rules/take", set.toString()));
    long entries = taken.get("entries").asLong();
    JsonNode work = JSON.readTree(coordinator.send("GET", "/api/v1/rules/work", null));
    while (!work.isEmpty()) {
      entries = work.get(0).get("entries").asLong();
      Thread.sleep(100);
      work = JSON.readTree(coordinator.send("GET", "/api/v1/rules/work", null));
    }
    return entries;
  }

  private static double seconds(long from) {
    return (System.nanoTime() - from) / 1e9;
  }
}
