package mellowrota.core.calendar;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;

/**
 * The readers of one rendering (SIGHT 1). Readers alike on every record are counted, not listed, so
 * that judging a record costs O(its people + the kinds of reader), not O(readers).
 */
public final class Audience {

  /** A reader as one record meets them: capacities there, and the level they read at. */
  public record Standing(Capacities capacities, Level level) {}

  private record Reader(Person person, Standing standing) {}

  private final Map<PersonId, Reader> readers = new HashMap<>();
  private final Map<Standing, Integer> alike = new HashMap<>();
  private final List<Reader> teamCoordinators = new ArrayList<>();
  private final boolean passedOn;
  private final Level passedOnLevel;

  private Audience(boolean passedOn, Level passedOnLevel) {
    this.passedOn = passedOn;
    this.passedOnLevel = passedOnLevel;
  }

  /** Nobody reads it. */
  public static Audience ofNobody() {
    return new Audience(false, Level.BUSY_ONLY);
  }

  /** Anybody may read it, as outside (SIGHT 1). */
  public static Audience ofAnybody(Level level) {
    return new Audience(true, level);
  }

  void add(Person person, Level level) {
    Reader reader = new Reader(person, new Standing(person.everywhere(), level));
    if (readers.put(person.id(), reader) != null) {
      throw new IllegalStateException(person.id() + " is in the audience twice");
    }
    if (person.isTeamCoordinator()) {
      teamCoordinators.add(reader);
    } else {
      alike.merge(reader.standing(), 1, Integer::sum);
    }
  }

  public boolean isEmpty() {
    return readers.isEmpty() && !passedOn;
  }

  /** Whether people known by name read it, and nobody else. */
  public boolean isOfPeople() {
    return !readers.isEmpty() && !passedOn;
  }

  public boolean contains(PersonId person) {
    return readers.containsKey(person);
  }

  /** The level at which this person reads here. */
  public Optional<Level> levelOf(PersonId person) {
    return Optional.ofNullable(readers.get(person)).map(reader -> reader.standing().level());
  }

  public SortedSet<PersonId> people() {
    return new TreeSet<>(readers.keySet());
  }

  /** Says what a person may be on one record. */
  public interface OnRecord {
    /** The people in a role on the record, through teams too. */
    Collection<PersonId> holders();

    Capacities of(Person person);
  }

  /** The distinct standings of this audience on one record, in no order. */
  public List<Standing> on(OnRecord record) {
    List<Standing> found = new ArrayList<>(alike.size() + 2);
    Map<Standing, Integer> special = null;
    for (PersonId holder : record.holders()) {
      Reader reader = readers.get(holder);
      if (reader != null) {
        addOnce(found, standing(reader, record));
        if (!reader.person().isTeamCoordinator()) {
          special = special == null ? new HashMap<>() : special;
          special.merge(reader.standing(), 1, Integer::sum);
        }
      }
    }
    for (Reader coordinator : teamCoordinators) {
      addOnce(found, standing(coordinator, record));
    }
    for (Map.Entry<Standing, Integer> kind : alike.entrySet()) {
      int apart = special == null ? 0 : special.getOrDefault(kind.getKey(), 0);
      if (kind.getValue() > apart) {
        addOnce(found, kind.getKey());
      }
    }
    if (passedOn) {
      addOnce(found, new Standing(Capacities.NOBODY_KNOWN, passedOnLevel));
    }
    return found;
  }

  private static void addOnce(List<Standing> found, Standing standing) {
    if (!found.contains(standing)) {
      found.add(standing);
    }
  }

  private static Standing standing(Reader reader, OnRecord record) {
    return new Standing(record.of(reader.person()), reader.standing().level());
  }
}
