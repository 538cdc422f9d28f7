package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Undoes;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Records over HTTP. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class RecordsController {

  private final Records records;
  private final Undoing undoing;
  private final RecordStore store;
  private final RecordAccess access;
  private final RecordViews views;
  private final RecordList list;
  private final Landings landings;
  private final Histories histories;
  private final Worlds worlds;
  private final Clock clock;
  private final List<Undoes> undoes;
  private final TransactionTemplate reading;

  /**
   * What an act did.
   *
   * @param record the first of them; absent when the asker may not open it any more
   * @param records the numbers of all it made or changed
   * @param entries how many entries changed, told to the office
   */
  @Schema(name = "ActAnswer")
  record ActAnswer(
      long act,
      @Nullable RecordView record,
      List<Long> records,
      @Nullable Long entries,
      @Nullable Integer calendars,
      @Nullable List<String> leaves) {}

  @GetMapping("/records")
  @Operation(summary = "List the records the caller may open, soonest first")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  RecordList.Page list(
      Asker asker,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(required = false) String kind,
      @RequestParam(defaultValue = "") String state,
      @RequestParam(required = false) Long person,
      @RequestParam(required = false) Long place,
      @RequestParam(required = false) Long team,
      @RequestParam(defaultValue = "SOONEST") String sort,
      @RequestParam(required = false) String cursor,
      @RequestParam(defaultValue = "50") int limit) {
    if (limit < 1 || limit > 200) {
      throw Problem.badRequest(say("records.limit-must-be-a"));
    }
    World world = worlds.now();
    return list.page(
        world,
        world.person(asker.person()),
        RecordList.Wanted.of(find, kind, state, person, place, team, sort)
            .from(Optional.ofNullable(cursor), limit));
  }

  @GetMapping("/records/facets")
  @Operation(summary = "How many of a list's records there are of each kind, state, team and so on")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  Facets facets(
      Asker asker,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(required = false) String kind,
      @RequestParam(defaultValue = "") String state,
      @RequestParam(required = false) Long person,
      @RequestParam(required = false) Long place,
      @RequestParam(required = false) Long team) {
    World world = worlds.now();
    return list.facets(
        world,
        world.person(asker.person()),
        RecordList.Wanted.of(find, kind, state, person, place, team, RecordOrder.NEWEST.name()));
  }

  @PostMapping("/records")
  @Operation(summary = "Create a record")
  ResponseEntity<ActAnswer> create(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = RecordSchemas.ChangeSchema.class) JsonNode body) {
    return answer(asker, records.create(asker.person(), key.value(), body)).body201();
  }

  @GetMapping("/records/{id}")
  @Operation(summary = "One record as the caller may see it")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ResponseEntity<RecordView> one(Asker asker, @PathVariable long id) {
    RecordView view = views.view(standing(asker, RecordId.of(id))).orElseThrow(Problem::notFound);
    return ResponseEntity.ok().eTag(views.etag(view)).body(view);
  }

  @PatchMapping("/records/{id}")
  @Operation(summary = "Change a record, if it is still as the caller saw it")
  ResponseEntity<ActAnswer> change(
      Asker asker,
      @PathVariable long id,
      IdempotencyKey key,
      IfMatch match,
      @RequestBody @Schema(implementation = RecordSchemas.ChangeSchema.class) JsonNode body) {
    return answer(
            asker, records.change(asker.person(), RecordId.of(id), key.value(), match.tag(), body))
        .body200();
  }

  @PostMapping("/records/several")
  @Operation(summary = "Create and change several records as one change: all or nothing")
  ResponseEntity<ActAnswer> several(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = RecordSchemas.SeveralSchema.class) JsonNode body) {
    return answer(asker, records.several(asker.person(), key.value(), body)).body200();
  }

  @GetMapping("/records/{id}/landings")
  @Operation(summary = "Where a record lands, and why not on other calendars")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  LandingView landings(Asker asker, @PathVariable long id) {
    return landings.of(opened(asker, id));
  }

  @GetMapping("/records/{id}/history")
  @Operation(summary = "The history of a record, newest first")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<HistoryView> history(Asker asker, @PathVariable long id) {
    return histories.of(opened(asker, id));
  }

  @PostMapping("/landings")
  @Operation(summary = "Where a record would land; changes nothing")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  LandingView preview(
      Asker asker,
      @RequestBody @Schema(implementation = RecordSchemas.ChangeSchema.class) JsonNode body) {
    World world = worlds.now();
    Person person = world.person(asker.person());
    return landings.of(
        RecordAccess.standing(
            world, person, records.preview(world, person, clock.instant(), body), false));
  }

  @PostMapping("/acts/{id}/undo")
  @Operation(summary = "Undo a change, as far as nobody has changed the values since")
  ResponseEntity<ActAnswer> undo(Asker asker, @PathVariable long id, IdempotencyKey key) {
    for (Undoes others : undoes) {
      if (others.knows(id)) {
        if (!others.mayUndo(asker.person(), id)) {
          throw Problem.notFound();
        }
        Acts.Done done = others.undo(asker.person(), id, key.value());
        return ResponseEntity.ok(
            new ActAnswer(done.act(), null, List.of(), done.entries(), done.calendars(), null));
      }
    }
    return answer(asker, undoing.undo(asker.person(), id, key.value())).body200();
  }

  private RecordAccess.Standing standing(Asker asker, RecordId id) {
    World world = worlds.now();
    return access.standing(
        world, world.person(asker.person()), store.find(id, false).orElseThrow(Problem::notFound));
  }

  private RecordAccess.Standing opened(Asker asker, long id) {
    RecordAccess.Standing standing = standing(asker, RecordId.of(id));
    if (!standing.opens()) {
      throw Problem.notFound();
    }
    return standing;
  }

  private record Answered(ActAnswer answer, Optional<String> etag) {
    ResponseEntity<ActAnswer> body200() {
      return body(ResponseEntity.ok());
    }

    ResponseEntity<ActAnswer> body201() {
      return body(ResponseEntity.status(201));
    }

    private ResponseEntity<ActAnswer> body(ResponseEntity.BodyBuilder builder) {
      etag.ifPresent(builder::eTag);
      return builder.body(answer);
    }
  }

  /** Made after the act is committed, so that nobody waits for it. */
  private Answered answer(Asker asker, Records.Saved saved) {
    RecordAccess.Standing standing =
        saved
            .after()
            .orElseGet(() -> reading.execute(status -> standing(asker, saved.records().get(0))));
    Optional<RecordView> view = views.view(standing);
    Acts.Done done = saved.done();
    boolean counts = standing.isOffice() && !done.again();
    return new Answered(
        new ActAnswer(
            done.act(),
            view.orElse(null),
            saved.records().stream().map(RecordId::value).toList(),
            counts ? done.entries() : null,
            counts ? done.calendars() : null,
            saved.leaves().isEmpty() ? null : saved.leaves()),
        view.map(views::etag));
  }
}
