package mellowrota.server.accounts.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A password for one calendar program; it opens calendars and nothing else. */
@Entity
@Table(name = "app_password")
class AppPasswordEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  long person;
  String label;
  String hash;

  @Column(name = "made_at")
  Instant madeAt;

  @Column(name = "last_used_at")
  Instant lastUsedAt;
}
