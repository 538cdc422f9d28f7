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
import org.springframework.data.jpa.repository.JpaSpecificationExecutor;

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

  /** Whether its hash is bcrypt's, as it was once. */
  boolean isOlder() {
    return hash.startsWith("$2");
  }

  interface Repository
      extends JpaRepository<AppPassword, Long>, JpaSpecificationExecutor<AppPassword> {
    List<AppPassword> findByPersonOrderById(long person);

    List<AppPassword> deleteByPerson(long person);

    /** Told to the minute; an older hash is written anew by whoever knows the password. */
    default void used(long id, String hash, Instant now, Instant before) {
      update(
          (of, update, build) -> {
            update.set("lastUsedAt", now).set("hash", hash);
            return build.and(
                of.get("id").equalTo(id),
                build.or(
                    of.get("lastUsedAt").isNull(),
                    build.lessThan(of.get("lastUsedAt"), before),
                    of.get("hash").notEqualTo(hash)));
          });
    }
  }
}
