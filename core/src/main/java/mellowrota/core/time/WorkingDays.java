package mellowrota.core.time;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * Which days are worked somewhere: the days of its week without the holidays of its region and
 * without its closures (COVER 26).
 *
 * @param off what holidays are called on which no work is done; a half day is none
 */
public record WorkingDays(WorkingWeek week, Map<LocalDate, String> off, List<Closure> closures) {

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
    off = Map.copyOf(off);
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
        && !off.containsKey(day)
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
        Optional.ofNullable(off.get(day)).or(() -> closure(day).map(Closure::why));
    return why.map(one -> new Off(day, Optional.of(one)));
  }

  /** Those from one day to another, both included; none where the last is before the first. */
  public List<LocalDate> between(LocalDate first, LocalDate last) {
    return first.isAfter(last)
        ? List.of()
        : first.datesUntil(last.plusDays(1)).filter(this::contains).toList();
  }
}
