package mellowrota.server.incoming.store;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.store.ActStore;
import org.springframework.stereotype.Repository;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What rows of files said when they were taken, and what became of them. */
@Repository
@RequiredArgsConstructor
public class ImportedRows {

  private static final JsonMapper JSON = JsonMapper.shared();
  private static final TypeReference<Map<String, String>> CELLS = new TypeReference<>() {};

  private final EntityManager kept;
  private final ActStore acts;

  /**
   * A row as it was taken last.
   *
   * @param target the number of the record, person or place it became
   * @param undone whether that act was taken back, so that its cells no longer hold
   */
  public record Taken(long target, Map<String, String> cells, boolean undone) {}

  /**
   * The rows taken from there before, by their ids there.
   *
   * @param records of rows of work only those that became one of these
   */
  public Map<String, Taken> find(
      String what, String source, Collection<String> ids, Collection<RecordId> records) {
    List<ImportedRowEntity> rows =
        kept.createQuery(
                """
                from ImportedRowEntity
                where what = :what and source = :source and holds(:ids, sourceId)
                  and (ofRecord = 0 or holds(:records, ofRecord))
                """,
                ImportedRowEntity.class)
            .setParameter("what", what)
            .setParameter("source", source)
            .setParameter("ids", ids.toArray(String[]::new))
            .setParameter("records", records.stream().map(RecordId::value).toArray(Long[]::new))
            .getResultList();
    // They are written past the session, which therefore keeps none of them.
    rows.forEach(kept::detach);
    Set<Long> undone = acts.undone(rows.stream().map(row -> row.act).toList());
    Map<String, Taken> found = new HashMap<>();
    for (ImportedRowEntity row : rows) {
      Map<String, String> cells = JSON.readValue(row.cells, CELLS);
      found.put(row.sourceId, new Taken(row.target(), cells, undone.contains(row.act)));
    }
    return found;
  }

  /**
   * Keeps what a row said; cells of columns that this file lacks stay as they were. Native: HQL
   * lays no JSON over another.
   */
  public void remember(
      Act act, String what, String source, String id, long target, Map<String, String> cells) {
    kept.createNativeQuery(
            """
            insert into taken_row (what, source, source_id, cells, act, of_record, record, person,
              place)
            values (:what, :source, :id, cast(:cells as jsonb), :act,
              case when :what = 'RECORDS' then :target else 0 end,
              case when :what = 'RECORDS' then :target end,
              case when :what = 'PEOPLE' then :target end,
              case when :what = 'PLACES' then :target end)
            on conflict (what, source, source_id, of_record) do update
            set cells = taken_row.cells || excluded.cells, act = excluded.act
            """)
        .setParameter("what", what)
        .setParameter("source", source)
        .setParameter("id", id)
        .setParameter("cells", JSON.writeValueAsString(cells))
        .setParameter("act", act.id())
        .setParameter("target", target)
        .executeUpdate();
  }
}
