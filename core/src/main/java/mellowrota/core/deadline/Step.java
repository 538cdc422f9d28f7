package mellowrota.core.deadline;

import java.time.LocalTime;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * One line of a chain: when, and what is to be done then.
 *
 * @param offset how far from what it counts from; empty: on its day
 * @param from the key date or another step
 * @param by with what a notice's way adds
 * @param roll empty: as its side does, and on its day not
 * @param at its time of day; without one, and not in hours, it is a whole day
 * @param who for whom it is; nobody: for the Lead
 */
public record Step(
    Name name,
    Optional<Offset> offset,
    Name from,
    Optional<By> by,
    Optional<Roll> roll,
    Optional<LocalTime> at,
    List<For> who,
    List<Remind> reminders,
    List<Condition> conditions) {

  /** So many of a unit before or after. */
  public record Offset(int number, Unit unit, Side side) {}

  /** On which side of a date. */
  public enum Side {
    BEFORE,
    AFTER;

    int sign() {
      return this == BEFORE ? -1 : 1;
    }

    Roll roll() {
      return this == BEFORE ? Roll.BACK : Roll.FORWARD;
    }
  }

  /** Where a day that is no working day goes. */
  public enum Roll {
    BACK,
    FORWARD,
    ANY_DAY
  }

  /**
   * By which way a notice goes out.
   *
   * @param method empty: the one chosen for the set
   */
  public record By(Optional<Name> method) {}

  /**
   * For whom.
   *
   * @param holding whoever holds this role on the work; else a person or a team
   * @param as their role; always said of a person or a team
   */
  public record For(boolean holding, Name name, Optional<Name> as) {}

  /**
   * So long before it.
   *
   * @param unit minutes, hours or working days
   * @param at at which time of that day
   */
  public record Remind(int number, Unit unit, Optional<LocalTime> at) {}

  /**
   * That it is to be done depends on an answer.
   *
   * @param wanted the answer with which it is
   */
  public record Condition(boolean wanted, Name question) {}

  public Step {
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(offset, "offset");
    Objects.requireNonNull(from, "from");
    Objects.requireNonNull(by, "by");
    Objects.requireNonNull(roll, "roll");
    Objects.requireNonNull(at, "at");
    who = List.copyOf(who);
    reminders = List.copyOf(reminders);
    conditions = List.copyOf(conditions);
  }

  /** Whether it counts in hours. */
  public boolean inHours() {
    return offset.filter(one -> one.unit() == Unit.HOURS).isPresent();
  }

  /** Whether it is a plain date. */
  public boolean isWholeDay() {
    return !inHours() && at.isEmpty();
  }

  /** Where it goes from a day that is no working day. */
  public Roll rolls() {
    return roll.orElseGet(() -> offset.map(one -> one.side().roll()).orElse(Roll.ANY_DAY));
  }
}
