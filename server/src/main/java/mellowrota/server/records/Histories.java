package mellowrota.server.records;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.change.FieldChange;
import mellowrota.core.change.RecordField;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/**
 * Reads history. A value is told if the asker might see it then, as what they were then, and may
 * see it now (SIGHT 9); to know the former, the record is taken back act by act.
 */
@Service
@RequiredArgsConstructor
public class Histories {

  private static final int MOST_ACTS = 200;
  private final RecordStore store;
  private final PastStanding pasts;

  /** What was done to the record, newest first. */
  public List<HistoryView> of(RecordAccess.Standing standing) {
    return of(List.of(standing)).get(standing.record().id());
  }

  /** What was done to each of these records, newest first; all towards one asker. */
  public Map<RecordId, List<HistoryView>> of(List<RecordAccess.Standing> standings) {
    if (standings.isEmpty()) {
      return Map.of();
    }
    Map<Long, List<RecordStore.Happened>> rows =
        store.history(standings.stream().map(one -> one.record().id()).toList(), MOST_ACTS).stream()
            .collect(Collectors.groupingBy(RecordStore.Happened::record));
    PastStanding.Past past = pasts.of(standings.get(0));
    Map<RecordId, List<HistoryView>> told = new HashMap<>();
    for (RecordAccess.Standing one : standings) {
      RecordId record = one.record().id();
      told.put(record, told(one, past, rows.getOrDefault(record.value(), List.of())));
    }
    return told;
  }

  private static List<HistoryView> told(
      RecordAccess.Standing standing, PastStanding.Past past, List<RecordStore.Happened> rows) {
    Map<Long, List<RecordStore.Happened>> byAct = new LinkedHashMap<>();
    for (RecordStore.Happened row : rows) {
      byAct.computeIfAbsent(row.act(), key -> new ArrayList<>()).add(row);
    }
    List<HistoryView> told = new ArrayList<>();
    WorkRecord after = standing.record();
    for (List<RecordStore.Happened> act : byAct.values()) {
      WorkRecord before = takenBack(after, act);
      List<HistoryView.ChangeView> changes = new ArrayList<>();
      for (RecordStore.Happened row : act) {
        change(standing, past, row, before, after).ifPresent(changes::add);
      }
      if (!changes.isEmpty()) {
        told.add(view(standing, past, act.get(0), after, changes));
      }
      after = before == null ? after : before;
    }
    return told;
  }

  /**
   * A value is told if it was allowed then and is now; a value of a draft, or of private work, is
   * of those who might open that.
   *
   * @param before as the record was before the act; null where the act made it
   */
  private static Optional<HistoryView.ChangeView> change(
      RecordAccess.Standing standing,
      PastStanding.Past past,
      RecordStore.Happened row,
      WorkRecord before,
      WorkRecord after) {
    World world = standing.world();
    String field = row.change().field();
    if (!standing.allows(RecordFields.forWhom(world.details(), standing.record(), field))) {
      return Optional.empty();
    }
    boolean old =
        before != null && past.allows(before, new ForSet(row.forThen()), row.act(), row.at());
    boolean fresh = past.allows(after, new ForSet(row.forThen()), row.act(), row.at());
    String was = old ? HistoryWords.value(world, field, before) : "";
    String became = fresh ? HistoryWords.value(world, field, after) : "";
    return (old || fresh) && !(was.isEmpty() && became.isEmpty())
        ? Optional.of(new HistoryView.ChangeView(HistoryWords.label(world, field), was, became))
        : Optional.empty();
  }

  private static String who(RecordAccess.Standing standing, RecordStore.Happened row) {
    PersonId actor = PersonId.of(row.actor());
    return row.actor() == 0
        ? "the house"
        : standing.world().crew().person(actor).map(Person::name).orElse("");
  }

  private static HistoryView view(
      RecordAccess.Standing standing,
      PastStanding.Past past,
      RecordStore.Happened row,
      WorkRecord after,
      List<HistoryView.ChangeView> changes) {
    boolean own = row.actor() == standing.person().id().value();
    boolean mayUndo = !row.undone() && (standing.isOffice() || own);
    boolean because = own || standing.isOffice() && past.isOffice(after, row.act(), row.at());
    String reason = because ? row.reason() : "";
    return new HistoryView(
        row.act(),
        row.at(),
        who(standing, row),
        row.kind(),
        reason.isEmpty() ? null : reason,
        row.undone(),
        mayUndo,
        changes);
  }

  private static WorkRecord takenBack(WorkRecord record, List<RecordStore.Happened> act) {
    List<FieldChange> inverse = new ArrayList<>();
    for (RecordStore.Happened row : act) {
      if (row.change().field().equals(RecordField.STATE.kept())
          && row.change().before().isEmpty()) {
        return null;
      }
      inverse.add(row.change().inverse());
    }
    return RecordFields.apply(record, inverse);
  }
}
