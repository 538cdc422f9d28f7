package mellowrota.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Saves by eight clients, then a sync and a multiget of 10 000 entries, against a running demo. The
 * work is led by people whose calendars are copied nowhere: what copies cost is measured by
 * themselves ({@link CopiesLoad}). Argument: the server's address without a slash at the end.
 */
public final class ServedLoad {

  private static final int CLIENTS = 8;
  private static final int ENTRIES = 10_000;

  /** The server's hot paths are compiled for the last time somewhere in the second round. */
  private static final int ROUNDS = 3;

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final String server;

  private ServedLoad(String server) {
    this.server = server;
  }

  public static void main(String[] arguments) throws Exception {
    new ServedLoad(arguments[0]).run();
  }

  private void run() throws Exception {
    DemoClient first = new DemoClient(server);
    List<Long> people = new ArrayList<>();
    Set<Long> copied = new HashSet<>();
    for (JsonNode one : JSON.readTree(first.send("GET", "/api/v1/links/decided", null))) {
      if (!one.get("by").asString().equals("HELD")) {
        copied.add(one.get("person").asLong());
      }
    }
    for (JsonNode person : JSON.readTree(first.send("GET", "/api/v1/people", null))) {
      if (person.get("standing").asString().equals("HOUSE")
          && !copied.contains(person.get("id").asLong())) {
        people.add(person.get("id").asLong());
      }
    }
    for (int round = 1; round <= ROUNDS; round++) {
      double[] times = saves(people, ENTRIES, "round " + round + " by ");
      System.out.printf(
          "saves of a ticket with its entries, %d clients, %s ten thousand since the start: p50 %.1f ms, p95 %.1f ms, %.0f a second%n",
          CLIENTS,
          List.of("first", "second", "third").get(round - 1),
          times[times.length / 2],
          times[(int) (times.length * 0.95)],
          lastRate);
    }
    calendars(first);
  }

  private double lastRate;

  private double[] saves(List<Long> people, int count, String label) throws Exception {
    ExecutorService threads = Executors.newFixedThreadPool(CLIENTS);
    List<CompletableFuture<double[]>> all = new ArrayList<>();
    long from = System.nanoTime();
    for (int c = 0; c < CLIENTS; c++) {
      DemoClient client = new DemoClient(server);
      int no = c;
      all.add(
          CompletableFuture.supplyAsync(
              () -> save(client, people, count / CLIENTS, label + no), threads));
    }
    List<double[]> lists = new ArrayList<>();
    for (CompletableFuture<double[]> one : all) {
      lists.add(one.get());
    }
    lastRate = count / ((System.nanoTime() - from) / 1e9);
    threads.shutdown();
    return lists.stream().flatMapToDouble(Arrays::stream).sorted().toArray();
  }

  private void calendars(DemoClient client) throws Exception {
    String home = client.dav("PROPFIND", "/dav/calendars/", "", "1");
    Matcher master =
        Pattern.compile("<d:href>(/dav/calendars/\\d+/)</d:href>(?:(?!</d:response>).)*Master")
            .matcher(home);
    String href = "";
    while (master.find()) {
      href = master.group(1);
    }
    for (String round : List.of("first", "again")) {
      long from = System.nanoTime();
      String sync =
          client.dav(
              "REPORT",
              href,
              "<sync-collection xmlns='DAV:'><sync-token/><sync-level>1</sync-level><prop><getetag/></prop></sync-collection>",
              "1");
      List<String> hrefs = new ArrayList<>();
      Matcher found = Pattern.compile("<d:href>([^<]*\\.ics)</d:href>").matcher(sync);
      while (found.find() && hrefs.size() < ENTRIES) {
        hrefs.add(found.group(1));
      }
      double synced = (System.nanoTime() - from) / 1e6;
      from = System.nanoTime();
      StringBuilder body =
          new StringBuilder(
              "<c:calendar-multiget xmlns='DAV:' xmlns:c='urn:ietf:params:xml:ns:caldav'><prop><getetag/><c:calendar-data/></prop>");
      hrefs.forEach(one -> body.append("<href>").append(one).append("</href>"));
      String got = client.dav("REPORT", href, body + "</c:calendar-multiget>", "1");
      System.out.printf(
          "%s: sync-collection of %d entries %.0f ms, multiget of them %.0f ms (%d MB)%n",
          round, hrefs.size(), synced, (System.nanoTime() - from) / 1e6, got.length() >> 20);
    }
  }

  private static double[] save(DemoClient client, List<Long> people, int count, String label) {
    double[] times = new double[count];
    for (int i = 0; i < count; i++) {
      String body =
          "{\"title\": \"%s %d\", \"due\": {\"at\": \"2026-12-%02dT10:00\"}, \"people\": [{\"role\": 0, \"person\": %d}]}"
              .formatted(label, i, 1 + i % 28, people.get(i % people.size()));
      long from = System.nanoTime();
      try {
        client.post("/api/v1/records", body);
      } catch (Exception failure) {
        throw new IllegalStateException(failure);
      }
      times[i] = (System.nanoTime() - from) / 1e6;
    }
    return times;
  }
}
