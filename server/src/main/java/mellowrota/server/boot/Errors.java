package mellowrota.server.boot;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.FilterChain;
import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.platform.Problem;
import mellowrota.server.platform.ProblemAdvice;
import mellowrota.server.platform.ProblemWriter;
import org.apache.catalina.core.StandardHost;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.filter.OncePerRequestFilter;

/** Sees to it that whatever is refused, by whom ever, is told as a problem document. */
@Configuration
class Errors {

  @Bean
  WebServerFactoryCustomizer<TomcatServletWebServerFactory> refusals() {
    return factory ->
        factory.addContextCustomizers(
            context -> {
              if (context.getParent() instanceof StandardHost host) {
                host.setErrorReportValveClass(ProblemValve.class.getName());
              }
            });
  }

  /** What the web server sends here has a status and nothing else that may be told. */
  @RestController
  @Hidden
  static class Told implements ErrorController {
    private final ProblemWriter problems;

    Told(ProblemWriter problems) {
      this.problems = problems;
    }

    @RequestMapping("/error")
    void error(HttpServletRequest request, HttpServletResponse response) throws IOException {
      Object status = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
      problems.write(
          response, ProblemAdvice.ofStatus(status instanceof Integer known ? known : 404));
    }
  }

  /**
   * Until there is a house, as while the demo is laid, nobody is answered but who asks for that.
   */
  @Component
  @Order(Ordered.HIGHEST_PRECEDENCE + 1)
  static class Laying extends OncePerRequestFilter {
    private final HouseStore house;
    private final ProblemWriter problems;
    private volatile boolean laid;

    Laying(HouseStore house, ProblemWriter problems) {
      this.house = house;
      this.problems = problems;
    }

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
      String path = request.getRequestURI();
      return laid
          || path.startsWith("/actuator/")
          || path.startsWith("/assets/")
          || path.startsWith("/test/");
    }

    @Override
    protected void doFilterInternal(
        HttpServletRequest request, HttpServletResponse response, FilterChain chain)
        throws ServletException, IOException {
      laid = house.exists();
      if (laid) {
        chain.doFilter(request, response);
      } else {
        problems.write(
            response,
            Problem.of(503, "being-laid", say("boot.the-organisation-is-being"))
                .with("retryAfter", 3));
      }
    }
  }
}
