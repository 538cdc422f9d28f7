package mellowrota.server.calendars;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.sight.Face;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** Reads the faces of one rendering. */
@Service
public class Faces {

  /** Rises when the same content would be written as other text. */
  public static final int RENDERER = 1;

  private static final String COLUMNS =
      """
      select f.entry, e.uid, f.live, f.content, f.etag, f.sequence, f.modified, f.change_no, f.ics
      from face f join entry e on e.id = f.entry where f.rendering = ?
      """;

  private final JdbcClient jdbc;
  private final JdbcTemplate template;

  Faces(JdbcClient jdbc, JdbcTemplate template) {
    this.jdbc = jdbc;
    this.template = template;
  }

  /**
   * A face as it is kept.
   *
   * @param text its iCalendar text, made at the first reading
   */
  public record Kept(
      long entry,
      String uid,
      boolean live,
      String content,
      String etag,
      int sequence,
      Instant modified,
      long changeNo,
      Optional<String> text) {
    public Face face() {
      return Face.parse(content);
    }
  }

  public List<Kept> live(RenderingId rendering) {
    return jdbc.sql(COLUMNS + " and f.live order by f.entry")
        .param(rendering.value())
        .query((row, n) -> kept(row))
        .list();
  }

  /** Those that touch a span; whole days are kept in UTC, so the span is widened by a day. */
  public List<Kept> between(RenderingId rendering, Instant from, Instant until) {
    return jdbc.sql(COLUMNS + " and f.live and f.starts <= ? and f.ends >= ? order by f.entry")
        .param(rendering.value())
        .param(until.plusSeconds(86_400).atOffset(ZoneOffset.UTC))
        .param(from.minusSeconds(86_400).atOffset(ZoneOffset.UTC))
        .query((row, n) -> kept(row))
        .list();
  }

  /** What changed after a change number, gone ones too, in the order of change. */
  public List<Kept> since(RenderingId rendering, long changeNo, int limit) {
    return jdbc.sql(COLUMNS + " and f.change_no > ? order by f.change_no, f.entry limit ?")
        .param(rendering.value())
        .param(changeNo)
        .param(limit)
        .query((row, n) -> kept(row))
        .list();
  }

  /** The face of one entry, gone or not. */
  public Optional<Kept> of(RenderingId rendering, long entry) {
    return jdbc.sql(COLUMNS + " and f.entry = ?")
        .param(rendering.value())
        .param(entry)
        .query((row, n) -> kept(row))
        .optional();
  }

  public List<Kept> byUid(RenderingId rendering, Collection<String> uids) {
    return jdbc.sql(COLUMNS + " and f.live and e.uid = any(?)")
        .param(rendering.value())
        .param(uids.toArray(String[]::new))
        .query((row, n) -> kept(row))
        .list();
  }

  /** Keeps texts made at the first reading, unless the face has moved on since. */
  public void keepTexts(RenderingId rendering, List<Kept> faces) {
    template.batchUpdate(
        "update face set ics = ? where rendering = ? and entry = ? and etag = ?",
        faces.stream()
            .map(f -> new Object[] {f.text().orElseThrow(), rendering.value(), f.entry(), f.etag()})
            .toList());
  }

  /** The calendar's change number and the rendering's access number, as one reading sees them. */
  public record Position(long changeNo, long oldestNo, long accessNo) {}

  public Position position(RenderingId rendering) {
    return jdbc.sql(
            """
            select c.change_no, c.oldest_no, r.access_no
            from rendering r join calendar c on c.id = r.calendar where r.id = ?
            """)
        .param(rendering.value())
        .query(Position.class)
        .single();
  }

  private static Kept kept(java.sql.ResultSet row) throws java.sql.SQLException {
    return new Kept(
        row.getLong(1),
        row.getString(2),
        row.getBoolean(3),
        row.getString(4),
        row.getString(5),
        row.getInt(6),
        row.getObject(7, OffsetDateTime.class).toInstant(),
        row.getLong(8),
        Optional.ofNullable(row.getString(9)));
  }
}
