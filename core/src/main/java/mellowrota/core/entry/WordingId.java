package mellowrota.core.entry;

/** Identifies a wording. */
public record WordingId(long value) implements Comparable<WordingId> {

  public static WordingId of(long value) {
    return new WordingId(value);
  }

  @Override
  public int compareTo(WordingId other) {
    return Long.compare(value, other.value);
  }
}
