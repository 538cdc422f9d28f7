package mellowrota.core.people;

import java.util.Objects;
import java.util.Set;

/** What somebody is on a record, and what that lets them change there. */
public record Role(RoleId id, String name, Set<Right> rights) {

  /** What a holder of a role may change on the record. */
  public enum Right {
    TIMES,
    PEOPLE,
    NOTES,
    /** Started, done, can't. */
    MARKS
  }

  public Role {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(name, "name");
    rights = Set.copyOf(rights);
  }

  /** The roles of a new house: Lead and Supervisor change all, Support notes, Informed looks. */
  public static java.util.List<Role> usual() {
    return java.util.List.of(
        new Role(RoleId.LEAD, "Lead", Set.of(Right.values())),
        new Role(RoleId.SUPPORT, "Support", Set.of(Right.NOTES, Right.MARKS)),
        new Role(RoleId.SUPERVISOR, "Supervisor", Set.of(Right.values())),
        new Role(RoleId.INFORMED, "Informed", Set.of()));
  }
}
