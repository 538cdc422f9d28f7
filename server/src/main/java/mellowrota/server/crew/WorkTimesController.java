package mellowrota.server.crew;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.crew.store.Places;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Working hours and leave over HTTP. */
@RestController
@RequestMapping("/api/v1/people/{id}")
@RequiredArgsConstructor
class WorkTimesController {

  private static final int MOST_HOURS = 100;
  private static final int MOST_OF_A_DAY = 6;
  private static final int WEEK_MINUTES = 7 * 24 * 60;
  private static final LocalDate EVER = LocalDate.of(1990, 1, 1);
  private static final LocalDate NEVER = LocalDate.of(2200, 1, 1);

  private final People people;
  private final Places places;
  private final WorkTimes times;
  private final AsSeen asSeen;

  /** One person's working hours and leave. */
  @Schema(name = "WorkTimes")
  record WorkTimesView(
      List<HoursView> hours,
      @Schema(description = "Days with different hours") List<DatedView> days,
      List<LeaveView> leave,
      @Schema(description = "The person’s time zone; absent: the organisation’s")
          @Nullable String zone,
      @Schema(description = "Contracted minutes a week") @Nullable Long contractMinutes,
      @Schema(description = "The last day with the organisation; absent: no end")
          @Nullable LocalDate lastDay,
      TagsView tags) {}

  /** By which each part of them is changed. */
  @Schema(name = "WorkTimesTags")
  record TagsView(String hours, String days, String terms) {}

  /** Hours on one weekday, Monday is 1; until the next day where not after from. */
  @Schema(name = "Hours")
  record HoursView(
      int weekday,
      String from,
      String until,
      @Schema(description = "Only for work at this place, in its time zone") @Nullable Long place,
      @Schema(description = "Valid from") @Nullable LocalDate first,
      @Schema(description = "Last day on which they are valid") @Nullable LocalDate last) {}

  /** From one time of the day until another, the next day's where it is not after it. */
  @Schema(name = "DayTimes")
  record TimesView(String from, String until) {}

  /** What holds on one day in place of the week's hours; no times: not at work. */
  @Schema(name = "HoursOfDay")
  record DatedView(
      LocalDate day,
      @Schema(description = "Replaces only the hours at this place") @Nullable Long place,
      List<TimesView> times) {}

  /** Days of leave, the last included. */
  @Schema(name = "Leave")
  record LeaveView(
      long id,
      String first,
      String last,
      @Schema(description = "Of some hours of that day") @Nullable TimesView hours,
      @Schema(description = "Otherwise it is requested") boolean agreed,
      boolean sick) {}

  @Schema(name = "HoursChange")
  record HoursSchema(List<HoursView> hours) {}

  @Schema(name = "HoursOfDayChange")
  record DatedSchema(
      @Schema(description = "Replaces only the hours at this place") @Nullable Long place,
      List<TimesView> times) {}

  @Schema(name = "TermsChange")
  record TermsSchema(
      @Schema(description = "null: the organisation’s", nullable = true) @Nullable String zone,
      @Schema(description = "null: not set", nullable = true) @Nullable Integer contractMinutes,
      @Schema(
              description =
                  "The last day with the organisation, from the next on they have left; set by "
                      + "coordinators; null: no end; not sent: as before",
              nullable = true)
          @Nullable LocalDate lastDay) {}

  @Schema(name = "LeaveWish")
  record LeaveSchema(
      String first,
      @Schema(description = "Last day, inclusive; default: the first day") @Nullable String last,
      @Schema(description = "A time of that day, for leave of some hours") @Nullable String from,
      @Schema(description = "Likewise") @Nullable String until,
      @Nullable Boolean sick) {}

  private Person asking(Asker asker) {
    return people.find(asker.person()).orElseThrow(Problem::notFound);
  }

  @GetMapping("/times")
  @Operation(summary = "A person's working hours and leave, for themselves and their office")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  WorkTimesView times(Asker asker, @PathVariable long id) {
    PersonId person = PersonId.of(id);
    if (!person.equals(asker.person())) {
      times.requireOffice(asking(asker), person);
    }
    WorkTimes.Known known = times.knownTo(asking(asker), EVER, NEVER);
    WorkTimes.Terms terms = times.terms().getOrDefault(person, WorkTimes.Terms.UNSAID);
    List<HoursView> hours =
        known.hours().stream()
            .filter(h -> h.person().equals(person))
            .map(WorkTimesController::view)
            .toList();
    List<DatedView> days =
        known.dated().stream()
            .filter(d -> d.person().equals(person))
            .map(WorkTimesController::view)
            .toList();
    return new WorkTimesView(
        hours,
        days,
        known.away().stream()
            .filter(a -> a.person().equals(person))
            .map(WorkTimesController::view)
            .toList(),
        terms.zone().map(ZoneId::getId).orElse(null),
        terms.contract().map(Duration::toMinutes).orElse(null),
        terms.lastDay().orElse(null),
        new TagsView(AsSeen.tag(hours), AsSeen.tag(days), AsSeen.tag(terms)));
  }

