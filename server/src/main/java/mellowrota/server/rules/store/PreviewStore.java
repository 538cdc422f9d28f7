package mellowrota.server.rules.store;

import jakarta.persistence.EntityManager;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.server.platform.DatabaseClock;
import org.springframework.stereotype.Repository;

/** Looks as they are kept, where every process finds them. */
@Repository
@RequiredArgsConstructor
public class PreviewStore {

  private static final Duration KEPT_FOR = Duration.ofDays(1);

  /** A look whose process died is told to be so after this long. */
  private static final Duration DEAD_AFTER = Duration.ofSeconds(30);

  private final EntityManager kept;
  private final DatabaseClock clock;

  /** A look that begins, at a set in a world. */
  public record Begun(
      String token,
      PersonId person,
      String setHash,
      long worldVersion,
      LocalDate day,
      Instant at,
      String told) {}

  /** Keeps one that begins; those of the day before go. */
  public void begin(Begun one) {
    kept.createQuery("delete from PreviewEntity where at < :before")
        .setParameter("before", one.at().minus(KEPT_FOR))
        .executeUpdate();
    PreviewEntity entity = new PreviewEntity();
    entity.token = one.token();
    entity.person = one.person().value();
    entity.setHash = one.setHash();
    entity.worldVersion = one.worldVersion();
    entity.day = one.day();
    entity.at = one.at();
    entity.state = PreviewEntity.State.RUNNING;
    entity.beat = clock.now();
    entity.told = one.told();
    kept.persist(entity);
  }

  private Optional<PreviewEntity> entity(String token) {
    return kept
        .createQuery("from PreviewEntity where token = :token", PreviewEntity.class)
        .setParameter("token", token)
        .getResultList()
        .stream()
        .findFirst();
  }

  /**
   * What it found until now.
   *
   * @param touched the records it touches, where it is done and they are few
   */
  public void tell(
      String token,
      String told,
      boolean done,
      Collection<String> shows,
      Collection<RecordId> touched) {
    PreviewEntity entity = entity(token).orElseThrow();
    entity.told = told;
    entity.beat = clock.now();
    entity.state = done ? PreviewEntity.State.DONE : PreviewEntity.State.RUNNING;
    entity.shows = shows.toArray(String[]::new);
    entity.touched = touched.stream().map(RecordId::value).toArray(Long[]::new);
  }

  public void failed(String token) {
    entity(token).ifPresent(one -> one.state = PreviewEntity.State.FAILED);
  }

  /** What a look told last, and whether it ended before it was done. */
  public record Told(boolean ended, String told) {}

  public Optional<Told> find(PersonId person, String token) {
    return entity(token)
        .filter(one -> one.person == person.value())
        .map(one -> new Told(isDead(one), one.told));
  }

  private boolean isDead(PreviewEntity one) {
    return one.state == PreviewEntity.State.FAILED
        || one.state == PreviewEntity.State.RUNNING
            && one.beat.isBefore(clock.now().minus(DEAD_AFTER));
  }

  /**
   * A look that is done.
   *
   * @param at when it saw the records
   * @param shows which details it newly shows in which renderings
   * @param touched the records it touches
   */
  public record Finished(
      Instant at, long worldVersion, LocalDate day, Set<String> shows, List<RecordId> touched) {}

  /** The look at this very set by this person, if it is done. */
  public Optional<Finished> finished(PersonId person, String token, String setHash) {
    return entity(token)
        .filter(one -> one.person == person.value())
        .filter(one -> one.setHash.equals(setHash) && one.state == PreviewEntity.State.DONE)
        .map(
            one ->
                new Finished(
                    one.at,
                    one.worldVersion,
                    one.day,
                    Set.of(one.shows),
                    Arrays.stream(one.touched).map(RecordId::of).toList()));
  }
}
