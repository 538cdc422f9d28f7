package mellowrota.server.links;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.Family;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.Person;
import mellowrota.core.project.Projector;
import mellowrota.core.project.Release;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.calendars.store.Entries;
import mellowrota.server.calendars.store.ReleaseStore;
import mellowrota.server.links.store.Changes;
import mellowrota.server.outside.Host;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Looks what a link would send and read before there is one. */
@Component
@RequiredArgsConstructor
class LinkPreviews {

  private static final int NEAREST = 5;
  private static final int AT_ONCE = 500;

  private final Host host;
  private final Worlds worlds;
  private final RecordStore store;
  private final ReleaseStore releases;
  private final Entries entries;
  private final Clock clock;
  private final TransactionTemplate reading;

  @Schema(name = "LinkLook")
  record LookView(
      String href,
      String name,
      @Schema(description = "Copies that would be sent") long copies,
      @Schema(description = "The soonest of them") List<NearView> nearest,
      @Schema(description = "Entries there whose busy time would be read; otherwise 0")
          long read) {}

  /** An entry as it would be written there; what the asker may not see stands covered. */
  @Schema(name = "LinkLookEntry")
  record NearView(String title, String place, String text, String when) {}

  private record Sent(Instant starts, Face face) {}

  /** What would be sent, and how many entries would be read. */
  List<LookView> at(Person asker, Host.Account account, List<Links.Wanted> wanted)
      throws OutsideFault {
    List<LookView> found = new ArrayList<>();
    for (Links.Wanted one : wanted) {
      long read = one.readsBusy() ? host.all(account, one.href()).tags().size() : 0;
      List<Sent> sent =
          one.writes()
              .map(calendar -> reading.execute(s -> sent(asker, calendar, one)))
              .orElse(List.of());
      Instant now = clock.instant();
      found.add(
          new LookView(
              one.href().toString(),
              one.name(),
              sent.size(),
              sent.stream()
                  .sorted(Comparator.comparing(each -> Duration.between(now, each.starts()).abs()))
                  .limit(NEAREST)
                  .map(each -> view(each.face()))
                  .toList(),
              read));
    }
    return found;
  }

  private static NearView view(Face face) {
    return new NearView(face.title(), face.place(), face.text(), Changes.words(face.times()));
  }

  private static Instant from(World world, Links.Wanted one) {
    LocalDate day = one.from().orElse(world.day());
    return day.atStartOfDay(world.house().zone()).toInstant();
  }

  /** The faces that whoever reads it there would get, by what was said of them (SIGHT 1). */
  private List<Sent> sent(Person asker, CalendarId calendar, Links.Wanted wanted) {
    World world = worlds.now();
    Audience audience = world.calendars().audienceOfCopy(calendar, wanted.copy());
    Instant from = from(world, wanted);
    List<Sent> found = new ArrayList<>();
    List<RecordId> all = entries.records(calendar, from);
    for (int at = 0; at < all.size(); at += AT_ONCE) {
      List<RecordId> some = all.subList(at, Math.min(all.size(), at + AT_ONCE));
      Release.Known known = releases.of(world, some);
      for (WorkRecord record : store.load(some, false)) {
        RecordReaders readers = RecordReaders.of(record, world.crew());
        for (Projector.Projected one : world.projector().project(record, known)) {
          if (one.entry().key().calendar().equals(calendar)
              && takes(wanted, one.entry().key().family())) {
            face(world, asker, record, readers, one, audience)
                .filter(face -> !face.times().until().isBefore(from))
                .ifPresent(face -> found.add(new Sent(face.times().from(), face)));
          }
        }
      }
    }
    return found;
  }

  private static Optional<Face> face(
      World world,
      Person asker,
      WorkRecord record,
      RecordReaders readers,
      Projector.Projected one,
      Audience audience) {
    List<Capacities> askers = List.of(readers.of(asker));
    return one.asks()
        ? one.keep()
            .flatMap(kept -> world.sight().faceBefore(askers, record, readers, kept, audience))
        : world.sight().faceBefore(askers, record, readers, one.entry(), audience);
  }

  private static boolean takes(Links.Wanted wanted, Family family) {
    return wanted.families().isEmpty() || wanted.families().contains(family);
  }
}
