package mellowrota.core.people;

import java.time.LocalDate;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * The people and teams as they stand on one day; immutable. Teams may be nested and a team may be
 * in several; a ring of teams is taken as one walk through it, so nothing runs for ever.
 *
 * <p>Building costs O(people + memberships × depth of nesting); every question after that a
 * look-up.
 */
public final class Crew {

  private final LocalDate day;
  private final SortedMap<PersonId, Person> people = new TreeMap<>();
  private final SortedMap<TeamId, Team> teams = new TreeMap<>();
  private final Map<PersonId, List<TeamId>> directTeams = new HashMap<>();
  private final Map<TeamId, SortedMap<PersonId, LocalDate>> firstDays = new HashMap<>();
  private final Map<TeamId, TreeSet<TeamId>> within = new HashMap<>();

  private Crew(
      LocalDate day,
      Collection<Person> people,
      Collection<Team> teams,
      Collection<Membership> memberships) {
    this.day = day;
    people.forEach(person -> this.people.put(person.id(), person));
    teams.forEach(team -> this.teams.put(team.id(), team));
    Map<TeamId, List<Membership>> upwards = new HashMap<>();
    for (Membership membership : memberships) {
      if (membership.holdsOn(day) && membership.member() instanceof Holder.WholeTeam nested) {
        upwards.computeIfAbsent(nested.team(), key -> new ArrayList<>()).add(membership);
      }
    }
    for (Membership membership : memberships) {
      if (membership.holdsOn(day) && membership.member() instanceof Holder.OnePerson single) {
        join(single.person(), membership, upwards);
      }
    }
    for (TeamId team : this.teams.keySet()) {
      within.put(team, ancestors(team, upwards));
    }
    directTeams.values().forEach(list -> list.sort(null));
  }

  public static Crew on(
      LocalDate day,
      Collection<Person> people,
      Collection<Team> teams,
      Collection<Membership> memberships) {
    return new Crew(day, people, teams, memberships);
  }

  private void join(PersonId person, Membership membership, Map<TeamId, List<Membership>> upwards) {
    if (!people.containsKey(person) || !teams.containsKey(membership.team())) {
      return;
    }
    List<TeamId> direct = directTeams.computeIfAbsent(person, key -> new ArrayList<>());
    if (!direct.contains(membership.team())) {
      direct.add(membership.team());
    }
    record Step(TeamId team, LocalDate since) {}
    Deque<Step> open = new ArrayDeque<>(List.of(new Step(membership.team(), membership.from())));
    while (!open.isEmpty()) {
      Step step = open.pop();
      SortedMap<PersonId, LocalDate> days =
          firstDays.computeIfAbsent(step.team(), key -> new TreeMap<>());
      LocalDate known = days.get(person);
      if (known != null && !step.since().isBefore(known)) {
        continue;
      }
      days.put(person, step.since());
      for (Membership up : upwards.getOrDefault(step.team(), List.of())) {
        LocalDate since = up.from().isAfter(step.since()) ? up.from() : step.since();
        open.push(new Step(up.team(), since));
      }
    }
  }

  private static TreeSet<TeamId> ancestors(TeamId team, Map<TeamId, List<Membership>> upwards) {
    TreeSet<TeamId> found = new TreeSet<>(List.of(team));
    Deque<TeamId> open = new ArrayDeque<>(found);
    while (!open.isEmpty()) {
      for (Membership up : upwards.getOrDefault(open.pop(), List.of())) {
        if (found.add(up.team())) {
          open.push(up.team());
        }
      }
    }
    return found;
  }

  /** The day for which this holds, in the house's zone. */
  public LocalDate day() {
    return day;
  }

  public Optional<Person> person(PersonId id) {
    return Optional.ofNullable(people.get(id));
  }

  public Optional<Team> team(TeamId id) {
    return Optional.ofNullable(teams.get(id));
  }

  public Collection<Person> people() {
    return people.values();
  }

  public Collection<Team> teams() {
    return teams.values();
  }

  /** The teams this person is in by name, not through another team; in id order. */
  public List<TeamId> directTeams(PersonId person) {
    return directTeams.getOrDefault(person, List.of());
  }

  /** Everybody in the team, nested teams too, with the first day of the membership; in id order. */
  public SortedMap<PersonId, LocalDate> members(TeamId team) {
    return firstDays.getOrDefault(team, new TreeMap<>());
  }

  /** The first day on which the person came under the team, nested teams too. */
  public Optional<LocalDate> firstDay(TeamId team, PersonId person) {
    return Optional.ofNullable(members(team).get(person));
  }

  /** The team itself and every team it is nested in. */
  public Collection<TeamId> selfAndAncestors(TeamId team) {
    return within.getOrDefault(team, new TreeSet<>(List.of(team)));
  }

  public boolean isIn(PersonId person, TeamId team) {
    return members(team).containsKey(person);
  }
}
