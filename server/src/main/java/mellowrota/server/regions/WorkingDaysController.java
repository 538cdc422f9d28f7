package mellowrota.server.regions;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.people.Person;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingDays.Holiday;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.crew.Weeks;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Which days are worked at a place and in the house, over HTTP. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class WorkingDaysController {

  private static final int LONGEST_WHY = 80;
  private static final int MOST_CLOSURES = 500;
  private static final int LONGEST_RANGE = 366;

  private final Regions regions;
  private final Worlds worlds;
  private final AsSeen asSeen;

  @Schema(name = "Closure")
  record ClosureView(
      LocalDate first, @Schema(description = "Included") LocalDate last, String why) {}

  @Schema(name = "WorkedDays")
  record DaysView(
      @Schema(
              description =
                  "Its region; absent: that of the organisation, or none for the organisation")
          @Nullable Long region,
      @Schema(description = "Working days; absent: those of the region")
          @Nullable List<DayOfWeek> week,
      List<ClosureView> closures,
      @With String tag)
      implements AsSeen.Tagged<DaysView> {}

  @Schema(name = "WorkedDaysChange")
  record ChangeSchema(
      @Schema(nullable = true) @Nullable Long region,
      @Schema(nullable = true) @Nullable List<DayOfWeek> week,
      @Nullable List<ClosureView> closures) {}

  @Schema(name = "DayOff")
  record DayOffView(
      LocalDate first,
      @Schema(description = "Included") LocalDate last,
      @Schema(description = "The holiday, or the reason for the closure") String name,
      boolean half,
      @Schema(description = "The region whose holiday it is") @Nullable String region,
      @Schema(description = "What is closed; without region and place: the organisation")
          @Nullable String place) {}

  static void requireOffice(Person asker) {
    if (!asker.isCoordinator() && !asker.isTeamCoordinator()) {
      throw Problem.forbidden(say("regions.only-the-office-can"));
    }
  }

  /** The week that was sent, if one was. */
  static Optional<WorkingWeek> week(Input input) {
    return input.has("week") && !input.isNull("week")
        ? Weeks.sent(input, "week")
        : Optional.empty();
  }

  private Optional<PlaceId> place(World world, long id) {
    if (world.places().find(PlaceId.of(id)).isEmpty()) {
      throw Problem.notFound();
    }
    return Optional.of(PlaceId.of(id));
  }

  private DaysView view(Optional<PlaceId> place) {
    Regions.Said said = regions.said(place);
    return AsSeen.tagged(
        new DaysView(
            said.region().orElse(null),
            said.week().map(Weeks::days).orElse(null),
            said.closures().stream()
                .map(
                    one ->
                        new ClosureView(
                            one.days().first(), one.days().until().minusDays(1), one.why()))
                .toList(),
            ""));
  }

  private void set(Asker asker, IfMatch match, Optional<PlaceId> place, JsonNode body) {
    Person me = worlds.now().person(asker.person());
    if (!me.isCoordinator()) {
      throw Problem.forbidden(say("regions.only-coordinators-can-change"));
    }
    Input input =
        place.isPresent()
            ? Input.of(body, ChangeSchema.class)
            : Input.of(body, Set.of("region", "closures"));
    OptionalLong region = input.number("region");
    if (region.isPresent()
        && regions.all().stream().noneMatch(one -> one.id() == region.getAsLong())) {
      input.fault("region", say("regions.is-not-a-region"));
    }
    Optional<WorkingWeek> week = week(input);
    List<WorkingDays.Closure> closures = new ArrayList<>();
    for (Input one : input.objects("closures", MOST_CLOSURES, ClosureView.class)) {
      Optional<LocalDate> first = one.day("first");
      Optional<LocalDate> last = one.has("last") ? one.day("last") : first;
      String why = one.text("why", LONGEST_WHY);
      if (first.isEmpty()) {
        if (!one.namesFault("first")) {
          one.fault("first", say("common.is-missing"));
        }
      } else if (last.isPresent() && last.get().isBefore(first.get())) {
        one.fault("last", say("common.is-before-the-first"));
      } else if (last.isPresent()) {
        closures.add(new WorkingDays.Closure(DaySpan.of(first.get(), last.get().plusDays(1)), why));
      }
    }
    input.check();
    Regions.Said said =
        new Regions.Said(
            region.isPresent() ? Optional.of(region.getAsLong()) : Optional.empty(),
            week,
            closures);
    asSeen.change(match, () -> view(place), body, () -> regions.set(me.id(), place, said));
  }

  @GetMapping("/places/{id}/days")
  @Operation(summary = "The working days set for a place itself")
  @Transactional(readOnly = true)
  DaysView ofPlace(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    requireOffice(world.person(asker.person()));
    return view(place(world, id));
  }

  @PutMapping("/places/{id}/days")
  @Operation(summary = "Replace them")
  ResponseEntity<Void> setPlace(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = ChangeSchema.class) JsonNode body) {
    set(asker, match, place(worlds.now(), id), body);
    return ResponseEntity.noContent().build();
  }

  @GetMapping("/house/days")
  @Operation(summary = "The organisation’s region and closures")
  @Transactional(readOnly = true)
  DaysView ofHouse(Asker asker) {
    requireOffice(worlds.now().person(asker.person()));
    return view(Optional.empty());
  }

  @PutMapping("/house/days")
  @Operation(summary = "Replace them; the organisation’s working days are part of its settings")
  ResponseEntity<Void> setHouse(
      Asker asker,
      IfMatch match,
      @RequestBody @Schema(implementation = ChangeSchema.class) JsonNode body) {
    set(asker, match, Optional.empty(), body);
    return ResponseEntity.noContent().build();
  }

  @GetMapping("/days-off")
  @Operation(summary = "Holidays of all regions, and closures, in a range of days")
  @Transactional(readOnly = true)
  List<DayOffView> daysOff(
      Asker asker, @RequestParam LocalDate from, @RequestParam LocalDate until) {
    World world = worlds.now();
    requireOffice(world.person(asker.person()));
    if (!from.isBefore(until) || from.plusDays(LONGEST_RANGE).isBefore(until)) {
      throw Problem.of(422, "bad-range", say("regions.ask-for-one-day", LONGEST_RANGE));
    }
    List<DayOffView> found = new ArrayList<>();
    for (Regions.Kept region : regions.all()) {
      for (Holiday one : region.holidays()) {
        if (!one.day().isBefore(from) && one.day().isBefore(until)) {
          found.add(
              new DayOffView(one.day(), one.day(), one.name(), one.half(), region.name(), null));
        }
      }
    }
    regions
        .closures()
        .forEach(
            (place, closures) -> {
              String name = place.flatMap(world.places()::find).map(Place::name).orElse(null);
              for (WorkingDays.Closure one : closures) {
                if (one.days().first().isBefore(until) && one.days().until().isAfter(from)) {
                  LocalDate last = one.days().until().minusDays(1);
                  found.add(new DayOffView(one.days().first(), last, one.why(), false, null, name));
                }
              }
            });
    found.sort(
        Comparator.comparing(DayOffView::first)
            .thenComparing(DayOffView::last)
            .thenComparing(DayOffView::name));
    return found;
  }
}
