package mellowrota.server.deadlines;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Sets of deadlines, over HTTP. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class DeadlineSetsController {

  private static final int MOST = 200;

  private final DeadlineSets sets;
  private final Worlds worlds;
  private final Clock clock;

  @GetMapping("/deadline-sets")
  @Operation(summary = "List the sets of deadlines that the caller has office rights on")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  DeadlineSetViews.PageView list(
      Asker asker,
      @RequestParam(required = false) @Nullable Long cursor,
      @RequestParam(defaultValue = "50") int limit) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    if (!me.isCoordinator() && !me.isTeamCoordinator()) {
      throw Problem.forbidden(say("deadlines.only-coordinators-see-sets"));
    }
    if (limit < 1 || limit > MOST) {
      throw Problem.badRequest(say("deadlines.limit", MOST));
    }
    long from = Optional.ofNullable(cursor).orElse(0L);
    List<DeadlineSetViews.SetView> found = new ArrayList<>();
    // What they may not know of is passed over, so that a page is as full as it can be.
    while (found.size() <= limit) {
      List<Long> next = sets.after(from, limit + 1);
      if (next.isEmpty()) {
        return new DeadlineSetViews.PageView(found, null);
      }
      found.addAll(
          sets.told(world, me, next, false).stream().filter(one -> one.chain() != null).toList());
      from = next.get(next.size() - 1);
    }
    List<DeadlineSetViews.SetView> page = found.subList(0, limit);
    return new DeadlineSetViews.PageView(page, String.valueOf(page.get(limit - 1).id()));
  }

  @GetMapping("/deadline-sets/{id}")
  @Operation(summary = "One set of deadlines, each date with its sum")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  DeadlineSetViews.SetView one(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    return sets.one(world, world.person(asker.person()), id).orElseThrow(Problem::notFound);
  }

  @GetMapping("/records/{id}/deadline-sets")
  @Operation(summary = "The sets of deadlines that a record is in, or whose key date belongs to it")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<DeadlineSetViews.SetView> around(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    return sets.around(world, world.person(asker.person()), RecordId.of(id));
  }

  @PostMapping("/deadline-sets/look")
  @Operation(summary = "What sets would come to; changes nothing")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  DeadlineSetLooks.LooksView lookAtMaking(
      Asker asker,
      @RequestBody @Schema(implementation = DeadlineSetInput.MakingsSchema.class) JsonNode body) {
    World world = worlds.now();
    Person me = coordinator(world, asker);
    DeadlineSetInput.Makings wanted =
        DeadlineSetInput.makings(sets, world, me, clock.instant(), body);
    return DeadlineSetLooks.of(
        wanted.ground(),
        wanted.all().stream()
            .map(
                one ->
                    new DeadlineSetLooks.Planned(
                        Optional.empty(), DeadlineSets.plan(wanted.ground(), one, me.id())))
            .toList());
  }

  @PostMapping("/deadline-sets")
  @Operation(summary = "Make sets of deadlines as one change")
  ResponseEntity<DeadlineSetViews.AnswerView> make(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = DeadlineSetInput.MakingsSchema.class) JsonNode body) {
    Person me = coordinator(worlds.now(), asker);
    return ResponseEntity.status(HttpStatus.CREATED)
        .body(answer(sets.make(me.id(), key.value(), body)));
  }

  @PostMapping("/deadline-sets/move/look")
  @Operation(summary = "What would become of sets, both sides beside each other; changes nothing")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  DeadlineSetLooks.LooksView lookAtMove(
      Asker asker,
      @RequestBody @Schema(implementation = DeadlineSetInput.MovingsSchema.class) JsonNode body) {
    World world = worlds.now();
    Person me = coordinator(world, asker);
    return look(world, me, DeadlineSetInput.movings(sets, body));
  }

  @PostMapping("/deadline-sets/move")
  @Operation(summary = "Move key dates, answer, choose, reckon anew: several sets as one change")
  DeadlineSetViews.AnswerView move(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = DeadlineSetInput.MovingsSchema.class) JsonNode body) {
    Person me = coordinator(worlds.now(), asker);
    return answer(sets.move(me.id(), key.value(), body));
  }

  @PostMapping("/deadline-sets/off/look")
  @Operation(summary = "What would come off with sets; changes nothing")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  DeadlineSetLooks.LooksView lookAtOff(
      Asker asker,
      @RequestBody @Schema(implementation = DeadlineSetInput.OffsSchema.class) JsonNode body) {
    World world = worlds.now();
    Person me = coordinator(world, asker);
    return look(world, me, DeadlineSetInput.offs(sets, body));
  }

  @PostMapping("/deadline-sets/off")
  @Operation(summary = "Take sets off with all that is not done, as one change")
  DeadlineSetViews.AnswerView off(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = DeadlineSetInput.OffsSchema.class) JsonNode body) {
    Person me = coordinator(worlds.now(), asker);
    return answer(sets.takeOff(me.id(), key.value(), body));
  }

  private DeadlineSetLooks.LooksView look(World world, Person me, DeadlineSetInput.Movings wanted) {
    List<KeptSet> found = sets.found(wanted, false);
    Ground ground = sets.ground(world, clock.instant(), found, false);
    List<DeadlineSetLooks.Planned> all = new ArrayList<>();
    for (Map.Entry<KeptSet, DeadlineSetPlan> one :
        sets.plans(ground, found, wanted, me).entrySet()) {
      all.add(new DeadlineSetLooks.Planned(Optional.of(one.getKey()), one.getValue()));
    }
    return DeadlineSetLooks.of(ground, all);
  }

  private static DeadlineSetViews.AnswerView answer(DeadlineSets.Saved saved) {
    boolean counts = !saved.done().again();
    return new DeadlineSetViews.AnswerView(
        saved.done().act(),
        saved.sets(),
        counts ? saved.done().entries() : null,
        counts ? saved.done().calendars() : null);
  }

  private static Person coordinator(World world, Asker asker) {
    Person me = world.person(asker.person());
    if (!me.isCoordinator()) {
      throw Problem.forbidden(say("deadlines.only-coordinators-change-sets"));
    }
    return me;
  }
}
