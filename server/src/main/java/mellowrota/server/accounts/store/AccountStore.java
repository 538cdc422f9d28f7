package mellowrota.server.accounts.store;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Accounts, app passwords and invitations as they are kept. */
@Repository
@Transactional
@RequiredArgsConstructor
public class AccountStore {

  private final EntityManager kept;

  /**
   * A person's way in.
   *
   * @param passwordHash empty: the invitation has not been taken up
   */
  public record Account(PersonId person, String email, Optional<String> passwordHash) {}

  private static Account account(AccountEntity one) {
    return new Account(PersonId.of(one.person), one.email, Optional.ofNullable(one.passwordHash));
  }

  public List<Account> all() {
    return kept
        .createQuery("from AccountEntity order by person", AccountEntity.class)
        .getResultList()
        .stream()
        .map(AccountStore::account)
        .toList();
  }

  public Optional<Account> find(PersonId person) {
    return Optional.ofNullable(kept.find(AccountEntity.class, person.value()))
        .map(AccountStore::account);
  }

  /** By the address, in whatever case. */
  public Optional<Account> find(String email) {
    return kept
        .createQuery("from AccountEntity where upper(email) = upper(:email)", AccountEntity.class)
        .setParameter("email", email)
        .getResultList()
        .stream()
        .findFirst()
        .map(AccountStore::account);
  }

  /** Gives a person an account by this address, or moves theirs to it. */
  public void open(PersonId person, String email) {
    AccountEntity entity =
        Optional.ofNullable(kept.find(AccountEntity.class, person.value()))
            .orElseGet(AccountEntity::new);
    entity.person = person.value();
    entity.email = email;
    kept.persist(entity);
    kept.flush();
  }

  public void setPassword(PersonId person, String hash) {
    kept.find(AccountEntity.class, person.value()).passwordHash = hash;
  }

  /**
   * A password for one calendar program.
   *
   * @param lastUsedAt to the minute; empty: never
   */
  public record AppPassword(
      long id,
      PersonId person,
      String label,
      String hash,
      Instant madeAt,
      Optional<Instant> lastUsedAt) {

    /** Whether its hash is bcrypt's, as it was once. */
    public boolean isOlder() {
      return hash.startsWith("$2");
    }
  }

  private static AppPassword appPassword(AppPasswordEntity one) {
    return new AppPassword(
        one.id,
        PersonId.of(one.person),
        one.label,
        one.hash,
        one.madeAt,
        Optional.ofNullable(one.lastUsedAt));
  }

  private TypedQuery<AppPasswordEntity> appPasswordsOf(PersonId person) {
    return kept.createQuery(
            "from AppPasswordEntity where person = :person order by id", AppPasswordEntity.class)
        .setParameter("person", person.value());
  }

  public List<AppPassword> appPasswords(PersonId person) {
    return appPasswordsOf(person).getResultList().stream().map(AccountStore::appPassword).toList();
  }

  public AppPassword addAppPassword(PersonId person, String label, String hash, Instant at) {
    AppPasswordEntity entity = new AppPasswordEntity();
    entity.person = person.value();
    entity.label = label;
    entity.hash = hash;
    entity.madeAt = at;
    kept.persist(entity);
    return appPassword(entity);
  }

  /** Takes away one of somebody's; false where they have none such. */
  public boolean removeAppPassword(PersonId person, long id) {
    Optional<AppPasswordEntity> found =
        appPasswordsOf(person).getResultList().stream().filter(one -> one.id == id).findFirst();
    found.ifPresent(kept::remove);
    return found.isPresent();
  }

  /** Takes away all of somebody's, and says how many there were. */
  public int removeAppPasswords(PersonId person) {
    List<AppPasswordEntity> found = appPasswordsOf(person).getResultList();
    found.forEach(kept::remove);
    return found.size();
  }

  /** Told to the minute; an older hash is written anew by whoever knows the password. */
  public void used(long id, String hash, Instant now, Instant before) {
    kept.createQuery(
            """
            update AppPasswordEntity set lastUsedAt = :now, hash = :hash where id = :id
              and (lastUsedAt is null or lastUsedAt < :before or hash <> :hash)
            """)
        .setParameter("now", now)
        .setParameter("hash", hash)
        .setParameter("id", id)
        .setParameter("before", before)
        .executeUpdate();
  }

  /** A one-time link; without a person it is for the first coordinator. */
  public record Invitation(Optional<PersonId> person, Instant expiresAt) {}

  public Optional<Invitation> invitation(String tokenHash) {
    return Optional.ofNullable(kept.find(InvitationEntity.class, tokenHash))
        .map(
            one ->
                new Invitation(Optional.ofNullable(one.person).map(PersonId::of), one.expiresAt));
  }

  public void invite(String tokenHash, Optional<PersonId> person, Instant now, Instant until) {
    InvitationEntity entity = new InvitationEntity();
    entity.tokenHash = tokenHash;
    entity.person = person.map(PersonId::value).orElse(null);
    entity.madeAt = now;
    entity.expiresAt = until;
    kept.persist(entity);
  }

  /** Ends the open ones of this person, or those for the first coordinator. */
  public void endInvitations(Optional<PersonId> person) {
    kept.createQuery("delete from InvitationEntity where person is not distinct from :person")
        .setParameter("person", person.map(PersonId::value).orElse(null))
        .executeUpdate();
  }

  /** Uses the link up; false where somebody else just did. */
  public boolean useUp(String tokenHash) {
    return kept.createQuery("delete from InvitationEntity where tokenHash = :hash")
            .setParameter("hash", tokenHash)
            .executeUpdate()
        == 1;
  }
}
