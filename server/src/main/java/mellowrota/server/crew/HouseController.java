package mellowrota.server.crew;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.DayOfWeek;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
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
      Set.of("name", "week", "outsideLimit", "outsideReason", "trustsOwnFeeds");

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
   */
  @Schema(name = "House")
  record HouseView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String zone,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> week,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String outsideLimit,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String outsideReason,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean trustsOwnFeeds) {}

  @Schema(name = "HouseChange")
  record ChangeSchema(
      String name,
      List<String> week,
      String outsideLimit,
      String outsideReason,
      Boolean trustsOwnFeeds) {}

  @GetMapping
  @Operation(summary = "What the organisation has settled for all")
  @Transactional(readOnly = true)
  HouseView house() {
    House house = store.house();
    return new HouseView(
        house.name(),
        house.zone().getId(),
        house.week().days().stream().sorted().map(DayOfWeek::name).toList(),
        house.outsideLimit().name(),
        jdbc.sql("select outside_reason from house").query(String.class).single(),
        house.trustsOwnFeeds());
  }

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
    Optional<String> week = input.has("week") ? Optional.of(week(input)) : Optional.empty();
    Optional<Level> limit = input.choice("outsideLimit", Level.class);
    Optional<String> reason =
        input.has("outsideReason")
            ? Optional.of(input.text("outsideReason", 200))
            : Optional.empty();
    Optional<Boolean> trusts = input.flag("trustsOwnFeeds");
    input.check();
    acts.run(
        Acts.Wanted.by(asker.person(), "house.settle", Optional.empty(), "").changingTheWorld(),
        act -> {
          jdbc.sql(
                  """
                  update house set name = coalesce(?, name), week = coalesce(?, week),
                    outside_limit = coalesce(?, outside_limit),
                    outside_reason = coalesce(?, outside_reason),
                    trusts_own_feeds = coalesce(?, trusts_own_feeds)
                  """)
              .param(name.orElse(null))
              .param(week.orElse(null))
              .param(limit.map(Level::name).orElse(null))
              .param(reason.orElse(null))
              .param(trusts.orElse(null))
              .update();
          return "";
        });
    return ResponseEntity.noContent().build();
  }

  private static String week(Input input) {
    List<String> known = Arrays.stream(DayOfWeek.values()).map(DayOfWeek::name).toList();
    List<String> sent = input.texts("week", known.size(), 10);
    if (!known.containsAll(sent)) {
      input.fault("week", "holds what is none of " + String.join(", ", known));
      return "";
    }
    if (sent.isEmpty() && !input.namesFault("week")) {
      input.fault("week", "is empty; at least one day is a working day");
    }
    Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
    sent.forEach(day -> days.add(DayOfWeek.valueOf(day)));
    return days.stream().map(DayOfWeek::name).collect(Collectors.joining(","));
  }
}
