package mellowrota.server.links.store;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;
import lombok.RequiredArgsConstructor;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.outside.OutsideFault;
import mellowrota.server.platform.DatabaseClock;
import org.hibernate.LockMode;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/** Whose turn it is with a link, and how links fare. */
@Repository
@RequiredArgsConstructor
public class LeaseStore {

  private final EntityManager kept;
  private final HouseStore house;
  private final DatabaseClock leases;
  private final Clock clock;

  /**
   * Takes links on which something is due, for a while; nobody else takes them meanwhile.
   *
   * @param most how many at most
   */
  @Transactional
  public List<Long> claim(String me, Duration lease, int most) {
    if (house.copying().held()) {
      return List.of();
    }
    Instant leased = leases.now();
    List<LinkEntity> found =
        kept.unwrap(Session.class)
            .createQuery(
                """
                from LinkEntity l where l.endedAt is null and l.stoppedAt is null
                  and (l.leasedUntil is null or l.leasedUntil <= :leased)
                  and (l.restUntil is null or l.restUntil <= :now)
                  and exists (select 1 from OutletEntity c where c.link = l.id
                    and (c.readDue <= :now or exists (
                      select 1 from CopyEntity p where p.outlet = c.id and p.dueAt <= :now)))
                order by l.id
                """,
                LinkEntity.class)
            .setParameter("leased", leased)
            .setParameter("now", clock.instant())
            .setMaxResults(most)
            .setHibernateLockMode(LockMode.UPGRADE_SKIPLOCKED)
            .getResultList();
    for (LinkEntity one : found) {
      one.leasedBy = me;
      one.leasedUntil = leased.plus(lease);
    }
    return found.stream().map(one -> one.id).toList();
  }

  /** Keeps a link for longer; false where somebody else has taken it, since it took too long. */
  @Transactional
  public boolean keep(long link, String me, Duration lease) {
    return lease(link, me, Optional.of(me), Optional.of(leases.now().plus(lease)));
  }

  private boolean lease(long link, String me, Optional<String> by, Optional<Instant> until) {
    return kept.createQuery(
                """
                update LinkEntity set leasedBy = :by, leasedUntil = :until
                where id = :link and leasedBy = :me
                """)
            .setParameter("by", by.orElse(null))
            .setParameter("until", until.orElse(null))
            .setParameter("link", link)
            .setParameter("me", me)
            .executeUpdate()
        == 1;
  }

  /** Whether it is still ours, locked until the transaction ends. */
  public boolean isOurs(long link, String me) {
    return !kept.createQuery(
            "from LinkEntity where id = :link and leasedBy = :me", LinkEntity.class)
        .setParameter("link", link)
        .setParameter("me", me)
        .setLockMode(LockModeType.PESSIMISTIC_READ)
        .getResultList()
        .isEmpty();
  }

  @Transactional
  public void letGo(long link, String me) {
    lease(link, me, Optional.empty(), Optional.empty());
  }

  /** It answered: whatever ailed it is over. */
  @Transactional
  public void isWell(long link) {
    kept.createQuery(
            """
            update LinkEntity set fault = null, faultWords = null, faultSince = null, faults = 0,
              restUntil = null where id = :link and (fault is not null or faults > 0)
            """)
        .setParameter("link", link)
        .executeUpdate();
  }

  /** It is left alone for a while. */
  @Transactional
  public void rests(long link, OutsideFault fault, IntFunction<Duration> backoff) {
    LinkEntity entity = kept.find(LinkEntity.class, link);
    kept.refresh(entity);
    Instant now = clock.instant();
    Duration wait = fault.retryAfter().orElseGet(() -> backoff.apply(entity.faults));
    entity.fault = fault.kind().name();
    entity.faultWords = fault.getMessage();
    entity.faults++;
    entity.faultSince = entity.faultSince == null ? now : entity.faultSince;
    entity.restUntil = now.plus(wait);
  }
}
