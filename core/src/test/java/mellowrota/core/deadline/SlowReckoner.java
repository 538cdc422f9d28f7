package mellowrota.core.deadline;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.YearMonth;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.zone.ZoneRules;
import java.util.List;
import java.util.Set;
import mellowrota.core.work.Due;

/**
 * The same dates as {@link Reckoner}, day by day and without any of it: a date is a local time and
 * an offset, a plain date a local day.
 */
final class SlowReckoner {

  /** A plain date, or a time with its offset; neither: there is none, and why. */
  record Found(LocalDate day, LocalDateTime time, ZoneOffset offset, String none) {
    static Found none(String why) {
      return new Found(null, null, null, why);
    }

    LocalDate date() {
      return day == null ? time.toLocalDate() : day;
    }

    @Override
    public String toString() {
      return none != null ? none : day != null ? day.toString() : time + "" + offset;
    }
  }

  /** A house, as plainly as can be. */
  record House(
      ZoneId zone, Set<Integer> weekdays, Set<LocalDate> holidays, List<LocalDate[]> closures) {
    boolean works(LocalDate day) {
      boolean closed = false;
      for (LocalDate[] one : closures) {
        for (LocalDate d = one[0]; d.isBefore(one[1]); d = d.plusDays(1)) {
          closed |= d.equals(day);
        }
      }
      return weekdays.contains(day.getDayOfWeek().getValue()) && !holidays.contains(day) && !closed;
    }
  }

  private final Chain chain;
  private final Given given;
  private final House house;

  SlowReckoner(Chain chain, Given given, House house) {
    this.chain = chain;
    this.given = given;
    this.house = house;
  }

  /** As {@code standing date counts}. */
  String said(Step step) {
    Given.Fixed fixed = given.fixed().getOrDefault(step.name(), Given.Fixed.NOTHING);
    Found counts = counts(step);
    String standing;
    boolean against = false;
    boolean missing = false;
    for (Step.Condition one : step.conditions()) {
      Boolean answer = given.answers().get(one.question());
      missing |= answer == null;
      against |= answer != null && answer != one.wanted();
    }
    boolean lands = false;
    if (fixed.leftOut()) {
      standing = "LEFT_OUT";
    } else if (fixed.done().isPresent()) {
      standing = "DONE";
      lands = true;
    } else if (fixed.byHand().isPresent()) {
      standing = "BY_HAND";
      lands = true;
    } else if (against) {
      standing = "DOES_NOT_APPLY";
    } else if (missing) {
      standing = "PENDING";
    } else if (counts.none() != null) {
      standing = counts.none().startsWith("pending") ? "PENDING" : "NO_DATE";
    } else {
      standing = "RECKONED";
      lands = true;
    }
    return standing + " " + (lands ? counts : "-") + " " + (counts.none() == null ? counts : "-");
  }

  private Found counts(Step step) {
    Given.Fixed fixed = given.fixed().getOrDefault(step.name(), Given.Fixed.NOTHING);
    if (fixed.done().isPresent()) {
      return of(fixed.done().get());
    }
    if (fixed.byHand().isPresent()) {
      return of(fixed.byHand().get());
    }
    return reckoned(step);
  }

  static Found of(Due due) {
    return due instanceof Due.On on
        ? new Found(on.day(), null, null, null)
        : new Found(
            null, ((Due.At) due).time().toLocalDateTime(), ((Due.At) due).time().getOffset(), null);
  }

  private Found base(Name from) {
    if (from.equals(chain.keyDate())) {
      return given.keyDate().map(SlowReckoner::of).orElse(Found.none("pending: no key date"));
    }
    for (Step step : chain.steps()) {
      if (step.name().equals(from)) {
        return counts(step);
      }
    }
    throw new IllegalStateException("no step " + from);
  }

