package mellowrota.server.crew;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.people.Crew;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.DaySpan;
import mellowrota.server.acts.Acts;
import mellowrota.server.platform.Problem;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** When people work and when they are away. */
@Service
public class WorkTimes {

  private final JdbcClient jdbc;
  private final HouseStore house;
  private final Acts acts;

  WorkTimes(JdbcClient jdbc, HouseStore house, Acts acts) {
    this.jdbc = jdbc;
    this.house = house;
    this.acts = acts;
  }

  /**
   * Working hours on one weekday, in the house's zone.
   *
   * @param until on the next day where it is not after {@code from}
   */
  public record Hours(PersonId person, DayOfWeek weekday, LocalTime from, LocalTime until) {}

  /**
   * Days away.
   *
   * @param told whether the asker may know why
   */
  public record Away(long id, PersonId person, DaySpan days, boolean told) {}

  /** What somebody may know of these. */
  public record Known(List<Hours> hours, List<Away> away) {}

  /**
   * The hours of everybody the asker may know of, and the absences in a range of days; why somebody
   * is away is for themselves and for whoever has office rights on them.
   */
  public Known knownTo(Person asker, LocalDate first, LocalDate until) {
    Crew crew = crew();
    List<Hours> hours =
        jdbc.sql(
                """
                select person, weekday, from_time, until_time from working_hours
                order by person, weekday, from_time
                """)
            .query(
                (row, n) ->
                    new Hours(
                        PersonId.of(row.getLong(1)),
                        DayOfWeek.of(row.getInt(2)),
                        row.getObject(3, LocalTime.class),
                        row.getObject(4, LocalTime.class)))
            .list();
    List<Away> away =
        jdbc.sql(
                """
                select id, person, first_day, until_day from leave
                where first_day < ? and until_day > ? order by person, first_day, id
                """)
            .param(until)
            .param(first)
            .query(
                (row, n) -> {
                  PersonId person = PersonId.of(row.getLong(2));
                  return new Away(
                      row.getLong(1),
                      person,
                      DaySpan.of(
                          row.getObject(3, LocalDate.class), row.getObject(4, LocalDate.class)),
                      person.equals(asker.id()) || hasOfficeRights(crew, asker, person));
                })
            .list();
    boolean all = seesCrew(asker);
    return new Known(
        hours.stream().filter(h -> all || h.person().equals(asker.id())).toList(),
        away.stream().filter(a -> all || a.person().equals(asker.id())).toList());
  }

  /** Outside and agency people know of themselves alone. */
  static boolean seesCrew(Person person) {
    return person.everywhere().isCrew() || person.isCoordinator() || person.isTeamCoordinator();
  }

  private Crew crew() {
    return Crew.on(house.today(), house.people(), house.teams(), house.memberships());
  }

  /** Of these people, those on whom somebody has office rights. */
  public Set<PersonId> officeOver(Person asker, Collection<PersonId> people) {
    Crew crew = crew();
    return people.stream()
        .filter(person -> hasOfficeRights(crew, asker, person))
        .collect(Collectors.toSet());
  }

  private static boolean hasOfficeRights(Crew crew, Person asker, PersonId over) {
    if (asker.isCoordinator()) {
      return true;
    }
    Set<TeamId> wider = new HashSet<>();
    crew.directTeams(over).forEach(team -> wider.addAll(crew.selfAndAncestors(team)));
    return asker.isTeamCoordinator() && asker.coordinates().stream().anyMatch(wider::contains);
  }

  /** Refuses whoever has no office rights on a person. */
  void requireOffice(Person asker, PersonId over) {
    if (crew().person(over).filter(person -> !person.hasLeft()).isEmpty()) {
      throw Problem.notFound();
    }
    if (!hasOfficeRights(crew(), asker, over)) {
      throw Problem.forbidden("Hours and leave are settled by coordinators; ask one of yours.");
    }
  }

  /** Replaces a person's working hours. */
  @Transactional
  public void setHours(PersonId actor, PersonId person, Collection<Hours> hours) {
    act(
        actor,
        "crew.hours",
        () -> {
          jdbc.sql("delete from working_hours where person = ?").param(person.value()).update();
          for (Hours h : hours) {
            jdbc.sql(
                    """
                    insert into working_hours (person, weekday, from_time, until_time)
                    values (?, ?, ?, ?) on conflict do nothing
                    """)
                .param(person.value())
                .param(h.weekday().getValue())
                .param(h.from())
                .param(h.until())
                .update();
          }
        });
  }

  /** Notes days of leave. */
  @Transactional
  public void addLeave(PersonId actor, PersonId person, DaySpan days) {
    act(
        actor,
        "crew.leave",
        () ->
            jdbc.sql("insert into leave (person, first_day, until_day) values (?, ?, ?)")
                .param(person.value())
                .param(days.first())
                .param(days.until())
                .update());
  }

  /** Takes days of leave back. */
  @Transactional
  public void removeLeave(PersonId actor, PersonId person, long leave) {
    act(
        actor,
        "crew.leave",
        () -> {
          int gone =
              jdbc.sql("delete from leave where id = ? and person = ?")
                  .param(leave)
                  .param(person.value())
                  .update();
          if (gone == 0) {
            throw Problem.notFound();
          }
        });
  }

  private void act(PersonId actor, String kind, Runnable change) {
    acts.run(
        Acts.Wanted.by(actor, kind, Optional.empty(), ""),
        act -> {
          change.run();
          return "";
        });
  }
}
