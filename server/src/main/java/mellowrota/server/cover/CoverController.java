package mellowrota.server.cover;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.cover.Clash;
import mellowrota.core.cover.Cover;
import mellowrota.core.cover.WhoCould;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Place;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Cover over HTTP. */
@RestController
@RequestMapping("/api/v1/cover")
class CoverController {

  private static final int MOST_DAYS = 120;
  private static final Duration LONGEST = Duration.ofDays(14);

  private final Covers covers;
  private final Gives gives;
  private final ClashViews clashes;
  private final LetStand stood;
  private final Worlds worlds;

  CoverController(Covers covers, Gives gives, ClashViews clashes, LetStand stood, Worlds worlds) {
    this.covers = covers;
    this.gives = gives;
    this.clashes = clashes;
    this.stood = stood;
    this.worlds = worlds;
  }

  @Schema(name = "CoverDuty")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record CoverDutyView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long id,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String place,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "In which its hours are")
          String zone,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "The most it asks for")
          int most,
      @Schema(description = "Asked of each of its people") String skill) {}

  @Schema(name = "CoverStretch")
  record StretchView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long duty,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant start,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant end,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int needed,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int filled,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "How many more tentative work would fill")
          int maybe) {}

  @Schema(name = "CoverGap")
  record GapView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long duty,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant start,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant end,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int shortBy) {}

  @Schema(name = "Cover")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record CoverView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) LocalDate from,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) LocalDate until,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String zone,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<CoverDutyView> duties,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<StretchView> stretches,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "Those not yet over by start, then those over, the latest first")
          List<GapView> gaps,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long neededMinutes,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long filledMinutes,
      @Schema(description = "Tenths of a per cent, rounded down; not there: nothing is needed")
          Long sharePerMille,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "Of those the asker answers for, by start")
          List<ClashViews.ClashView> clashes,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "Days on which much is due of one person")
          List<ClashViews.ClashView> pileUps) {}

  @GetMapping
  @Operation(summary = "What must be stood from one day until another, and what of it is short")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  CoverView cover(
      Asker asker,
      @Schema(description = "The first day") @RequestParam LocalDate from,
      @Schema(description = "The first day after") @RequestParam LocalDate until) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    requireRange(from, until);
    Covers.Look look = covers.look(world, me, from, until);
    List<Duties.Kept> duties = look.duties();
    Map<String, Long> ids = new HashMap<>();
    duties.forEach(one -> ids.put(one.key(), one.id()));
    Cover cover = look.cover();
    return new CoverView(
        from,
        until,
        world.house().zone().getId(),
        duties.stream().map(one -> view(world, one)).toList(),
        cover.stretches().stream()
            .map(
                one ->
                    new StretchView(
                        ids.get(one.need().by()),
                        one.span().start(),
                        one.span().end(),
                        one.needed(),
                        one.filled(),
                        one.maybe()))
            .toList(),
        cover.gapsAt(covers.now()).stream()
            .map(
                gap ->
                    new GapView(
                        ids.get(gap.of()), gap.span().start(), gap.span().end(), gap.shortBy()))
            .toList(),
        cover.share().needed(),
        cover.share().filled(),
        cover.share().perMille().orElse(null),
        clashes.of(world, me, look.around(), look.clashes()),
        clashes.of(world, me, look.around(), look.pileUps()));
  }

  private static void requireRange(LocalDate from, LocalDate until) {
    if (!until.isAfter(from) || from.plusDays(MOST_DAYS).isBefore(until)) {
      throw Problem.badRequest("until is 1 to " + MOST_DAYS + " days after from.");
    }
  }

  private static CoverDutyView view(World world, Duties.Kept one) {
    Optional<Place> place = world.places().find(one.place());
    return new CoverDutyView(
        one.id(),
        one.name(),
        place.map(Place::name).orElse(""),
        one.in(world).zone().getId(),
        one.spans().stream().mapToInt(span -> span.count()).max().orElse(0),
        one.skill().orElse(null));
  }

  @Schema(name = "WhoCouldReason")
  record ReasonView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) WhoCould.Why why,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "It rules them out; else it only warns")
          boolean never,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant start,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant end) {}

  @Schema(name = "WhoCould")
  record AnswerView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long person,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) WhoCould.Verdict verdict,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<ReasonView> reasons,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "Of work in that week")
          long weekMinutes,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "Nobody has said when they work")
          boolean hoursUnsaid) {}

  private static List<ReasonView> reasons(List<WhoCould.Reason> reasons) {
    return reasons.stream()
        .map(r -> new ReasonView(r.why(), r.never(), r.span().start(), r.span().end()))
        .toList();
  }

  @GetMapping("/who-could")
  @Operation(summary = "Who could stand a span of a duty, the best first and everybody told")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<AnswerView> whoCould(
      Asker asker,
      @RequestParam long duty,
      @RequestParam Instant start,
      @RequestParam Instant end) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    return answers(covers.whoCould(world, me, covers.duty(duty), span(start, end)));
  }

  @GetMapping("/who-could-take")
  @Operation(summary = "Who could take a visit over from somebody, the best first")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<AnswerView> whoCouldTake(
      Asker asker, @RequestParam long record, @RequestParam int visit, @RequestParam long from) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    RecordAccess.Standing standing = gives.standing(world, asker.person(), record);
    return answers(covers.whoCould(world, me, standing.record(), visit, PersonId.of(from)));
  }

  @Schema(name = "HandOver")
  record HandOverSchema(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long record,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int visit,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "Who has it") long from,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "Who gets it") long to) {}

  @PostMapping("/hand-over")
  @Operation(summary = "Hands a visit from one person to another")
  GivenView handOver(
      Asker asker,
      @RequestHeader(name = "Idempotency-Key", required = false) String key,
      @io.swagger.v3.oas.annotations.parameters.RequestBody(
              content = @Content(schema = @Schema(implementation = HandOverSchema.class)))
          @RequestBody
          JsonNode body) {
    World world = worlds.now();
    DutiesController.requireOffice(world.person(asker.person()));
    Input input = Input.of(body, Set.of("record", "visit", "from", "to"));
    long record = input.number("record").orElse(0);
    int visit = (int) input.number("visit").orElse(1);
    PersonId from = PersonId.of(input.number("from").orElse(0));
    PersonId to = somebody(world, input, "to");
    input.check();
    RecordAccess.Standing standing = gives.standing(world, asker.person(), record);
    boolean theirs =
        standing.record().on(visit).stream().anyMatch(one -> one.holder().equals(Holder.of(from)));
    if (!theirs) {
      throw Problem.fault("/from", "is not on this visit (any more)");
    }
    Gives.Given given =
        gives.handOver(asker.person(), IdempotencyKey.of(key), standing, visit, from, to);
    return new GivenView(given.act(), given.record());
  }

  private static PersonId somebody(World world, Input input, String field) {
    PersonId person = PersonId.of(input.number(field).orElse(0));
    if (world.crew().person(person).filter(one -> !one.hasLeft()).isEmpty()) {
      input.fault(field, "is missing or nobody of the house; GET /api/v1/people lists them");
    }
    return person;
  }

  private static List<AnswerView> answers(List<WhoCould.Answer> answers) {
    return answers.stream()
        .map(
            one ->
                new AnswerView(
                    one.candidate().person().value(),
                    one.candidate().name(),
                    one.verdict(),
                    reasons(one.reasons()),
                    one.candidate().load().toMinutes(),
                    one.candidate().of().hours().isUnsaid()))
        .toList();
  }

  private static TimeSpan span(Instant start, Instant end) {
    if (!start.isBefore(end) || start.plus(LONGEST).isBefore(end)) {
      throw Problem.badRequest("end is after start, by 14 days at most.");
    }
    return TimeSpan.of(start, end);
  }

  @Schema(name = "CoverSuggestion")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record SuggestionView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long duty,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant start,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant end,
      @Schema(description = "Not there: nobody could") Long person,
      String name,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "What only warns of them, or what speaks against the best")
          List<ReasonView> reasons) {}

  @GetMapping("/fill")
  @Operation(
      summary = "Suggests who fills what is short, one for each place; nothing is done by it")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<SuggestionView> fill(
      Asker asker,
      @Schema(description = "The first day") @RequestParam LocalDate from,
      @Schema(description = "The first day after") @RequestParam LocalDate until) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    requireRange(from, until);
    return covers.fill(world, me, from, until).stream()
        .map(
            one ->
                new SuggestionView(
                    Duties.Kept.id(one.gap().of()),
                    one.gap().work().span().start(),
                    one.gap().work().span().end(),
                    one.person().map(PersonId::value).orElse(null),
                    one.person().map(id -> world.person(id).name()).orElse(null),
                    reasons(one.reasons())))
        .toList();
  }

  @Schema(name = "LetStand")
  record LetStandSchema(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String clash,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, description = "The days it was seen in")
          LocalDate from,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) LocalDate until,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String reason) {}

  @PostMapping("/let-stand")
  @Operation(
      summary = "Lets a clash stand, with a reason; when either side changes it is another one")
  ResponseEntity<Void> letStand(
      Asker asker,
      @io.swagger.v3.oas.annotations.parameters.RequestBody(
              content = @Content(schema = @Schema(implementation = LetStandSchema.class)))
          @RequestBody
          JsonNode body) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    requireCoordinator(me);
    Input input = Input.of(body, Set.of("clash", "from", "until", "reason"));
    String key = input.required("clash", 80);
    String reason = input.required("reason", 200);
    LocalDate from = input.day("from").orElse(world.day());
    LocalDate until = input.day("until").orElse(from.plusDays(1));
    input.check();
    requireRange(from, until);
    Clash clash =
        covers.look(world, me, from, until).clashes().stream()
            .filter(one -> LetStand.key(one).equals(key))
            .findFirst()
            .orElseThrow(Problem::notFound);
    if (clash.level() == Clash.Level.NEVER) {
      throw Problem.fault("/clash", "is of a kind that the house never lets stand");
    }
    stood.let(asker.person(), clash, reason);
    return ResponseEntity.noContent().build();
  }

  @DeleteMapping("/let-stand/{clash}")
  @Operation(summary = "Has a clash open again")
  ResponseEntity<Void> openAgain(Asker asker, @PathVariable String clash) {
    requireCoordinator(worlds.now().person(asker.person()));
    stood.openAgain(asker.person(), clash);
    return ResponseEntity.noContent().build();
  }

  private static void requireCoordinator(Person me) {
    if (!me.isCoordinator()) {
      throw Problem.forbidden("What may stand is the coordinators' to say.");
    }
  }

  @Schema(name = "CoverGive")
  record GiveSchema(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long duty,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant start,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant end,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long person) {}

  @Schema(name = "CoverGiven")
  record GivenView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long act,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long record) {}

  @PostMapping("/give")
  @Operation(
      summary = "Gives a span of a duty to somebody: a shift that nobody has, else a new one")
  GivenView give(
      Asker asker,
      @RequestHeader(name = "Idempotency-Key", required = false) String key,
      @io.swagger.v3.oas.annotations.parameters.RequestBody(
              content = @Content(schema = @Schema(implementation = GiveSchema.class)))
          @RequestBody
          JsonNode body) {
    World world = worlds.now();
    DutiesController.requireOffice(world.person(asker.person()));
    Input input = Input.of(body, Set.of("duty", "start", "end", "person"));
    long duty = input.number("duty").orElse(0);
    Optional<Instant> start = input.moment("start");
    Optional<Instant> end = input.moment("end");
    PersonId person = somebody(world, input, "person");
    input.check();
    Duties.Kept kept = covers.duty(duty);
    ZoneId zone = kept.in(world).zone();
    Gives.Given given =
        gives.give(
            asker.person(),
            IdempotencyKey.of(key),
            kept,
            zone,
            span(start.orElseThrow(), end.orElseThrow()),
            person);
    return new GivenView(given.act(), given.record());
  }
}
