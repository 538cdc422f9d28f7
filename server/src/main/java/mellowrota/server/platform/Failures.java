package mellowrota.server.platform;

import static mellowrota.server.platform.Words.say;

import jakarta.servlet.ServletException;
import java.io.IOException;
import java.sql.SQLException;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.transaction.CannotCreateTransactionException;

/**
 * What of a failure can be told: what to do about it. Nothing of the inside is, and what nobody
 * foresaw is told as that.
 */
public final class Failures {

  /** Classes of states of the database (PostgreSQL, appendix A). */
  private static final String DISK_FULL = "53100";

  private static final String CONNECTION = "08";
  private static final String RESOURCES = "53";
  private static final String OPERATOR = "57P";

  private static final int SOON = 5;

  private Failures() {}

  /** Whether somebody has to look into it, and so it belongs in the log. */
  public static boolean isOurs(Problem problem) {
    return problem.status() == 500;
  }

  /** In words for whoever asked. */
  public static Problem problem(Throwable failure) {
    for (Throwable one = failure; one != null; one = one.getCause()) {
      if (one instanceof Problem problem) {
        return problem;
      }
      if (one instanceof BodyLimit.TooLarge tooLarge) {
        return tooLarge.problem();
      }
      if (one instanceof SQLException database) {
        String state = String.valueOf(database.getSQLState());
        if (state.equals(DISK_FULL)) {
          return full();
        }
        if (state.startsWith(CONNECTION)
            || state.startsWith(RESOURCES)
            || state.startsWith(OPERATOR)) {
          return away();
        }
      }
      if (one instanceof ConcurrencyFailureException) {
        return busy();
      }
      if (one instanceof IOException
          && String.valueOf(one.getMessage()).contains("No space left")) {
        return full();
      }
    }
    for (Throwable one = failure; one != null; one = one.getCause()) {
      if (one instanceof CannotCreateTransactionException
          || one instanceof DataAccessResourceFailureException) {
        return away();
      }
    }
    return ProblemAdvice.failure();
  }

  /** The failure itself, of what a servlet wrapped. */
  static Throwable inside(Throwable failure) {
    return failure instanceof ServletException wrapped && wrapped.getCause() != null
        ? wrapped.getCause()
        : failure;
  }

  private static Problem busy() {
    return Problem.of(503, "busy", say("platform.too-many-changes-are")).with("retryAfter", 1);
  }

  private static Problem away() {
    return Problem.of(503, "database-away", say("platform.the-database-is-not"))
        .with("retryAfter", SOON);
  }

  private static Problem full() {
    return Problem.of(507, "disk-full", say("platform.the-disk-is-full"));
  }
}
