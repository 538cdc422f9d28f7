package mellowrota.server.accounts.store;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lombok.RequiredArgsConstructor;
import org.hibernate.LockMode;
import org.hibernate.Session;
import org.springframework.stereotype.Repository;

/** Tries of passwords as they are kept; each method wants a transaction. */
@Repository
@RequiredArgsConstructor
public class PasswordTries {

  private final EntityManager kept;

  private record Counted(String subject, Integer tries) {}

  /**
   * Counts one more of each of these; those of before the window count no longer.
   *
   * @return how many there are now, by subject
   */
  public Map<String, Integer> count(List<String> subjects, Instant now, Instant window) {
    // Native: HQL has no returning, and many count at once.
    Map<String, Integer> found = new HashMap<>();
    kept.unwrap(Session.class)
        .createNativeQuery(
            """
            insert into sign_in_try as t (subject, since, tries)
            select subject, :now, 1 from unnest(:subjects) as s(subject) order by subject
            on conflict (subject) do update set
              tries = case when t.since < :window then 1 else t.tries + 1 end,
              since = case when t.since < :window then excluded.since else t.since end
            returning subject, tries
            """,
            Counted.class)
        .setParameter("now", now)
        .setParameter("window", window)
        .setParameter("subjects", subjects.toArray(String[]::new))
        .getResultList()
        .forEach(one -> found.put(one.subject(), one.tries()));
    return found;
  }

  /** Takes a try off again, and all of them of whoever was let in. */
  public void right(String whose, String address) {
    kept.createQuery(
            "from TryEntity where subject in (:whose, :address) order by subject", TryEntity.class)
        .setParameter("whose", whose)
        .setParameter("address", address)
        .setLockMode(LockModeType.PESSIMISTIC_WRITE)
        .getResultList()
        .forEach(one -> one.tries = one.subject.equals(whose) ? 0 : Math.max(one.tries - 1, 0));
  }

  /** Forgets those of before the window; what somebody counts on just now stays. */
  public void forget(Instant window) {
    kept.unwrap(Session.class)
        .createSelectionQuery("from TryEntity where since < :window", TryEntity.class)
        .setParameter("window", window)
        .setHibernateLockMode(LockMode.UPGRADE_SKIPLOCKED)
        .getResultList()
        .forEach(kept::remove);
  }
}
