package mellowrota.server.platform;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.security.SecureRandom;
import java.util.HexFormat;
import org.slf4j.MDC;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Gives every request a number that stands in its answer, in the log and on the error page. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class RequestId extends OncePerRequestFilter {

  private final SecureRandom random = new SecureRandom();

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    byte[] bytes = new byte[6];
    random.nextBytes(bytes);
    String id = HexFormat.of().formatHex(bytes);
    MDC.put("request", id);
    response.setHeader("X-Request-Id", id);
    try {
      chain.doFilter(request, response);
    } finally {
      MDC.remove("request");
    }
  }
}
