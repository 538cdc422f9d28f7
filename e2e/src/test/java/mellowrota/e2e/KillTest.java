package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * Eight clients change things while the server is killed and begun again. Truth is what the clients
 * wrote down: what was answered is there with its entries, what was not is whole or absent. {@code
 * -Dkilled=1000} has as many changes.
 */
public class KillTest {

  private static final int CLIENTS = 8;
  private static final int CHANGES = Integer.getInteger("killed", 240);
  private static final int KILLS = Math.max(2, CHANGES / 200);
  private static final List<String> LEADS =
      List.of("Ines Okafor", "Tam Birtles", "Wren Adeyemi", "Nell Ashdown", "Caio Merrin");

  /** Two share the work unless a count is asked for, which runs with one as well. */
  @DataProvider
  Object[][] processes() {
    return System.getProperty("killed") == null
        ? new Object[][] {{2, 7002L}}
        : new Object[][] {{1, 7001L}, {2, 7002L}};
  }

  /** What one client sent, and the answer if one came. */
  private record Sent(String key, String title, String due, boolean answered) {}

  @Test(dataProvider = "processes")
  public void nothingAnsweredIsLostAndNothingIsHalf(int processes, long seed) {
    Database database = Database.demo();
    List<Server> servers = new ArrayList<>();
    for (int i = 0; i < processes; i++) {
      servers.add(Server.started(database));
    }
    try {
      run(database, servers, seed);
    } finally {
      servers.forEach(Server::close);
    }
  }

  private void run(Database database, List<Server> servers, long seed) {
    Api hana = Api.of(servers.get(0), "hana");
    List<Long> leads = LEADS.stream().map(name -> hana.idOf("people", name)).toList();
    Calendars calendars = new Calendars(hana);
    String master = calendars.href("Master");
    Calendars.Synced before = calendars.sync(master, "");
    Map<String, Sent> log = new ConcurrentHashMap<>();
    AtomicInteger answered = new AtomicInteger();
    ExecutorService threads = Executors.newFixedThreadPool(CLIENTS);
    List<CompletableFuture<Void>> all = new ArrayList<>();
    for (int client = 0; client < CLIENTS; client++) {
      Api api = Api.of(servers.get(client % servers.size()), "hana");
      Server server = servers.get(client % servers.size());
      int no = client;
      all.add(
          CompletableFuture.runAsync(
              () -> client(api, server, no, new SplittableRandom(seed + no), leads, log, answered),
              threads));
    }
    for (int kill = 1; kill <= KILLS; kill++) {
      int until = CHANGES * kill / (KILLS + 2);
      Await.until(
          until + " changes are answered",
          java.time.Duration.ofSeconds(120),
          () -> answered.get() >= until || all.stream().anyMatch(CompletableFuture::isDone));
      Server victim = servers.get(kill % servers.size());
      victim.kill();
      victim.begin();
      victim.ready();
    }
    all.forEach(CompletableFuture::join);
    threads.shutdown();
    judge(database, servers.get(0), log, master, before);
  }

  private static void client(
      Api api,
      Server server,
      int no,
      SplittableRandom random,
      List<Long> leads,
      Map<String, Sent> log,
      AtomicInteger answered) {
    long mine = 0;
    for (int i = 0; i < CHANGES / CLIENTS; i++) {
      String key = "client-" + no + "-" + i;
      String title = "Kill " + no + " " + i;
      String due = "2026-12-%02dT%02d:00".formatted(1 + random.nextInt(28), random.nextInt(24));
      long lead = leads.get(random.nextInt(leads.size()));
      String body =
          "{\"title\": \"%s\", \"due\": {\"at\": \"%s\"}, \"people\": [{\"role\": 0, \"person\": %d}]}"
              .formatted(title, due, lead);
      try {
        Api.Answer answer =
            mine == 0 || i % 4 == 0
                ? api.post("/api/v1/records", body, "Idempotency-Key", key)
                : api.patch(
                    "/api/v1/records/" + mine, body, "Idempotency-Key", key, "If-Match", "*");
        if (answer.status() >= 300) {
          throw new AssertionError(key + ": " + answer.status() + " " + answer.text());
        }
        JsonNode record = answer.json().get("record");
        mine = record.get("id").asLong();
        log.put(key, new Sent(key, title, due, true));
        answered.incrementAndGet();
      } catch (UncheckedIOException lost) {
        log.put(key, new Sent(key, title, due, false));
        // Whether it was done is not known; this client goes on with a record of its own.
        mine = 0;
        server.answersAgain();
      }
    }
  }

