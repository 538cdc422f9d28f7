package mellowrota.server.calendars.store;

import jakarta.persistence.EntityManager;
import jakarta.persistence.Query;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Queue;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import lombok.With;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Family;
import mellowrota.core.project.Difference;
import mellowrota.core.project.Projector;
import mellowrota.core.sight.Face;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Act;
import mellowrota.server.calendars.ReleasedText;
import mellowrota.server.platform.Numbers;
import org.springframework.stereotype.Repository;

/**
 * Writes what a projection says. The touched calendars' rows are locked in id order and give the
 * change numbers, so that a number never becomes visible after a later one.
 */
@Repository
public class EntryStore {

  private static final int IDS_AT_ONCE = 200;

  /**
   * All that an act writes of entries and faces, after the numbers. One native statement, since the
   * calendars are locked from its first line on: HQL has neither lists of rows nor statements that
   * go on with what another wrote.
   */
  private static final String WRITE =
      """
      , gone as (
          update face f set live = false, modified = :at, change_no = t.change_no, ics = null
          from unnest(:goneEntries, :goneRenderings, :goneCalendars) u(entry, rendering, calendar)
            join taken t on t.id = u.calendar
          where f.entry = u.entry and f.rendering = u.rendering),
        entries as (
          insert into entry (id, record, visit, calendar, family, uid, sequence, state, starts,
            ends, rules, released, asks_since, change_no) overriding system value
          select u.id, u.record, u.visit, u.calendar, u.family, u.uid, u.sequence, u.state,
            u.starts, u.ends, u.rules, u.released, u.asks_since, coalesce(t.change_no, u.change_no)
          from unnest(:ids, :records, :visits, :onCalendars, :families, :uids, :sequences, :states,
            :starts, :ends, :rules, :released, :asksSince, :changeNos, :numbered)
            u(id, record, visit, calendar, family, uid, sequence, state, starts, ends, rules,
              released, asks_since, change_no, numbered)
            left join taken t on t.id = u.calendar and u.numbered
          on conflict (id) do update set state = excluded.state, sequence = excluded.sequence,
            starts = excluded.starts, ends = excluded.ends, rules = excluded.rules,
            released = excluded.released, asks_since = excluded.asks_since,
            change_no = excluded.change_no)
      insert into face (entry, rendering, live, content, etag, sequence, starts, ends, modified,
        hurries, change_no)
      select u.entry, u.rendering, true, u.content, u.etag, u.sequence, u.starts, u.ends, :at,
        :hurries, t.change_no
      from unnest(:faceEntries, :faceRenderings, :faceCalendars, :contents, :etags, :faceSequences,
        :faceStarts, :faceEnds)
        u(entry, rendering, calendar, content, etag, sequence, starts, ends)
        join taken t on t.id = u.calendar
      on conflict (entry, rendering) do update set live = true, content = excluded.content,
        etag = excluded.etag, sequence = excluded.sequence, starts = excluded.starts,
        ends = excluded.ends, modified = excluded.modified, hurries = excluded.hurries,
        change_no = excluded.change_no, ics = null
      """;

  private final EntityManager kept;
  private final ChangeNumbers numbers;
  private final Numbers ids;
  private final ReleasedText texts;
  private final String write;

  /** Numbers of new entries; those that a process took and did not use are never used. */
  private final Queue<Long> free = new ArrayDeque<>();

  EntryStore(EntityManager kept, ChangeNumbers numbers, Numbers ids, ReleasedText texts) {
    this.kept = kept;
    this.numbers = numbers;
    this.ids = ids;
    this.texts = texts;
    write = numbers.taken() + WRITE;
  }

  private synchronized long nextId() {
    if (free.isEmpty()) {
      free.addAll(ids.next("entry_id_seq", IDS_AT_ONCE));
    }
    return free.remove();
  }

  /** What the store holds of an entry. */
  private record Known(EntryRow row, Difference.StoredEntry entry) {}

  /**
   * An entry as it is to be kept.
   *
   * @param released what readers keep until the next yes; null where there is none
   * @param numbered whether it bears its calendar's next change number
   */
  private record EntryRow(
      long id,
      EntryKey key,
      String uid,
      int sequence,
      @With Difference.State state,
      Instant starts,
      Instant ends,
      @With String rules,
      @With String released,
      @With Instant asksSince,
      long changeNo,
      @With boolean numbered) {

    /** As it is kept. */
    EntryRow(
        Long id,
        Long record,
        Integer visit,
        Long calendar,
        Family family,
        String uid,
        Integer sequence,
        Difference.State state,
        Instant starts,
        Instant ends,
        String rules,
        String released,
        Instant asksSince,
        Long changeNo) {
      this(
          id,
          EntryEntity.key(record, visit, calendar, family),
          uid,
          sequence,
          state,
          starts,
          ends,
          rules,
          released,
          asksSince,
          changeNo,
          false);
    }

    /** As an entry says by now, under the next number. */
    EntryRow saying(Entry entry, Difference.EntryChange change) {
      return new EntryRow(
          id,
          key,
          entry.uid().value(),
          change.sequence(),
          change.move() == Difference.Move.WAITS ? Difference.State.WAITING : Difference.State.LIVE,
          entry.times().from(),
          entry.times().until(),
          EntryStore.rules(entry),
          released,
          asksSince,
          changeNo,
          true);
    }

    EntryRow gone() {
      return withState(Difference.State.GONE).withNumbered(true);
    }
  }

