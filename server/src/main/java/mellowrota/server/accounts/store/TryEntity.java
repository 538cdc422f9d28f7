package mellowrota.server.accounts.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** How often a password was tried since a moment, of one account or from one address. */
@Entity
@Table(name = "sign_in_try")
final class TryEntity {

  @Id String subject;
  Instant since;
  int tries;
}
