package mellowrota.server.feeds.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A secret address of a calendar; only its hash is kept. */
@Entity
@Table(name = "feed")
class FeedEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  @Column(name = "token_hash")
  String tokenHash;

  long rendering;
  String label;

  @Column(name = "made_by")
  long madeBy;

  @Column(name = "made_at")
  Instant madeAt;

  @Column(name = "last_used_at")
  Instant lastUsedAt;

  @Column(name = "withdrawn_at")
  Instant withdrawnAt;
}
