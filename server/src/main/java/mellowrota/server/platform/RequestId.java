package mellowrota.server.platform;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.security.SecureRandom;
import java.util.HexFormat;
import lombok.RequiredArgsConstructor;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Gives every request a number that stands in its answer, in the log and on the error page, and
 * turns what fails in no controller into a problem document.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
@RequiredArgsConstructor
public class RequestId extends OncePerRequestFilter {

  private static final Logger LOG = LoggerFactory.getLogger(RequestId.class);
  private static final SecureRandom RANDOM = new SecureRandom();

  private final ProblemWriter problems;

  /** A number for one more request. */
  public static String next() {
    byte[] bytes = new byte[6];
    RANDOM.nextBytes(bytes);
    return HexFormat.of().formatHex(bytes);
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    String id = next();
    MDC.put("request", id);
    response.setHeader("X-Request-Id", id);
    try {
      chain.doFilter(request, response);
    } catch (ServletException | RuntimeException failure) {
      Problem problem = Failures.problem(Failures.inside(failure));
      if (Failures.isOurs(problem)) {
        LOG.error(
            "request failed method={} error={}",
            request.getMethod(),
            ProblemAdvice.where(Failures.inside(failure)));
      }
      problems.write(response, problem);
    } finally {
      MDC.remove("request");
    }
  }
}
