package mellowrota.server.sight.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import mellowrota.core.work.Kind;

/** How a kind is worded where its rule names no wording. */
@Entity
@Table(name = "usual_wording")
final class UsualWordingEntity {

  @Id
  @Enumerated(EnumType.STRING)
  Kind kind;

  long wording;

  protected UsualWordingEntity() {}

  UsualWordingEntity(Kind kind) {
    this.kind = kind;
  }
}
