package mellowrota.server.accounts;

import static mellowrota.server.platform.Words.say;

import java.text.Normalizer;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import lombok.RequiredArgsConstructor;
import mellowrota.server.accounts.store.PasswordTries;
import mellowrota.server.platform.Problem;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Limits tries of passwords per account and per address, in all server processes together. A try is
 * counted before the password is looked at, and taken off again where it was right.
 */
@Component
@RequiredArgsConstructor
class AttemptLimit {

  private static final Duration WINDOW = Duration.ofMinutes(15);
  private static final int PER_ACCOUNT = 10;

  /** Of app passwords, which nobody guesses; programs try a withdrawn one again and again. */
  private static final int PER_APP = 30;

  /** Behind a proxy that is not named a whole house comes from one address. */
  private static final int UNNAMED_PROXY = 20;

  private final PasswordTries tries;
  private final Clock clock;
  private final TransactionTemplate transaction;

  @Value("${mellow.attempts-per-address:100}")
  private final int perAddress;

  /** Whose password is tried: an account by its person, or a name that nobody has. */
  record Whose(String subject) {

    static Whose account(long person) {
      return new Whose("account:" + person);
    }

    /** Names that fold alike are one (Unicode compatibility forms, letters without case). */
    static Whose nobody(String name) {
      String folded =
          Normalizer.normalize(name, Normalizer.Form.NFKC)
              .toUpperCase(Locale.ROOT)
              .toLowerCase(Locale.ROOT);
      return new Whose("nobody:" + Secrets.sha256(folded));
    }

    /** App passwords, of each address apart: a stranger's tries end nobody's calendar. */
    Whose appFrom(Caller caller) {
      return new Whose("app " + subject + "@" + caller.address());
    }

    private int most() {
      return subject.startsWith("app ") ? PER_APP : PER_ACCOUNT;
    }
  }

  /** Counts a try, which was one too many where this refuses. */
  void count(Whose whose, Caller caller) {
    Instant now = clock.instant();
    String address = address(caller);
    int mostOfAddress = caller.throughUnnamedProxy() ? perAddress * UNNAMED_PROXY : perAddress;
    Map<String, Integer> counted =
        transaction.execute(
            status -> tries.count(List.of(whose.subject(), address), now, now.minus(WINDOW)));
    boolean over =
        counted.get(whose.subject()) > whose.most() || counted.get(address) > mostOfAddress;
    if (over) {
      throw Problem.of(429, "too-many-attempts", say("accounts.too-many-wrong-passwords"))
          .with("retryAfter", WINDOW.toSeconds());
    }
  }

  private static String address(Caller caller) {
    return "address:" + caller.address();
  }

  /** It was the right one. */
  void succeeded(Whose whose, Caller caller) {
    transaction.executeWithoutResult(status -> tries.right(whose.subject(), address(caller)));
  }

  /** What is over is forgotten. */
  @Scheduled(fixedDelayString = "PT15M")
  void forget() {
    transaction.executeWithoutResult(status -> tries.forget(clock.instant().minus(WINDOW)));
  }
}
