package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;

import java.time.Clock;
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
import mellowrota.core.project.Preview;
import mellowrota.core.work.RecordId;
import mellowrota.server.platform.Problem;
import mellowrota.server.rules.store.PreviewStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
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
class PreviewRuns implements DisposableBean {

  private static final Logger LOG = LoggerFactory.getLogger(PreviewRuns.class);
  private static final int AT_ONCE = 500;

  /** A look that is done by then is answered whole. */
  private static final long PATIENCE_MILLIS = 700;

  private static final long TOLD_EVERY_NANOS = 250_000_000;

  private final RuleSets sets;
  private final SetPreviews views;
  private final Previews previews;
  private final Worlds worlds;
  private final PreviewStore store;
  private final JsonMapper json;
  private final Clock clock;
  private final TransactionTemplate reading;
  private final TransactionTemplate writing;
  private final ExecutorService threads = Executors.newFixedThreadPool(2);

  PreviewRuns(
      RuleSets sets,
      SetPreviews views,
      Previews previews,
      Worlds worlds,
      PreviewStore store,
      JsonMapper json,
      Clock clock,
      PlatformTransactionManager transactions) {
    this.sets = sets;
    this.views = views;
    this.previews = previews;
    this.worlds = worlds;
    this.store = store;
    this.json = json;
    this.clock = clock;
    reading = new TransactionTemplate(transactions);
    reading.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
    reading.setReadOnly(true);
    writing = new TransactionTemplate(transactions);
    writing.setPropagationBehavior(TransactionDefinition.PROPAGATION_REQUIRES_NEW);
  }

  /** Begins a look and gives what it found, or what it found until now. */
  SetViews.PreviewView begin(PersonId person, World world, RuleSet set) {
    String token = UUID.randomUUID().toString();
    // Kept before it begins, so that its token is good however long it waits.
    keep(
        person,
        world,
        set,
        views
            .frame(token, 0, world, world, set, world.person(person))
            .view(new Preview.Sum(), false));
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
    return find(person, token).orElseThrow();
  }

  /** What a look of this person's found until now. */
  Optional<SetViews.PreviewView> find(PersonId person, String token) {
    Optional<PreviewStore.Told> found = store.find(person, token);
    if (found.filter(PreviewStore.Told::ended).isPresent()) {
      throw Problem.of(409, "look-ended", say("rules.this-preview-ended-early"));
    }
    return found.map(row -> json.readValue(row.told(), SetViews.PreviewView.class));
  }

  /** The look at this very set by this person, if it is done and the world is still the same. */
  Optional<PreviewStore.Finished> finished(PersonId person, World world, RuleSet set) {
    return store
        .finished(person, set.looked().orElse(""), set.hash())
        .filter(look -> look.worldVersion() == world.version() && look.day().equals(world.day()));
  }

  /** Which details a sum newly shows in which renderings. */
  static Set<String> shows(Preview.Sum sum) {
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
      writing.executeWithoutResult(status -> store.failed(token));
    }
  }

  private void go(String token, PersonId person, long version, RuleSet set) {
    World before = worlds.now();
    if (before.version() != version) {
      throw new IllegalStateException("the world changed before the look began");
    }
    World after = sets.worldWith(before, set);
    SetPreviews.Frame frame =
        views.frame(token, previews.count(), before, after, set, before.person(person));
    Previews.Part part = Previews.Part.of(previews.inOneAct());
    tell(frame.view(part.sum(), false), part);
    long told = System.nanoTime();
    List<RecordId> some = previews.after(0, AT_ONCE);
    while (!some.isEmpty()) {
      previews.add(part, before, after, set.from(), some, person);
      if (System.nanoTime() - told > TOLD_EVERY_NANOS) {
        told = System.nanoTime();
        tell(frame.view(part.sum(), false), part);
      }
      some = previews.after(some.get(some.size() - 1).value(), AT_ONCE);
    }
    tell(frame.view(part.sum(), true), part);
  }

  private void keep(PersonId person, World world, RuleSet set, SetViews.PreviewView view) {
    writing.executeWithoutResult(
        status ->
            store.begin(
                new PreviewStore.Begun(
                    view.looked(),
                    person,
                    set.hash(),
                    world.version(),
                    world.day(),
                    clock.instant(),
                    json.writeValueAsString(view))));
  }

  private void tell(SetViews.PreviewView view, Previews.Part part) {
    boolean keeps = view.finished() && view.total() <= previews.inOneAct();
    writing.executeWithoutResult(
        status ->
            store.tell(
                view.looked(),
                json.writeValueAsString(view),
                view.finished(),
                view.finished() ? shows(part.sum()) : Set.of(),
                keeps ? part.touched() : List.of()));
  }

  @Override
  public void destroy() {
    threads.shutdownNow();
  }
}
