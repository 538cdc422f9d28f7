package mellowrota.server.accounts;

import static mellowrota.server.platform.Words.say;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.accounts.store.AccountStore;
import mellowrota.server.accounts.store.AccountStore.Account;
import mellowrota.server.accounts.store.AccountStore.AppPassword;
import mellowrota.server.accounts.store.Sessions;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Leaving;
import mellowrota.server.crew.AccountStates;
import mellowrota.server.crew.OpenSessions;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.platform.Problem;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Signs people in, invites them, and keeps their passwords. */
@Service
@RequiredArgsConstructor
public class Accounts implements Leaving, AccountStates, OpenSessions {

  private static final Duration INVITATION = Duration.ofDays(7);
  private static final int SHORTEST = 10;
  private static final int MOST_APP_PASSWORDS = 20;

  /** What a session remembers of the browser it was begun with. */
  static final String DEVICE = "device";

  private final Hashing hashing;
  private final AccountStore store;
  private final AttemptLimit limit;
  private final HouseStore house;
  private final FindByIndexNameSessionRepository<? extends Session> sessions;
  private final Sessions known;
  private final TransactionTemplate transaction;
  private final Clock clock;

  /** Who this is; a wrong password, a wrong address and a closed account are told alike. */
  PersonId signIn(String email, String password, Caller caller) {
    Optional<Account> account = find(email);
    AttemptLimit.Whose whose = whose(email, account);
    limit.count(whose, caller);
    Optional<String> hash = account.flatMap(Account::passwordHash);
    boolean right =
        hash.isPresent() ? hashing.matches(password, hash.get()) : hashing.matchesNobody(password);
    boolean enters = account.filter(one -> mayEnter(one.person().value())).isPresent();
    if (!right || !enters) {
      throw Problem.of(401, "wrong-password", say("accounts.this-email-address-and"));
    }
    limit.succeeded(whose, caller);
    return account.orElseThrow().person();
  }

  private Optional<Account> find(String email) {
    return store.find(email);
  }

  private static AttemptLimit.Whose whose(String email, Optional<Account> account) {
    return account
        .map(one -> AttemptLimit.Whose.account(one.person().value()))
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
        account.map(one -> store.appPasswords(one.person())).orElse(List.of());
    String hash = Secrets.sha256(password);
    Optional<AppPassword> found =
        theirs.stream().filter(one -> one.hash().equals(hash)).findFirst();
    if (found.isEmpty()) {
      limit.count(whose(email, account).appFrom(caller), caller);
      List<AppPassword> older = theirs.stream().filter(AppPassword::isOlder).toList();
      found = older.stream().filter(one -> hashing.matches(password, one.hash())).findFirst();
      if (older.isEmpty()) {
        hashing.matchesNobody(password);
      }
    }
    return found
        .filter(one -> mayEnter(one.person().value()))
        .map(
            one -> {
              Instant now = clock.instant();
              store.used(one.id(), hash, now, now.minusSeconds(60));
              return one.person();
            });
  }

  @Override
  public Map<PersonId, State> accounts() {
    return store.all().stream()
        .collect(
            Collectors.toMap(
                Account::person, one -> new State(one.email(), one.passwordHash().isPresent())));
  }

  @Override
  @Transactional(readOnly = true)
  public Set<String> open(Collection<String> some) {
    Set<PersonId> entering =
        house.people().stream()
            .filter(HouseStore::mayEnter)
            .map(Person::id)
            .collect(Collectors.toSet());
    return known.persons(some).entrySet().stream()
        .filter(one -> entering.contains(one.getValue()))
        .map(Map.Entry::getKey)
        .collect(Collectors.toSet());
  }

  Optional<String> emailOf(PersonId person) {
    return store.find(person).map(Account::email);
  }

  /** Gives a person an account by this address, or moves theirs to it. */
  @Transactional
  public void open(PersonId person, String email) {
    Optional<Account> other = store.find(email);
    if (other.isPresent() && !other.get().person().equals(person)) {
      throw Problem.fault("/email", say("accounts.belongs-to-another-account"));
    }
    store.open(person, email);
  }

