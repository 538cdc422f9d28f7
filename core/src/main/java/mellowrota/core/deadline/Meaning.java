package mellowrota.core.deadline;

import static mellowrota.core.deadline.Cursor.quoted;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.deadline.Cursor.Placed;
import mellowrota.core.deadline.Fault.Code;
import mellowrota.core.text.Near;

/**
 * What the lines of a text mean together: the second pass, in which all faults are found at once.
 */
final class Meaning {

  private final Known house;
  private final List<Line.Header> headers;
  private final List<Line.OfStep> steps;
  private final List<Fault> faults;

  /**
   * @param faults to which those that are found are added
   */
  Meaning(Known house, List<Line.Header> headers, List<Line.OfStep> steps, List<Fault> faults) {
    this.house = house;
    this.headers = headers;
    this.steps = steps;
    this.faults = faults;
  }

  private void add(Code code, int line, int column, String what, String expected, String mend) {
    faults.add(Fault.of(code, line, column, what, expected, mend));
  }

  private void whole(Code code, String what, String expected, String mend) {
    add(code, 1, 1, what, expected, mend);
  }

  /** Finds all that is wrong. */
  void look() {
    missing();
    questions();
    Map<Name, Line.OfStep> byName = named();
    for (Line.OfStep step : steps) {
      from(step, byName);
      how(step);
      step.who.forEach(who -> who(step, who));
      step.reminders.forEach(remind -> remind(step, remind));
      conditions(step);
    }
    loops(byName);
  }

  private Optional<Line.Header> header(Line.Sort sort) {
    return Line.Header.of(sort, headers);
  }

  private void missing() {
    if (header(Line.Sort.CHAIN).isEmpty()) {
      whole(
          Code.CHAIN_MISSING,
          "the chain line is missing",
          "a line with the name of the chain",
          "write \"chain: \" and what it is called");
    }
    if (header(Line.Sort.KEY_DATE).isEmpty()) {
      whole(
          Code.KEY_MISSING,
          "the key date line is missing",
          "a line with the name of the key date",
          "write \"key date: \" and what it is called");
    }
    if (steps.isEmpty()) {
      whole(
          Code.STEPS_NONE,
          "there is no step",
          "one step at least",
          "write one, such as 28 days before the key date: tell the marinas");
    }
  }

  private List<Name> asked() {
    return header(Line.Sort.ASK).stream()
        .flatMap(one -> one.names().stream())
        .map(Placed::value)
        .toList();
  }

  private Optional<Name> keyDate() {
    return header(Line.Sort.KEY_DATE).map(one -> one.names().get(0).value());
  }

  private void questions() {
    Set<Name> seen = new HashSet<>();
    header(Line.Sort.ASK)
        .ifPresent(
            ask ->
                ask.names().stream()
                    .filter(one -> !seen.add(one.value()))
                    .forEach(
                        one ->
                            add(
                                Code.QUESTION_TWICE,
                                ask.number(),
                                one.column(),
                                quoted(one.value().text()) + " is asked twice",
                                "each question once",
                                "take one of the two out")));
  }

  /** The steps by their names; of two of one name the first. */
  private Map<Name, Line.OfStep> named() {
    Map<Name, Line.OfStep> byName = new LinkedHashMap<>();
    for (Line.OfStep step : steps) {
      Name name = step.name.value();
      Optional<Integer> taken =
          keyDate().filter(name::equals).isPresent()
              ? header(Line.Sort.KEY_DATE).map(Line.Header::number)
              : Optional.ofNullable(byName.get(name)).map(Line.OfStep::number);
      if (taken.isPresent()) {
        add(
            Code.NAME_TWICE,
            step.number(),
            step.name.column(),
            "the name " + quoted(name.text()) + " is taken",
            "a name of its own",
            "line " + taken.get() + " has it; add a word that tells them apart");
      } else {
        byName.put(name, step);
      }
    }
    return byName;
  }

  private void unknown(
      Code code,
      Line.OfStep step,
      Placed<Name> name,
      String what,
      String expected,
      List<Name> known,
      String mend) {
    Optional<String> near = Near.of(name.value().text(), known.stream().map(Name::text).toList());
    faults.add(
        new Fault(
            code,
            step.number(),
            name.column(),
            what,
            expected,
            near.map(one -> "did you mean " + quoted(one) + "?").orElse(mend),
            near.map(
                one -> new Fault.Edit(name.column(), name.length(), Spelling.name(Name.of(one))))));
  }

