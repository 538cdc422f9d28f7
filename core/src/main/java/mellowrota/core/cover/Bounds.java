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
    return trial.place().map(rooms::get).filter(room -> room.capacity().ofPeople()).isPresent();
  }

  /** Where its place would hold too much with these who do a work. */
  List<Clash> tooMuch(Work trial, Set<PersonId> people) {
    return trial
        .place()
        .map(rooms::get)
        .map(
            room ->
                Clashes.of(room.capacity(), with(room, trial, people), limits).stream()
                    .filter(one -> one.involves(trial.id()))
                    .toList())
        .orElse(List.of());
  }

  /** The same once somebody does a work in its place too. */
  Bounds and(Work done, PersonId person) {
    Room room = done.place().map(rooms::get).orElse(null);
    if (room == null) {
      return this;
    }
    Map<PlaceId, Room> all = new HashMap<>(rooms);
    all.put(done.place().get(), new Room(room.capacity(), with(room, done, Set.of(person))));
    return new Bounds(limits, travel, all);
  }

  private static List<Clashes.Stay> with(Room room, Work work, Set<PersonId> people) {
    List<Clashes.Stay> all = new ArrayList<>(room.stays());
    all.add(new Clashes.Stay(work.id(), work.span(), people, work.tentative()));
    return all;
  }
}
