package mellowrota.server.deadlines;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.deadline.Reckoned;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.Family;
import mellowrota.core.sight.Face;
import mellowrota.server.files.Attachment;
import mellowrota.server.files.RecordEvents;
import mellowrota.server.ical.IcalendarWriter;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Csv;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.RecordView;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Sets of deadlines as files, each as its reader may know it. */
@RestController
@RequestMapping("/api/v1")
@RequiredArgsConstructor
class DeadlineFilesController {

  private static final List<String> HEADER =
      List.of("step", "date", "time", "zone", "standing", "people", "sum");

  private final DeadlineSets sets;
  private final Worlds worlds;
  private final IcalendarWriter writer;
  private final Clock clock;

  @GetMapping("/deadline-sets/{id}.csv")
  @Operation(summary = "A set of deadlines as CSV, each date with its sum")
  @ApiResponse(content = @Content(mediaType = "text/csv", schema = @Schema(type = "string")))
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ResponseEntity<String> setAsCsv(Asker asker, @PathVariable long id) {
    DeadlineSetViews.SetView set = set(worlds.now(), asker, id);
    List<List<String>> rows = new ArrayList<>();
    if (set.keyDateName() != null) {
      rows.add(row(set.keyDateName(), set.keyDate(), "key date", "", ""));
    }
    for (DeadlineSetViews.StepView step : set.steps()) {
      rows.add(
          row(
              text(step.name()),
              step.date(),
              step.standing() == Reckoned.Standing.RECKONED ? "" : standing(step.standing()),
              step.people() == null ? "" : String.join(", ", step.people()),
              Optional.ofNullable(step.sum()).orElse(text(step.why()))));
    }
    return Attachment.of(name(set) + ".csv", Attachment.CSV, Csv.write(HEADER, rows));
  }

  private static String standing(Reckoned.Standing standing) {
    return standing.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  private static List<String> row(
      String step, RecordView.@Nullable DueView due, String standing, String people, String sum) {
    boolean timed = due != null && due.at() != null;
    String date = due == null ? "" : timed ? due.at().substring(0, 10) : due.date();
    return List.of(
        step,
        date,
        timed ? due.at().substring(11, 16) : "",
        timed ? due.zone() : "",
        standing,
        people,
        sum);
  }

  /**
   * The key date, and what hangs on it as its children (RFC 5545 §3.8.4.5, RELTYPE=PARENT); without
   * them where their reader may not know of it.
   */
  @GetMapping("/deadline-sets/{id}.ics")
  @Operation(summary = "A set of deadlines as iCalendar, its dates as children of the key date")
  @ApiResponse(content = @Content(mediaType = "text/calendar", schema = @Schema(type = "string")))
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  ResponseEntity<String> setAsCalendar(Asker asker, @PathVariable long id) {
    World world = worlds.now();
    DeadlineSetViews.SetView set = set(world, asker, id);
    Instant now = clock.instant();
    String seed = world.house().seed();
    String place = set.place() == null ? "" : set.place().name();
    List<IcalendarWriter.Written> written = new ArrayList<>();
    Optional<String> parent = Optional.empty();
    if (set.keyDate() != null) {
      // Of all sets the files have key dates apart: no record has the number 0.
      parent = Optional.of(RecordEvents.uid(0, (int) set.id(), Family.DUE, seed));
      Face face = face(text(set.keyDateName()), place, "", set.keyDate(), false);
      written.add(new IcalendarWriter.Written(parent.get(), 0, now, face));
    }
    for (DeadlineSetViews.StepView step : set.steps()) {
      if (step.date() != null && step.record() != null) {
        written.add(
            new IcalendarWriter.Written(
                RecordEvents.uid(step.record(), 1, Family.DUE, seed),
                0,
                now,
                face(
                    text(step.name()),
                    place,
                    text(step.sum()),
                    step.date(),
                    step.standing() == Reckoned.Standing.DONE),
                parent,
                false));
      }
    }
    return Attachment.of(name(set) + ".ics", Attachment.ICALENDAR, writer.writeAll(written));
  }

  private static Face face(
      String title, String place, String text, RecordView.DueView due, boolean done) {
    return new Face(
        title.isEmpty() ? "Work" : title,
        place,
        text,
        RecordEvents.due(due),
        new Entry.Marks(done, false, false, false, false),
        List.of());
  }

  private DeadlineSetViews.SetView set(World world, Asker asker, long id) {
    return sets.one(world, world.person(asker.person()), id).orElseThrow(Problem::notFound);
  }

  private static String name(DeadlineSetViews.SetView set) {
    return Optional.ofNullable(set.name()).orElse("deadlines");
  }

  private static String text(@Nullable String text) {
    return text == null ? "" : text;
  }
}