  private Found reckoned(Step step) {
    Found base = base(step.from());
    if (base.none() != null) {
      return base;
    }
    boolean hours = step.offset().isPresent() && step.offset().get().unit() == Unit.HOURS;
    Found now = base;
    if (step.offset().isPresent()) {
      Step.Offset offset = step.offset().get();
      int sign = offset.side() == Step.Side.BEFORE ? -1 : 1;
      now = moved(now, offset.number(), offset.unit(), sign, hours);
      if (now.none() == null && step.by().isPresent()) {
        Name name = step.by().get().method().orElse(given.method().orElse(null));
        Method method = null;
        for (Method one : given.methods()) {
          method = one.name().equals(name) ? one : method;
        }
        if (method == null) {
          return Found.none("pending: no method");
        }
        if (method.unit() == Unit.HOURS && !hours) {
          return Found.none("hours on days");
        }
        now = method.number() == 0 ? now : moved(now, method.number(), method.unit(), sign, hours);
      }
    } else {
      now = new Found(now.date(), null, null, null);
    }
    if (now.none() != null) {
      return now;
    }
    Step.Roll roll = step.roll().orElse(step.offset().isEmpty() ? Step.Roll.ANY_DAY : null);
    if (roll == null) {
      roll = step.offset().get().side() == Step.Side.BEFORE ? Step.Roll.BACK : Step.Roll.FORWARD;
    }
    LocalDate day = now.date();
    if (roll != Step.Roll.ANY_DAY) {
      int looked = 0;
      while (!house.works(day)) {
        looked++;
        if (looked >= 366) {
          return Found.none("no working day");
        }
        day = roll == Step.Roll.BACK ? day.minusDays(1) : day.plusDays(1);
        if (day.getYear() < 1900 || day.getYear() > 2199) {
          return Found.none("year");
        }
      }
    }
    if (!day.equals(now.date())) {
      now =
          now.day() != null ? new Found(day, null, null, null) : at(day, now.time().toLocalTime());
    }
    return step.at().isPresent() ? at(now.date(), step.at().get()) : now;
  }

  private Found moved(Found from, int number, Unit unit, int sign, boolean clock) {
    if (unit == Unit.HOURS) {
      if (from.time() == null) {
        return Found.none("hours of a day");
      }
      long second = from.time().toEpochSecond(from.offset()) + sign * 3600L * number;
      ZoneOffset offset = house.zone().getRules().getOffset(Instant.ofEpochSecond(second));
      LocalDateTime time = LocalDateTime.ofEpochSecond(second, 0, offset);
      return time.getYear() < 1900 || time.getYear() > 2199
          ? Found.none("year")
          : new Found(null, time, offset, null);
    }
    LocalDate day = from.date();
    switch (unit) {
      case DAYS -> day = days(day, number, sign);
      case WEEKS -> day = days(day, 7 * number, sign);
      case MONTHS -> {
        YearMonth month = YearMonth.from(day);
        for (int i = 0; i < number; i++) {
          month = sign < 0 ? month.minusMonths(1) : month.plusMonths(1);
        }
        day = month.atDay(Math.min(day.getDayOfMonth(), month.lengthOfMonth()));
      }
      default -> {
        int left = number;
        int off = 0;
        while (left > 0) {
          day = days(day, 1, sign);
          if (day.getYear() < 1900 || day.getYear() > 2199) {
            return Found.none("year");
          }
          if (house.works(day)) {
            left--;
            off = 0;
          } else if (++off >= 366) {
            return Found.none("no working day");
          }
        }
      }
    }
    if (day.getYear() < 1900 || day.getYear() > 2199) {
      return Found.none("year");
    }
    if (!clock) {
      return new Found(day, null, null, null);
    }
    return day.equals(from.date()) ? from : at(day, from.time().toLocalTime());
  }

  private static LocalDate days(LocalDate day, int number, int sign) {
    LocalDate now = day;
    for (int i = 0; i < number; i++) {
      now = sign < 0 ? now.minusDays(1) : now.plusDays(1);
    }
    return now;
  }

  /** What is not on the clock is later by the gap; what is there twice is the first of both. */
  private Found at(LocalDate day, LocalTime clock) {
    ZoneRules rules = house.zone().getRules();
    LocalDateTime time = day.atTime(clock);
    List<ZoneOffset> offsets = rules.getValidOffsets(time);
    if (offsets.isEmpty()) {
      int gap =
          rules.getTransition(time).getOffsetAfter().getTotalSeconds()
              - rules.getTransition(time).getOffsetBefore().getTotalSeconds();
      time = time.plusSeconds(gap);
      offsets = rules.getValidOffsets(time);
    }
    return new Found(null, time, offsets.get(0), null);
  }
}
