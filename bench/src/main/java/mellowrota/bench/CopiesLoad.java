package mellowrota.bench;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.LongStream;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import mellowrota.standin.Faults;
import mellowrota.standin.StandIn;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Copies a second at a host that takes its time and at one that does not, against a bare loop of
 * the same requests over as many connections; how soon a change is tried; and what saves take
 * beside ten thousand waiting copies, in turns with a server that has none. Arguments: the server's
 * address, the host's port, and the address of another server that was begun alike.
 */
public final class CopiesLoad {

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final int LINKS = 20;

  private static final double MOST_SECONDS = 25;

  private static final int DEAD = 5;
  private static final int TICKETS = 500;
  private static final int ATTEMPTS = 60;
  private static final int SAVES = 800;

  private static final String PASSWORD = "bench-pass";

  /** Lands on the calendar that all links write to. */
  private static final String TICKET =
      """
      {"title": "%s", "due": {"at": "2027-03-01T10:00"}, "people": [{"role": 0, "person": %d}]}
      """;

  private static final String WORK =
      """
      {"kind": "JOB", "title": "%s", "state": "CONFIRMED", "people": [{"role": 0, "person": %d}],
       "visits": [{"start": "2027-03-01T10:00", "end": "2027-03-01T12:00"}]}
      """;

  private final DemoClient coordinator;
  private final DemoClient other;
  private final StandIn host;
  private final long calendar;
  private final long own;
  private final long lead;

  private CopiesLoad(String server, int port, String otherServer) throws Exception {
    coordinator = new DemoClient(server);
    other = new DemoClient(otherServer);
    host = StandIn.start(port);
    long somebody = 0;
    for (JsonNode one : JSON.readTree(coordinator.send("GET", "/api/v1/people", null))) {
      somebody =
          one.get("name").asString().equals("Ines Okafor") ? one.get("id").asLong() : somebody;
    }
    lead = somebody;
    Map<String, Long> calendars = new HashMap<>();
    for (JsonNode one : JSON.readTree(coordinator.send("GET", "/api/v1/calendars", null))) {
      calendars.put(one.get("name").asString(), one.get("id").asLong());
    }
    calendar = calendars.get("Due times");
    own = calendars.get("Ines Okafor, own");
  }

  public static void main(String[] arguments) throws Exception {
    CopiesLoad load = new CopiesLoad(arguments[0], Integer.parseInt(arguments[1]), arguments[2]);
    for (int i = 0; i < TICKETS; i++) {
      load.save(load.coordinator, "Waits " + i);
      load.save(load.other, "Waits " + i);
    }
    List<Account> linked = List.of();
    for (long delay : new long[] {50, 0}) {
      double bare = load.bare(delay);
      load.end(linked);
      linked = load.link(delay);
      double copies = load.copies(linked);
      System.out.printf(
          "%d ms an answer, %d links: %.0f copies/s, a bare loop %.0f/s, %.0f %%%n",
          delay, LINKS, copies, bare, 100 * copies / bare);
    }
    load.settle("{\"copiesWait\": 0}");
    load.firstAttempts(linked, 0);
    load.firstAttempts(linked, DEAD);
    load.saves(linked);
    System.exit(0);
  }

  private void settle(String body) throws Exception {
    coordinator.send("PATCH", "/api/v1/house", body);
  }

  private void save(DemoClient client, String title) throws Exception {
    client.post("/api/v1/records", TICKET.formatted(title, lead));
  }

  private void end(List<Account> accounts) throws Exception {
    if (accounts.isEmpty()) {
      return;
    }
    for (JsonNode one : JSON.readTree(coordinator.send("GET", "/api/v1/links", null))) {
      boolean ours =
          accounts.stream().anyMatch(a -> a.name().equals(one.get("account").asString()));
      if (ours) {
        coordinator.send("POST", "/api/v1/links/" + one.get("id").asLong() + "/stop", "{}");
      }
    }
  }