  /** A face that changes, of an entry. */
  private record FaceRow(
      long entry, CalendarId calendar, Object uid, Difference.FaceChange change) {

    EntryTimes times() {
      return change.face().orElseThrow().times();
    }

    String content() {
      return change.canonical().orElseThrow();
    }

    /** It hashes content, SEQUENCE, act time and the renderer's version. */
    String tag(Act act) {
      return Face.digest(
          content()
              + '\n'
              + uid
              + '\n'
              + change.sequence()
              + '\n'
              + act.at().atOffset(ZoneOffset.UTC)
              + '\n'
              + Faces.RENDERER);
    }
  }

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
    Map<EntryKey, EntryRow> rows = new LinkedHashMap<>();
    difference.entries().forEach(change -> rows.put(change.key(), row(change, known)));
    keepReasons(rows, known, projected);
    keepWaiting(act, rows, known, projected);
    if (rows.isEmpty()) {
      return Set.of();
    }
    Map<CalendarId, Integer> touched = new TreeMap<>();
    for (Difference.EntryChange change : difference.entries()) {
      int counts = change.move() == Difference.Move.WAITS ? 0 : 1;
      touched.merge(change.key().calendar(), counts, Integer::sum);
    }
    touched.forEach((calendar, count) -> act.count(calendar.value(), count));
    write(act, touched.keySet(), List.copyOf(rows.values()), faces(difference, rows));
    return difference.entries().stream()
        .filter(change -> change.move() != Difference.Move.CHANGED)
        .map(change -> change.key().record())
        .collect(Collectors.toSet());
  }

  private EntryRow row(Difference.EntryChange change, Map<EntryKey, Known> known) {
    Known before = known.get(change.key());
    if (change.entry().isEmpty()) {
      return before.row().gone();
    }
    EntryRow row =
        before != null
            ? before.row()
            : new EntryRow(
                nextId(), change.key(), "", 0, null, null, null, "", null, null, 0, true);
    return row.saying(change.entry().get(), change);
  }

  /** An entry may come to stand there by other rules. */
  private static void keepReasons(
      Map<EntryKey, EntryRow> rows,
      Map<EntryKey, Known> known,
      List<Projector.Projected> projected) {
    for (Projector.Projected one : projected) {
      EntryKey key = one.entry().key();
      String rules = rules(one.entry());
      Known before = known.get(key);
      if (before != null && !rows.containsKey(key) && !before.row().rules().equals(rules)) {
        // Nobody sees that, so it needs no number.
        rows.put(key, before.row().withRules(rules));
      }
    }
  }

  private void keepWaiting(
      Act act, Map<EntryKey, EntryRow> rows, Optional<Known> known, Projector.Projected one) {
    EntryKey key = one.entry().key();
    Optional<EntryRow> before = known.map(Known::row);
    String had = before.map(EntryRow::released).orElse(null);
    Instant since = before.map(EntryRow::asksSince).orElse(null);
    String keeps = one.keep().map(texts::write).orElse(null);
    boolean gone = before.filter(row -> row.state() == Difference.State.GONE).isPresent();
    Instant asks = !one.asks() ? null : since == null || gone ? act.at() : since;
    if (!Objects.equals(had, keeps) || !Objects.equals(since, asks)) {
      EntryRow row = rows.containsKey(key) ? rows.get(key) : before.orElseThrow();
      rows.put(key, row.withReleased(keeps).withAsksSince(asks));
    }
  }

  /** What is kept of an entry besides its faces, where its rule asks for a yes. */
  private void keepWaiting(
      Act act,
      Map<EntryKey, EntryRow> rows,
      Map<EntryKey, Known> known,
      List<Projector.Projected> projected) {
    Set<EntryKey> standing = new HashSet<>();
    for (Projector.Projected one : projected) {
      standing.add(one.entry().key());
      keepWaiting(act, rows, Optional.ofNullable(known.get(one.entry().key())), one);
    }
    known.forEach(
        (key, one) -> {
          // What was taken off asks for nothing; it is remembered in case it comes back as it was.
          if (!standing.contains(key) && one.row().asksSince() != null) {
            rows.put(key, rows.getOrDefault(key, one.row()).withAsksSince(null));
          }
        });
  }

  private Map<EntryKey, Known> load(Collection<RecordId> records) {
    record FaceThere(long entry, long rendering, boolean live, String content, int sequence) {}
    Long[] ids = records.stream().map(RecordId::value).toArray(Long[]::new);
    Map<Long, Map<RenderingId, Difference.StoredFace>> faces = new HashMap<>();
    kept.createQuery(
            """
            select f.entry, f.rendering, f.live, f.content, f.sequence
            from FaceEntity f join EntryEntity e on e.id = f.entry where holds(:records, e.record)
            """,
            FaceThere.class)
        .setParameter("records", ids)
        .getResultList()
        .forEach(
            one ->
                faces
                    .computeIfAbsent(one.entry(), key -> new HashMap<>())
                    .put(
                        RenderingId.of(one.rendering()),
                        new Difference.StoredFace(one.live(), one.content(), one.sequence())));
    Map<EntryKey, Known> found = new LinkedHashMap<>();
    entries(ids)
        .forEach(
            one ->
                found.put(
                    one.key(),
                    new Known(
                        one,
                        new Difference.StoredEntry(
                            one.key(),
                            one.state(),
                            one.sequence(),
                            faces.getOrDefault(one.id(), Map.of())))));
    return found;
  }

  private List<EntryRow> entries(Long[] records) {
    return kept.createQuery(
            """
            select id, record, visit, calendar, family, uid, sequence, state, starts, ends, rules,
              released, asksSince, changeNo
            from EntryEntity where holds(:records, record) order by id
            """,
            EntryRow.class)
        .setParameter("records", records)
        .getResultList();
  }

  private static String rules(Entry entry) {
    return entry.rules().stream().map(String::valueOf).collect(Collectors.joining(","));
  }

  private static List<FaceRow> faces(Difference difference, Map<EntryKey, EntryRow> rows) {
    List<FaceRow> found = new ArrayList<>();
    for (Difference.EntryChange change : difference.entries()) {
      for (Difference.FaceChange face : change.faces()) {
        found.add(
            new FaceRow(
                rows.get(change.key()).id(),
                change.key().calendar(),
                change.entry().map(Entry::uid).orElse(null),
                face));
      }
    }
    return found;
  }

  private void write(
      Act act, Collection<CalendarId> touched, List<EntryRow> rows, List<FaceRow> faces) {
    numbers.willTake(touched);
    Map<Boolean, List<FaceRow>> shown =
        faces.stream().collect(Collectors.partitioningBy(one -> one.change().face().isPresent()));
    Query query = kept.createNativeQuery(write);
    query
        .setParameter("calendars", touched.stream().map(CalendarId::value).toArray(Long[]::new))
        .setParameter("at", act.at())
        .setParameter("hurries", act.hurries());
    setEntries(query, rows);
    setGone(query, shown.get(false));
    setShown(act, query, shown.get(true));
    query.executeUpdate();
  }

  private static void setEntries(Query query, List<EntryRow> rows) {
    query
        .setParameter("ids", longs(rows, EntryRow::id))
        .setParameter("records", longs(rows, row -> row.key().record().value()))
        .setParameter("visits", ints(rows, row -> row.key().visit()))
        .setParameter("onCalendars", longs(rows, row -> row.key().calendar().value()))
        .setParameter("families", texts(rows, row -> row.key().family().name()))
        .setParameter("uids", texts(rows, EntryRow::uid))
        .setParameter("sequences", ints(rows, EntryRow::sequence))
        .setParameter("states", texts(rows, row -> row.state().name()))
        .setParameter("starts", times(rows, EntryRow::starts))
        .setParameter("ends", times(rows, EntryRow::ends))
        .setParameter("rules", texts(rows, EntryRow::rules))
        .setParameter("released", texts(rows, EntryRow::released))
        .setParameter("asksSince", times(rows, EntryRow::asksSince))
        .setParameter("changeNos", longs(rows, EntryRow::changeNo))
        .setParameter("numbered", rows.stream().map(EntryRow::numbered).toArray(Boolean[]::new));
  }

  private static void setGone(Query query, List<FaceRow> rows) {
    query
        .setParameter("goneEntries", longs(rows, FaceRow::entry))
        .setParameter("goneRenderings", longs(rows, row -> row.change().rendering().value()))
        .setParameter("goneCalendars", longs(rows, row -> row.calendar().value()));
  }

  private static void setShown(Act act, Query query, List<FaceRow> rows) {
    query
        .setParameter("faceEntries", longs(rows, FaceRow::entry))
        .setParameter("faceRenderings", longs(rows, row -> row.change().rendering().value()))
        .setParameter("faceCalendars", longs(rows, row -> row.calendar().value()))
        .setParameter("contents", texts(rows, FaceRow::content))
        .setParameter("etags", texts(rows, row -> row.tag(act)))
        .setParameter("faceSequences", ints(rows, row -> row.change().sequence()))
        .setParameter("faceStarts", times(rows, row -> row.times().from()))
        .setParameter("faceEnds", times(rows, row -> row.times().until()));
  }

  private static <T> Long[] longs(List<T> rows, Function<T, Long> of) {
    return rows.stream().map(of).toArray(Long[]::new);
  }

  private static <T> Integer[] ints(List<T> rows, Function<T, Integer> of) {
    return rows.stream().map(of).toArray(Integer[]::new);
  }

  private static <T> String[] texts(List<T> rows, Function<T, String> of) {
    return rows.stream().map(of).toArray(String[]::new);
  }

  private static <T> Instant[] times(List<T> rows, Function<T, Instant> of) {
    return rows.stream().map(of).toArray(Instant[]::new);
  }
}
