package mellowrota.server.accounts;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import mellowrota.core.people.PersonId;
import mellowrota.server.crew.HouseStore;
import mellowrota.server.platform.Problem;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Signs people in, invites them, and keeps their passwords. */
@Service
public class Accounts {

  private static final Duration INVITATION = Duration.ofDays(7);
  private static final int SHORTEST = 10;
  private static final int LONGEST_BYTES = 72;
  private static final int MOST_APP_PASSWORDS = 20;

  private final PasswordEncoder encoder;
  private final String nobodysHash;
  private final Map<String, String> verified = new ConcurrentHashMap<>();
  private final String processKey = Secrets.token();

  private final Account.Repository accounts;
  private final Invitation.Repository invitations;
  private final AppPassword.Repository appPasswords;
  private final AttemptLimit limit;
  private final HouseStore house;
  private final FindByIndexNameSessionRepository<? extends Session> sessions;
  private final TransactionTemplate transaction;
  private final Clock clock;

  Accounts(
      Account.Repository accounts,
      Invitation.Repository invitations,
      AppPassword.Repository appPasswords,
      AttemptLimit limit,
      HouseStore house,
      FindByIndexNameSessionRepository<? extends Session> sessions,
      PlatformTransactionManager transactions,
      Clock clock,
      @Value("${mellow.password-strength}") int strength) {
    encoder = new BCryptPasswordEncoder(strength);
    nobodysHash = encoder.encode("nobody");
    this.accounts = accounts;
    this.invitations = invitations;
    this.appPasswords = appPasswords;
    this.limit = limit;
    this.house = house;
    this.sessions = sessions;
    this.transaction = new TransactionTemplate(transactions);
    this.clock = clock;
  }

  /** Who this is; a wrong password, a wrong address and a closed account are told alike. */
  PersonId signIn(String email, String password, String address) {
    limit.require(email, address);
    Optional<Account> account =
        transaction.execute(status -> accounts.findByEmailIgnoreCase(email));
    String hash = account.flatMap(Account::getPasswordHash).orElse(nobodysHash);
    boolean right = password.length() <= 200 && encoder.matches(cut(password), hash);
    if (account.isEmpty() || !right || !mayEnter(account.get().getPerson())) {
      limit.failed(email, address);
      throw Problem.of(401, "wrong-password", "That address and password do not go together.");
    }
    limit.succeeded(email);
    return PersonId.of(account.get().getPerson());
  }

  /** Whether an account is open now: its person is there, has not left, and may sign in. */
  boolean mayEnter(long person) {
    return Boolean.TRUE.equals(transaction.execute(status -> house.mayEnter(PersonId.of(person))));
  }

  private static String cut(String password) {
    return password.getBytes(java.nio.charset.StandardCharsets.UTF_8).length > LONGEST_BYTES
        ? ""
        : password;
  }

  /** The person an app password opens calendars for. */
  Optional<PersonId> byAppPassword(String email, String password, String address) {
    limit.require(email, address);
    Optional<PersonId> found = transaction.execute(status -> matching(email, password));
    if (found.isEmpty()) {
      limit.failed(email, address);
    }
    return found;
  }

  private Optional<PersonId> matching(String email, String password) {
    Optional<Account> account = accounts.findByEmailIgnoreCase(email);
    if (account.isEmpty()) {
      encoder.matches(cut(password), nobodysHash);
      return Optional.empty();
    }
    for (AppPassword one : appPasswords.findByPersonOrderById(account.get().getPerson())) {
      if (matches(password, one.getHash()) && mayEnter(one.getPerson())) {
        Instant now = clock.instant();
        Instant before = one.getLastUsedAt();
        if (before == null || before.isBefore(now.minusSeconds(60))) {
          one.setLastUsedAt(now);
        }
        return Optional.of(PersonId.of(one.getPerson()));
      }
    }
    return Optional.empty();
  }

  /**
   * Programs send their password with every request; what bcrypt has found right once is known by a
   * keyed hash, for this process and this stored hash only. Withdrawing takes the stored hash away.
   */
  private boolean matches(String password, String hash) {
    String proof = Secrets.sha256(processKey + '\n' + hash + '\n' + password);
    if (proof.equals(verified.get(hash))) {
      return true;
    }
    boolean right = encoder.matches(cut(password), hash);
    if (right) {
      if (verified.size() > 5000) {
        verified.clear();
      }
      verified.put(hash, proof);
    }
    return right;
  }

  Optional<String> emailOf(PersonId person) {
    return accounts.findById(person.value()).map(Account::getEmail);
  }

