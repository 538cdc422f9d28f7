package mellowrota.server.records.store;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import org.springframework.stereotype.Repository;

/** Which records there are, by when they are and how they stand; who may open them is not asked. */
@Repository
@RequiredArgsConstructor
public class RecordSets {

  private static final Set<State> STANDING = Set.of(State.TENTATIVE, State.CONFIRMED, State.DONE);

  private final EntityManager kept;

  /**
   * A range of time and of days, neither with its end.
   *
   * @param longest work that lasts more days is not looked for
   */
  public record Range(Instant start, Instant end, LocalDate first, LocalDate until, int longest) {}

  private record Versioned(long id, long version) {}

  private Map<Long, Long> versions(TypedQuery<Versioned> query) {
    return query.getResultList().stream()
        .collect(
            Collectors.toMap(
                Versioned::id, Versioned::version, (one, other) -> one, LinkedHashMap::new));
  }

  private TypedQuery<Versioned> inRange(
      String due, String also, Range range, Collection<State> states) {
    return kept.createQuery(
            """
            select r.id, r.version from RecordEntity r where holds(:states, r.state) and r.id in (
              select o.id from RecordEntity o join o.visits v
                where v.starts < :end and v.ends >= :start and v.starts > :earliest
              union select o.id from RecordEntity o join o.visits v
                where v.dateFrom < :until and v.dateTo > :first and v.dateFrom > :earliestDay
              union select o.id from RecordEntity o where
            """
                + due
                + ") "
                + also
                + " order by r.id",
            Versioned.class)
        .setParameter("states", names(states))
        .setParameter("start", range.start())
        .setParameter("end", range.end())
        .setParameter("earliest", range.start().minusSeconds(range.longest() * 86_400L))
        .setParameter("first", range.first())
        .setParameter("until", range.until())
        .setParameter("earliestDay", range.first().minusDays(range.longest()));
  }

  /** What is not called off and lies in a range, tickets from when they were given on. */
  public Map<Long, Long> onBoard(Range range) {
    return versions(
        inRange(
                """
                o.dueAt >= :start and o.dueAt < :latest and (o.dueAt < :end or exists (
                  select 1 from RecordEntity t join t.assignments a
                  where t.id = o.id and a.givenAt < :end))
                """,
                "",
                range,
                Set.of(State.DRAFT, State.TENTATIVE, State.CONFIRMED, State.DONE))
            .setParameter("latest", range.end().plusSeconds(range.longest() * 86_400L)));
  }

  /** What stands and lies, or is due, in a range. */
  public Map<Long, Long> standing(Range range) {
    return versions(inRange("o.dueAt >= :start and o.dueAt < :end", "", range, STANDING));
  }

  /** What of it these people are on, or stands in these places or uses them. */
  public Map<Long, Long> standing(Range range, Set<PersonId> people, Set<PlaceId> places) {
    return versions(
        inRange(
                "o.dueAt >= :start and o.dueAt < :end",
                """
                and (holds(:places, r.place) or array_intersects(r.uses, :places) or exists (
                  select 1 from RecordEntity p join p.assignments a
                  where p.id = r.id and a.holderKind = 'P' and holds(:people, a.holder)))
                """,
                range,
                STANDING)
            .setParameter("people", people.stream().map(PersonId::value).toArray(Long[]::new))
            .setParameter("places", places.stream().map(PlaceId::value).toArray(Long[]::new)));
  }

  /** What is to be done by a due time and somebody has. */
  public Map<Long, Long> given() {
    return versions(
        kept.createQuery(
            """
            select r.id, r.version from RecordEntity r
            where r.state in (TENTATIVE, CONFIRMED) and r.dueAt is not null
              and r.assignments is not empty
            order by r.id
            """,
            Versioned.class));
  }

  /** The next ones after a number. */
  public List<RecordId> after(long number, int most) {
    return ids(
        kept.createQuery("select id from RecordEntity where id > :number order by id", Long.class)
            .setParameter("number", number)
            .setMaxResults(most));
  }

  /** The next ones after a number that stand. */
  public List<RecordId> standingAfter(long number, int most) {
    return ids(
        kept.createQuery(
                """
                select id from RecordEntity where id > :number and holds(:standing, state) order by id
                """,
                Long.class)
            .setParameter("number", number)
            .setParameter("standing", names(STANDING))
            .setMaxResults(most));
  }

  /** What is open at a place and has a time of this zone ahead. */
  public List<RecordId> ahead(PlaceId place, ZoneId zone, Instant now) {
    return ids(
        kept.createQuery(
                """
                select r.id from RecordEntity r
                where r.place = :place and r.state in (DRAFT, TENTATIVE, CONFIRMED)
                  and (r.due.zone = :zone and r.dueAt > :now
                    or exists (select 1 from RecordEntity o join o.visits v
                      where o.id = r.id and v.zone = :zone and v.starts > :now)
                    or exists (select 1 from RecordEntity o join o.dates d
                      where o.id = r.id and d.due.zone = :zone))
                order by r.id
                """,
                Long.class)
            .setParameter("place", place.value())
            .setParameter("zone", zone.getId())
            .setParameter("now", now));
  }

  /** How many stand. */
  public long standing() {
    return kept.createQuery(
            "select count(*) from RecordEntity where holds(:standing, state)", Long.class)
        .setParameter("standing", names(STANDING))
        .getSingleResult();
  }

  /** Those that were changed or made since. */
  public List<RecordId> changedSince(Instant since) {
    return ids(
        kept.createQuery(
                """
                select h.record from HistoryEntity h join ActEntity a on a.id = h.act
                where a.at >= :since
                union select r.id from RecordEntity r where r.createdAt >= :since order by 1
                """,
                Long.class)
            .setParameter("since", since));
  }

  /** Which of these ended before a day that begins then; what has no time never ends. */
  public Set<RecordId> past(Collection<RecordId> of, Instant at, LocalDate day) {
    return Set.copyOf(
        ids(
            kept.createQuery(
                    """
                    select r.id from RecordEntity r where holds(:ids, r.id)
                      and (r.dueAt is null or r.dueAt <= :at)
                      and not exists (select 1 from RecordEntity o join o.visits v
                        where o.id = r.id and (v.ends > :at or v.dateTo > :day))
                      and (r.dueAt is not null or exists (
                        select 1 from RecordEntity o join o.visits v
                        where o.id = r.id and (v.ends is not null or v.dateTo is not null)))
                    """,
                    Long.class)
                .setParameter("ids", of.stream().map(RecordId::value).toArray(Long[]::new))
                .setParameter("at", at)
                .setParameter("day", day)));
  }

  private static String[] names(Collection<State> states) {
    return states.stream().map(State::name).toArray(String[]::new);
  }

  private static List<RecordId> ids(TypedQuery<Long> query) {
    return query.getResultList().stream().map(RecordId::of).toList();
  }
}
