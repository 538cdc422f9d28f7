package mellowrota.server.calendars;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.Family;
import mellowrota.core.project.Release;
import mellowrota.core.sight.Released;
import mellowrota.core.work.RecordId;
import mellowrota.server.sight.World;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** How it stands with the yes to entries whose rules ask for one. */
@Repository
public class ReleaseStore {

  private final JdbcClient jdbc;
  private final ReleasedText texts;

  ReleaseStore(JdbcClient jdbc, ReleasedText texts) {
    this.jdbc = jdbc;
    this.texts = texts;
  }

  /** Of all entries of these records; nothing is read where no rule of the world asks for a yes. */
  public Release.Known of(World world, Collection<RecordId> records) {
    return world.asksForYes() ? of(records) : Release.Known.NONE_WAITS;
  }

  /** Of all entries of these records. */
  public Release.Known of(Collection<RecordId> records) {
    Map<EntryKey, Release> found = new HashMap<>();
    jdbc.sql(
            """
            select record, visit, calendar, family, uid, state, released from entry
            where record = any(?)
            """)
        .param(records.stream().map(RecordId::value).toArray(Long[]::new))
        .query(
            row -> {
              EntryKey key =
                  new EntryKey(
                      RecordId.of(row.getLong(1)),
                      row.getInt(2),
                      CalendarId.of(row.getLong(3)),
                      Family.valueOf(row.getString(4)));
              String uid = row.getString(5);
              Optional<Released> released =
                  Optional.ofNullable(row.getString(7)).map(text -> texts.read(key, uid, text));
              found.put(key, release(row.getString(6), released));
            });
    return key -> found.getOrDefault(key, new Release.Never());
  }

  private static Release release(String state, Optional<Released> released) {
    return switch (state) {
      // It needed no yes until now: what readers have is what it says.
      case "LIVE" -> released.<Release>map(Release.Last::new).orElseGet(Release.AsItStands::new);
      case "GONE" -> released.<Release>map(Release.IfTheSame::new).orElseGet(Release.Never::new);
      default -> new Release.Never();
    };
  }
}
