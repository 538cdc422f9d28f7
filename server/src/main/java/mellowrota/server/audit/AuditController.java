package mellowrota.server.audit;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Csv;
import mellowrota.server.platform.Problem;
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

  @GetMapping("/api/v1/audit")
  @Operation(summary = "Who can see a detail and by which rule, or what a person can see and where")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<RowView> audit(
      Asker asker,
      @RequestParam(required = false) String detail,
      @RequestParam(required = false) Long person) {
    World world = worlds.now();
    if (!world.person(asker.person()).isCoordinator()) {
      throw Problem.forbidden(say("audit.only-coordinators-can-see"));
    }
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
