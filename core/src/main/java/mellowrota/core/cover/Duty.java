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
import mellowrota.core.time.Season;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;

/**
 * Something that must be stood, over repeating spans, on the days of their season, and on its
 * exceptions not or over other hours; holidays do not lift it.
 *
 * @param by what its needs are {@link Need#by}
 * @param skill asked of each of its people where hours do not list their places one by one
 * @param lifted days on which it is not asked for
 * @param others what holds on single days in place of what repeats
 */
public record Duty(
    String by,
    ZoneId zone,
    Optional<String> skill,
    List<Repeating> spans,
    Set<LocalDate> lifted,
    List<Other> others) {

  private static final Asks ANYBODY = Asks.of(List.of(Optional.empty()));

  /**
   * Hours over which so many are asked for.
   *
   * @param until on the next day where it is not after {@code from}; equal: round the clock
   * @param skills of its places one by one; empty: as the duty asks of each
   */
  public record Stand(LocalTime from, LocalTime until, int count, List<Optional<String>> skills) {
    public Stand {
      Objects.requireNonNull(from, "from");
      Objects.requireNonNull(until, "until");
      skills = List.copyOf(skills);
      if (count < 1) {
        throw new IllegalArgumentException("a duty asks for one at least, not " + count);
      }
      if (!skills.isEmpty() && skills.size() != count) {
        throw new IllegalArgumentException(skills.size() + " skills for " + count + " places");
      }
    }

    /** Of whom each is asked the same. */
    public static Stand of(LocalTime from, LocalTime until, int count) {
      return new Stand(from, until, count, List.of());
    }
  }

  /** A span that repeats by weekday. It belongs to the day it begins on. */
  public record Repeating(
      Set<DayOfWeek> weekdays, Stand hours, Validity days, Optional<Season> season) {
    public Repeating {
      weekdays = Set.copyOf(weekdays);
      Objects.requireNonNull(hours, "hours");
      Objects.requireNonNull(days, "days");
      Objects.requireNonNull(season, "season");
    }

    private boolean holdsOn(LocalDate day) {
      return weekdays.contains(day.getDayOfWeek())
          && days.holdsOn(day)
          && season.map(one -> one.holdsOn(day)).orElse(true);
    }
  }

  /** Hours of one day in place of those that repeat. */
  public record Other(LocalDate day, Stand hours) {}

  public Duty {
    Objects.requireNonNull(by, "by");
    Objects.requireNonNull(zone, "zone");
    Objects.requireNonNull(skill, "skill");
    spans = List.copyOf(spans);
    lifted = Set.copyOf(lifted);
    others = List.copyOf(others);
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

  /**
   * What it asks of whoever stands it in a range, which is its skill unless it lists its places.
   */
  public Asks asks(TimeSpan range) {
    return isOneByOne()
        ? new Asks(List.of(), needs(range))
        : skill.isEmpty() ? ANYBODY : Asks.of(List.of(skill));
  }

  private boolean isOneByOne() {
    for (Repeating one : spans) {
      if (!one.hours().skills().isEmpty()) {
        return true;
      }
    }
    return others.stream().anyMatch(one -> !one.hours().skills().isEmpty());
  }

  /** The places over some of its hours. */
  public List<Optional<String>> places(Stand hours) {
    return hours.skills().isEmpty() ? Need.places(hours.count(), skill) : hours.skills();
  }

  private List<Need> whole(TimeSpan range) {
    List<Need> found = new ArrayList<>();
    LocalDate first = LocalDate.ofInstant(range.start(), zone).minusDays(1);
    LocalDate end = LocalDate.ofInstant(range.end(), zone).plusDays(1);
    for (LocalDate day = first; day.isBefore(end); day = day.plusDays(1)) {
      for (Stand one : on(day)) {
        LocalTimes.span(day, one.from(), one.until(), zone)
            .ifPresent(span -> found.add(new Need(by, true, zone, span, places(one))));
      }
    }
    return found;
  }

  private List<Stand> on(LocalDate day) {
    if (lifted.contains(day)) {
      return List.of();
    }
    List<Stand> other =
        others.stream().filter(one -> one.day().equals(day)).map(Other::hours).toList();
    return other.isEmpty()
        ? spans.stream().filter(one -> one.holdsOn(day)).map(Repeating::hours).toList()
        : other;
  }
}