  private static void judge(
      Database database,
      Server server,
      Map<String, Sent> log,
      String master,
      Calendars.Synced before) {
    assertThat(log).hasSize(CHANGES);
    Map<String, String> acts = new TreeMap<>();
    database
        .query("select idem_key || '=' || id from act where idem_key like 'client-%'")
        .forEach(row -> acts.put(row.split("=")[0], row.split("=")[1]));
    List<String> lost =
        log.values().stream()
            .filter(sent -> sent.answered() && !acts.containsKey(sent.key()))
            .map(Sent::key)
            .toList();
    assertThat(lost).as("answered and not there").isEmpty();
    assertThat(log.keySet()).containsAll(acts.keySet());
    assertThat(log.values().stream().filter(sent -> !sent.answered()).count())
        .as("the kills struck while something was under way")
        .isPositive();
    assertThat(
            database.query(
                """
                select a.idem_key from act a where a.idem_key like 'client-%'
                and not exists (select 1 from history h where h.act = a.id)
                """))
        .as("acts without their history")
        .isEmpty();
    assertThat(
            database.query(
                """
                select record::text from entry where state = 'LIVE'
                group by record, visit, calendar, family having count(*) > 1
                """))
        .as("doubled entries")
        .isEmpty();
    assertThat(
            database.query(
                """
                select r.ref || ' ' || count(e.id) from record r
                join detail d on d.record = r.id and d.key = 'title' and d.value like 'Kill %'
                left join entry e on e.record = r.id and e.state = 'LIVE'
                  and exists (select 1 from face f where f.entry = e.id and f.live)
                group by r.ref having count(e.id) <> 4
                """))
        .as("records without their four entries, each with a face")
        .isEmpty();
    wholeInTheLastState(database, log);
    oldTokensWork(server, master, before);
  }

  /** Each record stands as its last act that is there said, also on the date list. */
  private static void wholeInTheLastState(Database database, Map<String, Sent> log) {
    List<String> states =
        database.query(
            """
            select a.idem_key || '|' || d.value || '|' || to_char(r.due_local, 'YYYY-MM-DD"T"HH24:MI')
              || '|' || (e.ends = r.due_at)
            from record r
            join detail d on d.record = r.id and d.key = 'title' and d.value like 'Kill %'
            join act a on a.id = (select max(h.act) from history h where h.record = r.id)
            join entry e on e.record = r.id and e.family = 'DUE'
            """);
    assertThat(states).isNotEmpty();
    for (String row : states) {
      String[] parts = row.split("\\|");
      Sent sent = log.get(parts[0]);
      assertThat(parts[1]).isEqualTo(sent.title());
      assertThat(parts[2]).isEqualTo(sent.due());
      assertThat(parts[3]).as("the entry's end is the due time of " + row).isEqualTo("true");
    }
  }

  private static void oldTokensWork(Server server, String master, Calendars.Synced before) {
    Calendars calendars = new Calendars(Api.of(server, "hana"));
    Map<String, String> followed = new TreeMap<>(before.live());
    Calendars.Synced since = calendars.sync(master, before.token());
    since.gone().forEach(followed::remove);
    followed.putAll(since.live());
    assertThat(followed).isEqualTo(new TreeMap<>(calendars.sync(master, "").live()));
  }
}
