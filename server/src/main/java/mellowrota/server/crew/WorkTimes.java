package mellowrota.server.crew;

import static mellowrota.server.platform.Words.say;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Crew;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Acts;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.crew.store.Persons;
import mellowrota.server.crew.store.Times;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Service;

/** When people work and when they are away. */
@Service
@RequiredArgsConstructor
public class WorkTimes {

  private final Times times;
  private final Persons persons;
  private final HouseStore house;
  private final Acts acts;

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
   * @param hours of the one day it is, in the person's zone; empty: all of each day
   * @param agreed else it is asked for, and changes nothing yet
   * @param told whether the asker may know why
   */
  public record Away(
      long id,
      PersonId person,
      DaySpan days,
      Optional<Span> hours,
      boolean agreed,
      boolean sick,
      boolean told) {

    /** What it takes. */
    public TimeSpan in(ZoneId zone) {
      return hours
          .map(
              one ->
                  TimeSpan.of(
                      LocalTimes.moment(days.first().atTime(one.from()), zone),
                      LocalTimes.moment(days.first().atTime(one.until()), zone)))
          .orElseGet(() -> days.in(zone));
    }
  }

  /**
   * In whose days somebody works, for how long in a week, and until when.
   *
   * @param zone empty: the house's
   * @param contract empty: nobody has said
   * @param lastDay with the house; empty: it does not end
   */
  public record Terms(
      Optional<ZoneId> zone, Optional<Duration> contract, Optional<LocalDate> lastDay) {
    public static final Terms UNSAID =
        new Terms(Optional.empty(), Optional.empty(), Optional.empty());
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
                        one.hours(),
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
    return times.hours();
  }

  /** The same of some people alone. */
  public List<Hours> hours(Collection<PersonId> people) {
    return times.hours(people);
  }

  /** Everybody's other hours in a range of days, for computing. */
  public List<Dated> dated(LocalDate first, LocalDate until) {
    return times.dated(first, until);
  }

  /** Of everybody about whom something is said. */
  public Map<PersonId, Terms> terms() {
    return persons.terms();
  }

  /** In whose days each works. */
  public Function<PersonId, ZoneId> zones(ZoneId house) {
    Map<PersonId, Terms> terms = terms();
    return person -> terms.getOrDefault(person, Terms.UNSAID).zone().orElse(house);
  }

  /** Everybody's absences in a range of days, for computing; {@code told} of none. */
  public List<Away> away(LocalDate first, LocalDate until) {
    return times.away(first, until);
  }

  /** Outside and agency people know of themselves alone. */
  public static boolean seesCrew(Person person) {
    return person.everywhere().isCrew() || person.isCoordinator() || person.isTeamCoordinator();
  }

  private Crew crew() {
    return Crew.on(house.today(), house.people(), house.teams(), house.memberships());
  }

  /** Of these people, those on whom somebody has office rights. */
  public Set<PersonId> officeOver(Person asker, Collection<PersonId> people) {
    if (asker.isCoordinator()) {
      return Set.copyOf(people);
    }
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
    return times.leave(person, leave).filter(one -> !one.agreed()).isPresent();
  }

  /** Refuses whoever has no office rights on a person. */
  void requireOffice(Person asker, PersonId over) {
    if (crew().person(over).filter(person -> !person.hasLeft()).isEmpty()) {
      throw Problem.notFound();
    }
    if (!hasOfficeRights(crew(), asker, over)) {
      throw Problem.forbidden(say("crew.only-coordinators-can-change-hours"));
    }
  }

  /** Replaces a person's working hours. */
  public void setHours(PersonId actor, PersonId person, Collection<Hours> hours) {
    act(actor, "crew.hours", () -> times.setHours(person, hours));
  }

  /** Sets what holds on one day, of one place or of all; empty: as in every week again. */
  public void setDated(
      PersonId actor,
      PersonId person,
      LocalDate day,
      Optional<PlaceId> place,
      Optional<List<Span>> spans) {
    act(
        actor,
        "crew.hours",
        () -> {
          times.removeDated(person, day, place);
          spans.ifPresent(some -> times.add(new Dated(person, day, place, some)));
        });
  }

  /** Sets in whose days somebody works and for how long. */
  public void setTerms(PersonId actor, PersonId person, Terms terms) {
    act(actor, "crew.terms", () -> persons.setTerms(person, terms));
  }

  /**
   * Notes days of leave, agreed or asked for.
   *
   * @param hours of one day; empty: all of each
   */
  public void addLeave(
      PersonId actor,
      PersonId person,
      DaySpan days,
      Optional<Span> hours,
      boolean agreed,
      boolean sick) {
    act(actor, "crew.leave", () -> times.addLeave(person, days, hours, agreed, sick));
  }

  /** Agrees to leave that is asked for. */
  public void agree(PersonId actor, PersonId person, long leave) {
    act(actor, "crew.leave", () -> require(times.agree(person, leave)));
  }

  /** Takes days of leave back. */
  public void removeLeave(PersonId actor, PersonId person, long leave) {
    act(actor, "crew.leave", () -> require(times.removeLeave(person, leave)));
  }

  private static void require(boolean there) {
    if (!there) {
      throw Problem.notFound();
    }
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
