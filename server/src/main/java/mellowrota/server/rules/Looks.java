package mellowrota.server.rules;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import mellowrota.core.people.PersonId;
import mellowrota.core.project.Outlook;
import mellowrota.core.work.RecordId;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/**
 * Looks at what a set would do: goes through all records in one snapshot, in the background, and
 * keeps what it found so far where every process finds it. Memory does not grow with the records.
 */
@Component
class Looks implements DisposableBean {

  private static final Logger LOG = LoggerFactory.getLogger(Looks.class);
  private static final int AT_ONCE = 500;

  /** A look that is done by then is answered whole. */
  private static final long PATIENCE_MILLIS = 700;

  private static final long TOLD_EVERY_NANOS = 250_000_000;

  /** A look whose process died is told to be so after this long, by the database's clock. */
  private static final String DEAD_AFTER = "30 seconds";

  private final Sets sets;
  private final SetOutlooks views;
  private final Outlooks outlooks;
  private final Worlds worlds;
  private final JdbcClient jdbc;
  private final JsonMapper json;
  private final Clock clock;
  private final TransactionTemplate reading;
  private final TransactionTemplate writing;
  private final ExecutorService threads = Executors.newFixedThreadPool(2);

  Looks(
      Sets sets,
      SetOutlooks views,
      Outlooks outlooks,
      Worlds worlds,
      JdbcClient jdbc,
      JsonMapper json,
      Clock clock,
      PlatformTransactionManager transactions) {
    this.sets = sets;
    this.views = views;
    this.outlooks = outlooks;
    this.worlds = worlds;
    this.jdbc = jdbc;
    this.json = json;
    this.clock = clock;
    reading = new TransactionTemplate(transactions);
    reading.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
    reading.setReadOnly(true);
    writing = new TransactionTemplate(transactions);
    writing.setPropagationBehavior(TransactionDefinition.PROPAGATION_REQUIRES_NEW);
  }

  /** Begins a look and gives what it found, or what it found until now. */
  SetViews.OutlookView begin(PersonId person, World world, RuleSet set) {
    String token = UUID.randomUUID().toString();
    Future<?> looking = threads.submit(() -> look(token, person, world, set));
    try {
      looking.get(PATIENCE_MILLIS, TimeUnit.MILLISECONDS);
    } catch (TimeoutException goesOn) {
      // What it found so far is told below.
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    } catch (ExecutionException failed) {
      throw new IllegalStateException(failed.getCause());
    }
    return find(person, token)
        .orElseGet(
            () ->
                views
                    .frame(token, 0, world, world, set, world.person(person))
                    .view(new Outlook.Sum(), false));
  }

  /** What a look of this person's found until now. */
  Optional<SetViews.OutlookView> find(PersonId person, String token) {
    record Row(boolean ended, String told) {}
    Optional<Row> found =
        jdbc.sql(
                """
                select state = 'FAILED' or state = 'RUNNING' and beat < now() - ?::interval as ended,
                  told::text from look where token = ? and person = ?
                """)
            .param(DEAD_AFTER)
            .param(token)
            .param(person.value())
            .query(Row.class)
            .optional();
    if (found.filter(Row::ended).isPresent()) {
      throw Problem.of(409, "look-ended", "This look ended before it was done; look again.");
    }
    return found.map(row -> json.readValue(row.told(), SetViews.OutlookView.class));
  }

  /**
   * A look that is done.
   *
   * @param at when it saw the records
   * @param shows which details it newly shows in which renderings
   * @param touched the records it touches
   */
  record Finished(
      Instant at, long worldVersion, LocalDate day, Set<String> shows, List<RecordId> touched) {}

