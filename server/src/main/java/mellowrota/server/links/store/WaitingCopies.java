package mellowrota.server.links.store;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.server.calendars.store.Entries;
import org.springframework.stereotype.Repository;

/** What waits to go out, over many copies at once. */
@Repository
@RequiredArgsConstructor
public class WaitingCopies {

  private final EntityManager kept;
  private final Entries entries;
  private final Clock clock;

  /** How many of a calendar's went, are open, and were refused. */
  public record Counts(long sent, long open, long refused) {}

  public Counts counts(long outlet) {
    return kept.createQuery(
            """
            select count(case when state = SENT then 1 end),
              count(case when dueAt is not null then 1 end),
              count(case when state = REFUSED
                or dueAt is not null and fault in ('REFUSED', 'QUOTA') then 1 end)
            from CopyEntity where outlet = :outlet
            """,
            Counts.class)
        .setParameter("outlet", outlet)
        .getSingleResult();
  }

  /**
   * What goes out before long.
   *
   * @param changes records of which copies go out
   * @param calendars they go to
   * @param goesOutIn seconds until the first of them goes; empty: none waits
   */
  public record Waiting(long changes, long copies, long calendars, Optional<Long> goesOutIn) {}

  private static final String WAITING =
      """
       c.dueAt > :now and (:all = true or exists (
        select 1 from OutletEntity o join LinkEntity k on k.id = o.link
        where o.id = c.outlet and holds(:people, k.person)))
      """;

  /** Of these people's links, else of all, the house's too. */
  public Waiting waiting(Optional<Set<PersonId>> of) {
    record Row(long entry, long outlet, Instant due) {}
    Instant now = clock.instant();
    List<Row> found =
        kept.createQuery(
                "select c.entry, c.outlet, c.dueAt from CopyEntity c where"
                    + WAITING
                    + """
                     and c.fault is null and not exists (
                      select 1 from OutletEntity o join LinkEntity k on k.id = o.link
                      where o.id = c.outlet and k.stoppedAt is not null)
                    """,
                Row.class)
            .setParameter("now", now)
            .setParameter("all", of.isEmpty())
            .setParameter("people", numbers(of))
            .getResultList();
    return new Waiting(
        entries.countRecords(found.stream().map(Row::entry).distinct().toList()),
        found.size(),
        found.stream().map(Row::outlet).distinct().count(),
        found.stream()
            .map(Row::due)
            .min(Instant::compareTo)
            .map(due -> (Duration.between(now, due).toMillis() + 999) / 1000));
  }

  private static Long[] numbers(Optional<Set<PersonId>> people) {
    return people.orElse(Set.of()).stream().map(PersonId::value).toArray(Long[]::new);
  }

  /** What waits goes out at once: of a record or of all, of these people's links or of all. */
  public void hurry(Optional<RecordId> record, Optional<Set<PersonId>> of) {
    kept.createQuery(
            "update CopyEntity c set c.dueAt = :now where"
                + WAITING
                + " and (:allEntries = true or holds(:entries, c.entry))")
        .setParameter("now", clock.instant())
        .setParameter("all", of.isEmpty())
        .setParameter("people", numbers(of))
        .setParameter("allEntries", record.isEmpty())
        .setParameter("entries", record.map(entries::of).orElse(List.of()).toArray(Long[]::new))
        .executeUpdate();
  }

  /** How many are open. */
  public long open() {
    return kept.createQuery("select count(*) from CopyEntity where dueAt is not null", Long.class)
        .getSingleResult();
  }

  /** What stands there may be newer than what is known here: all of it is looked at first. */
  public void lookAtAll() {
    kept.createQuery(
            "update CopyEntity set look = true where stands is not null or attempt is not null")
        .executeUpdate();
  }
}
