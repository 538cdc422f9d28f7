package mellowrota.server.cover;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.records.PlannedCheck;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;

/** Tries many records that come together. */
@Component
@RequiredArgsConstructor
class PlannedTrial implements PlannedCheck {

  private final SaveTrial trial;
  private final TrialViews views;

  @Override
  public Map<Integer, String> refused(World world, Person asker, List<Planned> planned) {
    List<SaveTrial.Change> all = new ArrayList<>();
    for (Planned row : planned) {
      // A new one has no number yet.
      WorkRecord after =
          row.before().isPresent()
              ? row.after()
              : row.after().with().called(RecordId.of(-1L - all.size()), row.after().ref()).build();
      all.add(new SaveTrial.Change(row.before(), after));
    }
    Map<Integer, String> refused = new LinkedHashMap<>();
    SaveTrial.Touched touched = trial.touched(world, all);
    if (touched.isNothing()) {
      return refused;
    }
    CrewTimes.Around others = trial.others(world, touched);
    while (true) {
      SaveTrial.Found found = trial.find(touched, others);
      Map<Integer, List<Clash>> now = blamed(all, found.clashes());
      if (now.isEmpty()) {
        return refused;
      }
      now.forEach(
          (at, clashes) -> {
            refused.put(at, String.join(" ", views.of(world, asker, found, clashes).says()));
            // It stays as it is, or is not made.
            SaveTrial.Change one = all.get(at);
            WorkRecord left =
                one.before().orElseGet(() -> one.after().with().state(State.CANCELLED).build());
            all.set(at, new SaveTrial.Change(one.before(), left));
          });
      touched = trial.touched(world, all);
    }
  }

  /** The last of those in each clash, unless one that is blamed before is in it. */
  private static Map<Integer, List<Clash>> blamed(List<SaveTrial.Change> all, List<Clash> clashes) {
    TreeMap<Integer, List<Clash>> byLast = new TreeMap<>();
    for (Clash clash : clashes) {
      if (clash.level() == Clash.Level.NEVER) {
        int last = all.size() - 1;
        while (!isIn(all.get(last).after(), clash)) {
          last--;
        }
        byLast.computeIfAbsent(last, key -> new ArrayList<>()).add(clash);
      }
    }
    Map<Integer, List<Clash>> found = new LinkedHashMap<>();
    byLast.forEach(
        (at, its) -> {
          List<Clash> stand =
              its.stream()
                  .filter(
                      clash ->
                          found.keySet().stream()
                              .noneMatch(other -> isIn(all.get(other).after(), clash)))
                  .toList();
          if (!stand.isEmpty()) {
            found.put(at, stand);
          }
        });
    return found;
  }

  private static boolean isIn(WorkRecord record, Clash clash) {
    return record.visits().stream().anyMatch(visit -> clash.involves(OnIt.id(record, visit)));
  }
}
