package mellowrota.server.crew;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import mellowrota.core.calendar.House;
import mellowrota.core.calendar.Level;
import mellowrota.server.acts.Acts;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Input;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.simple.JdbcClient;
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
class HouseController {

  private static final Set<String> FIELDS =
      Set.of(
          "name",
          "week",
          "outsideLimit",
          "outsideReason",
          "trustsOwnFeeds",
          "copiesWait",
          "readingInterval",
          "linksDecidedBy");

  /** Edits go out together for no longer than this, in seconds. */
  private static final int LONGEST_WAIT = 300;

  private static final int SHORTEST_INTERVAL = 60;
  private static final int LONGEST_INTERVAL = 86_400;

  /** Who decides in which outside calendars people's own work is copied. */
  enum DecidedBy {
    /** Each for themselves. */
    PEOPLE,
    HOUSE
  }

  private final HouseStore store;
  private final People people;
  private final Acts acts;
  private final JdbcClient jdbc;

  HouseController(HouseStore store, People people, Acts acts, JdbcClient jdbc) {
    this.store = store;
    this.people = people;
    this.acts = acts;
    this.jdbc = jdbc;
  }

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
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String zone,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> week,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String outsideLimit,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String outsideReason,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean trustsOwnFeeds,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int copiesWait,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int readingInterval,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) DecidedBy linksDecidedBy) {}

  @Schema(name = "HouseChange")
  record ChangeSchema(
      String name,
      List<String> week,
      String outsideLimit,
      String outsideReason,
      Boolean trustsOwnFeeds,
      @Schema(description = "In seconds, from 0 to 300") Integer copiesWait,
      @Schema(description = "In seconds, from 60 to 86400") Integer readingInterval,
      DecidedBy linksDecidedBy) {}

  @GetMapping
  @Operation(summary = "What the organisation has settled for all")
  @Transactional(readOnly = true)
  HouseView house() {
    House house = store.house();
    Settled settled =
        jdbc.sql(
                """
                select outside_reason, copies_wait, reading_interval, links_decided_by from house
                """)
            .query(Settled.class)
            .single();
    return new HouseView(
        house.name(),
        house.zone().getId(),
        Weeks.names(house.week()),
        house.outsideLimit().name(),
        settled.outsideReason(),
        house.trustsOwnFeeds(),
        settled.copiesWait(),
        settled.readingInterval(),
        DecidedBy.valueOf(settled.linksDecidedBy()));
  }

  private record Settled(
      String outsideReason, int copiesWait, int readingInterval, String linksDecidedBy) {}

  @PatchMapping
  @Operation(summary = "Settles it otherwise; every calendar follows at once")
  ResponseEntity<Void> change(
      Asker asker,
      @io.swagger.v3.oas.annotations.parameters.RequestBody(
              content = @Content(schema = @Schema(implementation = ChangeSchema.class)))
          @RequestBody
          JsonNode body) {
    people.requireCoordinator(asker);
    Input input = Input.of(body, FIELDS);
    Optional<String> name =
        input.has("name") ? Optional.of(input.required("name", 80)) : Optional.empty();
    Optional<String> week =
        input.has("week") ? Weeks.sent(input, "week").map(Weeks::kept) : Optional.empty();
    Optional<Level> limit = input.choice("outsideLimit", Level.class);
    Optional<String> reason =
        input.has("outsideReason")
            ? Optional.of(input.text("outsideReason", 200))
            : Optional.empty();
    Optional<Boolean> trusts = input.flag("trustsOwnFeeds");
    OptionalLong wait = within(input, "copiesWait", 0, LONGEST_WAIT);
    OptionalLong interval = within(input, "readingInterval", SHORTEST_INTERVAL, LONGEST_INTERVAL);
    Optional<DecidedBy> decided = input.choice("linksDecidedBy", DecidedBy.class);
    input.check();
    acts.run(
        Acts.Wanted.by(asker.person(), "house.settle", Optional.empty(), "").changingTheWorld(),
        act -> {
          jdbc.sql(
                  """
                  update house set name = coalesce(?, name), week = coalesce(?, week),
                    outside_limit = coalesce(?, outside_limit),
                    outside_reason = coalesce(?, outside_reason),
                    trusts_own_feeds = coalesce(?, trusts_own_feeds),
                    copies_wait = coalesce(?, copies_wait),
                    reading_interval = coalesce(?, reading_interval),
                    links_decided_by = coalesce(?, links_decided_by)
                  """)
              .param(name.orElse(null))
              .param(week.orElse(null))
              .param(limit.map(Level::name).orElse(null))
              .param(reason.orElse(null))
              .param(trusts.orElse(null))
              .param(wait.isPresent() ? (int) wait.getAsLong() : null)
              .param(interval.isPresent() ? (int) interval.getAsLong() : null)
              .param(decided.map(DecidedBy::name).orElse(null))
              .update();
          return "";
        });
    return ResponseEntity.noContent().build();
  }

  private static OptionalLong within(Input input, String field, int least, int most) {
    OptionalLong sent = input.number(field);
    if (sent.isPresent() && (sent.getAsLong() < least || sent.getAsLong() > most)) {
      input.fault(field, "is not from " + least + " to " + most + " seconds");
    }
    return sent;
  }
}
