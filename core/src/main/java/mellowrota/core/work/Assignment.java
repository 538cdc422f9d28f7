package mellowrota.core.work;

import java.time.Instant;
import java.util.Objects;
import mellowrota.core.people.Holder;
import mellowrota.core.people.RoleId;

/** Who is what on one visit, and since when it was handed to them. */
public record Assignment(int visit, Holder holder, RoleId role, Instant givenAt) {
  public Assignment {
    Objects.requireNonNull(holder, "holder");
    Objects.requireNonNull(role, "role");
    Objects.requireNonNull(givenAt, "givenAt");
  }
}
