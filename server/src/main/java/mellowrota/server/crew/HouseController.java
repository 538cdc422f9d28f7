package mellowrota.server.crew;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.DayOfWeek;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.calendar.House;
import mellowrota.core.calendar.Level;
import mellowrota.core.time.WorkingWeek;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PatchMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** What the organisation has settled for all. */
@RestController
@RequestMapping("/api/v1/house")
@RequiredArgsConstructor
class HouseController {

  /** Edits go out together for no longer than this, in seconds. */
  private static final int LONGEST_WAIT = 300;

  private static final int SHORTEST_INTERVAL = 60;
  private static final int LONGEST_INTERVAL = 86_400;

  private final HouseStore store;
  private final People people;
  private final Acts acts;
  private final AsSeen asSeen;

  /**
   * The house.
   *
   * @param week the days on which it works, Monday first
   * @param outsideLimit the most that readers who are neither crew nor office see: BUSY_ONLY,
   *     TIMES_AND_PLACE or ALL
   * @param outsideReason why no more
   * @param trustsOwnFeeds whether a person's feed of their own calendar counts as read by them
   *     alone
   * @param copiesWait how long a copy waits after the last edit, in seconds
   * @param readingInterval how often outside calendars are read, in seconds
   */
  @Schema(name = "House")
  record HouseView(
      String name,
      String zone,
      List<DayOfWeek> week,
      Level outsideLimit,
      String outsideReason,
      boolean trustsOwnFeeds,
      int copiesWait,
      int readingInterval,
      HouseStore.DecidedBy linksDecidedBy,
      @With String tag)
      implements AsSeen.Tagged<HouseView> {}

  @Schema(name = "HouseChange")
  record ChangeSchema(
      @Nullable String name,
      @Nullable List<DayOfWeek> week,
      @Nullable Level outsideLimit,
      @Nullable String outsideReason,
      @Nullable Boolean trustsOwnFeeds,
      @Schema(description = "In seconds, from 0 to 300") @Nullable Integer copiesWait,
      @Schema(description = "In seconds, from 60 to 86400") @Nullable Integer readingInterval,
      HouseStore.@Nullable DecidedBy linksDecidedBy) {}

  @GetMapping
  @Operation(summary = "The settings of the organisation")
  @Transactional(readOnly = true)
  HouseView house() {
    House house = store.house();
    HouseStore.Copying copying = store.copying();
    return AsSeen.tagged(
        new HouseView(
            house.name(),
            house.zone().getId(),
            Weeks.days(house.week()),
            house.outsideLimit(),
            store.outsideReason(),
            house.trustsOwnFeeds(),
            copying.waits(),
            copying.readingInterval(),
            copying.decidedBy(),
            ""));
  }

  @PatchMapping
  @Operation(summary = "Change the settings; every calendar follows at once")
  ResponseEntity<Void> change(
      Asker asker,
      IfMatch match,
      @RequestBody @Schema(implementation = ChangeSchema.class) JsonNode body) {
    people.requireCoordinator(asker);
    Input input = Input.of(body, ChangeSchema.class);
    Optional<String> name = input.ifSent("name", field -> input.required(field, 80));
    Optional<WorkingWeek> week = input.has("week") ? Weeks.sent(input, "week") : Optional.empty();
    Optional<Level> limit = input.choice("outsideLimit", Level.class);
    Optional<String> reason = input.ifSent("outsideReason", field -> input.text(field, 200));
    Optional<Boolean> trusts = input.flag("trustsOwnFeeds");
    Optional<Integer> wait = within(input, "copiesWait", 0, LONGEST_WAIT);
    Optional<Integer> interval =
        within(input, "readingInterval", SHORTEST_INTERVAL, LONGEST_INTERVAL);
    Optional<HouseStore.DecidedBy> decided =
        input.choice("linksDecidedBy", HouseStore.DecidedBy.class);
    input.check();
    HouseStore.Change change =
        new HouseStore.Change(name, week, limit, reason, trusts, wait, interval, decided);
    asSeen.change(match, this::house, body, () -> settle(asker, change));
    return ResponseEntity.noContent().build();
  }

  private void settle(Asker asker, HouseStore.Change change) {
    acts.run(
        Acts.Wanted.by(asker.person(), "house.settle", Optional.empty(), "").changingTheWorld(),
        act -> {
          store.change(change);
          return "";
        });
  }

  private static Optional<Integer> within(Input input, String field, int least, int most) {
    OptionalLong sent = input.number(field);
    if (sent.isPresent() && (sent.getAsLong() < least || sent.getAsLong() > most)) {
      input.fault(field, say("crew.must-be-from-to", least, most));
      return Optional.empty();
    }
    return sent.isPresent() ? Optional.of((int) sent.getAsLong()) : Optional.empty();
  }
}
