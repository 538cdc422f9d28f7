package mellowrota.server.cover;

import static mellowrota.server.platform.Words.say;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.ActWatcher;
import mellowrota.server.acts.Acts;
import mellowrota.server.cover.store.LimitStore;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Component;

/**
 * Refuses an act that makes a clash which the house never allows, or makes one worse; one of a sort
 * for which the house asks for a reason is done with a reason, and stands with it.
 */
@Component
@RequiredArgsConstructor
class NeverClashes implements ActWatcher {

  private final Worlds worlds;
  private final SaveTrial trial;
  private final HouseLimits limits;
  private final TrialViews views;
  private final AssignLock lock;
  private final LimitStore store;

  @Override
  public void watch(Act act) {
    if (act.actor().value() == Acts.THE_HOUSE || act.records().isEmpty()) {
      return;
    }
    World world = worlds.locked(act.worldVersion());
    SaveTrial.Touched touched =
        trial.touched(
            world,
            act.records().values().stream()
                .filter(one -> act.hasMade(one.id()) || act.before(one.id()).isPresent())
                .map(record -> new SaveTrial.Change(act.before(record.id()), record))
                .toList());
    if (touched.isNothing()) {
      return;
    }
    Set<Clash.Kind> asking = limits.askingReason();
    lock.take(touched);
    SaveTrial.Found found = trial.find(world, touched);
    List<Clash> refused =
        found.clashes().stream().filter(one -> one.level() == Clash.Level.NEVER).toList();
    if (!refused.isEmpty()) {
      TrialViews.Told told = views.of(world, world.person(act.actor()), found, refused);
      throw Problem.of(
              409, "clash", say("cover.never-refused") + " " + String.join(" ", told.says()))
          .with("clashes", told.clashes());
    }
    Map<String, Clash> open = new TreeMap<>();
    found.clashes().stream()
        .filter(one -> asking.contains(one.kind()))
        .forEach(one -> open.put(ClashAcceptance.key(one), one));
    if (open.isEmpty()) {
      return;
    }
    open.keySet().removeAll(store.stood().keySet());
    if (!open.isEmpty() && act.reason().isBlank()) {
      TrialViews.Told told =
          views.of(world, world.person(act.actor()), found, List.copyOf(open.values()));
      throw Problem.of(
              409, "reason", say("cover.asks-reason") + " " + String.join(" ", told.says()))
          .with("clashes", told.clashes());
    }
    open.forEach(
        (key, clash) ->
            store.letStand(
                key, clash, new LimitStore.Stood(act.reason(), act.actor(), act.at()), act.id()));
  }
}
