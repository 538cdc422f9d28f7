package mellowrota.core.work;

import java.time.LocalDate;
import java.time.Period;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;

/**
 * How often a piece of work comes again. Each occurrence is a record of its own.
 *
 * @param every how many units lie between two, at least one
 * @param times how many there are, the first included, at least one
 */
public record Repeat(int every, Unit unit, int times) {

  /** What lies between two occurrences; months and years end at the month's last day. */
  public enum Unit {
    DAYS,
    WEEKS,
    MONTHS,
    YEARS
  }

  public Repeat {
    Objects.requireNonNull(unit, "unit");
    if (every < 1 || times < 1) {
      throw new IllegalArgumentException("every and times count from 1");
    }
  }

  /** How far the occurrence lies from the first, which is number 0. */
  public Period distance(int occurrence) {
    int units = Math.multiplyExact(every, occurrence);
    return switch (unit) {
      case DAYS -> Period.ofDays(units);
      case WEEKS -> Period.ofWeeks(units);
      case MONTHS -> Period.ofMonths(units);
      case YEARS -> Period.ofYears(units);
    };
  }

  /**
   * The record with all its dates that much later; local times stay what they are on the clock. A
   * span of days keeps its length.
   */
  public static WorkRecord later(WorkRecord record, Period by) {
    List<Visit> visits = new ArrayList<>();
    for (Visit visit : record.visits()) {
      visits.add(new Visit(visit.no(), visit.when().map(when -> later(when, by)), visit.margins()));
    }
    List<NamedDate> dates = new ArrayList<>();
    for (NamedDate date : record.dates()) {
      dates.add(new NamedDate(date.name(), later(date.when(), by)));
    }
    return record
        .with()
        .visits(visits)
        .dates(dates)
        .due(record.due().map(due -> later(due, by)))
        .build();
  }

  private static When later(When when, Period by) {
    if (when instanceof When.Timed timed) {
      return new When.Timed(later(timed.start(), by), later(timed.end(), by));
    }
    DaySpan days = ((When.AllDay) when).days();
    LocalDate first = days.first().plus(by);
    return new When.AllDay(
        DaySpan.of(first, first.plusDays(days.until().toEpochDay() - days.first().toEpochDay())));
  }

  private static Due later(Due due, Period by) {
    return due instanceof Due.At at
        ? new Due.At(later(at.time(), by))
        : new Due.On(((Due.On) due).day().plus(by));
  }

  private static ZonedDateTime later(ZonedDateTime time, Period by) {
    return LocalTimes.resolve(time.toLocalDateTime().plus(by), time.getZone());
  }
}
