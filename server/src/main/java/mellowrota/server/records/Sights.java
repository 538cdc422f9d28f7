package mellowrota.server.records;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.entry.Entry;
import mellowrota.core.project.Projector;
import mellowrota.core.project.Release;
import mellowrota.core.sight.Alarm;
import mellowrota.core.sight.Attendee;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Sight;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.calendars.store.ReleaseStore;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Details by audiences, and the entries as each of them gets them, before one coordinator. */
@Service
@RequiredArgsConstructor
public class Sights {

  private final ReleaseStore releases;

  /** Of a record in the world that the standing names, which may be one that is only wished for. */
  public SightViews.SightView of(RecordAccess.Standing standing) {
    World world = standing.world();
    RecordReaders readers = RecordReaders.of(standing.record(), world.crew());
    List<SightViews.AudienceView> audiences = new ArrayList<>();
    Release.Known known = releases.of(world, List.of(standing.record().id()));
    for (Projector.Projected one : world.projector().project(standing.record(), known)) {
      for (Rendering rendering : world.calendars().renderingsOf(one.entry().key().calendar())) {
        audience(standing, readers, one, rendering).ifPresent(audiences::add);
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
              standing.sees(key) && one.typed()
                  ? record.text(key).filter(text -> one.appliesTo(record)).orElse("")
                  : null));
    }
    return found;
  }

  private static Optional<SightViews.AudienceView> audience(
      RecordAccess.Standing standing,
      RecordReaders readers,
      Projector.Projected one,
      Rendering rendering) {
    Entry entry = one.entry();
    World world = standing.world();
    Audience audience = world.calendars().audience(rendering.id());
    if (audience.isEmpty()) {
      return Optional.empty();
    }
    Calendar calendar = world.calendars().find(rendering.calendar()).orElseThrow();
    Optional<Face> face = face(standing, readers, one, audience);
    return Optional.of(
        new SightViews.AudienceView(
            calendar.id().value(),
            calendar.name(),
            calendar.owner().sort(),
            ReaderWords.way(rendering),
            ReaderWords.of(world, rendering),
            standing.record().visits().size() > 1 ? entry.key().visit() : null,
            world.sight().explain(standing.record(), readers, entry, audience).stream()
                .map(told -> cell(standing, told))
                .toList(),
            waits(one),
            face.map(Sights::entry).orElse(null)));
  }

  /** FIRST before the first yes, CHANGE where readers keep what they had, else nothing. */
  static String waits(Projector.Projected one) {
    return !one.asks() ? null : one.isServed() ? "CHANGE" : "FIRST";
  }

  /** What an audience gets of an entry, as the asker may look at it. */
  public static Optional<Face> face(
      RecordAccess.Standing standing,
      RecordReaders readers,
      Projector.Projected one,
      Audience audience) {
    Sight sight = standing.world().sight();
    if (!one.asks()) {
      return sight.faceBefore(standing.askers(), standing.record(), readers, one.entry(), audience);
    }
    return one.keep()
        .flatMap(
            released ->
                sight.faceBefore(
                    standing.askers(), standing.record(), readers, released, audience));
  }

  /** A face in the words of the screens. */
  public static SightViews.EntryView entry(Face face) {
    return new SightViews.EntryView(
        face.title(),
        face.place(),
        face.text(),
        Landings.times(face.times()),
        face.marks().busy(),
        face.attendees().stream().map(Attendee::name).toList(),
        face.alarms().stream().map(Sights::rings).toList());
  }

  private static String rings(Alarm alarm) {
    Duration before = alarm.before().abs();
    String lasts =
        before.toDaysPart() > 0 && before.toHoursPart() == 0 && before.toMinutesPart() == 0
            ? counted(before.toDays(), "day")
            : before.toMinutesPart() == 0
                ? counted(before.toHours(), "hour")
                : counted(before.toMinutes(), "minute");
    String side = alarm.before().isNegative() ? " after " : " before ";
    return lasts + side + (alarm.fromEnd() ? "the end" : "the start");
  }

  private static String counted(long count, String what) {
    return count + " " + what + (count == 1 ? "" : "s");
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
