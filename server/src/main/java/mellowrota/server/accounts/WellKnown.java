package mellowrota.server.accounts;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.boot.web.servlet.ServletRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Leads calendar programs from the well-known address to the calendars (RFC 6764 §5). */
@Configuration
@Hidden
class WellKnown {

  @Bean
  ServletRegistrationBean<jakarta.servlet.http.HttpServlet> wellKnownServlet() {
    ServletRegistrationBean<jakarta.servlet.http.HttpServlet> bean =
        new ServletRegistrationBean<>(new Redirect(), "/.well-known/caldav");
    bean.setName("well-known");
    return bean;
  }

  /** Redirects every method alike, with scheme and host as the caller sees them. */
  private static final class Redirect extends jakarta.servlet.http.HttpServlet {
    private static final long serialVersionUID = 1L;

    @Override
    protected void service(HttpServletRequest request, HttpServletResponse response)
        throws IOException {
      request.getInputStream().readAllBytes();
      String url = request.getRequestURL().toString();
      response.setStatus(301);
      response.setHeader("Location", url.replace("/.well-known/caldav", "/dav/"));
    }
  }
}
