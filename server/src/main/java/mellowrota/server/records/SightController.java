package mellowrota.server.records;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.entry.Entry;
import mellowrota.core.people.Person;
import mellowrota.core.rule.Landing;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.sight.Sight;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Who sees what of a record: its details by audiences, and the entry as each of them gets it. */
@RestController
@RequestMapping("/api/v1/records/{id}/sight")
class SightController {

  private final Worlds worlds;
  private final RecordStore store;
  private final RecordAccess access;

  SightController(Worlds worlds, RecordStore store, RecordAccess access) {
    this.worlds = worlds;
    this.store = store;
    this.access = access;
  }

  /**
   * A detail of the record.
   *
   * @param value as it stands; absent where the asker may not see it, filled or not
   */
  @Schema(name = "SightDetail")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record DetailView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String key,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String label,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String forWhom,
      String value) {}

  /**
   * Whether an audience is shown a detail.
   *
   * @param status SHOWN, NOT_ASKED, NOT_FOR_A_READER, DOES_NOT_APPLY or EMPTY
   * @param reader whom it is not for
   */
  @Schema(name = "SightCell")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record CellView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String status, String reader) {}

  /** An entry as its audience gets it; what the asker may not see of it is covered. */
  @Schema(name = "SightEntry")
  record EntryView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String title,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String place,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String text,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) LandingView.TimesView times,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean busy) {}

  /**
   * Who reads one rendering of one entry.
   *
   * @param way MEMBERS, SHARE or FEED
   * @param readers in words
   * @param cells in the order of the details
   * @param entry absent where times may not be shown to all of them
   */
  @Schema(name = "SightAudience")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record AudienceView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long calendar,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String sort,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String way,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String readers,
      Integer visit,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<CellView> cells,
      EntryView entry) {}

  @Schema(name = "Sight")
  record SightView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<DetailView> details,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<AudienceView> audiences) {}

  @GetMapping
  @Operation(summary = "Details by audiences, and the entries as each of them gets them")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  SightView sight(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    WorkRecord record = store.find(RecordId.of(id), false).orElseThrow(Problem::notFound);
    RecordAccess.Standing standing = access.standing(world, me, record);
    if (!standing.opens()) {
      throw Problem.notFound();
    }
    if (!me.isCoordinator()) {
      throw Problem.forbidden("Who reads which calendar is the coordinators' to know.");
    }
    RecordReaders readers = RecordReaders.of(record, world.crew());
    List<AudienceView> audiences = new ArrayList<>();
    for (Landing.Lands landing : world.router().land(record)) {
      for (Rendering rendering : world.calendars().renderingsOf(landing.calendar())) {
        audience(standing, readers, landing.entry(), rendering).ifPresent(audiences::add);
      }
    }
    return new SightView(details(standing), audiences);
  }

  private static List<DetailView> details(RecordAccess.Standing standing) {
    List<DetailView> found = new ArrayList<>();
    WorkRecord record = standing.record();
    for (DetailDefinition one : standing.world().details().of(record.kind())) {
      DetailKey key = one.key();
      found.add(
          new DetailView(
              key.name(),
              one.label(),
              ForWords.of(
                  standing.world().details().forWhom(record, key), standing.world().roles()),
              standing.sees(key) && one.typed() ? record.text(key).orElse("") : null));
    }
    return found;
  }

  private static Optional<AudienceView> audience(
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
        new AudienceView(
            calendar.id().value(),
            calendar.name(),
            calendar.owner().sort().name(),
            way(rendering),
            ReaderWords.of(world, rendering),
            standing.record().visits().size() > 1 ? entry.key().visit() : null,
            world.sight().explain(standing.record(), readers, entry, audience).stream()
                .map(told -> cell(standing, told))
                .toList(),
            face.map(SightController::entry).orElse(null)));
  }

  private static EntryView entry(Face face) {
    return new EntryView(
        face.title(), face.place(), face.text(), Landings.times(face.times()), face.marks().busy());
  }

  private static String way(Rendering rendering) {
    if (rendering.way() instanceof Rendering.Way.Members) {
      return "MEMBERS";
    }
    return rendering.way() instanceof Rendering.Way.Share ? "SHARE" : "FEED";
  }

  /** Whether a detail that the asker may not see is filled is not told either. */
  private static CellView cell(RecordAccess.Standing standing, Sight.Told told) {
    boolean tells =
        told.status() == Sight.Status.EMPTY || told.status() == Sight.Status.DOES_NOT_APPLY;
    boolean covered = tells && !standing.sees(told.detail());
    Sight.Status status = covered ? Sight.Status.SHOWN : told.status();
    return new CellView(
        status.name(),
        told.blocking().map(id -> ReaderWords.name(standing.world(), id)).orElse(null));
  }
}
