package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.change.FieldChange;
import mellowrota.core.change.RecordField;
import mellowrota.core.change.RecordFields;
import mellowrota.core.change.Undo;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.store.ActStore;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Service;

/** Takes back acts on records, as far as nobody changed their values since. */
@Service
@RequiredArgsConstructor
public class Undoing {

  private final Acts acts;
  private final Worlds worlds;
  private final Records records;
  private final RecordStore store;
  private final RecordAccess access;
  private final Histories histories;
  private final ActStore known;

  /** Takes back an act on one record or many, as one act. */
  public Records.Saved undo(PersonId asker, long actId, Optional<String> key) {
    requireMayKnow(asker, actId);
    Acts.Wanted wanted =
        Acts.Wanted.by(asker, "record.undo", key, Long.toString(actId)).undoing(actId);
    return Records.Saved.of(acts.run(wanted, act -> undo(act, actId)), Optional.empty());
  }

  /** Before anything else is told of the act: even that it was undone already. */
  private void requireMayKnow(PersonId asker, long actId) {
    World world = worlds.now();
    List<RecordId> ids = store.changedBy(actId);
    boolean isTheirs = known.isBy(actId, asker.value());
    List<RecordAccess.Standing> standings =
        access.standings(world, world.person(asker), store.load(ids, false));
    if (ids.isEmpty() || !standings.stream().allMatch(RecordAccess.Standing::opens)) {
      throw Problem.notFound();
    }
    for (RecordAccess.Standing one : standings) {
      if (!isTheirs && !one.isOffice()) {
        boolean knows = histories.of(one).stream().anyMatch(told -> told.act() == actId);
        throw knows ? Problem.forbidden(say("records.only-the-person-who")) : Problem.notFound();
      }
    }
  }

  private String undo(Act act, long actId) {
    World world = worlds.locked(act.worldVersion());
    List<RecordId> ids = store.changedBy(actId);
    boolean isTheirs = known.isBy(actId, act.actor().value());
    Set<String> leaves = new TreeSet<>();
    for (WorkRecord before : store.load(ids, true)) {
      RecordAccess.Standing standing = access.standing(world, world.person(act.actor()), before);
      if (!standing.opens()) {
        throw Problem.notFound();
      }
      List<FieldChange> done = store.changes(actId, before.id());
      if (!standing.isOffice()) {
        if (!isTheirs) {
          throw Problem.notFound();
        }
        Permits.require(standing, permitNames(done));
      }
      Undo undo = of(done, before);
      records.save(act, world, before, RecordFields.apply(before, undo.takesBack()), "");
      for (String field : undo.leaves()) {
        boolean told =
            RecordFields.forWhom(world.details(), before, field).allows(standing.capacities());
        leaves.add(told ? HistoryWords.label(world, field) : say("records.something-you-may-not"));
      }
    }
    return Records.Saved.answer(ids, List.copyOf(leaves));
  }

  /** What takes back what an act did to a record. */
  static Undo of(List<FieldChange> done, WorkRecord now) {
    return made(done) ? calledOff(now) : Undo.of(done, RecordFields.flatten(now));
  }

  /** Whether the act made the record: its state came from nothing. */
  private static boolean made(List<FieldChange> done) {
    return done.stream()
        .anyMatch(
            change -> change.field().equals(RecordField.STATE.kept()) && change.before().isEmpty());
  }

  /** What was made is called off: the entries go, the record and its identifiers stay. */
  private static Undo calledOff(WorkRecord now) {
    String called = State.CANCELLED + "/" + State.CANCELLED;
    RecordField state = RecordField.STATE;
    return new Undo(List.of(new FieldChange(state.kept(), state.print(now), called)), List.of());
  }

  private static Set<String> permitNames(List<FieldChange> changes) {
    return changes.stream()
        .map(FieldChange::field)
        .map(
            field ->
                RecordField.named(field)
                    .map(RecordField::api)
                    .orElseGet(
                        () ->
                            RecordFields.isForWhom(field) ? field : RecordFields.key(field).name()))
        .collect(Collectors.toSet());
  }
}
