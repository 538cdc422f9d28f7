package mellowrota.core.work;

import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.time.WorkingDays;

/**
 * Which days are worked where (COVER 26).
 *
 * @param office for work without a place, and for places of which nothing is said
 */
public record WorkDays(Map<PlaceId, WorkingDays> places, WorkingDays office) {

  public WorkDays {
    places = Map.copyOf(places);
    Objects.requireNonNull(office, "office");
  }

  public WorkingDays at(Optional<PlaceId> place) {
    return place.map(places::get).orElse(office);
  }
}
