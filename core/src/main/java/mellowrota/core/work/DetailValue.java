package mellowrota.core.work;

import java.util.Objects;
import java.util.Optional;
import mellowrota.core.people.ForSet;

/**
 * What a record says for one detail.
 *
 * @param text trimmed; blank means empty
 * @param forWhom whom it is for on this record, where that differs from the house's choice
 */
public record DetailValue(String text, Optional<ForSet> forWhom) {

  /** Says nothing, of nobody in particular. */
  public static final DetailValue NONE = new DetailValue("", Optional.empty());

  public DetailValue {
    Objects.requireNonNull(text, "text");
    Objects.requireNonNull(forWhom, "forWhom");
    text = text.strip();
  }

  public static DetailValue of(String text) {
    return new DetailValue(text, Optional.empty());
  }

  public DetailValue withFor(ForSet set) {
    return new DetailValue(text, Optional.of(set));
  }
}
