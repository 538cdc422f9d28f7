package mellowrota.core.project;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.Hash;
import mellowrota.core.people.PersonId;
import mellowrota.core.rule.Landing;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Sight;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.WorkRecord;

/**
 * What other rules, wordings, sharing or sets of readers would do to the entries of a record,
 * before anybody does it. Both sides are projected anew; O(entries + faces) a record.
 */
public final class Preview {

  private final Projector before;
  private final Projector after;

  /** Where only rules and wordings differ, an entry that stands and is worded alike reads alike. */
  private final boolean readsAlike;

  private final Optional<PersonId> asker;

  /** Exactly, with what nobody may see in it too: for whoever then does it. */
  public Preview(Projector before, Projector after) {
    this(before, after, Optional.empty());
  }

  /**
   * As somebody may look at it: a detail that they may not see now counts as filled everywhere, so
   * that neither rows nor counts tell where it is.
   */
  public Preview(Projector before, Projector after, PersonId asker) {
    this(before, after, Optional.of(asker));
  }

  private Preview(Projector before, Projector after, Optional<PersonId> asker) {
    this.before = before;
    this.after = after;
    this.asker = asker;
    readsAlike = before.readsAs(after);
  }

  /** What would become of an entry. */
  public enum Move {
    ADDED,
    CHANGED,
    TAKEN_OFF
  }

  /**
   * One entry that would not stay as it is.
   *
   * @param faces those of its renderings that would read otherwise, or come, or go
   */
  public record Row(EntryKey key, Move move, List<FaceRow> faces) {}

  /**
   * One rendering of it.
   *
   * @param shown details that its readers would newly see there
   * @param hidden details that its readers would see there no longer
   */
  public record FaceRow(RenderingId rendering, Set<DetailKey> shown, Set<DetailKey> hidden) {}

  /**
   * What would become of one record's entries.
   *
   * @param rows in the order of their keys
   * @param reasons whether any entry would stand there by other rules, or begin to wait for a yes,
   *     though no reader sees that
   * @param waits how many entries would wait for a yes; readers get what they had, or nothing yet
   */
  public record Told(List<Row> rows, boolean reasons, int waits) {

    /** Whether there is anything to do at all. */
    public boolean isNothing() {
      return rows.isEmpty() && !reasons;
    }
  }

  /** Looks at one record none of whose entries waits for a yes. */
  public Told of(WorkRecord record) {
    return of(record, Release.Known.NONE_WAITS);
  }

  /** Looks at one record. */
  public Told of(WorkRecord record, Release.Known releases) {
    return of(Optional.of(record), record, releases);
  }

  /**
   * Looks at one record that changes too.
   *
   * @param old as it was; empty: it was not there
   */
  public Told of(Optional<WorkRecord> old, WorkRecord record, Release.Known releases) {
    Map<EntryKey, Entry> was = old.map(one -> byKey(before.land(one))).orElse(Map.of());
    Map<EntryKey, Entry> becomes = byKey(after.land(record));
    boolean same = old.filter(one -> one == record).isPresent();
    Set<EntryKey> keys = new TreeSet<>(was.keySet());
    keys.addAll(becomes.keySet());
    List<Row> rows = new ArrayList<>();
    RecordReaders readers = was.isEmpty() ? null : before.readers(old.orElseThrow());
    RecordReaders readersAfter =
        becomes.isEmpty()
            ? null
            : readsAlike && same && readers != null ? readers : after.readers(record);
    Predicate<DetailKey> uncovered = uncovered(old.orElse(record));
    boolean reasons = false;
    int waits = 0;
    for (EntryKey key : keys) {
      Entry one = was.get(key);
      Entry other = becomes.get(key);
      reasons |= one == null || other == null || !one.rules().equals(other.rules());
      if (one == null || other == null || !same || !readsAlike(record, one, other)) {
        Projector.Projected stood =
            one == null ? null : before.cut(old.orElseThrow(), readers, one, releases, uncovered);
        Projector.Projected stands =
            other == null ? null : after.cut(record, readersAfter, other, releases, uncovered);
        reasons |= one == null || other == null || one.waits() != other.waits();
        reasons |= stood != null && stands != null && stood.asks() != stands.asks();
        waits += stands != null && stands.asks() ? 1 : 0;
        row(old.orElse(record), record, key, served(stood), served(stands), uncovered)
            .ifPresent(rows::add);
      }
    }
    return new Told(rows, reasons, waits);
  }

  /** Whether somebody who looks may not see some detail of the record, as it is now. */
  public boolean covers(WorkRecord record) {
    return asker.isPresent() && !before.areAll(record, uncovered(record));
  }

  private Predicate<DetailKey> uncovered(WorkRecord now) {
    return asker
        .map(person -> before.uncovered(now, before.readers(now), person))
        .orElse(Sight.UNCOVERED);
  }

  private static Projector.Projected served(Projector.Projected one) {
    return one != null && one.isServed() ? one : null;
  }

  /** Known without cutting a face; where it is not known, the faces tell. */
  private boolean readsAlike(WorkRecord record, Entry one, Entry other) {
    return readsAlike && one.standsAs(other) && before.wordsAs(after, record, one, other);
  }

