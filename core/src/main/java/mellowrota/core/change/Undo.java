package mellowrota.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * The inverse of an act, as far as it can be had: only values that nobody changed since go back.
 *
 * @param takesBack the changes to make now
 * @param leaves fields that somebody changed since, which stay as they are
 */
public record Undo(List<FieldChange> takesBack, List<String> leaves) {

  public Undo {
    takesBack = List.copyOf(takesBack);
    leaves = List.copyOf(leaves);
  }

  /**
   * Plans it.
   *
   * @param done what the act changed
   * @param now the present value of each of those fields
   */
  public static Undo of(List<FieldChange> done, Map<String, String> now) {
    List<FieldChange> takesBack = new ArrayList<>();
    List<String> leaves = new ArrayList<>();
    for (FieldChange change : done) {
      if (change.after().equals(now.getOrDefault(change.field(), ""))) {
        takesBack.add(change.inverse());
      } else {
        leaves.add(change.field());
      }
    }
    return new Undo(takesBack, leaves);
  }
}
