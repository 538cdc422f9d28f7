package mellowrota.core.deadline;

import java.time.Duration;
import java.time.LocalTime;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.Due;

/**
 * How a date was reckoned, in the order in which it was (CHAINS 2): offset, addition, one roll,
 * time of day.
 *
 * @param result what it comes to
 * @param offset empty: on the day it counts from
 * @param from the date it counts from
 * @param step which step that is of; empty: the key date
 * @param aside why that step lands nowhere, though it is counted from
 * @param counted what the offset comes to
 * @param addition what the way of a notice adds; empty: nothing was asked of one
 */
public record Sum(
    Due result,
    Optional<Step.Offset> offset,
    Due from,
    Optional<Name> step,
    Optional<Reckoned.Standing> aside,
    Counted counted,
    Optional<Addition> addition,
    Rolled roll,
    Optional<LocalTime> at) {

  /**
   * Where counting ends.
   *
   * @param notCounted days that are no working days, in the order of the calendar
   * @param clock by how much the clock was put forward in between; negative: back
   */
  public record Counted(Due result, List<WorkingDays.Off> notCounted, Duration clock) {
    public Counted {
      notCounted = List.copyOf(notCounted);
    }

    static Counted of(Due result) {
      return new Counted(result, List.of(), Duration.ZERO);
    }
  }

  /** What a method adds, in the direction of the step. */
  public record Addition(Method method, Step.Side side, Counted counted) {}

  /**
   * The roll.
   *
   * @param off why the day it is rolled from is no working day; empty: it is one, or any will do
   */
  public record Rolled(Step.Roll rule, Optional<WorkingDays.Off> off, Due result) {}

  public Sum {
    Objects.requireNonNull(result, "result");
    Objects.requireNonNull(from, "from");
    Objects.requireNonNull(counted, "counted");
    Objects.requireNonNull(roll, "roll");
  }
}
