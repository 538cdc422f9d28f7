package mellowrota.server.regions;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import java.nio.charset.StandardCharsets;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.people.Person;
import mellowrota.core.time.WorkingDays.Holiday;
import mellowrota.core.time.WorkingWeek;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.crew.Weeks;
import mellowrota.server.ical.HolidayReader;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
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

/** Regions and their holidays over HTTP. */
@RestController
@RequestMapping("/api/v1/regions")
@RequiredArgsConstructor
class RegionsController {

  private static final int LONGEST_NAME = 80;
  private static final int MOST_HOLIDAYS = 2_000;

  /** How far what repeats in a file is followed. */
  private static final int YEARS = 5;

  private final Regions regions;
  private final Worlds worlds;
  private final AsSeen asSeen;
  private final Acts acts;

  @Schema(name = "Holiday")
  record HolidayView(
      LocalDate day,
      String name,
      @Schema(description = "A half day counts as a working day") boolean half) {
    static HolidayView of(Holiday one) {
      return new HolidayView(one.day(), one.name(), one.half());
    }
  }

  @Schema(name = "Region")
  record RegionView(
      long id,
      String name,
      @Schema(description = "Working days; absent: the organisation’s")
          @Nullable List<DayOfWeek> week,
      List<HolidayView> holidays,
      @With String tag)
      implements AsSeen.Tagged<RegionView> {}

  @Schema(name = "RegionWish")
  record WishSchema(String name, @Nullable List<DayOfWeek> week) {}

  @Schema(name = "RegionChange")
  record ChangeSchema(
      String name,
      @Schema(description = "Absent: the organisation’s") @Nullable List<DayOfWeek> week,
      List<HolidayView> holidays) {}

  @Schema(name = "RegionMade")
  record MadeView(long id) {}

  @Schema(name = "EventNotRead")
  record NotReadView(
      @Schema(description = "The number of the part in the file, from 1") int number,
      String summary,
      String why) {}

  @Schema(name = "HolidaysRead")
  record ReadView(
      List<HolidayView> holidays,
      List<NotReadView> notRead,
      @Schema(description = "Repeating days were followed to this day") LocalDate until) {}

  private Person coordinator(Asker asker) {
    Person me = worlds.now().person(asker.person());
    if (!me.isCoordinator()) {
      throw Problem.forbidden(say("regions.only-coordinators-can-change"));
    }
    return me;
  }

  @GetMapping
  @Operation(summary = "List the regions with their holidays")
  @Transactional(readOnly = true)
  List<RegionView> regions(Asker asker) {
    WorkingDaysController.requireOffice(worlds.now().person(asker.person()));
    return regions.all().stream()
        .map(
            one ->
                AsSeen.tagged(
                    new RegionView(
                        one.id(),
                        one.name(),
                        one.week().map(Weeks::days).orElse(null),
                        one.holidays().stream().map(HolidayView::of).toList(),
                        "")))
        .toList();
  }

  @PostMapping
  @Operation(summary = "Add a region, at first without holidays")
  ResponseEntity<MadeView> add(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = WishSchema.class) JsonNode body) {
    Person me = coordinator(asker);
    Input input = Input.of(body, WishSchema.class);
    String name = input.required("name", LONGEST_NAME);
    Optional<WorkingWeek> week = WorkingDaysController.week(input);
    input.check();
    return ResponseEntity.status(HttpStatus.CREATED)
        .body(
            new MadeView(
                acts.make(
                    me.id(),
                    key,
                    "region.add",
                    body.toString(),
                    () -> regions.add(me.id(), name, week))));
  }

  @PutMapping("/{id}")
  @Operation(summary = "Replace a region with all its holidays")
  ResponseEntity<Void> set(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = ChangeSchema.class) JsonNode body) {
    Person me = coordinator(asker);
    Input input = Input.of(body, ChangeSchema.class);
    String name = input.required("name", LONGEST_NAME);
    Optional<WorkingWeek> week = WorkingDaysController.week(input);
    if (!input.has("holidays")) {
      input.fault("holidays", say("regions.is-missing-an-empty"));
    }
    Collection<Holiday> holidays = holidays(input);
    input.check();
    asSeen.change(
        match,
        () -> AsSeen.only(regions(asker), one -> one.id() == id),
        body,
        () -> regions.set(me.id(), id, name, week, holidays));
    return ResponseEntity.noContent().build();
  }

  private static Collection<Holiday> holidays(Input input) {
    Map<LocalDate, Holiday> found = new TreeMap<>();
    for (Input one : input.objects("holidays", MOST_HOLIDAYS, HolidayView.class)) {
      Optional<LocalDate> day = one.day("day");
      String name = one.text("name", LONGEST_NAME);
      boolean half = one.flag("half").orElse(false);
      if (day.isEmpty()) {
        if (!one.namesFault("day")) {
          one.fault("day", say("common.is-missing"));
        }
      } else if (found.put(day.get(), new Holiday(day.get(), name, half)) != null) {
        one.fault("day", say("common.is-listed-twice"));
      }
    }
    return found.values();
  }

  @DeleteMapping("/{id}")
  @Operation(summary = "Delete a region to which nothing belongs")
  ResponseEntity<Void> remove(Asker asker, @PathVariable long id) {
    regions.remove(coordinator(asker).id(), id);
    return ResponseEntity.noContent().build();
  }

  @PostMapping(path = "/read", consumes = "*/*")
  @Operation(summary = "Read the holidays in an iCalendar file; changes nothing")
  @Transactional(readOnly = true)
  ReadView read(
      Asker asker,
      @io.swagger.v3.oas.annotations.parameters.RequestBody(
              content = @Content(mediaType = "text/calendar", schema = @Schema(type = "string")))
          @RequestBody(required = false)
          byte[] file) {
    coordinator(asker);
    World world = worlds.now();
    String text = file == null ? "" : new String(file, StandardCharsets.UTF_8);
    LocalDate until = world.day().plusYears(YEARS).withDayOfYear(1).minusDays(1);
    HolidayReader.Read read =
        HolidayReader.read(text, world.house().zone(), world.day().withDayOfYear(1), until);
    if (read.holidays().isEmpty() && read.notRead().isEmpty()) {
      throw Problem.of(422, "unreadable", say("regions.the-file-contains-no"));
    }
    return new ReadView(
        read.holidays().stream()
            .map(one -> new HolidayView(one.day(), cut(one.name()), one.half()))
            .toList(),
        read.notRead().stream()
            .map(one -> new NotReadView(one.number(), cut(one.summary()), one.why()))
            .toList(),
        until);
  }

  private static String cut(String name) {
    return name.length() <= LONGEST_NAME ? name : name.substring(0, LONGEST_NAME - 1) + "…";
  }
}
