package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
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
 * Commits that overtake one another, against a client that syncs all the while: it must end with
 * what a first sync tells. With numbers from a sequence it does not.
 */
public class OrderingTest {

  private static final int COMMITTERS = 8;
  private static final int CHANGES_EACH = 20;
  private static final int LOCK = 4711;
  private static final Duration PATIENCE = Duration.ofSeconds(60);

  @Test
  public void aSyncingClientMissesNothing() {
    try (Server server = Server.started(slow())) {
      assertThat(missed(server)).isEmpty();
    }
  }

  @Test
  public void whatIsCommittedLateIsNotMissed() {
    try (Server server = Server.started(held())) {
      assertThat(overtaken(server)).isEmpty();
    }
  }

  @Test
  public void theControlGoesRed() {
    Database database = held();
    database.execute("create sequence ordering_control start 100000");
    try (Server server =
        Server.started(database, "--spring.profiles.active=settable-clock,ordering-control")) {
      assertThat(overtaken(server)).as("what a client misses by a sequence's numbers").hasSize(1);
    }
  }

  /** What is called "Held" is not committed, its number taken, as long as somebody has the lock. */
  private static Database held() {
    Database database = Database.demo();
    database.execute(
        """
        create function held() returns trigger language plpgsql as
          'begin perform pg_advisory_xact_lock_shared(%d); return null; end'
        """
            .formatted(LOCK));
    database.execute(
        """
        create trigger held after insert on face for each row
        when (new.content like '%Held%') execute function held()
        """);
    return database;
  }

  /** What a client misses of two of which the second is committed, or waits, while the first is. */
  private static Map<String, String> overtaken(Server server) {
    Calendars calendars = new Calendars(Api.of(server, "hana"));
    String href = calendars.href("Master");
    Calendars.Synced before = calendars.sync(href, "");
    Map<String, String> known = new TreeMap<>(before.live());
    List<Calendars.Synced> between = new ArrayList<>();
    List<CompletableFuture<Void>> both = new ArrayList<>();
    ExecutorService threads = Executors.newFixedThreadPool(2);
    try {
      server
          .database()
          .holding(
              LOCK,
              () -> {
                both.add(make(server, threads, "Held"));
                Await.until("the first waits", PATIENCE, () -> waiting(server) == 1);
                both.add(make(server, threads, "Passes"));
                Await.until(
                    "the second is done or waits",
                    PATIENCE,
                    () -> both.get(1).isDone() || waiting(server) == 2);
                between.add(follow(calendars, href, known, before.token()));
              });
      both.forEach(CompletableFuture::join);
      follow(calendars, href, known, between.get(0).token());
    } finally {
      threads.shutdown();
    }
    Map<String, String> truth = new TreeMap<>(calendars.sync(href, "").live());
    truth.entrySet().removeAll(known.entrySet());
    return truth;
  }

  private static CompletableFuture<Void> make(Server server, ExecutorService on, String title) {
    Api api = Api.of(server, "hana");
    return CompletableFuture.runAsync(() -> make(api, title), on);
  }

  private static int waiting(Server server) {
    return Integer.parseInt(
        server
            .database()
            .query(
                """
                select count(*) from pg_stat_activity
                where datname = current_database() and wait_event_type = 'Lock'
                """)
            .get(0));
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
      make(api, "Order");
    }
  }

  private static void make(Api api, String title) {
    api.record("{\"title\": \"%s\", \"due\": {\"date\": \"2026-12-01\"}}".formatted(title));
  }
}
