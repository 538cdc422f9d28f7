package mellowrota.core.cover;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.PlaceId;

/**
 * What work has to fit into beside the time of those who do it.
 *
 * @param rooms of the places that hold only so much
 */
public record Bounds(Limits limits, Travel travel, Map<PlaceId, Room> rooms) {

  /** How much a place holds, and what stands there. */
  public record Room(Clashes.Capacity capacity, List<Clashes.Stay> stays) {
    public Room {
      Objects.requireNonNull(capacity, "capacity");
      stays = List.copyOf(stays);
    }
  }

  public Bounds {
    Objects.requireNonNull(limits, "limits");
    Objects.requireNonNull(travel, "travel");
    rooms = Map.copyOf(rooms);
  }

  /** Whether who does a work matters to its place. */
  boolean countsPeople(Work trial) {
    return rooms(trial).stream().anyMatch(place -> rooms.get(place).capacity().ofPeople());
  }

  /** Where its place would hold too much with these who do a work. */
  List<Clash> tooMuch(Work trial, Set<PersonId> people) {
    return rooms(trial).stream()
        .map(rooms::get)
        .flatMap(room -> Clashes.of(room.capacity(), with(room, trial, people), limits).stream())
        .filter(one -> one.involves(trial.id()))
        .toList();
  }

  /** The same once somebody does a work in its place too. */
  Bounds and(Work done, PersonId person) {
    Map<PlaceId, Room> all = new HashMap<>(rooms);
    rooms(done)
        .forEach(
            place ->
                all.computeIfPresent(
                    place,
                    (key, room) -> new Room(room.capacity(), with(room, done, Set.of(person)))));
    return new Bounds(limits, travel, all);
  }

  /** Of the places where it takes room, those that hold only so much. */
  private List<PlaceId> rooms(Work work) {
    return work.rooms().stream().filter(rooms::containsKey).toList();
  }

  private static List<Clashes.Stay> with(Room room, Work work, Set<PersonId> people) {
    List<Clashes.Stay> all = new ArrayList<>(room.stays());
    all.add(new Clashes.Stay(work.id(), work.span(), people, work.tentative()));
    return all;
  }
}
