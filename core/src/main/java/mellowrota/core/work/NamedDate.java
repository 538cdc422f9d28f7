package mellowrota.core.work;

import java.util.Objects;

/** A further date of a record beside its due time, such as <i>parts arrive</i>. */
public record NamedDate(String name, Due when) {
  public NamedDate {
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(when, "when");
  }
}
