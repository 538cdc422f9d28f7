package mellowrota.server.crew;

import static mellowrota.server.platform.Words.say;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.Validity;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Act;
import mellowrota.server.acts.Acts;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.crew.store.Persons;
import mellowrota.server.crew.store.Places;
import mellowrota.server.crew.store.Teams;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** People, teams and places: changed by coordinators, each change an act. */
@Service
@RequiredArgsConstructor
public class People {

  private final Persons persons;
  private final Teams teams;
  private final Places places;
  private final HouseStore house;
  private final Acts acts;
  private final TimesAtPlaces times;

  @Transactional(readOnly = true)
  public Optional<Person> find(PersonId id) {
    return persons.find(id);
  }

  public void requireCoordinator(Asker asker) {
    if (find(asker.person()).filter(Person::isCoordinator).isEmpty()) {
      throw Problem.forbidden(say("crew.only-coordinators-can-change"));
    }
  }

  private <T> T act(PersonId actor, String kind, Supplier<T> change) {
    return act(actor, kind, act -> change.get());
  }

  private <T> T act(PersonId actor, String kind, Function<Act, T> change) {
    List<T> result = new ArrayList<>();
    acts.run(
        Acts.Wanted.by(actor, kind, Optional.empty(), "").changingTheWorld(),
        act -> {
          result.clear();
          result.add(change.apply(act));
          return "";
        });
    return result.get(0);
  }

  /** Adds somebody; nobody has an account by that alone. */
  public PersonId add(PersonId actor, String name, Person.Standing standing) {
    return act(actor, "crew.person", () -> persons.add(name, standing, Person.AccountRight.NONE));
  }

  /** The one who begins an empty house. */
  public PersonId addFirstCoordinator(String name) {
    return act(
        PersonId.of(Acts.THE_HOUSE),
        "crew.first",
        () -> persons.add(name, Person.Standing.HOUSE, Person.AccountRight.COORDINATOR));
  }

  /** What may change about a person; what is empty stays. */
  public record PersonChange(
      Optional<String> name,
      Optional<Person.Standing> standing,
      Optional<Person.AccountRight> right,
      Optional<Set<TeamId>> coordinates) {

    private Person of(Person before) {
      return new Person(
          before.id(),
          name.orElse(before.name()),
          standing.orElse(before.standing()),
          right.orElse(before.right()),
          coordinates.orElse(before.coordinates()));
    }
  }

  public void change(PersonId actor, PersonId id, PersonChange change) {
    act(
        actor,
        "crew.person",
        () -> {
          change.coordinates().ifPresent(this::requireTeams);
          persons.keep(change.of(persons.find(id).orElseThrow(Problem::notFound)));
          requireSomeCoordinator();
          return true;
        });
  }

  private void requireTeams(Set<TeamId> ids) {
    if (!ids.stream().allMatch(teams::has)) {
      throw Problem.fault("/coordinates", say("crew.names-a-team-that"));
    }
  }

  private void requireSomeCoordinator() {
    if (persons.all().stream().noneMatch(Person::isCoordinator)) {
      throw Problem.of(409, "last-coordinator", say("crew.the-organisation-needs-at"));
    }
  }

  /**
   * Why somebody may not end on a day; empty: they may.
   *
   * @throws Problem where the asker is no coordinator
   */
  Optional<String> requireMayEnd(Person asker, PersonId person, Optional<LocalDate> lastDay) {
    if (!asker.isCoordinator()) {
      throw Problem.forbidden(say("crew.only-coordinators-can-change"));
    }
    if (lastDay.filter(day -> day.isBefore(house.today())).isPresent()) {
      return Optional.of(say("crew.is-over-already"));
    }
    return lastDay.isPresent() && isLastCoordinator(person)
        ? Optional.of(say("crew.the-organisation-needs-at"))
        : Optional.empty();
  }

  private boolean isLastCoordinator(PersonId person) {
    return persons.all().stream()
        .filter(Person::isCoordinator)
        .map(Person::id)
        .toList()
        .equals(List.of(person));
  }

