package mellowrota.core.cover;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;

/**
 * Suggests who fills what is short: greedily, gap by gap as they begin, to the best of those who
 * could when all that was suggested before is done. It breaks no limit that is never, and gives
 * nothing to whom nobody knows about.
 */
public final class Fill {

  private Fill() {}

  /**
   * What is short.
   *
   * @param work as it would be done, with the places that are missing
   * @param alone where nobody else would stand
   * @param there who stands there already
   * @param together all who come are on one visit; else each has one of their own
   */
  public record Short(
      String of, Work work, List<TimeSpan> alone, Set<PersonId> there, boolean together) {}

  /** One of those missing: given to somebody, or to nobody, with the best that spoke against it. */
  public record Suggestion(Short gap, Optional<PersonId> person, List<WhoCould.Reason> reasons) {
    public Suggestion {
      reasons = List.copyOf(reasons);
    }
  }

  /**
   * One suggestion for each place that is missing.
   *
   * @param gaps by start
   * @param people of whom each is tried with all that was suggested to them before
   */
  public static List<Suggestion> suggest(
      List<Short> gaps, List<WhoCould.Candidate> people, Bounds bounds) {
    Bounds filled = bounds;
    Map<PersonId, WhoCould.Candidate> now = new HashMap<>();
    people.forEach(one -> now.put(one.person(), one));
    List<Suggestion> found = new ArrayList<>();
    for (Short gap : gaps) {
      Set<PersonId> taken = new HashSet<>(gap.there());
      List<Optional<String>> open = new ArrayList<>(gap.work().asks());
      while (!open.isEmpty()) {
        int given = taken.size() - gap.there().size();
        Work asked = gap.work().asking(open);
        Work work = gap.together() || given == 0 ? asked : asked.called(asked.id() + "#" + given);
        List<WhoCould.Candidate> left =
            people.stream()
                .map(one -> now.get(one.person()))
                .filter(one -> !taken.contains(one.person()))
                .map(one -> one.of().able().notAlone() ? alone(one, gap) : one)
                .toList();
        List<WhoCould.Answer> answers = WhoCould.of(work, left, filled);
        Optional<WhoCould.Answer> best =
            answers.stream()
                .filter(one -> one.verdict() != WhoCould.Verdict.NO && !one.isUnknown())
                .findFirst();
        if (best.isPresent()) {
          WhoCould.Candidate one = now.get(best.get().candidate().person());
          taken.add(one.person());
          now.put(one.person(), with(one, work));
          filled = filled.and(work);
          found.add(new Suggestion(gap, Optional.of(one.person()), best.get().reasons()));
          open.remove(place(one, open, work));
        } else {
          List<WhoCould.Reason> why = answers.isEmpty() ? List.of() : answers.get(0).reasons();
          open.forEach(place -> found.add(new Suggestion(gap, Optional.empty(), why)));
          open.clear();
        }
      }
    }
    return found;
  }

  /** The place they take: one that wants a skill of theirs before one that wants none. */
  private static int place(WhoCould.Candidate one, List<Optional<String>> open, Work work) {
    int found = 0;
    for (int i = 0; i < open.size(); i++) {
      if (open.get(i).isPresent()
          && one.of().able().fits(open.get(i), work.span().start(), work.site())) {
        return i;
      }
      found = open.get(i).isEmpty() ? i : found;
    }
    return found;
  }

  private static WhoCould.Candidate alone(WhoCould.Candidate one, Short gap) {
    return new WhoCould.Candidate(
        one.of(),
        one.name(),
        one.unknown(),
        one.here(),
        gap.alone(),
        one.until(),
        one.load(),
        one.contract());
  }

  private static WhoCould.Candidate with(WhoCould.Candidate one, Work work) {
    Duration load = one.load().plus(work.span().length());
    return new WhoCould.Candidate(
        one.of().and(work),
        one.name(),
        one.unknown(),
        one.here(),
        one.alone(),
        one.until(),
        load,
        one.contract());
  }
}
