package mellowrota.server.cover;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.people.Person;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Position;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.crew.store.Places;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** What a place holds and how far it is, over HTTP. */
@RestController
@RequestMapping("/api/v1/places/{id}/terms")
@RequiredArgsConstructor
class PlaceTermsController {

  private static final int MOST_HELD = 10_000;
  private static final int MOST_WAYS = 1_000;
  private static final int LONGEST_WAY = 24 * 60;
  private static final int MOST_OPENINGS = 50;

  private final HouseLimits limits;
  private final Worlds worlds;
  private final AsSeen asSeen;

  @Schema(name = "Way")
  record WayView(
      long to,
      @Schema(description = "From here; the way back takes as long unless set there")
          int minutes) {}

  @Schema(name = "OpeningHours")
  record OpeningView(
      @Schema(description = "Monday is 1") int weekday,
      String from,
      @Schema(description = "On the next day where not after from") String until) {}

  @Schema(name = "PlaceTerms")
  record TermsView(
      @Schema(description = "What it holds at once; not there: nobody has said")
          @Nullable Integer capacity,
      @Schema(description = "Count people instead of visits") boolean ofPeople,
      @Schema(description = "In one line; for whom the place is") @Nullable String address,
      @Schema(description = "Latitude (WGS 84)") @Nullable Double latitude,
      @Schema(description = "Longitude (WGS 84)") @Nullable Double longitude,
      List<WayView> ways,
      @Schema(description = "When work can be done there; empty: not set")
          List<OpeningView> opening,
      @With String tag)
      implements AsSeen.Tagged<TermsView> {}

  @Schema(name = "PlaceTermsChange")
  record TermsSchema(
      @Schema(nullable = true) @Nullable Integer capacity,
      @Nullable Boolean ofPeople,
      @Schema(nullable = true) @Nullable String address,
      @Schema(nullable = true) @Nullable Double latitude,
      @Schema(nullable = true) @Nullable Double longitude,
      @Nullable List<WayView> ways,
      @Nullable List<OpeningView> opening) {}

  private World office(Asker asker, long id) {
    World world = worlds.now();
    DutiesController.requireOffice(world.person(asker.person()));
    if (world.places().find(PlaceId.of(id)).isEmpty()) {
      throw Problem.notFound();
    }
    return world;
  }

  @GetMapping
  @Operation(summary = "Capacity, position, opening hours and travel times of a place")
  @Transactional(readOnly = true)
  TermsView terms(Asker asker, @PathVariable long id) {
    office(asker, id);
    Places.Terms terms = limits.place(PlaceId.of(id));
    return AsSeen.tagged(
        new TermsView(
            terms.capacity().orElse(null),
            terms.ofPeople(),
            terms.address().orElse(null),
            terms.position().map(Position::latitude).orElse(null),
            terms.position().map(Position::longitude).orElse(null),
            terms.ways().entrySet().stream()
                .map(way -> new WayView(way.getKey().value(), way.getValue()))
                .sorted((one, other) -> Long.compare(one.to(), other.to()))
                .toList(),
            terms.opening().stream()
                .map(
                    one ->
                        new OpeningView(
                            one.weekday().getValue(),
                            one.from().toString(),
                            one.until().toString()))
                .toList(),
            ""));
  }

  @PutMapping
  @Operation(summary = "Replace them")
  ResponseEntity<Void> set(
      Asker asker,
      @PathVariable long id,
      IfMatch match,
      @RequestBody @Schema(implementation = TermsSchema.class) JsonNode body) {
    World world = office(asker, id);
    Person me = world.person(asker.person());
    if (!me.isCoordinator()) {
      throw Problem.forbidden(say("cover.only-coordinators-can-change-the"));
    }
    Input input = Input.of(body, TermsSchema.class);
    OptionalLong capacity = input.number("capacity");
    if (capacity.isPresent() && (capacity.getAsLong() < 1 || capacity.getAsLong() > MOST_HELD)) {
      input.fault("capacity", say("common.must-be-from-1", MOST_HELD));
    }
    Optional<Double> latitude = input.decimal("latitude", 90);
    Optional<Double> longitude = input.decimal("longitude", 180);
    if (latitude.isPresent() != longitude.isPresent()) {
      input.fault(latitude.isPresent() ? "longitude" : "latitude", say("common.is-missing"));
    }
    Map<PlaceId, Integer> ways = new HashMap<>();
    for (Input one : input.objects("ways", MOST_WAYS, WayView.class)) {
      PlaceId to = PlaceId.of(one.number("to").orElse(0));
      long minutes = one.number("minutes").orElse(-1);
      if (world.places().find(to).isEmpty() || to.value() == id) {
        one.fault("to", say("cover.is-not-another-place"));
      } else if (minutes < 0 || minutes > LONGEST_WAY) {
        one.fault("minutes", say("common.must-be-from-0", LONGEST_WAY));
      } else if (ways.put(to, (int) minutes) != null) {
        one.fault("to", say("common.is-listed-twice"));
      }
    }
    List<Places.Opening> opening = opening(input);
    boolean ofPeople = input.flag("ofPeople").orElse(false);
    String address = input.text("address", 200);
    input.check();
    Places.Terms terms =
        new Places.Terms(
            capacity.isPresent() ? Optional.of((int) capacity.getAsLong()) : Optional.empty(),
            ofPeople,
            address.isEmpty() ? Optional.empty() : Optional.of(address),
            latitude.flatMap(north -> longitude.map(east -> new Position(north, east))),
            ways,
            opening);
    asSeen.change(
        match,
        () -> terms(asker, id),
        body,
        () -> limits.setPlace(asker.person(), PlaceId.of(id), terms));
    return ResponseEntity.noContent().build();
  }

  private static List<Places.Opening> opening(Input input) {
    List<Places.Opening> found = new ArrayList<>();
    for (Input one : input.objects("opening", MOST_OPENINGS, OpeningView.class)) {
      long weekday = one.number("weekday").orElse(0);
      Optional<LocalTime> from = one.clock("from");
      Optional<LocalTime> until = one.clock("until");
      if (weekday < 1 || weekday > 7) {
        one.fault("weekday", say("crew.must-be-a-number"));
      } else if (from.isPresent() && until.isPresent()) {
        found.add(new Places.Opening(DayOfWeek.of((int) weekday), from.get(), until.get()));
      }
    }
    return found;
  }
}