  /** The look at this very set by this person, if it is done and the world is still the same. */
  Optional<Finished> finished(PersonId person, World world, RuleSet set) {
    return jdbc.sql(
            """
            select at, world_version, day, shows, touched from look
            where token = ? and person = ? and set_hash = ? and state = 'DONE'
            """)
        .param(set.looked().orElse(""))
        .param(person.value())
        .param(set.hash())
        .query(
            (row, n) ->
                new Finished(
                    row.getObject(1, OffsetDateTime.class).toInstant(),
                    row.getLong(2),
                    row.getObject(3, LocalDate.class),
                    Set.of((String[]) row.getArray(4).getArray()),
                    List.of((Long[]) row.getArray(5).getArray()).stream()
                        .map(RecordId::of)
                        .toList()))
        .optional()
        .filter(look -> look.worldVersion() == world.version() && look.day().equals(world.day()));
  }

  /** Which details a sum newly shows in which renderings. */
  static Set<String> shows(Outlook.Sum sum) {
    Set<String> found = new TreeSet<>();
    sum.shown()
        .forEach(
            (rendering, details) ->
                details
                    .keySet()
                    .forEach(detail -> found.add(rendering.value() + ":" + detail.name())));
    return found;
  }

  private void look(String token, PersonId person, World world, RuleSet set) {
    try {
      reading.executeWithoutResult(status -> go(token, person, world.version(), set));
    } catch (RuntimeException failure) {
      LOG.error("a look failed token={}", token, failure);
      writing.executeWithoutResult(
          status ->
              jdbc.sql("update look set state = 'FAILED' where token = ?").param(token).update());
    }
  }

  private void go(String token, PersonId person, long version, RuleSet set) {
    World before = worlds.now();
    if (before.version() != version) {
      throw new IllegalStateException("the world changed before the look began");
    }
    World after = sets.worldWith(before, set);
    Instant at = clock.instant();
    SetOutlooks.Frame frame =
        views.frame(token, outlooks.count(), before, after, set, before.person(person));
    Outlooks.Part part = Outlooks.Part.of(outlooks.inOneAct());
    keep(person, before, set, at, frame.view(part.sum(), false));
    long told = System.nanoTime();
    List<RecordId> some = outlooks.after(0, AT_ONCE);
    while (!some.isEmpty()) {
      outlooks.add(part, before, after, set.from(), some, person);
      if (System.nanoTime() - told > TOLD_EVERY_NANOS) {
        told = System.nanoTime();
        tell(frame.view(part.sum(), false), part);
      }
      some = outlooks.after(some.get(some.size() - 1).value(), AT_ONCE);
    }
    tell(frame.view(part.sum(), true), part);
  }

  private void keep(
      PersonId person, World world, RuleSet set, Instant at, SetViews.OutlookView view) {
    writing.executeWithoutResult(
        status -> {
          OffsetDateTime now = at.atOffset(ZoneOffset.UTC);
          jdbc.sql("delete from look where at < ?").param(now.minusDays(1)).update();
          jdbc.sql(
                  """
                  insert into look (token, person, set_hash, world_version, day, at, state, beat, told)
                  values (?, ?, ?, ?, ?, ?, 'RUNNING', now(), ?::jsonb)
                  """)
              .param(view.looked())
              .param(person.value())
              .param(set.hash())
              .param(world.version())
              .param(world.day())
              .param(now)
              .param(json.writeValueAsString(view))
              .update();
        });
  }

  private void tell(SetViews.OutlookView view, Outlooks.Part part) {
    boolean keeps = view.finished() && view.total() <= outlooks.inOneAct();
    writing.executeWithoutResult(
        status ->
            jdbc.sql(
                    """
                    update look set told = ?::jsonb, beat = now(), state = ?, shows = ?, touched = ?
                    where token = ?
                    """)
                .param(json.writeValueAsString(view))
                .param(view.finished() ? "DONE" : "RUNNING")
                .param(view.finished() ? shows(part.sum()).toArray(String[]::new) : new String[0])
                .param(
                    keeps
                        ? part.touched().stream().map(RecordId::value).toArray(Long[]::new)
                        : new Long[0])
                .param(view.looked())
                .update());
  }

  @Override
  public void destroy() {
    threads.shutdownNow();
  }
}
