package mellowrota.core.people;

/** Whom a detail is for: any set out of office, crew, outside and the roles. */
public record ForSet(long bits) {

  /** Office, crew, outside and every role there is or will be. */
  public static final ForSet EVERYONE = new ForSet(-1L);

  public static final ForSet CREW = new ForSet(Capacities.OFFICE | Capacities.CREW);
  public static final ForSet OFFICE = new ForSet(Capacities.OFFICE);
  public static final ForSet NOBODY = new ForSet(0);

  /** Office and whoever works on the record; Informed only looks. */
  public static final ForSet PEOPLE_ON_IT =
      OFFICE.with(RoleId.LEAD).with(RoleId.SUPPORT).with(RoleId.SUPERVISOR);

  public static ForSet of(RoleId... roles) {
    ForSet set = NOBODY;
    for (RoleId role : roles) {
      set = set.with(role);
    }
    return set;
  }

  public ForSet with(RoleId role) {
    return new ForSet(bits | Capacities.role(role));
  }

  /** Whom both are for: what is computed from both may be shown to these only. */
  public ForSet intersection(ForSet other) {
    return new ForSet(bits & other.bits);
  }

  public boolean allows(Capacities reader) {
    return (bits & reader.bits()) != 0;
  }
}
