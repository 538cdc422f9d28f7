package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.util.List;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.server.acts.Acts;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.Landings;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.Records;
import mellowrota.server.records.Sights;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Landing rules and wordings, written by coordinators: tried, looked at, taken. */
@RestController
@RequestMapping("/api/v1/rules")
@RequiredArgsConstructor
class RulesController {

  private final RuleSets sets;
  private final SetChanges changes;
  private final PreviewRuns looks;
  private final SetWork work;
  private final Worlds worlds;
  private final RecordStore store;
  private final RecordAccess access;
  private final Landings landings;
  private final Sights sights;
  private final Records records;
  private final Clock clock;
  private final JsonMapper json;

  @GetMapping
  @Operation(summary = "All landing rules in order, all wordings, and what each rule lands")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  SetViews.SetView now(Asker asker) {
    coordinator(worlds.now(), asker);
    return sets.view();
  }

  @GetMapping(path = "/file", produces = "application/yaml;charset=utf-8")
  @Operation(summary = "Rules, wordings and details as one readable file")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ResponseEntity<String> file(Asker asker) {
    World world = worlds.now();
    coordinator(world, asker);
    return ResponseEntity.ok()
        .header("Content-Disposition", "attachment; filename=\"rules.yaml\"")
        .body(new SetFile(world, sets.now(), json).write());
  }

  @PostMapping(path = "/file", consumes = "application/yaml")
  @Operation(
      summary = "Read a file of rules, wordings and details, to preview and apply; changes nothing")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  SetViews.WishView read(
      Asker asker,
      @io.swagger.v3.oas.annotations.parameters.RequestBody(
              content =
                  @Content(
                      mediaType = "application/yaml",
                      schema = @Schema(implementation = String.class)))
          @RequestBody(required = false)
          String text) {
    World world = worlds.now();
    coordinator(world, asker);
    ObjectNode now = sets.now();
    ObjectNode set = new SetFile(world, now, json).read(text == null ? "" : text);
    set.put("tag", RuleSets.tag(now));
    set.remove("fallback");
    return json.treeToValue(set, SetViews.WishView.class);
  }

  @PostMapping("/look")
  @Operation(
      summary =
          "Preview what a set would do to all entries. With many records it continues in the background")
  SetViews.PreviewView look(
      Asker asker, @RequestBody @Schema(implementation = SetViews.WishView.class) JsonNode body) {
    World world = worlds.now();
    coordinator(world, asker);
    RuleSet set = SetInput.read(world, body);
    changes.requireFresh(set);
    return looks.begin(asker.person(), world, set);
  }

  @GetMapping("/looks/{looked}")
  @Operation(summary = "What the caller’s preview found so far")
  @Transactional(readOnly = true)
  SetViews.PreviewView looked(Asker asker, @PathVariable String looked) {
    coordinator(worlds.now(), asker);
    return looks.find(asker.person(), looked).orElseThrow(Problem::notFound);
  }

  @GetMapping("/work")
  @Operation(summary = "The change of rules that is updating calendars, if any")
  @Transactional(readOnly = true)
  List<SetViews.WorkView> work(Asker asker) {
    coordinator(worlds.now(), asker);
    return work.now().stream().toList();
  }

  @PostMapping("/work/{act}/stop")
  @Operation(summary = "Stop the update")
  List<SetViews.WorkView> stop(Asker asker, @PathVariable long act) {
    coordinator(worlds.now(), asker);
    work.stop(act);
    return work.now().stream().toList();
  }

  @PostMapping("/work/{act}/go-on")
  @Operation(summary = "Resume the update")
  List<SetViews.WorkView> goOn(Asker asker, @PathVariable long act) {
    coordinator(worlds.now(), asker);
    work.goOn(act);
    return work.now().stream().toList();
  }

  @PostMapping("/try")
  @Operation(summary = "Where a record would land under a set, and why; changes nothing")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  SetViews.TriedView attempt(
      Asker asker, @RequestBody @Schema(implementation = SetViews.WishView.class) JsonNode body) {
    World world = worlds.now();
    Person me = coordinator(world, asker);
    RuleSet set = SetInput.read(world, body);
    World wished = sets.worldWith(world, set);
    RecordAccess.Standing standing =
        body.has("typed")
            ? RecordAccess.standing(
                wished, me, records.preview(wished, me, clock.instant(), body.get("typed")), false)
            : store
                .find(RecordId.of(set.record().orElse(0)), false)
                .map(record -> access.standing(wished, me, record))
                .filter(RecordAccess.Standing::opens)
                .orElseThrow(Problem::notFound);
    return new SetViews.TriedView(landings.of(standing), sights.of(standing));
  }

  @PostMapping("/take")
  @Operation(summary = "Apply a set that was previewed, as one change")
  SetViews.TakenView take(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = SetViews.WishView.class) JsonNode body) {
    World world = worlds.now();
    coordinator(world, asker);
    Acts.Done done = changes.take(asker, key.value(), body.toString(), SetInput.read(world, body));
    boolean goesOn = work.now().filter(one -> one.act() == done.act()).isPresent();
    return new SetViews.TakenView(done.act(), done.entries(), done.calendars(), goesOn);
  }

  private static Person coordinator(World world, Asker asker) {
    Person me = world.person(asker.person());
    if (!me.isCoordinator()) {
      throw Problem.forbidden(say("rules.only-coordinators-can-change"));
    }
    return me;
  }
}
