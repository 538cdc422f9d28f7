package mellowrota.server.shares.store;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.PersonId;
import mellowrota.server.sight.store.CalendarStore;
import org.springframework.stereotype.Repository;

/** Shares as they are kept. */
@Repository
@RequiredArgsConstructor
public class ShareStore {

  private final EntityManager kept;
  private final CalendarStore calendars;

  /**
   * A share that was not withdrawn.
   *
   * @param until the first day on which it is over
   */
  public record Share(
      long id,
      CalendarId calendar,
      PersonId reader,
      PersonId givenBy,
      Level level,
      boolean mayPassOn,
      Optional<LocalDate> until,
      Instant madeAt,
      boolean accepted) {}

  /** All that were not withdrawn, in the order in which they were given. */
  public List<Share> open() {
    return kept
        .createQuery("from ShareEntity where withdrawnAt is null order by id", ShareEntity.class)
        .getResultList()
        .stream()
        .map(ShareStore::share)
        .toList();
  }

  private static Share share(ShareEntity one) {
    return new Share(
        one.id,
        CalendarId.of(one.calendar),
        PersonId.of(one.reader),
        PersonId.of(one.givenBy),
        one.level,
        one.mayPassOn,
        Optional.ofNullable(one.untilDay),
        one.madeAt,
        one.acceptedAt != null);
  }

  /** Keeps one as it is offered, and gives its number. */
  public long add(Share share) {
    ShareEntity entity = new ShareEntity();
    entity.calendar = share.calendar().value();
    entity.reader = share.reader().value();
    entity.givenBy = share.givenBy().value();
    entity.level = share.level();
    entity.mayPassOn = share.mayPassOn();
    entity.untilDay = share.until().orElse(null);
    entity.madeAt = share.madeAt();
    kept.persist(entity);
    return entity.id;
  }

  /** From now on it shows. */
  public void accept(long id, Instant at) {
    ShareEntity entity = kept.find(ShareEntity.class, id);
    entity.acceptedAt = at;
    entity.rendering =
        calendars
            .let(
                CalendarId.of(entity.calendar),
                new Rendering.Way.Share(PersonId.of(entity.reader), entity.level),
                Optional.ofNullable(entity.untilDay))
            .value();
  }

  public void change(long id, Level level, boolean mayPassOn, Optional<LocalDate> until) {
    ShareEntity entity = kept.find(ShareEntity.class, id);
    entity.level = level;
    entity.mayPassOn = mayPassOn;
    entity.untilDay = until.orElse(null);
    rendering(entity).ifPresent(one -> calendars.change(one, level, until));
  }

  /** False where it was withdrawn already. */
  public boolean withdraw(long id, Instant at) {
    ShareEntity entity = kept.find(ShareEntity.class, id);
    boolean stood = entity.withdrawnAt == null;
    if (stood) {
      entity.withdrawnAt = at;
      rendering(entity).ifPresent(calendars::withdraw);
    }
    return stood;
  }

  private static Optional<RenderingId> rendering(ShareEntity entity) {
    return Optional.ofNullable(entity.rendering).map(RenderingId::of);
  }
}
