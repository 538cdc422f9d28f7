package mellowrota.core.project;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import mellowrota.core.RandomWorlds;
import mellowrota.core.Worlds;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.Person;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Sight;
import mellowrota.core.sight.Wording;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.WorkRecord;
import org.testng.annotations.Test;

/** What other rules and wordings would do, told before, is what they then do. */
public class PreviewTest {

  private static final int WORLDS = Integer.getInteger("worlds", 1_000) / 2;
  private static final int RECORDS = 6;

  /** The store as it stands after a projection, and what the next one changes in it. */
  private static Map<EntryKey, String> moves(WorkRecord record, Worlds.World was, Worlds.World is) {
    Difference difference =
        Difference.between(
            Worlds.stored(was.projector().project(record)), is.projector().project(record));
    Map<EntryKey, String> found = new TreeMap<>();
    for (Difference.EntryChange change : difference.entries()) {
      Set<RenderingId> faces = new TreeSet<>();
      change.faces().forEach(face -> faces.add(face.rendering()));
      found.put(change.key(), change.move().name() + faces);
    }
    return found;
  }

  @Test
  public void isWhatThenChanges() {
    long rows = 0;
    for (long seed = 0; seed < WORLDS; seed++) {
      RandomWorlds random = new RandomWorlds(seed);
      Worlds.Builder builder = random.world();
      Worlds.World was = builder.build();
      builder = random.random().nextBoolean() ? builder.rules(random.rules()) : builder;
      builder = random.random().nextBoolean() ? builder.details(random.definitions()) : builder;
      // Half of them on the same people and calendars, where what reads alike is not cut at all.
      builder = random.random().nextBoolean() ? builder.sharing(was) : builder;
      Worlds.World is = builder.wordings(random.wordings()).build();
      Preview preview = new Preview(was.projector(), is.projector());
      for (int i = 1; i <= RECORDS; i++) {
        WorkRecord record = random.record(i);
        Map<EntryKey, String> told = new TreeMap<>();
        Preview.Told of = preview.of(record);
        for (Preview.Row row : of.rows()) {
          Set<RenderingId> faces = new TreeSet<>();
          row.faces().forEach(face -> faces.add(face.rendering()));
          told.put(row.key(), row.move().name() + faces);
          requireSight(record, was, is, row);
        }
        assertThat(told).as("seed %s, record %s", seed, i).isEqualTo(moves(record, was, is));
        rows += told.size();
      }
    }
    assertThat(rows).as("changes in all").isGreaterThan(WORLDS);
  }

  /** Each reader of a rendering sees newly what is told, by the sight that serves them. */
  private static void requireSight(
      WorkRecord record, Worlds.World was, Worlds.World is, Preview.Row row) {
    for (Preview.FaceRow face : row.faces()) {
      Set<DetailKey> before = shown(record, was, row.key(), face.rendering());
      Set<DetailKey> after = shown(record, is, row.key(), face.rendering());
      Set<DetailKey> gained = new HashSet<>(after);
      gained.removeAll(before);
      Set<DetailKey> lost = new HashSet<>(before);
      lost.removeAll(after);
      assertThat(face.shown()).as("newly shown of %s", row).isEqualTo(gained);
      assertThat(face.hidden()).as("newly hidden of %s", row).isEqualTo(lost);
    }
  }

  private static Set<DetailKey> shown(
      WorkRecord record, Worlds.World world, EntryKey key, RenderingId rendering) {
    Set<DetailKey> found = new HashSet<>();
    for (Projector.Projected one : world.projector().project(record)) {
      boolean served = one.faces().stream().anyMatch(seen -> seen.rendering().equals(rendering));
      if (one.entry().key().equals(key) && served) {
        for (Sight.Told told :
            world
                .sight()
                .explain(
                    record,
                    RecordReaders.of(record, world.crew()),
                    one.entry(),
                    world.calendars().audience(rendering))) {
          if (told.status() == Sight.Status.SHOWN) {
            found.add(told.detail());
          }
        }
      }
    }
    return found;
  }

