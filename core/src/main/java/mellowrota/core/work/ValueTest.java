package mellowrota.core.work;

import java.util.function.IntPredicate;

/** How a detail's value is compared with another of its sort. */
public enum ValueTest {
  OVER(order -> order > 0),
  UNDER(order -> order < 0),
  /** Whatever the case of its letters. */
  IS(order -> order == 0);

  private final IntPredicate holds;

  ValueTest(IntPredicate holds) {
    this.holds = holds;
  }

  /** Whether there is an order in which one could be over or under another. */
  public boolean isFor(DetailSort sort) {
    return this == IS || sort.isOrdered();
  }

  /** False where the value is none of its sort, as text of before may be. */
  public boolean holds(DetailSort sort, String value, String than) {
    return sort.compare(value, than).stream().anyMatch(holds);
  }
}
