package mellowrota.server.audit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Predicate;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.Person;
import mellowrota.core.rule.Landing;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Sight;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.store.RecordSets;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;

/**
 * Goes through all records and counts where details can be read. An entry counts where its wording
 * asks for the detail and all its readers may see it, filled or not: so the counts tell nothing of
 * what stands in a detail that the asker may not see. O(records × entries × renderings).
 */
@Component
@RequiredArgsConstructor
class Audit {

  private static final int AT_ONCE = 500;

  private final RecordSets sets;
  private final RecordStore store;
  private final RecordAccess access;

  /**
   * One way of reading entries that one rule words.
   *
   * @param rule its number; 0 where an <i>also here</i> put the entry there
   */
  record Through(RenderingId rendering, long rule) implements Comparable<Through> {
    @Override
    public int compareTo(Through other) {
      return Comparator.comparing(Through::rendering)
          .thenComparing(Through::rule)
          .compare(this, other);
    }
  }

  /** On how many entries each detail can be read, by the way of reading. */
  Map<Through, Map<DetailKey, Long>> entries(World world, Predicate<Rendering> wanted) {
    Map<Through, Map<DetailKey, Long>> found = new TreeMap<>();
    forAll(records -> records.forEach(record -> count(world, record, wanted, found)));
    return found;
  }

  private static void count(
      World world,
      WorkRecord record,
      Predicate<Rendering> wanted,
      Map<Through, Map<DetailKey, Long>> found) {
    List<Landing.Lands> landed = world.router().land(record);
    if (landed.isEmpty()) {
      return;
    }
    RecordReaders readers = RecordReaders.of(record, world.crew());
    for (Landing.Lands landing : landed) {
      List<Long> rules = landing.entry().rules();
      for (Rendering rendering : world.calendars().renderingsOf(landing.calendar())) {
        boolean read = !world.calendars().audience(rendering.id()).isEmpty();
        if (read && wanted.test(rendering)) {
          Through through = new Through(rendering.id(), rules.isEmpty() ? 0 : rules.get(0));
          Map<DetailKey, Long> counts = found.computeIfAbsent(through, key -> new HashMap<>());
          world
              .sight()
              .explain(record, readers, landing.entry(), world.calendars().audience(rendering.id()))
              .stream()
              .filter(Audit::canBeRead)
              .forEach(told -> counts.merge(told.detail(), 1L, Long::sum));
        }
      }
    }
  }

  static boolean canBeRead(Sight.Told told) {
    return told.status() == Sight.Status.SHOWN || told.status() == Sight.Status.EMPTY;
  }

  /** On how many records this person may read each detail on our own screens. */
  Map<DetailKey, Long> screens(World world, Person person) {
    Map<DetailKey, Long> found = new HashMap<>();
    forAll(
        records -> {
          for (RecordAccess.Standing standing : access.standings(world, person, records)) {
            if (standing.opens()) {
              for (DetailDefinition detail : world.details().of(standing.record().kind())) {
                if (standing.sees(detail.key())) {
                  found.merge(detail.key(), 1L, Long::sum);
                }
              }
            }
          }
        });
    return found;
  }

  private interface Some {
    void take(List<WorkRecord> records);
  }

  private void forAll(Some some) {
    long upto = 0;
    List<RecordId> next = after(upto);
    while (!next.isEmpty()) {
      some.take(new ArrayList<>(store.load(next, false)));
      upto = next.get(next.size() - 1).value();
      next = after(upto);
    }
  }

  private List<RecordId> after(long number) {
    return sets.after(number, AT_ONCE);
  }
}
