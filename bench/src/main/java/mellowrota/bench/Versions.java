package mellowrota.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Two versions side by side: the same questions to both, by turns, and the medians of each with the
 * ratio of the first to the second.
 */
public final class Versions {

  private static final JsonMapper JSON = JsonMapper.shared();
  private static final int CLIENTS = 8;
  private static final int SAVES = 400;
  private static final int WARMING = 3000;
  private static final int ROUNDS = 7;
  private static final String SYNC =
      "<sync-collection xmlns='DAV:'><sync-token/><sync-level>1</sync-level><prop><getetag/></prop>"
          + "</sync-collection>";

  private final List<DemoClient> clients = new ArrayList<>();
  private final List<Long> people = new ArrayList<>();
  private final String master;
  private final Map<String, List<Double>> measured = new TreeMap<>();
  private int made;

  private Versions(String server) throws Exception {
    for (int i = 0; i < CLIENTS; i++) {
      clients.add(new DemoClient(server));
    }
    for (JsonNode person : JSON.readTree(clients.get(0).send("GET", "/api/v1/people", null))) {
      if (person.get("standing").asString().equals("HOUSE")) {
        people.add(person.get("id").asLong());
      }
    }
    Matcher found =
        Pattern.compile("<d:href>(/dav/calendars/\\d+/)</d:href>(?:(?!</d:response>).)*Master")
            .matcher(clients.get(0).dav("PROPFIND", "/dav/calendars/", "", "1"));
    String href = "";
    while (found.find()) {
      href = found.group(1);
    }
    master = href;
  }

  public static void main(String[] arguments) throws Exception {
    List<Versions> both = List.of(new Versions(arguments[0]), new Versions(arguments[1]));
    for (Versions one : both) {
      one.saves(WARMING);
      one.round();
      one.measured.clear();
    }
    for (int i = 0; i < ROUNDS; i++) {
      for (Versions one : i % 2 == 0 ? both : List.of(both.get(1), both.get(0))) {
        one.round();
      }
      System.out.printf("after round %d of %d%n", i + 1, ROUNDS);
      tell(both);
    }
  }

  private static void tell(List<Versions> both) {
    both.get(0)
        .measured
        .forEach(
            (what, times) -> {
              double mine = median(times);
              double theirs = median(both.get(1).measured.get(what));
              System.out.printf(
                  Locale.ROOT,
                  "%-40s %8.1f ms, other %8.1f ms, ratio %.2f%n",
                  what,
                  mine,
                  theirs,
                  mine / theirs);
            });
  }

  private static double median(List<Double> all) {
    return all.stream().sorted().skip(all.size() / 2).findFirst().orElseThrow();
  }

  private void round() throws Exception {
    double[] saves = saves(SAVES);
    keep("save of a ticket, 8 clients, p50", saves[saves.length / 2]);
    keep("save of a ticket, 8 clients, p95", saves[(int) (saves.length * 0.95)]);
    read("list of 100 records", "/api/v1/records?limit=100", 15);
    read("board of a week", "/api/v1/board?from=2026-11-30&until=2026-12-07", 9);
    read("cover of a week", "/api/v1/cover?from=2026-11-30&until=2026-12-07", 7);
    read("My day of a coordinator", "/api/v1/today", 7);
    String told = timed("sync of the master calendar", () -> dav(SYNC));
    StringBuilder asked =
        new StringBuilder(
            "<c:calendar-multiget xmlns='DAV:' xmlns:c='urn:ietf:params:xml:ns:caldav'><prop>"
                + "<getetag/><c:calendar-data/></prop>");
    Matcher found = Pattern.compile("<d:href>([^<]*\\.ics)</d:href>").matcher(told);
    for (int i = 0; i < 1000 && found.find(); i++) {
      asked.append("<href>").append(found.group(1)).append("</href>");
    }
    timed("multiget of 1000", () -> dav(asked + "</c:calendar-multiget>"));
  }

  private String dav(String body) {
    try {
      return clients.get(0).dav("REPORT", master, body, "1");
    } catch (Exception failure) {
      throw new IllegalStateException(failure);
    }
  }

  private void read(String what, String path, int times) throws Exception {
    double[] all = new double[times];
    for (int i = 0; i < times; i++) {
      long from = System.nanoTime();
      clients.get(0).send("GET", path, null);
      all[i] = (System.nanoTime() - from) / 1e6;
    }
    Arrays.sort(all);
    keep(what + ", p50", all[times / 2]);
  }

  private interface Asking {
    String answer();
  }

  private String timed(String what, Asking asking) {
    long from = System.nanoTime();
    String answer = asking.answer();
    keep(what, (System.nanoTime() - from) / 1e6);
    return answer;
  }

  private void keep(String what, double millis) {
    measured.computeIfAbsent(what, key -> new ArrayList<>()).add(millis);
  }

  private double[] saves(int count) throws Exception {
    ExecutorService threads = Executors.newFixedThreadPool(CLIENTS);
    List<CompletableFuture<double[]>> all = new ArrayList<>();
    int from = made;
    made += count;
    for (int c = 0; c < CLIENTS; c++) {
      int no = c;
      all.add(CompletableFuture.supplyAsync(() -> saves(no, from, count / CLIENTS), threads));
    }
    List<double[]> lists = new ArrayList<>();
    for (CompletableFuture<double[]> one : all) {
      lists.add(one.get());
    }
    threads.shutdown();
    return lists.stream().flatMapToDouble(Arrays::stream).sorted().toArray();
  }

  private double[] saves(int client, int from, int count) {
    double[] times = new double[count];
    for (int i = 0; i < count; i++) {
      int no = from + client * count + i;
      String body =
          "{\"title\": \"Side by side %d\", \"due\": {\"at\": \"2027-%02d-%02dT10:00\"}, \"people\": [{\"role\": 0, \"person\": %d}]}"
              .formatted(no, 1 + no / 28 % 12, 1 + no % 28, people.get(no % people.size()));
      long begun = System.nanoTime();
      try {
        clients.get(client).post("/api/v1/records", body);
      } catch (Exception failure) {
        throw new IllegalStateException(failure);
      }
      times[i] = (System.nanoTime() - begun) / 1e6;
    }
    return times;
  }
}