  /**
   * Those whose last day is over have left, as an act of the house; the last coordinator stays
   * until there is another. Safe to run in several processes: the act's key names person and day.
   */
  public void leaveWhoseTimeIsOver() {
    persons
        .lastDays()
        .forEach(
            (person, lastDay) -> {
              if (lastDay.isBefore(house.today()) && !isLastCoordinator(person)) {
                acts.run(
                    Acts.Wanted.byTheHouse("crew.person")
                        .under(Optional.of("left-" + person.value() + "-" + lastDay))
                        .changingTheWorld(),
                    act -> {
                      // Somebody may have given them longer meanwhile.
                      if (lastDay.equals(persons.lastDays().get(person))) {
                        persons.leave(person);
                      }
                      return "";
                    });
              }
            });
  }

  public void setRight(PersonId actor, PersonId id, Person.AccountRight right) {
    change(
        actor,
        id,
        new PersonChange(Optional.empty(), Optional.empty(), Optional.of(right), Optional.empty()));
  }

  public TeamId addTeam(PersonId actor, String name, String hue) {
    return act(
        actor,
        "crew.team",
        () -> {
          requireFree(name, Optional.empty());
          return teams.add(name, hue);
        });
  }

  public void renameTeam(PersonId actor, TeamId id, String name) {
    act(
        actor,
        "crew.team",
        () -> {
          requireFree(name, Optional.of(id));
          teams.rename(id, name);
          return true;
        });
  }

  private void requireFree(String name, Optional<TeamId> of) {
    if (teams.isTaken(name, of)) {
      throw Problem.fault("/name", say("crew.is-already-the-name-of"));
    }
  }

  /** Puts a person or a team into a team from today; who is in it already stays as they are. */
  public void join(PersonId actor, TeamId team, Holder member) {
    act(
        actor,
        "crew.membership",
        () -> {
          if (!teams.has(team)) {
            throw Problem.notFound();
          }
          if (member instanceof Holder.OnePerson one
              && find(one.person()).filter(person -> !person.hasLeft()).isEmpty()) {
            throw Problem.fault("/person", say("crew.is-not-a-person"));
          }
          if (member instanceof Holder.WholeTeam nested) {
            requireNests(team, nested.team());
          }
          joinOnce(team, member);
          return true;
        });
  }

  private void requireNests(TeamId team, TeamId nested) {
    if (!teams.has(nested)) {
      throw Problem.fault("/team", say("crew.is-not-a-team"));
    }
    if (nested.equals(team) || contains(nested, team)) {
      throw Problem.fault("/team", say("crew.already-contains-this-team"));
    }
  }

  private boolean contains(TeamId outer, TeamId inner) {
    List<Teams.Member> open = openMembers();
    Set<TeamId> seen = new HashSet<>();
    Deque<TeamId> next = new ArrayDeque<>(List.of(outer));
    while (!next.isEmpty()) {
      TeamId team = next.pop();
      for (Teams.Member one : open) {
        if (one.in().team().equals(team)
            && one.in().member() instanceof Holder.WholeTeam nested
            && seen.add(nested.team())) {
          next.push(nested.team());
        }
      }
    }
    return seen.contains(inner);
  }

  private void joinOnce(TeamId team, Holder member) {
    if (openMember(team, member).isEmpty()) {
      teams.join(team, member, house.today());
    }
  }

  private Optional<Teams.Member> openMember(TeamId team, Holder member) {
    return openMembers().stream()
        .filter(one -> one.in().team().equals(team) && one.in().member().equals(member))
        .findFirst();
  }

  /** Who is in a team today, or will be. */
  List<Teams.Member> openMembers() {
    LocalDate today = house.today();
    return teams.members().stream()
        .filter(one -> one.in().until().map(today::isBefore).orElse(true))
        .toList();
  }

  /** Takes a member out from today. */
  public void leave(PersonId actor, TeamId team, long membership) {
    act(
        actor,
        "crew.membership",
        () -> {
          teams.members().stream()
              .filter(one -> one.id() == membership && one.in().team().equals(team))
              .findFirst()
              .orElseThrow(Problem::notFound);
          teams.leave(membership, house.today());
          return true;
        });
  }

