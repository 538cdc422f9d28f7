package mellowrota.server.cover;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.ZoneId;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.cover.Clashes;
import mellowrota.core.cover.Hours;
import mellowrota.core.cover.Limits;
import mellowrota.core.cover.Travel;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Position;
import mellowrota.server.acts.Acts;
import mellowrota.server.cover.store.LimitStore;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.crew.store.Places;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** What the house does not want of people's work, and how long ways and how large places are. */
@Service
@RequiredArgsConstructor
public class HouseLimits {

  private final HouseStore house;
  private final Places places;
  private final LimitStore store;
  private final Acts acts;

  Limits limits() {
    Limits usual = Limits.usual();
    Map<Clash.Kind, Clash.Level> levels = new EnumMap<>(Clash.Kind.class);
    levels.putAll(usual.levels());
    Map<Clash.Kind, Integer> amounts = new EnumMap<>(Clash.Kind.class);
    for (Clash.Kind kind : Clash.Kind.values()) {
      amounts.put(kind, usual.amount(kind).orElse(0));
    }
    store
        .limits()
        .forEach(
            (kind, limit) -> {
              levels.put(kind, limit.level());
              amounts.put(kind, limit.amount().orElse(0));
            });
    HouseStore.Reckoning reckoning = house.reckoning();
    return new Limits(
        levels,
        Duration.ofMinutes(amounts.get(Clash.Kind.REST)),
        Duration.ofMinutes(amounts.get(Clash.Kind.LONGEST)),
        reckoning.weekBegins(),
        Duration.ofMinutes(amounts.get(Clash.Kind.WEEK)),
        reckoning.periodWeeks(),
        Duration.ofMinutes(amounts.get(Clash.Kind.PERIOD)),
        amounts.get(Clash.Kind.DAYS),
        amounts.get(Clash.Kind.NIGHTS),
        amounts.get(Clash.Kind.DUE));
  }

  /** Against which one may go only with a reason, where they warn. */
  Set<Clash.Kind> askingReason() {
    Set<Clash.Kind> found = EnumSet.noneOf(Clash.Kind.class);
    store
        .limits()
        .forEach(
            (kind, limit) -> {
              if (limit.asksReason()) {
                found.add(kind);
              }
            });
    return found;
  }

  /** Sets how long a stretch of work may be. */
  public void longest(PersonId actor, Duration most) {
    LimitStore.Limit wish =
        new LimitStore.Limit(Clash.Level.WARN, Optional.of((int) most.toMinutes()), false);
    set(actor, Map.of(Clash.Kind.LONGEST, wish), Reckoned.AS_BEFORE);
  }

  /** How far what is never allowed in other houses is minded. */
  public void mind(PersonId actor, Clash.Level level) {
    Map<Clash.Kind, LimitStore.Limit> wishes = new EnumMap<>(Clash.Kind.class);
    Limits.usual()
        .levels()
        .keySet()
        .forEach(kind -> wishes.put(kind, new LimitStore.Limit(level, Optional.empty(), false)));
    set(actor, wishes, Reckoned.AS_BEFORE);
  }

  /**
   * How cover is to reckon; what is empty stays.
   *
   * @param travelSpeed in kilometres an hour, as the crow flies
   */
  record Reckoned(
      Optional<DayOfWeek> weekBegins, Optional<Integer> periodWeeks, Optional<Double> travelSpeed) {
    static final Reckoned AS_BEFORE =
        new Reckoned(Optional.empty(), Optional.empty(), Optional.empty());
  }

  void set(PersonId actor, Map<Clash.Kind, LimitStore.Limit> wishes, Reckoned reckoned) {
    acts.run(
        Acts.Wanted.by(actor, "house.limits", Optional.empty(), ""),
        act -> {
          wishes.forEach(store::limit);
          house.reckon(reckoned.weekBegins(), reckoned.periodWeeks(), reckoned.travelSpeed());
          return "";
        });
  }

  /** In kilometres an hour, as the crow flies. */
  double travelSpeed() {
    return house.reckoning().travelSpeed();
  }

  /**
   * What is settled of places, read at once.
   *
   * @param capacities of those about which it is said
   * @param openings likewise, each in its zone
   */
  record OfPlaces(
      Map<PlaceId, Clashes.Capacity> capacities, Map<PlaceId, Hours> openings, Travel travel) {}

  OfPlaces ofPlaces(World world) {
    Map<PlaceId, Clashes.Capacity> capacities = new HashMap<>();
    Map<PlaceId, Hours> openings = new HashMap<>();
    Map<Travel.Way, Duration> table = new HashMap<>();
    Map<PlaceId, Position> positions = new HashMap<>();
    places
        .terms()
        .forEach(
            (place, terms) -> {
              terms
                  .capacity()
                  .ifPresent(
                      most ->
                          capacities.put(
                              place, new Clashes.Capacity(place, most, terms.ofPeople())));
              if (!terms.opening().isEmpty()) {
                openings.put(place, hours(world, place, terms.opening()));
              }
              terms
                  .ways()
                  .forEach(
                      (to, minutes) ->
                          table.put(new Travel.Way(place, to), Duration.ofMinutes(minutes)));
              terms.position().ifPresent(at -> positions.put(place, at));
            });
    return new OfPlaces(capacities, openings, new Travel(table, positions, travelSpeed()));
  }

  private static Hours hours(World world, PlaceId place, List<Places.Opening> opening) {
    ZoneId zone = world.places().find(place).flatMap(Place::zone).orElse(world.house().zone());
    return new Hours(opening.stream().map(one -> one.in(zone)).toList(), List.of());
  }

  Places.Terms place(PlaceId id) {
    return Optional.ofNullable(places.terms().get(id)).orElseThrow(Problem::notFound);
  }

  void setPlace(PersonId actor, PlaceId id, Places.Terms terms) {
    acts.run(
        Acts.Wanted.by(actor, "house.place", Optional.empty(), "").changingTheWorld(),
        act -> {
          places.setTerms(id, terms);
          return "";
        });
  }
}
