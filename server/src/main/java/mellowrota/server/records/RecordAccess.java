package mellowrota.server.records;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Level;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.people.Role;
import mellowrota.core.sight.RecordReaders;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.sight.World;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** Who may open a record, and what they may change on it. */
@Service
public class RecordAccess {

  private final JdbcClient jdbc;

  RecordAccess(JdbcClient jdbc) {
    this.jdbc = jdbc;
  }

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
    Map<Long, Set<CalendarId>> found = new HashMap<>();
    jdbc.sql("select record, calendar from entry where record = any(?) and state = 'LIVE'")
        .param(records.stream().map(RecordId::value).toArray(Long[]::new))
        .query(
            row -> {
              found
                  .computeIfAbsent(row.getLong(1), key -> new HashSet<>())
                  .add(CalendarId.of(row.getLong(2)));
            });
    return found;
  }

  public Standing standing(
      World world, Person person, WorkRecord record, Map<Long, Set<CalendarId>> standsOn) {
    RecordReaders readers = RecordReaders.of(record, world.crew());
    boolean inFull =
        standsOn.getOrDefault(record.id().value(), Set.of()).stream()
            .anyMatch(calendar -> readsInFull(world, person, calendar));
    return standing(world, person, record, readers, readers.mayOpen(person, inFull));
  }

  /** Towards each of them, in no order; where it opens for sure, calendars are not asked. */
  public List<Standing> standings(World world, Person person, Collection<WorkRecord> records) {
    List<Standing> found = new ArrayList<>();
    List<WorkRecord> unsure = new ArrayList<>();
    for (WorkRecord record : records) {
      opening(world, person, record).ifPresentOrElse(found::add, () -> unsure.add(record));
    }
    if (!unsure.isEmpty()) {
      Map<Long, Set<CalendarId>> on = standsOn(unsure.stream().map(WorkRecord::id).toList());
      unsure.forEach(record -> found.add(standing(world, person, record, on)));
    }
    return found;
  }

  public Standing standing(World world, Person person, WorkRecord record) {
    return opening(world, person, record)
        .orElseGet(() -> standing(world, person, record, standsOn(Set.of(record.id()))));
  }

  /** The standing of one who may open it whatever calendars it stands on; empty for others. */
  public Optional<Standing> opening(World world, Person person, WorkRecord record) {
    RecordReaders readers = RecordReaders.of(record, world.crew());
    return readers.mayOpen(person, false)
        ? Optional.of(standing(world, person, record, readers, true))
        : Optional.empty();
  }

  private static Standing standing(
      World world, Person person, WorkRecord record, RecordReaders readers, boolean opens) {
    Optional<Person> watcher = SeenBy.watcher(world);
    // Nobody sees with another's eyes what they may not open themselves.
    boolean both = opens && watcher.map(one -> readers.mayOpen(one, false)).orElse(true);
    return new Standing(world, person, record, readers.of(person), both, watcher.map(readers::of));
  }

  private static boolean readsInFull(World world, Person person, CalendarId calendar) {
    return world
        .calendars()
        .servedTo(person.id(), calendar)
        .flatMap(rendering -> world.calendars().audience(rendering.id()).levelOf(person.id()))
        .filter(level -> level == Level.ALL)
        .isPresent();
  }
}
