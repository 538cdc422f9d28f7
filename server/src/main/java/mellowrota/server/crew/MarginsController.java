package mellowrota.server.crew;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import lombok.With;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.AsSeen;
import mellowrota.server.crew.store.MarginStore;
import mellowrota.server.crew.store.Places;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.IfMatch;
import mellowrota.server.platform.Input;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** The margins of work that states none itself, over HTTP. */
@RestController
@RequestMapping("/api/v1/margins")
@RequiredArgsConstructor
class MarginsController {

  private static final int MOST = 2_000;
  private static final long LONGEST_MINUTES = 24 * 60;

  private final MarginStore store;
  private final People people;
  private final Places places;
  private final Acts acts;
  private final AsSeen asSeen;

  /** Of a kind, a place or a person; of the organisation where none of these is named. */
  @Schema(name = "Margin")
  record MarginView(
      @Nullable Kind kind,
      @Nullable Long place,
      @Nullable Long person,
      @Schema(description = "Minutes; 0 is a margin too; absent: not set") @Nullable Long before,
      @Schema(description = "Likewise") @Nullable Long after) {}

  @Schema(name = "Margins")
  record MarginsView(
      @Schema(
              description =
                  "What a record states counts before its place’s, that before its kind’s, that "
                      + "before the person’s, that before the organisation’s; each side by itself")
          List<MarginView> margins,
      @With String tag)
      implements AsSeen.Tagged<MarginsView> {}

  @Schema(name = "MarginsChange")
  record MarginsSchema(List<MarginView> margins) {}

  @GetMapping
  @Operation(summary = "Margins of work that states none itself")
  @Transactional(readOnly = true)
  MarginsView margins(Asker asker) {
    people.requireCoordinator(asker);
    MarginSettings all = store.settings();
    List<MarginView> found = new ArrayList<>();
    if (!all.house().isUnset()) {
      found.add(view(null, null, null, all.house()));
    }
    new TreeMap<>(all.kinds()).forEach((kind, set) -> found.add(view(kind, null, null, set)));
    new TreeMap<>(all.places())
        .forEach((place, set) -> found.add(view(null, place.value(), null, set)));
    new TreeMap<>(all.people())
        .forEach((person, set) -> found.add(view(null, null, person.value(), set)));
    return AsSeen.tagged(new MarginsView(found, ""));
  }

  private static MarginView view(Kind kind, Long place, Long person, MarginSetting set) {
    return new MarginView(
        kind,
        place,
        person,
        set.before().map(Duration::toMinutes).orElse(null),
        set.after().map(Duration::toMinutes).orElse(null));
  }

  @PutMapping
  @Operation(summary = "Replace the margins; every calendar follows at once")
  ResponseEntity<Void> set(
      Asker asker,
      IfMatch match,
      @RequestBody @Schema(implementation = MarginsSchema.class) JsonNode body) {
    people.requireCoordinator(asker);
    MarginSettings wanted = wanted(Input.of(body, MarginsSchema.class));
    asSeen.change(match, () -> margins(asker), body, () -> settle(asker, wanted));
    return ResponseEntity.noContent().build();
  }

  private void settle(Asker asker, MarginSettings wanted) {
    acts.run(
        Acts.Wanted.by(asker.person(), "house.margins", Optional.empty(), "").changingTheWorld(),
        act -> {
          store.set(wanted);
          return "";
        });
  }

  private MarginSettings wanted(Input input) {
    MarginSetting house = MarginSetting.UNSET;
    Map<Kind, MarginSetting> kinds = new EnumMap<>(Kind.class);
    Map<PlaceId, MarginSetting> ofPlaces = new HashMap<>();
    Map<PersonId, MarginSetting> ofPeople = new HashMap<>();
    if (!input.has("margins")) {
      input.fault("margins", say("crew.are-missing-send-an"));
    }
    for (Input one : input.objects("margins", MOST, MarginView.class)) {
      MarginSetting set =
          new MarginSetting(
              one.minutes("before", LONGEST_MINUTES), one.minutes("after", LONGEST_MINUTES));
      Optional<Kind> kind = one.choice("kind", Kind.class);
      Optional<PlaceId> place = one.number("place").stream().mapToObj(PlaceId::of).findFirst();
      Optional<PersonId> person = one.number("person").stream().mapToObj(PersonId::of).findFirst();
      boolean twice = false;
      if (Stream.of(kind, place, person).filter(Optional::isPresent).count() > 1) {
        one.fault("", say("crew.names-more-than-one"));
      } else if (kind.isPresent()) {
        twice = kinds.put(kind.get(), set) != null;
      } else if (place.isPresent()) {
        if (places.find(place.get()).isEmpty()) {
          one.fault("place", say("common.is-not-a-place"));
        }
        twice = ofPlaces.put(place.get(), set) != null;
      } else if (person.isPresent()) {
        if (people.find(person.get()).isEmpty()) {
          one.fault("person", say("common.is-not-a-person"));
        }
        twice = ofPeople.put(person.get(), set) != null;
      } else {
        twice = !house.isUnset();
        house = set;
      }
      if (twice) {
        one.fault("", say("common.is-listed-twice"));
      }
    }
    input.check();
    return new MarginSettings(house, kinds, ofPlaces, ofPeople);
  }
}