  private Account account(String name, long delay) {
    Account account = host.account(name, PASSWORD);
    account.make("work", "Work");
    account.faults().delayMillis(delay);
    return account;
  }

  /** Links whose copies wait until they are told to go. */
  private List<Account> link(long delay) throws Exception {
    settle("{\"copiesWait\": 300}");
    List<Account> accounts = new ArrayList<>();
    for (int i = 0; i < LINKS; i++) {
      Account account = account("d" + delay + "n" + i, 0);
      accounts.add(account);
      link(account, calendar);
      account.faults().delayMillis(delay);
    }
    while (opens().filter(open -> open >= TICKETS).count() < LINKS) {
      LockSupport.parkNanos(50_000_000);
    }
    return accounts;
  }

  private void link(Account account, long writes) throws Exception {
    coordinator.send(
        "POST",
        "/api/v1/links",
        """
        {"address": "%s", "user": "%s", "password": "%s", "ofTheHouse": true, "calendars": [
          {"href": "%sdav/%s/work/", "writes": %d, "from": "2020-01-01"}]}
        """
            .formatted(host.url(), account.name(), PASSWORD, host.url(), account.name(), writes));
  }

  /** How many copies are still to go, over all links that are not stopped. */
  private long open() throws Exception {
    return opens().sum();
  }

  private LongStream opens() throws Exception {
    LongStream.Builder found = LongStream.builder();
    for (JsonNode one : JSON.readTree(coordinator.send("GET", "/api/v1/links", null))) {
      for (JsonNode calendars : one.get("calendars")) {
        boolean counts = one.get("mine").asBoolean() && !one.get("stopped").asBoolean();
        found.add(counts ? calendars.get("open").asLong() : 0);
      }
    }
    return found.build();
  }

  /** While all links have something to send; what is after is not counted. */
  private double copies(List<Account> accounts) throws Exception {
    coordinator.send("POST", "/api/v1/copies/send-now", "{}");
    long from = System.nanoTime();
    long before = writes(accounts);
    double rate = 0;
    double seconds = 0;
    while (seconds < MOST_SECONDS
        && accounts.stream().allMatch(one -> work(one).writes() < TICKETS)) {
      LockSupport.parkNanos(20_000_000);
      seconds = (System.nanoTime() - from) / 1e9;
      rate = (writes(accounts) - before) / seconds;
    }
    if (rate == 0) {
      throw new IllegalStateException(
          "all was sent before it could be measured; give it more work");
    }
    return rate;
  }

  /** From a save's answer, with no wait, until its copy is asked for at each link that lives. */
  private void firstAttempts(List<Account> accounts, int dead) throws Exception {
    while (open() > 0) {
      coordinator.send("POST", "/api/v1/copies/send-now", "{}");
      LockSupport.parkNanos(200_000_000);
    }
    for (int i = 0; i < dead; i++) {
      accounts.get(i).faults().set(Faults.Mode.DEAD, true);
    }
    List<Account> living = accounts.subList(dead, accounts.size());
    List<Double> waits = new ArrayList<>();
    for (int i = 0; i < ATTEMPTS; i++) {
      Map<Account, Long> before = new HashMap<>();
      living.forEach(one -> before.put(one, work(one).writes()));
      save(coordinator, "At once " + dead + " " + i);
      long from = System.nanoTime();
      while (!before.isEmpty()) {
        before
            .entrySet()
            .removeIf(
                one ->
                    work(one.getKey()).writes() > one.getValue()
                        && waits.add((System.nanoTime() - from) / 1e6));
        LockSupport.parkNanos(2_000_000);
      }
    }
    waits.sort(null);
    System.out.printf(
        "from due to the first attempt, %d of %d links dead: p50 %.0f ms, p99 %.0f ms (%d)%n",
        dead,
        LINKS,
        waits.get(waits.size() / 2),
        waits.get((int) (waits.size() * 0.99)),
        waits.size());
  }

