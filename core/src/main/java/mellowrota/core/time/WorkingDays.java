package mellowrota.core.time;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/**
 * Which days are worked somewhere: the days of its week without the holidays of its region and
 * without its closures (COVER 26).
 *
 * @param off holidays on which no work is done; a half day is none
 */
public record WorkingDays(WorkingWeek week, Set<LocalDate> off, List<DaySpan> closures) {

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
    off = Set.copyOf(off);
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
      Collection<DaySpan> closures,
      WorkingWeek house,
      Region office) {
    Region its = region.orElse(office);
    Set<LocalDate> off = new HashSet<>();
    its.holidays().stream().filter(one -> !one.half()).forEach(one -> off.add(one.day()));
    return new WorkingDays(week.or(its::week).orElse(house), off, List.copyOf(closures));
  }

  /** Whether work is done on a day. */
  public boolean contains(LocalDate day) {
    return week.days().contains(day.getDayOfWeek())
        && !off.contains(day)
        && closures.stream()
            .noneMatch(one -> !day.isBefore(one.first()) && day.isBefore(one.until()));
  }

  /** Those from one day to another, both included; none where the last is before the first. */
  public List<LocalDate> between(LocalDate first, LocalDate last) {
    return first.isAfter(last)
        ? List.of()
        : first.datesUntil(last.plusDays(1)).filter(this::contains).toList();
  }
}
