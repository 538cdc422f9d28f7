package mellowrota.server.links.store;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.server.ical.BusyReader;
import org.springframework.stereotype.Repository;

/** When people are busy outside, as it is kept. */
@Repository
@RequiredArgsConstructor
public class BusyStore {

  private final EntityManager kept;

  /** Forgets all that a calendar took of somebody's time. */
  public void forget(long outlet) {
    kept.createQuery("delete from BusyEntity where outlet = :outlet")
        .setParameter("outlet", outlet)
        .executeUpdate();
  }

  /** Forgets what these entries of a calendar took. */
  public void forget(long outlet, Collection<String> hrefs) {
    kept.createQuery("delete from BusyEntity where outlet = :outlet and holds(:hrefs, href)")
        .setParameter("outlet", outlet)
        .setParameter("hrefs", hrefs.toArray(String[]::new))
        .executeUpdate();
  }

  /** An entry takes this of somebody's time. */
  public void add(long outlet, String href, String uidHash, BusyReader.Span span) {
    BusyEntity entity = new BusyEntity();
    entity.outlet = outlet;
    entity.href = href;
    entity.uidHash = uidHash;
    entity.starts = span.starts();
    entity.ends = span.ends();
    entity.firstDay = span.days().map(DaySpan::first).orElse(null);
    entity.untilDay = span.days().map(DaySpan::until).orElse(null);
    entity.tentative = span.tentative();
    kept.persist(entity);
  }

  /** Whose calendars are read. */
  public List<PersonId> people() {
    return kept
        .createQuery(
            """
            select distinct k.person from LinkEntity k join OutletEntity o on o.link = k.id
            where k.endedAt is null and k.person is not null and o.readsBusy = true order by 1
            """,
            Long.class)
        .getResultList()
        .stream()
        .map(PersonId::of)
        .toList();
  }

  /**
   * What takes somebody's time.
   *
   * @param uidHash tells an event from others: it may stand in two calendars
   * @param firstDay of whole days; else null
   */
  public record Busy(
      long person,
      String uidHash,
      Instant starts,
      Instant ends,
      LocalDate firstDay,
      LocalDate untilDay,
      boolean tentative) {}

  /** What touches a span; of one person, event and start the longest first. */
  public List<Busy> between(Collection<PersonId> people, Instant from, Instant until) {
    return kept.createQuery(
            """
            select k.person, b.uidHash, b.starts, b.ends, b.firstDay, b.untilDay, b.tentative
            from BusyEntity b join OutletEntity o on o.id = b.outlet
              join LinkEntity k on k.id = o.link
            where k.endedAt is null and holds(:people, k.person)
              and b.starts < :until and b.ends > :from
            order by k.person, b.uidHash, b.starts, b.ends desc
            """,
            Busy.class)
        .setParameter("people", people.stream().map(PersonId::value).toArray(Long[]::new))
        .setParameter("from", from)
        .setParameter("until", until)
        .getResultList();
  }

  /** When somebody's calendar was read last; empty: not yet. */
  public record ReadAt(PersonId person, Optional<Instant> at) {}

  /** Of each of their calendars that is read, by person. */
  public List<ReadAt> read(Collection<PersonId> people) {
    record Row(long person, Instant at) {}
    return kept
        .createQuery(
            """
            select k.person, o.readAt from OutletEntity o join LinkEntity k on k.id = o.link
            where k.endedAt is null and holds(:people, k.person) and o.readsBusy = true
            order by k.person
            """,
            Row.class)
        .setParameter("people", people.stream().map(PersonId::value).toArray(Long[]::new))
        .getResultList()
        .stream()
        .map(row -> new ReadAt(PersonId.of(row.person()), Optional.ofNullable(row.at())))
        .toList();
  }
}
