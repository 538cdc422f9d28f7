package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import java.util.regex.Pattern;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * The header {@code As-Seen-By}: a coordinator reads a page as another person gets it. What the
 * coordinator may not see stands there covered and answers no search, and nothing can be changed.
 */
@Configuration
@RequiredArgsConstructor
public class SeenBy implements WebMvcConfigurer, HandlerInterceptor {

  public static final String HEADER = "As-Seen-By";

  private static final String WATCHER = "mellow.watcher";

  /** What pages are made of; no file, no account, nothing that is served as a calendar. */
  private static final Pattern PAGES =
      Pattern.compile(
          "/api/v1/(today|my-day|board|records|records/\\d+|records/\\d+/(history|landings|sight|deadline-sets)"
              + "|people|people/\\d+/times|teams|places|calendars|roles|details|house|views"
              + "|releases|rules|audit)");

  private final Worlds worlds;

  @Override
  public void addInterceptors(InterceptorRegistry registry) {
    registry.addInterceptor(this);
  }

  @Override
  public boolean preHandle(
      HttpServletRequest request, HttpServletResponse response, Object handler) {
    String sent = request.getHeader(HEADER);
    if (sent == null || request.getDispatcherType() != DispatcherType.REQUEST) {
      return true;
    }
    World world = worlds.now();
    Person watcher = watcher(request, world);
    Person as =
        number(sent)
            .flatMap(id -> world.crew().person(PersonId.of(id)))
            .filter(person -> !person.hasLeft())
            .orElseThrow(Problem::notFound);
    if (!request.getMethod().equals("GET") || !PAGES.matcher(request.getRequestURI()).matches()) {
      throw Problem.forbidden(say("records.you-are-viewing-pages", as.name()));
    }
    request.setAttribute(Asker.AS, as.id());
    request.setAttribute(WATCHER, watcher.id());
    return true;
  }

  private static Optional<Long> number(String text) {
    return text.matches("[0-9]{1,18}") ? Optional.of(Long.valueOf(text)) : Optional.empty();
  }

  /** Who looks with another's eyes in the request that is being answered. */
  static Optional<Person> watcher(World world) {
    RequestAttributes request = RequestContextHolder.getRequestAttributes();
    return request == null
        ? Optional.empty()
        : Optional.ofNullable(request.getAttribute(WATCHER, RequestAttributes.SCOPE_REQUEST))
            .map(id -> world.person((PersonId) id));
  }

  private static Person watcher(HttpServletRequest request, World world) {
    if (request.getUserPrincipal() == null) {
      throw Problem.forbidden(say("common.sign-in-first"));
    }
    Person watcher =
        world.person(PersonId.of(Long.parseLong(request.getUserPrincipal().getName())));
    if (!watcher.isCoordinator()) {
      throw Problem.forbidden(say("records.only-coordinators-can-view"));
    }
    return watcher;
  }
}
