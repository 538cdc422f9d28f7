package mellowrota.server.calendars;

import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.Family;
import mellowrota.core.entry.Uid;
import mellowrota.core.project.Difference;
import mellowrota.core.project.Projector;
import mellowrota.core.sight.Face;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Act;
import mellowrota.server.platform.Writes;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/**
 * Writes what a projection says. The touched calendars' rows are locked in id order and give the
 * change numbers, so that a number never becomes visible after a later one.
 */
@Service
public class EntryStore {

  private static final int MANY = 16;

  private static final String UPDATE =
      """
      update entry e set state = 'LIVE', sequence = u.sequence, starts = u.starts, ends = u.ends,
        rules = u.rules, change_no = u.change_no
      from %s u(sequence, starts, ends, rules, change_no, id) where e.id = u.id
      """;

  private static final List<String> UPDATED =
      List.of("int", "timestamptz", "timestamptz", "text", "bigint", "bigint");

  private static final String INSERT_ENTRIES =
      """
      insert into entry (id, record, visit, calendar, family, uid, sequence, state, starts,
        ends, rules, change_no) overriding system value
      """;

  private static final List<String> ENTRY_TYPES =
      List.of(
          "bigint",
          "bigint",
          "int",
          "bigint",
          "text",
          "text",
          "int",
          "text",
          "timestamptz",
          "timestamptz",
          "text",
          "bigint");

  private static final String INSERT_FACES =
      """
      insert into face (entry, rendering, live, content, etag, sequence, starts, ends, modified,
        change_no)
      """;

  private static final List<String> FACE_TYPES =
      List.of(
          "bigint",
          "bigint",
          "boolean",
          "text",
          "text",
          "int",
          "timestamptz",
          "timestamptz",
          "timestamptz",
          "bigint");

  private static final String PUT_BACK =
      """
       on conflict (entry, rendering) do update set live = true, content = excluded.content,
        etag = excluded.etag, sequence = excluded.sequence, starts = excluded.starts,
        ends = excluded.ends, modified = excluded.modified, change_no = excluded.change_no,
        ics = null
      """;

  private final JdbcClient jdbc;
  private final JdbcTemplate template;
  private final ChangeNumbers numbers;
  private final EntryIds entryIds;

  EntryStore(JdbcClient jdbc, JdbcTemplate template, ChangeNumbers numbers, EntryIds entryIds) {
    this.entryIds = entryIds;
    this.jdbc = jdbc;
    this.template = template;
    this.numbers = numbers;
  }

  private record Known(long id, String rules, Difference.StoredEntry entry) {}

  /**
   * Brings the entries of these records to what was projected.
   *
   * @return those that came to stand on other calendars than before
   */
  public Set<RecordId> store(
      Act act, Collection<RecordId> records, List<Projector.Projected> projected) {
    List<RecordId> older = records.stream().filter(id -> !act.hasMade(id)).toList();
    Map<EntryKey, Known> known = older.isEmpty() ? Map.of() : load(older);
    Difference difference =
        Difference.between(known.values().stream().map(Known::entry).toList(), projected);
    keepReasons(act, difference, known, projected);
    if (difference.isEmpty()) {
      return Set.of();
    }
    Map<CalendarId, Integer> touched = new TreeMap<>();
    difference.entries().forEach(change -> touched.merge(change.key().calendar(), 1, Integer::sum));
    touched.forEach((calendar, count) -> act.count(calendar.value(), count));
    // All that can be worked out is, before calendars are locked that many acts touch.
    Rows rows = rows(act, difference, known, ids(difference, known));
    act.later().send(template);
    rows.send(numbers.next(touched.keySet()));
    return difference.entries().stream()
        .filter(change -> change.move() != Difference.Move.CHANGED)
        .map(change -> change.key().record())
        .collect(Collectors.toSet());
  }

  /** An entry may come to stand there by other rules; nobody sees that, so it has no number. */
  private static void keepReasons(
      Act act,
      Difference difference,
      Map<EntryKey, Known> known,
      List<Projector.Projected> projected) {
    Set<EntryKey> changing = new HashSet<>();
    difference.entries().forEach(change -> changing.add(change.key()));
    for (Projector.Projected one : projected) {
      Known before = known.get(one.entry().key());
      String rules = rules(one.entry());
      if (before != null
          && !changing.contains(one.entry().key())
          && !before.rules().equals(rules)) {
        act.later().add("update entry set rules = ? where id = ?", rules, before.id());
      }
    }
  }

  private Map<EntryKey, Known> load(Collection<RecordId> records) {
    Long[] ids = records.stream().map(RecordId::value).toArray(Long[]::new);
    Map<Long, Map<RenderingId, Difference.StoredFace>> faces = new HashMap<>();
    jdbc.sql(
            """
            select f.entry, f.rendering, f.live, f.content, f.sequence
            from face f join entry e on e.id = f.entry where e.record = any(?)
            """)
        .param(ids)
        .query(
            row -> {
              faces
                  .computeIfAbsent(row.getLong(1), key -> new HashMap<>())
                  .put(
                      RenderingId.of(row.getLong(2)),
                      new Difference.StoredFace(
                          row.getBoolean(3), row.getString(4), row.getInt(5)));
            });
    Map<EntryKey, Known> found = new LinkedHashMap<>();
    jdbc.sql(
            """
            select id, record, visit, calendar, family, state, sequence, rules from entry
            where record = any(?) order by id
            """)
        .param(ids)
        .query(
            row -> {
              EntryKey key =
                  new EntryKey(
                      RecordId.of(row.getLong(2)),
                      row.getInt(3),
                      CalendarId.of(row.getLong(4)),
                      Family.valueOf(row.getString(5)));
              found.put(
                  key,
                  new Known(
                      row.getLong(1),
                      row.getString(8),
                      new Difference.StoredEntry(
                          key,
                          row.getString(6).equals("LIVE"),
                          row.getInt(7),
                          faces.getOrDefault(row.getLong(1), Map.of()))));
            });
    return found;
  }

