package mellowrota.server.acts;

import static mellowrota.server.platform.Words.say;

import jakarta.servlet.http.HttpServletResponse;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import mellowrota.server.platform.Problem;
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

  /** Of a request: why it is done, in UTF-8 with percent signs (RFC 3986 §2.1). */
  static final String REASON = "Act-Reason";

  private static final int MOST = 300;

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

  /** Why the request that is answered now is made; empty: it does not say. */
  static String reason() {
    if (!(RequestContextHolder.getRequestAttributes()
        instanceof ServletRequestAttributes request)) {
      return "";
    }
    String sent = request.getRequest().getHeader(REASON);
    if (sent == null) {
      return "";
    }
    try {
      String said =
          URLDecoder.decode(sent.replace("+", "%2B"), StandardCharsets.UTF_8)
              .replaceAll("\\p{Cntrl}+", " ")
              .strip();
      return said.length() > MOST ? said.substring(0, MOST) : said;
    } catch (IllegalArgumentException notEncoded) {
      throw Problem.badRequest(say("acts.reason-is-not-encoded"));
    }
  }
}
