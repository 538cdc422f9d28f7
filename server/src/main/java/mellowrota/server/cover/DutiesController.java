package mellowrota.server.cover;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.MonthDay;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.cover.Duty;
import mellowrota.core.people.Person;
import mellowrota.core.people.RoleId;
import mellowrota.core.time.Season;
import mellowrota.core.time.Validity;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Duties over HTTP. */
@RestController
@RequestMapping("/api/v1/duties")
@RequiredArgsConstructor
class DutiesController {

  private static final int MOST_SPANS = 40;
  private static final int MOST_LIFTED = 400;
  private static final int MOST_PEOPLE = 99;
  private static final DateTimeFormatter MONTH_DAY = DateTimeFormatter.ofPattern("MM-dd");

  private final Duties duties;
  private final Worlds worlds;
  private final AsSeen asSeen;

  /** Hours on weekdays, Monday is 1; until the next day where not after from. */
  @Schema(name = "DutySpan")
  record SpanView(
      List<Integer> weekdays,
      String from,
      String until,
      int count,
      @Schema(description = "Its places one by one; absent: each needs the duty’s skill")
          @Nullable List<PlaceView> places,
      @Schema(description = "Valid from") @Nullable LocalDate first,
      @Schema(description = "Last day on which it is valid") @Nullable LocalDate last,
      @Schema(description = "Only this part of every year") @Nullable SeasonView season) {}

  /** Over New Year where the last day comes before the first. */
  @Schema(name = "DutySeason")
  record SeasonView(
      @Schema(example = "04-01") String first,
      @Schema(description = "Included", example = "10-31") String last) {}

  /** Hours of one day in place of the others; until the next day where not after from. */
  @Schema(name = "DutyOnDay")
  record OtherView(
      LocalDate day,
      String from,
      String until,
      int count,
      @Schema(description = "Its places one by one; absent: each needs the duty’s skill")
          @Nullable List<PlaceView> places) {}

  /** A place to be taken by one person. */
  @Schema(name = "DutyPlace")
  record PlaceView(@Schema(description = "Absent: none is needed") @Nullable String skill) {}

  @Schema(name = "Duty")
  record DutyView(
      long id,
      String name,
      long place,
      int role,
      @Schema(description = "Needed by each of its people") @Nullable String skill,
      @Schema(description = "Whether people may do other work at the same time") boolean meanwhile,
      List<SpanView> spans,
      @Schema(description = "Days on which it is suspended") List<LocalDate> lifted,
      @Schema(description = "Days with other hours") List<OtherView> others,
      @With String tag)
      implements AsSeen.Tagged<DutyView> {}

  @Schema(name = "DutyWish")
  record DutySchema(
      String name,
      long place,
      @Schema(description = "Default: lead") @Nullable Integer role,
      @Schema(description = "Needed by each of its people; default: none") @Nullable String skill,
      @Schema(description = "People may do other work at the same time; default: no")
          @Nullable Boolean meanwhile,
      List<SpanView> spans,
      @Nullable List<LocalDate> lifted,
      @Schema(description = "Days with other hours") @Nullable List<OtherView> others) {}

  @Schema(name = "DutyMade")
  record MadeView(long id) {}

  @GetMapping
  @Operation(summary = "List the duties")
  @Transactional(readOnly = true)
  List<DutyView> duties(Asker asker) {
    requireOffice(worlds.now().person(asker.person()));
    return duties.all().stream().map(DutiesController::view).toList();
  }

  static void requireOffice(Person asker) {
    if (!asker.isCoordinator() && !asker.isTeamCoordinator()) {
      throw Problem.forbidden(say("cover.only-the-office-can"));
    }
  }

  private Person requireCoordinator(Asker asker) {
    Person person = worlds.now().person(asker.person());
    if (!person.isCoordinator()) {
      throw Problem.forbidden(say("cover.only-coordinators-can-change"));
    }
    return person;
  }

  private static DutyView view(Duties.Kept one) {
    return AsSeen.tagged(
        new DutyView(
            one.id(),
            one.name(),
            one.place().value(),
            one.role().value(),
            one.skill().orElse(null),
            one.meanwhile(),
            one.spans().stream().map(DutiesController::view).toList(),
            one.lifted().stream().sorted().toList(),
            one.others().stream()
                .map(
                    other ->
                        new OtherView(
                            other.day(),
                            other.hours().from().toString(),
                            other.hours().until().toString(),
                            other.hours().count(),
                            places(other.hours())))
                .toList(),
            ""));
  }

  private static SpanView view(Duty.Repeating span) {
    return new SpanView(
        span.weekdays().stream().map(DayOfWeek::getValue).sorted().toList(),
        span.hours().from().toString(),
        span.hours().until().toString(),
        span.hours().count(),
        places(span.hours()),
        span.days().first().orElse(null),
        span.days().last().orElse(null),
        span.season()
            .map(one -> new SeasonView(MONTH_DAY.format(one.first()), MONTH_DAY.format(one.last())))
            .orElse(null));
  }

  private static @Nullable List<PlaceView> places(Duty.Stand hours) {
    return hours.skills().isEmpty()
        ? null
        : hours.skills().stream().map(one -> new PlaceView(one.orElse(null))).toList();
  }