  private static Map<EntryKey, Entry> byKey(List<Landing.Lands> all) {
    Map<EntryKey, Entry> found = new HashMap<>();
    all.forEach(one -> found.put(one.entry().key(), one.entry()));
    return found;
  }

  private Optional<Row> row(
      WorkRecord earlier,
      WorkRecord record,
      EntryKey key,
      Projector.Projected was,
      Projector.Projected becomes,
      Predicate<DetailKey> uncovered) {
    Map<RenderingId, Face> old = faces(was);
    Map<RenderingId, Face> fresh = faces(becomes);
    Set<RenderingId> renderings = new TreeSet<>(old.keySet());
    renderings.addAll(fresh.keySet());
    List<FaceRow> rows = new ArrayList<>();
    for (RenderingId rendering : renderings) {
      Face one = old.get(rendering);
      Face other = fresh.get(rendering);
      if (one == null || other == null || !one.canonical().equals(other.canonical())) {
        Set<DetailKey> seen =
            one == null ? Set.of() : before.shown(earlier, was, rendering, uncovered);
        Set<DetailKey> sees =
            other == null ? Set.of() : after.shown(record, becomes, rendering, uncovered);
        rows.add(new FaceRow(rendering, without(sees, seen), without(seen, sees)));
      }
    }
    if (was == null && becomes == null) {
      return Optional.empty();
    }
    if (was != null && becomes != null) {
      return rows.isEmpty() ? Optional.empty() : Optional.of(new Row(key, Move.CHANGED, rows));
    }
    return Optional.of(new Row(key, was == null ? Move.ADDED : Move.TAKEN_OFF, rows));
  }

  private static Map<RenderingId, Face> faces(Projector.Projected projected) {
    Map<RenderingId, Face> found = new HashMap<>();
    if (projected != null) {
      projected.faces().forEach(seen -> found.put(seen.rendering(), seen.face()));
    }
    return found;
  }

  private static Set<DetailKey> without(Set<DetailKey> all, Set<DetailKey> others) {
    Set<DetailKey> found = new TreeSet<>(all);
    found.removeAll(others);
    return found;
  }

  /** The rows of many records, added up. */
  public static final class Sum {
    private final Map<CalendarId, Map<Move, Long>> moves = new TreeMap<>();
    private final Map<RenderingId, Map<DetailKey, Long>> shown = new TreeMap<>();
    private final Map<RenderingId, Map<DetailKey, Long>> hidden = new TreeMap<>();
    private final MessageDigest digest = Hash.SHA_256.running();
    private long records;
    private long waits;

    /**
     * Adds a record's rows.
     *
     * @param waiting how many of its entries would wait for a yes
     */
    public void add(List<Row> rows, int waiting) {
      records++;
      waits += waiting;
      for (Row row : rows) {
        digest.update(line(row).getBytes(StandardCharsets.UTF_8));
        moves
            .computeIfAbsent(row.key().calendar(), key -> new EnumMap<>(Move.class))
            .merge(row.move(), 1L, Long::sum);
        for (FaceRow face : row.faces()) {
          count(shown, face.rendering(), face.shown());
          count(hidden, face.rendering(), face.hidden());
        }
      }
    }

    private static String line(Row row) {
      EntryKey key = row.key();
      String renderings =
          row.faces().stream()
              .map(face -> Long.toString(face.rendering().value()))
              .collect(Collectors.joining(","));
      return "%d %d %d %s %s %s\n"
          .formatted(
              key.record().value(),
              key.visit(),
              key.calendar().value(),
              key.family(),
              row.move(),
              renderings);
    }

    /**
     * SHA-256 over the rows as they were added, a line each: record, visit, calendar, family, move,
     * and the renderings that would read otherwise. Two sums of the same rows have the same one.
     */
    public String digest() {
      try {
        return HexFormat.of().formatHex(((MessageDigest) digest.clone()).digest());
      } catch (CloneNotSupportedException impossible) {
        throw new IllegalStateException("SHA-256 can be copied", impossible);
      }
    }

    private static void count(
        Map<RenderingId, Map<DetailKey, Long>> counts, RenderingId at, Set<DetailKey> details) {
      for (DetailKey detail : details) {
        counts.computeIfAbsent(at, key -> new TreeMap<>()).merge(detail, 1L, Long::sum);
      }
    }

    /** How many records were looked at. */
    public long records() {
      return records;
    }

    /** How many entries would wait for a yes. */
    public long waits() {
      return waits;
    }

    /** How many entries of each calendar would move so. */
    public Map<CalendarId, Map<Move, Long>> moves() {
      return moves;
    }

    /** On how many entries of a rendering each detail would newly be seen. */
    public Map<RenderingId, Map<DetailKey, Long>> shown() {
      return shown;
    }

    /** On how many entries of a rendering each detail would be seen no longer. */
    public Map<RenderingId, Map<DetailKey, Long>> hidden() {
      return hidden;
    }

    public long count(Move move) {
      return moves.values().stream().mapToLong(m -> m.getOrDefault(move, 0L)).sum();
    }
  }
}
