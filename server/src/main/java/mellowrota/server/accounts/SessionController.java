package mellowrota.server.accounts;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.crew.People;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.platform.Input;
import mellowrota.server.platform.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** Signing in and out. */
@RestController
@RequestMapping("/api/v1/session")
@RequiredArgsConstructor
class SessionController {

  private static final int LONGEST_DEVICE = 200;

  private final Accounts accounts;
  private final People people;
  private final HouseStore house;
  private final SessionTokens tokens;
  private final Clock clock;
  private final HttpSessionSecurityContextRepository contexts =
      new HttpSessionSecurityContextRepository();

  @Schema(name = "SignIn")
  record SignInSchema(String email, String password) {}

  /**
   * Who is signed in.
   *
   * @param demo accounts anybody may try, only with the demo and only when nobody is signed in
   */
  @Schema(name = "Session")
  record SessionView(
      boolean signedIn,
      @Nullable Long person,
      @Nullable String name,
      Person.@Nullable AccountRight right,
      @Nullable String email,
      String house,
      String zone,
      Instant now,
      @Nullable DemoView demo) {}

  @Schema(name = "DemoAccounts")
  record DemoView(List<String> emails, String password) {}

  @GetMapping
  @Operation(summary = "Who is signed in")
  @Transactional(readOnly = true)
  SessionView session() {
    Authentication signedIn = SecurityContextHolder.getContext().getAuthentication();
    boolean named =
        signedIn instanceof UsernamePasswordAuthenticationToken && signedIn.isAuthenticated();
    return named ? view(PersonId.of(Long.parseLong(signedIn.getName()))) : nobody();
  }

  private SessionView nobody() {
    DemoView demo =
        house.isDemo() ? new DemoView(DemoAccounts.OFFERED, DemoAccounts.PASSWORD) : null;
    return new SessionView(
        false,
        null,
        null,
        null,
        null,
        house.house().name(),
        house.house().zone().getId(),
        clock.instant(),
        demo);
  }

  private SessionView view(PersonId id) {
    Person person = people.find(id).orElseThrow(Problem::notFound);
    return new SessionView(
        true,
        id.value(),
        person.name(),
        person.right(),
        accounts.emailOf(id).orElse(null),
        house.house().name(),
        house.house().zone().getId(),
        clock.instant(),
        null);
  }

  @PostMapping
  @Operation(summary = "Sign in")
  SessionView signIn(
      @RequestBody @Schema(implementation = SignInSchema.class) JsonNode body,
      HttpServletRequest request,
      HttpServletResponse response) {
    Input input = Input.of(body, SignInSchema.class);
    String email = input.required("email", 254);
    String password = input.asTyped("password", 200);
    input.check();
    PersonId person = accounts.signIn(email, password, Caller.of(request));
    if (request.getSession(false) != null) {
      request.changeSessionId();
    }
    SecurityContext context = SecurityContextHolder.createEmptyContext();
    context.setAuthentication(
        UsernamePasswordAuthenticationToken.authenticated(
            Long.toString(person.value()), null, List.of()));
    SecurityContextHolder.setContext(context);
    contexts.saveContext(context, request, response);
    request.getSession().setAttribute(Accounts.DEVICE, device(request));
    tokens.saveToken(tokens.generateToken(request), request, response);
    return view(person);
  }

  private static String device(HttpServletRequest request) {
    String agent = Optional.ofNullable(request.getHeader("User-Agent")).orElse("");
    return agent.substring(0, Math.min(agent.length(), LONGEST_DEVICE));
  }

  @DeleteMapping
  @Operation(summary = "Sign out")
  ResponseEntity<Void> signOut(HttpServletRequest request) {
    if (request.getSession(false) != null) {
      request.getSession(false).invalidate();
    }
    SecurityContextHolder.clearContext();
    return ResponseEntity.noContent().build();
  }
}
