package mellowrota.server.accounts;

import static mellowrota.server.platform.Words.say;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import mellowrota.core.people.PersonId;
import mellowrota.server.platform.Problem;
import mellowrota.server.platform.ProblemWriter;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Calendar programs sign in with each request (RFC 7617). Without it every method is answered 401
 * with a challenge (RFC 9110 §11.6.1), and the refused body is read so that the connection lives.
 */
class DavSignIn extends OncePerRequestFilter {

  private final Accounts accounts;
  private final ProblemWriter problems;

  DavSignIn(Accounts accounts, ProblemWriter problems) {
    this.accounts = accounts;
    this.problems = problems;
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    try {
      Optional<PersonId> person = person(request);
      if (person.isEmpty()) {
        drain(request);
        response.setHeader("WWW-Authenticate", "Basic realm=\"Mellow Rota\", charset=\"UTF-8\"");
        problems.write(response, Problem.of(401, "sign-in", say("accounts.sign-in-with-your")));
        return;
      }
      SecurityContext context = SecurityContextHolder.createEmptyContext();
      context.setAuthentication(
          UsernamePasswordAuthenticationToken.authenticated(
              Long.toString(person.get().value()), null, List.of()));
      SecurityContextHolder.setContext(context);
      chain.doFilter(request, response);
    } catch (Problem problem) {
      drain(request);
      problems.write(response, problem);
    }
  }

  private Optional<PersonId> person(HttpServletRequest request) {
    String header = request.getHeader("Authorization");
    if (header == null || !header.regionMatches(true, 0, "Basic ", 0, 6)) {
      return Optional.empty();
    }
    try {
      String pair =
          new String(
              Base64.getDecoder().decode(header.substring(6).strip()), StandardCharsets.UTF_8);
      int colon = pair.indexOf(':');
      if (colon < 1 || pair.length() > 400 || pair.indexOf('\0') >= 0) {
        return Optional.empty();
      }
      return accounts.byAppPassword(
          pair.substring(0, colon), pair.substring(colon + 1), Caller.of(request));
    } catch (IllegalArgumentException notBase64) {
      return Optional.empty();
    }
  }

  private static void drain(HttpServletRequest request) throws IOException {
    byte[] into = new byte[8192];
    while (request.getInputStream().read(into) >= 0) {
      // Read to the end and thrown away.
    }
  }
}
