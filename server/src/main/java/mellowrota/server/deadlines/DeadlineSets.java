package mellowrota.server.deadlines;

import static mellowrota.server.platform.Words.say;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.deadline.Name;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.Kind;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Undoes;
import mellowrota.server.deadlines.store.ChainStore;
import mellowrota.server.deadlines.store.DeadlineSetStore;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.OwnRecords;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Service;
import tools.jackson.databind.JsonNode;

/**
 * Sets of deadlines: made, moved and taken off, each time whole and in one act, as their {@link
 * DeadlineSetPlan} says. They are the coordinators' to change.
 */
@Service
@RequiredArgsConstructor
public class DeadlineSets implements Undoes {

  private final DeadlineSetStore store;
  private final ChainStore texts;
  private final Chains chains;
  private final OwnRecords records;
  private final DeadlineSetViews views;
  private final Acts acts;
  private final Worlds worlds;
  private final Clock clock;

  /** A set that is wanted. */
  record Making(long chain, KeptSet.Belongs to, KeptSet.State begun, DeadlineSetChange change) {}

  /** What is wanted of a set, as it was seen. */
  record Moving(long set, IfMatch match, DeadlineSetChange change, JsonNode body) {}

  /** What was done, with the sets it made or changed. */
  public record Saved(Acts.Done done, List<Long> sets) {
    static Saved of(Acts.Done done) {
      return new Saved(
          done,
          Stream.of(done.answer().split(","))
              .filter(one -> !one.isEmpty())
              .map(Long::valueOf)
              .toList());
    }

    static String answer(Collection<Long> sets) {
      return sets.stream().map(String::valueOf).collect(Collectors.joining(","));
    }
  }

  // ---- What is read ----------------------------------------------------------------------------

  /** What these sets rest on, their deadlines among it. */
  Ground ground(World world, Instant now, List<KeptSet> sets, boolean forUpdate) {
    Ground ground = new Ground(world, now, chains);
    Set<Long> used = new HashSet<>();
    Set<RecordId> about = new TreeSet<>();
    for (KeptSet set : sets) {
      used.add(set.state().chainVersion());
      set.to().record().ifPresent(about::add);
      set.state().lines().forEach(line -> line.record().ifPresent(about::add));
    }
    ground.take(texts.versions(used));
    ground.take(texts.latest(sets.stream().map(KeptSet::chain).collect(Collectors.toSet())));
    ground.take(records.load(about, forUpdate).stream());
    return ground;
  }

  /**
   * What sets that are to be made rest on; of the work that is named what this person may open, and
   * sees all of that dates and people of deadlines tell.
   */
  Ground ground(
      World world,
      Person asker,
      Instant now,
      Collection<Long> chainsOf,
      Collection<RecordId> about) {
    Ground ground = new Ground(world, now, chains);
    ground.take(texts.latest(chainsOf));
    ground.take(records.seen(world, asker, new TreeSet<>(about), DeadlineSetViews.TOLD).stream());
    return ground;
  }

  List<Chains.KeptMethod> methods() {
    return chains.methods();
  }

  List<KeptSet> load(Collection<Long> ids) {
    return store.load(ids, false);
  }

  List<Long> after(long number, int most) {
    return store.after(number, most);
  }

  /** What is told of sets, in their order; of those somebody may know nothing of nothing. */
  List<DeadlineSetViews.SetView> told(World world, Person asker, List<Long> ids, boolean sums) {
    List<KeptSet> all = store.load(ids, false);
    Ground ground = ground(world, clock.instant(), all, false);
    return views.told(ground, present(ground, all), asker, sums);
  }

  /** One set with its sums, as far as this person may know of it. */
  Optional<DeadlineSetViews.SetView> one(World world, Person asker, long id) {
    return told(world, asker, List.of(id), true).stream().findFirst();
  }

  private static List<KeptSet> present(Ground ground, List<KeptSet> sets) {
    return sets.stream().map(ground::present).toList();
  }

