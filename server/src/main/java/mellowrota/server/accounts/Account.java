package mellowrota.server.accounts;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

/** A person's way in. Without a password the invitation has not been taken up. */
@Entity
class Account {

  @Id private Long person;
  private String email;

  @Column(name = "password_hash")
  private String passwordHash;

  @Version private long version;

  protected Account() {}

  Account(long person, String email) {
    this.person = person;
    this.email = email;
  }

  Long getPerson() {
    return person;
  }

  String getEmail() {
    return email;
  }

  void setEmail(String email) {
    this.email = email;
  }

  Optional<String> getPasswordHash() {
    return Optional.ofNullable(passwordHash);
  }

  void setPasswordHash(String hash) {
    this.passwordHash = hash;
  }

  interface Repository extends JpaRepository<Account, Long> {
    Optional<Account> findByEmailIgnoreCase(String email);
  }
}
