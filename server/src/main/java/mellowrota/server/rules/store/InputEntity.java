package mellowrota.server.rules.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;
import java.io.Serializable;

/** That a record's projection read something of the world. */
@Entity
@Table(name = "record_input")
@IdClass(InputEntity.Key.class)
final class InputEntity {

  record Key(Long record, String kind, Long input) implements Serializable {}

  @Id Long record;
  @Id String kind;
  @Id Long input;
}
