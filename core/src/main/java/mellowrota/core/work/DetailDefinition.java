package mellowrota.core.work;

import java.util.Objects;
import java.util.Set;
import mellowrota.core.people.ForSet;

/**
 * A detail a house keeps on its records.
 *
 * @param key what wordings call it
 * @param label what screens call it
 * @param kinds the kinds of record that have it
 * @param forWhom whom it is for, where the record says nothing else
 * @param typed whether its value is typed text; else it is computed from the record's structure
 */
public record DetailDefinition(
    DetailKey key, String label, Set<Kind> kinds, ForSet forWhom, boolean typed) {

  public DetailDefinition {
    Objects.requireNonNull(key, "key");
    Objects.requireNonNull(label, "label");
    Objects.requireNonNull(forWhom, "forWhom");
    kinds = Set.copyOf(kinds);
  }
}
