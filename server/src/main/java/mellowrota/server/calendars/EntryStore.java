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
import java.util.Objects;
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

  private static final String UPDATE_ENTRIES =
      """
      update entry e set state = u.state, sequence = u.sequence, starts = u.starts, ends = u.ends,
        rules = u.rules, change_no = NUMBER
      from %s u(state, sequence, starts, ends, rules, calendar, id)
      where e.id = u.id
      """;

  private static final List<String> UPDATED =
      List.of("text", "int", "timestamptz", "timestamptz", "text", "bigint", "bigint");

  private static final String TAKE_ENTRIES =
      """
      update entry e set state = 'GONE', change_no = NUMBER
      from %s u(calendar, id) where e.id = u.id
      """;

  private static final String TAKE_FACES =
      """
      update face f set live = false, modified = u.modified, change_no = NUMBER, ics = null
      from %s u(modified, calendar, entry, rendering)
      where f.entry = u.entry and f.rendering = u.rendering
      """;

  private static final String INSERT_ENTRIES =
      """
      insert into entry (id, record, visit, calendar, family, uid, sequence, state, starts,
        ends, rules, change_no) overriding system value
      """;

  private static final String ENTRY_COLUMNS =
      """
       select u.id, u.record, u.visit, u.on_it, u.family, u.uid, u.sequence, u.state, u.starts,
        u.ends, u.rules, NUMBER
      from %s u(id, record, visit, on_it, family, uid, sequence, state, starts, ends, rules,
        calendar)
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
        hurries, change_no)
      """;

  private static final String FACE_COLUMNS =
      """
       select u.entry, u.rendering, u.live, u.content, u.etag, u.sequence, u.starts, u.ends,
        u.modified, u.hurries, NUMBER
      from %s u(entry, rendering, live, content, etag, sequence, starts, ends, modified, hurries,
        calendar)
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
          "boolean",
          "bigint");

  private static final String PUT_BACK =
      """
       on conflict (entry, rendering) do update set live = true, content = excluded.content,
        etag = excluded.etag, sequence = excluded.sequence, starts = excluded.starts,
        ends = excluded.ends, modified = excluded.modified, hurries = excluded.hurries,
        change_no = excluded.change_no, ics = null
      """;

  private final JdbcClient jdbc;
  private final JdbcTemplate template;
  private final ChangeNumbers numbers;
  private final EntryIds entryIds;
  private final ReleasedText texts;

  EntryStore(
      JdbcClient jdbc,
      JdbcTemplate template,
      ChangeNumbers numbers,
      EntryIds entryIds,
      ReleasedText texts) {
    this.texts = texts;
    this.entryIds = entryIds;
    this.jdbc = jdbc;
    this.template = template;
    this.numbers = numbers;
  }

  /**
   * What the store holds of an entry.
   *
   * @param released what readers keep until the next yes; null where there is none
   */
  private record Known(
      long id,
      String rules,
      String released,
      OffsetDateTime asksSince,
      Difference.StoredEntry entry) {}

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
    List<Waiting> waiting = waiting(act, known, projected);
    if (difference.isEmpty()) {
      waiting.forEach(one -> one.add(act.later(), known.get(one.key()).id()));
      return Set.of();
    }
    Map<CalendarId, Integer> touched = new TreeMap<>();
    for (Difference.EntryChange change : difference.entries()) {
      int counts = change.move() == Difference.Move.WAITS ? 0 : 1;
      touched.merge(change.key().calendar(), counts, Integer::sum);
    }
    touched.forEach((calendar, count) -> act.count(calendar.value(), count));
    // All that can be worked out is, before calendars are locked that many acts touch.
    Map<EntryKey, Long> ids = ids(difference, known);
    known.forEach((key, one) -> ids.putIfAbsent(key, one.id()));
    Rows rows = rows(act, difference, known, ids);
    Writes writes = act.later();
    rows.add(writes, numbers.take(touched.keySet(), writes));
    waiting.forEach(one -> one.add(writes, ids.get(one.key())));
    writes.send(template);
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

  /** What is kept of an entry besides its faces, where its rule asks for a yes. */
  private record Waiting(EntryKey key, String released, OffsetDateTime asksSince) {
    void add(Writes writes, long id) {
      writes.add(
          "update entry set released = ?, asks_since = ?::text::timestamptz where id = ?",
          released,
          asksSince == null ? null : asksSince.toString(),
          id);
    }
  }

  /** Those of whom something else is to be kept than is. */
  private List<Waiting> waiting(
      Act act, Map<EntryKey, Known> known, List<Projector.Projected> projected) {
    List<Waiting> found = new ArrayList<>();
    Set<EntryKey> standing = new HashSet<>();
    for (Projector.Projected one : projected) {
      EntryKey key = one.entry().key();
      standing.add(key);
      Known before = known.get(key);
      String had = before == null ? null : before.released();
      OffsetDateTime since = before == null ? null : before.asksSince();
      String keeps = one.keep().map(texts::write).orElse(null);
      boolean gone = before != null && before.entry().state() == Difference.State.GONE;
      OffsetDateTime asks =
          !one.asks() ? null : since == null || gone ? act.at().atOffset(ZoneOffset.UTC) : since;
      if (!Objects.equals(had, keeps) || !Objects.equals(since, asks)) {
        found.add(new Waiting(key, keeps, asks));
      }
    }
    known.forEach(
        (key, one) -> {
          // What was taken off asks for nothing; it is remembered in case it comes back as it was.
          if (!standing.contains(key) && one.asksSince() != null) {
            found.add(new Waiting(key, one.released(), null));
          }
        });
    return found;
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
            select id, record, visit, calendar, family, state, sequence, rules, released,
              asks_since from entry
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
                      row.getString(9),
                      row.getObject(10, OffsetDateTime.class),
                      new Difference.StoredEntry(
                          key,
                          Difference.State.valueOf(row.getString(6)),
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

  /** A row to write, which names its calendar's change number at one place. */
  private record Row(CalendarId calendar, int place, Object... values) {
    Object[] numbered(ChangeNumbers.Given given) {
      values[place] = given.parameters().get(calendar);
      return values;
    }
  }

  /** The rows of a projection, by what becomes of them. */
  private static final class Rows {
    final List<Row> newEntries = new ArrayList<>();
    final List<Row> changedEntries = new ArrayList<>();
    final List<Row> goneEntries = new ArrayList<>();
    final List<Row> liveFaces = new ArrayList<>();
    final List<Row> goneFaces = new ArrayList<>();

    void add(Writes writes, ChangeNumbers.Given given) {
      table(writes, given, TAKE_ENTRIES, List.of("bigint", "bigint"), goneEntries);
      table(
          writes,
          given,
          TAKE_FACES,
          List.of("timestamptz", "bigint", "bigint", "bigint"),
          goneFaces);
      table(writes, given, UPDATE_ENTRIES, UPDATED, changedEntries);
      insert(writes, given, INSERT_ENTRIES, ENTRY_COLUMNS, ENTRY_TYPES, newEntries, "");
      insert(writes, given, INSERT_FACES, FACE_COLUMNS, FACE_TYPES, liveFaces, PUT_BACK);
    }

    /** Few rows as they stand, many as a table: each is the cheaper way for so many. */
    private static void insert(
        Writes writes,
        ChangeNumbers.Given given,
        String insert,
        String columns,
        List<String> types,
        List<Row> rows,
        String after) {
      if (rows.size() > MANY) {
        table(writes, given, insert + columns + after, types, rows);
      } else if (!rows.isEmpty()) {
        String marks = "(" + "?, ".repeat(types.size() - 1) + given.number("?::bigint") + ")";
        writes.addRows(insert, marks, numbered(rows, given), after);
      }
    }

    private static void table(
        Writes writes, ChangeNumbers.Given given, String sql, List<String> types, List<Row> rows) {
      if (!rows.isEmpty()) {
        writes.addTable(
            sql.replace("NUMBER", given.number("u.calendar")), types, numbered(rows, given));
      }
    }

    private static List<Object[]> numbered(List<Row> rows, ChangeNumbers.Given given) {
      return rows.stream().map(row -> row.numbered(given)).toList();
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
        rows.newEntries.add(fresh(change, id));
      }
      for (Difference.FaceChange face : change.faces()) {
        if (face.canonical().isEmpty()) {
          rows.goneFaces.add(new Row(calendar, 1, at, null, id, face.rendering().value()));
        } else {
          rows.liveFaces.add(live(act, change, id, face));
        }
      }
    }
    return rows;
  }

  private static Row changed(Difference.EntryChange change, long id) {
    Entry entry = change.entry().orElseThrow();
    return new Row(
        change.key().calendar(),
        5,
        state(change),
        change.sequence(),
        entry.times().from().atOffset(ZoneOffset.UTC),
        entry.times().until().atOffset(ZoneOffset.UTC),
        rules(entry),
        null,
        id);
  }

  private static String state(Difference.EntryChange change) {
    return change.move() == Difference.Move.WAITS
        ? Difference.State.WAITING.name()
        : Difference.State.LIVE.name();
  }

  private static Row fresh(Difference.EntryChange change, long id) {
    Entry entry = change.entry().orElseThrow();
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
        state(change),
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
      Act act, Difference.EntryChange change, long entry, Difference.FaceChange face) {
    OffsetDateTime at = act.at().atOffset(ZoneOffset.UTC);
    String canonical = face.canonical().orElseThrow();
    Face parsed = Face.parse(canonical);
    Uid uid = change.entry().map(Entry::uid).orElse(null);
    String tag =
        Face.digest(
            canonical + '\n' + uid + '\n' + face.sequence() + '\n' + at + '\n' + Faces.RENDERER);
    return new Row(
        change.key().calendar(),
        10,
        entry,
        face.rendering().value(),
        true,
        canonical,
        tag,
        face.sequence(),
        parsed.times().from().atOffset(ZoneOffset.UTC),
        parsed.times().until().atOffset(ZoneOffset.UTC),
        at,
        act.hurries(),
        null);
  }
}
