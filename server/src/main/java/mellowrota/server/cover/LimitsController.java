package mellowrota.server.cover;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.DayOfWeek;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.cover.Clash;
import mellowrota.core.cover.Limits;
import mellowrota.core.people.Person;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.cover.store.LimitStore;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** The house's rules of cover over HTTP. */
@RestController
@RequestMapping("/api/v1/limits")
@RequiredArgsConstructor
class LimitsController {

  private static final int MOST = 100_000;
  private static final int MOST_WEEKS = 53;
  private static final double FASTEST = 300;

  private final HouseLimits limits;
  private final Worlds worlds;
  private final AsSeen asSeen;

  @Schema(name = "Limit")
  record LimitView(
      Clash.Kind kind,
      Clash.Level level,
      @Schema(description = "Minutes or a count; 0: no limit; absent: this limit has no amount")
          @Nullable Integer amount,
      @Schema(description = "Where it warns: who goes against it has to say why")
          @Nullable Boolean asksReason) {}

  @Schema(name = "Limits")
  record LimitsView(
      List<LimitView> limits,
      DayOfWeek weekBegins,
      @Schema(description = "Weeks over which PERIOD is averaged; 0: not at all") int periodWeeks,
      @Schema(description = "Kilometres an hour as the crow flies, where no travel time is set")
          double travelSpeed,
      @With String tag)
      implements AsSeen.Tagged<LimitsView> {}

  @Schema(name = "LimitsChange")
  record LimitsSchema(
      @Nullable List<LimitView> limits,
      @Nullable DayOfWeek weekBegins,
      @Nullable Integer periodWeeks,
      @Schema(description = "From 1 to 300") @Nullable Double travelSpeed) {}

  @GetMapping
  @Operation(summary = "List the limits on people’s work")
  @Transactional(readOnly = true)
  LimitsView limits(Asker asker) {
    DutiesController.requireOffice(worlds.now().person(asker.person()));
    Limits now = limits.limits();
    Set<Clash.Kind> asking = limits.askingReason();
    return AsSeen.tagged(
        new LimitsView(
            Stream.of(Clash.Kind.values())
                .filter(kind -> Limits.isSettled(kind))
                .map(
                    kind ->
                        new LimitView(
                            kind,
                            now.level(kind),
                            now.amount(kind).orElse(null),
                            asking.contains(kind)))
                .toList(),
            now.weekBegins(),
            now.periodWeeks(),
            limits.travelSpeed(),
            ""));
  }

  @PutMapping
  @Operation(summary = "Set limits; those not named stay")
  ResponseEntity<Void> set(
      Asker asker,
      IfMatch match,
      @RequestBody @Schema(implementation = LimitsSchema.class) JsonNode body) {
    Person me = worlds.now().person(asker.person());
    if (!me.isCoordinator()) {
      throw Problem.forbidden(say("cover.only-coordinators-can-change-limits"));
    }
    Input input = Input.of(body, LimitsSchema.class);
    Limits now = limits.limits();
    Set<Clash.Kind> asking = limits.askingReason();
    Map<Clash.Kind, LimitStore.Limit> wishes = new EnumMap<>(Clash.Kind.class);
    for (Input one : input.objects("limits", Clash.Kind.values().length, LimitView.class)) {
      Optional<Clash.Kind> kind = one.choice("kind", Clash.Kind.class);
      Optional<Clash.Level> level = one.choice("level", Clash.Level.class);
      OptionalLong amount = one.number("amount");
      if (amount.isPresent() && (amount.getAsLong() < 0 || amount.getAsLong() > MOST)) {
        one.fault("amount", say("common.must-be-from-0", MOST));
      } else if (kind.isEmpty()) {
        one.fault("kind", say("cover.is-missing-see-get"));
      } else if (!Limits.isSettled(kind.get())) {
        one.fault("kind", say("cover.can-only-warn"));
      } else {
        wishes.put(
            kind.get(),
            new LimitStore.Limit(
                level.orElse(now.level(kind.get())),
                now.amount(kind.get())
                    .map(was -> amount.isPresent() ? (int) amount.getAsLong() : was),
                one.flag("asksReason").orElse(asking.contains(kind.get()))));
      }
    }
    Optional<DayOfWeek> begins = input.choice("weekBegins", DayOfWeek.class);
    OptionalLong weeks = input.number("periodWeeks");
    if (weeks.isPresent() && (weeks.getAsLong() < 0 || weeks.getAsLong() > MOST_WEEKS)) {
      input.fault("periodWeeks", say("common.must-be-from-0", MOST_WEEKS));
    }
    Optional<Double> speed = input.decimal("travelSpeed", FASTEST);
    if (speed.filter(one -> one < 1).isPresent()) {
      input.fault("travelSpeed", say("common.must-be-from-1", (int) FASTEST));
    }
    input.check();
    Optional<Integer> period =
        weeks.isPresent() ? Optional.of((int) weeks.getAsLong()) : Optional.empty();
    HouseLimits.Reckoned reckoned = new HouseLimits.Reckoned(begins, period, speed);
    asSeen.change(
        match, () -> limits(asker), body, () -> limits.set(asker.person(), wishes, reckoned));
    return ResponseEntity.noContent().build();
  }
}
