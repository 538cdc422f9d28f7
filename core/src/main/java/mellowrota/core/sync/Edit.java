package mellowrota.core.sync;

import java.util.Objects;

/**
 * A change that somebody made in an outside calendar.
 *
 * @param sent what we last wrote there
 * @param theirs what was made of it
 * @param ours what should stand there by now
 * @param answer what becomes of it
 * @param standsThere whether theirs stays there for the time being
 */
public record Edit(
    Part part, Object sent, Object theirs, Object ours, Answer answer, boolean standsThere) {
  public Edit {
    Objects.requireNonNull(part, "part");
    Objects.requireNonNull(sent, "sent");
    Objects.requireNonNull(theirs, "theirs");
    Objects.requireNonNull(ours, "ours");
    Objects.requireNonNull(answer, "answer");
  }
}
