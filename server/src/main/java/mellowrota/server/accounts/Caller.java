package mellowrota.server.accounts;

import jakarta.servlet.http.HttpServletRequest;
import java.util.concurrent.atomic.AtomicBoolean;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Where a request comes from. What a named proxy says of it has taken the place of the proxy's
 * address by now; what still says something was passed on by one that is not named.
 */
record Caller(String address, boolean throughUnnamedProxy) {

  private static final Logger LOG = LoggerFactory.getLogger(Caller.class);
  private static final AtomicBoolean TOLD = new AtomicBoolean();

  static Caller of(HttpServletRequest request) {
    boolean passedOn =
        request.getHeader("X-Forwarded-For") != null || request.getHeader("Forwarded") != null;
    if (passedOn && TOLD.compareAndSet(false, true)) {
      LOG.warn(
          "requests come through a proxy that is not named; set MELLOW_TRUSTED_PROXIES to a pattern"
              + " of its address, so that people are told apart address={}",
          request.getRemoteAddr());
    }
    return new Caller(request.getRemoteAddr(), passedOn);
  }
}
