package mellowrota.core.cover;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import mellowrota.core.time.TimeSpan;

/**
 * Works of one person that touch or overlap, or have only a break between them (COVER 17).
 *
 * @param works by start
 */
record Stretch(TimeSpan span, List<Work> works) {

  private static final Duration BREAK = Duration.ofHours(3);

  /** Without breaks; all-day work has no hours. */
  static List<Stretch> of(List<Work> byStart) {
    List<Stretch> found = new ArrayList<>();
    for (Work one : byStart) {
      if (one.allDay()) {
        continue;
      }
      Stretch last = found.isEmpty() ? null : found.get(found.size() - 1);
      if (last == null || last.span().end().isBefore(one.span().start())) {
        List<Work> works = new ArrayList<>(1);
        works.add(one);
        found.add(new Stretch(one.span(), works));
      } else {
        last.works().add(one);
        found.set(found.size() - 1, new Stretch(to(last.span(), one.span().end()), last.works()));
      }
    }
    return found;
  }

  /** Two that begin on the same local day, less than three hours apart, are one with a break. */
  static List<Stretch> withBreaks(Commitments of, List<Work> byStart) {
    List<Stretch> found = new ArrayList<>();
    for (Stretch one : of(byStart)) {
      Stretch last = found.isEmpty() ? null : found.get(found.size() - 1);
      boolean joins =
          last != null
              && of.day(last.span().start()).equals(of.day(one.span().start()))
              && Duration.between(last.span().end(), one.span().start()).compareTo(BREAK) < 0;
      if (joins) {
        List<Work> both = new ArrayList<>(last.works());
        both.addAll(one.works());
        found.set(found.size() - 1, new Stretch(to(last.span(), one.span().end()), both));
      } else {
        found.add(one);
      }
    }
    return found;
  }

  private static TimeSpan to(TimeSpan span, Instant end) {
    return end.isAfter(span.end()) ? TimeSpan.of(span.start(), end) : span;
  }

  /** The one that ends last; of several the first. */
  Work last() {
    Work found = works.get(0);
    for (Work one : works) {
      found = one.span().end().isAfter(found.span().end()) ? one : found;
    }
    return found;
  }
}
