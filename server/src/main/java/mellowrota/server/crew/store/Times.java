package mellowrota.server.crew.store;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.work.PlaceId;
import mellowrota.server.crew.WorkTimes.Away;
import mellowrota.server.crew.WorkTimes.Dated;
import mellowrota.server.crew.WorkTimes.Hours;
import mellowrota.server.crew.WorkTimes.Span;
import org.springframework.stereotype.Repository;

/** Hours and leave as they are kept. */
@Repository
@RequiredArgsConstructor
public class Times {

  private final EntityManager kept;

  public List<Hours> hours() {
    return kept
        .createQuery("from HoursEntity order by person, weekday, fromTime, id", HoursEntity.class)
        .getResultList()
        .stream()
        .map(HoursEntity::hours)
        .toList();
  }

  /** Of some people alone. */
  public List<Hours> hours(Collection<PersonId> people) {
    return kept
        .createQuery(
            "from HoursEntity where holds(:people, person) order by person, weekday, fromTime, id",
            HoursEntity.class)
        .setParameter("people", people.stream().map(PersonId::value).toArray(Long[]::new))
        .getResultList()
        .stream()
        .map(HoursEntity::hours)
        .toList();
  }

  /** In place of what was said before. */
  public void setHours(PersonId person, Collection<Hours> hours) {
    kept.createQuery("delete from HoursEntity where person = :person")
        .setParameter("person", person.value())
        .executeUpdate();
    hours.forEach(one -> kept.persist(new HoursEntity(person, one)));
  }

  /** In a range of days. */
  public List<Dated> dated(LocalDate first, LocalDate until) {
    return kept
        .createQuery(
            """
            from DatedHoursEntity where day >= :first and day < :until
            order by person, day, place nulls first
            """,
            DatedHoursEntity.class)
        .setParameter("first", first)
        .setParameter("until", until)
        .getResultList()
        .stream()
        .map(DatedHoursEntity::dated)
        .toList();
  }

  public void removeDated(PersonId person, LocalDate day, Optional<PlaceId> place) {
    kept.createQuery(
            """
            delete from DatedHoursEntity
            where person = :person and day = :day and coalesce(place, 0) = :place
            """)
        .setParameter("person", person.value())
        .setParameter("day", day)
        .setParameter("place", place.map(PlaceId::value).orElse(0L))
        .executeUpdate();
  }

  public void add(Dated dated) {
    kept.persist(new DatedHoursEntity(dated));
  }

  /** In a range of days. */
  public List<Away> away(LocalDate first, LocalDate until) {
    return kept
        .createQuery(
            """
            from LeaveEntity where firstDay < :until and untilDay > :first
            order by person, firstDay, id
            """,
            LeaveEntity.class)
        .setParameter("until", until)
        .setParameter("first", first)
        .getResultList()
        .stream()
        .map(LeaveEntity::away)
        .toList();
  }

  public Optional<Away> leave(PersonId person, long id) {
    return entity(person, id).map(LeaveEntity::away);
  }

  public void addLeave(
      PersonId person, DaySpan days, Optional<Span> hours, boolean agreed, boolean sick) {
    kept.persist(new LeaveEntity(person, days, hours, agreed, sick));
  }

  /** Whether there was such a leave to agree to. */
  public boolean agree(PersonId person, long id) {
    Optional<LeaveEntity> entity = entity(person, id);
    entity.ifPresent(one -> one.agreed = true);
    return entity.isPresent();
  }

  /** Whether there was such a leave to take back. */
  public boolean removeLeave(PersonId person, long id) {
    Optional<LeaveEntity> entity = entity(person, id);
    entity.ifPresent(kept::remove);
    return entity.isPresent();
  }

  private Optional<LeaveEntity> entity(PersonId person, long id) {
    return Optional.ofNullable(kept.find(LeaveEntity.class, id))
        .filter(one -> one.person == person.value());
  }
}
