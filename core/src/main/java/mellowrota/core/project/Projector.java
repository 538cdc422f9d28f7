package mellowrota.core.project;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.Crew;
import mellowrota.core.people.PersonId;
import mellowrota.core.rule.Landing;
import mellowrota.core.rule.Router;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Released;
import mellowrota.core.sight.Sight;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.WorkRecord;

/**
 * Turns a record into its entries and every audience's face of them. Pure: the same world and
 * record give the same result.
 */
public final class Projector {

  /**
   * An entry with the face of each rendering that has one.
   *
   * @param asks whether it waits for a yes: readers keep the faces given here, those of the last
   *     one, or get none
   * @param keep what was last said yes to, where its rule asks for a yes
   */
  public record Projected(Entry entry, List<Seen> faces, boolean asks, Optional<Released> keep) {

    /** One that waits for nobody. */
    public Projected(Entry entry, List<Seen> faces) {
      this(entry, faces, false, Optional.empty());
    }

    /** Whether anybody is served it; nobody is before the first yes. */
    public boolean isServed() {
      return !asks || keep.isPresent();
    }
  }

  /** What one rendering gets. */
  public record Seen(RenderingId rendering, Face face) {}

  private final Crew crew;
  private final Calendars calendars;
  private final Router router;
  private final Sight sight;

  public Projector(Crew crew, Calendars calendars, Router router, Sight sight) {
    this.crew = crew;
    this.calendars = calendars;
    this.router = router;
    this.sight = sight;
  }

  /** The entries of a record none of which waits for a yes. */
  public List<Projected> project(WorkRecord record) {
    return project(record, Release.Known.NONE_WAITS);
  }

  /** In the order of the entries' keys, faces by rendering. */
  public List<Projected> project(WorkRecord record, Release.Known releases) {
    List<Landing.Lands> landed = land(record);
    if (landed.isEmpty()) {
      return List.of();
    }
    RecordReaders readers = RecordReaders.of(record, crew);
    List<Projected> found = new ArrayList<>(landed.size());
    for (Landing.Lands lands : landed) {
      found.add(cut(record, readers, lands.entry(), releases, Sight.UNCOVERED));
    }
    return found;
  }

  List<Landing.Lands> land(WorkRecord record) {
    return router.land(record);
  }

  RecordReaders readers(WorkRecord record) {
    return RecordReaders.of(record, crew);
  }

  /**
   * Which details of the record somebody may see, as it is now. Whoever only looks at what a change
   * does gets the others covered, filled or not (SIGHT 8).
   */
  Predicate<DetailKey> uncovered(WorkRecord record, RecordReaders readers, PersonId asker) {
    Capacities capacities = crew.person(asker).map(readers::of).orElse(new Capacities(0));
    return detail -> sight.allowed(capacities, record, detail);
  }

  /** Whether all the details of the record are among these. */
  boolean areAll(WorkRecord record, Predicate<DetailKey> uncovered) {
    return sight.details(record).allMatch(uncovered);
  }

  /** An entry of the record with its faces, what is not uncovered covered. */
  Projected cut(
      WorkRecord record,
      RecordReaders readers,
      Entry entry,
      Release.Known releases,
      Predicate<DetailKey> uncovered) {
    List<Seen> now =
        faces(entry.key(), audience -> sight.face(record, readers, entry, audience, uncovered));
    if (!entry.waits()) {
      return new Projected(entry, now);
    }
    Release release = releases.of(entry.key());
    if (release instanceof Release.AsItStands) {
      return released(record, readers, entry, now);
    }
    if (release instanceof Release.IfTheSame off) {
      return readAlike(keeps(record, readers, entry, off.released(), uncovered), now)
          ? released(record, readers, entry, now)
          : new Projected(entry, List.of(), true, Optional.empty());
    }
    if (release instanceof Release.Last last) {
      List<Seen> kept = keeps(record, readers, entry, last.released(), uncovered);
      return readAlike(kept, now)
          ? released(record, readers, entry, now)
          : new Projected(entry, kept, true, release.last());
    }
    return new Projected(entry, List.of(), true, Optional.empty());
  }

  /** As they are kept and served: a moment's fraction of a second is neither. */
  private static boolean readAlike(List<Seen> some, List<Seen> others) {
    return canonical(some).equals(canonical(others));
  }

  private static Map<RenderingId, String> canonical(List<Seen> faces) {
    return faces.stream()
        .collect(Collectors.toMap(Seen::rendering, seen -> seen.face().canonical()));
  }

  private Projected released(
      WorkRecord record, RecordReaders readers, Entry entry, List<Seen> now) {
    return new Projected(entry, now, false, Optional.of(sight.released(record, readers, entry)));
  }

  private List<Seen> keeps(
      WorkRecord record,
      RecordReaders readers,
      Entry entry,
      Released released,
      Predicate<DetailKey> uncovered) {
    return faces(
        entry.key(), audience -> sight.face(record, readers, released, audience, uncovered));
  }

  private List<Seen> faces(EntryKey key, Function<Audience, Optional<Face>> cut) {
    List<Seen> faces = new ArrayList<>(2);
    for (Rendering rendering : calendars.renderingsOf(key.calendar())) {
      cut.apply(calendars.audience(rendering.id()))
          .ifPresent(face -> faces.add(new Seen(rendering.id(), face)));
    }
    return faces;
  }

  /** Whether both cut the same faces of the same entries, as far as wordings are the same. */
  boolean readsAs(Projector other) {
    return crew == other.crew && calendars == other.calendars && sight.readsAs(other.sight);
  }

  /** Whether both word an entry alike. */
  boolean wordsAs(Projector other, WorkRecord record, Entry entry, Entry othersEntry) {
    return sight.wordsAs(other.sight, record, entry, othersEntry);
  }

  /** The details that the readers of a rendering see of an entry, as far as they are filled. */
  public Set<DetailKey> shown(WorkRecord record, Projected projected, RenderingId rendering) {
    return shown(record, projected, rendering, Sight.UNCOVERED);
  }

  /** The same for somebody else's eyes: what is covered counts as filled. */
  Set<DetailKey> shown(
      WorkRecord record,
      Projected projected,
      RenderingId rendering,
      Predicate<DetailKey> uncovered) {
    RecordReaders readers = RecordReaders.of(record, crew);
    Audience audience = calendars.audience(rendering);
    if (projected.asks()) {
      return projected
          .keep()
          .map(released -> sight.shown(record, readers, released, audience, uncovered))
          .orElse(Set.of());
    }
    Set<DetailKey> found = new TreeSet<>();
    sight.explain(record, readers, projected.entry(), audience).stream()
        .filter(
            told ->
                told.status() == Sight.Status.SHOWN
                    || told.counts() && !uncovered.test(told.detail()))
        .forEach(told -> found.add(told.detail()));
    return found;
  }
}
