package mellowrota.core.work;

import java.time.ZoneId;
import java.util.Objects;
import java.util.Optional;

/**
 * A site, a vehicle or a thing; never counted as a person.
 *
 * @param address where post and people find it, in one line
 */
public record Place(
    PlaceId id,
    String code,
    String name,
    Optional<ZoneId> zone,
    Optional<String> address,
    Optional<Position> position) {
  public Place {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(code, "code");
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(zone, "zone");
    Objects.requireNonNull(address, "address");
    Objects.requireNonNull(position, "position");
  }

  /** Of which nobody has said where it is. */
  public Place(PlaceId id, String code, String name, Optional<ZoneId> zone) {
    this(id, code, name, zone, Optional.empty(), Optional.empty());
  }
}
