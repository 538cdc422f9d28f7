package mellowrota.server.cover.store;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.people.PersonId;
import org.springframework.stereotype.Repository;

/** Limits, and what was let stand against them, as they are kept. */
@Repository
@RequiredArgsConstructor
public class LimitStore {

  private final EntityManager kept;

  /**
   * One limit of the house.
   *
   * @param amount minutes or a count; empty where there is nothing to count
   * @param asksReason whether who goes against it where it only warns has to say why
   */
  public record Limit(Clash.Level level, Optional<Integer> amount, boolean asksReason) {}

  /** That somebody lets a clash stand. */
  public record Stood(String reason, PersonId by, Instant at) {}

  /** Those that are not as usual. */
  public Map<Clash.Kind, Limit> limits() {
    Map<Clash.Kind, Limit> found = new EnumMap<>(Clash.Kind.class);
    kept.createQuery("from LimitEntity", LimitEntity.class)
        .getResultList()
        .forEach(
            one ->
                found.put(
                    one.kind,
                    new Limit(
                        one.never ? Clash.Level.NEVER : Clash.Level.WARN,
                        Optional.ofNullable(one.amount),
                        one.asksReason)));
    return found;
  }

  public void limit(Clash.Kind kind, Limit limit) {
    LimitEntity entity =
        Optional.ofNullable(kept.find(LimitEntity.class, kind))
            .orElseGet(() -> new LimitEntity(kind));
    entity.never = limit.level() == Clash.Level.NEVER;
    entity.amount = limit.amount().orElse(null);
    entity.asksReason = limit.asksReason();
    kept.persist(entity);
  }

  /** By the key of the clash. */
  public Map<String, Stood> stood() {
    Map<String, Stood> found = new HashMap<>();
    kept.createQuery("from AcceptedClashEntity", AcceptedClashEntity.class)
        .getResultList()
        .forEach(
            one -> found.put(one.clash, new Stood(one.reason, PersonId.of(one.byPerson), one.at)));
    return found;
  }

  /** Lets one stand, in place of what was said of it before. */
  public void letStand(String key, Clash clash, Stood stood, long act) {
    AcceptedClashEntity entity =
        Optional.ofNullable(kept.find(AcceptedClashEntity.class, key))
            .orElseGet(() -> new AcceptedClashEntity(key));
    entity.person = clash.person().map(PersonId::value).orElse(null);
    entity.kind = clash.kind();
    entity.reason = stood.reason();
    entity.byPerson = stood.by().value();
    entity.act = act;
    entity.at = stood.at();
    kept.persist(entity);
  }

  /** Whether it was let stand, and is open again now. */
  public boolean openAgain(String key) {
    Optional<AcceptedClashEntity> entity =
        Optional.ofNullable(kept.find(AcceptedClashEntity.class, key));
    entity.ifPresent(kept::remove);
    return entity.isPresent();
  }
}
