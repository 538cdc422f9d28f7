package mellowrota.core.work;

import java.time.ZoneId;
import java.util.Objects;
import java.util.Optional;

/** A site, a vehicle or a thing; never counted as a person. */
public record Place(PlaceId id, String code, String name, Optional<ZoneId> zone) {
  public Place {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(code, "code");
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(zone, "zone");
  }
}
