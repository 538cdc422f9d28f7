package mellowrota.core.deadline;

import java.util.Objects;
import java.util.Optional;
import mellowrota.core.work.Due;

/**
 * What a step of a set comes to.
 *
 * @param date by when it is to be done; empty: it lands nowhere
 * @param counts what is counted from it; a step that lands nowhere has one all the same where it
 *     can be reckoned
 * @param sum how that was reckoned; empty: it was not, or it was set by hand or done
 * @param why why there is no date, or why it does not apply
 */
public record Reckoned(
    Step step,
    Standing standing,
    Optional<Due> date,
    Optional<Due> counts,
    Optional<Sum> sum,
    Optional<Why> why) {

  /** In the order in which one goes before another, from the strongest. */
  public enum Standing {
    LEFT_OUT,
    DONE,
    BY_HAND,
    DOES_NOT_APPLY,
    PENDING,
    NO_DATE,
    RECKONED
  }

  /** Why a step has no date. */
  public enum Reason {
    NO_KEY_DATE(true),
    NO_METHOD(true),
    NO_ANSWER(true),
    ANSWER_AGAINST(false),
    HOURS_OF_DAY(false),
    METHOD_IN_HOURS(false),
    NO_WORKING_DAY(false),
    YEAR(false);

    private final boolean pending;

    Reason(boolean pending) {
      this.pending = pending;
    }

    /** Whether somebody has yet to say something. */
    public boolean isPending() {
      return pending;
    }
  }

  /**
   * The first reason.
   *
   * @param wanted of an answer, that with which the step is to be done
   * @param name the question, or the method
   * @param from the step it counts from, of which this is the reason
   */
  public record Why(Reason reason, boolean wanted, Optional<Name> name, Optional<Name> from) {

    static Why of(Reason reason) {
      return new Why(reason, false, Optional.empty(), Optional.empty());
    }

    static Why of(Reason reason, Step.Condition condition) {
      return new Why(
          reason, condition.wanted(), Optional.of(condition.question()), Optional.empty());
    }

    Why through(Name step) {
      return new Why(reason, wanted, name, Optional.of(from.orElse(step)));
    }
  }

  public Reckoned {
    Objects.requireNonNull(step, "step");
    Objects.requireNonNull(standing, "standing");
  }

  /** The same as it stands, which may be otherwise than it would be reckoned today. */
  public Reckoned standingAt(Optional<Due> due) {
    return new Reckoned(step, standing, due, counts, sum, why);
  }
}
