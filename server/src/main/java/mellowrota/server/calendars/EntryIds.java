package mellowrota.server.calendars;

import java.util.ArrayDeque;
import java.util.Queue;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/**
 * The numbers of new entries, taken from their sequence many at a time. Numbers that a process took
 * and did not use are never used; nothing orders by them across acts.
 */
@Component
class EntryIds {

  private static final int AT_ONCE = 200;

  private final JdbcClient jdbc;
  private final Queue<Long> taken = new ArrayDeque<>();

  EntryIds(JdbcClient jdbc) {
    this.jdbc = jdbc;
  }

  synchronized long next() {
    if (taken.isEmpty()) {
      jdbc.sql(
              """
              select nextval(pg_get_serial_sequence('entry', 'id')) from generate_series(1, ?)
              """)
          .param(AT_ONCE)
          .query(Long.class)
          .list()
          .forEach(taken::add);
    }
    return taken.remove();
  }
}
