package mellowrota.core.sight;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import mellowrota.core.calendar.Audience;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.Crew;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;

/** In which capacities people read one record, now (SIGHT 2, LANDING 14). */
public final class RecordReaders implements Audience.OnRecord {

  private final WorkRecord record;
  private final Crew crew;
  private final Map<PersonId, Long> roles = new HashMap<>();

  /** Found when a team coordinator asks; most readers are none. */
  private Set<TeamId> officeTeams;

  private RecordWords words;

  private RecordReaders(WorkRecord record, Crew crew) {
    this.record = record;
    this.crew = crew;
    for (Assignment assignment : record.assignments()) {
      if (assignment.holder() instanceof Holder.OnePerson one) {
        hold(one.person(), assignment.role());
      } else {
        TeamId team = ((Holder.WholeTeam) assignment.holder()).team();
        crew.members(team).keySet().forEach(person -> hold(person, assignment.role()));
      }
    }
  }

  /**
   * The record's team and those of everybody who works on it, through teams too, with all that hold
   * them (LANDING 14).
   */
  private Set<TeamId> officeTeams() {
    if (officeTeams == null) {
      officeTeams = new HashSet<>();
      record.team().ifPresent(team -> officeTeams.addAll(crew.selfAndAncestors(team)));
      for (Assignment assignment : record.assignments()) {
        if (assignment.role().equals(RoleId.INFORMED)) {
          continue;
        }
        if (assignment.holder() instanceof Holder.OnePerson one) {
          addTeamsOf(one.person());
        } else {
          TeamId team = ((Holder.WholeTeam) assignment.holder()).team();
          officeTeams.addAll(crew.selfAndAncestors(team));
          crew.members(team).keySet().forEach(this::addTeamsOf);
        }
      }
    }
    return officeTeams;
  }

  private void addTeamsOf(PersonId person) {
    for (TeamId team : crew.directTeams(person)) {
      officeTeams.addAll(crew.selfAndAncestors(team));
    }
  }

  public static RecordReaders of(WorkRecord record, Crew crew) {
    return new RecordReaders(record, crew);
  }

  private void hold(PersonId person, RoleId role) {
    roles.put(person, roles.getOrDefault(person, 0L) | Capacities.role(role));
  }

  @Override
  public Collection<PersonId> holders() {
    return roles.keySet();
  }

  @Override
  public Capacities of(Person person) {
    if (person.hasLeft()) {
      return new Capacities(0);
    }
    long bits = person.everywhere().bits() | roles.getOrDefault(person.id(), 0L);
    if (person.isTeamCoordinator() && coordinatesIt(person)) {
      bits |= Capacities.OFFICE;
    }
    return new Capacities(bits);
  }

  private boolean coordinatesIt(Person person) {
    return person.coordinates().stream().anyMatch(officeTeams()::contains);
  }

  /** What the record says, worded once for all of them. */
  RecordWords words(Supplier<RecordWords> maker) {
    if (words == null) {
      words = maker.get();
    }
    return words;
  }

  /**
   * Whether this person may open the record (SIGHT 3).
   *
   * @param readsItInFull whether they read, at full level, a calendar on which it stands
   */
  public boolean mayOpen(Person person, boolean readsItInFull) {
    if (person.hasLeft()) {
      return false;
    }
    Capacities here = of(person);
    if (here.isOffice()) {
      return true;
    }
    if (record.state() == State.DRAFT) {
      return record.author().equals(person.id());
    }
    return here.inARole() || readsItInFull && !record.isPrivate();
  }
}
