package mellowrota.server.cover;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.PlaceId;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
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
  private final SkillsEnding ending;
  private final Assigning assigning;
  private final CoverViews views;
  private final CandidateViews candidates;
  private final ClashAcceptance stood;
  private final Worlds worlds;

  @GetMapping
  @Operation(summary = "Duties in a range of days, and which are short of people")
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
      throw Problem.badRequest(say("common.until-must-be-1", MOST_DAYS));
    }
  }

  @GetMapping("/who-could")
  @Operation(summary = "Everybody who could or could not fill a gap, best first, with reasons")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CandidateViews.AnswerView> whoCould(
      Asker asker,
      @Schema(description = "The duty or visit, by its key") @RequestParam String ask,
      @RequestParam Instant start,
      @RequestParam Instant end) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    return candidates.answers(world, me, finder.whoCould(world, me, Ask.of(ask), span(start, end)));
  }

  @GetMapping("/who-could-take")
  @Operation(summary = "Who can take over a visit, best first")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CandidateViews.AnswerView> whoCouldTake(
      Asker asker,
      @RequestParam long record,
      @RequestParam int visit,
      @Schema(description = "Who has it now; default: nobody") @RequestParam(required = false)
          Long from,
      @Schema(description = "Days later (or earlier, if negative)")
          @RequestParam(defaultValue = "0")
          int days,
      @RequestParam(defaultValue = "0") int minutes) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    RecordAccess.Standing standing = assigning.standing(world, asker.person(), record);
    return candidates.answers(
        world,
        me,
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
      throw Problem.badRequest(say("cover.days-must-be-at", MOST_DAYS));
    }
    return new CandidateFinder.Moved(days, minutes);
  }

  @GetMapping("/when-could")
  @Operation(summary = "When people are free together: every start on a grid of quarter hours")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  CoverViews.WhenCouldView whenCould(
      Asker asker,
      @Schema(description = "All of them are needed") @RequestParam List<Long> person,
      @RequestParam int minutes,
      @Schema(description = "Margin in minutes; default: the one that is set for such work")
          @RequestParam(required = false)
          Integer before,
      @Schema(description = "Likewise") @RequestParam(required = false) Integer after,
      @RequestParam(required = false) Long place,
      @Schema(description = "The visit being moved, which then does not clash with itself")
          @RequestParam(required = false)
          Long record,
      @RequestParam(defaultValue = "1") int visit,
      @Schema(description = "The first day") @RequestParam LocalDate from,
      @Schema(description = "The first day after") @RequestParam LocalDate until) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    if (person.isEmpty() || person.size() > MOST_ASKED) {
      throw Problem.badRequest(say("cover.person-must-name-1", MOST_ASKED));
    }
    if (minutes < 1 || Duration.ofMinutes(minutes).compareTo(LONGEST) > 0) {
      throw Problem.badRequest(say("cover.minutes-must-be-1", LONGEST.toMinutes()));
    }
    if (!until.isAfter(from) || from.plusDays(MOST_WHEN_DAYS).isBefore(until)) {
      throw Problem.badRequest(say("common.until-must-be-1", MOST_WHEN_DAYS));
    }
    Optional<Kind> kind =
        Optional.ofNullable(record)
            .map(id -> assigning.standing(world, asker.person(), id).record().kind());
    CandidateFinder.WhenAsked asked =
        new CandidateFinder.WhenAsked(
            person.stream().map(PersonId::of).distinct().toList(),
            Duration.ofMinutes(minutes),
            new MarginSetting(margin(before), margin(after)),
            Optional.ofNullable(place).map(PlaceId::of),
            kind,
            Optional.ofNullable(record).map(id -> new Ask.OfVisit(id, visit)));
    return CoverViews.starts(world, finder.whenCould(world, me, asked, from, until));
  }

  private static Optional<Duration> margin(Integer minutes) {
    if (minutes != null && (minutes < 0 || minutes > MOST_MARGIN)) {
      throw Problem.badRequest(say("cover.before-and-after-must", MOST_MARGIN));
    }
    return Optional.ofNullable(minutes).map(Duration::ofMinutes);
  }

  @GetMapping("/left")
  @Operation(
      summary = "A person’s work in a range of days, each with who can take it; changes nothing")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<CoverViews.LeftView> left(
      Asker asker,
      @RequestParam long person,
      @Schema(description = "The first day") @RequestParam LocalDate from,
      @Schema(description = "The first day after") @RequestParam LocalDate until,
      @Schema(description = "A time of the first day, for some of its hours only")
          @RequestParam(required = false)
          LocalTime hoursFrom,
      @Schema(description = "Likewise") @RequestParam(required = false) LocalTime hoursUntil) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    requireRange(from, until);
    if ((hoursFrom == null) != (hoursUntil == null)
        || hoursFrom != null && !hoursFrom.isBefore(hoursUntil)) {
      throw Problem.badRequest(say("cover.hours-need-both-in-order"));
    }
    Optional<WorkTimes.Span> hours =
        Optional.ofNullable(hoursFrom).map(begin -> new WorkTimes.Span(begin, hoursUntil));
    WorkTimes.Away away =
        new WorkTimes.Away(
            0, PersonId.of(person), DaySpan.of(from, until), hours, true, false, false);
    return views.left(world, me, finder.left(world, me, away));
  }

  /** A skill that ends within sixty days. */
  @Schema(name = "SkillEnding")
  record EndingView(
      long person,
      String name,
      String skill,
      @Schema(description = "The last day on which it holds") LocalDate last,
      @Schema(description = "How many of the person’s works after it require it") int touched,
      @Schema(description = "When the first of these begins") @Nullable Instant first) {}

  @GetMapping("/skills-ending")
  @Operation(summary = "Skills that end within sixty days, and the work that this touches")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<EndingView> skillsEnding(Asker asker) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    DutiesController.requireOffice(me);
    return ending.of(world, me).stream()
        .map(
            one ->
                new EndingView(
                    one.person().id().value(),
                    one.person().name(),
                    one.skill(),
                    one.last(),
                    one.touched(),
                    one.first().orElse(null)))
        .toList();
  }

  @GetMapping("/loads")
  @Operation(summary = "Hours of each person in a range of days")
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
  @Operation(summary = "Possible swaps for a person’s visit, best first; changes nothing")
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
  @Operation(summary = "Swap two people on two visits, as one change")
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
      input.fault("sides", say("cover.must-be-two-one"));
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
  @Operation(summary = "Hand a visit over to another person")
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
      throw Problem.fault("/from", say("cover.is-not-on-this"));
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
      side.fault("person", say("cover.is-not-on-this"));
      return Optional.empty();
    }
    return Optional.of(new Assigning.Seat(standing, visit, person));
  }

  private static PersonId somebody(World world, Input input, String field) {
    PersonId person = PersonId.of(input.number(field).orElse(0));
    if (world.crew().person(person).filter(one -> !one.hasLeft()).isEmpty()) {
      input.fault(field, say("cover.is-missing-or-not"));
    }
    return person;
  }

  private static TimeSpan span(Instant start, Instant end) {
    if (!start.isBefore(end) || start.plus(LONGEST).isBefore(end)) {
      throw Problem.badRequest(say("cover.end-must-be-after"));
    }
    return TimeSpan.of(start, end);
  }

  @GetMapping("/fill")
  @Operation(summary = "Suggest people for all gaps; changes nothing")
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
      @Schema(description = "The range of days it was shown in") LocalDate from,
      LocalDate until,
      String reason) {}

  @PostMapping("/let-stand")
  @Operation(summary = "Accept a clash with a reason, until either side changes")
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
      throw Problem.fault("/clash", say("cover.cannot-be-accepted-the"));
    }
    stood.let(asker.person(), clash, reason);
    return ResponseEntity.noContent().build();
  }

  @DeleteMapping("/let-stand/{clash}")
  @Operation(summary = "Reopen an accepted clash")
  ResponseEntity<Void> openAgain(Asker asker, @PathVariable String clash) {
    requireCoordinator(worlds.now().person(asker.person()));
    stood.openAgain(asker.person(), clash);
    return ResponseEntity.noContent().build();
  }

  private static void requireCoordinator(Person me) {
    if (!me.isCoordinator()) {
      throw Problem.forbidden(say("cover.only-coordinators-can-accept"));
    }
  }

  @Schema(name = "CoverGive")
  record GiveSchema(
      @Schema(description = "The duty or visit, by its key") String ask,
      Instant start,
      Instant end,
      long person) {}

  @Schema(name = "CoverGiven")
  record GivenView(long act, long record) {}

  @PostMapping("/give")
  @Operation(summary = "Assign a gap to somebody: an open shift, or a new one; or a visit")
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
