package mellowrota.server.feeds;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.Person;
import mellowrota.core.sight.Face;
import mellowrota.server.calendars.store.Faces;
import mellowrota.server.ical.IcalendarWriter;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Feeds over HTTP: the list for people, the calendars for programs. */
@RestController
@RequiredArgsConstructor
class FeedsController {

  private static final MediaType CALENDAR = MediaType.parseMediaType("text/calendar;charset=utf-8");

  private final Feeds feeds;
  private final Faces faces;
  private final IcalendarWriter writer;
  private final Worlds worlds;

  /** A feed as it is listed; its address was told once, when it was made. */
  @Schema(name = "Feed")
  record FeedView(
      long id,
      long calendar,
      String calendarName,
      String label,
      @Schema(
              description =
                  "The level chosen; the organisation’s limit for external readers still applies")
          Level level,
      String madeBy,
      Instant madeAt,
      @Schema(description = "First day on which it no longer answers") @Nullable LocalDate until,
      @Nullable Instant lastUsedAt) {}

  /** What was made: the only time its address is told. */
  @Schema(name = "FeedMade")
  record MadeView(@Schema(description = "Relative to this server") String address) {}

  @Schema(name = "FeedWish")
  record FeedSchema(
      long calendar,
      @Schema(description = "Who or what it is for") String label,
      @Schema(description = "Default: ALL") @Nullable Level level,
      @Schema(description = "First day on which it no longer answers") @Nullable LocalDate until) {}

  @GetMapping("/api/v1/feeds")
  @Operation(summary = "List the secret addresses the caller created; coordinators see all")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<FeedView> feeds(Asker asker) {
    World world = worlds.now();
    return feeds.of(world.person(asker.person())).stream()
        .map(
            feed ->
                new FeedView(
                    feed.id(),
                    feed.calendar().value(),
                    world.calendars().find(feed.calendar()).map(Calendar::name).orElse(""),
                    feed.label(),
                    feed.level(),
                    world.crew().person(feed.madeBy()).map(Person::name).orElse(""),
                    feed.madeAt(),
                    feed.until().orElse(null),
                    feed.lastUsedAt().orElse(null)))
        .toList();
  }

  @PostMapping("/api/v1/feeds")
  @Operation(summary = "Create a secret address for a calendar; it is shown only once")
  ResponseEntity<MadeView> make(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = FeedSchema.class) JsonNode body) {
    Input input = Input.of(body, FeedSchema.class);
    OptionalLong calendar = input.number("calendar");
    String label = input.required("label", 80);
    Level level = input.choice("level", Level.class).orElse(Level.ALL);
    if (calendar.isEmpty() && !input.namesFault("calendar")) {
      input.fault("calendar", say("common.is-missing-see-get"));
    }
    Optional<LocalDate> until = input.day("until");
    if (until.filter(day -> !day.isAfter(worlds.now().day())).isPresent()) {
      input.fault("until", say("common.must-be-after-today"));
    }
    input.check();
    String token =
        feeds.make(asker.person(), key, CalendarId.of(calendar.orElseThrow()), level, label, until);
    return ResponseEntity.status(201).body(new MadeView("/feeds/" + token + ".ics"));
  }

  @DeleteMapping("/api/v1/feeds/{id}")
  @Operation(summary = "Delete a secret address")
  ResponseEntity<Void> withdraw(Asker asker, @PathVariable long id) {
    feeds.withdraw(asker.person(), id);
    return ResponseEntity.noContent().build();
  }

  /** The calendar itself; the tag hashes what this feed shows and nothing else. */
  @Hidden
  @GetMapping("/feeds/{token}.ics")
  ResponseEntity<String> calendar(
      @PathVariable String token,
      @RequestHeader(name = "If-None-Match", required = false) String known) {
    RenderingId rendering = feeds.open(token).orElseThrow(Problem::notFound);
    List<Faces.Kept> live = faces.live(rendering);
    StringBuilder all = new StringBuilder();
    live.forEach(face -> all.append(face.uid()).append(face.etag()).append('\n'));
    // Weak, since the same calendar may come packed (RFC 9110 §8.8.1).
    String tag = "W/\"" + Face.digest(all.toString()) + '"';
    if (Optional.ofNullable(known).filter(tag::equals).isPresent()) {
      return ResponseEntity.status(304).eTag(tag).build();
    }
    boolean opens = worlds.now().calendars().opens(rendering);
    return ResponseEntity.ok()
        .eTag(tag)
        .contentType(CALENDAR)
        .cacheControl(CacheControl.noCache().cachePrivate())
        .header("Content-Disposition", "attachment; filename=\"calendar.ics\"")
        .body(writer.writeAll(live.stream().map(face -> face.written(opens)).toList()));
  }
}
