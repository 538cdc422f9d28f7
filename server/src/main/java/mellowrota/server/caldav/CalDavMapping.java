package mellowrota.server.caldav;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.boot.web.servlet.ServletRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.HttpRequestHandler;

/** Serves {@code /dav/} by a servlet of its own, which takes every method. */
@Configuration
class CalDavMapping {

  @Bean
  ServletRegistrationBean<jakarta.servlet.http.HttpServlet> davServlet(CalDavServlet handler) {
    ServletRegistrationBean<jakarta.servlet.http.HttpServlet> bean =
        new ServletRegistrationBean<>(new Plain(handler), "/dav/*", "/dav");
    bean.setName("dav");
    return bean;
  }

  private static final class Plain extends jakarta.servlet.http.HttpServlet {
    private static final long serialVersionUID = 1L;
    private final transient HttpRequestHandler handler;

    Plain(HttpRequestHandler handler) {
      this.handler = handler;
    }

    @Override
    protected void service(HttpServletRequest request, HttpServletResponse response)
        throws IOException {
      try {
        handler.handleRequest(request, response);
      } catch (jakarta.servlet.ServletException unexpected) {
        throw new IOException(unexpected);
      }
    }
  }
}
