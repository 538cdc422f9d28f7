package mellowrota.server.rules;

import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Brings the records along after a change of the set, some at a time from the lowest number up,
 * each part in a transaction of its own that others can come between. How far it came is kept with
 * it: it can be stopped and go on, and whichever process is there goes on after one that died.
 */
@Service
class SetWork implements DisposableBean {

  private static final Logger LOG = LoggerFactory.getLogger(SetWork.class);

  /**
   * Whoever does not take its next step in this time, by the database's clock, is taken for dead.
   */
  private static final String LEASE = "10 seconds";

  private final Sets sets;
  private final Outlooks outlooks;
  private final Projection projection;
  private final Acts acts;
  private final Worlds worlds;
  private final JdbcClient jdbc;
  private final JsonMapper json;
  private final TransactionTemplate transaction;
  private final int atOnce;
  private final Duration rest;
  private final ExecutorService thread = Executors.newSingleThreadExecutor();

  SetWork(
      Sets sets,
      Outlooks outlooks,
      Projection projection,
      Acts acts,
      Worlds worlds,
      JdbcClient jdbc,
      JsonMapper json,
      PlatformTransactionManager transactions,
      @Value("${mellow.records-at-once}") int atOnce,
      @Value("${mellow.rest-between-parts}") Duration rest) {
    transaction = new TransactionTemplate(transactions);
    this.atOnce = atOnce;
    this.rest = rest;
    this.sets = sets;
    this.outlooks = outlooks;
    this.projection = projection;
    this.acts = acts;
    this.worlds = worlds;
    this.jdbc = jdbc;
    this.json = json;
  }

  /** What is under way or stopped; one at a time. */
  Optional<SetViews.WorkView> now() {
    return jdbc.sql(
            """
            select act, state, done, total, entries from set_change
            where state in ('RUNNING', 'STOPPED') order by act limit 1
            """)
        .query(
            (row, n) ->
                new SetViews.WorkView(
                    row.getLong(1),
                    row.getString(2),
                    row.getLong(3),
                    row.getLong(4),
                    row.getLong(5)))
        .optional();
  }

  /** Stops it where it is; what was done stays done until it goes on or is undone. */
  @Transactional
  void stop(long act) {
    turn(act, "RUNNING", "STOPPED");
  }

  @Transactional
  void goOn(long act) {
    turn(act, "STOPPED", "RUNNING");
    beginAfterCommit();
  }

  /** Does nothing to what is so already or has ended. */
  private void turn(long act, String from, String to) {
    jdbc.sql("update set_change set state = ?, lease_until = null where act = ? and state = ?")
        .param(to)
        .param(act)
        .param(from)
        .update();
  }

  /** Begins as soon as what this transaction did is there for others. */
  void beginAfterCommit() {
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCommit() {
            begin();
          }
        });
  }

  /** Goes on with what a process left that is there no longer. */
  @Scheduled(fixedDelay = 5_000)
  void begin() {
    try {
      thread.execute(this::work);
    } catch (RejectedExecutionException ending) {
      LOG.info("a change of the rules goes on when a server begins again");
    }
  }

  private void work() {
    try {
      Optional<Long> act = claim();
      while (act.isPresent() && step(act.get())) {
        // Each part is a transaction of its own; between them others have their turn.
        Thread.sleep(rest.toMillis());
      }
    } catch (InterruptedException ending) {
      Thread.currentThread().interrupt();
    } catch (RuntimeException failure) {
      LOG.error("a change of the rules did not go on; it is tried again", failure);
    }
  }

  private Optional<Long> claim() {
    return transaction.execute(
        status ->
            jdbc.sql(
                    """
                    update set_change set lease_until = now() + ?::interval where act = (
                      select act from set_change
                      where state = 'RUNNING' and (lease_until is null or lease_until <= now())
                      order by act limit 1 for update skip locked)
                    returning act
                    """)
                .param(LEASE)
                .query(Long.class)
                .optional());
  }

  /**
   * How far it is.
   *
   * @param mostly whether most records until now were touched, so that none is tried first
   */
  private record Row(
      JsonNode before, Optional<LocalDate> from, long upto, boolean runs, boolean mostly) {}

  /** Takes the next records; false where there are none left or it was stopped. */
  private boolean step(long number) {
    return acts.goOn(
        number,
        act -> {
          Row row = row(number);
          if (!row.runs()) {
            return false;
          }
          List<RecordId> some = outlooks.after(row.upto(), atOnce);
          if (some.isEmpty()) {
            jdbc.sql("update set_change set state = 'DONE' where act = ?").param(number).update();
            acts.tellOfTheWorld();
            return false;
          }
          World now = worlds.locked(act.worldVersion());
          boolean all = row.mostly() && row.from().isEmpty();
          projection.projectAll(
              act,
              now,
              all
                  ? some
                  : outlooks.touched(sets.worldWith(now, row.before()), now, row.from(), some));
          keepProgress(act, number, some);
          return true;
        });
  }

  private Row row(long act) {
    return jdbc.sql(
            """
            select before::text, from_day, upto, state = 'RUNNING', 2 * entries > done
            from set_change
            where act = ? for update
            """)
        .param(act)
        .query(
            (row, n) ->
                new Row(
                    json.readTree(row.getString(1)),
                    Optional.ofNullable(row.getObject(2, LocalDate.class)),
                    row.getLong(3),
                    row.getBoolean(4),
                    row.getBoolean(5)))
        .single();
  }

  private void keepProgress(Act act, long number, List<RecordId> some) {
    act.later()
        .add(
            """
            update set_change set upto = ?, done = done + ?, entries = entries + ?,
              lease_until = now() + ?::interval where act = ?
            """,
            some.get(some.size() - 1).value(),
            (long) some.size(),
            act.entriesChanged(),
            LEASE,
            number);
  }

  @Override
  public void destroy() {
    thread.shutdownNow();
  }
}
