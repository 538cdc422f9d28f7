package mellowrota.core.entry;

import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * A visit on a calendar before anybody looks at it. What a reader gets is a face of it.
 *
 * @param times with margins where the rule asks for them
 * @param bareTimes the same without margins, where they differ
 * @param given when the work was handed over, as this calendar counts it
 * @param wording none: the kind's default
 * @param rules the rules that put it here, earliest first; empty when an <i>also here</i> did
 * @param with reminders of all its rules, attendees as the earliest says
 * @param waits whether changes wait for a coordinator's yes
 */
public record Entry(
    EntryKey key,
    Uid uid,
    EntryTimes times,
    Optional<EntryTimes> bareTimes,
    Optional<Instant> given,
    Marks marks,
    Optional<WordingId> wording,
    List<Long> rules,
    With with,
    boolean waits) {

  /** What goes with it to whoever reads it whole. */
  public record With(List<Reminder> reminders, Attendees attendees) {
    public static final With NOTHING = new With(List.of(), Attendees.NOBODY);

    public With {
      reminders = List.copyOf(reminders);
      Objects.requireNonNull(attendees, "attendees");
    }
  }

  /**
   * What goes with the times at every level, and stands in no text.
   *
   * @param unhanded a due mark in place of a rail, since nobody leads it yet
   */
  public record Marks(
      boolean tick, boolean tentative, boolean busy, boolean late, boolean unhanded) {}

  public Entry {
    Objects.requireNonNull(key, "key");
    Objects.requireNonNull(uid, "uid");
    Objects.requireNonNull(times, "times");
    Objects.requireNonNull(bareTimes, "bareTimes");
    Objects.requireNonNull(given, "given");
    Objects.requireNonNull(marks, "marks");
    Objects.requireNonNull(wording, "wording");
    Objects.requireNonNull(with, "with");
    rules = List.copyOf(rules);
  }

  /** Whether it is the same to whoever reads it, whatever rules put it there and word it. */
  public boolean standsAs(Entry other) {
    return key.equals(other.key)
        && times.equals(other.times)
        && bareTimes.equals(other.bareTimes)
        && given.equals(other.given)
        && with.equals(other.with)
        && waits == other.waits
        && marks.equals(other.marks);
  }
}