  /** The sets around a record, as far as this person may know of them. */
  List<DeadlineSetViews.SetView> around(World world, Person asker, RecordId record) {
    records.requireOpens(world, asker, record);
    return told(world, asker, store.around(List.of(record)), true);
  }

  // ---- Acts ------------------------------------------------------------------------------------

  /** Makes sets, as what was sent says of the house as it is when they are made. */
  public Saved make(PersonId asker, Optional<String> key, JsonNode body) {
    return Saved.of(
        acts.run(
            Acts.Wanted.by(asker, "deadlines.make", key, body.toString()),
            act -> {
              World world = worlds.locked(act.worldVersion());
              DeadlineSetInput.Makings wanted =
                  DeadlineSetInput.makings(this, world, world.person(asker), act.at(), body);
              act.because(wanted.reason());
              List<DeadlineSetPlan> plans =
                  wanted.all().stream().map(one -> plan(wanted.ground(), one, asker)).toList();
              List<KeptSet.State> states = keep(act, world, plans);
              List<Long> made = new ArrayList<>();
              for (int i = 0; i < plans.size(); i++) {
                Making one = wanted.all().get(i);
                made.add(store.add(one.chain(), one.to(), states.get(i)));
              }
              return Saved.answer(made);
            }));
  }

  static DeadlineSetPlan plan(Ground ground, Making one, PersonId asker) {
    return DeadlineSetPlan.making(ground, one.to(), one.begun(), one.change(), asker);
  }

  /** Changes sets that are still as they were seen. */
  public Saved move(PersonId asker, Optional<String> key, JsonNode body) {
    return change(asker, "deadlines.move", key, body, () -> DeadlineSetInput.movings(this, body));
  }

  /** Takes sets off that are still as they were seen, with all that is not done. */
  Saved takeOff(PersonId asker, Optional<String> key, JsonNode body) {
    return change(asker, "deadlines.off", key, body, () -> DeadlineSetInput.offs(this, body));
  }

  private Saved change(
      PersonId asker,
      String kind,
      Optional<String> key,
      JsonNode body,
      Supplier<DeadlineSetInput.Movings> read) {
    return Saved.of(
        acts.run(
            Acts.Wanted.by(asker, kind, key, body.toString()),
            act -> {
              World world = worlds.locked(act.worldVersion());
              DeadlineSetInput.Movings wanted = read.get();
              act.because(wanted.reason());
              List<KeptSet> sets = found(wanted, true);
              Ground ground = ground(world, act.at(), sets, true);
              Map<KeptSet, DeadlineSetPlan> plans =
                  plans(ground, sets, wanted, world.person(asker));
              plans.entrySet().removeIf(one -> !one.getValue().changes(one.getKey().state()));
              Iterator<KeptSet.State> states = keep(act, world, plans.values()).iterator();
              plans.keySet().forEach(set -> store.write(set, states.next()));
              return Saved.answer(plans.keySet().stream().map(KeptSet::id).toList());
            }));
  }

  /** The sets that are named, each once. */
  List<KeptSet> found(DeadlineSetInput.Movings wanted, boolean forUpdate) {
    List<Long> ids = wanted.all().stream().map(Moving::set).toList();
    List<KeptSet> sets =
        store.load(ids, forUpdate).stream().filter(one -> !one.state().isOff()).toList();
    if (sets.size() < ids.size()) {
      throw Problem.notFound();
    }
    return sets;
  }

