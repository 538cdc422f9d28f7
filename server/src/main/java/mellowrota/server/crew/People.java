package mellowrota.server.crew;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.server.acts.Acts;
import mellowrota.server.platform.Asker;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** People, teams and places: changed by coordinators, each change an act. */
@Service
public class People {

  private final CrewEntities.PersonEntity.Repository persons;
  private final CrewEntities.TeamEntity.Repository teams;
  private final CrewEntities.MembershipEntity.Repository memberships;
  private final CrewEntities.PlaceEntity.Repository places;
  private final Skills skills;
  private final HouseStore house;
  private final Acts acts;

  People(
      CrewEntities.PersonEntity.Repository persons,
      CrewEntities.TeamEntity.Repository teams,
      CrewEntities.MembershipEntity.Repository memberships,
      CrewEntities.PlaceEntity.Repository places,
      Skills skills,
      HouseStore house,
      Acts acts) {
    this.persons = persons;
    this.teams = teams;
    this.memberships = memberships;
    this.places = places;
    this.skills = skills;
    this.house = house;
    this.acts = acts;
  }

  @Transactional(readOnly = true)
  public Optional<Person> find(PersonId id) {
    return persons.findById(id.value()).map(People::person);
  }

  static Person person(CrewEntities.PersonEntity entity) {
    return new Person(
        PersonId.of(entity.id),
        entity.name,
        entity.standing,
        entity.right,
        entity.coordinates.stream().map(TeamId::of).collect(Collectors.toSet()));
  }

  public void requireCoordinator(Asker asker) {
    if (find(asker.person()).filter(Person::isCoordinator).isEmpty()) {
      throw Problem.forbidden("The crew is changed by coordinators; ask one of yours.");
    }
  }

  private <T> T act(PersonId actor, String kind, Supplier<T> change) {
    List<T> result = new java.util.ArrayList<>();
    acts.run(
        Acts.Wanted.by(actor, kind, Optional.empty(), "").changingTheWorld(),
        act -> {
          result.clear();
          result.add(change.get());
          flush();
          return "";
        });
    return result.get(0);
  }

  private void flush() {
    persons.flush();
    teams.flush();
    memberships.flush();
    places.flush();
  }

  /** Adds somebody; nobody has an account by that alone. */
  public PersonId add(PersonId actor, String name, Person.Standing standing) {
    return act(
        actor,
        "crew.person",
        () ->
            PersonId.of(
                persons.save(
                        new CrewEntities.PersonEntity(name, standing, Person.AccountRight.NONE))
                    .id));
  }

  /** The one who begins an empty house. */
  public PersonId addFirstCoordinator(String name) {
    return act(
        PersonId.of(Acts.THE_HOUSE),
        "crew.first",
        () ->
            PersonId.of(
                persons.save(
                        new CrewEntities.PersonEntity(
                            name, Person.Standing.HOUSE, Person.AccountRight.COORDINATOR))
                    .id));
  }

  /** What may change about a person; what is empty stays. */
  public record PersonChange(
      Optional<String> name,
      Optional<Person.Standing> standing,
      Optional<Person.AccountRight> right,
      Optional<Set<Long>> coordinates) {}

  public void change(PersonId actor, PersonId id, PersonChange change) {
    act(
        actor,
        "crew.person",
        () -> {
          CrewEntities.PersonEntity entity =
              persons.findById(id.value()).orElseThrow(Problem::notFound);
          change.name().ifPresent(name -> entity.name = name);
          change.standing().ifPresent(standing -> entity.standing = standing);
          change.right().ifPresent(right -> entity.right = right);
          change
              .coordinates()
              .ifPresent(
                  set -> {
                    requireTeams(set);
                    entity.coordinates.clear();
                    entity.coordinates.addAll(set);
                  });
          persons.saveAndFlush(entity);
          requireSomeCoordinator();
          return true;
        });
  }

  private void requireTeams(Set<Long> ids) {
    for (Long id : ids) {
      if (!teams.existsById(id)) {
        throw Problem.fault("/coordinates", "names a team that is not there");
      }
    }
  }

