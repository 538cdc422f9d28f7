package mellowrota.core.deadline;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.deadline.Reckoned.Reason;
import mellowrota.core.deadline.Reckoned.Standing;
import mellowrota.core.deadline.Reckoned.Why;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.Due;

/**
 * Reckons the dates of a set from its chain and what is given, and from nothing else (CHAINS 2).
 */
public final class Reckoner {

  private static final int FIRST_YEAR = 1900;
  private static final int LAST_YEAR = 2199;

  /** There is no date. */
  @SuppressWarnings("serial")
  private static final class NoDate extends Exception {
    final transient Why why;

    NoDate(Why why) {
      super(why.reason().name(), null, false, false);
      this.why = why;
    }

    NoDate(Reason reason) {
      this(Why.of(reason));
    }
  }

  private final Given given;
  private final Map<Name, Step> steps = new HashMap<>();
  private final Map<Name, Reckoned> found = new HashMap<>();

  /** Why the date of a step could not be reckoned, whatever else is said of it. */
  private final Map<Name, Why> unreckoned = new HashMap<>();

  private Reckoner(Chain chain, Given given) {
    this.given = given;
    chain.steps().forEach(step -> steps.put(step.name(), step));
  }

  /** What each step comes to, in the order of the chain. */
  public static List<Reckoned> of(Chain chain, Given given) {
    Reckoner reckoner = new Reckoner(chain, given);
    return chain.steps().stream().map(reckoner::reckoned).toList();
  }

  /** What a step counts from is reckoned before it; a chain has no loop. */
  private Reckoned reckoned(Step last) {
    List<Step> waiting = new ArrayList<>();
    for (Step step = last; step != null && !found.containsKey(step.name()); ) {
      waiting.add(step);
      step = steps.get(step.from());
    }
    for (int i = waiting.size() - 1; i >= 0; i--) {
      found.put(waiting.get(i).name(), reckon(waiting.get(i)));
    }
    return found.get(last.name());
  }

  private Reckoned reckon(Step step) {
    Given.Fixed said = given.fixed(step.name());
    Optional<Sum> sum = tried(step);
    Optional<Due> would = said.done().or(said::byHand).or(() -> sum.map(Sum::result));
    Optional<Why> answer = answer(step);
    Optional<Why> why = answer.or(() -> Optional.ofNullable(unreckoned.get(step.name())));
    Standing standing = standing(said, answer, why);
    boolean lands =
        standing == Standing.DONE || standing == Standing.BY_HAND || standing == Standing.RECKONED;
    return new Reckoned(
        step,
        standing,
        lands ? would : Optional.empty(),
        would,
        sum,
        lands ? Optional.empty() : why);
  }

  /** Its sum; where there is none, why is kept. */
  private Optional<Sum> tried(Step step) {
    try {
      return Optional.of(sum(step));
    } catch (NoDate none) {
      unreckoned.put(step.name(), none.why);
      return Optional.empty();
    }
  }

  private static Standing standing(Given.Fixed said, Optional<Why> answer, Optional<Why> why) {
    if (said.leftOut()) {
      return Standing.LEFT_OUT;
    }
    if (said.done().isPresent()) {
      return Standing.DONE;
    }
    if (said.byHand().isPresent()) {
      return Standing.BY_HAND;
    }
    if (answer.filter(one -> one.reason() == Reason.ANSWER_AGAINST).isPresent()) {
      return Standing.DOES_NOT_APPLY;
    }
    return why.map(one -> one.reason().isPending() ? Standing.PENDING : Standing.NO_DATE)
        .orElse(Standing.RECKONED);
  }

  /** An answer that is against it goes before one that is missing. */
  private Optional<Why> answer(Step step) {
    Optional<Why> missing = Optional.empty();
    for (Step.Condition one : step.conditions()) {
      Boolean answer = given.answers().get(one.question());
      if (answer == null) {
        missing = missing.or(() -> Optional.of(Why.of(Reason.NO_ANSWER, one)));
      } else if (answer != one.wanted()) {
        return Optional.of(Why.of(Reason.ANSWER_AGAINST, one));
      }
    }
    return missing;
  }

  // ---- The sum ---------------------------------------------------------------------------------

  private Sum sum(Step step) throws NoDate {
    Optional<Reckoned> base = Optional.ofNullable(found.get(step.from()));
    Due from = from(base);
    Sum.Counted counted =
        step.offset().isPresent()
            ? counted(from, step.offset().get(), step.inHours())
            : Sum.Counted.of(new Due.On(day(from)));
    Optional<Sum.Addition> addition = Optional.empty();
    if (step.by().isPresent()) {
      addition = Optional.of(addition(step, counted.result()));
    }
    Due before = addition.map(one -> one.counted().result()).orElse(counted.result());
    Sum.Rolled roll = rolled(before, step.rolls());
    Due result = roll.result();
    if (step.at().isPresent()) {
      result = at(day(result), step.at().get());
    }
    return new Sum(
        result,
        step.offset(),
        from,
        base.map(one -> one.step().name()),
        base.filter(one -> one.date().isEmpty()).map(Reckoned::standing),
        counted,
        addition,
        roll,
        step.at());
  }

