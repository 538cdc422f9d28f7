package mellowrota.server.accounts;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.JpaSpecificationExecutor;

/** A one-time link; only its hash is kept. Without a person it is for the first coordinator. */
@Entity
class Invitation {

  @Id
  @Column(name = "token_hash")
  private String tokenHash;

  private Long person;

  @Column(name = "made_at")
  private Instant madeAt;

  @Column(name = "expires_at")
  private Instant expiresAt;

  protected Invitation() {}

  Invitation(String tokenHash, Long person, Instant madeAt, Instant expiresAt) {
    this.tokenHash = tokenHash;
    this.person = person;
    this.madeAt = madeAt;
    this.expiresAt = expiresAt;
  }

  Optional<Long> getPerson() {
    return Optional.ofNullable(person);
  }

  Instant getMadeAt() {
    return madeAt;
  }

  boolean isOpen(Instant now) {
    return now.isBefore(expiresAt);
  }

  /**
   * Sets are changed by criteria: HQL in annotations is parsed anew at each start, for a second.
   */
  interface Repository
      extends JpaRepository<Invitation, String>, JpaSpecificationExecutor<Invitation> {
    default void deleteByPerson(Long person) {
      delete(
          (of, build) ->
              person == null ? of.get("person").isNull() : of.get("person").equalTo(person));
    }

    /** Uses the link up; 0 where somebody else just did. */
    default long useUp(String hash) {
      return delete((of, build) -> of.get("tokenHash").equalTo(hash));
    }
  }
}
