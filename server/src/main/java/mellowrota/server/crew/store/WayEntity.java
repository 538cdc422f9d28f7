package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;

/** How long the way from one place to another is. */
@Entity
@Table(name = "travel")
@IdClass(WayEntity.Key.class)
final class WayEntity {

  record Key(Long fromPlace, Long toPlace) {}

  @Id Long fromPlace;

  @Id Long toPlace;

  int minutes;

  protected WayEntity() {}

  WayEntity(long from, long to, int minutes) {
    fromPlace = from;
    toPlace = to;
    this.minutes = minutes;
  }
}
