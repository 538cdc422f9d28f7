package mellowrota.server.releases;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.Person;
import mellowrota.core.project.Projector;
import mellowrota.core.sight.Face;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.work.DetailKey;
import mellowrota.server.acts.Acts;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.SightViews;
import mellowrota.server.records.Sights;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** What waits for a yes, over HTTP. */
@RestController
@RequestMapping("/api/v1/releases")
@RequiredArgsConstructor
class ReleasesController {

  private final Releases releases;
  private final Worlds worlds;

  /**
   * An entry that waits for a yes.
   *
   * @param as to be sent with the yes: what was looked at
   * @param title of the record, as far as the asker may see it
   * @param visit which visit; absent where the record has only one
   * @param before what the calendar's readers have until then; absent where they have nothing
   * @param after what they would have; what the asker may not see of it is covered
   * @param readers who they are
   */
  @Schema(name = "WaitingEntry")
  record WaitingView(
      long entry,
      String as,
      Instant since,
      long record,
      String ref,
      String title,
      long calendar,
      String name,
      @Nullable Integer visit,
      String readers,
      SightViews.@Nullable EntryView before,
      SightViews.@Nullable EntryView after) {}

  /** A yes to one entry as it was looked at. */
  @Schema(name = "Yes")
  record YesView(long entry, String as) {}

  @Schema(name = "Yeses")
  record YesesView(List<YesView> items) {}

  /** What a yes did. */
  @Schema(name = "Released")
  record ReleasedView(long act, long entries, int calendars) {}

  @GetMapping
  @Operation(summary = "List the entries awaiting approval, oldest first, at most 500")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<WaitingView> waiting(Asker asker) {
    World world = worlds.now();
    Person person = office(world, asker);
    return releases.before(world, person).stream().map(ReleasesController::view).toList();
  }

  @PostMapping
  @Operation(summary = "Approve entries as they were shown: all or none")
  ReleasedView release(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = YesesView.class) JsonNode body) {
    office(worlds.now(), asker);
    Input input = Input.of(body, YesesView.class);
    List<Releases.Yes> all = new ArrayList<>();
    Set<Long> entries = new HashSet<>();
    for (Input item : input.objects("items", Releases.MOST, YesView.class)) {
      OptionalLong entry = item.number("entry");
      String as = item.required("as", 100);
      if (entry.isEmpty() || !entries.add(entry.getAsLong())) {
        item.fault("entry", say("releases.is-missing-or-listed"));
      }
      all.add(new Releases.Yes(entry.orElse(0), as));
    }
    if (all.isEmpty() && !input.namesFault("items")) {
      input.fault("items", say("releases.are-missing-see-get"));
    }
    input.check();
    Acts.Done done = releases.release(asker.person(), key.value(), body.toString(), all);
    return new ReleasedView(done.act(), done.entries(), done.calendars());
  }

  private static Person office(World world, Asker asker) {
    Person person = world.person(asker.person());
    if (!person.isCoordinator() && !person.isTeamCoordinator()) {
      throw Problem.forbidden(say("releases.only-coordinators-can-approve"));
    }
    return person;
  }

  private static WaitingView view(Releases.Waiting one) {
    RecordAccess.Standing standing = one.standing();
    World world = standing.world();
    Calendar calendar =
        world.calendars().find(one.projected().entry().key().calendar()).orElseThrow();
    Rendering rendering = rendering(world, calendar, one);
    return new WaitingView(
        one.entry(),
        one.as(),
        one.since(),
        standing.record().id().value(),
        standing.sees(DetailKey.REF) ? standing.record().ref() : "",
        standing.sees(DetailKey.TITLE) ? standing.record().text(DetailKey.TITLE).orElse("") : "",
        calendar.id().value(),
        calendar.name(),
        standing.record().visits().size() > 1 ? one.projected().entry().key().visit() : null,
        // Readers are for coordinators to list (LANDING 17).
        standing.person().isCoordinator()
            ? ReaderWords.of(world, rendering)
            : say("releases.anybody-who-reads-it"),
        entry(standing, one.projected(), rendering).orElse(null),
        entry(standing, one.now(), rendering).orElse(null));
  }

  /** The calendar's members, unless what they get stays the same and it is others' that waits. */
  private static Rendering rendering(World world, Calendar calendar, Releases.Waiting one) {
    List<Rendering> all = world.calendars().renderingsOf(calendar.id());
    Map<RenderingId, Face> had = faces(one.projected());
    Map<RenderingId, Face> gets = faces(one.now());
    return all.stream()
        .filter(rendering -> gets.containsKey(rendering.id()))
        .filter(rendering -> !gets.get(rendering.id()).equals(had.get(rendering.id())))
        .findFirst()
        .orElse(all.get(0));
  }

  private static Map<RenderingId, Face> faces(Projector.Projected one) {
    return one.faces().stream()
        .collect(Collectors.toMap(Projector.Seen::rendering, Projector.Seen::face));
  }

  private static Optional<SightViews.EntryView> entry(
      RecordAccess.Standing standing, Projector.Projected one, Rendering rendering) {
    return Sights.face(
            standing,
            RecordReaders.of(standing.record(), standing.world().crew()),
            one,
            standing.world().calendars().audience(rendering.id()))
        .map(Sights::entry);
  }
}
