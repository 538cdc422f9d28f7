package mellowrota.server.accounts;

import java.text.Normalizer;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Locale;
import mellowrota.server.platform.Problem;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Limits tries of passwords per account and per address, in all server processes together. A try is
 * counted before the password is looked at, and taken off again where it was right.
 */
@Component
class AttemptLimit {

  private static final Duration WINDOW = Duration.ofMinutes(15);
  private static final int PER_ACCOUNT = 10;

  /** Of app passwords, which nobody guesses; programs try a withdrawn one again and again. */
  private static final int PER_APP = 30;

  /** Behind a proxy that is not named a whole house comes from one address. */
  private static final int UNNAMED_PROXY = 20;

  private final JdbcClient jdbc;
  private final Clock clock;
  private final TransactionTemplate transaction;
  private final int perAddress;

  AttemptLimit(
      JdbcClient jdbc,
      Clock clock,
      PlatformTransactionManager transactions,
      @Value("${mellow.attempts-per-address:100}") int perAddress) {
    this.jdbc = jdbc;
    this.clock = clock;
    this.transaction = new TransactionTemplate(transactions);
    this.perAddress = perAddress;
  }

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
    int most = caller.throughUnnamedProxy() ? perAddress * UNNAMED_PROXY : perAddress;
    boolean over =
        Boolean.TRUE.equals(
            transaction.execute(
                status ->
                    jdbc.sql(
                            """
                            with counted as (
                              insert into sign_in_try as t (subject, since, tries)
                              select subject, :now, 1 from unnest(array[:whose, :address]) as s(subject)
                              order by subject
                              on conflict (subject) do update set
                                tries = case when t.since < :from then 1 else t.tries + 1 end,
                                since = case when t.since < :from then excluded.since else t.since end
                              returning subject, tries)
                            select bool_or(tries > case when subject = :whose then :most
                              else :mostOfAddress end) from counted
                            """)
                        .param("now", now.atOffset(ZoneOffset.UTC))
                        .param("from", now.minus(WINDOW).atOffset(ZoneOffset.UTC))
                        .param("whose", whose.subject())
                        .param("address", "address:" + caller.address())
                        .param("most", whose.most())
                        .param("mostOfAddress", most)
                        .query(Boolean.class)
                        .single()));
    if (over) {
      throw Problem.of(
              429,
              "too-many-attempts",
              "Too many wrong passwords; wait a quarter of an hour and try again.")
          .with("retryAfter", WINDOW.toSeconds());
    }
  }

  /** It was the right one. */
  void succeeded(Whose whose, Caller caller) {
    transaction.executeWithoutResult(
        status ->
            jdbc.sql(
                    """
                    update sign_in_try t set
                      tries = case when t.subject = :whose then 0 else greatest(t.tries - 1, 0) end
                    from (select subject from sign_in_try where subject in (:whose, :address)
                      order by subject for update) s
                    where t.subject = s.subject
                    """)
                .param("whose", whose.subject())
                .param("address", "address:" + caller.address())
                .update());
  }

  /** What is over is forgotten; what somebody counts on just now stays. */
  @Scheduled(fixedDelayString = "PT15M")
  void forget() {
    transaction.executeWithoutResult(
        status ->
            jdbc.sql(
                    """
                    delete from sign_in_try where subject in (select subject from sign_in_try
                      where since < ? for update skip locked)
                    """)
                .param(clock.instant().minus(WINDOW).atOffset(ZoneOffset.UTC))
                .update());
  }
}