  /** Gives a person an account by this address, or moves theirs to it. */
  @Transactional
  public void open(PersonId person, String email) {
    Optional<Account> other = accounts.findByEmailIgnoreCase(email);
    if (other.isPresent() && other.get().getPerson() != person.value()) {
      throw Problem.fault("/email", "belongs to another account");
    }
    Account account =
        accounts.findById(person.value()).orElseGet(() -> new Account(person.value(), email));
    account.setEmail(email);
    accounts.saveAndFlush(account);
  }

  /** A one-time link's secret, for a week; earlier ones of this person end. */
  @Transactional
  public String invite(Optional<PersonId> person) {
    Long number = person.map(PersonId::value).orElse(null);
    invitations.deleteByPerson(number);
    String token = Secrets.token();
    Instant now = clock.instant();
    invitations.save(new Invitation(Secrets.sha256(token), number, now, now.plus(INVITATION)));
    return token;
  }

  /** Whom an open invitation is for; empty person for the first coordinator. */
  @Transactional(readOnly = true)
  public Optional<Optional<PersonId>> invited(String token) {
    return invitations
        .findById(Secrets.sha256(token))
        .filter(invitation -> invitation.isOpen(clock.instant()))
        .map(invitation -> invitation.getPerson().map(PersonId::of));
  }

  /** Ends the link of an invitation; of two who hold it, one is refused. */
  @Transactional
  public void useUp(String token) {
    if (invitations.useUp(Secrets.sha256(token)) != 1) {
      throw ended();
    }
  }

  static Problem ended() {
    return Problem.of(
        404,
        "invitation-ended",
        "This invitation was used or has ended; ask your coordinator for a new one.");
  }

  /** Sets the password of somebody who was invited. */
  @Transactional
  public void accept(PersonId person, String password) {
    requireGood(password);
    Account account = accounts.findById(person.value()).orElseThrow(Problem::notFound);
    account.setPasswordHash(encoder.encode(password));
    endSessions(person, Optional.empty());
  }

  /** For the demo's accounts, whose password everybody knows. */
  @Transactional
  public void setPassword(PersonId person, String password) {
    Account account = accounts.findById(person.value()).orElseThrow(Problem::notFound);
    account.setPasswordHash(encoder.encode(password));
  }

  /** Changes one's own password and ends one's other sessions. */
  @Transactional
  void changePassword(PersonId person, String old, String password, String keepSession) {
    Account account = accounts.findById(person.value()).orElseThrow(Problem::notFound);
    if (!encoder.matches(cut(old), account.getPasswordHash().orElse(nobodysHash))) {
      throw Problem.fault("/old", "is not your present password");
    }
    requireGood(password);
    account.setPasswordHash(encoder.encode(password));
    endSessions(person, Optional.of(keepSession));
  }

  private static void requireGood(String password) {
    int bytes = password.getBytes(java.nio.charset.StandardCharsets.UTF_8).length;
    if (password.length() < SHORTEST || bytes > LONGEST_BYTES) {
      throw Problem.fault(
          "/password", "wants at least " + SHORTEST + " characters and at most 72 bytes");
    }
  }

  void endSessions(PersonId person, Optional<String> keep) {
    for (String id : sessions.findByPrincipalName(Long.toString(person.value())).keySet()) {
      if (keep.isEmpty() || !keep.get().equals(id)) {
        sessions.deleteById(id);
      }
    }
  }

  List<AppPassword> appPasswords(PersonId person) {
    return appPasswords.findByPersonOrderById(person.value());
  }

  /** A new app password and its text, which is shown once. */
  record NewAppPassword(AppPassword kept, String text) {}

  @Transactional
  NewAppPassword makeAppPassword(PersonId person, String label) {
    if (appPasswords.findByPersonOrderById(person.value()).size() >= MOST_APP_PASSWORDS) {
      throw Problem.of(
          409, "too-many", "You have " + MOST_APP_PASSWORDS + " already; withdraw one first.");
    }
    String text = Secrets.appPassword();
    return new NewAppPassword(keepAppPassword(person, label, text), text);
  }

  /** Keeps a given app password; the demo's are known to everybody. */
  @Transactional
  public void addAppPassword(PersonId person, String label, String text) {
    keepAppPassword(person, label, text);
  }

  private AppPassword keepAppPassword(PersonId person, String label, String text) {
    return appPasswords.save(
        new AppPassword(person.value(), label, encoder.encode(text), clock.instant()));
  }

  @Transactional
  void withdrawAppPassword(PersonId person, long id) {
    AppPassword one =
        appPasswords
            .findById(id)
            .filter(p -> p.getPerson() == person.value())
            .orElseThrow(Problem::notFound);
    verified.remove(one.getHash());
    appPasswords.delete(one);
  }
}
