package mellowrota.core.rule;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.WordingId;

/**
 * One sentence: when a record is so, it lands there, in this shape, worded so.
 *
 * @param position rules are looked at in this order, then by id
 * @param busy empty: as the shape says (spans busy, everything else free)
 * @param afterYes whether what it lands waits for a coordinator's yes
 */
public record LandingRule(
    long id,
    int position,
    boolean on,
    Condition when,
    List<Target> targets,
    Shape shape,
    Optional<WordingId> wording,
    Optional<Boolean> busy,
    Entry.With with,
    WhenDone whenDone,
    boolean afterYes,
    String note) {

  /** What becomes of the entry when the work is done. */
  public enum WhenDone {
    STAYS_WITH_TICK,
    COMES_OFF
  }

  public LandingRule {
    Objects.requireNonNull(when, "when");
    targets = List.copyOf(targets);
    Objects.requireNonNull(shape, "shape");
    Objects.requireNonNull(wording, "wording");
    Objects.requireNonNull(busy, "busy");
    Objects.requireNonNull(with, "with");
    Objects.requireNonNull(whenDone, "whenDone");
    Objects.requireNonNull(note, "note");
  }
}
