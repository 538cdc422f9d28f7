package mellowrota.core.rule;

import java.time.ZoneId;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkDays;
import mellowrota.core.work.WorkRecord;

/** The places of the house, which zone work is told in, and on which days it is done there. */
public final class Places {

  private final Map<PlaceId, Place> byId = new HashMap<>();
  private final ZoneId houseZone;
  private final WorkDays workDays;

  private Places(Collection<Place> places, ZoneId houseZone, WorkDays workDays) {
    places.forEach(place -> byId.put(place.id(), place));
    this.houseZone = houseZone;
    this.workDays = workDays;
  }

  public static Places of(Collection<Place> places, ZoneId houseZone, WorkDays workDays) {
    return new Places(places, houseZone, workDays);
  }

  public Optional<Place> find(PlaceId id) {
    return Optional.ofNullable(byId.get(id));
  }

  public ZoneId houseZone() {
    return houseZone;
  }

  /** The days on which work is done at a place, or at none. */
  public WorkingDays workDays(Optional<PlaceId> place) {
    return workDays.at(place);
  }

  /** The visit's own zone, else the place's, else the house's. */
  public ZoneId siteZone(WorkRecord record, Visit visit) {
    if (visit.when().orElse(null) instanceof When.Timed timed) {
      return timed.start().getZone();
    }
    return record.place().flatMap(this::find).flatMap(Place::zone).orElse(houseZone);
  }
}
