package mellowrota.server.records;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.change.RecordField;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.people.Role;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.calendars.store.Entries;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Who may open a record, and what they may change on it. */
@Service
@RequiredArgsConstructor
public class RecordAccess {

  private final Entries entries;

  /**
   * One person before one record.
   *
   * @param watcher as what somebody reads it who looks with this person's eyes
   */
  public record Standing(
      World world,
      Person person,
      WorkRecord record,
      Capacities capacities,
      boolean opens,
      Optional<Capacities> watcher) {

    public boolean sees(DetailKey key) {
      return opens
          && world.sight().allowed(capacities, record, key)
          && (watcher.isEmpty() || world.sight().allowed(watcher.get(), record, key));
    }

    /** The same of a field; a margin shows only beside the times that it is of. */
    boolean sees(RecordField field) {
      return opens
          && allows(field.forWhom(world.details(), record))
          && (field != RecordField.MARGINS || sees(RecordField.VISITS));
    }

    /** As what the person reads it, and whoever looks with their eyes. */
    List<Capacities> askers() {
      return Stream.concat(Stream.of(capacities), watcher.stream()).toList();
    }

    /** Whether the person sees it, and whoever looks with their eyes does not. */
    boolean covers(DetailKey key) {
      return opens && world.sight().allowed(capacities, record, key) && !sees(key);
    }

    /** Whether what is for these people is told here. */
    boolean allows(ForSet set) {
      return set.allows(capacities) && (watcher.isEmpty() || set.allows(watcher.get()));
    }

    /**
     * What of the record whoever makes another from it carries over (SIGHT 10): with office rights
     * all of it, else what they see, with whom it is for.
     */
    WorkRecord carried() {
      if (isOffice()) {
        return record;
      }
      WorkRecord.Builder cut = record.with();
      record.details().keySet().stream()
          .filter(key -> !sees(key) || !world.details().applies(record, key))
          .forEach(key -> cut.detail(key, DetailValue.NONE));
      Arrays.stream(RecordField.values())
          .filter(field -> !sees(field))
          .forEach(field -> field.clear(cut));
      return cut.build();
    }

    public boolean isOffice() {
      return capacities.isOffice();
    }

    /** What the roles this person holds let them change. */
    public Set<Role.Right> rights() {
      Set<Role.Right> found = EnumSet.noneOf(Role.Right.class);
      for (Role role : world.roles()) {
        if (capacities.holds(role.id())) {
          found.addAll(role.rights());
        }
      }
      return found;
    }
  }

  /** On which calendars each of these records stands now. */
  public Map<Long, Set<CalendarId>> standsOn(Collection<RecordId> records) {
    return entries.calendars(records);
  }

  /** Towards each of them, in their order; where it opens for sure, calendars are not asked. */
  public List<Standing> standings(World world, Person person, Collection<WorkRecord> records) {
    Map<RecordId, Standing> found = new LinkedHashMap<>();
    List<RecordId> unsure = new ArrayList<>();
    for (WorkRecord record : records) {
      Standing sure = opening(world, person, record).orElse(null);
      found.put(record.id(), sure);
      if (sure == null) {
        unsure.add(record.id());
      }
    }
    if (!unsure.isEmpty()) {
      Set<RecordId> inFull = entries.standIn(unsure, OpenableRecords.inFull(world, person));
      for (WorkRecord record : records) {
        found.computeIfAbsent(
            record.id(), id -> standing(world, person, record, inFull.contains(id)));
      }
    }
    return List.copyOf(found.values());
  }

  public Standing standing(World world, Person person, WorkRecord record) {
    return standings(world, person, List.of(record)).get(0);
  }

  /** The standing of one who may open it whatever calendars it stands on; empty for others. */
  public Optional<Standing> opening(World world, Person person, WorkRecord record) {
    return Optional.of(standing(world, person, record, false)).filter(Standing::opens);
  }

  /** Towards a record that is kept, or only wished for. */
  public static Standing standing(World world, Person person, WorkRecord record, boolean inFull) {
    RecordReaders readers = RecordReaders.of(record, world.crew());
    Optional<Person> watcher = SeenBy.watcher(world);
    // Nobody sees with another's eyes what they may not open themselves.
    boolean opens =
        readers.mayOpen(person, inFull)
            && watcher.map(one -> readers.mayOpen(one, false)).orElse(true);
    return new Standing(world, person, record, readers.of(person), opens, watcher.map(readers::of));
  }
}
