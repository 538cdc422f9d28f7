package mellowrota.server.calendars.store;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.sight.Face;
import mellowrota.server.ical.IcalendarWriter;
import org.springframework.stereotype.Repository;

/** Reads the faces of one rendering. */
@Repository
@RequiredArgsConstructor
public class Faces {

  /** Rises when the same content would be written as other text. */
  public static final int RENDERER = 1;

  private static final String OF_A_RENDERING =
      """
      select f.entry, e.uid, f.live, f.content, f.etag, f.sequence, f.modified, f.changeNo, f.ics
      from FaceEntity f join EntryEntity e on e.id = f.entry where f.rendering = :rendering
      """;

  private final EntityManager kept;

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

    /**
     * As it is written.
     *
     * @param opens whether all who read it may open its record
     */
    public IcalendarWriter.Written written(boolean opens) {
      return new IcalendarWriter.Written(uid, sequence, modified, face(), Optional.empty(), opens);
    }
  }

  private record Row(
      long entry,
      String uid,
      boolean live,
      String content,
      String etag,
      int sequence,
      Instant modified,
      long changeNo,
      String text) {
    Kept kept() {
      return new Kept(
          entry, uid, live, content, etag, sequence, modified, changeNo, Optional.ofNullable(text));
    }
  }

  private TypedQuery<Row> query(RenderingId rendering, String more) {
    return kept.createQuery(OF_A_RENDERING + more, Row.class)
        .setParameter("rendering", rendering.value());
  }

  private static List<Kept> all(TypedQuery<Row> query) {
    return query.getResultList().stream().map(Row::kept).toList();
  }

  public List<Kept> live(RenderingId rendering) {
    return all(query(rendering, "and f.live = true order by f.entry"));
  }

  /** Those that touch a span; whole days are kept in UTC, so the span is widened by a day. */
  public List<Kept> between(RenderingId rendering, Instant from, Instant until) {
    return all(
        query(
                rendering,
                "and f.live = true and f.starts <= :until and f.ends >= :from order by f.entry")
            .setParameter("until", until.plus(Duration.ofDays(1)))
            .setParameter("from", from.minus(Duration.ofDays(1))));
  }

  /** How many of a rendering touch a span, whole days those of UTC. */
  public record Count(long rendering, long faces) {}

  public List<Count> counts(Collection<RenderingId> of, Instant from, Instant until) {
    return kept.createQuery(
            """
            select f.rendering, count(*) from FaceEntity f
            where f.live = true and holds(:of, f.rendering) and f.starts < :until and f.ends > :from
            group by f.rendering
            """,
            Count.class)
        .setParameter("of", of.stream().map(RenderingId::value).toArray(Long[]::new))
        .setParameter("from", from)
        .setParameter("until", until)
        .getResultList();
  }

  /** What changed after a change number, gone ones too, in the order of change. */
  public List<Kept> since(RenderingId rendering, long changeNo, int limit) {
    return all(
        query(rendering, "and f.changeNo > :since order by f.changeNo, f.entry")
            .setParameter("since", changeNo)
            .setMaxResults(limit));
  }

  /** The face of one entry, gone or not. */
  public Optional<Kept> of(RenderingId rendering, long entry) {
    return all(query(rendering, "and f.entry = :entry").setParameter("entry", entry)).stream()
        .findFirst();
  }

  public List<Kept> byUid(RenderingId rendering, Collection<String> uids) {
    return all(
        query(rendering, "and f.live = true and holds(:uids, e.uid)")
            .setParameter("uids", uids.toArray(String[]::new)));
  }

  /**
   * Keeps texts made at the first reading, unless the face has moved on since. Native: HQL has no
   * update from a list of rows.
   */
  public void keepTexts(RenderingId rendering, List<Kept> faces) {
    kept.createNativeQuery(
            """
            update face f set ics = u.ics from unnest(:texts, :entries, :tags) u(ics, entry, etag)
            where f.rendering = :rendering and f.entry = u.entry and f.etag = u.etag
            """)
        .setParameter(
            "texts", faces.stream().map(f -> f.text().orElseThrow()).toArray(String[]::new))
        .setParameter("entries", faces.stream().map(Kept::entry).toArray(Long[]::new))
        .setParameter("tags", faces.stream().map(Kept::etag).toArray(String[]::new))
        .setParameter("rendering", rendering.value())
        .executeUpdate();
  }
}
