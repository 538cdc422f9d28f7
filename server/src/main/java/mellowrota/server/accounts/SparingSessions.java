package mellowrota.server.accounts;

import java.time.Duration;
import java.time.Instant;
import java.util.Set;
import org.springframework.context.annotation.Primary;
import org.springframework.session.Session;
import org.springframework.session.SessionRepository;
import org.springframework.session.jdbc.JdbcIndexedSessionRepository;
import org.springframework.session.jdbc.config.annotation.web.http.EnableJdbcHttpSession;
import org.springframework.stereotype.Component;

/**
 * The sessions in the database, with their last use told to the minute: a session would else be
 * written by every request.
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

  @SuppressWarnings("unchecked")
  SparingSessions(JdbcIndexedSessionRepository kept) {
    this.kept = (SessionRepository<Session>) (SessionRepository<?>) kept;
  }

  @Override
  public Sparing createSession() {
    return new Sparing(kept.createSession());
  }

  @Override
  public void save(Sparing session) {
    kept.save(session.kept);
  }

  @Override
  public Sparing findById(String id) {
    Session found = kept.findById(id);
    return found == null ? null : new Sparing(found);
  }

  @Override
  public void deleteById(String id) {
    kept.deleteById(id);
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
