package mellowrota.server.acts;

import static mellowrota.server.platform.Words.say;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.regex.Pattern;
import mellowrota.server.platform.Problem;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * The header {@code Look-First: true}: the change is done whole, told what it would do to all
 * entries, and taken back before anybody sees it. Nothing is kept.
 */
@Configuration
public class LookFirst implements WebMvcConfigurer, HandlerInterceptor {

  public static final String HEADER = "Look-First";

  /** What is an act from beginning to end, so that it can be taken back whole. */
  private static final Pattern ACTS =
      Pattern.compile(
          "POST /api/v1/(people|teams|places|shares|feeds|records|records/several|releases)"
              + "|PATCH /api/v1/(house|(people|teams|places|records)/\\d+)"
              + "|POST /api/v1/(teams/\\d+/members|shares/\\d+/accept)"
              + "|POST /api/v1/deadline-sets(/move|/off)?"
              + "|DELETE /api/v1/(teams/\\d+/members/\\d+|shares/\\d+|feeds/\\d+)"
              + "|PUT /api/v1/(account/title|margins|shares/\\d+|house/days|places/\\d+/days|regions/\\d+)");

  @Override
  public void addInterceptors(InterceptorRegistry registry) {
    registry.addInterceptor(this);
  }

  @Override
  public boolean preHandle(
      HttpServletRequest request, HttpServletResponse response, Object handler) {
    if (request.getDispatcherType() == DispatcherType.REQUEST
        && isAsked(request)
        && !ACTS.matcher(request.getMethod() + ' ' + request.getRequestURI()).matches()) {
      throw Problem.badRequest(say("acts.there-is-no-preview", HEADER));
    }
    return true;
  }

  private static boolean isAsked(HttpServletRequest request) {
    String sent = request.getHeader(HEADER);
    if ("true".equals(sent)) {
      return true;
    }
    if (sent != null && !"false".equals(sent)) {
      throw Problem.badRequest(say("acts.must-be-true-or", HEADER));
    }
    return false;
  }

  /** Whether the request that is being answered only wants to look. */
  static boolean now() {
    return RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request
        && isAsked(request.getRequest());
  }
}
