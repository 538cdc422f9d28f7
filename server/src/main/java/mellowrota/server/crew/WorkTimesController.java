package mellowrota.server.crew;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
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
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Working hours and leave over HTTP. */
@RestController
@RequestMapping("/api/v1/people/{id}")
class WorkTimesController {

  private static final int MOST_HOURS = 40;
  private static final LocalDate EVER = LocalDate.of(1990, 1, 1);
  private static final LocalDate NEVER = LocalDate.of(2200, 1, 1);

  private final People people;
  private final WorkTimes times;

  WorkTimesController(People people, WorkTimes times) {
    this.people = people;
    this.times = times;
  }

  /** One person's working hours and leave. */
  @Schema(name = "WorkTimes")
  record WorkTimesView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<HoursView> hours,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<LeaveView> leave) {}

  /** Hours on one weekday, Monday is 1; until the next day where not after from. */
  @Schema(name = "Hours")
  record HoursView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int weekday,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String from,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String until) {}

  /** Days of leave, the last included. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  @Schema(name = "Leave")
  record LeaveView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long id,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String first,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String last) {}

  @Schema(name = "HoursChange")
  record HoursSchema(@Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<HoursView> hours) {}

  @Schema(name = "LeaveWish")
  record LeaveSchema(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String first,
      @Schema(description = "The last day, included; the first unless said") String last) {}

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
    return new WorkTimesView(
        known.hours().stream()
            .filter(h -> h.person().equals(person))
            .map(
                h ->
                    new HoursView(
                        h.weekday().getValue(), h.from().toString(), h.until().toString()))
            .toList(),
        known.away().stream()
            .filter(a -> a.person().equals(person))
            .map(
                a ->
                    new LeaveView(
                        a.id(),
                        a.days().first().toString(),
                        a.days().until().minusDays(1).toString()))
            .toList());
  }

  @PutMapping("/hours")
  @Operation(summary = "Sets a person's working hours")
  ResponseEntity<Void> setHours(
      Asker asker,
      @PathVariable long id,
      @io.swagger.v3.oas.annotations.parameters.RequestBody(
              content = @Content(schema = @Schema(implementation = HoursSchema.class)))
          @RequestBody
          JsonNode body) {
    PersonId person = PersonId.of(id);
    times.requireOffice(asking(asker), person);
    Input input = Input.of(body, Set.of("hours"));
    List<WorkTimes.Hours> found = new ArrayList<>();
    Set<String> begun = new HashSet<>();
    for (Input item : input.objects("hours", MOST_HOURS, Set.of("weekday", "from", "until"))) {
      long weekday = item.number("weekday").orElse(0);
      Optional<LocalTime> from = clock(item, "from");
      Optional<LocalTime> until = clock(item, "until");
      if (weekday < 1 || weekday > 7) {
        item.fault("weekday", "is no number from 1, Monday, to 7, Sunday");
      } else if (from.isPresent() && until.isPresent()) {
        if (!begun.add(weekday + " " + from.get())) {
          item.fault("from", "stands twice on this weekday");
        }
        DayOfWeek day = DayOfWeek.of((int) weekday);
        found.add(new WorkTimes.Hours(person, day, from.get(), until.get()));
      }
    }
    if (!input.has("hours")) {
      input.fault("hours", "is missing; an empty list says that the hours are not known");
    }
    input.check();
    times.setHours(asker.person(), person, found);
    return ResponseEntity.noContent().build();
  }

  private static Optional<LocalTime> clock(Input item, String field) {
    try {
      return Optional.of(LocalTime.parse(item.required(field, 5)));
    } catch (DateTimeException unreadable) {
      if (item.has(field)) {
        item.fault(field, "is no time of the form 07:30");
      }
      return Optional.empty();
    }
  }

  @PostMapping("/leave")
  @Operation(summary = "Notes days of leave")
  ResponseEntity<Void> addLeave(
      Asker asker,
      @PathVariable long id,
      @io.swagger.v3.oas.annotations.parameters.RequestBody(
              content = @Content(schema = @Schema(implementation = LeaveSchema.class)))
          @RequestBody
          JsonNode body) {
    PersonId person = PersonId.of(id);
    times.requireOffice(asking(asker), person);
    Input input = Input.of(body, Set.of("first", "last"));
    Optional<LocalDate> first = input.day("first");
    Optional<LocalDate> last = input.has("last") ? input.day("last") : first;
    if (!input.has("first")) {
      input.fault("first", "is missing");
    }
    if (first.isPresent() && last.isPresent() && last.get().isBefore(first.get())) {
      input.fault("last", "is before the first day");
    }
    input.check();
    times.addLeave(
        asker.person(), person, DaySpan.through(first.orElseThrow(), last.orElseThrow()));
    return ResponseEntity.noContent().build();
  }

  @DeleteMapping("/leave/{leave}")
  @Operation(summary = "Takes days of leave back")
  ResponseEntity<Void> removeLeave(Asker asker, @PathVariable long id, @PathVariable long leave) {
    times.requireOffice(asking(asker), PersonId.of(id));
    times.removeLeave(asker.person(), PersonId.of(id), leave);
    return ResponseEntity.noContent().build();
  }
}
