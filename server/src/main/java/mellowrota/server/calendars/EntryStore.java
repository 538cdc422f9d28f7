package mellowrota.server.calendars;

import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/**
 * Writes what a projection says. The touched calendars' rows are locked in id order and give the
 * change numbers, so that a number never becomes visible after a later one.
 */
@Service
public class EntryStore {

  private final JdbcClient jdbc;
  private final JdbcTemplate template;
  private final ChangeNumbers numbers;

  EntryStore(JdbcClient jdbc, JdbcTemplate template, ChangeNumbers numbers) {
    this.jdbc = jdbc;
    this.template = template;
    this.numbers = numbers;
  }

  private record Known(long id, Difference.StoredEntry entry) {}

  /** Brings the entries of these records to what was projected. */
  public void store(Act act, Collection<RecordId> records, List<Projector.Projected> projected) {
    List<RecordId> older = records.stream().filter(id -> !act.hasMade(id)).toList();
    Map<EntryKey, Known> known = older.isEmpty() ? Map.of() : load(older);
    Difference difference =
        Difference.between(known.values().stream().map(Known::entry).toList(), projected);
    if (difference.isEmpty()) {
      return;
    }
    Map<CalendarId, Integer> touched = new TreeMap<>();
    difference.entries().forEach(change -> touched.merge(change.key().calendar(), 1, Integer::sum));
    touched.forEach((calendar, count) -> act.count(calendar.value(), count));
    Map<EntryKey, Long> ids = ids(difference, known);
    Map<CalendarId, Long> changeNos = numbers.next(touched.keySet());
    writeEntries(difference, known, ids, changeNos);
    writeFaces(act, difference, ids, changeNos);
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
            select id, record, visit, calendar, family, state, sequence from entry
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
    List<EntryKey> fresh = new ArrayList<>();
    for (Difference.EntryChange change : difference.entries()) {
      Known before = known.get(change.key());
      if (before == null) {
        fresh.add(change.key());
      } else {
        ids.put(change.key(), before.id());
      }
    }
    if (!fresh.isEmpty()) {
      Iterator<Long> taken =
          jdbc.sql(
                  """
                  select nextval(pg_get_serial_sequence('entry', 'id')) from generate_series(1, ?)
                  """)
              .param(fresh.size())
              .query(Long.class)
              .list()
              .iterator();
      fresh.forEach(key -> ids.put(key, taken.next()));
    }
    return ids;
  }

  private void writeEntries(
      Difference difference,
      Map<EntryKey, Known> known,
      Map<EntryKey, Long> ids,
      Map<CalendarId, Long> changeNos) {
    List<Object[]> inserts = new ArrayList<>();
    List<Object[]> updates = new ArrayList<>();
    List<Object[]> goes = new ArrayList<>();
    for (Difference.EntryChange change : difference.entries()) {
      long id = ids.get(change.key());
      long changeNo = changeNos.get(change.key().calendar());
      if (change.entry().isEmpty()) {
        goes.add(new Object[] {changeNo, id});
      } else if (known.containsKey(change.key())) {
        updates.add(update(change, id, changeNo));
      } else {
        inserts.add(insert(change.entry().get(), id, changeNo));
      }
    }
    batch(
        """
        insert into entry (id, record, visit, calendar, family, uid, sequence, state, starts, ends,
          rules, change_no)
        overriding system value values (?, ?, ?, ?, ?, ?, 0, 'LIVE', ?, ?, ?, ?)
        """,
        inserts);
    batch(
        """
        update entry set state = 'LIVE', sequence = ?, starts = ?, ends = ?, rules = ?, change_no = ?
        where id = ?
        """,
        updates);
    batch("update entry set state = 'GONE', change_no = ? where id = ?", goes);
  }

  private void batch(String sql, List<Object[]> rows) {
    if (!rows.isEmpty()) {
      template.batchUpdate(sql, rows);
    }
  }

  private static Object[] update(Difference.EntryChange change, long id, long changeNo) {
    Entry entry = change.entry().orElseThrow();
    return new Object[] {
      change.sequence(),
      entry.times().from().atOffset(ZoneOffset.UTC),
      entry.times().until().atOffset(ZoneOffset.UTC),
      rules(entry),
      changeNo,
      id
    };
  }

  private static Object[] insert(Entry entry, long id, long changeNo) {
    EntryKey key = entry.key();
    return new Object[] {
      id,
      key.record().value(),
      key.visit(),
      key.calendar().value(),
      key.family().name(),
      entry.uid().value(),
      entry.times().from().atOffset(ZoneOffset.UTC),
      entry.times().until().atOffset(ZoneOffset.UTC),
      rules(entry),
      changeNo
    };
  }

  private static String rules(Entry entry) {
    return entry.rules().stream().map(String::valueOf).collect(Collectors.joining(","));
  }

  private void writeFaces(
      Act act, Difference difference, Map<EntryKey, Long> ids, Map<CalendarId, Long> changeNos) {
    List<Object[]> upserts = new ArrayList<>();
    List<Object[]> goes = new ArrayList<>();
    OffsetDateTime at = act.at().atOffset(ZoneOffset.UTC);
    for (Difference.EntryChange change : difference.entries()) {
      long entry = ids.get(change.key());
      Uid uid = change.entry().map(Entry::uid).orElse(null);
      long changeNo = changeNos.get(change.key().calendar());
      for (Difference.FaceChange face : change.faces()) {
        if (face.canonical().isEmpty()) {
          goes.add(new Object[] {at, changeNo, entry, face.rendering().value()});
        } else {
          upserts.add(upsert(at, entry, uid, changeNo, face));
        }
      }
    }
    batch(
        """
        insert into face (entry, rendering, live, content, etag, sequence, starts, ends, modified,
          change_no)
        values (?, ?, true, ?, ?, ?, ?, ?, ?, ?)
        on conflict (entry, rendering) do update set live = true, content = excluded.content,
          etag = excluded.etag, sequence = excluded.sequence, starts = excluded.starts,
          ends = excluded.ends, modified = excluded.modified, change_no = excluded.change_no,
          ics = null
        """,
        upserts);
    batch(
        """
        update face set live = false, modified = ?, change_no = ?, ics = null
        where entry = ? and rendering = ?
        """,
        goes);
  }

  /** The tag hashes content, SEQUENCE, act time and the renderer's version. */
  private static Object[] upsert(
      OffsetDateTime at, long entry, Uid uid, long changeNo, Difference.FaceChange face) {
    String canonical = face.canonical().orElseThrow();
    Face parsed = Face.parse(canonical);
    String tag =
        Face.digest(
            canonical + '\n' + uid + '\n' + face.sequence() + '\n' + at + '\n' + Faces.RENDERER);
    return new Object[] {
      entry,
      face.rendering().value(),
      canonical,
      tag,
      face.sequence(),
      parsed.times().from().atOffset(ZoneOffset.UTC),
      parsed.times().until().atOffset(ZoneOffset.UTC),
      at,
      changeNo
    };
  }
}
