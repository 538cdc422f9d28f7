package mellowrota.core.people;

import java.time.LocalDate;
import java.util.Objects;
import java.util.Optional;

/**
 * A person or another team in a team, from a day on.
 *
 * @param until the first day without; empty while it has no end
 */
public record Membership(TeamId team, Holder member, LocalDate from, Optional<LocalDate> until) {

  public Membership {
    Objects.requireNonNull(team, "team");
    Objects.requireNonNull(member, "member");
    Objects.requireNonNull(from, "from");
    Objects.requireNonNull(until, "until");
  }

  public boolean holdsOn(LocalDate day) {
    return !day.isBefore(from) && until.map(day::isBefore).orElse(true);
  }
}
