package mellowrota.server.crew;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.people.Crew;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Acts;
import mellowrota.server.platform.Problem;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

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
   * Working hours on one weekday, in the zone of the place, else of the person.
   *
   * @param until on the next day where it is not after {@code from}
   * @param place for work there only; empty: for work everywhere
   * @param first from when they hold; empty: from ever
   * @param last the last day on which they hold; empty: for ever
   */
  public record Hours(
      PersonId person,
      DayOfWeek weekday,
      LocalTime from,
      LocalTime until,
      Optional<PlaceId> place,
      Optional<LocalDate> first,
      Optional<LocalDate> last) {}

  /**
   * What holds on one day in place of the week's hours.
   *
   * @param place in place of those there only; empty: of all
   * @param times none: not at work
   */
  public record Dated(PersonId person, LocalDate day, Optional<PlaceId> place, List<Span> times) {}

  /** From one time of the day until another, the next day's where it is not after it. */
  public record Span(LocalTime from, LocalTime until) {}

  /**
   * Days away.
   *
   * @param agreed else it is asked for, and changes nothing yet
   * @param told whether the asker may know why
   */
  public record Away(
      long id, PersonId person, DaySpan days, boolean agreed, boolean sick, boolean told) {}

  /**
   * In whose days somebody works, and for how long in a week.
   *
   * @param zone empty: the house's
   * @param contract empty: nobody has said
   */
  public record Terms(Optional<ZoneId> zone, Optional<Duration> contract) {
    public static final Terms UNSAID = new Terms(Optional.empty(), Optional.empty());
  }

  /** What somebody may know of these. */
  public record Known(List<Hours> hours, List<Dated> dated, List<Away> away) {}

  /**
   * The hours of everybody the asker may know of, and the absences in a range of days; why somebody
   * is away is for themselves and for whoever has office rights on them.
   */
  public Known knownTo(Person asker, LocalDate first, LocalDate until) {
    Crew crew = crew();
    List<Hours> hours = hours();
    List<Away> away =
        away(first, until).stream()
            .map(
                one ->
                    new Away(
                        one.id(),
                        one.person(),
                        one.days(),
                        one.agreed(),
                        one.sick(),
                        one.person().equals(asker.id())
                            || hasOfficeRights(crew, asker, one.person())))
            .toList();
    boolean all = seesCrew(asker);
    return new Known(
        hours.stream().filter(h -> all || h.person().equals(asker.id())).toList(),
        dated(first, until).stream().filter(d -> all || d.person().equals(asker.id())).toList(),
        away.stream()
            // What is only asked for is for themselves and their office.
            .filter(a -> a.told() || a.agreed() && all)
            .toList());
  }

  /** Everybody's working hours, for computing; what of them is shown is the caller's to say. */
  public List<Hours> hours() {
    return jdbc.sql(
            """
            select person, weekday, from_time, until_time, place, first_day, last_day
            from working_hours order by person, weekday, from_time, id
            """)
        .query(
            (row, n) ->
                new Hours(
                    PersonId.of(row.getLong(1)),
                    DayOfWeek.of(row.getInt(2)),
                    row.getObject(3, LocalTime.class),
                    row.getObject(4, LocalTime.class),
                    place(row, 5),
                    Optional.ofNullable(row.getObject(6, LocalDate.class)),
                    Optional.ofNullable(row.getObject(7, LocalDate.class))))
        .list();
  }

  private static Optional<PlaceId> place(ResultSet row, int column) throws SQLException {
    return Optional.ofNullable(row.getObject(column, Long.class)).map(PlaceId::of);
  }

  /** Everybody's other hours in a range of days, for computing. */
  public List<Dated> dated(LocalDate first, LocalDate until) {
    return jdbc.sql(
            """
            select person, day, place, times from hours_dated where day >= ? and day < ?
            order by person, day, place nulls first
            """)
        .param(first)
        .param(until)
        .query(
            (row, n) ->
                new Dated(
                    PersonId.of(row.getLong(1)),
                    row.getObject(2, LocalDate.class),
                    place(row, 3),
                    Arrays.stream(row.getString(4).split(" "))
                        .filter(one -> !one.isEmpty())
                        .map(one -> one.split("-"))
                        .map(one -> new Span(LocalTime.parse(one[0]), LocalTime.parse(one[1])))
                        .toList()))
        .list();
  }

  /** Of everybody about whom something is said. */
  public Map<PersonId, Terms> terms() {
    Map<PersonId, Terms> found = new HashMap<>();
    jdbc.sql(
            """
            select id, zone, contract_minutes from person
            where zone is not null or contract_minutes is not null
            """)
        .query(
            row -> {
              found.put(
                  PersonId.of(row.getLong(1)),
                  new Terms(
                      Optional.ofNullable(row.getString(2)).map(ZoneId::of),
                      Optional.ofNullable(row.getObject(3, Integer.class))
                          .map(Duration::ofMinutes)));
            });
    return found;
  }

  /** Everybody's absences in a range of days, for computing; {@code told} of none. */
  public List<Away> away(LocalDate first, LocalDate until) {
    return jdbc.sql(
            """
            select id, person, first_day, until_day, agreed, sick from leave
            where first_day < ? and until_day > ? order by person, first_day, id
            """)
        .param(until)
        .param(first)
        .query(
            (row, n) ->
                new Away(
                    row.getLong(1),
                    PersonId.of(row.getLong(2)),
                    DaySpan.of(
                        row.getObject(3, LocalDate.class), row.getObject(4, LocalDate.class)),
                    row.getBoolean(5),
                    row.getBoolean(6),
                    false))
        .list();
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

  /** Of these people, those whom somebody answers for: themselves and who they have office on. */
  public Set<PersonId> answeredForBy(Person asker, Collection<PersonId> people) {
    Set<PersonId> found = new HashSet<>(officeOver(asker, people));
    found.add(asker.id());
    return found;
  }

  private static boolean hasOfficeRights(Crew crew, Person asker, PersonId over) {
    if (asker.isCoordinator()) {
      return true;
    }
    Set<TeamId> wider = new HashSet<>();
    crew.directTeams(over).forEach(team -> wider.addAll(crew.selfAndAncestors(team)));
    return asker.isTeamCoordinator() && asker.coordinates().stream().anyMatch(wider::contains);
  }

  /** Whether somebody has office rights on a person. */
  boolean answersFor(Person asker, PersonId over) {
    return hasOfficeRights(crew(), asker, over);
  }

  /** Whether leave is theirs and nobody has agreed to it. */
  boolean isOnlyAskedFor(PersonId person, long leave) {
    return jdbc.sql(
            "select exists (select 1 from leave where id = ? and person = ? and not agreed)")
        .param(leave)
        .param(person.value())
        .query(Boolean.class)
        .single();
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
  public void setHours(PersonId actor, PersonId person, Collection<Hours> hours) {
    act(
        actor,
        "crew.hours",
        () -> {
          jdbc.sql("delete from working_hours where person = ?").param(person.value()).update();
          for (Hours h : hours) {
            jdbc.sql(
                    """
                    insert into working_hours (person, weekday, from_time, until_time, place,
                      first_day, last_day) values (?, ?, ?, ?, ?, ?, ?)
                    """)
                .param(person.value())
                .param(h.weekday().getValue())
                .param(h.from())
                .param(h.until())
                .param(h.place().map(PlaceId::value).orElse(null))
                .param(h.first().orElse(null))
                .param(h.last().orElse(null))
                .update();
          }
        });
  }

  /** Sets what holds on one day, of one place or of all; empty: as in every week again. */
  public void setDated(
      PersonId actor,
      PersonId person,
      LocalDate day,
      Optional<PlaceId> place,
      Optional<List<Span>> times) {
    act(
        actor,
        "crew.hours",
        () -> {
          jdbc.sql(
                  "delete from hours_dated where person = ? and day = ? and coalesce(place, 0) = ?")
              .param(person.value())
              .param(day)
              .param(place.map(PlaceId::value).orElse(0L))
              .update();
          times.ifPresent(
              spans ->
                  jdbc.sql(
                          "insert into hours_dated (person, day, place, times) values (?, ?, ?, ?)")
                      .param(person.value())
                      .param(day)
                      .param(place.map(PlaceId::value).orElse(null))
                      .param(
                          spans.stream()
                              .map(one -> one.from() + "-" + one.until())
                              .collect(Collectors.joining(" ")))
                      .update());
        });
  }

  /** Sets in whose days somebody works and for how long. */
  public void setTerms(PersonId actor, PersonId person, Terms terms) {
    act(
        actor,
        "crew.terms",
        () ->
            jdbc.sql("update person set zone = ?, contract_minutes = ? where id = ?")
                .param(terms.zone().map(ZoneId::getId).orElse(null))
                .param(terms.contract().map(one -> (int) one.toMinutes()).orElse(null))
                .param(person.value())
                .update());
  }

  /** Notes days of leave, agreed or asked for. */
  public void addLeave(
      PersonId actor, PersonId person, DaySpan days, boolean agreed, boolean sick) {
    act(
        actor,
        "crew.leave",
        () ->
            jdbc.sql(
                    """
                    insert into leave (person, first_day, until_day, agreed, sick)
                    values (?, ?, ?, ?, ?)
                    """)
                .param(person.value())
                .param(days.first())
                .param(days.until())
                .param(agreed)
                .param(sick)
                .update());
  }

  /** Agrees to leave that is asked for. */
  public void agree(PersonId actor, PersonId person, long leave) {
    act(
        actor,
        "crew.leave",
        () -> {
          int found =
              jdbc.sql("update leave set agreed = true where id = ? and person = ?")
                  .param(leave)
                  .param(person.value())
                  .update();
          if (found == 0) {
            throw Problem.notFound();
          }
        });
  }

  /** Takes days of leave back. */
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
