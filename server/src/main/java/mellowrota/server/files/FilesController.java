package mellowrota.server.files;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.sight.Face;
import mellowrota.server.calendars.store.Faces;
import mellowrota.server.ical.IcalendarWriter;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Csv;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.RecordList;
import mellowrota.server.records.RecordView;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Any list of records and any calendar the asker reads, as CSV and as iCalendar. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class FilesController {

  private static final int MOST = 10_000;

  private final RecordList list;
  private final Faces faces;
  private final IcalendarWriter writer;
  private final Worlds worlds;
  private final Clock clock;

  @GetMapping("/records.csv")
  @Operation(summary = "Records the caller may open, as CSV, filtered like the list")
  @ApiResponse(content = @Content(mediaType = "text/csv", schema = @Schema(type = "string")))
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ResponseEntity<String> recordsAsCsv(
      Asker asker,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(required = false) String kind,
      @RequestParam(defaultValue = "") String state,
      @RequestParam(required = false) Long person,
      @RequestParam(required = false) Long place,
      @RequestParam(required = false) Long team,
      @RequestParam(defaultValue = "SOONEST") String sort) {
    World world = worlds.now();
    List<String> details = RecordColumns.details(world);
    List<List<String>> rows = new ArrayList<>();
    for (RecordView view :
        all(world, asker, RecordList.Wanted.of(find, kind, state, person, place, team, sort))) {
      rows.addAll(RecordColumns.rows(view, details));
    }
    return Attachment.of(
        "records.csv", Attachment.CSV, Csv.write(RecordColumns.header(details), rows));
  }

  @GetMapping("/records.ics")
  @Operation(summary = "Records the caller may open, as iCalendar, filtered like the list")
  @ApiResponse(content = @Content(mediaType = "text/calendar", schema = @Schema(type = "string")))
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ResponseEntity<String> recordsAsCalendar(
      Asker asker,
      @RequestParam(defaultValue = "") String find,
      @RequestParam(required = false) String kind,
      @RequestParam(defaultValue = "") String state,
      @RequestParam(required = false) Long person,
      @RequestParam(required = false) Long place,
      @RequestParam(required = false) Long team,
      @RequestParam(defaultValue = "SOONEST") String sort) {
    World world = worlds.now();
    Instant now = clock.instant();
    List<IcalendarWriter.Written> written = new ArrayList<>();
    for (RecordView view :
        all(world, asker, RecordList.Wanted.of(find, kind, state, person, place, team, sort))) {
      written.addAll(RecordEvents.of(view, world.house().seed(), now));
    }
    return Attachment.of("records.ics", Attachment.ICALENDAR, writer.writeAll(written));
  }

  @GetMapping("/calendars/{id}.ics")
  @Operation(summary = "A calendar the caller reads, as iCalendar")
  @ApiResponse(content = @Content(mediaType = "text/calendar", schema = @Schema(type = "string")))
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ResponseEntity<String> calendarAsCalendar(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    RenderingId rendering = read(world, asker, id);
    boolean opens = world.calendars().opens(rendering);
    List<IcalendarWriter.Written> written =
        faces.live(rendering).stream().map(f -> f.written(opens)).toList();
    return Attachment.of(name(world, id) + ".ics", Attachment.ICALENDAR, writer.writeAll(written));
  }

  @GetMapping("/calendars/{id}.csv")
  @Operation(summary = "A calendar the caller reads, as CSV")
  @ApiResponse(content = @Content(mediaType = "text/csv", schema = @Schema(type = "string")))
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ResponseEntity<String> calendarAsCsv(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    List<List<String>> rows = new ArrayList<>();
    for (Faces.Kept kept : faces.live(read(world, asker, id))) {
      Face face = kept.face();
      boolean timed = face.times() instanceof EntryTimes.Timed;
      EntryTimes.Timed span = timed ? (EntryTimes.Timed) face.times() : null;
      EntryTimes.AllDay days = timed ? null : (EntryTimes.AllDay) face.times();
      rows.add(
          List.of(
              face.title(),
              face.place(),
              timed ? span.start().toLocalDateTime().toString() : days.days().first().toString(),
              timed
                  ? span.end().toLocalDateTime().toString()
                  : days.days().until().minusDays(1).toString(),
              timed ? span.start().getZone().getId() : "",
              face.marks().tentative() ? "tentative" : face.marks().tick() ? "done" : "confirmed",
              face.text()));
    }
    List<String> header = List.of("title", "place", "start", "end", "zone", "state", "text");
    return Attachment.of(name(world, id) + ".csv", Attachment.CSV, Csv.write(header, rows));
  }

  private List<RecordView> all(World world, Asker asker, RecordList.Wanted wanted) {
    return list.all(world, world.person(asker.person()), wanted, MOST)
        .orElseThrow(() -> Problem.of(413, "too-much", say("files.there-are-more-than", MOST)));
  }

  private static RenderingId read(World world, Asker asker, long calendar) {
    return world
        .calendars()
        .servedTo(asker.person(), CalendarId.of(calendar))
        .orElseThrow(Problem::notFound)
        .id();
  }

  private static String name(World world, long calendar) {
    return world.calendars().find(CalendarId.of(calendar)).map(Calendar::name).orElse("calendar");
  }
}
