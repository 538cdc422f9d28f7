package mellowrota.server.links.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.DynamicUpdate;

/**
 * An account at an outside calendar host. Each change writes its own columns: its owner and whoever
 * has its turn change it at once.
 */
@Entity
@Table(name = "link")
@DynamicUpdate
final class LinkEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  /** Whose it is; null: the house's. */
  Long person;

  String address;
  String home;
  String account;
  byte[] sealed;

  String keyId;

  long madeBy;

  Instant madeAt;

  /** Being ended: what stands there is taken off first. */
  Instant endsAt;

  Instant endedAt;

  String fault;

  String faultWords;

  Instant faultSince;

  int faults;

  Instant restUntil;

  String leasedBy;

  /** By the database's clock. */
  Instant leasedUntil;

  Instant stoppedAt;
}
