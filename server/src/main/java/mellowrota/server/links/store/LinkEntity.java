package mellowrota.server.links.store;

import jakarta.persistence.Column;
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
class LinkEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  /** Whose it is; null: the house's. */
  Long person;

  String address;
  String home;
  String account;
  byte[] sealed;

  @Column(name = "key_id")
  String keyId;

  @Column(name = "made_by")
  long madeBy;

  @Column(name = "made_at")
  Instant madeAt;

  /** Being ended: what stands there is taken off first. */
  @Column(name = "ends_at")
  Instant endsAt;

  @Column(name = "ended_at")
  Instant endedAt;

  String fault;

  @Column(name = "fault_words")
  String faultWords;

  @Column(name = "fault_since")
  Instant faultSince;

  int faults;

  @Column(name = "rest_until")
  Instant restUntil;

  @Column(name = "leased_by")
  String leasedBy;

  /** By the database's clock. */
  @Column(name = "leased_until")
  Instant leasedUntil;

  @Column(name = "stopped_at")
  Instant stoppedAt;
}
