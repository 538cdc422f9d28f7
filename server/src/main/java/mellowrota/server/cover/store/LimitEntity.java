package mellowrota.server.cover.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import mellowrota.core.cover.Clash;

/** A limit that is not as usual. */
@Entity
@Table(name = "house_limit")
final class LimitEntity {

  @Id
  @Enumerated(EnumType.STRING)
  Clash.Kind kind;

  boolean never;

  /** Minutes or a count; 0: no limit; null where there is nothing to count. */
  Integer amount;

  /** Where it only warns. */
  @Column(name = "asks_reason")
  boolean asksReason;

  protected LimitEntity() {}

  LimitEntity(Clash.Kind kind) {
    this.kind = kind;
  }
}
