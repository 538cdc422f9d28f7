package mellowrota.server.records;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import mellowrota.core.people.Person;
import mellowrota.core.work.RecordId;
import mellowrota.server.sight.World;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/**
 * Records by the ids of where they came from. Whose record somebody may not open is not there for
 * them (SIGHT 10): the same id then makes one of their own, so no key of the database tells it.
 */
@Component
class Sources {

  private final JdbcClient jdbc;

  Sources(JdbcClient jdbc) {
    this.jdbc = jdbc;
  }

  /** Until the end of the act nobody else makes records by these ids. */
  void lock(String source, Collection<String> ids) {
    jdbc.sql(
            """
            select pg_advisory_xact_lock(key) from (
              select distinct hashtextextended(? || chr(10) || id, 0) as key
              from unnest(?) as i(id) order by 1) keys
            """)
        .param(source)
        .param(ids.toArray(String[]::new))
        .query()
        .listOfRows();
  }

  /** Those that this person may open, by their ids there; of several the first. */
  Map<String, RecordId> known(World world, Person asker, String source, Collection<String> ids) {
    Map<String, RecordId> found = new HashMap<>();
    Opens.of(
            jdbc,
            "select r.source_id, r.id from"
                + Opens.RECORDS
                + " where r.source = :source and r.source_id = any(:ids) and"
                + Opens.MAY_OPEN
                + " order by r.id",
            world,
            asker)
        .param("source", source)
        .param("ids", ids.toArray(String[]::new))
        .query(
            row -> {
              found.putIfAbsent(row.getString(1), RecordId.of(row.getLong(2)));
            });
    return found;
  }
}