  private void requireSomeCoordinator() {
    if (persons.findAll().stream().map(People::person).noneMatch(Person::isCoordinator)) {
      throw Problem.of(
          409, "last-coordinator", "A house needs a coordinator; make somebody else one first.");
    }
  }

  public void setRight(PersonId actor, PersonId id, Person.AccountRight right) {
    change(
        actor,
        id,
        new PersonChange(Optional.empty(), Optional.empty(), Optional.of(right), Optional.empty()));
  }

  public TeamId addTeam(PersonId actor, String name, String hue) {
    if (teams.existsByNameIgnoreCase(name)) {
      throw Problem.fault("/name", "is the name of another team");
    }
    return act(
        actor, "crew.team", () -> TeamId.of(teams.save(new CrewEntities.TeamEntity(name, hue)).id));
  }

  public void renameTeam(PersonId actor, TeamId id, String name) {
    act(
        actor,
        "crew.team",
        () -> {
          CrewEntities.TeamEntity team = teams.findById(id.value()).orElseThrow(Problem::notFound);
          if (!team.name.equalsIgnoreCase(name) && teams.existsByNameIgnoreCase(name)) {
            throw Problem.fault("/name", "is the name of another team");
          }
          team.name = name;
          return true;
        });
  }

  /** Puts a person or a team into a team from today; who is in it already stays as they are. */
  public void join(
      PersonId actor, TeamId team, Optional<PersonId> person, Optional<TeamId> nested) {
    act(
        actor,
        "crew.membership",
        () -> {
          requireMember(team, person, nested);
          boolean there =
              memberships.findByTeam(team.value()).stream()
                  .filter(m -> m.isOpenOn(house.today()))
                  .anyMatch(
                      m ->
                          person
                                  .map(p -> Long.valueOf(p.value()).equals(m.memberPerson))
                                  .orElse(false)
                              || nested
                                  .map(t -> Long.valueOf(t.value()).equals(m.memberTeam))
                                  .orElse(false));
          if (!there) {
            memberships.save(
                new CrewEntities.MembershipEntity(
                    team.value(),
                    person.map(PersonId::value).orElse(null),
                    nested.map(TeamId::value).orElse(null),
                    house.today()));
          }
          return true;
        });
  }

  private void requireMember(TeamId team, Optional<PersonId> person, Optional<TeamId> nested) {
    if (!teams.existsById(team.value())) {
      throw Problem.notFound();
    }
    person.ifPresent(
        p -> {
          Optional<Person> known = find(p);
          if (known.isEmpty() || known.get().hasLeft()) {
            throw Problem.fault("/person", "is nobody of the house");
          }
        });
    nested.ifPresent(
        t -> {
          if (!teams.existsById(t.value())) {
            throw Problem.fault("/team", "is no team of the house");
          }
          if (t.equals(team) || contains(t, team)) {
            throw Problem.fault("/team", "contains this team already; teams form no ring");
          }
        });
  }

  private boolean contains(TeamId outer, TeamId inner) {
    Set<Long> seen = new java.util.HashSet<>();
    java.util.Deque<Long> open = new java.util.ArrayDeque<>(List.of(outer.value()));
    while (!open.isEmpty()) {
      for (CrewEntities.MembershipEntity m : memberships.findByTeam(open.pop())) {
        if (m.memberTeam != null && m.isOpenOn(house.today()) && seen.add(m.memberTeam)) {
          if (m.memberTeam == inner.value()) {
            return true;
          }
          open.push(m.memberTeam);
        }
      }
    }
    return false;
  }

  /** Takes a member out from today. */
  public void leave(PersonId actor, TeamId team, long membership) {
    act(
        actor,
        "crew.membership",
        () -> {
          CrewEntities.MembershipEntity member =
              memberships
                  .findById(membership)
                  .filter(m -> m.team == team.value())
                  .orElseThrow(Problem::notFound);
          if (member.isOpenOn(house.today())) {
            close(member);
          }
          return true;
        });
  }

  private void close(CrewEntities.MembershipEntity member) {
    member.untilDay = member.fromDay.isAfter(house.today()) ? member.fromDay : house.today();
  }

