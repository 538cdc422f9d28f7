package mellowrota.server.acts;

import jakarta.servlet.http.HttpServletResponse;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/**
 * The header {@code Act} of an answer: an act that was done and can be taken back, with its kind,
 * as an item with a parameter (RFC 9651): {@code 375;kind=crew.hours}. Answers about records tell
 * theirs in the body.
 */
final class ActHeader {

  static final String NAME = "Act";

  private ActHeader() {}

  /** Tells it with the answer that is being made, if there is one and the act is committed. */
  static void tellAfterCommit(long act, String kind) {
    if (RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request
        && request.getResponse() != null) {
      HttpServletResponse response = request.getResponse();
      TransactionSynchronizationManager.registerSynchronization(
          new TransactionSynchronization() {
            @Override
            public void afterCommit() {
              response.addHeader(NAME, act + ";kind=" + kind);
            }
          });
    }
  }
}
