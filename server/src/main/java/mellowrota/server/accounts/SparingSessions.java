package mellowrota.server.accounts;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.Set;
import org.springframework.context.annotation.Primary;
import org.springframework.core.annotation.Order;
import org.springframework.session.Session;
import org.springframework.session.SessionRepository;
import org.springframework.session.jdbc.JdbcIndexedSessionRepository;
import org.springframework.session.jdbc.config.annotation.web.http.EnableJdbcHttpSession;
import org.springframework.session.web.http.SessionRepositoryFilter;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * The sessions in the database, with their last use told to the minute: a session would else be
 * written by every request. A session that a request has just put back is not read again for the
 * question that follows, whether it is there.
 */
@Primary
@Component
@EnableJdbcHttpSession(
    maxInactiveIntervalInSeconds = SparingSessions.SIGNED_IN_SECONDS,
    cleanupCron = "0 */10 * * * *")
class SparingSessions implements SessionRepository<SparingSessions.Sparing> {

  static final int SIGNED_IN_SECONDS = 12 * 60 * 60;

  private static final Duration TOLD_EVERY = Duration.ofMinutes(1);

  private final SessionRepository<Session> kept;
  private final SessionTransactions transactions;
  private final ThreadLocal<Sparing> justSaved = new ThreadLocal<>();

  @SuppressWarnings("unchecked")
  SparingSessions(JdbcIndexedSessionRepository kept, SessionTransactions transactions) {
    this.kept = (SessionRepository<Session>) (SessionRepository<?>) kept;
    this.transactions = transactions;
  }

  @Override
  public Sparing createSession() {
    return new Sparing(kept.createSession());
  }

  @Override
  public void save(Sparing session) {
    kept.save(session.kept);
    justSaved.set(session);
  }

  @Override
  public Sparing findById(String id) {
    Sparing saved = justSaved.get();
    justSaved.remove();
    if (saved != null && saved.getId().equals(id)) {
      return saved;
    }
    Session found = transactions.reading(() -> kept.findById(id));
    return found == null ? null : new Sparing(found);
  }

  @Override
  public void deleteById(String id) {
    kept.deleteById(id);
  }

  /** What one request has saved is nothing to the next one. */
  @Component
  @Order(SessionRepositoryFilter.DEFAULT_ORDER - 1)
  static final class Forgetting extends OncePerRequestFilter {
    private final SparingSessions sessions;

    Forgetting(SparingSessions sessions) {
      this.sessions = sessions;
    }

    @Override
    protected void doFilterInternal(
        HttpServletRequest request, HttpServletResponse response, FilterChain chain)
        throws ServletException, IOException {
      try {
        chain.doFilter(request, response);
      } finally {
        sessions.justSaved.remove();
      }
    }
  }

  /** A session that leaves its last use as it is when that was told just now. */
  static final class Sparing implements Session {
    private final Session kept;

    private Sparing(Session kept) {
      this.kept = kept;
    }

    @Override
    public void setLastAccessedTime(Instant now) {
      if (!now.isBefore(kept.getLastAccessedTime().plus(TOLD_EVERY))) {
        kept.setLastAccessedTime(now);
      }
    }

    @Override
    public Instant getLastAccessedTime() {
      return kept.getLastAccessedTime();
    }

    @Override
    public String getId() {
      return kept.getId();
    }

    @Override
    public String changeSessionId() {
      return kept.changeSessionId();
    }

    @Override
    public <T> T getAttribute(String name) {
      return kept.getAttribute(name);
    }

    @Override
    public Set<String> getAttributeNames() {
      return kept.getAttributeNames();
    }

    @Override
    public void setAttribute(String name, Object value) {
      kept.setAttribute(name, value);
    }

    @Override
    public void removeAttribute(String name) {
      kept.removeAttribute(name);
    }

    @Override
    public Instant getCreationTime() {
      return kept.getCreationTime();
    }

    @Override
    public void setMaxInactiveInterval(Duration interval) {
      kept.setMaxInactiveInterval(interval);
    }

    @Override
    public Duration getMaxInactiveInterval() {
      return kept.getMaxInactiveInterval();
    }

    @Override
    public boolean isExpired() {
      return kept.isExpired();
    }
  }
}
