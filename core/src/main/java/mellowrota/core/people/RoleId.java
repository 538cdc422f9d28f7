package mellowrota.core.people;

/**
 * Identifies a role on a record. The number is also the role's bit in a {@link ForSet}; it is never
 * given to another role.
 */
public record RoleId(int value) implements Comparable<RoleId> {

  /** Roles that every house begins with; their names are the house's to edit. */
  public static final RoleId LEAD = new RoleId(0);

  public static final RoleId SUPPORT = new RoleId(1);
  public static final RoleId SUPERVISOR = new RoleId(2);
  public static final RoleId INFORMED = new RoleId(3);

  /** How many roles a house can ever have had. */
  public static final int MOST = 60;

  public RoleId {
    if (value < 0 || value >= MOST) {
      throw new IllegalArgumentException("role number " + value + " is not in 0.." + (MOST - 1));
    }
  }

  public static RoleId of(int value) {
    return new RoleId(value);
  }

  @Override
  public int compareTo(RoleId other) {
    return Integer.compare(value, other.value);
  }
}
