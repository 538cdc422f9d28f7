package mellowrota.server.accounts;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

/** A password for one calendar program; it opens calendars and nothing else. */
@Entity
@Table(name = "app_password")
class AppPassword {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  private Long id;

  private Long person;
  private String label;
  private String hash;

  @Column(name = "made_at")
  private Instant madeAt;

  @Column(name = "last_used_at")
  private Instant lastUsedAt;

  protected AppPassword() {}

  AppPassword(long person, String label, String hash, Instant madeAt) {
    this.person = person;
    this.label = label;
    this.hash = hash;
    this.madeAt = madeAt;
  }

  Long getId() {
    return id;
  }

  Long getPerson() {
    return person;
  }

  String getLabel() {
    return label;
  }

  String getHash() {
    return hash;
  }

  Instant getMadeAt() {
    return madeAt;
  }

  Instant getLastUsedAt() {
    return lastUsedAt;
  }

  void setLastUsedAt(Instant at) {
    this.lastUsedAt = at;
  }

  interface Repository extends JpaRepository<AppPassword, Long> {
    List<AppPassword> findByPersonOrderById(long person);
  }
}