  /** The numbers of the entries that change; taken for new ones before any calendar is locked. */
  private Map<EntryKey, Long> ids(Difference difference, Map<EntryKey, Known> known) {
    Map<EntryKey, Long> ids = new HashMap<>();
    for (Difference.EntryChange change : difference.entries()) {
      Known before = known.get(change.key());
      ids.put(change.key(), before == null ? entryIds.next() : before.id());
    }
    return ids;
  }

  /** A row to write, whose calendar's change number is put at one place when it is known. */
  private record Row(CalendarId calendar, int place, Object... values) {
    Object[] numbered(Map<CalendarId, Long> changeNos) {
      values[place] = changeNos.get(calendar);
      return values;
    }
  }

  /** The rows of a projection, by what becomes of them. */
  private final class Rows {
    final List<Row> newEntries = new ArrayList<>();
    final List<Row> changedEntries = new ArrayList<>();
    final List<Row> goneEntries = new ArrayList<>();
    final List<Row> liveFaces = new ArrayList<>();
    final List<Row> goneFaces = new ArrayList<>();

    void send(Map<CalendarId, Long> changeNos) {
      batch(
          "update entry set state = 'GONE', change_no = ? where id = ?",
          numbered(goneEntries, changeNos));
      batch(
          """
          update face set live = false, modified = ?, change_no = ?, ics = null
          where entry = ? and rendering = ?
          """,
          numbered(goneFaces, changeNos));
      Writes writes = new Writes();
      if (!changedEntries.isEmpty()) {
        writes.addTable(UPDATE, UPDATED, numbered(changedEntries, changeNos));
      }
      add(writes, INSERT_ENTRIES, ENTRY_TYPES, numbered(newEntries, changeNos), "");
      add(writes, INSERT_FACES, FACE_TYPES, numbered(liveFaces, changeNos), PUT_BACK);
      writes.send(template);
    }

    /** Few rows as they stand, many as a table: each is the cheaper way for so many. */
    private static void add(
        Writes writes, String insert, List<String> types, List<Object[]> rows, String after) {
      if (rows.size() > MANY) {
        writes.addTable(insert + " select * from %s t" + after, types, rows);
      } else {
        writes.addRows(insert, rows, after);
      }
    }

    private List<Object[]> numbered(List<Row> rows, Map<CalendarId, Long> changeNos) {
      return rows.stream().map(row -> row.numbered(changeNos)).toList();
    }
  }

  private void batch(String sql, List<Object[]> rows) {
    if (!rows.isEmpty()) {
      template.batchUpdate(sql, rows);
    }
  }

  private Rows rows(
      Act act, Difference difference, Map<EntryKey, Known> known, Map<EntryKey, Long> ids) {
    Rows rows = new Rows();
    OffsetDateTime at = act.at().atOffset(ZoneOffset.UTC);
    for (Difference.EntryChange change : difference.entries()) {
      long id = ids.get(change.key());
      CalendarId calendar = change.key().calendar();
      if (change.entry().isEmpty()) {
        rows.goneEntries.add(new Row(calendar, 0, null, id));
      } else if (known.containsKey(change.key())) {
        rows.changedEntries.add(changed(change, id));
      } else {
        rows.newEntries.add(fresh(change.entry().get(), id));
      }
      for (Difference.FaceChange face : change.faces()) {
        if (face.canonical().isEmpty()) {
          rows.goneFaces.add(new Row(calendar, 1, at, null, id, face.rendering().value()));
        } else {
          rows.liveFaces.add(live(at, change, id, face));
        }
      }
    }
    return rows;
  }

  private static Row changed(Difference.EntryChange change, long id) {
    Entry entry = change.entry().orElseThrow();
    return new Row(
        change.key().calendar(),
        4,
        change.sequence(),
        entry.times().from().atOffset(ZoneOffset.UTC),
        entry.times().until().atOffset(ZoneOffset.UTC),
        rules(entry),
        null,
        id);
  }

  private static Row fresh(Entry entry, long id) {
    EntryKey key = entry.key();
    return new Row(
        key.calendar(),
        11,
        id,
        key.record().value(),
        key.visit(),
        key.calendar().value(),
        key.family().name(),
        entry.uid().value(),
        0,
        "LIVE",
        entry.times().from().atOffset(ZoneOffset.UTC),
        entry.times().until().atOffset(ZoneOffset.UTC),
        rules(entry),
        null);
  }

  private static String rules(Entry entry) {
    return entry.rules().stream().map(String::valueOf).collect(Collectors.joining(","));
  }

  /** The tag hashes content, SEQUENCE, act time and the renderer's version. */
  private static Row live(
      OffsetDateTime at, Difference.EntryChange change, long entry, Difference.FaceChange face) {
    String canonical = face.canonical().orElseThrow();
    Face parsed = Face.parse(canonical);
    Uid uid = change.entry().map(Entry::uid).orElse(null);
    String tag =
        Face.digest(
            canonical + '\n' + uid + '\n' + face.sequence() + '\n' + at + '\n' + Faces.RENDERER);
    return new Row(
        change.key().calendar(),
        9,
        entry,
        face.rendering().value(),
        true,
        canonical,
        tag,
        face.sequence(),
        parsed.times().from().atOffset(ZoneOffset.UTC),
        parsed.times().until().atOffset(ZoneOffset.UTC),
        at,
        null);
  }
}
