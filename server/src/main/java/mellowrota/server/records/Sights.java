package mellowrota.server.records;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.entry.Entry;
import mellowrota.core.rule.Landing;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Sight;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;

/** Details by audiences, and the entries as each of them gets them, before one coordinator. */
public final class Sights {

  private Sights() {}

  /** Of a record in the world that the standing names, which may be one that is only wished for. */
  public static SightViews.SightView of(RecordAccess.Standing standing) {
    World world = standing.world();
    RecordReaders readers = RecordReaders.of(standing.record(), world.crew());
    List<SightViews.AudienceView> audiences = new ArrayList<>();
    for (Landing.Lands landing : world.router().land(standing.record())) {
      for (Rendering rendering : world.calendars().renderingsOf(landing.calendar())) {
        audience(standing, readers, landing.entry(), rendering).ifPresent(audiences::add);
      }
    }
    return new SightViews.SightView(details(standing), audiences);
  }

  private static List<SightViews.DetailView> details(RecordAccess.Standing standing) {
    List<SightViews.DetailView> found = new ArrayList<>();
    WorkRecord record = standing.record();
    for (DetailDefinition one : standing.world().details().of(record.kind())) {
      DetailKey key = one.key();
      found.add(
          new SightViews.DetailView(
              key.name(),
              one.label(),
              ForWords.of(
                  standing.world().details().forWhom(record, key), standing.world().roles()),
              standing.sees(key) && one.typed() ? record.text(key).orElse("") : null));
    }
    return found;
  }

  private static Optional<SightViews.AudienceView> audience(
      RecordAccess.Standing standing, RecordReaders readers, Entry entry, Rendering rendering) {
    World world = standing.world();
    Audience audience = world.calendars().audience(rendering.id());
    if (audience.isEmpty()) {
      return Optional.empty();
    }
    Calendar calendar = world.calendars().find(rendering.calendar()).orElseThrow();
    Optional<Face> face =
        world
            .sight()
            .faceBefore(standing.capacities(), standing.record(), readers, entry, audience);
    return Optional.of(
        new SightViews.AudienceView(
            calendar.id().value(),
            calendar.name(),
            calendar.owner().sort().name(),
            ReaderWords.way(rendering),
            ReaderWords.of(world, rendering),
            standing.record().visits().size() > 1 ? entry.key().visit() : null,
            world.sight().explain(standing.record(), readers, entry, audience).stream()
                .map(told -> cell(standing, told))
                .toList(),
            face.map(Sights::entry).orElse(null)));
  }

  private static SightViews.EntryView entry(Face face) {
    return new SightViews.EntryView(
        face.title(), face.place(), face.text(), Landings.times(face.times()), face.marks().busy());
  }

  /** Whether a detail that the asker may not see is filled is not told either. */
  private static SightViews.CellView cell(RecordAccess.Standing standing, Sight.Told told) {
    boolean tells =
        told.status() == Sight.Status.EMPTY || told.status() == Sight.Status.DOES_NOT_APPLY;
    boolean covered = tells && !standing.sees(told.detail());
    Sight.Status status = covered ? Sight.Status.SHOWN : told.status();
    return new SightViews.CellView(
        status.name(),
        told.blocking().map(id -> ReaderWords.name(standing.world(), id)).orElse(null));
  }
}
