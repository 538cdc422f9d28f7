package mellowrota.server.rules;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import lombok.RequiredArgsConstructor;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Acts;
import mellowrota.server.rules.store.ChangeStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/**
 * Brings the records along after a change of the set, some at a time from the lowest number up,
 * each part in a transaction of its own that others can come between. How far it came is kept with
 * it: it can be stopped and go on, and whichever process is there goes on after one that died.
 */
@Service
@RequiredArgsConstructor
class SetWork implements DisposableBean {

  private static final Logger LOG = LoggerFactory.getLogger(SetWork.class);

  private final RuleSets sets;
  private final Previews previews;
  private final Projection projection;
  private final Acts acts;
  private final Worlds worlds;
  private final ChangeStore store;
  private final JsonMapper json;
  private final TransactionTemplate transaction;

  @Value("${mellow.records-at-once}")
  private final int atOnce;

  @Value("${mellow.rest-between-parts}")
  private final Duration rest;

  private final ExecutorService thread = Executors.newSingleThreadExecutor();

  /** What is under way or stopped; one at a time. */
  Optional<SetViews.WorkView> now() {
    return store
        .open()
        .map(
            one ->
                new SetViews.WorkView(
                    one.act(), one.state(), one.done(), one.total(), one.entries()));
  }

  /** Stops it where it is; what was done stays done until it goes on or is undone. */
  @Transactional
  void stop(long act) {
    store.turn(act, ChangeStore.State.RUNNING, ChangeStore.State.STOPPED);
  }

  @Transactional
  void goOn(long act) {
    store.turn(act, ChangeStore.State.STOPPED, ChangeStore.State.RUNNING);
    beginAfterCommit();
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
    return transaction.execute(status -> store.claim());
  }

  /** Takes the next records; false where there are none left or it was stopped. */
  private boolean step(long number) {
    return acts.goOn(
        number,
        act -> {
          ChangeStore.Change row = store.lock(number);
          if (row.state() != ChangeStore.State.RUNNING) {
            return false;
          }
          List<RecordId> some = previews.after(row.upto(), atOnce);
          if (some.isEmpty()) {
            store.ended(number, ChangeStore.State.DONE);
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
                  : previews.touched(
                      sets.worldWith(now, json.readTree(row.before())), now, row.from(), some));
          store.went(number, some, act.entriesChanged());
          return true;
        });
  }

  @Override
  public void destroy() {
    thread.shutdownNow();
  }
}
