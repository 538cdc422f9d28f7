package mellowrota.server.rules.store;

import jakarta.persistence.EntityManager;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.work.RecordId;
import mellowrota.server.crew.Naming;
import mellowrota.server.platform.DatabaseClock;
import mellowrota.server.platform.Locks;
import org.hibernate.LockMode;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;

/** Changes of the set as they are kept, and whose turn it is to go on with one. */
@Repository
@RequiredArgsConstructor
public class ChangeStore implements Naming {

  /** Whoever does not take its next step in this time is taken for dead. */
  private static final Duration LEASE = Duration.ofSeconds(10);

  private final EntityManager kept;
  private final DatabaseClock clock;
  private final Locks locks;

  /** How one is. */
  public enum State {
    RUNNING,
    STOPPED,
    DONE,
    UNDONE
  }

  /**
   * A change.
   *
   * @param before the set as it was, in JSON
   * @param from work that ended before this day stays, unless something is hidden
   * @param upto the number of the last record it went through
   * @param mostly whether most records until now were touched
   */
  public record Change(
      long act,
      String before,
      String after,
      State state,
      Optional<LocalDate> from,
      long upto,
      long done,
      long total,
      long entries) {

    public boolean mostly() {
      return 2 * entries > done;
    }
  }

  private static Change change(SetChangeEntity one) {
    return new Change(
        one.act,
        one.before,
        one.after,
        one.state,
        Optional.ofNullable(one.fromDay),
        one.upto,
        one.done,
        one.total,
        one.entries);
  }

  public void add(Change one) {
    SetChangeEntity entity = new SetChangeEntity();
    entity.act = one.act();
    entity.before = one.before();
    entity.after = one.after();
    entity.state = one.state();
    entity.fromDay = one.from().orElse(null);
    entity.total = one.total();
    kept.persist(entity);
  }

  public Optional<Change> find(long act) {
    return Optional.ofNullable(kept.find(SetChangeEntity.class, act)).map(ChangeStore::change);
  }

  /** What is under way or stopped; one at a time. */
  public Optional<Change> open() {
    return kept
        .createQuery(
            "from SetChangeEntity where state in (RUNNING, STOPPED) order by act",
            SetChangeEntity.class)
        .setMaxResults(1)
        .getResultList()
        .stream()
        .findFirst()
        .map(ChangeStore::change);
  }

  /** How far it is, locked until the end of the act. */
  public Change lock(long act) {
    return change(locks.row(SetChangeEntity.class, act));
  }

  /** Does nothing to what is so already or has ended. */
  public void turn(long act, State from, State to) {
    SetChangeEntity entity = locks.row(SetChangeEntity.class, act);
    if (entity != null && entity.state == from) {
      entity.state = to;
      entity.leaseUntil = null;
    }
  }

  public void ended(long act, State how) {
    kept.find(SetChangeEntity.class, act).state = how;
  }

  /** Takes one that runs and that nobody goes on with. */
  public Optional<Long> claim() {
    Instant now = clock.now();
    List<SetChangeEntity> found =
        kept.unwrap(Session.class)
            .createQuery(
                """
                from SetChangeEntity
                where state = RUNNING and (leaseUntil is null or leaseUntil <= :now) order by act
                """,
                SetChangeEntity.class)
            .setParameter("now", now)
            .setMaxResults(1)
            .setHibernateLockMode(LockMode.UPGRADE_SKIPLOCKED)
            .getResultList();
    found.forEach(one -> one.leaseUntil = now.plus(LEASE));
    return found.stream().findFirst().map(one -> one.act);
  }

  /** It went through some more records. */
  public void went(long act, List<RecordId> some, long entries) {
    SetChangeEntity entity = kept.find(SetChangeEntity.class, act);
    entity.upto = some.get(some.size() - 1).value();
    entity.done += some.size();
    entity.entries += entries;
    entity.leaseUntil = clock.now().plus(LEASE);
  }

  /** Rules name people, teams and places by their numbers. */
  @Override
  public boolean mayName(Added added) {
    return kept.createQuery("select count(*) from SetChangeEntity where act > :act", Long.class)
            .setParameter("act", added.act())
            .getSingleResult()
        > 0;
  }
}
