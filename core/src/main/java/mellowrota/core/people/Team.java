package mellowrota.core.people;

import java.util.Objects;

/** A team. Who is in it is said by {@link Membership}. */
public record Team(TeamId id, String name) {
  public Team {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(name, "name");
  }
}
