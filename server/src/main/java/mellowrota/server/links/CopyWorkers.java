package mellowrota.server.links;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import lombok.RequiredArgsConstructor;
import mellowrota.server.links.store.LeaseStore;
import mellowrota.server.links.store.LinkStore;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;

/**
 * Looks what is due and goes through each link's copies, many links at once and each in order. A
 * link is leased: one process has it, and another takes it over once the lease is out. One that is
 * not well rests by itself and holds up no other.
 */
@Component
@RequiredArgsConstructor
class CopyWorkers implements SmartLifecycle {

  private static final Logger LOG = LoggerFactory.getLogger(CopyWorkers.class);

  /** After so many lost answers in a row the link rests. */
  private static final int LOST = 3;

  private static final int COPIES_BETWEEN = 10;

  /** Links that end and who decides are looked after each so many looks. */
  private static final int SELDOM = 8;

  private final LinkStore links;
  private final LeaseStore turns;
  private final CopyScheduler scheduler;
  private final CopyWorker worker;
  private final OutsideReader reading;
  private final LinkEndings endings;
  private final Deciders deciders;
  private final Backoff backoff;

  @Value("${mellow.copies.on:true}")
  private final boolean on;

  @Value("${mellow.copies.look-every:250ms}")
  private final Duration look;

  @Value("${mellow.copies.lease:30s}")
  private final Duration lease;

  @Value("${mellow.copies.links-at-once:32}")
  private final int atOnce;

  private final String me = UUID.randomUUID().toString();
  private Semaphore free;
  private ExecutorService threads;
  private Thread looking;
  private volatile boolean running;

  @Override
  public void start() {
    running = true;
    if (on) {
      free = new Semaphore(atOnce);
      threads = Executors.newFixedThreadPool(atOnce, work -> daemon(work, "courier"));
      looking = daemon(this::lookOut, "couriers");
      looking.start();
    }
  }

  private static Thread daemon(Runnable work, String name) {
    Thread thread = new Thread(work, name);
    thread.setDaemon(true);
    return thread;
  }

  private void lookOut() {
    for (long looks = 0; running; looks++) {
      try {
        boolean more = scheduler.some();
        giveOut();
        if (looks % SELDOM == 0) {
          endings.some();
          deciders.some();
        }
        if (!more) {
          Thread.sleep(look.toMillis());
        }
      } catch (InterruptedException ending) {
        Thread.currentThread().interrupt();
        return;
      } catch (RuntimeException failure) {
        LOG.error("copies were not looked after; it is tried again", failure);
        pause();
      }
    }
  }

  private void giveOut() throws InterruptedException {
    int most = free.availablePermits();
    List<Long> claimed = most == 0 ? List.of() : turns.claim(me, lease, most);
    for (long link : claimed) {
      free.acquire();
      threads.execute(() -> work(link));
    }
  }

  private void pause() {
    try {
      Thread.sleep(1000);
    } catch (InterruptedException ending) {
      Thread.currentThread().interrupt();
      running = false;
    }
  }

  private void work(long id) {
    try {
      links.find(id).ifPresent(this::goThrough);
      turns.letGo(id, me);
    } catch (LinkLeases.Overtaken overtaken) {
      LOG.info("link {} was taken over, since it took too long here", id);
    } catch (RuntimeException failure) {
      LOG.error("link {} was not looked after; it is tried again", id, failure);
    } finally {
      free.release();
    }
  }

  private void goThrough(LinkStore.Link link) {
    long kept = System.nanoTime();
    int lost = 0;
    try {
      Host.Account account = links.account(link);
      links.sealAnew(link, account.password());
      LinkLeases.Lease round = new LinkLeases.Lease(link, account, me);
      boolean well = false;
      for (int step = 0; running; step++) {
        if (System.nanoTime() - kept > lease.toNanos() / 3) {
          if (!turns.keep(link.id(), me, lease)) {
            return;
          }
          kept = System.nanoTime();
        }
        // However many copies are due, what changed there is read between them.
        boolean read = step % COPIES_BETWEEN == 0 && readIfDue(round);
        Optional<CopyWorker.Plan> plan = worker.next(round);
        if (plan.isPresent()) {
          lost = worker.step(round, plan.get()) ? 0 : lost + 1;
        } else if (read || readIfDue(round)) {
          lost = 0;
        } else {
          return;
        }
        if (!well && lost == 0 && plan.map(CopyWorker.Plan::asks).orElse(true)) {
          turns.isWell(link.id());
          well = true;
        }
        if (lost == LOST) {
          throw OutsideFault.unanswered();
        }
      }
    } catch (OutsideFault fault) {
      turns.rests(link.id(), fault, backoff::after);
    }
  }

  private boolean readIfDue(LinkLeases.Lease round) throws OutsideFault {
    Optional<LinkStore.Due> due = reading.due(round.link().id());
    if (due.isPresent()) {
      reading.read(round, due.get());
    }
    return due.isPresent();
  }

  @Override
  public void stop() {
    running = false;
    if (looking != null) {
      looking.interrupt();
      threads.shutdown();
      try {
        // What is under way may end; what does not is looked up by whoever is next.
        if (!threads.awaitTermination(5, TimeUnit.SECONDS)) {
          threads.shutdownNow();
        }
      } catch (InterruptedException ending) {
        Thread.currentThread().interrupt();
      }
    }
  }

  @Override
  public boolean isRunning() {
    return running;
  }

  @Override
  public int getPhase() {
    return Integer.MAX_VALUE - 10;
  }
}
