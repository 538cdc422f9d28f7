package mellowrota.core.sight;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.LongStream;
import mellowrota.core.RandomWorlds;
import mellowrota.core.Worlds;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.project.Difference;
import mellowrota.core.project.Projector;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Due;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.Test;

/**
 * SIGHT's property: two worlds that differ only in details a reader may not see answer that reader
 * alike, byte for byte. {@code -Dworlds=100000} runs more of them.
 */
public class TwinWorldsTest {

  private static final int WORLDS = Integer.getInteger("worlds", 1_000);
  private static final int RECORDS = 40;

  @Test
  public void twinWorldsAnswerEveryReaderAlike() {
    long compared =
        LongStream.range(0, WORLDS)
            .parallel()
            .map(
                seed -> {
                  Outcome outcome = compare(seed, ForSet::allows);
                  assertThat(outcome.difference()).as("seed %s", seed).isEmpty();
                  return outcome.varied();
                })
            .sum();
    assertThat(compared).as("renderings in which a hidden value was varied").isGreaterThan(WORLDS);
  }

  /** The control: with a sight that allows all, the same comparison must find what is shown. */
  @Test
  public void theControlGoesRed() {
    int red = 0;
    for (long seed = 0; seed < 200; seed++) {
      red += compare(seed, (set, reader) -> true).difference().isPresent() ? 1 : 0;
    }
    assertThat(red).as("worlds in which allow-all was found out").isGreaterThan(50);
  }

  private record Outcome(Optional<String> difference, int varied) {}

  private static Outcome compare(long seed, Sight.Permission permission) {
    RandomWorlds random = new RandomWorlds(seed);
    Worlds.World world = random.world().permission(permission).build();
    int varied = 0;
    int records = records(seed);
    for (int i = 1; i <= records; i++) {
      WorkRecord one = random.record(i);
      List<Projector.Projected> projected = world.projector().project(one);
      for (Rendering rendering : renderings(world)) {
        List<Person> readers = readers(world, rendering);
        Optional<WorkRecord> twin = twin(random, world, one, readers, rendering);
        if (twin.isPresent()) {
          varied++;
          String first = faces(projected, rendering);
          String second = faces(world.projector().project(twin.get()), rendering);
          if (!first.equals(second)) {
            return new Outcome(Optional.of(rendering + " got " + first + " and " + second), varied);
          }
        }
      }
    }
    return new Outcome(Optional.empty(), varied);
  }

  /** Up to 40 records a world, most often few: many worlds find more than many alike records. */
  private static int records(long seed) {
    double part = (seed % RECORDS) / (double) (RECORDS - 1);
    return 1 + (int) Math.round((RECORDS - 1) * Math.pow(part, 16));
  }

  private static List<Rendering> renderings(Worlds.World world) {
    List<Rendering> all = new ArrayList<>();
    world.calendars().all().forEach(c -> all.addAll(world.calendars().renderingsOf(c.id())));
    return all;
  }

  private static List<Person> readers(Worlds.World world, Rendering rendering) {
    return world.calendars().audience(rendering.id()).people().stream()
        .map(id -> world.crew().person(id).orElseThrow())
        .toList();
  }

  /** The same record with every value changed that some reader of this rendering may not see. */
  private static Optional<WorkRecord> twin(
      RandomWorlds random,
      Worlds.World world,
      WorkRecord record,
      List<Person> readers,
      Rendering rendering) {
    boolean outside =
        rendering.way() instanceof Rendering.Way.Feed
            || rendering.way() instanceof Rendering.Way.OwnFeed && readers.isEmpty();
    if (readers.isEmpty() && !outside) {
      return Optional.empty();
    }
    RecordReaders capacities = RecordReaders.of(record, world.crew());
    List<Capacities> all = new ArrayList<>(readers.stream().map(capacities::of).toList());
    if (outside) {
      all.add(Capacities.NOBODY_KNOWN);
    }
    WorkRecord.Builder twin = record.with();
    boolean any = false;
    for (DetailKey key : RandomWorlds.typedKeys()) {
      if (hidden(world, record, key, all) && record.details().containsKey(key)) {
        DetailValue before = record.details().get(key);
        String text = before.text().isEmpty() ? "" : "other " + random.random().nextInt(1000);
        twin.detail(key, new DetailValue(text, before.forWhom()));
        any = true;
      }
    }
    if (hidden(world, record, DetailKey.REF, all)) {
      twin.called(record.id(), "Q-" + random.random().nextInt(1000));
      any = true;
    }
    boolean movable = record.due().orElse(null) instanceof Due.At;
    if (hidden(world, record, DetailKey.TIMES, all) && movable) {
      Due.At at = (Due.At) record.due().orElseThrow();
      twin.due(Optional.of(new Due.At(at.time().plusMinutes(7))));
      any = true;
    }
    return any ? Optional.of(twin.build()) : Optional.empty();
  }

  private static boolean hidden(
      Worlds.World world, WorkRecord record, DetailKey key, List<Capacities> readers) {
    ForSet set = world.details().forWhom(record, key);
    return readers.stream().anyMatch(reader -> !set.allows(reader));
  }

  /** Everything this rendering is served. */
  private static String faces(List<Projector.Projected> projected, Rendering rendering) {
    StringBuilder all = new StringBuilder();
    for (Projector.Projected one : projected) {
      for (Projector.Seen seen : one.faces()) {
        if (seen.rendering().equals(rendering.id())) {
          all.append(one.entry().key()).append(seen.face().canonical()).append('\n');
        }
      }
    }
    return all.toString();
  }

  /** A change of what is hidden moves no face: neither content nor sequence. */
  @Test
  public void hiddenChangesMoveNoFace() {
    int moved = 0;
    for (long seed = 0; seed < 500; seed++) {
      RandomWorlds random = new RandomWorlds(seed);
      Worlds.World world = random.world().build();
      WorkRecord one = random.record(1);
      for (Rendering rendering : renderings(world)) {
        Optional<WorkRecord> twin = twin(random, world, one, readers(world, rendering), rendering);
        if (twin.isPresent()) {
          Difference difference =
              Difference.between(
                  Worlds.stored(world.projector().project(one)),
                  world.projector().project(twin.get()));
          long faces =
              difference.entries().stream()
                  .flatMap(c -> c.faces().stream())
                  .filter(f -> f.rendering().equals(rendering.id()))
                  .count();
          assertThat(faces).as("seed %s, %s", seed, rendering).isZero();
          moved += difference.isEmpty() ? 0 : 1;
        }
      }
    }
    assertThat(moved).as("changes that others did see").isPositive();
  }
}
