package mellowrota.server.deadlines.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.ZoneId;
import java.util.Optional;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.server.deadlines.KeptSet;

/** A set of deadlines: what it belongs to, and which of its versions is the latest. */
@Entity
@Table(name = "deadline_set")
final class DeadlineSetEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  long chain;
  Long record;

  @Enumerated(EnumType.STRING)
  KeptSet.Follows.What follows;

  String followsName;
  Long place;
  String zone;
  int no;

  protected DeadlineSetEntity() {}

  DeadlineSetEntity(long chain, KeptSet.Belongs to) {
    this.chain = chain;
    record = to.record().map(RecordId::value).orElse(null);
    follows = to.follows().map(KeptSet.Follows::what).orElse(null);
    followsName = to.follows().map(KeptSet.Follows::name).orElse(null);
    place = to.place().map(PlaceId::value).orElse(null);
    zone = to.zone().getId();
  }

  KeptSet.Belongs to() {
    return new KeptSet.Belongs(
        Optional.ofNullable(record).map(RecordId::of),
        Optional.ofNullable(follows).map(what -> new KeptSet.Follows(what, followsName)),
        Optional.ofNullable(place).map(PlaceId::of),
        ZoneId.of(zone));
  }
}