  public PlaceId addPlace(PersonId actor, String code, String name, Optional<ZoneId> zone) {
    return act(
        actor,
        "crew.place",
        () -> {
          requireFree(code, name, Optional.empty());
          return places.add(code, name, zone);
        });
  }

  /**
   * Names a place anew and says in which zone it lies: what is ahead there keeps its local times.
   *
   * @param zone empty: it stays; of nothing: the house's
   */
  public void changePlace(
      PersonId actor, PlaceId id, String code, String name, Optional<Optional<ZoneId>> zone) {
    act(
        actor,
        "crew.place",
        act -> {
          Place place = places.find(id).orElseThrow(Problem::notFound);
          requireFree(code, name, Optional.of(id));
          Optional<ZoneId> next = zone.orElse(place.zone());
          places.keep(new Place(id, code, name, next));
          ZoneId houses = house.house().zone();
          ZoneId from = place.zone().orElse(houses);
          ZoneId to = next.orElse(houses);
          if (!from.equals(to)) {
            times.rezone(act, id, from, to);
          }
          return true;
        });
  }

  private void requireFree(String code, String name, Optional<PlaceId> of) {
    for (Place one : places.all()) {
      if (of.filter(one.id()::equals).isEmpty()) {
        if (one.code().equalsIgnoreCase(code)) {
          throw Problem.fault("/code", say("crew.is-already-the-code"));
        }
        if (one.name().equalsIgnoreCase(name)) {
          throw Problem.fault("/name", say("crew.is-already-the-name"));
        }
      }
    }
  }

  /**
   * A person as a file says they should be; what is empty stays, or is as usual for a new one.
   *
   * @param joins teams they come to, which they may be in already
   * @param learns skills they have from now on, each with the days on which it holds
   * @param loses skills they have no longer
   */
  public record PersonWanted(
      Optional<PersonId> known,
      Optional<String> name,
      Optional<Person.Standing> standing,
      Set<TeamId> joins,
      Set<TeamId> leaves,
      Map<String, Validity> learns,
      Set<String> loses) {}

  /** A place as a file says it should be; what is empty stays. */
  public record PlaceWanted(
      Optional<PlaceId> known,
      Optional<String> code,
      Optional<String> name,
      Optional<String> zone) {}

  /** Adds or changes a person within an act that changes the world. */
  public PersonId keep(PersonWanted wanted) {
    PersonId id = changedOrAdded(wanted);
    requireSomeCoordinator();
    Holder member = Holder.of(id);
    for (TeamId team : wanted.leaves()) {
      openMember(team, member).ifPresent(one -> teams.leave(one.id(), house.today()));
    }
    wanted.joins().forEach(team -> joinOnce(team, member));
    wanted.loses().forEach(skill -> persons.lose(id, skill));
    wanted.learns().forEach((skill, days) -> persons.learn(id, skill, days));
    return id;
  }

  private PersonId changedOrAdded(PersonWanted wanted) {
    if (wanted.known().isEmpty()) {
      return persons.add(
          wanted.name().orElse(""),
          wanted.standing().orElse(Person.Standing.HOUSE),
          Person.AccountRight.NONE);
    }
    Person before = persons.find(wanted.known().get()).orElseThrow(Problem::notFound);
    persons.keep(
        new PersonChange(wanted.name(), wanted.standing(), Optional.empty(), Optional.empty())
            .of(before));
    return before.id();
  }

  /** Adds or changes a place within an act that changes the world. */
  public PlaceId keep(PlaceWanted wanted) {
    Optional<ZoneId> zone = wanted.zone().filter(one -> !one.isEmpty()).map(ZoneId::of);
    if (wanted.known().isEmpty()) {
      return places.add(wanted.code().orElse(""), wanted.name().orElse(""), zone);
    }
    Place before = places.find(wanted.known().get()).orElseThrow(Problem::notFound);
    places.keep(
        new Place(
            before.id(),
            wanted.code().orElse(before.code()),
            wanted.name().orElse(before.name()),
            wanted.zone().isPresent() ? zone : before.zone()));
    return before.id();
  }
}