  private void from(Line.OfStep step, Map<Name, Line.OfStep> byName) {
    Name from = step.from.value();
    Line.OfStep base = byName.get(from);
    if (base == null && keyDate().filter(from::equals).isEmpty()) {
      String key = keyDate().map(one -> " (" + one + ")").orElse("");
      String what = "nothing here is called " + quoted(from.text());
      String expected = "the key date" + key + " or the name of a step";
      Optional<String> rest = glued(from, byName.keySet());
      if (rest.isPresent()) {
        faults.add(
            new Fault(
                Code.NAME_UNKNOWN,
                step.number(),
                step.from.column(),
                what,
                expected,
                "put a comma before " + quoted(rest.get()),
                Optional.of(
                    new Fault.Edit(
                        step.from.column(),
                        step.from.length(),
                        from.text().substring(0, from.text().length() - rest.get().length()).strip()
                            + ", "
                            + rest.get()))));
        return;
      }
      List<Name> known = new ArrayList<>(keyDate().stream().toList());
      known.addAll(byName.keySet());
      unknown(
          Code.NAME_UNKNOWN,
          step,
          step.from,
          what,
          expected,
          known,
          "write the name as its own line has it, or add a step of this name");
    }
    if (base != null && isInHours(step) && isWholeDay(base)) {
      add(
          Code.HOURS_OF_DAY,
          step.number(),
          step.unit,
          quoted(base.name.value().text()) + " is a whole day and hours count from a time",
          "days, working days, weeks or months",
          "write another unit, or give line " + base.number() + " a time with at");
    }
  }

  /** What follows a known name where only a comma is missing. */
  private Optional<String> glued(Name from, Set<Name> steps) {
    String text = from.text();
    for (String how : List.of(" back to ", " forward to ", " on any ", " by ", " at ")) {
      int at = text.toLowerCase(Locale.ROOT).indexOf(how);
      if (at > 0) {
        Name before = Name.of(text.substring(0, at));
        if (steps.contains(before) || keyDate().filter(before::equals).isPresent()) {
          return Optional.of(text.substring(at + 1));
        }
      }
    }
    return Optional.empty();
  }

  private static boolean isInHours(Line.OfStep step) {
    return step.offset.filter(one -> one.unit() == Unit.HOURS).isPresent();
  }

  private static boolean isWholeDay(Line.OfStep step) {
    return !isInHours(step) && step.at.isEmpty();
  }

  private void how(Line.OfStep step) {
    if (isInHours(step)) {
      step.at.ifPresent(
          at ->
              add(
                  Code.AT_HOURS,
                  step.number(),
                  at.column(),
                  "hours give the time of day themselves",
                  "no time here",
                  "take at out, or count in days"));
    }
    if (step.by.isPresent() && step.offset.isEmpty()) {
      add(
          Code.ON_BY,
          step.number(),
          step.method.column(),
          "a method lengthens a before or an after, and on has neither",
          "no method here",
          "write 0 days before or 0 days after " + step.from.value());
    }
    step.by.flatMap(Step.By::method).ifPresent(name -> method(step, name));
  }

  private void method(Line.OfStep step, Name name) {
    Optional<Method> method = house.method(name);
    if (method.isEmpty()) {
      List<Name> known = new ArrayList<>(house.methods().stream().map(Method::name).toList());
      known.add(Spelling.CHOSEN);
      unknown(
          Code.METHOD_UNKNOWN,
          step,
          step.method,
          quoted(name.text()) + " is not a method of notice of this house",
          Cursor.all(known.stream().map(Name::text).toList(), "or"),
          known,
          "write one of these");
    } else if (method.get().unit() == Unit.HOURS && step.offset.isPresent() && !isInHours(step)) {
      add(
          Code.METHOD_HOURS,
          step.number(),
          step.method.column(),
          quoted(name.text())
              + " adds hours and this step counts in "
              + step.offset.get().unit().many(),
          "a step that counts in hours",
          "count in hours, or choose another method");
    }
  }

  private void who(Line.OfStep step, Line.Who who) {
    if (who.holding()) {
      role(step, who.name());
    } else {
      holder(step, who.name());
    }
    who.as().ifPresent(role -> role(step, role));
  }

  private void role(Line.OfStep step, Placed<Name> role) {
    if (house.rolesCalled(role.value()) == 0) {
      unknown(
          Code.ROLE_UNKNOWN,
          step,
          role,
          quoted(role.value().text()) + " is not a role of this house",
          Cursor.all(house.roles().stream().map(Name::text).toList(), "or"),
          house.roles(),
          "write one of these");
    } else if (house.rolesCalled(role.value()) > 1) {
      twice(step, role, "roles");
    }
  }

