package mellowrota.core.cover;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;

/**
 * Something that must be stood, over repeating spans, on the days of its season and not on its
 * exceptions; holidays do not lift it.
 *
 * @param by what its needs are {@link Need#by}
 * @param skill asked of each of its people
 */
public record Duty(
    String by, ZoneId zone, Optional<String> skill, List<Repeating> spans, Set<LocalDate> lifted) {

  /**
   * A span that repeats by weekday. It belongs to the day it begins on.
   *
   * @param until on the next day where it is not after {@code from}; equal: round the clock
   * @param first the first day of its season; empty: from ever
   * @param last the last day of its season, included; empty: for ever
   */
  public record Repeating(
      Set<DayOfWeek> weekdays,
      LocalTime from,
      LocalTime until,
      int count,
      Optional<LocalDate> first,
      Optional<LocalDate> last) {
    public Repeating {
      weekdays = Set.copyOf(weekdays);
      Objects.requireNonNull(from, "from");
      Objects.requireNonNull(until, "until");
      if (count < 1) {
        throw new IllegalArgumentException("a duty asks for one at least, not " + count);
      }
    }

    private boolean holdsOn(LocalDate day) {
      return weekdays.contains(day.getDayOfWeek())
          && first.map(begin -> !day.isBefore(begin)).orElse(true)
          && last.map(end -> !day.isAfter(end)).orElse(true);
    }
  }

  public Duty {
    Objects.requireNonNull(by, "by");
    Objects.requireNonNull(zone, "zone");
    Objects.requireNonNull(skill, "skill");
    spans = List.copyOf(spans);
    lifted = Set.copyOf(lifted);
  }

  /** What it asks for in a range, cut at its ends; a span turned round by the clock is empty. */
  public List<Need> needs(TimeSpan range) {
    return whole(range).stream()
        .flatMap(
            need ->
                need.span().intersection(range).stream()
                    .map(span -> new Need(by, true, zone, span, need.places())))
        .toList();
  }

  /** Its own spans that meet a range, whole. */
  public List<TimeSpan> spans(TimeSpan range) {
    return whole(range).stream().map(Need::span).filter(range::overlaps).distinct().toList();
  }

  private List<Need> whole(TimeSpan range) {
    List<Need> found = new ArrayList<>();
    LocalDate first = LocalDate.ofInstant(range.start(), zone).minusDays(1);
    LocalDate end = LocalDate.ofInstant(range.end(), zone).plusDays(1);
    for (LocalDate day = first; day.isBefore(end); day = day.plusDays(1)) {
      if (lifted.contains(day)) {
        continue;
      }
      for (Repeating one : spans) {
        if (!one.holdsOn(day)) {
          continue;
        }
        LocalTimes.span(day, one.from(), one.until(), zone)
            .ifPresent(
                span -> found.add(new Need(by, true, zone, span, Need.places(one.count(), skill))));
      }
    }
    return found;
  }
}
