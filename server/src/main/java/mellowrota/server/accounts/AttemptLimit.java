package mellowrota.server.accounts;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Locale;
import mellowrota.server.platform.Problem;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

/** Limits wrong passwords per account and per address, in all server processes together. */
@Component
class AttemptLimit {

  private static final Duration WINDOW = Duration.ofMinutes(15);
  private static final int PER_ACCOUNT = 10;

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

  void require(String email, String address) {
    Instant since = clock.instant().minus(WINDOW);
    boolean over =
        Boolean.TRUE.equals(
            transaction.execute(
                status ->
                    count(account(email), since) >= PER_ACCOUNT
                        || count(address(address), since) >= perAddress));
    if (over) {
      throw Problem.of(
              429,
              "too-many-attempts",
              "Too many wrong passwords; wait a quarter of an hour and try again.")
          .with("retryAfter", WINDOW.toSeconds());
    }
  }

  private long count(String subject, Instant since) {
    return jdbc.sql("select count(*) from sign_in_attempt where subject = ? and at > ?")
        .param(subject)
        .param(since.atOffset(ZoneOffset.UTC))
        .query(Long.class)
        .single();
  }

  void failed(String email, String address) {
    transaction.executeWithoutResult(
        status -> {
          Instant now = clock.instant();
          jdbc.sql("delete from sign_in_attempt where at < ?")
              .param(now.minus(WINDOW).atOffset(ZoneOffset.UTC))
              .update();
          for (String subject : new String[] {account(email), address(address)}) {
            jdbc.sql("insert into sign_in_attempt (subject, at) values (?, ?)")
                .param(subject)
                .param(now.atOffset(ZoneOffset.UTC))
                .update();
          }
        });
  }

  void succeeded(String email) {
    transaction.executeWithoutResult(
        status ->
            jdbc.sql("delete from sign_in_attempt where subject = ?")
                .param(account(email))
                .update());
  }

  private static String account(String email) {
    return "account:" + Secrets.sha256(email.toLowerCase(Locale.ROOT));
  }

  private static String address(String address) {
    return "address:" + address;
  }
}
