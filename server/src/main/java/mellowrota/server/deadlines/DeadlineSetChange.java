package mellowrota.server.deadlines;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import mellowrota.core.deadline.Name;
import mellowrota.core.work.Due;

/**
 * What somebody wants of a set. What is not named stays as it is; what rests on the calendars, on
 * answers, on methods and on the work that the key date belongs to is reckoned anew in any case.
 *
 * @param keyDate within: empty, it is not known any more
 * @param method within: empty, none is chosen any more
 * @param answers by question; empty: nobody has answered any more
 * @param newest goes by the latest text of its chain
 * @param isOff takes the set off
 */
record DeadlineSetChange(
    Optional<Optional<Due>> keyDate,
    Optional<OptionalLong> method,
    Map<Name, Optional<Boolean>> answers,
    boolean newest,
    Map<Name, OfStep> steps,
    boolean isOff) {

  /**
   * What is said of a step.
   *
   * @param byHand within: empty, it goes by the chain again
   * @param keep it stays where it is, from now on by hand
   */
  record OfStep(Optional<Boolean> leftOut, Optional<Optional<Due>> byHand, boolean keep) {
    static final OfStep NOTHING = new OfStep(Optional.empty(), Optional.empty(), false);
  }

  /** Reckons it anew. */
  static final DeadlineSetChange ANEW =
      new DeadlineSetChange(Optional.empty(), Optional.empty(), Map.of(), false, Map.of(), false);

  static final DeadlineSetChange NEWEST =
      new DeadlineSetChange(Optional.empty(), Optional.empty(), Map.of(), true, Map.of(), false);

  static final DeadlineSetChange OFF =
      new DeadlineSetChange(Optional.empty(), Optional.empty(), Map.of(), false, Map.of(), true);

  OfStep step(Name name) {
    return steps.getOrDefault(name, OfStep.NOTHING);
  }
}