  /**
   * What becomes of each, where it is still as its changer saw it.
   *
   * @throws Problem where something of it is hidden from its changer: what becomes of it would tell
   */
  Map<KeptSet, DeadlineSetPlan> plans(
      Ground ground, List<KeptSet> found, DeadlineSetInput.Movings wanted, Person asker) {
    List<KeptSet> sets = present(ground, found);
    Map<Long, Moving> moves = new HashMap<>();
    wanted.all().forEach(one -> moves.put(one.set(), one));
    Map<Long, DeadlineSetViews.SetView> seen =
        views.changeable(ground, sets, asker, set -> !moves.get(set.id()).match().isAny());
    Map<KeptSet, DeadlineSetPlan> plans = new LinkedHashMap<>();
    for (KeptSet set : sets) {
      Moving move = moves.get(set.id());
      DeadlineSetViews.SetView theirs = seen.get(set.id());
      if (theirs != null) {
        move.match().require(theirs.tag(), theirs, move.body());
      }
      wanted.requireFits(ground, set, move.change());
      plans.put(set, DeadlineSetPlan.changing(ground, set, move.change(), asker.id()));
    }
    return plans;
  }

  /**
   * Makes and changes the deadlines, all that are new first: the session writes what is kept of
   * changes together, and that of new ones must find them there.
   *
   * @return the state each comes to, with the numbers of its deadlines that are new
   */
  private List<KeptSet.State> keep(Act act, World world, Collection<DeadlineSetPlan> plans) {
    List<KeptSet.State> states = made(act, world, plans);
    for (DeadlineSetPlan plan : plans) {
      for (DeadlineSetPlan.Deadline one : plan.deadlines()) {
        if (!one.isMade() && one.changes()) {
          records.change(act, world, one.before().get(), one.after().get());
        }
      }
    }
    return states;
  }

  private List<KeptSet.State> made(Act act, World world, Collection<DeadlineSetPlan> plans) {
    long count =
        plans.stream()
            .flatMap(plan -> plan.deadlines().stream())
            .filter(DeadlineSetPlan.Deadline::isMade)
            .count();
    Iterator<RecordStore.Numbers> numbers = records.reserve(Kind.DEADLINE, (int) count);
    List<KeptSet.State> states = new ArrayList<>();
    for (DeadlineSetPlan plan : plans) {
      Map<Name, RecordId> made = new HashMap<>();
      for (DeadlineSetPlan.Deadline one : plan.deadlines()) {
        if (one.isMade()) {
          WorkRecord record =
              records.make(
                  act, world, world.person(act.actor()), one.after().get(), numbers.next());
          made.put(one.step(), record.id());
        }
      }
      KeptSet.State next = plan.next();
      states.add(
          next.withLines(
                  next.lines().stream()
                      .map(
                          line ->
                              made.containsKey(line.step())
                                  ? line.withRecord(Optional.of(made.get(line.step())))
                                  : line)
                      .toList())
              .withAct(act.id()));
    }
    return states;
  }

  // ---- Back ------------------------------------------------------------------------------------

  @Override
  public boolean knows(long act) {
    return !store.changedBy(act).isEmpty();
  }

  @Override
  public boolean mayUndo(PersonId asker, long act) {
    return worlds.now().person(asker).isCoordinator();
  }

  /**
   * Puts back what an act made of sets, whole: each is as it was before, and what it made comes
   * off. What was done since stays done, with its date.
   *
   * @throws Problem where one of them was changed since
   */
  @Override
  public Acts.Done undo(PersonId asker, long undone, Optional<String> key) {
    Acts.Wanted wanted =
        Acts.Wanted.by(asker, "deadlines.undo", key, Long.toString(undone)).undoing(undone);
    return acts.run(
        wanted,
        act -> {
          World world = worlds.locked(act.worldVersion());
          List<Long> ids = store.changedBy(undone);
          for (KeptSet set : store.load(ids, true)) {
            if (set.state().act() != undone) {
              throw Problem.of(409, "changed-meanwhile", say("deadlines.changed-since"));
            }
            KeptSet.State back =
                store
                    .version(set.id(), set.no() - 1)
                    .map(before -> before.withAct(act.id()))
                    .orElseGet(() -> set.state().withOff(true).withAct(act.id()));
            store.write(set, back);
          }
          for (WorkRecord record : records.load(records.changedBy(undone), true)) {
            if (!record.isDone()) {
              records.takeBack(act, world, undone, record);
            }
          }
          return Saved.answer(ids);
        });
  }
}
