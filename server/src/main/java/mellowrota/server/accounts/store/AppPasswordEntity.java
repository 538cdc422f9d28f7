package mellowrota.server.accounts.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** A password for one calendar program; it opens calendars and nothing else. */
@Entity
@Table(name = "app_password")
final class AppPasswordEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  long person;
  String label;
  String hash;

  Instant madeAt;

  Instant lastUsedAt;
}
