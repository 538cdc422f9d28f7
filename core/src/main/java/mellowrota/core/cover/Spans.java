package mellowrota.core.cover;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import mellowrota.core.time.TimeSpan;

/** Sets of minutes, as spans by start that neither overlap nor touch. */
final class Spans {

  static final Comparator<TimeSpan> BY_START =
      (one, other) -> {
        int order = one.start().compareTo(other.start());
        return order == 0 ? one.end().compareTo(other.end()) : order;
      };

  private Spans() {}

  /** All of them; touching and overlapping ones as one, empty ones as none. */
  static List<TimeSpan> union(Collection<TimeSpan> spans) {
    List<TimeSpan> byStart = new ArrayList<>(spans);
    byStart.removeIf(TimeSpan::isEmpty);
    byStart.sort(BY_START);
    List<TimeSpan> found = new ArrayList<>();
    for (TimeSpan one : byStart) {
      TimeSpan last = found.isEmpty() ? null : found.get(found.size() - 1);
      if (last == null || last.end().isBefore(one.start())) {
        found.add(one);
      } else if (last.end().isBefore(one.end())) {
        found.set(found.size() - 1, TimeSpan.of(last.start(), one.end()));
      }
    }
    return found;
  }

  /** Those of a set that meet or touch a span. */
  static List<TimeSpan> near(List<TimeSpan> set, TimeSpan span) {
    int from = 0;
    int until = set.size();
    while (from < until) {
      int middle = (from + until) / 2;
      if (set.get(middle).end().isBefore(span.start())) {
        from = middle + 1;
      } else {
        until = middle;
      }
    }
    int end = from;
    while (end < set.size() && !set.get(end).start().isAfter(span.end())) {
      end++;
    }
    return set.subList(from, end);
  }

  /** What of a span is in none of a set. */
  static List<TimeSpan> without(TimeSpan span, List<TimeSpan> set) {
    List<TimeSpan> found = new ArrayList<>(0);
    Instant from = span.start();
    for (TimeSpan one : set) {
      if (!one.end().isAfter(from)) {
        continue;
      }
      if (!one.start().isBefore(span.end())) {
        break;
      }
      if (one.start().isAfter(from)) {
        found.add(TimeSpan.of(from, one.start()));
      }
      from = one.end();
    }
    if (from.isBefore(span.end())) {
      found.add(TimeSpan.of(from, span.end()));
    }
    return found;
  }

  static boolean holds(List<TimeSpan> set, Instant at) {
    for (TimeSpan one : set) {
      if (!at.isBefore(one.start()) && at.isBefore(one.end())) {
        return true;
      }
    }
    return false;
  }

  /** Whether one of a set shares a part with a span. */
  static boolean meet(List<TimeSpan> set, TimeSpan span) {
    for (TimeSpan one : set) {
      if (one.overlaps(span)) {
        return true;
      }
    }
    return false;
  }

  /** How much of a set lies in a span. */
  static Duration within(List<TimeSpan> set, TimeSpan span) {
    Duration sum = Duration.ZERO;
    for (TimeSpan one : set) {
      sum = sum.plus(one.intersection(span).map(TimeSpan::length).orElse(Duration.ZERO));
    }
    return sum;
  }
}
