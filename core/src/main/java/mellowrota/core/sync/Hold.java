package mellowrota.core.sync;

import java.util.List;
import java.util.Objects;

/**
 * A change made there that stays there for the time being: until somebody decides, or ours changes
 * too. A note stays as long as the copy does, unless it is put back.
 *
 * @param theirs what stands there; of a note its lines in {@link Content#text}
 * @param ours what should have stood there when it was found
 */
public record Hold(Part part, Content theirs, Content ours) {
  public Hold {
    Objects.requireNonNull(part, "part");
    Objects.requireNonNull(theirs, "theirs");
    Objects.requireNonNull(ours, "ours");
  }

  /** What should stand there, with what is held there. */
  public static Content on(Content ours, List<Hold> holds) {
    Content held = ours;
    for (Hold hold : holds) {
      if (hold.part != Part.NOTE && ours.agrees(hold.ours, hold.part)) {
        held = held.with(hold.part, hold.theirs);
      }
    }
    for (Hold hold : holds) {
      if (hold.part == Part.NOTE) {
        held = held.noted(hold.theirs.text());
      }
    }
    return held;
  }
}
