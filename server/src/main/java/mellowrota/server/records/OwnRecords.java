package mellowrota.server.records;

import java.util.Collection;
import java.util.Collections;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.change.FieldChange;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.Person;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Kind;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.Act;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Records that a feature makes and changes itself, as part of an act of its own. */
@Service
@RequiredArgsConstructor
public class OwnRecords {

  private final Records records;
  private final RecordStore store;
  private final RecordAccess access;

  /** What is there of these, in the order asked for; locked if they will change. */
  public List<WorkRecord> load(Collection<RecordId> ids, boolean forUpdate) {
    return store.load(ids, forUpdate);
  }

  /** Those of these that somebody may open, and of which they see all these details. */
  public List<WorkRecord> seen(
      World world, Person asker, Collection<RecordId> ids, Set<DetailKey> details) {
    return access.standings(world, asker, store.load(ids, false)).stream()
        .filter(RecordAccess.Standing::opens)
        .filter(one -> details.stream().allMatch(one::sees))
        .map(RecordAccess.Standing::record)
        .toList();
  }

  /**
   * Goes on where somebody may open a record.
   *
   * @throws Problem 404 where they may not, or there is none such
   */
  public void requireOpens(World world, Person asker, RecordId id) {
    store
        .find(id, false)
        .map(record -> access.standing(world, asker, record))
        .filter(RecordAccess.Standing::opens)
        .orElseThrow(Problem::notFound);
  }

  /** Takes numbers and refs for so many new records of a kind. */
  public Iterator<RecordStore.Numbers> reserve(Kind kind, int count) {
    return count == 0 ? Collections.emptyIterator() : store.reserve(kind, count).iterator();
  }

  /**
   * Keeps a new record.
   *
   * @param record has neither a number nor a ref yet
   * @return with both
   * @throws Problem where its author may not make it
   */
  public WorkRecord make(
      Act act, World world, Person author, WorkRecord record, RecordStore.Numbers numbers) {
    WorkRecord made = record.with().called(RecordId.of(numbers.id()), numbers.ref()).build();
    records.insert(act, world, author, made, Optional.empty(), Optional.empty(), "");
    return made;
  }

  /** Keeps a changed record, which was locked; nothing where nothing changed. */
  public void change(Act act, World world, WorkRecord before, WorkRecord after) {
    records.save(act, world, before, after, "");
  }

  /** The records that an act changed, in order. */
  public List<RecordId> changedBy(long act) {
    return store.changedBy(act);
  }

  /** Takes back what an act did to a record, as far as nobody changed it since. */
  public void takeBack(Act act, World world, long undone, WorkRecord now) {
    List<FieldChange> done = store.changes(undone, now.id());
    records.save(act, world, now, RecordFields.apply(now, Undoing.of(done, now).takesBack()), "");
  }
}