  public long addPlace(PersonId actor, String code, String name, Optional<String> zone) {
    if (places.existsByCodeIgnoreCase(code)) {
      throw Problem.fault("/code", "is the code of another place");
    }
    if (places.existsByNameIgnoreCase(name)) {
      throw Problem.fault("/name", "is the name of another place");
    }
    return act(
        actor,
        "crew.place",
        () -> places.save(new CrewEntities.PlaceEntity(code, name, zone.orElse(null))).id);
  }

  public void renamePlace(PersonId actor, long id, String code, String name) {
    act(
        actor,
        "crew.place",
        () -> {
          CrewEntities.PlaceEntity place = places.findById(id).orElseThrow(Problem::notFound);
          if (!place.code.equalsIgnoreCase(code) && places.existsByCodeIgnoreCase(code)) {
            throw Problem.fault("/code", "is the code of another place");
          }
          if (!place.name.equalsIgnoreCase(name) && places.existsByNameIgnoreCase(name)) {
            throw Problem.fault("/name", "is the name of another place");
          }
          place.code = code;
          place.name = name;
          return true;
        });
  }

  /**
   * A person as a file says they should be; what is empty stays, or is as usual for a new one.
   *
   * @param joins teams they come to, which they may be in already
   * @param learns skills they have from now on, each with its last day if it has one
   * @param loses skills they have no longer
   */
  public record PersonWanted(
      Optional<PersonId> known,
      Optional<String> name,
      Optional<Person.Standing> standing,
      Set<TeamId> joins,
      Set<TeamId> leaves,
      Map<String, Optional<LocalDate>> learns,
      Set<String> loses) {}

  /** A place as a file says it should be; what is empty stays. */
  public record PlaceWanted(
      Optional<Long> known, Optional<String> code, Optional<String> name, Optional<String> zone) {}

  /** Adds or changes a person within an act that changes the world. */
  public PersonId keep(PersonWanted wanted) {
    CrewEntities.PersonEntity entity =
        wanted.known().isPresent()
            ? persons.findById(wanted.known().get().value()).orElseThrow(Problem::notFound)
            : new CrewEntities.PersonEntity("", Person.Standing.HOUSE, Person.AccountRight.NONE);
    wanted.name().ifPresent(name -> entity.name = name);
    wanted.standing().ifPresent(standing -> entity.standing = standing);
    PersonId id = PersonId.of(persons.saveAndFlush(entity).id);
    requireSomeCoordinator();
    wanted.leaves().forEach(team -> openMembership(team, id).ifPresent(this::close));
    for (TeamId team : wanted.joins()) {
      if (openMembership(team, id).isEmpty()) {
        memberships.save(
            new CrewEntities.MembershipEntity(team.value(), id.value(), null, house.today()));
      }
    }
    flush();
    skills.keep(id, wanted.learns(), wanted.loses());
    return id;
  }

  private Optional<CrewEntities.MembershipEntity> openMembership(TeamId team, PersonId person) {
    return memberships.findByTeam(team.value()).stream()
        .filter(m -> m.isOpenOn(house.today()))
        .filter(m -> Long.valueOf(person.value()).equals(m.memberPerson))
        .findFirst();
  }

  /** Adds or changes a place within an act that changes the world. */
  public long keep(PlaceWanted wanted) {
    CrewEntities.PlaceEntity place =
        wanted.known().isPresent()
            ? places.findById(wanted.known().get()).orElseThrow(Problem::notFound)
            : new CrewEntities.PlaceEntity("", "", null);
    wanted.code().ifPresent(code -> place.code = code);
    wanted.name().ifPresent(name -> place.name = name);
    wanted.zone().ifPresent(zone -> place.zone = zone.isEmpty() ? null : zone);
    return places.saveAndFlush(place).id;
  }

  List<CrewEntities.PersonEntity> allPersons() {
    return persons.findAll();
  }

  List<CrewEntities.TeamEntity> allTeams() {
    return teams.findAll();
  }

  List<CrewEntities.MembershipEntity> openMemberships() {
    return memberships.findAll().stream().filter(m -> m.isOpenOn(house.today())).toList();
  }

  List<CrewEntities.PlaceEntity> allPlaces() {
    return places.findAll();
  }
}
