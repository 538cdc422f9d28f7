package mellowrota.server.audit;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Csv;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.ForWords;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The audit over HTTP, for coordinators: by a detail, or by a person. */
@RestController
@RequiredArgsConstructor
class AuditController {

  private static final MediaType CSV = MediaType.parseMediaType("text/csv;charset=utf-8");

  private final Audit audit;
  private final Reach reach;
  private final Worlds worlds;

  /**
   * Somewhere a detail can be read.
   *
   * @param way MEMBERS, SHARE or FEED of a calendar; SCREENS for our own pages
   * @param readers in words
   * @param rule the place of the rule whose wording asks for it, from 1
   * @param count entries, or records on our own pages
   */
  @Schema(name = "AuditRow")
  record RowView(
      String detail,
      @Schema(allowableValues = {"MEMBERS", "SHARE", "FEED", "COPY", "SCREENS"}) String way,
      @Nullable Long calendar,
      @Nullable String name,
      String readers,
      @Nullable Integer rule,
      long count) {}

  /**
   * Those who are one thing to a record: office, a role, crew or external.
   *
   * @param key of the capacity, the same in all answers
   */
  @Schema(name = "ReachColumn")
  record ColumnView(String key, String name) {}

  /**
   * What those who are one thing to a record get of a detail.
   *
   * @param allowed whether the detail is for them where a record says nothing else
   * @param calendars on which at least one of them can read it, by number
   * @param people who can read it there or on our own pages, by number
   * @param anybody whether also whoever has the address of one of these calendars
   * @param example a record on which they can
   */
  @Schema(name = "ReachCell")
  record CellView(
      boolean allowed,
      Set<Long> calendars,
      List<Integer> people,
      boolean anybody,
      @Nullable Long example) {}

  @Schema(name = "ReachRow")
  record DetailView(String detail, String label, List<CellView> cells) {}

  /**
   * The map of the house.
   *
   * @param until the first day after it
   * @param records how many were looked at
   * @param more whether the days hold others that were not
   */
  @Schema(name = "Reach")
  record ReachView(
      LocalDate from,
      LocalDate until,
      int records,
      boolean more,
      List<ColumnView> columns,
      List<DetailView> details) {}

  @GetMapping("/api/v1/audit/map")
  @Operation(
      summary = "How far each detail reaches",
      description =
          "Of the work of the next two weeks: each reader counts once, as what they are most to a"
              + " record. A detail counts where it can be read, filled or not.")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ReachView map(Asker asker) {
    World world = forCoordinator(asker);
    Reach.Found found = reach.find(world);
    Map<String, Long> capacities = ForWords.capacities(world.roles());
    return new ReachView(
        found.from(),
        found.until(),
        found.records(),
        found.more(),
        capacities.entrySet().stream()
            .map(one -> new ColumnView(Long.toString(one.getValue()), one.getKey()))
            .toList(),
        world.details().all().stream()
            .map(detail -> reached(detail, found.cells(), capacities.values()))
            .toList());
  }

  private static DetailView reached(
      DetailDefinition detail,
      Map<DetailKey, Map<Long, Reach.Reached>> cells,
      Collection<Long> capacities) {
    Map<Long, Reach.Reached> found = cells.getOrDefault(detail.key(), Map.of());
    return new DetailView(
        detail.key().name(),
        detail.label(),
        capacities.stream()
            .map(
                capacity -> {
                  boolean allowed = detail.forWhom().allows(Capacities.usually(capacity));
                  Reach.Reached cell = found.getOrDefault(capacity, new Reach.Reached());
                  return new CellView(
                      allowed,
                      cell.calendars,
                      cell.people.stream().boxed().toList(),
                      cell.anybody,
                      cell.example == 0 ? null : cell.example);
                })
            .toList());
  }

  @GetMapping("/api/v1/audit")
  @Operation(summary = "Who can see a detail and by which rule, or what a person can see and where")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<RowView> audit(
      Asker asker,
      @RequestParam(required = false) String detail,
      @RequestParam(required = false) Long person) {
    World world = forCoordinator(asker);
    if ((detail == null) == (person == null)) {
      throw Problem.fault("detail", say("audit.detail-or-person"));
    }
    return detail != null ? ofDetail(world, detail) : ofPerson(world, person);
  }

  @GetMapping("/api/v1/audit.csv")
  @Operation(summary = "The same as CSV")
  @ApiResponse(content = @Content(mediaType = "text/csv", schema = @Schema(type = "string")))
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ResponseEntity<String> csv(
      Asker asker,
      @RequestParam(required = false) String detail,
      @RequestParam(required = false) Long person) {
    List<List<String>> rows = new ArrayList<>();
    for (RowView row : audit(asker, detail, person)) {
      rows.add(
          List.of(
              row.detail(),
              row.way(),
              Optional.ofNullable(row.name()).orElse(""),
              row.readers(),
              row.rule() == null ? "" : row.rule().toString(),
              Long.toString(row.count())));
    }
    return ResponseEntity.ok()
        .contentType(CSV)
        .header("Content-Disposition", "attachment; filename=\"audit.csv\"")
        .body(Csv.write(List.of("detail", "way", "calendar", "readers", "rule", "count"), rows));
  }

  private World forCoordinator(Asker asker) {
    World world = worlds.now();
    if (!world.person(asker.person()).isCoordinator()) {
      throw Problem.forbidden(say("audit.only-coordinators-can-see"));
    }
    return world;
  }

  private List<RowView> ofDetail(World world, String name) {
    DetailKey key = new DetailKey(name);
    DetailDefinition detail =
        world
            .details()
            .find(key)
            .orElseThrow(() -> Problem.fault("detail", say("audit.is-not-a-detail")));
    List<RowView> rows = new ArrayList<>();
    audit
        .entries(world, rendering -> true)
        .forEach(
            (through, counts) -> {
              if (counts.containsKey(key)) {
                rows.add(row(world, through, detail, counts.get(key)));
              }
            });
    return rows;
  }

  private List<RowView> ofPerson(World world, long id) {
    Person person =
        world
            .crew()
            .person(PersonId.of(id))
            .orElseThrow(() -> Problem.fault("person", say("audit.is-not-a-person")));
    List<RowView> rows = new ArrayList<>();
    audit
        .entries(
            world, rendering -> world.calendars().audience(rendering.id()).contains(person.id()))
        .forEach(
            (through, counts) ->
                world
                    .details()
                    .all()
                    .forEach(
                        detail -> {
                          if (counts.containsKey(detail.key())) {
                            rows.add(row(world, through, detail, counts.get(detail.key())));
                          }
                        }));
    Map<DetailKey, Long> screens = audit.screens(world, person);
    world
        .details()
        .all()
        .forEach(
            detail -> {
              if (screens.containsKey(detail.key())) {
                rows.add(
                    new RowView(
                        detail.label(),
                        "SCREENS",
                        null,
                        null,
                        person.name(),
                        null,
                        screens.get(detail.key())));
              }
            });
    return rows;
  }

  private static RowView row(
      World world, Audit.Through through, DetailDefinition detail, long count) {
    Rendering rendering = world.calendars().rendering(through.rendering()).orElseThrow();
    Calendar calendar = world.calendars().find(rendering.calendar()).orElseThrow();
    return new RowView(
        detail.label(),
        ReaderWords.way(rendering),
        calendar.id().value(),
        calendar.name(),
        ReaderWords.of(world, rendering),
        through.rule() == 0 ? null : world.rulesById().get(through.rule()).position(),
        count);
  }
}
