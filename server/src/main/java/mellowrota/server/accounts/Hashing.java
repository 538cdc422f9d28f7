package mellowrota.server.accounts;

import static mellowrota.server.platform.Words.say;

import jakarta.annotation.PreDestroy;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import mellowrota.server.platform.Problem;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;

/**
 * Hashes passwords in a small pool of its own, so that however many sign in at once, the rest of
 * the house keeps a processor. Where too many wait the next are refused at once.
 */
@Component
class Hashing {

  /** What bcrypt looks at; a longer password is none. */
  static final int LONGEST_BYTES = 72;

  private static final int WAITING = 24;

  private final PasswordEncoder encoder;
  private final ThreadPoolExecutor pool;

  /** The hash that stands in for the account that is not there, so that it takes as long. */
  private final String nobodys;

  Hashing(@Value("${mellow.password-strength}") int strength) {
    encoder = new BCryptPasswordEncoder(strength);
    nobodys = encoder.encode("nobody");
    int threads = Math.max(1, Runtime.getRuntime().availableProcessors() / 2);
    pool =
        new ThreadPoolExecutor(
            threads, threads, 0, TimeUnit.SECONDS, new ArrayBlockingQueue<>(WAITING));
  }

  @PreDestroy
  void stop() {
    pool.shutdownNow();
  }

  String encode(String password) {
    return inPool(() -> encoder.encode(password));
  }

  boolean matches(String password, String hash) {
    return inPool(() -> encoder.matches(isTooLong(password) ? "" : password, hash));
  }

  /** Takes as long as a real comparison and is always false. */
  boolean matchesNobody(String password) {
    matches(password, nobodys);
    return false;
  }

  static boolean isTooLong(String password) {
    return password.getBytes(StandardCharsets.UTF_8).length > LONGEST_BYTES;
  }

  private <T> T inPool(Callable<T> work) {
    try {
      return pool.submit(work).get();
    } catch (RejectedExecutionException full) {
      throw Problem.of(503, "busy", say("accounts.too-many-people-are")).with("retryAfter", 5);
    } catch (InterruptedException stopping) {
      Thread.currentThread().interrupt();
      throw Problem.of(503, "stopping", say("accounts.the-server-is-stopping"));
    } catch (ExecutionException failed) {
      throw new IllegalStateException(failed.getCause());
    }
  }
}
