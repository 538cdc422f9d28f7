package mellowrota.core.people;

/** Identifies a person, of the house or not. */
public record PersonId(long value) implements Comparable<PersonId> {

  public static PersonId of(long value) {
    return new PersonId(value);
  }

  @Override
  public int compareTo(PersonId other) {
    return Long.compare(value, other.value);
  }
}
