package mellowrota.server.rules;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mellowrota.core.project.Projector;
import mellowrota.core.project.Release;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Affected;
import mellowrota.server.calendars.CalendarKeeper;
import mellowrota.server.calendars.EntryStore;
import mellowrota.server.calendars.ReleaseStore;
import mellowrota.server.records.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** Projects the records that an act affects and stores what they land as. */
@Service
class Projection implements Affected {

  private static final int AT_ONCE = 200;

  private final Worlds worlds;
  private final RecordStore records;
  private final EntryStore entries;
  private final ReleaseStore releases;
  private final CalendarKeeper keeper;
  private final JdbcClient jdbc;

  Projection(
      Worlds worlds,
      RecordStore records,
      EntryStore entries,
      ReleaseStore releases,
      CalendarKeeper keeper,
      JdbcClient jdbc) {
    this.worlds = worlds;
    this.records = records;
    this.entries = entries;
    this.releases = releases;
    this.keeper = keeper;
    this.jdbc = jdbc;
  }

  @Override
  public void worldAboutToChange(Act act) {
    act.keepWorldBefore(worlds.now());
  }

  @Override
  public void bringUpToDate(Act act) {
    if (!act.worldChanged()) {
      if (act.isLook()) {
        World world = worlds.locked(act.worldVersion());
        throw new Looked(act, world, world, Set.of());
      }
      project(act, worlds.locked(act.worldVersion()), List.copyOf(act.records().values()));
      return;
    }
    keeper.keep();
    World before = (World) act.worldBefore();
    World after = worlds.afterChange();
    Set<RecordId> affected = new TreeSet<>(act.records().keySet());
    affected.addAll(act.reached());
    affected.addAll(readers(Inputs.differing(before, after)));
    if (act.isLook()) {
      throw new Looked(act, before, after, affected);
    }
    projectAll(act, after, affected);
  }

  /** Projects the records that read any of these, in an act of the house. */
  void projectReaders(Act act, World world, Set<Inputs.Input> inputs) {
    projectAll(act, world, readers(inputs));
  }

  private Set<RecordId> readers(Set<Inputs.Input> inputs) {
    Map<String, List<Long>> byKind =
        inputs.stream()
            .collect(
                Collectors.groupingBy(
                    Inputs.Input::kind, Collectors.mapping(Inputs.Input::id, Collectors.toList())));
    Set<RecordId> found = new TreeSet<>();
    byKind.forEach(
        (kind, ids) ->
            jdbc.sql("select record from record_input where kind = ? and input = any(?)")
                .param(kind)
                .param(ids.toArray(Long[]::new))
                .query(Long.class)
                .list()
                .forEach(id -> found.add(RecordId.of(id))));
    return found;
  }

  /** Projects these records anew; locks them first. */
  void projectAll(Act act, World world, Collection<RecordId> ids) {
    List<RecordId> all = new ArrayList<>(ids);
    for (int from = 0; from < all.size(); from += AT_ONCE) {
      List<RecordId> some = all.subList(from, Math.min(all.size(), from + AT_ONCE));
      project(act, world, records.load(some, true));
    }
  }

  private void project(Act act, World world, List<WorkRecord> loaded) {
    List<RecordId> ids = loaded.stream().map(WorkRecord::id).toList();
    Release.Known releases = releases(act, world, ids);
    Map<RecordId, List<Projector.Projected>> byRecord = new LinkedHashMap<>();
    List<Projector.Projected> projected = new ArrayList<>();
    for (WorkRecord record : loaded) {
      List<Projector.Projected> one = world.projector().project(record, releases);
      byRecord.put(record.id(), one);
      projected.addAll(one);
    }
    // What is read of the world hangs on the record and its calendars; where both stayed, it did.
    keepInputs(act, loaded, byRecord, act.records().keySet());
    Set<RecordId> moved = new HashSet<>(entries.store(act, ids, projected));
    moved.removeAll(act.records().keySet());
    keepInputs(act, loaded, byRecord, moved);
  }

  private Release.Known releases(Act act, World world, List<RecordId> ids) {
    Release.Known stored = releases.of(world, ids.stream().filter(id -> !act.hasMade(id)).toList());
    return key -> {
      Release now = act.releases().get(key);
      return now == null ? stored.of(key) : now;
    };
  }

  private static void keepInputs(
      Act act,
      List<WorkRecord> loaded,
      Map<RecordId, List<Projector.Projected>> projected,
      Set<RecordId> of) {
    List<Long> readers = new ArrayList<>();
    List<Inputs.Input> inputs = new ArrayList<>();
    List<Long> older = new ArrayList<>();
    for (WorkRecord record : loaded) {
      if (of.contains(record.id())) {
        for (Inputs.Input input : Inputs.of(record, projected.get(record.id()))) {
          readers.add(record.id().value());
          inputs.add(input);
        }
        if (!act.hasMade(record.id())) {
          older.add(record.id().value());
        }
      }
    }
    if (!older.isEmpty()) {
      act.later()
          .add(
              "delete from record_input where record = any(?)",
              (Object) older.toArray(Long[]::new));
    }
    if (!readers.isEmpty()) {
      act.later()
          .add(
              """
              insert into record_input (record, kind, input)
              select * from unnest(?::bigint[], ?::text[], ?::bigint[])
              """,
              readers.toArray(Long[]::new),
              inputs.stream().map(Inputs.Input::kind).toArray(String[]::new),
              inputs.stream().map(Inputs.Input::id).toArray(Long[]::new));
    }
  }
}
