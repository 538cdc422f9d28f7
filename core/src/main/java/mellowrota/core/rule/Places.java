package mellowrota.core.rule;

import java.time.ZoneId;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;

/** The places of the house, and which zone work is told in. */
public final class Places {

  private final Map<PlaceId, Place> byId = new HashMap<>();
  private final ZoneId houseZone;

  private Places(Collection<Place> places, ZoneId houseZone) {
    places.forEach(place -> byId.put(place.id(), place));
    this.houseZone = houseZone;
  }

  public static Places of(Collection<Place> places, ZoneId houseZone) {
    return new Places(places, houseZone);
  }

  public Optional<Place> find(PlaceId id) {
    return Optional.ofNullable(byId.get(id));
  }

  public ZoneId houseZone() {
    return houseZone;
  }

  /** The visit's own zone, else the place's, else the house's. */
  public ZoneId siteZone(WorkRecord record, Visit visit) {
    if (visit.when().orElse(null) instanceof When.Timed timed) {
      return timed.start().getZone();
    }
    return record.place().flatMap(this::find).flatMap(Place::zone).orElse(houseZone);
  }
}
