package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.ZoneId;
import java.util.Optional;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Position;

/** A place, with what is settled about it. */
@Entity
@Table(name = "place")
final class PlaceEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  String code;
  String name;
  String zone;
  Integer capacity;

  boolean capacityOfPeople;

  String address;

  Double latitude;
  Double longitude;
  Long region;
  String week;

  /** As {@code "1 08:00-17:00, 6 09:00-12:00"}; null: nobody has said. */
  String openHours;

  @Version long version;

  protected PlaceEntity() {}

  PlaceEntity(String code, String name, Optional<ZoneId> zone) {
    become(code, name, zone);
  }

  Place place() {
    return new Place(
        PlaceId.of(id),
        code,
        name,
        Optional.ofNullable(zone).map(ZoneId::of),
        Optional.ofNullable(address),
        position());
  }

  Optional<Position> position() {
    return latitude == null || longitude == null
        ? Optional.empty()
        : Optional.of(new Position(latitude, longitude));
  }

  final void become(String newCode, String newName, Optional<ZoneId> newZone) {
    code = newCode;
    name = newName;
    zone = newZone.map(ZoneId::getId).orElse(null);
  }
}
