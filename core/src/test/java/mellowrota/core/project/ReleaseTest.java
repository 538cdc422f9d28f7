package mellowrota.core.project;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.RandomWorlds;
import mellowrota.core.Worlds;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.people.Capacities;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Released;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.Test;

/** What waits for a yes: readers keep what was last said yes to, as far as they may see it. */
public class ReleaseTest {

  private static final int WORLDS = Integer.getInteger("worlds", 1_000) / 2;

  private static final Release.Known NEVER = key -> new Release.Never();

  /** A record in whose typed details each says its own name and a number. */
  private static WorkRecord saying(WorkRecord record, int number) {
    WorkRecord.Builder builder = record.with();
    for (DetailKey key : RandomWorlds.typedKeys()) {
      Optional<mellowrota.core.people.ForSet> own =
          Optional.ofNullable(record.details().get(key)).flatMap(DetailValue::forWhom);
      builder.detail(key, new DetailValue(word(key, number), own));
    }
    return builder.build();
  }

  private static String word(DetailKey key, int number) {
    return "<" + key.name() + " " + number + ">";
  }

  private static Release.Known kept(List<Projector.Projected> projected) {
    Map<EntryKey, Released> found = new HashMap<>();
    projected.forEach(
        one -> one.keep().ifPresent(released -> found.put(one.entry().key(), released)));
    return key -> found.containsKey(key) ? new Release.Last(found.get(key)) : new Release.Never();
  }

  private static Map<String, Face> faces(List<Projector.Projected> projected) {
    Map<String, Face> found = new HashMap<>();
    for (Projector.Projected one : projected) {
      one.faces()
          .forEach(seen -> found.put(one.entry().key() + " " + seen.rendering(), seen.face()));
    }
    return found;
  }

  @Test
  public void readersKeepWhatWasReleased() {
    int waited = 0;
    for (long seed = 0; seed < WORLDS; seed++) {
      RandomWorlds random = new RandomWorlds(seed);
      Projector projector = random.world().build().projector();
      WorkRecord first = saying(random.record(1), 1);
      List<Projector.Projected> released = projector.project(first);
      assertThat(faces(projector.project(first, kept(released))))
          .as("seed %s, unchanged", seed)
          .isEqualTo(faces(released));
      for (Projector.Projected one : projector.project(first, NEVER)) {
        assertThat(one.isServed()).as("seed %s", seed).isEqualTo(!one.entry().waits());
        assertThat(one.faces().isEmpty() || one.isServed()).isTrue();
      }
      WorkRecord second = saying(first, 2);
      for (Projector.Projected one : projector.project(second, kept(released))) {
        if (one.entry().waits()) {
          for (Projector.Seen seen : one.faces()) {
            String shown = seen.face().canonical();
            assertThat(shown).as("seed %s", seed).doesNotContain(" 2>");
            waited += one.asks() ? 1 : 0;
          }
        }
      }
    }
    assertThat(waited).as("faces that kept what they had").isGreaterThan(WORLDS / 20);
  }

  /** Whoever a detail is no longer for loses it at once; whoever it newly is for waits. */
  @Test
  public void eachValueIsAllowedThenAndNow() {
    int lost = 0;
    for (long seed = 0; seed < WORLDS; seed++) {
      RandomWorlds random = new RandomWorlds(seed);
      Worlds.Builder builder = random.world();
      Worlds.World then = builder.build();
      Worlds.World now = builder.details(random.definitions()).sharing(then).build();
      WorkRecord first = saying(random.record(1), 1);
      List<Projector.Projected> released = then.projector().project(first);
      WorkRecord second = saying(first, 2);
      RecordReaders readers = RecordReaders.of(second, now.crew());
      Map<String, Face> had = faces(released);
      for (Projector.Projected one : now.projector().project(second, kept(released))) {
        if (!one.asks()) {
          continue;
        }
        for (Projector.Seen seen : one.faces()) {
          String text = seen.face().canonical();
          Face before = had.get(one.entry().key() + " " + seen.rendering());
          for (DetailKey key : RandomWorlds.typedKeys()) {
            boolean allowed =
                allowed(then, first, readers, seen.rendering(), key)
                    && allowed(now, second, readers, seen.rendering(), key);
            if (text.contains(word(key, 1))) {
              assertThat(allowed).as("seed %s, %s on %s", seed, key, seen).isTrue();
              assertThat(now.projector().shown(second, one, seen.rendering())).contains(key);
            } else if (before != null && before.canonical().contains(word(key, 1))) {
              lost++;
            }
          }
        }
      }
    }
    assertThat(lost).as("values that were taken back without a yes").isPositive();
  }

  private static boolean allowed(
      Worlds.World world,
      WorkRecord record,
      RecordReaders readers,
      RenderingId rendering,
      DetailKey key) {
    Audience audience = world.calendars().audience(rendering);
    for (Audience.Standing standing : audience.on(readers)) {
      Capacities reader = standing.capacities();
      if (!world.details().forWhom(record, key).allows(reader)) {
        return false;
      }
    }
    return true;
  }

  /** What was taken off comes back without a yes only as it was. */
  @Test
  public void whatComesBackAsItWasNeedsNoYes() {
    int came = 0;
    for (long seed = 0; seed < 500; seed++) {
      RandomWorlds random = new RandomWorlds(seed);
      Projector projector = random.world().build().projector();
      WorkRecord record = saying(random.record(1), 1);
      for (Projector.Projected one : projector.project(record)) {
        if (one.keep().isPresent()) {
          Release.Known off = key -> new Release.IfTheSame(one.keep().get());
          assertThat(of(projector.project(record, off), one).asks()).as("seed %s", seed).isFalse();
          Projector.Projected other = of(projector.project(saying(record, 2), off), one);
          assertThat(other.isServed()).isEqualTo(faces(List.of(one)).equals(faces(List.of(other))));
          came++;
        }
      }
    }
    assertThat(came).isPositive();
  }

  private static Projector.Projected of(List<Projector.Projected> all, Projector.Projected wanted) {
    return all.stream()
        .filter(one -> one.entry().key().equals(wanted.entry().key()))
        .findFirst()
        .orElseThrow();
  }
}
