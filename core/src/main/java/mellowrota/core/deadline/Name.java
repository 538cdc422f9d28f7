package mellowrota.core.deadline;

import java.text.Normalizer;
import java.util.Locale;
import java.util.regex.Pattern;

/**
 * What a chain, its key date, a step, a question, a method, a role or somebody is called. Two are
 * the same when they agree after NFC, in lower case; of white space a run is one space.
 */
public record Name(String text) {

  static final int LONGEST = 80;

  private static final Pattern BLANK = Pattern.compile("[ \\t\\u00a0]+");
  private static final Pattern EDGES = Pattern.compile("^ | $");

  public Name {
    text = EDGES.matcher(BLANK.matcher(text).replaceAll(" ")).replaceAll("");
    if (text.isEmpty()) {
      throw new IllegalArgumentException("a name without a letter");
    }
  }

  public static Name of(String text) {
    return new Name(text);
  }

  /** What is the same for two that are the same. */
  public String key() {
    return Normalizer.normalize(text, Normalizer.Form.NFC).toLowerCase(Locale.ROOT);
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Name name && key().equals(name.key());
  }

  @Override
  public int hashCode() {
    return key().hashCode();
  }

  /** As it is typed. */
  @Override
  public String toString() {
    return text;
  }
}
