package mellowrota.core.change;

import java.util.Objects;

/**
 * One field's value before and after an act, as text in the form that history keeps.
 *
 * @param field such as {@code due}, {@code detail:phone}, {@code assignments}
 */
public record FieldChange(String field, String before, String after) {

  public FieldChange {
    Objects.requireNonNull(field, "field");
    Objects.requireNonNull(before, "before");
    Objects.requireNonNull(after, "after");
  }

  public FieldChange inverse() {
    return new FieldChange(field, after, before);
  }
}
