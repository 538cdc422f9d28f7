package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Team;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.server.sight.World;

/** What the cells of a file may name. */
record Known(World world, Names<PlaceId> places, Names<TeamId> teams, Names<Holder> holders) {

  static Known in(World world) {
    Names<PlaceId> places = new Names<>(say("incoming.place"));
    for (Place place : world.placeList()) {
      places.put(place.name(), place.id());
      places.put(place.code(), place.id());
    }
    Names<TeamId> teams = new Names<>(say("incoming.team"));
    Names<Holder> holders = new Names<>(say("incoming.person-or-team"));
    for (Person person : world.crew().people()) {
      if (!person.hasLeft()) {
        holders.put(person.name(), Holder.of(person.id()));
      }
    }
    for (Team team : world.crew().teams()) {
      teams.put(team.name(), team.id());
      if (!holders.has(team.name())) {
        holders.put(team.name(), Holder.of(team.id()));
      }
    }
    return new Known(world, places, teams, holders);
  }

  /** Whether somebody of this name has left the house. */
  boolean hasLeft(String name) {
    return world.crew().people().stream()
        .filter(Person::hasLeft)
        .map(Person::name)
        .anyMatch(name.strip()::equalsIgnoreCase);
  }

  static PersonId person(Holder holder) {
    return ((Holder.OnePerson) holder).person();
  }
}
