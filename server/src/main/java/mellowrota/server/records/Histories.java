package mellowrota.server.records;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.change.FieldChange;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.sight.World;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/**
 * Reads history. A value is told if the asker might see it then, as what they were then, and may
 * see it now (SIGHT 9); to know the former, the record is taken back act by act.
 */
@Service
public class Histories {

  private static final int MOST_ACTS = 200;
  private final JdbcClient jdbc;
  private final Pasts pasts;

  Histories(JdbcClient jdbc, Pasts pasts) {
    this.jdbc = jdbc;
    this.pasts = pasts;
  }

  private record Row(
      long act,
      Instant at,
      long actor,
      String kind,
      String reason,
      boolean undone,
      FieldChange change,
      ForSet forThen) {}

  /** What was done to the record, newest first. */
  public List<HistoryView> of(RecordAccess.Standing standing) {
    Map<Long, List<Row>> byAct = new LinkedHashMap<>();
    for (Row row : rows(standing.record().id().value())) {
      byAct.computeIfAbsent(row.act(), key -> new ArrayList<>()).add(row);
    }
    List<HistoryView> told = new ArrayList<>();
    Pasts.Past past = pasts.of(standing);
    WorkRecord after = standing.record();
    for (List<Row> act : byAct.values()) {
      WorkRecord before = takenBack(after, act);
      List<HistoryView.ChangeView> changes = new ArrayList<>();
      for (Row row : act) {
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
      Pasts.Past past,
      Row row,
      WorkRecord before,
      WorkRecord after) {
    World world = standing.world();
    String field = row.change().field();
    if (!standing.allows(RecordFields.forWhom(world.details(), standing.record(), field))) {
      return Optional.empty();
    }
    boolean old = before != null && past.allows(before, row.forThen(), row.act(), row.at());
    boolean fresh = past.allows(after, row.forThen(), row.act(), row.at());
    String was = old ? HistoryWords.value(world, field, row.change().before()) : "";
    String became = fresh ? HistoryWords.value(world, field, row.change().after()) : "";
    return (old || fresh) && !(was.isEmpty() && became.isEmpty())
        ? Optional.of(new HistoryView.ChangeView(HistoryWords.label(world, field), was, became))
        : Optional.empty();
  }

  private static HistoryView view(
      RecordAccess.Standing standing,
      Pasts.Past past,
      Row row,
      WorkRecord after,
      List<HistoryView.ChangeView> changes) {
    boolean own = row.actor() == standing.person().id().value();
    String who =
        row.actor() == 0
            ? "the house"
            : standing
                .world()
                .crew()
                .person(PersonId.of(row.actor()))
                .map(p -> p.name())
                .orElse("");
    boolean mayUndo = !row.undone() && (standing.isOffice() || own);
    boolean because = own || standing.isOffice() && past.isOffice(after, row.act(), row.at());
    String reason = because ? row.reason() : "";
    return new HistoryView(
        row.act(),
        row.at(),
        who,
        row.kind(),
        reason.isEmpty() ? null : reason,
        row.undone(),
        mayUndo,
        changes);
  }

  private static WorkRecord takenBack(WorkRecord record, List<Row> act) {
    List<FieldChange> inverse = new ArrayList<>();
    for (Row row : act) {
      if (row.change().field().equals(RecordFields.STATE) && row.change().before().isEmpty()) {
        return null;
      }
      inverse.add(row.change().inverse());
    }
    return RecordFields.apply(record, inverse);
  }

  private List<Row> rows(long record) {
    return jdbc.sql(
            """
            select a.id, a.at, a.actor, a.kind, a.reason,
              exists (select 1 from act u where u.undoes = a.id), h.field, h.old, h.new, h.for_then
            from history h join act a on a.id = h.act
            where h.record = ? and h.act in (
              select distinct act from history where record = ? order by act desc limit ?)
            order by a.id desc, h.id
            """)
        .param(record)
        .param(record)
        .param(MOST_ACTS)
        .query(
            (r, n) ->
                new Row(
                    r.getLong(1),
                    r.getObject(2, OffsetDateTime.class).toInstant(),
                    r.getLong(3),
                    r.getString(4),
                    r.getString(5),
                    r.getBoolean(6),
                    new FieldChange(r.getString(7), r.getString(8), r.getString(9)),
                    new ForSet(r.getLong(10))))
        .list();
  }
}
