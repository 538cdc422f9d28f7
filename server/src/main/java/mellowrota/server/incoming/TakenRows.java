package mellowrota.server.incoming;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Act;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What rows of files said when they were taken, and what became of them. */
@Component
class TakenRows {

  private static final JsonMapper JSON = JsonMapper.shared();
  private static final TypeReference<Map<String, String>> CELLS = new TypeReference<>() {};

  private final JdbcClient jdbc;

  TakenRows(JdbcClient jdbc) {
    this.jdbc = jdbc;
  }

  /**
   * A row as it was taken last.
   *
   * @param target the number of the record, person or place it became
   * @param undone whether that act was taken back, so that its cells no longer hold
   */
  record Taken(long target, Map<String, String> cells, boolean undone) {}

  /**
   * The rows taken from there before, by their ids there.
   *
   * @param records of rows of work only those that became one of these
   */
  Map<String, Taken> find(
      Field.What what, String source, Collection<String> ids, Collection<RecordId> records) {
    Map<String, Taken> found = new HashMap<>();
    jdbc.sql(
            """
            select t.source_id, coalesce(t.record, t.person, t.place), t.cells,
              exists (select 1 from act u where u.undoes = t.act)
            from taken_row t where t.what = ? and t.source = ? and t.source_id = any(?)
              and (t.of_record = 0 or t.of_record = any(?))
            """)
        .param(what.name())
        .param(source)
        .param(ids.toArray(String[]::new))
        .param(records.stream().map(RecordId::value).toArray(Long[]::new))
        .query(
            row -> {
              Map<String, String> cells = JSON.readValue(row.getString(3), CELLS);
              found.put(row.getString(1), new Taken(row.getLong(2), cells, row.getBoolean(4)));
            });
    return found;
  }

  /** Keeps what a row said; cells of columns that this file lacks stay as they were. */
  void remember(
      Act act, Field.What what, String source, String id, long target, Map<String, String> cells) {
    String column =
        switch (what) {
          case RECORDS -> "record";
          case PEOPLE -> "person";
          case PLACES -> "place";
        };
    act.later()
        .add(
            """
            insert into taken_row (what, source, source_id, cells, act, of_record, %s)
            values (?, ?, ?, ?::jsonb, ?, ?, ?)
            on conflict (what, source, source_id, of_record) do update
            set cells = taken_row.cells || excluded.cells, act = excluded.act
            """
                .formatted(column),
            what.name(),
            source,
            id,
            JSON.writeValueAsString(cells),
            act.id(),
            what == Field.What.RECORDS ? target : 0,
            target);
  }
}