  /**
   * Saves in turns here, with copies that wait, and at the other server, which has none: of work
   * that is copied to its lead's calendar, and of tickets that are copied over all links.
   */
  private void saves(List<Account> accounts) throws Exception {
    settle("{\"copiesWait\": 300}");
    accounts.forEach(one -> one.faults().set(Faults.Mode.DEAD, false));
    link(account("lead", 0), own);
    for (int i = 0; i < TICKETS; i++) {
      save(coordinator, "More " + i);
      save(other, "More " + i);
    }
    while (opens().filter(open -> open >= TICKETS).count() < LINKS) {
      LockSupport.parkNanos(200_000_000);
    }
    saves("a save of work that is copied once", WORK);
    saves("a save of a ticket that is copied " + LINKS + " times", TICKET);
  }

  private void saves(String what, String body) throws Exception {
    double[] here = new double[SAVES];
    double[] there = new double[SAVES];
    for (int i = 0; i < SAVES; i++) {
      here[i] = timed(coordinator, body);
      there[i] = timed(other, body);
    }
    double with = p95(here);
    double without = p95(there);
    System.out.printf(
        "%s, beside %d waiting copies: p95 %.1f ms, without %.1f ms, %.2f times%n",
        what, open(), with, without, with / without);
  }

  private double timed(DemoClient client, String body) throws Exception {
    long from = System.nanoTime();
    client.post("/api/v1/records", body.formatted("Beside", lead));
    return (System.nanoTime() - from) / 1e6;
  }

  /** Of the later half, when all is warm. */
  private static double p95(double[] times) {
    double[] late = Arrays.copyOfRange(times, times.length / 2, times.length);
    Arrays.sort(late);
    return late[(int) (late.length * 0.95)];
  }

  private static Collection work(Account account) {
    return account.collection("work").orElseThrow();
  }

  private static long writes(List<Account> accounts) {
    return accounts.stream().mapToLong(one -> work(one).writes()).sum();
  }

  /** The same requests: a PUT on condition and a GET, one connection a link. */
  private double bare(long delay) throws Exception {
    ExecutorService threads = Executors.newFixedThreadPool(LINKS);
    int each = delay > 0 ? 100 : 500;
    long from = System.nanoTime();
    List<CompletableFuture<Void>> all = new ArrayList<>();
    for (int i = 0; i < LINKS; i++) {
      Account account = account("bare" + delay + "n" + i, delay);
      all.add(CompletableFuture.runAsync(() -> loop(account, each), threads));
    }
    for (CompletableFuture<Void> one : all) {
      one.get();
    }
    threads.shutdown();
    return LINKS * each * 1e9 / (System.nanoTime() - from);
  }

  private void loop(Account account, int times) {
    HttpClient client = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();
    String both = account.name() + ":" + PASSWORD;
    String basic = "Basic " + Base64.getEncoder().encodeToString(both.getBytes());
    try {
      for (int i = 0; i < times; i++) {
        URI address = URI.create(host.url() + "dav/" + account.name() + "/work/" + i + ".ics");
        String text =
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:bench\r\nBEGIN:VEVENT\r\nUID:"
                + i
                + "\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:20260101T000000Z\r\n"
                + "DESCRIPTION:"
                + "x".repeat(700)
                + "\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        HttpRequest put =
            HttpRequest.newBuilder(address)
                .header("Authorization", basic)
                .header("If-None-Match", "*")
                .PUT(HttpRequest.BodyPublishers.ofString(text))
                .build();
        HttpRequest get = HttpRequest.newBuilder(address).header("Authorization", basic).build();
        if (client.send(put, HttpResponse.BodyHandlers.discarding()).statusCode() != 201
            || client.send(get, HttpResponse.BodyHandlers.ofString()).statusCode() != 200) {
          throw new IllegalStateException("the host did not do as it was asked");
        }
      }
    } catch (IOException | InterruptedException failure) {
      throw new IllegalStateException(failure);
    }
  }
}