  /** A one-time link's secret, for a week; earlier ones of this person end. */
  @Transactional
  public String invite(Optional<PersonId> person) {
    store.endInvitations(person);
    String token = Secrets.token();
    Instant now = clock.instant();
    store.invite(Secrets.sha256(token), person, now, now.plus(INVITATION));
    return token;
  }

  /** Whom an open invitation is for; empty person for the first coordinator. */
  @Transactional(readOnly = true)
  public Optional<Optional<PersonId>> invited(String token) {
    return store
        .invitation(Secrets.sha256(token))
        .filter(one -> clock.instant().isBefore(one.expiresAt()))
        .map(AccountStore.Invitation::person);
  }

  /** Ends the link of an invitation; of two who hold it, one is refused. */
  @Transactional
  public void useUp(String token) {
    if (!store.useUp(Secrets.sha256(token))) {
      throw ended();
    }
  }

  static Problem ended() {
    return Problem.of(404, "invitation-ended", say("accounts.this-invitation-has-been"));
  }

  /** Sets the password of somebody who was invited. */
  @Transactional
  public void accept(PersonId person, String password) {
    Account account = store.find(person).orElseThrow(Problem::notFound);
    requireGood(password, account.email());
    store.setPassword(person, hashing.encode(password));
    endSessions(person, Optional.empty());
  }

  /** For the demo's accounts, whose password everybody knows. */
  @Transactional
  public void setPassword(PersonId person, String password) {
    store.setPassword(person, hashing.encode(password));
  }

  /** Changes one's own password and ends one's other sessions. */
  void changePassword(
      PersonId person, String old, String password, String keepSession, Caller caller) {
    requireGood(password, requireOwn(person, "/old", old, caller).email());
    // Whoever waits for the pool of hashing holds no connection meanwhile.
    String hash = hashing.encode(password);
    transaction.executeWithoutResult(
        status -> {
          store.setPassword(person, hash);
          endSessions(person, Optional.of(keepSession));
        });
  }

  /** That whoever is signed in knows the password too; tries are counted as at sign-in. */
  private Account requireOwn(PersonId person, String field, String password, Caller caller) {
    AttemptLimit.Whose whose = AttemptLimit.Whose.account(person.value());
    limit.count(whose, caller);
    Account account = store.find(person).orElseThrow(Problem::notFound);
    String hash = account.passwordHash().orElseThrow(Problem::notFound);
    if (!hashing.matches(password, hash)) {
      throw Problem.fault(field, say("accounts.is-not-your-current"));
    }
    limit.succeeded(whose, caller);
    return account;
  }

  private static void requireGood(String password, String email) {
    if (password.length() < SHORTEST || Hashing.isTooLong(password)) {
      throw Problem.fault("/password", say("accounts.needs-at-least-characters", SHORTEST));
    }
    if (CommonPasswords.holds(password) || password.equalsIgnoreCase(email)) {
      throw Problem.fault("/password", say("accounts.is-too-easy-to"));
    }
  }

  /** App passwords, sessions and what would make a new password: none comes back with them. */
  @Override
  public void end(Act act) {
    for (Person one : house.people()) {
      if (one.hasLeft()) {
        for (int gone = store.removeAppPasswords(one.id()); gone > 0; gone--) {
          act.ends(Ended.of(Sort.APP_PASSWORD));
        }
        store.endInvitations(Optional.of(one.id()));
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
    return store.appPasswords(person);
  }

  /** A new app password and its text, which is shown once. */
  record NewAppPassword(AppPassword kept, String text) {}

  NewAppPassword makeAppPassword(PersonId person, String label, String password, Caller caller) {
    requireOwn(person, "/password", password, caller);
    return transaction.execute(status -> makeAppPassword(person, label));
  }

  private NewAppPassword makeAppPassword(PersonId person, String label) {
    if (store.appPasswords(person).size() >= MOST_APP_PASSWORDS) {
      throw Problem.of(409, "too-many", say("accounts.you-already-have-app", MOST_APP_PASSWORDS));
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
    return store.addAppPassword(person, label, Secrets.sha256(text), clock.instant());
  }

  @Transactional
  void withdrawAppPassword(PersonId person, long id) {
    if (!store.removeAppPassword(person, id)) {
      throw Problem.notFound();
    }
  }
}
