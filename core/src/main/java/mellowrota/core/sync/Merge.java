package mellowrota.core.sync;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * Compares three ways, part by part: what we last sent, what stands there, what should stand there.
 * Nothing that anybody did is dropped: what was changed there is taken, proposed or put back, and
 * each is in {@link #edits}; what we changed is in {@link #write}.
 *
 * @param write what is to be written there; empty where what stands there may stay
 * @param stands what stands there afterwards, to compare with the next time
 * @param edits what was changed there, in the order of the parts
 */
public record Merge(Optional<Content> write, Content stands, List<Edit> edits) {

  private static final List<Part> COMPARED = List.of(Part.TIMES, Part.TITLE, Part.PLACE, Part.TEXT);

  public Merge {
    Objects.requireNonNull(write, "write");
    Objects.requireNonNull(stands, "stands");
    edits = List.copyOf(edits);
  }

  /**
   * Where both changed the same part, ours is written and theirs proposed, or only told where they
   * have no say in it. Equal changes agree and ask for nothing. Notes never meet: they are added.
   *
   * @param sent what stood there when we last looked or wrote
   * @param ours with what is held there ({@link Hold})
   */
  public static Merge of(Content sent, Content theirs, Content ours, Answer.Rights rights) {
    List<Edit> edits = new ArrayList<>();
    Content wanted = ours;
    for (Part part : COMPARED) {
      if (theirs.agrees(sent, part) || theirs.agrees(ours, part)) {
        continue;
      }
      Optional<String> note = part == Part.TEXT ? theirs.noteAfter(sent) : Optional.empty();
      if (note.isPresent()) {
        Answer answer = rights.to(Part.NOTE);
        boolean stays = answer != Answer.PUT_BACK;
        wanted = stays ? wanted.noted(note.get()) : wanted;
        edits.add(new Edit(Part.NOTE, "", note.get(), "", answer, stays));
        continue;
      }
      boolean weDid = !ours.agrees(sent, part);
      Answer may = rights.to(part);
      Answer answer = may == Answer.TAKE && weDid ? Answer.PROPOSE : may;
      boolean stays = answer != Answer.PUT_BACK && !weDid;
      wanted = stays ? wanted.with(part, theirs) : wanted;
      edits.add(new Edit(part, sent.of(part), theirs.of(part), ours.of(part), answer, stays));
    }
    return wanted.agrees(theirs)
        ? new Merge(Optional.empty(), theirs, edits)
        : new Merge(Optional.of(wanted), wanted, edits);
  }

  /**
   * What we last sent, as far as it can be known. A write arrives whole or not at all: if one part
   * reads as only the write can have made it, all of it was there. Where nothing tells, each part
   * that reads as it would is ours.
   *
   * @param stood what stood there before it
   * @param attempt what may have arrived
   */
  public static Content sent(Content stood, Content attempt, Content theirs) {
    boolean arrived =
        COMPARED.stream()
            .anyMatch(part -> !attempt.agrees(stood, part) && theirs.agrees(attempt, part));
    if (arrived) {
      return attempt;
    }
    Content found = stood;
    for (Part part : COMPARED) {
      if (theirs.agrees(attempt, part)) {
        found = found.with(part, attempt);
      }
    }
    return found;
  }

  /** What becomes of a copy that was deleted there. */
  public enum Deleted {
    /** It stays off until somebody says put it back, or lets it go. */
    PROPOSED,
    /** It is written again, and that is told. */
    PUT_BACK
  }

  /**
   * A deletion there is a proposal; if we changed it too, it is put back and proposed.
   *
   * @param hasSay whether whoever's calendar it is has a say in the record
   */
  public static Deleted deleted(Content sent, Content ours, boolean hasSay) {
    return hasSay && sent.agrees(ours) ? Deleted.PROPOSED : Deleted.PUT_BACK;
  }
}