  private void holder(Line.OfStep step, Placed<Name> holder) {
    Name name = holder.value();
    int called = house.holdersCalled(name);
    String what = quoted(name.text()) + " is not a person or a team of this house";
    if (called > 1) {
      twice(step, holder, "people or teams");
    } else if (called == 0 && house.rolesCalled(name) > 0) {
      faults.add(
          new Fault(
              Code.HOLDER_UNKNOWN,
              step.number(),
              holder.column(),
              what,
              "a person or a team",
              "for whoever holds the role write " + quoted("the " + name),
              Optional.of(
                  new Fault.Edit(holder.column(), holder.length(), "the " + Spelling.name(name)))));
    } else if (called == 0) {
      unknown(
          Code.HOLDER_UNKNOWN,
          step,
          holder,
          what,
          "a person or a team of this house",
          house.holders(),
          "write a name as it stands under Crew");
    }
  }

  private void twice(Line.OfStep step, Placed<Name> name, String what) {
    add(
        Code.HOLDER_TWICE,
        step.number(),
        name.column(),
        "there are two " + what + " called " + quoted(name.value().text()),
        "a name that one alone has",
        "choose which is meant");
  }

  private void remind(Line.OfStep step, Line.Remind remind) {
    Step.Remind said = remind.said().value();
    if (!said.unit().isElapsed()) {
      return;
    }
    if (isWholeDay(step)) {
      add(
          Code.REMINDER_OF_DAY,
          step.number(),
          remind.said().column(),
          "this step is a whole day and has no hour to count from",
          "working days before",
          "write working days, or give the step a time with at");
    }
    if (said.at().isPresent()) {
      add(
          Code.REMINDER_AT,
          step.number(),
          remind.at(),
          said.unit().many() + " give the time of the reminder themselves",
          "no time here",
          "take at out, or count in working days");
    }
  }

  private void conditions(Line.OfStep step) {
    List<Name> asked = asked();
    List<Line.If> before = new ArrayList<>();
    for (Line.If one : step.conditions) {
      Placed<Name> question = one.question();
      String name = quoted(question.value().text());
      if (!asked.contains(question.value())) {
        unknown(
            Code.QUESTION_UNKNOWN,
            step,
            question,
            name + " is not a question of the ask line",
            asked.isEmpty()
                ? "a question of an ask line"
                : Cursor.all(asked.stream().map(Name::text).toList(), "or"),
            asked,
            "add it to the ask line");
      } else if (before.stream()
          .anyMatch(
              other ->
                  other.question().value().equals(question.value())
                      && other.wanted() != one.wanted())) {
        add(
            Code.CONDITION_NEVER,
            step.number(),
            question.column(),
            "this step asks for " + name + " and against it",
            "one of the two",
            "take one of the two out");
      }
      before.add(one);
    }
  }

  /** Steps that count from one another, each loop told once, at its first step. */
  private void loops(Map<Name, Line.OfStep> byName) {
    Set<Line.OfStep> looked = new HashSet<>();
    for (Line.OfStep step : steps) {
      List<Line.OfStep> path = new ArrayList<>();
      Line.OfStep next = step;
      while (next != null && looked.add(next)) {
        path.add(next);
        next = byName.get(next.from.value());
      }
      int begins = next == null ? -1 : path.indexOf(next);
      if (begins >= 0) {
        loop(path.subList(begins, path.size()));
      }
    }
  }

  private void loop(List<Line.OfStep> round) {
    int first = 0;
    for (int i = 1; i < round.size(); i++) {
      first = round.get(i).number() < round.get(first).number() ? i : first;
    }
    List<Line.OfStep> turned = new ArrayList<>(round.subList(first, round.size()));
    turned.addAll(round.subList(0, first));
    Line.OfStep step = turned.get(0);
    turned.add(step);
    add(
        Code.LOOP,
        step.number(),
        step.from.column(),
        round.size() == 1
            ? quoted(step.name.value().text()) + " counts from itself"
            : "these steps count from one another: "
                + turned.stream()
                    .map(one -> quoted(one.name.value().text()))
                    .collect(Collectors.joining(" → ")),
        "steps that lead back to the key date",
        "let one of them count from " + quoted(keyDate().map(Name::text).orElse("the key date")));
  }

  /** What the text says, where nothing is wrong. */
  Chain chain() {
    return new Chain(
        header(Line.Sort.CHAIN).orElseThrow().names().get(0).value(),
        keyDate().orElseThrow(),
        asked(),
        steps.stream().map(Line.OfStep::step).toList());
  }
}