  private static HoursView view(WorkTimes.Hours hours) {
    return new HoursView(
        hours.weekday().getValue(),
        hours.from().toString(),
        hours.until().toString(),
        hours.place().map(PlaceId::value).orElse(null),
        hours.first().orElse(null),
        hours.last().orElse(null));
  }

  private static DatedView view(WorkTimes.Dated dated) {
    return new DatedView(
        dated.day(),
        dated.place().map(PlaceId::value).orElse(null),
        dated.times().stream()
            .map(t -> new TimesView(t.from().toString(), t.until().toString()))
            .toList());
  }

  private static LeaveView view(WorkTimes.Away away) {
    return new LeaveView(
        away.id(),
        away.days().first().toString(),
        away.days().until().minusDays(1).toString(),
        away.hours()
            .map(one -> new TimesView(one.from().toString(), one.until().toString()))
            .orElse(null),
        away.agreed(),
        away.sick());
  }

  private void change(
      Asker asker,
      long id,
      IfMatch match,
      Function<TagsView, String> part,
      JsonNode body,
      Runnable how) {
    asSeen.change(match, () -> times(asker, id), seen -> part.apply(seen.tags()), body, how);
  }

  @PutMapping("/hours")
  @Operation(summary = "Set a person’s working hours")
  ResponseEntity<Void> setHours(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = HoursSchema.class) JsonNode body) {
    PersonId person = PersonId.of(id);
    times.requireOffice(asking(asker), person);
    List<WorkTimes.Hours> found = hours(Input.of(body, HoursSchema.class), person);
    change(
        asker,
        id,
        match,
        TagsView::hours,
        body,
        () -> times.setHours(asker.person(), person, found));
    return ResponseEntity.noContent().build();
  }

  private List<WorkTimes.Hours> hours(Input input, PersonId person) {
    List<WorkTimes.Hours> found = new ArrayList<>();
    Set<String> begun = new HashSet<>();
    for (Input item : input.objects("hours", MOST_HOURS, HoursView.class)) {
      hoursOfOne(item, person)
          .ifPresent(
              hours -> {
                if (!begun.add(
                    hours.weekday() + " " + hours.from() + hours.place() + hours.first())) {
                  item.fault("from", say("crew.is-listed-twice-on"));
                }
                found.add(hours);
              });
    }
    if (!input.has("hours")) {
      input.fault("hours", say("crew.are-missing-send-an-empty-list"));
    }
    input.check();
    return found;
  }

  private Optional<WorkTimes.Hours> hoursOfOne(Input item, PersonId person) {
    long weekday = item.number("weekday").orElse(0);
    Optional<LocalTime> from = item.clock("from");
    Optional<LocalTime> until = item.clock("until");
    Optional<PlaceId> place = place(item);
    Optional<LocalDate> first = item.day("first");
    Optional<LocalDate> last = item.day("last");
    if (weekday < 1 || weekday > 7) {
      item.fault("weekday", say("crew.must-be-a-number"));
      return Optional.empty();
    }
    requireInOrder(item, first, last);
    DayOfWeek day = DayOfWeek.of((int) weekday);
    return from.flatMap(
        begins ->
            until.map(ends -> new WorkTimes.Hours(person, day, begins, ends, place, first, last)));
  }

  private Optional<PlaceId> place(Input input) {
    OptionalLong sent = input.number("place");
    if (sent.isEmpty()) {
      return Optional.empty();
    }
    if (places.find(PlaceId.of(sent.getAsLong())).isEmpty()) {
      input.fault("place", say("common.is-not-a-place"));
    }
    return Optional.of(PlaceId.of(sent.getAsLong()));
  }

  @PutMapping("/days/{day}")
  @Operation(summary = "Set different hours on one day; no times: a day off")
  ResponseEntity<Void> setDay(
      Asker asker,
      @PathVariable long id,
      @PathVariable LocalDate day,
      IfMatch match,
      @RequestBody @Schema(implementation = DatedSchema.class) JsonNode body) {
    PersonId person = PersonId.of(id);
    times.requireOffice(asking(asker), person);
    Input input = Input.of(body, DatedSchema.class);
    List<WorkTimes.Span> found = spans(input);
    Optional<PlaceId> place = place(input);
    input.check();
    change(
        asker,
        id,
        match,
        TagsView::days,
        body,
        () -> times.setDated(asker.person(), person, day, place, Optional.of(found)));
    return ResponseEntity.noContent().build();
  }

  private static List<WorkTimes.Span> spans(Input input) {
    List<WorkTimes.Span> found = new ArrayList<>();
    for (Input item : input.objects("times", MOST_OF_A_DAY, TimesView.class)) {
      Optional<LocalTime> from = item.clock("from");
      Optional<LocalTime> until = item.clock("until");
      if (from.isPresent() && until.isPresent()) {
        found.add(new WorkTimes.Span(from.get(), until.get()));
      }
    }
    if (!input.has("times")) {
      input.fault("times", say("crew.are-missing-send-an-empty"));
    }
    return found;
  }

  @DeleteMapping("/days/{day}")
  @Operation(summary = "Use the weekly hours on a day again")
  ResponseEntity<Void> removeDay(
      Asker asker,
      @PathVariable long id,
      @PathVariable LocalDate day,
      @RequestParam(required = false) Long place) {
    PersonId person = PersonId.of(id);
    times.requireOffice(asking(asker), person);
    times.setDated(
        asker.person(), person, day, Optional.ofNullable(place).map(PlaceId::of), Optional.empty());
    return ResponseEntity.noContent().build();
  }

  @PutMapping("/terms")
  @Operation(summary = "Set a person’s time zone and contracted hours")
  ResponseEntity<Void> setTerms(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = TermsSchema.class) JsonNode body) {
    PersonId person = PersonId.of(id);
    times.requireOffice(asking(asker), person);
    WorkTimes.Terms terms = terms(asking(asker), person, Input.of(body, TermsSchema.class));
    change(
        asker,
        id,
        match,
        TagsView::terms,
        body,
        () -> times.setTerms(asker.person(), person, terms));
    return ResponseEntity.noContent().build();
  }

  private WorkTimes.Terms terms(Person asker, PersonId person, Input input) {
    Optional<ZoneId> zone = input.zone("zone");
    OptionalLong minutes = input.number("contractMinutes");
    if (minutes.isPresent() && (minutes.getAsLong() < 0 || minutes.getAsLong() > WEEK_MINUTES)) {
      input.fault("contractMinutes", say("common.must-be-from-0", WEEK_MINUTES));
    }
    Optional<LocalDate> known =
        times.terms().getOrDefault(person, WorkTimes.Terms.UNSAID).lastDay();
    Optional<LocalDate> lastDay = input.has("lastDay") ? input.day("lastDay") : known;
    if (!lastDay.equals(known)) {
      people.requireMayEnd(asker, person, lastDay).ifPresent(why -> input.fault("lastDay", why));
    }
    input.check();
    return new WorkTimes.Terms(
        zone,
        minutes.isPresent()
            ? Optional.of(Duration.ofMinutes(minutes.getAsLong()))
            : Optional.empty(),
        lastDay);
  }

  @PostMapping("/leave")
  @Operation(summary = "Add leave; without office rights the person requests it")
  ResponseEntity<Void> addLeave(
      Asker asker,
      @PathVariable long id,
      @RequestBody @Schema(implementation = LeaveSchema.class) JsonNode body) {
    PersonId person = PersonId.of(id);
    boolean agreed = times.answersFor(asking(asker), person);
    if (!person.equals(asker.person())) {
      times.requireOffice(asking(asker), person);
    }
    Input input = Input.of(body, LeaveSchema.class);
    boolean sick = input.flag("sick").orElse(false);
    Optional<WorkTimes.Span> hours = hoursOfDay(input);
    times.addLeave(asker.person(), person, days(input), hours, agreed, sick);
    return ResponseEntity.noContent().build();
  }

  private static Optional<WorkTimes.Span> hoursOfDay(Input input) {
    if (!input.has("from") && !input.has("until")) {
      return Optional.empty();
    }
    Optional<LocalTime> from = input.clock("from");
    Optional<LocalTime> until = input.clock("until");
    if (from.isPresent() && until.isPresent() && !until.get().isAfter(from.get())) {
      input.fault("until", say("crew.leave-ends-before"));
    }
    if (input.has("last") && !input.day("last").equals(input.day("first"))) {
      input.fault("last", say("crew.hours-of-one-day"));
    }
    return from.flatMap(begins -> until.map(ends -> new WorkTimes.Span(begins, ends)));
  }

  private static DaySpan days(Input input) {
    Optional<LocalDate> first = input.day("first");
    Optional<LocalDate> last = input.has("last") ? input.day("last") : first;
    if (!input.has("first")) {
      input.fault("first", say("common.is-missing"));
    }
    requireInOrder(input, first, last);
    input.check();
    return DaySpan.through(first.orElseThrow(), last.orElseThrow());
  }

  private static void requireInOrder(
      Input input, Optional<LocalDate> first, Optional<LocalDate> last) {
    if (first.isPresent() && last.isPresent() && last.get().isBefore(first.get())) {
      input.fault("last", say("common.is-before-the-first"));
    }
  }

  @PostMapping("/leave/{leave}/agree")
  @Operation(summary = "Approve requested leave")
  ResponseEntity<Void> agree(Asker asker, @PathVariable long id, @PathVariable long leave) {
    times.requireOffice(asking(asker), PersonId.of(id));
    times.agree(asker.person(), PersonId.of(id), leave);
    return ResponseEntity.noContent().build();
  }

  @DeleteMapping("/leave/{leave}")
  @Operation(summary = "Delete leave")
  ResponseEntity<Void> removeLeave(Asker asker, @PathVariable long id, @PathVariable long leave) {
    PersonId person = PersonId.of(id);
    if (!person.equals(asker.person()) || !times.isOnlyAskedFor(person, leave)) {
      times.requireOffice(asking(asker), person);
    }
    times.removeLeave(asker.person(), PersonId.of(id), leave);
    return ResponseEntity.noContent().build();
  }
}
