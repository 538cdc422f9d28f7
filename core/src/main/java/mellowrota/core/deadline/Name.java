package mellowrota.core.deadline;

import java.text.Normalizer;
import java.util.Locale;
import java.util.regex.Pattern;

/**
 * What a chain, its key date, a step, a question, a method, a role or somebody is called. Two are
 * the same when they agree after NFC, in lower case; of white space a run is one space.
 */
public final class Name {

  /** In code points. */
  public static final int LONGEST = 80;

  private static final Pattern BLANK = Pattern.compile("[ \\t\\u00a0]+");
  private static final Pattern EDGES = Pattern.compile("^ | $");

  private final String text;
  private final String key;

  private Name(String text) {
    this.text = EDGES.matcher(BLANK.matcher(text).replaceAll(" ")).replaceAll("");
    if (this.text.isEmpty()) {
      throw new IllegalArgumentException("a name without a letter");
    }
    key = Normalizer.normalize(this.text, Normalizer.Form.NFC).toLowerCase(Locale.ROOT);
  }

  /**
   * A name as it is typed.
   *
   * @throws IllegalArgumentException where there is nothing but white space
   */
  public static Name of(String text) {
    return new Name(text);
  }

  /** As it is typed, runs of white space as one space. */
  public String text() {
    return text;
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Name name && key.equals(name.key);
  }

  @Override
  public int hashCode() {
    return key.hashCode();
  }

  @Override
  public String toString() {
    return text;
  }
}
