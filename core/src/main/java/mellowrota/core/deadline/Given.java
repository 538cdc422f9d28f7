package mellowrota.core.deadline;

import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.Due;

/**
 * What the dates of a set rest on beside its chain.
 *
 * @param keyDate empty: it is not known yet
 * @param method the one chosen
 * @param answers by question
 * @param fixed what somebody said of steps
 * @param methods those of the house
 * @param days of the place
 * @param zone of the place
 */
public record Given(
    Optional<Due> keyDate,
    Optional<Name> method,
    Map<Name, Boolean> answers,
    Map<Name, Fixed> fixed,
    List<Method> methods,
    WorkingDays days,
    ZoneId zone) {

  /**
   * What somebody said of a step.
   *
   * @param done the date it had when it was done
   */
  public record Fixed(boolean leftOut, Optional<Due> done, Optional<Due> byHand) {

    /** Nothing. */
    public static final Fixed NOTHING = new Fixed(false, Optional.empty(), Optional.empty());
  }

  public Given {
    Objects.requireNonNull(keyDate, "keyDate");
    Objects.requireNonNull(method, "method");
    Objects.requireNonNull(days, "days");
    Objects.requireNonNull(zone, "zone");
    answers = Map.copyOf(answers);
    fixed = Map.copyOf(fixed);
    methods = List.copyOf(methods);
  }

  /** The same with something else said of steps. */
  public Given with(Map<Name, Fixed> other) {
    return new Given(keyDate, method, answers, other, methods, days, zone);
  }

  Fixed fixed(Name step) {
    return fixed.getOrDefault(step, Fixed.NOTHING);
  }
}
