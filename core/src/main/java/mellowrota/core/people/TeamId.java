package mellowrota.core.people;

/** Identifies a team. */
public record TeamId(long value) implements Comparable<TeamId> {

  public static TeamId of(long value) {
    return new TeamId(value);
  }

  @Override
  public int compareTo(TeamId other) {
    return Long.compare(value, other.value);
  }
}