  private Due from(Optional<Reckoned> base) throws NoDate {
    if (base.isEmpty()) {
      return given.keyDate().orElseThrow(() -> new NoDate(Reason.NO_KEY_DATE));
    }
    Reckoned one = base.get();
    if (one.counts().isPresent()) {
      return one.counts().get();
    }
    throw new NoDate(unreckoned.get(one.step().name()).through(one.step().name()));
  }

  private LocalDate day(Due due) {
    return due.day(given.zone());
  }

  private Due at(LocalDate day, LocalTime time) {
    return new Due.At(LocalTimes.resolve(day.atTime(time), given.zone()));
  }

  private Sum.Addition addition(Step step, Due from) throws NoDate {
    Method method =
        step.by()
            .flatMap(Step.By::method)
            .or(given::method)
            .flatMap(
                name -> given.methods().stream().filter(one -> one.name().equals(name)).findFirst())
            .orElseThrow(() -> new NoDate(Reason.NO_METHOD));
    Step.Side side = step.offset().orElseThrow().side();
    if (method.unit() == Unit.HOURS && !step.inHours()) {
      throw new NoDate(
          new Why(Reason.METHOD_IN_HOURS, false, Optional.of(method.name()), Optional.empty()));
    }
    Sum.Counted counted =
        method.number() == 0
            ? Sum.Counted.of(from)
            : counted(from, new Step.Offset(method.number(), method.unit(), side), step.inHours());
    return new Sum.Addition(method, side, counted);
  }

  /**
   * So far from a date.
   *
   * @param clock the result keeps its time of day; else it is a plain date
   */
  private Sum.Counted counted(Due from, Step.Offset offset, boolean clock) throws NoDate {
    int number = offset.number() * offset.side().sign();
    if (offset.unit() == Unit.HOURS) {
      if (!(from instanceof Due.At at)) {
        throw new NoDate(Reason.HOURS_OF_DAY);
      }
      ZonedDateTime begins = at.time().withZoneSameInstant(given.zone());
      ZonedDateTime ends = begins.plusHours(number);
      inYears(ends.toLocalDate());
      int moved = ends.getOffset().getTotalSeconds() - begins.getOffset().getTotalSeconds();
      return new Sum.Counted(
          new Due.At(ends), List.of(), Duration.ofSeconds((long) moved * offset.side().sign()));
    }
    LocalDate day = day(from);
    WorkingDays.Counted counted =
        switch (offset.unit()) {
          case DAYS -> plain(day.plusDays(number));
          case WEEKS -> plain(day.plusWeeks(number));
          case MONTHS -> plain(day.plusMonths(number));
          default ->
              given.days().count(day, number).orElseThrow(() -> new NoDate(Reason.NO_WORKING_DAY));
        };
    LocalDate ends = inYears(counted.day());
    return new Sum.Counted(
        clock ? keeping(ends, from) : new Due.On(ends), counted.notCounted(), Duration.ZERO);
  }

  private static WorkingDays.Counted plain(LocalDate day) {
    return new WorkingDays.Counted(day, List.of());
  }

  /** A day with the time of day that another has. */
  private Due keeping(LocalDate day, Due time) {
    ZonedDateTime at = ((Due.At) time).time().withZoneSameInstant(given.zone());
    return day.equals(at.toLocalDate()) ? new Due.At(at) : at(day, at.toLocalTime());
  }

  private static LocalDate inYears(LocalDate day) throws NoDate {
    if (day.getYear() < FIRST_YEAR || day.getYear() > LAST_YEAR) {
      throw new NoDate(Reason.YEAR);
    }
    return day;
  }

  private Sum.Rolled rolled(Due due, Step.Roll rule) throws NoDate {
    LocalDate day = day(due);
    Optional<WorkingDays.Off> off =
        rule == Step.Roll.ANY_DAY ? Optional.empty() : given.days().off(day);
    if (off.isEmpty()) {
      return new Sum.Rolled(rule, off, due);
    }
    LocalDate now =
        inYears(
            given
                .days()
                .roll(day, rule == Step.Roll.BACK)
                .orElseThrow(() -> new NoDate(Reason.NO_WORKING_DAY)));
    return new Sum.Rolled(rule, off, due instanceof Due.At ? keeping(now, due) : new Due.On(now));
  }
}
