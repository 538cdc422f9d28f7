package mellowrota.server.accounts;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Leaving;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.platform.Problem;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Signs people in, invites them, and keeps their passwords. */
@Service
public class Accounts implements Leaving {

  private static final Duration INVITATION = Duration.ofDays(7);
  private static final int SHORTEST = 10;
  private static final int MOST_APP_PASSWORDS = 20;

  /** What a session remembers of the browser it was begun with. */
  static final String DEVICE = "device";

  private final Hashing hashing;
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
      Hashing hashing,
      Clock clock) {
    this.hashing = hashing;
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
  PersonId signIn(String email, String password, Caller caller) {
    Optional<Account> account = find(email);
    AttemptLimit.Whose whose = whose(email, account);
    limit.count(whose, caller);
    Optional<String> hash = account.flatMap(Account::getPasswordHash);
    boolean right =
        hash.isPresent() ? hashing.matches(password, hash.get()) : hashing.matchesNobody(password);
    boolean enters = mayEnter(account.map(Account::getPerson).orElse(0L));
    if (!right || !enters) {
      throw Problem.of(401, "wrong-password", "That address and password do not go together.");
    }
    limit.succeeded(whose, caller);
    return PersonId.of(account.get().getPerson());
  }

  private Optional<Account> find(String email) {
    return transaction.execute(status -> accounts.findByEmailIgnoreCase(email));
  }

  private static AttemptLimit.Whose whose(String email, Optional<Account> account) {
    return account
        .map(one -> AttemptLimit.Whose.account(one.getPerson()))
        .orElseGet(() -> AttemptLimit.Whose.nobody(email));
  }

  /** Whether an account is open now: its person is there, has not left, and may sign in. */
  boolean mayEnter(long person) {
    return Boolean.TRUE.equals(transaction.execute(status -> house.mayEnter(PersonId.of(person))));
  }

  /**
   * The person an app password opens calendars for. It is long and nobody's choice, so its plain
   * hash is kept and looked up; those made before that are found by bcrypt once more.
   */
  Optional<PersonId> byAppPassword(String email, String password, Caller caller) {
    Optional<Account> account = find(email);
    List<AppPassword> theirs =
        transaction.execute(
            status ->
                account
                    .map(one -> appPasswords.findByPersonOrderById(one.getPerson()))
                    .orElse(List.of()));
    String hash = Secrets.sha256(password);
    Optional<AppPassword> found =
        theirs.stream().filter(one -> one.getHash().equals(hash)).findFirst();
    if (found.isEmpty()) {
      limit.count(whose(email, account).appFrom(caller), caller);
      List<AppPassword> older = theirs.stream().filter(AppPassword::isOlder).toList();
      found = older.stream().filter(one -> hashing.matches(password, one.getHash())).findFirst();
      if (older.isEmpty()) {
        hashing.matchesNobody(password);
      }
    }
    return found
        .filter(one -> mayEnter(one.getPerson()))
        .map(
            one -> {
              appPasswords.used(
                  one.getId(), hash, clock.instant(), clock.instant().minusSeconds(60));
              return PersonId.of(one.getPerson());
            });
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
    Account account = accounts.findById(person.value()).orElseThrow(Problem::notFound);
    requireGood(password, account.getEmail());
    account.setPasswordHash(hashing.encode(password));
    endSessions(person, Optional.empty());
  }

  /** For the demo's accounts, whose password everybody knows. */
  @Transactional
  public void setPassword(PersonId person, String password) {
    Account account = accounts.findById(person.value()).orElseThrow(Problem::notFound);
    account.setPasswordHash(hashing.encode(password));
  }

  /** Changes one's own password and ends one's other sessions. */
  void changePassword(
      PersonId person, String old, String password, String keepSession, Caller caller) {
    requireGood(password, requireOwn(person, "/old", old, caller).getEmail());
    // Whoever waits for the pool of hashing holds no connection meanwhile.
    String hash = hashing.encode(password);
    transaction.executeWithoutResult(
        status -> {
          accounts.findById(person.value()).orElseThrow(Problem::notFound).setPasswordHash(hash);
          endSessions(person, Optional.of(keepSession));
        });
  }

  /** That whoever is signed in knows the password too; tries are counted as at sign-in. */
  private Account requireOwn(PersonId person, String field, String password, Caller caller) {
    AttemptLimit.Whose whose = AttemptLimit.Whose.account(person.value());
    limit.count(whose, caller);
    Account account =
        transaction
            .execute(status -> accounts.findById(person.value()))
            .orElseThrow(Problem::notFound);
    String hash = account.getPasswordHash().orElseThrow(Problem::notFound);
    if (!hashing.matches(password, hash)) {
      throw Problem.fault(field, "is not your present password");
    }
    limit.succeeded(whose, caller);
    return account;
  }

  private static void requireGood(String password, String email) {
    if (password.length() < SHORTEST || Hashing.isTooLong(password)) {
      throw Problem.fault(
          "/password", "wants at least " + SHORTEST + " characters and at most 72 bytes");
    }
    if (CommonPasswords.holds(password) || password.equalsIgnoreCase(email)) {
      throw Problem.fault(
          "/password",
          "is one of those that are guessed first; take some words that do not belong together");
    }
  }

  /** App passwords, sessions and what would make a new password: none comes back with them. */
  @Override
  public void end(Act act) {
    for (Person one : house.people()) {
      if (one.hasLeft()) {
        long person = one.id().value();
        appPasswords.deleteByPerson(person).forEach(gone -> act.ends(Ended.of(Sort.APP_PASSWORD)));
        invitations.deleteByPerson(person);
        endSessions(one.id(), Optional.empty());
      }
    }
  }

  void endSessions(PersonId person, Optional<String> keep) {
    for (String id : sessions.findByPrincipalName(Long.toString(person.value())).keySet()) {
      if (keep.isEmpty() || !keep.get().equals(id)) {
        sessions.deleteById(id);
      }
    }
  }

  /**
   * One of somebody's sessions.
   *
   * @param id tells it from their others, and signs nobody in
   * @param device what the browser called itself
   */
  record SignedIn(String id, String device, Instant since, Instant lastUsedAt, boolean here) {}

  /** Where somebody is signed in: here first, then as last used. */
  List<SignedIn> signedIn(PersonId person, String here) {
    return sessions.findByPrincipalName(Long.toString(person.value())).values().stream()
        .filter(session -> !session.isExpired())
        .map(
            session ->
                new SignedIn(
                    publicId(session.getId()),
                    session.getAttributeOrDefault(DEVICE, ""),
                    session.getCreationTime(),
                    session.getLastAccessedTime(),
                    session.getId().equals(here)))
        .sorted(Comparator.comparing(SignedIn::here).thenComparing(SignedIn::lastUsedAt).reversed())
        .toList();
  }

  private static String publicId(String session) {
    return Secrets.sha256("session\n" + session).substring(0, 16);
  }

  /** Ends one of somebody's sessions. */
  void endSession(PersonId person, String id) {
    String session =
        sessions.findByPrincipalName(Long.toString(person.value())).keySet().stream()
            .filter(one -> publicId(one).equals(id))
            .findFirst()
            .orElseThrow(Problem::notFound);
    sessions.deleteById(session);
  }

  List<AppPassword> appPasswords(PersonId person) {
    return appPasswords.findByPersonOrderById(person.value());
  }

  /** A new app password and its text, which is shown once. */
  record NewAppPassword(AppPassword kept, String text) {}

  NewAppPassword makeAppPassword(PersonId person, String label, String password, Caller caller) {
    requireOwn(person, "/password", password, caller);
    return transaction.execute(status -> makeAppPassword(person, label));
  }

  private NewAppPassword makeAppPassword(PersonId person, String label) {
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
        new AppPassword(person.value(), label, Secrets.sha256(text), clock.instant()));
  }

  @Transactional
  void withdrawAppPassword(PersonId person, long id) {
    AppPassword one =
        appPasswords
            .findById(id)
            .filter(p -> p.getPerson() == person.value())
            .orElseThrow(Problem::notFound);
    appPasswords.delete(one);
  }
}
