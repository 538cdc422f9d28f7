package mellowrota.server.acts;

import java.time.Instant;
import java.util.SortedSet;
import java.util.TreeSet;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;

/** An act while it is being done. */
public final class Act {

  private final long id;
  private final Instant at;
  private final long actor;
  private final SortedSet<RecordId> records = new TreeSet<>();
  private long changedBits;
  private final boolean worldChanged;
  private Object worldBefore;
  private long entriesChanged;
  private final SortedSet<Long> calendarsTouched = new TreeSet<>();

  Act(long id, Instant at, long actor, boolean worldChanged) {
    this.worldChanged = worldChanged;
    this.id = id;
    this.at = at;
    this.actor = actor;
  }

  public long id() {
    return id;
  }

  /** When it was done, to the microsecond. */
  public Instant at() {
    return at;
  }

  public PersonId actor() {
    return PersonId.of(actor);
  }

  /**
   * Says that a record changed.
   *
   * @param bits whom the changed details are for, together
   */
  public void touch(RecordId record, long bits) {
    records.add(record);
    changedBits |= bits;
  }

  public boolean worldChanged() {
    return worldChanged;
  }

  /** What {@link Affected} keeps from before the change, for itself. */
  public void keepWorldBefore(Object world) {
    worldBefore = world;
  }

  public Object worldBefore() {
    return worldBefore;
  }

  public SortedSet<RecordId> records() {
    return records;
  }

  public long changedBits() {
    return changedBits;
  }

  /** Counts what was stored on a calendar. */
  public void count(long calendar, int entries) {
    calendarsTouched.add(calendar);
    entriesChanged += entries;
  }

  public long entriesChanged() {
    return entriesChanged;
  }

  public int calendarsChanged() {
    return calendarsTouched.size();
  }
}
