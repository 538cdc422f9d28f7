package mellowrota.core.cover;

import java.time.Duration;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.time.TimeSpan;

/**
 * What a change makes wrong, or worse than it was. What was as wrong before, and what gets better,
 * is not held against it.
 */
public final class Worsened {

  private Worsened() {}

  /**
   * Of one person.
   *
   * @param changed ids of what the change gives them, moves or asks more of; only clashes with one
   *     of these are its own
   */
  public static List<Clash> of(
      Commitments before, Commitments after, Set<String> changed, Limits limits, Travel travel) {
    List<Clash> were = Clashes.of(before, limits, travel);
    return Clashes.of(after, limits, travel).stream()
        .filter(one -> changed.stream().anyMatch(one::involves))
        .filter(
            one ->
                isPair(one)
                    ? were.stream().noneMatch(was -> wasAsBad(was, one))
                    : howBad(one, after, limits) > sum(were, one, before, limits))
        .toList();
  }

  /** Of one place. */
  public static List<Clash> of(
      Clashes.Capacity capacity,
      Collection<Clashes.Stay> before,
      Collection<Clashes.Stay> after,
      Set<String> changed,
      Limits limits) {
    return Clashes.of(capacity, after, limits).stream()
        .filter(one -> changed.stream().anyMatch(one::involves))
        .filter(one -> excess(capacity, after, one) > excess(capacity, before, one))
        .toList();
  }

  /** What is only tentative does not make sure what it fills too much. */
  private static long excess(
      Clashes.Capacity capacity, Collection<Clashes.Stay> stays, Clash clash) {
    boolean sure = clash.level() == Clash.Level.NEVER;
    return Clashes.excess(
        capacity, stays.stream().filter(one -> !sure || !one.tentative()).toList(), clash.span());
  }

  /** What was only warned of excuses nothing that is never allowed. */
  private static boolean mindedAsMuch(Clash was, Clash one) {
    return was.level() == Clash.Level.NEVER || one.level() == Clash.Level.WARN;
  }

  /** Of two items; else of all that comes together against a limit. */
  private static boolean isPair(Clash one) {
    return one.kind().compareTo(Clash.Kind.MARGIN) <= 0;
  }

  /** The same two, and at least as much in each other's way. */
  private static boolean wasAsBad(Clash was, Clash one) {
    if (!isPair(was) || !mindedAsMuch(was, one) || !ids(was).equals(ids(one))) {
      return false;
    }
    int order = was.kind().compareTo(one.kind());
    return order < 0 || order == 0 && between(was).compareTo(between(one)) >= 0;
  }

  private static Set<Object> ids(Clash one) {
    return one.items().stream()
        .map(item -> item.sort() == Clash.Sort.BUSY ? item : item.sort() + " " + item.id())
        .collect(Collectors.toCollection(HashSet::new));
  }

  /** What both take is the worse the longer it is, what lies between them the shorter. */
  private static Duration between(Clash one) {
    Duration length = one.span().length();
    boolean apart = one.kind() == Clash.Kind.REST || one.kind() == Clash.Kind.TRAVEL;
    return apart ? length.negated() : length;
  }

  private static long howBad(Clash one, Commitments of, Limits limits) {
    TimeSpan span = one.span();
    return switch (one.kind()) {
      case WEEK -> of.load(span).toMinutes();
      case PERIOD -> {
        Duration weeks = Duration.ofDays(7L * (limits.periodWeeks() - 1));
        yield of.load(TimeSpan.of(span.start().minus(weeks), span.end())).toMinutes();
      }
      default -> span.length().toMinutes();
    };
  }

  private static long sum(List<Clash> were, Clash one, Commitments before, Limits limits) {
    return were.stream()
        .filter(was -> was.kind() == one.kind() && mindedAsMuch(was, one))
        .filter(was -> was.span().overlaps(one.span()))
        .mapToLong(was -> howBad(was, before, limits))
        .sum();
  }
}
