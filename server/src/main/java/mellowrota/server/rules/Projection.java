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
import lombok.RequiredArgsConstructor;
import mellowrota.core.project.Projector;
import mellowrota.core.project.Release;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Affected;
import mellowrota.server.calendars.store.EntryStore;
import mellowrota.server.calendars.store.ReleaseStore;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.rules.store.InputStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import mellowrota.server.sight.store.CalendarStore;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Service;

/** Projects the records that an act affects and stores what they land as. */
@Service
@RequiredArgsConstructor
class Projection implements Affected {

  private final Worlds worlds;
  private final RecordStore records;
  private final EntryStore entries;
  private final ReleaseStore releases;
  private final CalendarStore calendars;
  private final InputStore inputs;

  @Value("${mellow.records-at-once}")
  private final int atOnce;

  @Override
  public void worldAboutToChange(Act act) {
    act.keepWorldBefore(worlds.now());
  }

  @Override
  public void bringUpToDate(Act act) {
    if (!act.worldChanged()) {
      if (act.isLook()) {
        World world = worlds.locked(act.worldVersion());
        throw new PreviewRun(act, world, world, Set.of());
      }
      project(act, worlds.locked(act.worldVersion()), List.copyOf(act.records().values()));
      return;
    }
    calendars.keep();
    World before = (World) act.worldBefore();
    World after = worlds.afterChange();
    Set<RecordId> affected = new TreeSet<>(act.records().keySet());
    affected.addAll(act.reached());
    affected.addAll(readers(ProjectionInputs.differing(before, after)));
    if (act.isLook()) {
      throw new PreviewRun(act, before, after, affected);
    }
    projectAll(act, after, affected);
  }

  /** Projects the records that read any of these, in an act of the house. */
  void projectReaders(Act act, World world, Set<ProjectionInputs.Input> read) {
    projectAll(act, world, readers(read));
  }

  private Set<RecordId> readers(Set<ProjectionInputs.Input> read) {
    Map<String, List<Long>> byKind =
        read.stream()
            .collect(
                Collectors.groupingBy(
                    ProjectionInputs.Input::kind,
                    Collectors.mapping(ProjectionInputs.Input::id, Collectors.toList())));
    Set<RecordId> found = new TreeSet<>();
    byKind.forEach((kind, ids) -> found.addAll(inputs.readers(kind, ids)));
    return found;
  }

  /** Projects these records anew; locks them first. */
  void projectAll(Act act, World world, Collection<RecordId> ids) {
    List<RecordId> all = new ArrayList<>(ids);
    for (int from = 0; from < all.size(); from += atOnce) {
      List<RecordId> some = all.subList(from, Math.min(all.size(), from + atOnce));
      records.lock(some);
      project(act, world, records.load(some, false));
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

  private void keepInputs(
      Act act,
      List<WorkRecord> loaded,
      Map<RecordId, List<Projector.Projected>> projected,
      Set<RecordId> of) {
    List<InputStore.Read> reads = new ArrayList<>();
    List<RecordId> older = new ArrayList<>();
    for (WorkRecord record : loaded) {
      if (of.contains(record.id())) {
        for (ProjectionInputs.Input input :
            ProjectionInputs.of(record, projected.get(record.id()))) {
          reads.add(new InputStore.Read(record.id(), input.kind(), input.id()));
        }
        if (!act.hasMade(record.id())) {
          older.add(record.id());
        }
      }
    }
    if (!older.isEmpty() || !reads.isEmpty()) {
      inputs.keep(older, reads);
    }
  }
}
