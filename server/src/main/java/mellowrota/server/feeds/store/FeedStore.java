package mellowrota.server.feeds.store;

import jakarta.persistence.EntityManager;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.PersonId;
import mellowrota.server.sight.store.CalendarStore;
import org.springframework.stereotype.Repository;

/** Feeds as they are kept; what each shows is kept with its way of reading. */
@Repository
@RequiredArgsConstructor
public class FeedStore {

  /** The use of an address is noted to so much. */
  private static final Duration EXACT = Duration.ofMinutes(1);

  private final EntityManager kept;
  private final CalendarStore calendars;

  /** A feed that was not withdrawn. Its address is known only to whoever was told it. */
  public record Feed(
      long id,
      RenderingId rendering,
      CalendarId calendar,
      String label,
      Level level,
      PersonId madeBy,
      Instant madeAt,
      Optional<LocalDate> until,
      Optional<Instant> lastUsedAt) {}

  /** Those that were not withdrawn; made by one person or by anybody. */
  public List<Feed> open(Optional<PersonId> madeBy) {
    List<FeedEntity> found =
        kept.createQuery(
                """
                from FeedEntity where withdrawnAt is null and (:anybody = true or madeBy = :person)
                order by id
                """,
                FeedEntity.class)
            .setParameter("anybody", madeBy.isEmpty())
            .setParameter("person", madeBy.map(PersonId::value).orElse(0L))
            .getResultList();
    Map<RenderingId, CalendarStore.Shown> shown =
        calendars.shown(found.stream().map(one -> RenderingId.of(one.rendering)).toList());
    return found.stream().map(one -> feed(one, shown.get(RenderingId.of(one.rendering)))).toList();
  }

  private static Feed feed(FeedEntity one, CalendarStore.Shown shown) {
    return new Feed(
        one.id,
        RenderingId.of(one.rendering),
        shown.calendar(),
        one.label,
        shown.level(),
        PersonId.of(one.madeBy),
        one.madeAt,
        shown.until(),
        Optional.ofNullable(one.lastUsedAt));
  }

  public void add(
      String tokenHash, RenderingId rendering, String label, PersonId maker, Instant at) {
    FeedEntity entity = new FeedEntity();
    entity.tokenHash = tokenHash;
    entity.rendering = rendering.value();
    entity.label = label;
    entity.madeBy = maker.value();
    entity.madeAt = at;
    kept.persist(entity);
  }

  public void withdraw(long id, Instant at) {
    kept.find(FeedEntity.class, id).withdrawnAt = at;
  }

  /** What an address shows. */
  public Optional<RenderingId> find(String tokenHash) {
    return kept
        .createQuery(
            "select rendering from FeedEntity where tokenHash = :hash and withdrawnAt is null",
            Long.class)
        .setParameter("hash", tokenHash)
        .getResultList()
        .stream()
        .findFirst()
        .map(RenderingId::of);
  }

  /** Notes that an address is used. */
  public void used(String tokenHash, Instant now) {
    kept.createQuery(
            """
            update FeedEntity set lastUsedAt = :now
            where tokenHash = :hash and (lastUsedAt is null or lastUsedAt < :before)
            """)
        .setParameter("now", now)
        .setParameter("hash", tokenHash)
        .setParameter("before", now.minus(EXACT))
        .executeUpdate();
  }
}
