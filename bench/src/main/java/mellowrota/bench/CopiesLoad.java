package mellowrota.bench;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.locks.LockSupport;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import mellowrota.standin.StandIn;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Copies a second at a host that takes its time and at one that does not, against a bare loop of
 * the same requests over as many connections. Arguments: the server's address and the host's port.
 */
public final class CopiesLoad {

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final int LINKS = 20;
  private static final String PASSWORD = "bench-pass";

  private final DemoClient coordinator;
  private final StandIn host;
  private final long calendar;

  private CopiesLoad(String server, int port) throws Exception {
    coordinator = new DemoClient(server);
    host = StandIn.start(port);
    long found = 0;
    for (JsonNode one : JSON.readTree(coordinator.send("GET", "/api/v1/calendars", null))) {
      found = one.get("name").asString().equals("Due times") ? one.get("id").asLong() : found;
    }
    calendar = found;
  }

  public static void main(String[] arguments) throws Exception {
    CopiesLoad load = new CopiesLoad(arguments[0], Integer.parseInt(arguments[1]));
    for (long delay : new long[] {50, 0}) {
      double bare = load.bare(delay);
      double copies = load.copies(delay);
      System.out.printf(
          "%d ms an answer, %d links: %.0f copies/s, a bare loop %.0f/s, %.0f %%%n",
          delay, LINKS, copies, bare, 100 * copies / bare);
    }
    System.exit(0);
  }

  private Account account(String name, long delay) {
    Account account = host.account(name, PASSWORD);
    account.make("work", "Work");
    account.faults().delayMillis(delay);
    return account;
  }

  /** While all links have something to send; what is before and after is not counted. */
  private double copies(long delay) throws Exception {
    List<Account> accounts = new ArrayList<>();
    for (int i = 0; i < LINKS; i++) {
      Account account = account("d" + delay + "n" + i, 0);
      accounts.add(account);
      coordinator.send(
          "POST",
          "/api/v1/links",
          """
          {"address": "%s", "user": "%s", "password": "%s", "ofTheHouse": true, "calendars": [
            {"href": "%sdav/%s/work/", "writes": %d, "from": "2020-01-01"}]}
          """
              .formatted(
                  host.url(), account.name(), PASSWORD, host.url(), account.name(), calendar));
      account.faults().delayMillis(delay);
    }
    for (Account one : accounts) {
      while (work(one).objects().isEmpty()) {
        LockSupport.parkNanos(5_000_000);
      }
    }
    long from = System.nanoTime();
    long before = writes(accounts);
    long most = entries();
    double rate = 0;
    // Until the first link has nothing left to send.
    while (accounts.stream().allMatch(one -> work(one).writes() < most)) {
      LockSupport.parkNanos(20_000_000);
      rate = (writes(accounts) - before) * 1e9 / (System.nanoTime() - from);
    }
    if (rate == 0) {
      throw new IllegalStateException(
          "all was sent before it could be measured; give it more work");
    }
    return rate;
  }

  /** How many entries each link has to send, less a few that may be on their way. */
  private long entries() throws Exception {
    String ics = coordinator.send("GET", "/api/v1/calendars/" + calendar + ".ics", null);
    return ics.split("BEGIN:VEVENT", -1).length - 1 - 5;
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
    int each = delay > 0 ? 60 : 300;
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