  /**
   * Whoever looks is told the same, whether a detail that they may not see is filled or not, and by
   * what.
   */
  @Test
  public void tellsNothingOfWhatItsAskerMayNotSee() {
    int compared = 0;
    int told = 0;
    for (long seed = 0; seed < WORLDS; seed++) {
      RandomWorlds random = new RandomWorlds(seed);
      Worlds.Builder builder = random.world();
      Worlds.World was = builder.build();
      Worlds.World is = builder.details(random.definitions()).wordings(random.wordings()).build();
      List<Person> people = List.copyOf(was.crew().people());
      Person asker = people.get(random.random().nextInt(people.size()));
      Preview preview = new Preview(was.projector(), is.projector(), asker.id());
      for (int i = 1; i <= RECORDS; i++) {
        WorkRecord record = random.record(i);
        Capacities capacities = RecordReaders.of(record, was.crew()).of(asker);
        WorkRecord.Builder twin = record.with();
        for (DetailKey key : RandomWorlds.typedKeys()) {
          if (!was.details().forWhom(record, key).allows(capacities)) {
            DetailValue filled = record.details().get(key);
            twin.detail(
                key,
                filled == null
                    ? DetailValue.of("other " + i)
                    : new DetailValue("", filled.forWhom()));
          }
        }
        WorkRecord other = twin.build();
        if (preview.covers(record) && landings(was, record).equals(landings(was, other))) {
          List<Preview.Row> rows = preview.of(record).rows();
          assertThat(preview.of(other).rows())
              .as("seed %s, record %s before %s", seed, i, asker.name())
              .isEqualTo(rows);
          compared++;
          told +=
              new Preview(was.projector(), is.projector()).of(record).rows().equals(rows) ? 0 : 1;
        }
      }
    }
    assertThat(compared).as("records with something covered").isGreaterThan(WORLDS / 4);
    assertThat(told).as("of which an exact look tells otherwise").isPositive();
  }

  private static List<Entry> landings(Worlds.World world, WorkRecord record) {
    return world.projector().project(record).stream().map(Projector.Projected::entry).toList();
  }

  @Test
  public void theSameRulesDoNothing() {
    for (long seed = 0; seed < 200; seed++) {
      RandomWorlds random = new RandomWorlds(seed);
      Worlds.Builder builder = random.world();
      Preview preview = new Preview(builder.build().projector(), builder.build().projector());
      assertThat(preview.of(random.record(1)).isNothing()).as("seed %s", seed).isTrue();
    }
  }

  @Test
  public void aWordingThatAsksForThePhoneShowsItToWhoeverItIsFor() {
    Worlds.Builder builder =
        Worlds.world()
            .coordinator(1, "Hana")
            .worker(2, "Ines")
            .worker(3, "Tam")
            .team(1, "Thornmere", 2, 3);
    Worlds.World was = builder.wordings(worded("")).build();
    Worlds.World is = builder.wordings(worded("{phone}")).build();
    WorkRecord record =
        Worlds.ticket()
            .due(Worlds.dueAt("2026-11-27T13:00"))
            .assignments(List.of(Worlds.lead(2, Worlds.NOW)))
            .detail(DetailKey.TITLE, DetailValue.of("Stuck paddle"))
            .detail(DetailKey.PHONE, DetailValue.of("0555 0142"))
            .build();
    Preview.Sum sum = new Preview.Sum();
    sum.add(new Preview(was.projector(), is.projector()).of(record).rows(), 0);
    Map<String, Long> phone = new HashMap<>();
    sum.shown()
        .forEach(
            (rendering, details) ->
                phone.put(
                    is.calendars()
                        .find(is.calendars().rendering(rendering).orElseThrow().calendar())
                        .orElseThrow()
                        .name(),
                    details.getOrDefault(DetailKey.PHONE, 0L)));
    assertThat(phone)
        .as("for people on it and the office: never to a team whose other members read it")
        .isEqualTo(Map.of("Ines, own", 1L, "Master", 1L));
    assertThat(sum.records()).isEqualTo(1);
  }

  private static List<Wording> worded(String text) {
    List<Wording> found = new ArrayList<>();
    for (int id = 1; id <= 5; id++) {
      found.add(Worlds.wording(id, "{title}", "{place}", text));
    }
    return found;
  }
}
