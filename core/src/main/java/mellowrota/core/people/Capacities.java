package mellowrota.core.people;

/**
 * The capacities in which one reader reads one record, as bits: office, crew, outside, one per
 * role. They add up; {@code outside} always holds.
 */
public record Capacities(long bits) {

  public static final long OFFICE = 1L;
  public static final long CREW = 1L << 1;
  public static final long OUTSIDE = 1L << 2;
  private static final int FIRST_ROLE_BIT = 3;

  /** Somebody of whom nothing is known. */
  public static final Capacities NOBODY_KNOWN = new Capacities(OUTSIDE);

  public static long role(RoleId role) {
    return 1L << (FIRST_ROLE_BIT + role.value());
  }

  public static Capacities of(long bits) {
    return new Capacities(bits | OUTSIDE);
  }

  /** Of those who are this to a record: office and people in a role are of the crew too. */
  public static Capacities usually(long one) {
    return of(one == OUTSIDE ? one : one | CREW);
  }

  public Capacities and(long more) {
    return new Capacities(bits | more);
  }

  public boolean isOffice() {
    return (bits & OFFICE) != 0;
  }

  public boolean isCrew() {
    return (bits & CREW) != 0;
  }

  /** Whether the reader holds any role on the record. */
  public boolean inARole() {
    return bits >>> FIRST_ROLE_BIT != 0;
  }

  public boolean holds(RoleId role) {
    return (bits & role(role)) != 0;
  }

  /**
   * The one bit of what the reader is most to the record among what lets them read what a set is
   * for: a role, office, crew, else outside. Who is in a role reads as crew there too, if they are.
   */
  public long nearest(ForSet set) {
    for (long role = 1L << FIRST_ROLE_BIT; role > 0; role <<= 1) {
      if ((bits & role) != 0 && set.allows(new Capacities(bits & (role | CREW | OUTSIDE)))) {
        return role;
      }
    }
    return isOffice() ? OFFICE : isCrew() ? CREW : OUTSIDE;
  }
}
