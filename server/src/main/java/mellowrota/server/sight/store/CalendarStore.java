package mellowrota.server.sight.store;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.Person;
import mellowrota.server.crew.store.Persons;
import mellowrota.server.crew.store.Places;
import mellowrota.server.crew.store.Teams;
import org.springframework.stereotype.Repository;

/** Calendars as they are kept, and the ways of reading them. */
@Repository
@RequiredArgsConstructor
public class CalendarStore {

  /**
   * The beginning of a native statement: the table {@code taken} of the next change numbers ({@code
   * id}, {@code change_no}) of the calendars {@code :calendars}, whose rows are locked in the order
   * of their numbers until the act is committed (one round trip; HQL has no such lock).
   */
  public static final String NEXT_NUMBERS =
      """
      with locked as (select id from calendar where id = any(:calendars) order by id for update),
        taken as (
          update calendar c set change_no = c.change_no + 1 from locked where c.id = locked.id
          returning c.id, c.change_no)
      """;

  private final EntityManager kept;
  private final Persons persons;
  private final Teams teams;
  private final Places places;

  private List<CalendarEntity> entities() {
    return kept.createQuery("from CalendarEntity order by id", CalendarEntity.class)
        .getResultList();
  }

  public List<Calendar> all() {
    return entities().stream().map(CalendarEntity::calendar).toList();
  }

  /** Makes a calendar that belongs to the house. */
  public CalendarId add(Calendar.Owner owner, String name) {
    CalendarEntity entity = new CalendarEntity(owner, name);
    kept.persist(entity);
    return CalendarId.of(entity.id);
  }

  /**
   * Sees to it that everybody, every team and every place has a calendar, named after them, and
   * that whoever belongs to a calendar can read it.
   */
  public void keep() {
    Map<Calendar.Owner, String> names = names();
    for (CalendarEntity one : entities()) {
      Optional.ofNullable(names.remove(one.calendar().owner())).ifPresent(name -> one.name = name);
    }
    // Names that are free by now may be taken anew.
    kept.flush();
    names.forEach(this::add);
    Set<Long> read =
        Set.copyOf(
            kept.createQuery("select calendar from RenderingEntity where way = MEMBERS", Long.class)
                .getResultList());
    for (CalendarEntity one : entities()) {
      if (!read.contains(one.id)) {
        let(CalendarId.of(one.id), new Rendering.Way.Members(), Optional.empty());
      }
    }
  }

  /** Names are unique, so equal ones get a number. */
  private Map<Calendar.Owner, String> names() {
    List<Person> people = persons.all();
    Map<String, Long> namesakes =
        people.stream().collect(Collectors.groupingBy(Person::name, Collectors.counting()));
    Map<Calendar.Owner, String> names = new LinkedHashMap<>();
    for (Person one : people) {
      String number = namesakes.get(one.name()) > 1 ? " (" + one.id().value() + ")" : "";
      names.put(new Calendar.Owner.Own(one.id()), one.name() + ", own" + number);
    }
    teams
        .all()
        .forEach(
            one ->
                names.put(
                    new Calendar.Owner.OfTeam(one.team().id()), one.team().name() + ", team"));
    places
        .all()
        .forEach(
            one -> names.put(new Calendar.Owner.OfPlace(one.id().value()), one.name() + ", place"));
    return names;
  }

  /** The ways of reading that there are on a day. */
  public List<Rendering> renderings(LocalDate day) {
    return kept
        .createQuery(
            """
            from RenderingEntity where way <> WITHDRAWN and (untilDay is null or untilDay > :day)
            order by id
            """,
            RenderingEntity.class)
        .setParameter("day", day)
        .getResultList()
        .stream()
        .map(RenderingEntity::rendering)
        .toList();
  }

  private RenderingEntity entity(RenderingId id) {
    return kept.find(RenderingEntity.class, id.value());
  }

