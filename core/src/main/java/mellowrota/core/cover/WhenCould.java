package mellowrota.core.cover;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;

/**
 * When people could do a work together: every start on a grid of quarter hours is tried with all of
 * them, and what speaks against one of them speaks against it.
 */
public final class WhenCould {

  /** Starts are this far apart. */
  public static final Duration GRID = Duration.ofMinutes(15);

  private WhenCould() {}

  /** What speaks against a start. */
  public record Against(PersonId person, WhoCould.Why why, boolean never) {}

  /**
   * Neighbouring starts of which the same is to be said.
   *
   * @param last included
   */
  public record Starts(
      Instant first, Instant last, WhoCould.Verdict verdict, List<Against> against) {
    public Starts {
      against = List.copyOf(against);
    }
  }

  /**
   * All starts with which the work ends within a range, by time.
   *
   * @param work as it would be, at whatever time; its length counts
   * @param people all of whom are wanted
   */
  public static List<Starts> of(
      Work work, TimeSpan range, List<WhoCould.Candidate> people, Bounds bounds) {
    Duration length = work.span().length();
    List<Starts> found = new ArrayList<>();
    long step = GRID.toSeconds();
    Instant first =
        Instant.ofEpochSecond(
            Math.floorDiv(range.start().getEpochSecond() + step - 1, step) * step);
    for (Instant at = first; !at.plus(length).isAfter(range.end()); at = at.plus(GRID)) {
      add(found, at, against(work.at(TimeSpan.of(at, at.plus(length))), people, bounds));
    }
    return found;
  }

  private static List<Against> against(Work trial, List<WhoCould.Candidate> people, Bounds bounds) {
    List<Against> found = new ArrayList<>();
    Set<PersonId> all = people.stream().map(WhoCould.Candidate::person).collect(Collectors.toSet());
    for (WhoCould.Answer answer : WhoCould.of(trial, people, bounds, all)) {
      answer.reasons().stream()
          .map(one -> new Against(answer.candidate().person(), one.why(), one.never()))
          .distinct()
          .forEach(found::add);
    }
    found.sort(
        Comparator.comparing(Against::never)
            .reversed()
            .thenComparing(Against::person)
            .thenComparing(Against::why));
    return found;
  }

  private static void add(List<Starts> found, Instant at, List<Against> against) {
    Starts before = found.isEmpty() ? null : found.get(found.size() - 1);
    if (before != null && before.against().equals(against)) {
      found.set(found.size() - 1, new Starts(before.first(), at, before.verdict(), against));
      return;
    }
    WhoCould.Verdict verdict =
        against.isEmpty()
            ? WhoCould.Verdict.YES
            : against.stream().anyMatch(Against::never)
                ? WhoCould.Verdict.NO
                : WhoCould.Verdict.WITH_REASON;
    found.add(new Starts(at, at, verdict, against));
  }
}
