package mellowrota.core.project;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Entry;
import mellowrota.core.people.Crew;
import mellowrota.core.rule.Landing;
import mellowrota.core.rule.Router;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Sight;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.WorkRecord;

/**
 * Turns a record into its entries and every audience's face of them. Pure: the same world and
 * record give the same result.
 */
public final class Projector {

  /** An entry with the face of each rendering that has one. */
  public record Projected(Entry entry, List<Seen> faces) {}

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

  /** In the order of the entries' keys, faces by rendering. */
  public List<Projected> project(WorkRecord record) {
    List<Landing.Lands> landed = land(record);
    if (landed.isEmpty()) {
      return List.of();
    }
    RecordReaders readers = RecordReaders.of(record, crew);
    List<Projected> found = new ArrayList<>(landed.size());
    for (Landing.Lands lands : landed) {
      found.add(cut(record, readers, lands.entry()));
    }
    return found;
  }

  List<Landing.Lands> land(WorkRecord record) {
    return router.land(record);
  }

  RecordReaders readers(WorkRecord record) {
    return RecordReaders.of(record, crew);
  }

  /** An entry of the record with its faces. */
  Projected cut(WorkRecord record, RecordReaders readers, Entry entry) {
    List<Seen> faces = new ArrayList<>(2);
    for (Rendering rendering : calendars.renderingsOf(entry.key().calendar())) {
      sight
          .face(record, readers, entry, calendars.audience(rendering.id()))
          .ifPresent(face -> faces.add(new Seen(rendering.id(), face)));
    }
    return new Projected(entry, faces);
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
    Set<DetailKey> found = new TreeSet<>();
    sight
        .explain(
            record,
            RecordReaders.of(record, crew),
            projected.entry(),
            calendars.audience(rendering))
        .stream()
        .filter(told -> told.status() == Sight.Status.SHOWN)
        .forEach(told -> found.add(told.detail()));
    return found;
  }
}
