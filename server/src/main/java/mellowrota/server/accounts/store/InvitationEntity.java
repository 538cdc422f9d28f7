package mellowrota.server.accounts.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A one-time link; only its hash is kept. Without a person it is for the first coordinator. */
@Entity
@Table(name = "invitation")
class InvitationEntity {

  @Id
  @Column(name = "token_hash")
  String tokenHash;

  Long person;

  @Column(name = "made_at")
  Instant madeAt;

  @Column(name = "expires_at")
  Instant expiresAt;
}
