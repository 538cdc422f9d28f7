package mellowrota.server.feeds.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A secret address of a calendar; only its hash is kept. */
@Entity
@Table(name = "feed")
final class FeedEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  String tokenHash;

  long rendering;
  String label;

  long madeBy;

  Instant madeAt;

  Instant lastUsedAt;

  Instant withdrawnAt;
}
