package mellowrota.server.releases.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;
import java.io.Serializable;

/** A yes, or one taken back, with what was kept of the entry before and after it. */
@Entity
@Table(name = "release")
@IdClass(ReleaseEntity.Key.class)
final class ReleaseEntity {

  record Key(Long act, Long entry) implements Serializable {}

  @Id Long act;
  @Id Long entry;
  String before;
  String after;
}
