package mellowrota.server.accounts.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A one-time link; only its hash is kept. Without a person it is for the first coordinator. */
@Entity
@Table(name = "invitation")
final class InvitationEntity {

  @Id String tokenHash;

  Long person;

  Instant madeAt;

  Instant expiresAt;
}
