package mellowrota.server.cover;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.people.Person;
import mellowrota.core.work.Visit;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Input;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.RecordSchemas;
import mellowrota.server.records.Records;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** What work that is being planned would make wrong, and who could do it, over HTTP. */
@RestController
@RequestMapping("/api/v1/cover")
@RequiredArgsConstructor
class TrialController {

  private static final TrialViews.Told NOTHING = new TrialViews.Told(List.of(), List.of());

  private final Worlds worlds;
  private final Records records;
  private final Assigning assigning;
  private final SaveTrial trial;
  private final TrialViews views;
  private final CandidateFinder finder;
  private final CandidateViews candidates;
  private final Clock clock;

  @Schema(name = "TrialAsked")
  record AskedSchema(
      @Schema(description = "The record to change; absent: it is new") @Nullable Long record,
      RecordSchemas.ChangeSchema change,
      @Schema(description = "Who could do that visit of it; absent, or without a time: the first")
          @Nullable Integer visit) {}

  @Schema(name = "Trial")
  record TrialView(
      @Schema(description = "Why it would be refused, each with its remedy") List<String> refused,
      @Schema(description = "What it would break that only warns") List<String> warns,
      @Schema(description = "The clashes behind them, of people the caller coordinates")
          List<ClashViews.ClashView> clashes,
      @Schema(description = "Who could do one visit of it with a time, of the same people")
          List<CandidateViews.AnswerView> people,
      @Schema(description = "Which visit that is") @Nullable Integer visit,
      @Nullable Instant start,
      @Nullable Instant end) {}

  @PostMapping("/trial")
  @Operation(summary = "Try a record before it is saved: what it would break, and who could do it")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  TrialView tried(
      Asker asker, @RequestBody @Schema(implementation = AskedSchema.class) JsonNode body) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    Input input = Input.of(body, AskedSchema.class);
    Optional<RecordAccess.Standing> standing =
        input.has("record")
            ? Optional.of(
                assigning.standing(world, asker.person(), input.number("record").orElse(0)))
            : Optional.empty();
    OptionalLong visit = input.number("visit");
    input.check();
    JsonNode change = body.path("change");
    WorkRecord planned =
        standing.isPresent()
            ? records.preview(world, standing.get(), clock.instant(), change)
            : records.preview(world, me, clock.instant(), change);
    boolean office = standing.map(RecordAccess.Standing::isOffice).orElse(true);
    SaveTrial.Touched touched =
        trial.touched(
            world,
            List.of(new SaveTrial.Change(standing.map(RecordAccess.Standing::record), planned)));
    Optional<OfVisit> asked = office ? asked(world, me, planned, visit) : Optional.empty();
    List<CandidateViews.AnswerView> people =
        asked.map(one -> candidates.answers(world, me, one.found())).orElse(List.of());
    if (touched.isNothing()) {
      return view(NOTHING, NOTHING, people, asked);
    }
    SaveTrial.Found found = trial.find(world, touched);
    // Trying leaves no trace, so that it tells of those the asker answers for alone.
    List<Clash> known = views.known(me, found.clashes());
    TrialViews.Told refused = views.of(world, me, found, at(known, Clash.Level.NEVER));
    TrialViews.Told warns = views.of(world, me, found, at(known, Clash.Level.WARN));
    return view(refused, warns, people, asked);
  }

  private static TrialView view(
      TrialViews.Told refused,
      TrialViews.Told warns,
      List<CandidateViews.AnswerView> people,
      Optional<OfVisit> asked) {
    List<ClashViews.ClashView> clashes = new ArrayList<>(refused.clashes());
    clashes.addAll(warns.clashes());
    return new TrialView(
        refused.says(),
        warns.says(),
        clashes,
        people,
        asked.map(OfVisit::no).orElse(null),
        asked.map(one -> one.found().work().span().start()).orElse(null),
        asked.map(one -> one.found().work().span().end()).orElse(null));
  }

  /** Who could do a visit. */
  private record OfVisit(int no, CandidateFinder.Asked found) {}

  private Optional<OfVisit> asked(World world, Person me, WorkRecord planned, OptionalLong wanted) {
    List<Integer> timed =
        planned.visits().stream().filter(visit -> visit.when().isPresent()).map(Visit::no).toList();
    return timed.stream()
        .filter(no -> wanted.isPresent() && no == wanted.getAsLong())
        .findFirst()
        .or(() -> timed.stream().findFirst())
        .map(no -> new OfVisit(no, finder.whoCould(world, me, planned, no)));
  }

  private static List<Clash> at(List<Clash> clashes, Clash.Level level) {
    return clashes.stream().filter(one -> one.level() == level).toList();
  }
}
