package mellowrota.core.project;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.Family;
import mellowrota.core.sight.Face;

/**
 * What must change in the store so that it says what a projection says. A face moves only when its
 * own content does, so nobody can tell that a detail kept back from them changed.
 *
 * @param entries every entry that is added, changed, taken off or put back
 */
public record Difference(List<EntryChange> entries) {

  /** What the store holds of one face. */
  public record StoredFace(boolean live, String canonical, int sequence) {}

  /** How an entry stands in the store. */
  public enum State {
    LIVE,
    /** Nobody has said yes to it yet, and nobody is served it. */
    WAITING,
    GONE
  }

  /** What the store holds of one entry, gone ones too. */
  public record StoredEntry(
      EntryKey key, State state, int sequence, Map<RenderingId, StoredFace> faces) {

    boolean live() {
      return state == State.LIVE;
    }
  }

  /** What happens to an entry. */
  public enum Move {
    ADDED,
    CHANGED,
    TAKEN_OFF,
    PUT_BACK,
    /** It stands there for nobody, before its first yes. */
    WAITS
  }

  /**
   * One entry's change.
   *
   * @param entry as it now stands, or waits; empty when taken off
   * @param sequence the highest any face of it ever had, for life
   */
  public record EntryChange(
      EntryKey key, Move move, Optional<Entry> entry, int sequence, List<FaceChange> faces) {}

  /**
   * One face's change.
   *
   * @param face as it shows from now on; empty when it goes
   * @param canonical its content
   */
  public record FaceChange(
      RenderingId rendering, Optional<Face> face, Optional<String> canonical, int sequence) {

    static FaceChange shows(RenderingId rendering, Face face, String canonical, int sequence) {
      return new FaceChange(rendering, Optional.of(face), Optional.of(canonical), sequence);
    }

    static FaceChange goes(RenderingId rendering, int sequence) {
      return new FaceChange(rendering, Optional.empty(), Optional.empty(), sequence);
    }
  }

  public Difference {
    entries = List.copyOf(entries);
  }

  public boolean isEmpty() {
    return entries.isEmpty();
  }

  /** Compares; O(entries + faces). */
  public static Difference between(List<StoredEntry> stored, List<Projector.Projected> projected) {
    Map<EntryKey, StoredEntry> known = new HashMap<>();
    stored.forEach(entry -> known.put(entry.key(), entry));
    Map<EntryKey, Projector.Projected> wanted = new TreeMap<>();
    projected.forEach(one -> wanted.put(one.entry().key(), one));
    List<EntryChange> changes = new ArrayList<>();
    for (Projector.Projected one : wanted.values()) {
      change(one, known.get(one.entry().key())).ifPresent(changes::add);
    }
    for (StoredEntry entry : stored) {
      if (entry.state() != State.GONE && !wanted.containsKey(entry.key())) {
        changes.add(takeOff(entry));
      }
    }
    return new Difference(changes);
  }

  private static Optional<EntryChange> change(Projector.Projected one, StoredEntry stored) {
    Entry entry = one.entry();
    if (!one.isServed()) {
      return waits(entry, stored);
    }
    if (stored == null) {
      List<FaceChange> faces = new ArrayList<>();
      one.faces()
          .forEach(
              seen ->
                  faces.add(
                      FaceChange.shows(seen.rendering(), seen.face(), seen.face().canonical(), 0)));
      return Optional.of(new EntryChange(entry.key(), Move.ADDED, Optional.of(entry), 0, faces));
    }
    int highest = stored.sequence();
    List<FaceChange> faces = new ArrayList<>();
    for (Projector.Seen seen : one.faces()) {
      StoredFace before = stored.faces().get(seen.rendering());
      Optional<FaceChange> change =
          faceChange(entry.key().family(), seen, before, stored.sequence());
      if (change.isPresent()) {
        faces.add(change.get());
        highest = Math.max(highest, change.get().sequence());
      }
    }
    stored
        .faces()
        .forEach(
            (rendering, face) -> {
              if (face.live()
                  && one.faces().stream().noneMatch(s -> s.rendering().equals(rendering))) {
                faces.add(FaceChange.goes(rendering, face.sequence()));
              }
            });
    if (stored.live() && faces.isEmpty()) {
      return Optional.empty();
    }
    Move move =
        stored.live() ? Move.CHANGED : stored.faces().isEmpty() ? Move.ADDED : Move.PUT_BACK;
    return Optional.of(new EntryChange(entry.key(), move, Optional.of(entry), highest, faces));
  }

  private static Optional<EntryChange> waits(Entry entry, StoredEntry stored) {
    if (stored != null && stored.state() == State.WAITING) {
      return Optional.empty();
    }
    int sequence = stored == null ? 0 : stored.sequence();
    List<FaceChange> gone = stored == null ? List.of() : takeOff(stored).faces();
    return Optional.of(
        new EntryChange(entry.key(), Move.WAITS, Optional.of(entry), sequence, gone));
  }

  /** A date that comes back as it was served last has not changed; a span that does has. */
  private static Optional<FaceChange> faceChange(
      Family family, Projector.Seen seen, StoredFace before, int highest) {
    String canonical = seen.face().canonical();
    if (before == null) {
      return Optional.of(FaceChange.shows(seen.rendering(), seen.face(), canonical, highest));
    }
    if (before.live() && before.canonical().equals(canonical)) {
      return Optional.empty();
    }
    boolean rises =
        !before.live() && family != Family.DUE
            || Face.parse(before.canonical()).differsInTimesOrState(seen.face());
    int sequence = rises ? before.sequence() + 1 : before.sequence();
    return Optional.of(FaceChange.shows(seen.rendering(), seen.face(), canonical, sequence));
  }

  private static EntryChange takeOff(StoredEntry entry) {
    List<FaceChange> faces = new ArrayList<>();
    entry
        .faces()
        .forEach(
            (rendering, face) -> {
              if (face.live()) {
                faces.add(FaceChange.goes(rendering, face.sequence()));
              }
            });
    return new EntryChange(entry.key(), Move.TAKEN_OFF, Optional.empty(), entry.sequence(), faces);
  }
}
