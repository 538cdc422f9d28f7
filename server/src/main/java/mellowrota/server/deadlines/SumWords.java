package mellowrota.server.deadlines;

import static mellowrota.server.platform.Words.say;

import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import mellowrota.core.deadline.Reckoned;
import mellowrota.core.deadline.Step;
import mellowrota.core.deadline.Sum;
import mellowrota.core.deadline.Unit;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.Due;

/**
 * How a date was reckoned, in words, as {@code Fri 2 Oct: 28 days before Sat 31 Oct is Sat 3 Oct;
 * Sat is not a working day, back to Fri 2 Oct} (CHAINS 2, <i>The sum</i>).
 */
final class SumWords {

  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("EEE d MMM", Locale.ENGLISH);
  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm");

  private final ZoneId zone;
  private final int year;

  /**
   * @param zone of the set
   * @param year of its key date, which is not written
   */
  SumWords(ZoneId zone, int year) {
    this.zone = zone;
    this.year = year;
  }

  String said(Sum sum) {
    List<String> parts = new ArrayList<>();
    parts.add(date(sum.result()) + ": " + counted(sum));
    sum.addition().ifPresent(one -> parts.add(addition(one)));
    parts.add(roll(sum.roll()));
    sum.at().ifPresent(at -> parts.add(say("deadlines.sum-at", TIME.format(at))));
    return String.join("; ", parts);
  }

  private String counted(Sum sum) {
    String from =
        date(sum.from()) + sum.step().map(step -> " (" + step + aside(sum) + ")").orElse("");
    if (sum.offset().isEmpty()) {
      return say("deadlines.sum-on", from);
    }
    Step.Offset offset = sum.offset().get();
    boolean isResult = isSame(sum, sum.counted().result());
    return amount(offset.number(), offset.unit())
        + " "
        + say(offset.side() == Step.Side.BEFORE ? "deadlines.before" : "deadlines.after")
        + " "
        + from
        + (isResult ? "" : " " + say("deadlines.sum-is", date(sum.counted().result())))
        + notCounted(sum.counted());
  }

  /** Whether a date is what all comes to, but for the time of day that is given last. */
  private boolean isSame(Sum sum, Due date) {
    return sum.at().isPresent()
        ? date.day(zone).equals(sum.result().day(zone))
        : date(date).equals(date(sum.result()));
  }

  private static String aside(Sum sum) {
    return sum.aside()
        .map(
            standing ->
                ", "
                    + say(
                        standing == Reckoned.Standing.LEFT_OUT
                            ? "deadlines.left-out"
                            : standing == Reckoned.Standing.DOES_NOT_APPLY
                                ? "deadlines.does-not-apply"
                                : "deadlines.waiting"))
        .orElse("");
  }

  private static String amount(int number, Unit unit) {
    return number + " " + unit.after(number);
  }

  private String notCounted(Sum.Counted counted) {
    String clock = clock(counted.clock());
    List<WorkingDays.Off> all = counted.notCounted();
    if (all.isEmpty()) {
      return clock;
    }
    List<String> said =
        new ArrayList<>(
            all.stream()
                .filter(one -> one.why().isPresent())
                .map(one -> date(one.day()) + " (" + one.why().get() + ")")
                .toList());
    long weekly = all.stream().filter(one -> one.why().isEmpty()).count();
    if (weekly > 0) {
      said.add(say(weekly == 1 ? "deadlines.day-off" : "deadlines.days-off", weekly));
    }
    return ", " + say("deadlines.not-counting", joined(said)) + clock;
  }

  private static String joined(List<String> all) {
    int last = all.size() - 1;
    return last < 1
        ? all.get(0)
        : say("deadlines.and", String.join(", ", all.subList(0, last)), all.get(last));
  }

  private static String clock(Duration clock) {
    if (clock.isZero()) {
      return "";
    }
    long minutes = clock.abs().toMinutes();
    Unit unit = minutes % 60 == 0 ? Unit.HOURS : Unit.MINUTES;
    String amount = amount((int) (unit == Unit.HOURS ? minutes / 60 : minutes), unit);
    return ", "
        + say(clock.isNegative() ? "deadlines.clocks-back" : "deadlines.clocks-forward", amount);
  }

  private String addition(Sum.Addition one) {
    if (one.method().number() == 0) {
      return say("deadlines.by-nothing", one.method().name());
    }
    return say(
        one.side() == Step.Side.BEFORE ? "deadlines.by-earlier" : "deadlines.by-later",
        one.method().name(),
        amount(one.method().number(), one.method().unit()),
        notCounted(one.counted()),
        date(one.counted().result()));
  }

  private String roll(Sum.Rolled roll) {
    if (roll.rule() == Step.Roll.ANY_DAY) {
      return say("deadlines.any-day");
    }
    if (roll.off().isEmpty()) {
      return say("deadlines.is-working-day", weekday(roll.result().day(zone)));
    }
    WorkingDays.Off off = roll.off().get();
    return say(
        roll.rule() == Step.Roll.BACK ? "deadlines.roll-back" : "deadlines.roll-forward",
        weekday(off.day()),
        off.why().map(why -> " (" + why + ")").orElse(""),
        date(roll.result()));
  }

  private static String weekday(LocalDate day) {
    return day.getDayOfWeek().getDisplayName(TextStyle.SHORT, Locale.ENGLISH);
  }

  private String date(LocalDate day) {
    return DAY.format(day) + (day.getYear() == year ? "" : " " + day.getYear());
  }

  /** With its year only where it is not that of the key date. */
  String date(Due due) {
    if (due instanceof Due.On on) {
      return date(on.day());
    }
    ZonedDateTime at = ((Due.At) due).time().withZoneSameInstant(zone);
    return date(at.toLocalDate()) + " " + TIME.format(at);
  }

  /** Why there is no date. */
  static String said(Reckoned.Why why) {
    String name = why.name().map(Object::toString).orElse("");
    String said =
        switch (why.reason()) {
          case NO_KEY_DATE -> say("deadlines.no-key-date");
          case NO_METHOD -> say("deadlines.no-method");
          case NO_ANSWER -> say("deadlines.no-answer", name);
          case ANSWER_AGAINST -> say(why.wanted() ? "deadlines.only-if" : "deadlines.unless", name);
          case HOURS_OF_DAY -> say("deadlines.hours-of-day");
          case METHOD_IN_HOURS -> say("deadlines.method-in-hours", name);
          case NO_WORKING_DAY -> say("deadlines.no-working-day");
          case YEAR -> say("deadlines.year");
        };
    return why.from().map(step -> say("deadlines.because-of", step, said)).orElse(said);
  }
}
