package mellowrota.core.cover;

import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;

/**
 * Two people change places: each is tried with the other's work as if they had not their own, as
 * {@link WhoCould} tries one.
 */
public final class Swaps {

  private Swaps() {}

  /**
   * One of the two works.
   *
   * @param work for whoever takes it over, confirmed
   * @param holder who has it, as if they had it not
   */
  public record Side(Work work, WhoCould.Candidate holder) {
    public Side {
      Objects.requireNonNull(work, "work");
      Objects.requireNonNull(holder, "holder");
    }
  }

  /**
   * What was found of one.
   *
   * @param theirs the work that would come back
   * @param they who has it, with ours
   * @param we with theirs
   */
  public record Swap(Side theirs, WhoCould.Answer they, WhoCould.Answer we) {

    /** Of the two, the worse. */
    public WhoCould.Verdict verdict() {
      return they.verdict().compareTo(we.verdict()) > 0 ? they.verdict() : we.verdict();
    }

    private int reasons() {
      return they.reasons().size() + we.reasons().size();
    }
  }

  /**
   * All of them: those that both could first, then with fewer reasons, then those nearer in time.
   */
  public static List<Swap> of(Side ours, List<Side> others, Bounds bounds) {
    return others.stream()
        .map(theirs -> new Swap(theirs, tried(ours, theirs, bounds), tried(theirs, ours, bounds)))
        .sorted(
            Comparator.comparing(Swap::verdict)
                .thenComparing(Swap::reasons)
                .thenComparing(one -> apart(ours.work(), one.theirs().work()))
                .thenComparing(one -> one.theirs().holder().name())
                .thenComparing(one -> one.theirs().work().id()))
        .toList();
  }

  private static WhoCould.Answer tried(Side work, Side by, Bounds bounds) {
    return WhoCould.of(work.work(), List.of(by.holder()), bounds).get(0);
  }

  private static Duration apart(Work one, Work other) {
    return Duration.between(one.span().start(), other.span().start()).abs();
  }
}
