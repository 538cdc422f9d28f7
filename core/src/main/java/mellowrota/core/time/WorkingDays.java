package mellowrota.core.time;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IntSummaryStatistics;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * Which days are worked somewhere: the days of its week without the holidays of its region and
 * without its closures (COVER 26).
 *
 * @param holidays what those are called on which no work is done; a half day is none
 */
public record WorkingDays(
    WorkingWeek week, Map<LocalDate, String> holidays, List<Closure> closures) {

  /**
   * A day of a region.
   *
   * @param half work is done in a part of it, so that it counts as a working day
   */
  public record Holiday(LocalDate day, String name, boolean half) {
    public Holiday {
      Objects.requireNonNull(day, "day");
      Objects.requireNonNull(name, "name");
    }
  }

  /** Days on which no work is done, up to and without the last. */
  public record Closure(DaySpan days, String why) {}

  /**
   * Why a day is no working day.
   *
   * @param why the holiday or the closure; empty: the week has no work on it
   */
  public record Off(LocalDate day, Optional<String> why) {}

  /**
   * What a region says.
   *
   * @param week empty: as the house's
   */
  public record Region(Optional<WorkingWeek> week, List<Holiday> holidays) {

    /** Of a house that has said nothing. */
    public static final Region UNSAID = new Region(Optional.empty(), List.of());

    public Region {
      Objects.requireNonNull(week, "week");
      holidays = List.copyOf(holidays);
    }
  }

  public WorkingDays {
    Objects.requireNonNull(week, "week");
    holidays = Map.copyOf(holidays);
    closures = List.copyOf(closures);
  }

  /**
   * A place's: each part as the place states it, else as its region does, else as the house does.
   *
   * @param week of the place itself
   * @param region of the place; empty: the office's
   */
  public static WorkingDays of(
      Optional<WorkingWeek> week,
      Optional<Region> region,
      Collection<Closure> closures,
      WorkingWeek house,
      Region office) {
    Region its = region.orElse(office);
    Map<LocalDate, String> off = new HashMap<>();
    its.holidays().stream()
        .filter(one -> !one.half())
        .forEach(one -> off.putIfAbsent(one.day(), one.name()));
    return new WorkingDays(week.or(its::week).orElse(house), off, List.copyOf(closures));
  }

  /** Whether work is done on a day. */
  public boolean contains(LocalDate day) {
    return week.days().contains(day.getDayOfWeek())
        && !holidays.containsKey(day)
        && closure(day).isEmpty();
  }

  private Optional<Closure> closure(LocalDate day) {
    for (Closure one : closures) {
      if (!day.isBefore(one.days().first()) && day.isBefore(one.days().until())) {
        return Optional.of(one);
      }
    }
    return Optional.empty();
  }

  /** Why no work is done on a day; empty: it is. A holiday on a day off takes nothing. */
  public Optional<Off> off(LocalDate day) {
    if (!week.days().contains(day.getDayOfWeek())) {
      return Optional.of(new Off(day, Optional.empty()));
    }
    Optional<String> why =
        Optional.ofNullable(holidays.get(day)).or(() -> closure(day).map(Closure::why));
    return why.map(one -> new Off(day, Optional.of(one)));
  }

  /**
   * Whether a day lies in the years for which holidays are kept; where none are kept at all, none
   * are missing.
   */
  public boolean knowsHolidays(LocalDate day) {
    IntSummaryStatistics years =
        holidays.keySet().stream().mapToInt(LocalDate::getYear).summaryStatistics();
    return years.getCount() == 0
        || day.getYear() >= years.getMin() && day.getYear() <= years.getMax();
  }

  /** So many days in a row without work, and there is no working day. */
  private static final int IDLE = 366;

  /**
   * A working day that was counted to.
   *
   * @param notCounted those on the way that are none, in the order of the calendar
   */
  public record Counted(LocalDate day, List<Off> notCounted) {}

  /**
   * The working day that is so many before or after a day, which itself is not counted.
   *
   * @param number of working days, negative: before it; 0: the day itself, whatever it is
   * @return empty: there are 366 days in a row without work
   */
  public Optional<Counted> count(LocalDate day, int number) {
    List<Off> notCounted = new ArrayList<>();
    LocalDate now = day;
    int idle = 0;
    for (int left = Math.abs(number); left > 0; ) {
      now = now.plusDays(number < 0 ? -1 : 1);
      Optional<Off> off = off(now);
      if (off.isEmpty()) {
        left--;
        idle = 0;
      } else if (++idle == IDLE) {
        return Optional.empty();
      } else {
        notCounted.add(off.get());
      }
    }
    notCounted.sort(Comparator.comparing(Off::day));
    return Optional.of(new Counted(now, List.copyOf(notCounted)));
  }

  /**
   * The nearest working day, the day itself if it is one.
   *
   * @param back earlier, else later
   * @return empty: there are 366 days in a row without work
   */
  public Optional<LocalDate> roll(LocalDate day, boolean back) {
    LocalDate now = day;
    for (int idle = 0; idle < IDLE; idle++) {
      if (contains(now)) {
        return Optional.of(now);
      }
      now = now.plusDays(back ? -1 : 1);
    }
    return Optional.empty();
  }

  /** Those from one day to another, both included; none where the last is before the first. */
  public List<LocalDate> between(LocalDate first, LocalDate last) {
    return first.isAfter(last)
        ? List.of()
        : first.datesUntil(last.plusDays(1)).filter(this::contains).toList();
  }
}
