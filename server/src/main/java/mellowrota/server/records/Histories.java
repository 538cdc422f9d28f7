package mellowrota.server.records;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mellowrota.core.change.FieldChange;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.PersonId;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.sight.World;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/**
 * Reads history. A value is told if the asker might see it then, in the capacities they had then,
 * and may see it now (SIGHT 9); to know the former, the record is taken back act by act.
 */
@Service
public class Histories {

  private static final int MOST_ACTS = 200;
  private final JdbcClient jdbc;

  Histories(JdbcClient jdbc) {
    this.jdbc = jdbc;
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
    WorkRecord then = standing.record();
    for (List<Row> act : byAct.values()) {
      Capacities after = capacities(standing, then);
      WorkRecord earlier = takenBack(then, act);
      Capacities before = earlier == null ? after : capacities(standing, earlier);
      List<HistoryView.ChangeView> changes = new ArrayList<>();
      for (Row row : act) {
        if (mayTell(standing, row, before, after)) {
          HistoryView.ChangeView words = words(standing.world(), row.change());
          if (!words.before().isEmpty() || !words.after().isEmpty()) {
            changes.add(words);
          }
        }
      }
      if (!changes.isEmpty()) {
        told.add(view(standing, act.get(0), changes));
      }
      then = earlier == null ? then : earlier;
    }
    return told;
  }

  private static HistoryView.ChangeView words(World world, FieldChange change) {
    return new HistoryView.ChangeView(
        HistoryWords.label(world, change.field()),
        HistoryWords.value(world, change.field(), change.before()),
        HistoryWords.value(world, change.field(), change.after()));
  }

  private static HistoryView view(
      RecordAccess.Standing standing, Row row, List<HistoryView.ChangeView> changes) {
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
    String reason = standing.isOffice() || own ? row.reason() : "";
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

  private static boolean mayTell(
      RecordAccess.Standing standing, Row row, Capacities before, Capacities after) {
    ForSet now =
        RecordFields.forWhom(standing.world().details(), standing.record(), row.change().field());
    boolean then = row.forThen().allows(before) || row.forThen().allows(after);
    return then && standing.allows(now);
  }

  private static Capacities capacities(RecordAccess.Standing standing, WorkRecord record) {
    return RecordReaders.of(record, standing.world().crew()).of(standing.person());
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
