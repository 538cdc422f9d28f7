package mellowrota.server.boot;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.hibernate.cfg.JdbcSettings;
import org.hibernate.resource.jdbc.spi.StatementInspector;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.boot.hibernate.autoconfigure.HibernatePropertiesCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.ContentCachingResponseWrapper;

/**
 * For tests alone: each answer tells how many statements it took, in the header {@code Statements}.
 * A batch is one.
 */
@Configuration
@ConditionalOnProperty("mellow.test-statements")
class StatementCounts {

  private static final ThreadLocal<Integer> COUNT = ThreadLocal.withInitial(() -> 0);

  @Bean
  HibernatePropertiesCustomizer counting() {
    StatementInspector inspector =
        sql -> {
          COUNT.set(COUNT.get() + 1);
          return sql;
        };
    return properties -> properties.put(JdbcSettings.STATEMENT_INSPECTOR, inspector);
  }

  @Bean
  @Order(Ordered.HIGHEST_PRECEDENCE)
  OncePerRequestFilter telling() {
    return new OncePerRequestFilter() {
      @Override
      protected void doFilterInternal(
          HttpServletRequest request, HttpServletResponse response, FilterChain chain)
          throws ServletException, IOException {
        COUNT.set(0);
        ContentCachingResponseWrapper answer = new ContentCachingResponseWrapper(response);
        chain.doFilter(request, answer);
        answer.setHeader("Statements", Integer.toString(COUNT.get()));
        answer.copyBodyToResponse();
      }
    };
  }
}
