package mellowrota.core.deadline;

import java.util.List;
import java.util.Objects;

/**
 * Deadlines that follow one key date. Names of its steps differ, and each leads back to the key
 * date.
 *
 * @param questions answered yes or no for each set
 * @param steps as they are written
 */
public record Chain(Name name, Name keyDate, List<Name> questions, List<Step> steps) {

  /** The largest number that is counted to. */
  public static final int LARGEST = 9999;

  public Chain {
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(keyDate, "keyDate");
    questions = List.copyOf(questions);
    steps = List.copyOf(steps);
  }
}
