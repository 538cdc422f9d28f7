package mellowrota.server.accounts.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;

/** A person's way in. Without a password the invitation has not been taken up. */
@Entity
@Table(name = "account")
final class AccountEntity {

  @Id Long person;
  String email;

  String passwordHash;

  @Version Long version;
}