  @PostMapping
  @Operation(summary = "Create a duty")
  ResponseEntity<MadeView> add(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = DutySchema.class) JsonNode body) {
    requireCoordinator(asker);
    long id = duties.add(asker.person(), key.value(), wanted(0, body));
    return ResponseEntity.status(201).body(new MadeView(id));
  }

  @PutMapping("/{id}")
  @Operation(summary = "Replace a duty")
  ResponseEntity<Void> change(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = DutySchema.class) JsonNode body) {
    requireCoordinator(asker);
    Duties.Kept wanted = wanted(id, body);
    asSeen.change(
        match,
        () -> AsSeen.only(duties(asker), one -> one.id() == id),
        body,
        () -> duties.change(asker.person(), wanted));
    return ResponseEntity.noContent().build();
  }

  @DeleteMapping("/{id}")
  @Operation(summary = "Delete a duty; shifts at its place stay")
  ResponseEntity<Void> remove(Asker asker, @PathVariable long id) {
    requireCoordinator(asker);
    duties.remove(asker.person(), id);
    return ResponseEntity.noContent().build();
  }

  private Duties.Kept wanted(long id, JsonNode body) {
    World world = worlds.now();
    Input input = Input.of(body, DutySchema.class);
    String name = input.required("name", 80);
    Optional<Place> place =
        input.number("place").stream()
            .mapToObj(PlaceId::of)
            .flatMap(one -> world.places().find(one).stream())
            .findFirst();
    if (place.isEmpty() && !input.namesFault("place")) {
      input.fault("place", say("cover.is-missing-or-not-a"));
    }
    long role = input.number("role").orElse(RoleId.LEAD.value());
    if (world.roles().stream().noneMatch(one -> one.id().value() == role)) {
      input.fault("role", say("common.is-not-a-role"));
    }
    Optional<String> skill = Optional.of(input.text("skill", 40)).filter(text -> !text.isBlank());
    List<Duty.Repeating> spans = new ArrayList<>();
    for (Input one : input.objects("spans", MOST_SPANS, SpanView.class)) {
      span(one).ifPresent(spans::add);
    }
    if (!input.has("spans")) {
      input.fault("spans", say("cover.are-missing-enter-the"));
    }
    Set<LocalDate> lifted = new HashSet<>();
    for (String day : input.texts("lifted", MOST_LIFTED, 10)) {
      try {
        lifted.add(LocalDate.parse(day));
      } catch (DateTimeException unreadable) {
        input.fault("lifted", say("cover.must-be-dates-such"));
      }
    }
    List<Duty.Other> others = new ArrayList<>();
    for (Input one : input.objects("others", MOST_LIFTED, OtherView.class)) {
      Optional<LocalDate> day = one.day("day");
      if (day.isEmpty() && !one.namesFault("day")) {
        one.fault("day", say("common.is-missing"));
      }
      if (day.filter(lifted::contains).isPresent()) {
        one.fault("day", say("cover.is-lifted-too"));
      }
      Optional<Duty.Stand> hours = hours(one);
      if (day.isPresent() && hours.isPresent()) {
        others.add(new Duty.Other(day.get(), hours.get()));
      }
    }
    boolean meanwhile = input.flag("meanwhile").orElse(false);
    input.check();
    return new Duties.Kept(
        id,
        name,
        place.orElseThrow().id(),
        RoleId.of((int) role),
        skill,
        meanwhile,
        spans,
        lifted,
        others);
  }

  private static Optional<Duty.Repeating> span(Input one) {
    List<Long> weekdays = one.numbers("weekdays", 7);
    if (weekdays.isEmpty() || weekdays.stream().anyMatch(day -> day < 1 || day > 7)) {
      one.fault("weekdays", say("cover.must-be-numbers-from"));
      return Optional.empty();
    }
    Validity valid = one.validity();
    Optional<Season> season =
        one.object("season", SeasonView.class).flatMap(DutiesController::season);
    Set<DayOfWeek> days =
        weekdays.stream().map(day -> DayOfWeek.of(day.intValue())).collect(Collectors.toSet());
    return hours(one).map(hours -> new Duty.Repeating(days, hours, valid, season));
  }

  private static Optional<Season> season(Input one) {
    Optional<MonthDay> first = monthDay(one, "first");
    Optional<MonthDay> last = monthDay(one, "last");
    return first.isPresent() && last.isPresent()
        ? Optional.of(new Season(first.get(), last.get()))
        : Optional.empty();
  }

  private static Optional<MonthDay> monthDay(Input one, String field) {
    String text = one.required(field, 5);
    try {
      return Optional.of(MonthDay.parse(text, MONTH_DAY));
    } catch (DateTimeException unreadable) {
      if (!text.isEmpty()) {
        one.fault(field, say("cover.must-be-a-day-of-every-year"));
      }
      return Optional.empty();
    }
  }

  private static Optional<Duty.Stand> hours(Input one) {
    Optional<LocalTime> from = one.clock("from");
    Optional<LocalTime> until = one.clock("until");
    List<Optional<String>> skills =
        one.objects("places", MOST_PEOPLE, PlaceView.class).stream()
            .map(place -> Optional.of(place.text("skill", 40)).filter(text -> !text.isBlank()))
            .toList();
    long count = one.number("count").orElse(Math.max(1, skills.size()));
    if (count < 1 || count > MOST_PEOPLE) {
      one.fault("count", say("common.must-be-from-1", MOST_PEOPLE));
      return Optional.empty();
    }
    if (!skills.isEmpty() && skills.size() != count) {
      one.fault("places", say("cover.must-be-as-many-as", count));
      return Optional.empty();
    }
    return from.isPresent() && until.isPresent()
        ? Optional.of(new Duty.Stand(from.get(), until.get(), (int) count, skills))
        : Optional.empty();
  }
}