  /**
   * Lets a calendar be read in one more way.
   *
   * @param until the first day on which it is over
   */
  public RenderingId let(CalendarId calendar, Rendering.Way way, Optional<LocalDate> until) {
    RenderingEntity entity = new RenderingEntity(calendar, way);
    entity.untilDay = until.orElse(null);
    kept.persist(entity);
    return RenderingId.of(entity.id);
  }

  /** Shows it at another level and until another day; clients read afresh. */
  public void change(RenderingId id, Level level, Optional<LocalDate> until) {
    RenderingEntity entity = entity(id);
    entity.level = level;
    entity.untilDay = until.orElse(null);
    entity.accessNo++;
  }

  /** From now on nobody reads by it. */
  public void withdraw(RenderingId id) {
    entity(id).way = RenderingEntity.Way.WITHDRAWN;
  }

  /** Who reads a copy beside its owner. */
  public void alsoRead(RenderingId id, Rendering.Way.Copy copy) {
    if (entity(id).way == RenderingEntity.Way.COPY) {
      entity(id).become(copy);
    }
  }

  /** Reads by one again that was withdrawn. */
  public void letAgain(RenderingId id, Rendering.Way way) {
    RenderingEntity entity = entity(id);
    entity.become(way);
    entity.accessNo++;
  }

  /**
   * What one way of reading shows.
   *
   * @param until the first day on which it is over
   * @param withdrawn nobody reads by it any more
   */
  public record Shown(
      CalendarId calendar, Level level, Optional<LocalDate> until, boolean withdrawn) {}

  /** Of these, whether they are read by or not. */
  public Map<RenderingId, Shown> shown(Collection<RenderingId> ids) {
    Map<RenderingId, Shown> found = new HashMap<>();
    if (ids.isEmpty()) {
      return found;
    }
    kept.createQuery("from RenderingEntity where holds(:ids, id)", RenderingEntity.class)
        .setParameter("ids", ids.stream().map(RenderingId::value).toArray(Long[]::new))
        .getResultList()
        .forEach(
            one ->
                found.put(
                    RenderingId.of(one.id),
                    new Shown(
                        CalendarId.of(one.calendar),
                        one.level,
                        Optional.ofNullable(one.untilDay),
                        one.way == RenderingEntity.Way.WITHDRAWN)));
    return found;
  }

  /** How far the calendars of these ways of reading are. */
  public Map<RenderingId, Long> changeNos(Collection<RenderingId> ids) {
    record Row(long rendering, long changeNo) {}
    Map<RenderingId, Long> found = new HashMap<>();
    kept.createQuery(
            """
            select r.id, c.changeNo from RenderingEntity r join CalendarEntity c
              on c.id = r.calendar where holds(:ids, r.id)
            """,
            Row.class)
        .setParameter("ids", ids.stream().map(RenderingId::value).toArray(Long[]::new))
        .getResultList()
        .forEach(row -> found.put(RenderingId.of(row.rendering()), row.changeNo()));
    return found;
  }

  /** The calendar's change number and the rendering's access number, as one reading sees them. */
  public record Position(long changeNo, long oldestNo, long accessNo) {}

  public Position position(RenderingId id) {
    return kept.createQuery(
            """
            select c.changeNo, c.oldestNo, r.accessNo
            from RenderingEntity r join CalendarEntity c on c.id = r.calendar where r.id = :id
            """,
            Position.class)
        .setParameter("id", id.value())
        .getSingleResult();
  }

  /**
   * Raises these calendars' numbers to the last one that a sequence gave.
   *
   * @param sequence of the control of the ordering test
   */
  public void raise(Collection<CalendarId> ids, String sequence) {
    kept.createNativeQuery(
            """
            update calendar set change_no = greatest(change_no,
              (select last_value from pg_sequences where sequencename = :sequence))
            where id = any(:ids)
            """)
        .setParameter("sequence", sequence)
        .setParameter("ids", ids.stream().map(CalendarId::value).toArray(Long[]::new))
        .executeUpdate();
  }
}
