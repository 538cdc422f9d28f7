package mellowrota.server.platform;

import static mellowrota.server.platform.Words.say;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.regex.Pattern;
import lombok.RequiredArgsConstructor;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Letters and digits stand for themselves in a path (RFC 3986 §6.2.2.2): who escapes them means
 * that one of us reads the address otherwise than another.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
@RequiredArgsConstructor
class PlainPaths extends OncePerRequestFilter {

  private static final Pattern NEEDLESS = Pattern.compile("%(3[0-9]|[46][1-9A-Fa-f]|[57][0-9Aa])");

  private final ProblemWriter problems;

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    if (NEEDLESS.matcher(request.getRequestURI()).find()) {
      problems.write(response, Problem.badRequest(say("platform.the-address-is-malformed")));
    } else {
      chain.doFilter(request, response);
    }
  }
}
