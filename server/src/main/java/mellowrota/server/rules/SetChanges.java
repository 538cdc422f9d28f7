package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;

import java.time.Duration;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Undoes;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import mellowrota.server.rules.store.ChangeStore;
import mellowrota.server.rules.store.PreviewStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Service;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Puts a set of rules, wordings and details in force, and takes that back: never what was not
 * looked at. In a large house the records follow in the background, see {@link SetWork}.
 */
@Service
@RequiredArgsConstructor
class SetChanges implements Undoes {

  private static final Duration LONGEST_ACT = Duration.ofSeconds(30);

  private final RuleSets sets;
  private final PreviewRuns looks;
  private final Previews previews;
  private final SetWork work;
  private final Acts acts;
  private final Worlds worlds;
  private final ChangeStore changes;
  private final JsonMapper json;

  /** Takes the set, if it was looked at and nothing since makes it show more. */
  Acts.Done take(Asker asker, Optional<String> key, String body, RuleSet set) {
    return acts.run(
        Acts.Wanted.by(asker.person(), "rules.change", key, body).changingTheWorld(),
        act -> {
          requireFresh(set);
          requireNothingUnderWay();
          World world = worlds.now();
          PreviewStore.Finished look =
              looks.finished(asker.person(), world, set).orElseThrow(SetChanges::lookFirst);
          List<RecordId> changed = changedSince(look);
          Previews.Part since = Previews.Part.of(changed.size());
          previews.add(
              since, world, sets.worldWith(world, set), set.from(), changed, asker.person());
          if (!look.shows().containsAll(PreviewRuns.shows(since.sum()))) {
            throw lookFirst();
          }
          Set<RecordId> touched = new TreeSet<>(look.touched());
          touched.addAll(since.touched());
          change(act, touched, set, set.from());
          return "";
        });
  }

  private static Problem lookFirst() {
    return Problem.of(409, "look-first", say("rules.preview-this-first-then"));
  }

  /** Records that changed or were made since a look, or a little before: acts take their time. */
  private List<RecordId> changedSince(PreviewStore.Finished look) {
    return previews.changedSince(look.at().minus(LONGEST_ACT));
  }

  /**
   * One change goes through the records at a time, so that each begins where the last one ended.
   */
  private void requireNothingUnderWay() {
    Optional<SetViews.WorkView> under = work.now();
    if (under.isPresent()) {
      throw Problem.of(409, "still-being-done", say("rules.the-last-change-is"));
    }
  }

  /**
   * Keeps the set and brings the records along: few of them in this act, many in its work.
   *
   * @param touched which change, where they are few
   */
  private void change(
      Act act, Collection<RecordId> touched, RuleSet set, Optional<LocalDate> from) {
    JsonNode before = sets.now();
    sets.write(set);
    long total = previews.count();
    boolean few = total <= previews.inOneAct();
    if (few) {
      act.reaches(touched);
    }
    changes.add(
        new ChangeStore.Change(
            act.id(),
            before.toString(),
            sets.now().toString(),
            few ? ChangeStore.State.DONE : ChangeStore.State.RUNNING,
            from,
            0,
            0,
            total,
            0));
    if (!few) {
      work.beginAfterCommit();
    }
  }

  /** Somebody else's change is never written over. */
  void requireFresh(RuleSet set) {
    if (!set.tag().equals(RuleSets.tag(sets.now()))) {
      throw Problem.of(412, "changed-meanwhile", say("rules.somebody-else-has-changed"));
    }
  }

  @Override
  public boolean knows(long act) {
    return changes.find(act).isPresent();
  }

  @Override
  public boolean mayUndo(PersonId asker, long act) {
    return worlds.now().person(asker).isCoordinator();
  }

  /** Puts back the set from before an act, if nobody changed it since. */
  @Override
  public Acts.Done undo(PersonId asker, long undone, Optional<String> key) {
    Acts.Wanted wanted =
        Acts.Wanted.by(asker, "rules.undo", key, Long.toString(undone))
            .changingTheWorld()
            .undoing(undone);
    return acts.run(
        wanted,
        act -> {
          World world = worlds.now();
          if (!world.person(act.actor()).isCoordinator()) {
            throw Problem.notFound();
          }
          ChangeStore.Change row = changes.find(undone).orElseThrow();
          // Read alike, so that numbers are of one sort.
          if (!json.readTree(row.after()).equals(json.readTree(sets.now().toString()))) {
            throw Problem.of(409, "changed-since", say("rules.the-rules-or-wordings"));
          }
          changes.ended(undone, ChangeStore.State.UNDONE);
          RuleSet past = sets.past(json.readTree(row.before()));
          change(act, touched(world, past), past, Optional.empty());
          return "";
        });
  }

  /** All that a set changes, where the records are few; else its work finds them. */
  private List<RecordId> touched(World world, RuleSet set) {
    if (previews.count() > previews.inOneAct()) {
      return List.of();
    }
    return previews.touched(
        world,
        sets.worldWith(world, set),
        Optional.empty(),
        previews.after(0, previews.inOneAct()));
  }
}
