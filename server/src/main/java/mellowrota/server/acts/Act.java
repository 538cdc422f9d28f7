package mellowrota.server.acts;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.people.PersonId;
import mellowrota.core.project.Release;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;

/** An act while it is being done. */
public final class Act {

  private final long id;
  private final Instant at;
  private final long actor;
  private final SortedMap<RecordId, WorkRecord> records = new TreeMap<>();
  private final Map<RecordId, WorkRecord> before = new HashMap<>();
  private final Set<RecordId> made = new HashSet<>();
  private final Set<RecordId> reached = new TreeSet<>();
  private final Map<RecordId, Long> changedBits = new HashMap<>();
  private final boolean worldChanged;
  private final boolean isLook;
  private Object worldBefore;
  private long entriesChanged;
  private final SortedSet<Long> calendarsTouched = new TreeSet<>();

  private final Map<EntryKey, Release> releases = new HashMap<>();
  private final long worldVersion;
  private final List<Leaving.Ended> ended = new ArrayList<>();
  private String reason;

  Act(long id, Instant at, Acts.Wanted wanted, long worldVersion, boolean isLook) {
    this.isLook = isLook;
    this.worldVersion = worldVersion;
    this.worldChanged = wanted.changesWorld();
    this.id = id;
    this.at = at;
    this.actor = wanted.actor();
    this.reason = wanted.reason();
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

  /** Says what ends with somebody who leaves by it. */
  public void ends(Leaving.Ended one) {
    ended.add(one);
  }

  public List<Leaving.Ended> ended() {
    return List.copyOf(ended);
  }

  /** Says why it is done. */
  public void because(String why) {
    reason = why;
  }

  /** Empty: nobody said why. */
  public String reason() {
    return reason;
  }

  /**
   * Says that a record changed.
   *
   * @param was as it was before
   * @param record as it now is in the store
   * @param bits whom the changed details are for, together
   */
  public void changed(WorkRecord was, WorkRecord record, long bits) {
    before.putIfAbsent(was.id(), was);
    touch(record, bits);
  }

  /** As a record was before the act; empty where it is not changed, or was made by it. */
  public Optional<WorkRecord> before(RecordId record) {
    return made.contains(record) ? Optional.empty() : Optional.ofNullable(before.get(record));
  }

  /**
   * Says that something of a record is another, though the record is the same.
   *
   * @param record as it is in the store
   * @param bits whom it is for
   */
  public void touch(WorkRecord record, long bits) {
    records.put(record.id(), record);
    changedBits.merge(record.id(), bits, (one, other) -> one | other);
  }

  /** Says that a record was made; nothing of it has been stored elsewhere before. */
  public void made(WorkRecord record, long bits) {
    made.add(record.id());
    touch(record, bits);
  }

  /** Whether this act made the record. */
  public boolean hasMade(RecordId record) {
    return made.contains(record);
  }

  /** Says that a change of the world reaches these records too. */
  public void reaches(Collection<RecordId> some) {
    reached.addAll(some);
  }

  public Set<RecordId> reached() {
    return reached;
  }

  /** Of the world in which the act began; no other act changes it meanwhile. */
  public long worldVersion() {
    return worldVersion;
  }

  /** Whether it is taken back once it is known what it would do. */
  public boolean isLook() {
    return isLook;
  }

  public boolean worldChanged() {
    return worldChanged;
  }

  /** Whether what it changes goes out at once; what changes the world may always hide something. */
  public boolean hurries() {
    return worldChanged || actor == Acts.THE_HOUSE;
  }

  /** What {@link Affected} keeps from before the change, for itself. */
  public void keepWorldBefore(Object world) {
    worldBefore = world;
  }

  public Object worldBefore() {
    return worldBefore;
  }

  /** Says how it stands with the yes to an entry from now on, whatever the store says. */
  public void release(EntryKey entry, Release release) {
    releases.put(entry, release);
  }

  public Map<EntryKey, Release> releases() {
    return releases;
  }

  /** What changed, as it now is. */
  public SortedMap<RecordId, WorkRecord> records() {
    return records;
  }

  /** Whom the changed details of this record are for, together. */
  public long changedBits(RecordId record) {
    return changedBits.getOrDefault(record, 0L);
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
