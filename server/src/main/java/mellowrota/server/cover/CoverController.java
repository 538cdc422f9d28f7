package mellowrota.server.cover;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
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
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Cover over HTTP. */
@RestController
@RequestMapping("/api/v1/cover")
@RequiredArgsConstructor
class CoverController {

  private static final int MOST_DAYS = 120;
  private static final Duration LONGEST = Duration.ofDays(14);
  private static final int MOST_ASKED = 10;
  private static final int MOST_MARGIN = 24 * 60;
  private static final int MOST_WHEN_DAYS = 21;

  private final Covers covers;
  private final CandidateFinder finder;
  private final Loads loads;
  private final Assigning assigning;
  private final CoverViews views;
  private final ClashAcceptance stood;
  private final Worlds worlds;

  @GetMapping
  @Operation(summary = "What must be stood from one day until another, and what of it is short")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  CoverViews.CoverView cover(
      Asker asker,
      @Schema(description = "The first day") @RequestParam LocalDate from,
      @Schema(description = "The first day after") @RequestParam LocalDate until) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    requireRange(from, until);
    return views.of(world, me, from, until, covers.look(world, me, from, until));
  }

  private static void requireRange(LocalDate from, LocalDate until) {
    if (!until.isAfter(from) || from.plusDays(MOST_DAYS).isBefore(until)) {
      throw Problem.badRequest("until is 1 to " + MOST_DAYS + " days after from.");
    }
  }

  @GetMapping("/who-could")
  @Operation(summary = "Who could fill what is short, the best first and everybody told")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CoverViews.AnswerView> whoCould(
      Asker asker,
      @Schema(description = "What asks for people, by its key") @RequestParam String ask,
      @RequestParam Instant start,
      @RequestParam Instant end) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    return CoverViews.answers(finder.whoCould(world, me, Ask.of(ask), span(start, end)));
  }

  @GetMapping("/who-could-take")
  @Operation(summary = "Who could take a visit over from somebody, the best first")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CoverViews.AnswerView> whoCouldTake(
      Asker asker,
      @RequestParam long record,
      @RequestParam int visit,
      @Schema(description = "Who has it; unless said: nobody yet") @RequestParam(required = false)
          Long from,
      @Schema(description = "So many days later on the clock, or earlier")
          @RequestParam(defaultValue = "0")
          int days,
      @RequestParam(defaultValue = "0") int minutes) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    RecordAccess.Standing standing = assigning.standing(world, asker.person(), record);
    return CoverViews.answers(
        finder.whoCould(
            world,
            me,
            standing.record(),
            visit,
            Optional.ofNullable(from).map(PersonId::of),
            moved(days, minutes)));
  }

  private static CandidateFinder.Moved moved(int days, int minutes) {
    if (Math.abs(days) > MOST_DAYS || Math.abs(minutes) >= MOST_MARGIN) {
      throw Problem.badRequest(
          "days is at most " + MOST_DAYS + " and minutes less than a day, earlier or later.");
    }
    return new CandidateFinder.Moved(days, minutes);
  }

  @GetMapping("/when-could")
  @Operation(
      summary = "When people could do something together: every start on a grid of quarter hours")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  CoverViews.WhenCouldView whenCould(
      Asker asker,
      @Schema(description = "All of them are wanted") @RequestParam List<Long> person,
      @RequestParam int minutes,
      @Schema(description = "Of margin") @RequestParam(defaultValue = "0") int before,
      @RequestParam(defaultValue = "0") int after,
      @RequestParam(required = false) Long place,
      @Schema(description = "What is moved, which is then not in its own way")
          @RequestParam(required = false)
          Long record,
      @RequestParam(defaultValue = "1") int visit,
      @Schema(description = "The first day") @RequestParam LocalDate from,
      @Schema(description = "The first day after") @RequestParam LocalDate until) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    if (person.isEmpty() || person.size() > MOST_ASKED) {
      throw Problem.badRequest("person names 1 to " + MOST_ASKED + " people.");
    }
    if (minutes < 1 || Duration.ofMinutes(minutes).compareTo(LONGEST) > 0) {
      throw Problem.badRequest("minutes is 1 to " + LONGEST.toMinutes() + ".");
    }
    if (before < 0 || after < 0 || Math.max(before, after) > MOST_MARGIN) {
      throw Problem.badRequest("before and after are 0 to " + MOST_MARGIN + " minutes.");
    }
    if (!until.isAfter(from) || from.plusDays(MOST_WHEN_DAYS).isBefore(until)) {
      throw Problem.badRequest("until is 1 to " + MOST_WHEN_DAYS + " days after from.");
    }
    if (record != null) {
      assigning.standing(world, asker.person(), record);
    }
    CandidateFinder.WhenAsked asked =
        new CandidateFinder.WhenAsked(
            person.stream().map(PersonId::of).distinct().toList(),
            Duration.ofMinutes(minutes),
            new Margins(Duration.ofMinutes(before), Duration.ofMinutes(after)),
            Optional.ofNullable(place).map(PlaceId::of),
            Optional.ofNullable(record).map(id -> new Ask.OfVisit(id, visit)));
    return CoverViews.starts(world, finder.whenCould(world, me, asked, from, until));
  }

  @GetMapping("/left")
  @Operation(
      summary =
          "What somebody has in some days, each with who could take it; nothing is done by it")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CoverViews.LeftView> left(
      Asker asker,
      @RequestParam long person,
      @Schema(description = "The first day") @RequestParam LocalDate from,
      @Schema(description = "The first day after") @RequestParam LocalDate until) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    requireRange(from, until);
    return views.left(world, me, finder.left(world, me, PersonId.of(person), from, until));
  }

  @GetMapping("/loads")
  @Operation(summary = "How much each has in some days")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CoverViews.LoadView> loads(
      Asker asker,
      @Schema(description = "The first day") @RequestParam LocalDate from,
      @Schema(description = "The first day after") @RequestParam LocalDate until) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    requireRange(from, until);
    return CoverViews.loads(loads.of(world, me, from, until));
  }

  @GetMapping("/swaps")
  @Operation(
      summary = "What somebody could change a visit of theirs for, the best first; nothing is done")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CoverViews.SwapView> swaps(
      Asker asker,
      @RequestParam long record,
      @RequestParam int visit,
      @Schema(description = "Who has it") @RequestParam long person) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    RecordAccess.Standing ours = assigning.standing(world, asker.person(), record);
    return CoverViews.swaps(finder.swaps(world, me, ours, visit, PersonId.of(person)));
  }

  @Schema(name = "SwapSide")
  record SwapSideSchema(long record, int visit, @Schema(description = "Who has it") long person) {}

  @Schema(name = "Swap")
  record SwapSchema(@Schema(description = "Two of them") List<SwapSideSchema> sides) {}

  @PostMapping("/swap")
  @Operation(summary = "Two people change places on two visits, in one act")
  GivenView swap(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = SwapSchema.class) JsonNode body) {
    World world = worlds.now();
    DutiesController.requireOffice(world.person(asker.person()));
    Input input = Input.of(body, SwapSchema.class);
    List<Assigning.Seat> seats = new ArrayList<>();
    List<Input> sides = input.objects("sides", 2, SwapSideSchema.class);
    if (sides.size() != 2) {
      input.fault("sides", "are two: who has what, and who has the other");
    }
    sides.forEach(side -> seat(world, asker.person(), side).ifPresent(seats::add));
    input.check();
    Assigning.Given given = assigning.swap(asker.person(), key.value(), seats.get(0), seats.get(1));
    return new GivenView(given.act(), given.record());
  }

  @Schema(name = "HandOver")
  record HandOverSchema(
      long record,
      int visit,
      @Schema(description = "Who has it") long from,
      @Schema(description = "Who gets it") long to) {}

  @PostMapping("/hand-over")
  @Operation(summary = "Hands a visit from one person to another")
  GivenView handOver(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = HandOverSchema.class) JsonNode body) {
    World world = worlds.now();
    DutiesController.requireOffice(world.person(asker.person()));
    Input input = Input.of(body, HandOverSchema.class);
    long record = input.number("record").orElse(0);
    int visit = (int) input.number("visit").orElse(1);
    PersonId from = PersonId.of(input.number("from").orElse(0));
    PersonId to = somebody(world, input, "to");
    input.check();
    RecordAccess.Standing standing = assigning.standing(world, asker.person(), record);
    if (!Assigning.isOn(standing.record(), visit, from)) {
      throw Problem.fault("/from", "is not on this visit (any more)");
    }
    Assigning.Given given =
        assigning.handOver(asker.person(), key.value(), standing, visit, from, to);
    return new GivenView(given.act(), given.record());
  }

  private Optional<Assigning.Seat> seat(World world, PersonId asker, Input side) {
    PersonId person = somebody(world, side, "person");
    int visit = (int) side.number("visit").orElse(1);
    RecordAccess.Standing standing =
        assigning.standing(world, asker, side.number("record").orElse(0));
    if (!Assigning.isOn(standing.record(), visit, person)) {
      side.fault("person", "is not on this visit (any more)");
      return Optional.empty();
    }
    return Optional.of(new Assigning.Seat(standing, visit, person));
  }

  private static PersonId somebody(World world, Input input, String field) {
    PersonId person = PersonId.of(input.number(field).orElse(0));
    if (world.crew().person(person).filter(one -> !one.hasLeft()).isEmpty()) {
      input.fault(field, "is missing or nobody of the house; GET /api/v1/people lists them");
    }
    return person;
  }

  private static TimeSpan span(Instant start, Instant end) {
    if (!start.isBefore(end) || start.plus(LONGEST).isBefore(end)) {
      throw Problem.badRequest("end is after start, by 14 days at most.");
    }
    return TimeSpan.of(start, end);
  }

  @GetMapping("/fill")
  @Operation(
      summary = "Suggests who fills what is short, one for each place; nothing is done by it")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CoverViews.SuggestionView> fill(
      Asker asker,
      @Schema(description = "The first day") @RequestParam LocalDate from,
      @Schema(description = "The first day after") @RequestParam LocalDate until) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    requireRange(from, until);
    return CoverViews.suggestions(world, finder.fill(world, me, from, until));
  }

  @Schema(name = "LetStand")
  record LetStandSchema(
      String clash,
      @Schema(description = "The days it was seen in") LocalDate from,
      LocalDate until,
      String reason) {}

  @PostMapping("/let-stand")
  @Operation(
      summary = "Lets a clash stand, with a reason; when either side changes it is another one")
  ResponseEntity<Void> letStand(
      Asker asker, @RequestBody @Schema(implementation = LetStandSchema.class) JsonNode body) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    requireCoordinator(me);
    Input input = Input.of(body, LetStandSchema.class);
    String key = input.required("clash", 80);
    String reason = input.required("reason", 200);
    LocalDate from = input.day("from").orElse(world.day());
    LocalDate until = input.day("until").orElse(from.plusDays(1));
    input.check();
    requireRange(from, until);
    Clash clash =
        covers.look(world, me, from, until).clashes().stream()
            .filter(one -> ClashAcceptance.key(one).equals(key))
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
      @Schema(description = "What asks for people, by its key") String ask,
      Instant start,
      Instant end,
      long person) {}

  @Schema(name = "CoverGiven")
  record GivenView(long act, long record) {}

  @PostMapping("/give")
  @Operation(
      summary =
          "Gives what is short to somebody: a shift that nobody has, else a new one; or a visit")
  GivenView give(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = GiveSchema.class) JsonNode body) {
    World world = worlds.now();
    DutiesController.requireOffice(world.person(asker.person()));
    Input input = Input.of(body, GiveSchema.class);
    String ask = input.required("ask", 60);
    Optional<Instant> start = input.moment("start");
    Optional<Instant> end = input.moment("end");
    PersonId person = somebody(world, input, "person");
    input.check();
    TimeSpan span = span(start.orElseThrow(), end.orElseThrow());
    Optional<String> once = key.value();
    Assigning.Given given;
    if (Ask.of(ask) instanceof Ask.OfVisit visit) {
      RecordAccess.Standing standing = assigning.standing(world, asker.person(), visit.record());
      given = assigning.join(asker.person(), once, standing, visit.visit(), person);
    } else {
      Duties.Kept kept = covers.duty(((Ask.OfDuty) Ask.of(ask)).duty());
      ZoneId zone = kept.in(world).zone();
      given = assigning.give(asker.person(), once, kept, zone, span, person);
    }
    return new GivenView(given.act(), given.record());
  }
}
