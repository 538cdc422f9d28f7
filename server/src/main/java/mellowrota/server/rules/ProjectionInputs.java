package mellowrota.server.rules;

import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mellowrota.core.calendar.Audience;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.entry.Reminder;
import mellowrota.core.people.Crew;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Team;
import mellowrota.core.project.Projector;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.sight.World;

/**
 * What the projection of a record read of the world, and what of the world differs between two
 * states of it: where the two meet, the record is projected anew.
 */
final class ProjectionInputs {

  /** One thing read: a person, a team, a place, a calendar's readers. */
  record Input(String kind, long id) implements Comparable<Input> {
    @Override
    public int compareTo(Input other) {
      int byKind = kind.compareTo(other.kind);
      return byKind != 0 ? byKind : Long.compare(id, other.id);
    }
  }

  private static final String PERSON = "person";
  private static final String TEAM = "team";
  private static final String PLACE = "place";
  private static final String CALENDAR = "calendar";

  private ProjectionInputs() {}

  static Set<Input> of(WorkRecord record, List<Projector.Projected> projected) {
    Set<Input> found = new TreeSet<>();
    for (Assignment a : record.assignments()) {
      found.add(
          a.holder() instanceof Holder.OnePerson one
              ? new Input(PERSON, one.person().value())
              : new Input(TEAM, ((Holder.WholeTeam) a.holder()).team().value()));
    }
    record.team().ifPresent(team -> found.add(new Input(TEAM, team.value())));
    record.places().forEach(place -> found.add(new Input(PLACE, place.value())));
    found.add(new Input(PERSON, record.author().value()));
    projected.forEach(p -> found.add(new Input(CALENDAR, p.entry().key().calendar().value())));
    return found;
  }

  /** Everything that reads differently in the one world than in the other. */
  static Set<Input> differing(World before, World after) {
    Set<Input> found = new TreeSet<>();
    if (remindsInWorkingDays(after)) {
      workDays(before, after, found);
    }
    people(before.crew(), after.crew(), found);
    teams(before.crew(), after.crew(), found);
    places(before, after, found);
    calendars(before.calendars(), after.calendars(), found);
    margins(before.margins(), after, found);
    if (differForAll(before.margins(), after.margins())) {
      everywhere(after, found);
    }
    return found;
  }

  private static boolean remindsInWorkingDays(World world) {
    return world.rules().stream()
        .flatMap(rule -> rule.with().reminders().stream())
        .anyMatch(reminder -> reminder.unit() == Reminder.Unit.WORKING_DAYS);
  }

  private static void workDays(World before, World after, Set<Input> found) {
    for (Place place : after.placeList()) {
      Optional<PlaceId> here = Optional.of(place.id());
      if (!before.places().workDays(here).equals(after.places().workDays(here))) {
        found.add(new Input(PLACE, place.id().value()));
      }
    }
    Optional<PlaceId> office = Optional.empty();
    if (!before.places().workDays(office).equals(after.places().workDays(office))) {
      everywhere(after, found);
    }
  }

  private static void everywhere(World world, Set<Input> found) {
    world.calendars().all().forEach(one -> found.add(new Input(CALENDAR, one.id().value())));
  }

  private static void people(Crew before, Crew after, Set<Input> found) {
    for (PersonId id : union(ids(before), ids(after))) {
      boolean same =
          before.person(id).equals(after.person(id))
              && before.directTeams(id).equals(after.directTeams(id));
      if (!same) {
        found.add(new Input(PERSON, id.value()));
      }
    }
  }

  private static List<PersonId> ids(Crew crew) {
    return crew.people().stream().map(Person::id).toList();
  }

  private static void teams(Crew before, Crew after, Set<Input> found) {
    List<mellowrota.core.people.TeamId> first = before.teams().stream().map(Team::id).toList();
    List<mellowrota.core.people.TeamId> second = after.teams().stream().map(Team::id).toList();
    for (mellowrota.core.people.TeamId id : union(first, second)) {
      boolean above =
          Set.copyOf(before.selfAndAncestors(id)).equals(Set.copyOf(after.selfAndAncestors(id)));
      boolean same =
          before.team(id).equals(after.team(id)) && before.members(id).equals(after.members(id));
      if (!same || !above) {
        found.add(new Input(TEAM, id.value()));
      }
      if (!above) {
        after.members(id).keySet().forEach(p -> found.add(new Input(PERSON, p.value())));
      }
    }
  }

  private static void places(World before, World after, Set<Input> found) {
    for (Place place : union(before.placeList(), after.placeList())) {
      if (!before.places().find(place.id()).equals(after.places().find(place.id()))) {
        found.add(new Input(PLACE, place.id().value()));
      }
    }
  }

  private static void margins(MarginSettings before, World world, Set<Input> found) {
    MarginSettings after = world.margins();
    union(before.places().keySet(), after.places().keySet()).stream()
        .filter(one -> !Objects.equals(before.places().get(one), after.places().get(one)))
        .forEach(one -> found.add(new Input(PLACE, one.value())));
    for (PersonId one : union(before.people().keySet(), after.people().keySet())) {
      if (!Objects.equals(before.people().get(one), after.people().get(one))) {
        found.add(new Input(PERSON, one.value()));
        // Through a team it stands on their own calendar too.
        world
            .calendars()
            .own(one)
            .ifPresent(own -> found.add(new Input(CALENDAR, own.id().value())));
      }
    }
  }

  /** Work of every place and person may have other margins, or others may see them. */
  private static boolean differForAll(MarginSettings before, MarginSettings after) {
    return !before.house().equals(after.house())
        || !before.kinds().equals(after.kinds())
        || !before.restOn().equals(after.restOn());
  }

  private static void calendars(Calendars before, Calendars after, Set<Input> found) {
    for (Calendar calendar : union(before.all(), after.all())) {
      if (!readers(before, calendar).equals(readers(after, calendar))) {
        found.add(new Input(CALENDAR, calendar.id().value()));
      }
    }
  }

  /** Who reads a calendar, in which way, as what: enough to tell whether faces may differ. */
  private static List<Object> readers(Calendars calendars, Calendar calendar) {
    List<Object> found = new java.util.ArrayList<>();
    // Whoever reads a feed is nobody by name; what they see at most is the house's to say.
    found.add(calendars.house().outsideLimit());
    found.add(calendars.house().trustsOwnFeeds());
    for (Rendering rendering : calendars.renderingsOf(calendar.id())) {
      Audience audience = calendars.audience(rendering.id());
      found.add(rendering);
      for (PersonId person : audience.people()) {
        found.add(person);
        found.add(audience.levelOf(person).orElseThrow());
        found.add(calendars.reader(person));
      }
    }
    return found;
  }

  private static <T> Set<T> union(Collection<T> one, Collection<T> other) {
    Set<T> all = new java.util.LinkedHashSet<>(one);
    all.addAll(other);
    return all;
  }
}
