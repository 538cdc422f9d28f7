package mellowrota.core.work;

import java.util.List;
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
 * @param typed whether its value is typed; else it is computed from the record's structure
 * @param sort what may be typed
 * @param choices what a choice may be, in their order
 * @param states in which it applies; none: in all of them
 * @param unit what a number counts, or the currency of an amount by its ISO 4217 code; blank: not
 *     said
 */
public record DetailDefinition(
    DetailKey key,
    String label,
    Set<Kind> kinds,
    ForSet forWhom,
    boolean typed,
    DetailSort sort,
    List<String> choices,
    Set<State> states,
    String unit) {

  public DetailDefinition {
    Objects.requireNonNull(key, "key");
    Objects.requireNonNull(label, "label");
    Objects.requireNonNull(forWhom, "forWhom");
    Objects.requireNonNull(sort, "sort");
    Objects.requireNonNull(unit, "unit");
    kinds = Set.copyOf(kinds);
    choices = List.copyOf(choices);
    states = Set.copyOf(states);
  }

  /** A detail of one line that always applies. */
  public DetailDefinition(
      DetailKey key, String label, Set<Kind> kinds, ForSet forWhom, boolean typed) {
    this(key, label, kinds, forWhom, typed, DetailSort.TEXT, List.of(), Set.of(), "");
  }

  /** The same for others. */
  public DetailDefinition withFor(ForSet set) {
    return new DetailDefinition(key, label, kinds, set, typed, sort, choices, states, unit);
  }

  /** Reads what somebody typed into it. */
  public DetailSort.Reading read(String text) {
    return sort.read(text, choices, unit);
  }

  /** A value as people read it, with its unit. */
  public String said(String value) {
    return sort.said(value, unit);
  }

  /** Whether people write it on the record, beside its title. */
  public boolean isWritten() {
    return typed && !key.equals(DetailKey.TITLE);
  }

  /**
   * Whether it means anything on this record. Kind and state decide, which are for everyone
   * (LANDING 18); done work counts as in the state before too (LANDING 3).
   */
  public boolean appliesTo(WorkRecord record) {
    return kinds.contains(record.kind())
        && (states.isEmpty()
            || states.contains(record.state())
            || record.isDone() && states.contains(record.stateBefore()));
  }
}
