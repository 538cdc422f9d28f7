package mellowrota.server.shares;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IdempotencyKey;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.shares.store.ShareStore;
import mellowrota.server.sight.ReaderWords;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
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
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Shares over HTTP. */
@RestController
@RequestMapping("/api/v1/shares")
@RequiredArgsConstructor
class SharesController {

  private final Shares shares;
  private final Worlds worlds;
  private final AsSeen asSeen;
  private final Acts acts;

  /**
   * A share.
   *
   * @param level what it asks for: BUSY_ONLY, TIMES_AND_PLACE or ALL
   * @param holds the level that holds, where the organisation's limit for outside is lower
   * @param until the first day on which it is over
   * @param mine whether the asker reads by it
   */
  @Schema(name = "Share")
  record ShareView(
      long id,
      long calendar,
      String calendarName,
      String reader,
      String givenBy,
      Level level,
      @Nullable Level holds,
      boolean mayPassOn,
      @Nullable LocalDate until,
      Instant madeAt,
      boolean accepted,
      boolean mine,
      @With String tag)
      implements AsSeen.Tagged<ShareView> {}

  @Schema(name = "ShareMade")
  record MadeView(long id) {}

  @Schema(name = "ShareWish")
  record WishSchema(
      long calendar,
      long reader,
      @Schema(description = "Default: TIMES_AND_PLACE") @Nullable Level level,
      @Nullable Boolean mayPassOn,
      @Schema(description = "First day on which it has ended") @Nullable LocalDate until) {}

  @Schema(name = "ShareChange")
  record ChangeSchema(Level level, @Nullable Boolean mayPassOn, @Nullable LocalDate until) {}

  @GetMapping
  @Operation(
      summary =
          "List the shares the caller gave, received or owns the calendar of; coordinators see all")
  @Transactional(readOnly = true, isolation = Isolation.REPEATABLE_READ)
  List<ShareView> shares(Asker asker) {
    World world = worlds.now();
    Person me = world.person(asker.person());
    return shares.of(world, me).stream().map(share -> view(world, me, share)).toList();
  }

  private static ShareView view(World world, Person me, ShareStore.Share share) {
    Level limit = world.house().outsideLimit();
    boolean limited =
        share.level().compareTo(limit) > 0
            && world
                .crew()
                .person(share.reader())
                .filter(one -> !one.everywhere().isCrew() && !one.isTeamCoordinator())
                .isPresent();
    return AsSeen.tagged(
        new ShareView(
            share.id(),
            share.calendar().value(),
            world.calendars().find(share.calendar()).map(Calendar::name).orElse(""),
            ReaderWords.name(world, share.reader()),
            ReaderWords.name(world, share.givenBy()),
            share.level(),
            limited ? limit : null,
            share.mayPassOn(),
            share.until().orElse(null),
            share.madeAt(),
            share.accepted(),
            share.reader().equals(me.id()),
            ""));
  }

  @PostMapping
  @Operation(summary = "Share a calendar with a reader; it shows once accepted")
  ResponseEntity<MadeView> offer(
      Asker asker,
      IdempotencyKey key,
      @RequestBody @Schema(implementation = WishSchema.class) JsonNode body) {
    Input input = Input.of(body, WishSchema.class);
    OptionalLong calendar = input.number("calendar");
    OptionalLong reader = input.number("reader");
    if (calendar.isEmpty() && !input.namesFault("calendar")) {
      input.fault("calendar", say("common.is-missing-see-get"));
    }
    if (reader.isEmpty() && !input.namesFault("reader")) {
      input.fault("reader", say("shares.is-missing-see-get"));
    }
    Shares.Wanted wanted = wanted(input, Level.TIMES_AND_PLACE);
    input.check();
    long id =
        acts.make(
            asker.person(),
            key,
            "share.offer",
            body.toString(),
            () ->
                shares.offer(
                    asker.person(),
                    CalendarId.of(calendar.orElseThrow()),
                    PersonId.of(reader.orElseThrow()),
                    wanted));
    return ResponseEntity.status(201).body(new MadeView(id));
  }

  private Shares.Wanted wanted(Input input, Level usual) {
    Level level = input.choice("level", Level.class).orElse(usual);
    Optional<LocalDate> until = input.day("until");
    LocalDate today = worlds.now().day();
    if (until.filter(day -> !day.isAfter(today)).isPresent()) {
      input.fault("until", say("common.must-be-after-today"));
    }
    return new Shares.Wanted(level, input.flag("mayPassOn").orElse(false), until);
  }

  @PostMapping("/{id}/accept")
  @Operation(summary = "Accept a share offered to the caller")
  ResponseEntity<Void> accept(Asker asker, @PathVariable long id) {
    shares.accept(asker.person(), id);
    return ResponseEntity.noContent().build();
  }

  @PutMapping("/{id}")
  @Operation(summary = "Change the level or end of a share, or whether it can be shared on")
  ResponseEntity<Void> change(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = ChangeSchema.class) JsonNode body) {
    Input input = Input.of(body, ChangeSchema.class);
    if (!input.has("level")) {
      input.fault("level", say("shares.is-missing-one-of"));
    }
    Shares.Wanted wanted = wanted(input, Level.BUSY_ONLY);
    input.check();
    asSeen.change(
        match,
        () -> AsSeen.only(shares(asker), one -> one.id() == id),
        body,
        () -> shares.change(asker.person(), id, wanted));
    return ResponseEntity.noContent().build();
  }

  @DeleteMapping("/{id}")
  @Operation(summary = "Delete a share, or leave one that the caller received")
  ResponseEntity<Void> withdraw(Asker asker, @PathVariable long id) {
    shares.withdraw(asker.person(), id);
    return ResponseEntity.noContent().build();
  }
}
