package mellowrota.server.audit;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.rule.Landing;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Sight;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.records.store.RecordSets;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;

/**
 * How far each detail reaches in the work of the next days: whom, in which capacity, on how many
 * calendars. Like the audit it asks what may be read, filled or not. O(records × entries × readers)
 * over at most {@link #MOST_RECORDS} records.
 */
@Component
@RequiredArgsConstructor
class Reach {

  static final int DAYS = 14;
  static final int MOST_RECORDS = 2_000;
  private static final int AT_ONCE = 500;
  private static final int LONGEST_DAYS = 60;

  private final RecordSets sets;
  private final RecordStore store;
  private final Clock clock;

  /**
   * What a capacity gets of a detail.
   *
   * @param people by number
   */
  static final class Reached {
    final TreeSet<Long> calendars = new TreeSet<>();
    final BitSet people = new BitSet();
    boolean anybody;
    long example;

    private void on(WorkRecord record) {
      example = example == 0 ? record.id().value() : example;
    }
  }

  /**
   * The map of the house.
   *
   * @param cells by detail and by the bit of the capacity; what reaches nobody is absent
   * @param records how many were looked at
   * @param more whether there are others that were not
   */
  record Found(
      LocalDate from,
      LocalDate until,
      Map<DetailKey, Map<Long, Reached>> cells,
      int records,
      boolean more) {}

  Found find(World world) {
    Instant now = clock.instant();
    LocalDate today = world.day();
    LocalDate until = today.plusDays(DAYS);
    List<RecordId> all =
        sets
            .standing(
                new RecordSets.Range(
                    now, now.plus(Duration.ofDays(DAYS)), today, until, LONGEST_DAYS))
            .keySet()
            .stream()
            .map(RecordId::of)
            .toList();
    List<RecordId> looked = all.subList(0, Math.min(all.size(), MOST_RECORDS));
    Map<DetailKey, Map<Long, Reached>> cells = new HashMap<>();
    for (int at = 0; at < looked.size(); at += AT_ONCE) {
      List<RecordId> some = looked.subList(at, Math.min(looked.size(), at + AT_ONCE));
      store.load(some, false).forEach(record -> new Of(world, record, cells).take());
    }
    return new Found(today, until, cells, looked.size(), all.size() > looked.size());
  }

  /** One record's part of it. */
  private static final class Of {
    private final World world;
    private final WorkRecord record;
    private final RecordReaders readers;
    private final Map<DetailKey, Map<Long, Reached>> cells;

    /** Those who read it in full somewhere, and so may open it. */
    private final BitSet inFull = new BitSet();

    Of(World world, WorkRecord record, Map<DetailKey, Map<Long, Reached>> cells) {
      this.world = world;
      this.record = record;
      this.readers = RecordReaders.of(record, world.crew());
      this.cells = cells;
    }

    void take() {
      for (Landing.Lands landing : world.router().land(record)) {
        for (Rendering rendering : world.calendars().renderingsOf(landing.calendar())) {
          Audience audience = world.calendars().audience(rendering.id());
          if (!audience.isEmpty()) {
            reads(landing, rendering, audience);
          }
        }
      }
      onScreens();
    }

    private void reads(Landing.Lands landing, Rendering rendering, Audience audience) {
      List<DetailKey> read =
          world.sight().explain(record, readers, landing.entry(), audience).stream()
              .filter(Audit::canBeRead)
              .map(Sight.Told::detail)
              .toList();
      if (!read.contains(DetailKey.TIMES)) {
        return;
      }
      Map<Capacities, BitSet> alike = alike(audience.people());
      for (DetailKey detail : read) {
        alike.forEach(
            (capacities, those) -> {
              Reached cell = cell(detail, capacities);
              cell.calendars.add(landing.calendar().value());
              cell.people.or(those);
            });
        if (!audience.isOfPeople()) {
          Reached cell = cell(detail, Capacities.NOBODY_KNOWN);
          cell.calendars.add(landing.calendar().value());
          cell.anybody = true;
        }
      }
      if (!(rendering.way() instanceof Rendering.Way.Feed)
          && !(rendering.way() instanceof Rendering.Way.Copy)) {
        audience.people().stream()
            .filter(one -> audience.levelOf(one).filter(Level.ALL::equals).isPresent())
            .forEach(one -> inFull.set((int) one.value()));
      }
    }

    /** Those who may open it see there what is for them. */
    private void onScreens() {
      Map<Capacities, BitSet> alike =
          alike(
              world.crew().people().stream()
                  .filter(one -> readers.mayOpen(one, inFull.get((int) one.id().value())))
                  .map(Person::id)
                  .toList());
      for (DetailDefinition detail : world.details().of(record.kind())) {
        alike.forEach(
            (capacities, people) -> {
              if (detail.appliesTo(record)
                  && world.sight().allowed(capacities, record, detail.key())) {
                cell(detail.key(), capacities).people.or(people);
              }
            });
      }
    }

    private Map<Capacities, BitSet> alike(Collection<PersonId> people) {
      Map<Capacities, BitSet> found = new HashMap<>();
      for (PersonId id : people) {
        Capacities capacities = readers.of(world.crew().person(id).orElseThrow());
        found.computeIfAbsent(capacities, key -> new BitSet()).set((int) id.value());
      }
      return found;
    }

    /** Capacities add up; on the map each reader of a detail stands once. */
    private Reached cell(DetailKey detail, Capacities reader) {
      long nearest = reader.nearest(world.details().forWhom(record, detail));
      Reached cell =
          cells
              .computeIfAbsent(detail, key -> new HashMap<>())
              .computeIfAbsent(nearest, key -> new Reached());
      cell.on(record);
      return cell;
    }
  }
}
