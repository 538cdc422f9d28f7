package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import org.testng.annotations.Test;

/**
 * Eight committers whose commits are delayed, against a client that syncs all the while: it must
 * end with what a first sync tells. With numbers from a sequence it does not.
 */
public class OrderingTest {

  private static final int COMMITTERS = 8;
  private static final int CHANGES_EACH = 20;

  @Test
  public void aSyncingClientMissesNothing() {
    try (Server server = Server.started(slow())) {
      assertThat(missed(server)).isEmpty();
    }
  }

  @Test
  public void theControlGoesRed() {
    Database database = slow();
    database.execute("create sequence ordering_control start 100000");
    try (Server server =
        Server.started(database, "--spring.profiles.active=settable-clock,ordering-control")) {
      assertThat(missed(server)).as("what a client misses by a sequence's numbers").isNotEmpty();
    }
  }

  /**
   * Every commit takes a moment, another one each time; so does the way there from the number that
   * was taken, or acts would seldom overtake one another.
   */
  private static Database slow() {
    Database database = Database.demo();
    database.execute(
        """
        create function slow() returns trigger language plpgsql as
          'begin perform pg_sleep(random() * 0.04); return null; end'
        """);
    database.execute(
        """
        create constraint trigger slow after insert on act deferrable initially deferred
        for each row execute function slow()
        """);
    database.execute(
        """
        create trigger slow after insert on entry for each statement execute function slow()
        """);
    return database;
  }

  private static Map<String, String> missed(Server server) {
    Api hana = Api.of(server, "hana");
    Calendars calendars = new Calendars(hana);
    String href = calendars.href("Master");
    Calendars.Synced synced = calendars.sync(href, "");
    Map<String, String> known = new TreeMap<>(synced.live());
    AtomicBoolean over = new AtomicBoolean();
    ExecutorService threads = Executors.newFixedThreadPool(COMMITTERS);
    try {
      List<CompletableFuture<Void>> all = new ArrayList<>();
      for (int i = 0; i < COMMITTERS; i++) {
        Api api = Api.of(server, "hana");
        all.add(CompletableFuture.runAsync(() -> make(api), threads));
      }
      CompletableFuture<Void> done = CompletableFuture.allOf(all.toArray(CompletableFuture[]::new));
      done.whenComplete((nothing, failure) -> over.set(true));
      while (!over.get()) {
        synced = follow(calendars, href, known, synced.token());
      }
      done.join();
      follow(calendars, href, known, synced.token());
    } finally {
      threads.shutdown();
    }
    Map<String, String> truth = new TreeMap<>(calendars.sync(href, "").live());
    truth.entrySet().removeAll(known.entrySet());
    return truth;
  }

  private static Calendars.Synced follow(
      Calendars calendars, String href, Map<String, String> known, String token) {
    Calendars.Synced synced = calendars.sync(href, token);
    synced.gone().forEach(known::remove);
    known.putAll(synced.live());
    return synced;
  }

  /** Each a record of its own, so that what is missed once stays missed. */
  private static void make(Api api) {
    for (int i = 0; i < CHANGES_EACH; i++) {
      api.post("/api/v1/records", "{\"title\": \"Order\", \"due\": {\"date\": \"2026-12-01\"}}")
          .expect(201);
    }
  }
}
