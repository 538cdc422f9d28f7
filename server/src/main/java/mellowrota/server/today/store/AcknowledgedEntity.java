package mellowrota.server.today.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;
import java.io.Serializable;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** Up to which act somebody has seen what was changed of a record. */
@Entity
@Table(name = "seen")
@IdClass(AcknowledgedEntity.Key.class)
final class AcknowledgedEntity {

  record Key(Long person, Long record) implements Serializable {}

  @Id Long person;
  @Id Long record;
  long act;

  /** The coordinator who told them; none: they said so themselves. */
  @Column(name = "told_by")
  @Nullable Long toldBy;

  @Column(name = "told_how")
  @Nullable String toldHow;

  @Nullable Instant at;
}
