package mellowrota.core.people;

import java.util.Objects;
import java.util.Set;

/**
 * Somebody who works for the house, or reads something of it.
 *
 * @param standing what they are to the house
 * @param right what their account may do; {@link AccountRight#NONE} without one
 * @param coordinates the teams whose records a team coordinator has office rights on
 */
public record Person(
    PersonId id, String name, Standing standing, AccountRight right, Set<TeamId> coordinates) {

  /** What a person is to the house. */
  public enum Standing {
    /** Active in the crew. */
    HOUSE,
    /** Works here for an agency: never crew. */
    AGENCY,
    /** Reads what is shared with them. */
    OUTSIDE,
    /** Has left: in no audience, opens nothing, nothing lands on their calendar. */
    LEFT
  }

  /** What an account may do. */
  public enum AccountRight {
    NONE,
    WORKER,
    TEAM_COORDINATOR,
    COORDINATOR
  }

  public Person {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(standing, "standing");
    Objects.requireNonNull(right, "right");
    coordinates = Set.copyOf(coordinates);
  }

  public static Person worker(PersonId id, String name) {
    return new Person(id, name, Standing.HOUSE, AccountRight.WORKER, Set.of());
  }

  public boolean hasLeft() {
    return standing == Standing.LEFT;
  }

  public boolean isCoordinator() {
    return right == AccountRight.COORDINATOR && !hasLeft();
  }

  public boolean isTeamCoordinator() {
    return right == AccountRight.TEAM_COORDINATOR && !hasLeft();
  }

  /** Whether they have office rights on this team's records. */
  public boolean leads(TeamId team) {
    return isTeamCoordinator() && coordinates.contains(team);
  }

  /** Office and crew as far as they hold on every record alike. */
  public Capacities everywhere() {
    long bits = Capacities.OUTSIDE;
    if (standing == Standing.HOUSE) {
      bits |= Capacities.CREW;
    }
    if (isCoordinator()) {
      bits |= Capacities.OFFICE;
    }
    return new Capacities(bits);
  }
}
