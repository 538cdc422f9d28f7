package mellowrota.core.work;

/** Identifies a record, one piece of work. */
public record RecordId(long value) implements Comparable<RecordId> {

  public static RecordId of(long value) {
    return new RecordId(value);
  }

  @Override
  public int compareTo(RecordId other) {
    return Long.compare(value, other.value);
  }
}
