package mellowrota.server.records;

import java.time.Instant;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Crew;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Membership;
import mellowrota.core.people.Person;
import mellowrota.core.people.TeamId;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.acts.store.ActStore;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;

/**
 * What somebody might see when an act was done: by teams on its day, and by their standing and
 * account as they were (SIGHT 9).
 */
@Component
@RequiredArgsConstructor
class PastStanding {

  private final ActStore acts;
  private final HouseStore house;

  /** Who asks, and whoever looks with their eyes, through all acts until now. */
  Past of(RecordAccess.Standing standing) {
    World world = standing.world();
    List<Life> lives =
        Stream.concat(Stream.of(standing.person()), SeenBy.watcher(world).stream())
            .map(this::life)
            .toList();
    return new Past(world, house.memberships(), lives);
  }

  /** What changed of a person, newest first. */
  private record Life(Person now, List<Change> changes) {

    Person at(long act) {
      Person found = now;
      for (Change change : changes) {
        if (change.act() <= act) {
          break;
        }
        found = change.takenBack(found);
      }
      return found;
    }
  }

  /**
   * One change of a person, or of a team that they coordinate.
   *
   * @param standing before the act; empty where they were not there yet
   * @param team that began or ceased to be theirs
   */
  private record Change(
      long act, Optional<String> standing, String right, Optional<TeamId> team, boolean began) {

    Person takenBack(Person after) {
      if (team.isPresent()) {
        Set<TeamId> teams = new HashSet<>(after.coordinates());
        if (began) {
          teams.remove(team.get());
        } else {
          teams.add(team.get());
        }
        return new Person(after.id(), after.name(), after.standing(), after.right(), teams);
      }
      return new Person(
          after.id(),
          after.name(),
          standing.map(Person.Standing::valueOf).orElse(Person.Standing.LEFT),
          standing.isPresent() ? Person.AccountRight.valueOf(right) : Person.AccountRight.NONE,
          after.coordinates());
    }
  }

  private Life life(Person person) {
    List<Change> changes =
        acts.life(person.id().value()).stream()
            .map(
                one ->
                    new Change(
                        one.act(),
                        Optional.ofNullable(one.standing()),
                        one.right(),
                        Optional.ofNullable(one.team()).map(TeamId::of),
                        one.began()))
            .toList();
    return new Life(person, changes);
  }

  /** What they might see of one record at each act. */
  static final class Past {
    private final World world;
    private final List<Membership> memberships;
    private final List<Life> lives;
    private final Map<LocalDate, Crew> crews = new HashMap<>();

    private Past(World world, List<Membership> memberships, List<Life> lives) {
      this.world = world;
      this.memberships = memberships;
      this.lives = lives;
    }

    /** Whether all of them might open the record, and see what is for these, at that act. */
    boolean allows(WorkRecord record, ForSet set, long act, Instant at) {
      RecordReaders readers = RecordReaders.of(record, crew(at));
      return lives.stream()
          .map(life -> life.at(act))
          .allMatch(person -> readers.mayOpen(person, true) && set.allows(readers.of(person)));
    }

    /** Whether all of them had office rights on the record at that act. */
    boolean isOffice(WorkRecord record, long act, Instant at) {
      return allows(record, ForSet.OFFICE, act, at);
    }

    private Crew crew(Instant at) {
      return crews.computeIfAbsent(
          LocalDate.ofInstant(at, world.house().zone()),
          day -> Crew.on(day, world.crew().people(), world.crew().teams(), memberships));
    }
  }
}
