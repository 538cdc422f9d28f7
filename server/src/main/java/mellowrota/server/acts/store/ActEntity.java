package mellowrota.server.acts.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** An act; {@link ActStore} begins them. */
@Entity
@Table(name = "act")
final class ActEntity {

  @Id Long id;
  Instant at;
  long actor;
  String kind;
  String reason;

  String idemKey;

  String bodyHash;

  Long undoes;
  String answer;
}
