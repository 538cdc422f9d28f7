package mellowrota.core.deadline;

import java.time.LocalTime;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.function.Supplier;

/** Chains of a house whose names are as odd as names may be. */
final class RandomChains {

  static final Known ODD =
      new Known(
          List.of(
              new Method(Name.of("post"), 2, Unit.WORKING_DAYS),
              new Method(Name.of("chosen method"), 3, Unit.DAYS),
              new Method(Name.of("by \"hand\""), 0, Unit.WEEKS),
              new Method(Name.of("wire"), 5, Unit.HOURS)),
          List.of(Name.of("Lead"), Name.of("Support"), Name.of("as asked"), Name.of("the Rest")),
          List.of(
              Name.of("Duty Office"),
              Name.of("The Anchor"),
              Name.of("as"),
              Name.of("Tom as Mate"),
              Name.of("a: b; c, d")));

  private static final String[] WORDS = {
    "publish",
    "notice",
    "gates",
    "the",
    "as",
    "on",
    "28",
    "before",
    "only",
    "if",
    "#",
    "gate#7",
    "Öl",
    "e\u0301tat",
    "état",
    "“so”",
    "x:y",
    "a;b",
    "c,d",
    "say \"go\"",
    "any",
    "day",
    "\u200bq",
    "chain",
    "key",
    "date",
    "ask",
    "language",
    "0",
    "24:00",
    "🛶"
  };

  private final SplittableRandom random;

  RandomChains(SplittableRandom random) {
    this.random = random;
  }

  private boolean oneIn(int times) {
    return random.nextInt(times) == 0;
  }

  private <T> T any(List<T> all) {
    return all.get(random.nextInt(all.size()));
  }

  private Name name() {
    StringBuilder text = new StringBuilder(WORDS[random.nextInt(WORDS.length)]);
    while (text.length() < 50 && random.nextInt(3) > 0) {
      text.append(' ').append(WORDS[random.nextInt(WORDS.length)]);
    }
    return Name.of(text.toString());
  }

  private List<Name> names(int most) {
    Set<Name> all = new LinkedHashSet<>();
    for (int i = random.nextInt(most + 1); i > 0; i--) {
      all.add(name());
    }
    return new ArrayList<>(all);
  }

  /** Steps that each lead back to the key date, in any order. */
  Chain chain(int most) {
    Set<Name> all = new LinkedHashSet<>();
    all.add(name());
    while (all.size() < 2 + random.nextInt(most)) {
      all.add(name());
    }
    List<Name> names = new ArrayList<>(all);
    List<Name> questions = names(3);
    List<Step> steps = new ArrayList<>();
    for (int i = 1; i < names.size(); i++) {
      int base = random.nextInt(i);
      Optional<Step> from = base == 0 ? Optional.empty() : Optional.of(steps.get(base - 1));
      steps.add(step(names.get(i), names.get(base), from.filter(Step::isWholeDay), questions));
    }
    for (int i = steps.size() - 1; i > 0; i--) {
      int other = random.nextInt(i + 1);
      Step step = steps.get(i);
      steps.set(i, steps.get(other));
      steps.set(other, step);
    }
    return new Chain(name(), names.get(0), questions, steps);
  }

  private Step step(Name name, Name from, Optional<Step> wholeDay, List<Name> questions) {
    Optional<Step.Offset> offset =
        oneIn(6) ? Optional.empty() : Optional.of(offset(wholeDay.isPresent()));
    boolean hours = offset.filter(one -> one.unit() == Unit.HOURS).isPresent();
    Optional<LocalTime> at = hours || oneIn(2) ? Optional.empty() : Optional.of(time());
    return new Step(
        name,
        offset,
        from,
        offset.isPresent() && oneIn(3) ? Optional.of(by(hours)) : Optional.empty(),
        oneIn(2) ? Optional.empty() : Optional.of(any(List.of(Step.Roll.values()))),
        at,
        list(3, this::who),
        list(3, () -> remind(!hours && at.isEmpty())),
        questions.isEmpty()
            ? List.of()
            : list(1, () -> new Step.Condition(oneIn(2), any(questions))));
  }

  private <T> List<T> list(int most, Supplier<T> one) {
    List<T> all = new ArrayList<>();
    for (int i = random.nextInt(most + 1); i > 0; i--) {
      all.add(one.get());
    }
    return all;
  }

  private Step.Offset offset(boolean fromDay) {
    List<Unit> units =
        fromDay
            ? List.of(Unit.DAYS, Unit.WORKING_DAYS, Unit.WEEKS, Unit.MONTHS)
            : List.of(Unit.HOURS, Unit.DAYS, Unit.WORKING_DAYS, Unit.WEEKS, Unit.MONTHS);
    Unit unit = any(units);
    int most = unit == Unit.HOURS ? 400 : unit == Unit.MONTHS ? 14 : 60;
    return new Step.Offset(
        oneIn(5) ? random.nextInt(2) : random.nextInt(most),
        unit,
        any(List.of(Step.Side.values())));
  }

  private Step.By by(boolean hours) {
    return oneIn(3)
        ? new Step.By(Optional.empty())
        : new Step.By(
            Optional.of(
                any(
                    ODD.methods().stream()
                        .filter(one -> hours || one.unit() != Unit.HOURS)
                        .map(Method::name)
                        .toList())));
  }

  private LocalTime time() {
    return LocalTime.of(random.nextInt(24), random.nextInt(60));
  }

  private Step.For who() {
    return oneIn(2)
        ? new Step.For(
            true, any(ODD.roles()), oneIn(2) ? Optional.of(any(ODD.roles())) : Optional.empty())
        : new Step.For(false, any(ODD.holders()), Optional.of(any(ODD.roles())));
  }

  private Step.Remind remind(boolean wholeDay) {
    Unit unit =
        wholeDay ? Unit.WORKING_DAYS : any(List.of(Unit.MINUTES, Unit.HOURS, Unit.WORKING_DAYS));
    return new Step.Remind(
        random.nextInt(100),
        unit,
        unit == Unit.WORKING_DAYS && oneIn(2) ? Optional.of(time()) : Optional.empty());
  }

  /** As somebody might type it: with comments, spaces and capitals where they may stand. */
  String typed(Chain chain) {
    StringBuilder text = new StringBuilder(oneIn(5) ? "\ufeff" : "");
    for (String line : Spelling.of(chain).split("\n")) {
      if (oneIn(4)) {
        text.append(oneIn(2) ? "# steps, \"so: called" : "   ").append(newline());
      }
      text.append(oneIn(3) ? " \t" : "")
          .append(oneIn(4) && !line.contains("\"") ? line.replace(": ", " :\u00a0 ") : line)
          .append(oneIn(4) ? "  # it's \"so\"" : "")
          .append(newline());
    }
    return text.toString();
  }

  private String newline() {
    return any(List.of("\n", "\r\n", "\r"));
  }
}
