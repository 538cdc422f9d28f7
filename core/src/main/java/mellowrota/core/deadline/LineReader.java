package mellowrota.core.deadline;

import static mellowrota.core.deadline.Cursor.quoted;

import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import mellowrota.core.deadline.Cursor.Misread;
import mellowrota.core.deadline.Cursor.Placed;
import mellowrota.core.deadline.Fault.Code;

/** Reads one line of a chain until its first fault. */
final class LineReader {

  private static final int MOST_FOR = 10;
  private static final int MOST_REMIND = 5;
  static final int MOST_QUESTIONS = 20;

  private static final List<String> BEGINNINGS =
      List.of("on", "language", "chain", "key date", "ask");
  private static final String BEGINS = "a number, on, language, chain, key date or ask";
  private static final String HOW = "by, at, back, forward or on any day";
  private static final List<String> HOWS = List.of("by", "at", "back", "forward", "on");
  private static final String MORE = "for, remind, only if or unless";
  private static final List<String> MORES = List.of("for", "remind", "only", "unless");
  private static final String COUNTED = "the key date or of a step";

  private static final Pattern ENDS_IN_HOUR =
      Pattern.compile("(.+) at (\\d{1,2})", Pattern.CASE_INSENSITIVE);

  private final Cursor cursor;
  private final Amounts amounts;

  private final List<Name> roles;

  private LineReader(Cursor cursor, List<Name> roles) {
    this.cursor = cursor;
    amounts = new Amounts(cursor);
    this.roles = roles;
  }

  /** Empty: there is nothing on it but a comment. */
  static Optional<Line> read(Cursor cursor, List<Name> roles) throws Misread {
    return cursor.here() == Cursor.END
        ? Optional.empty()
        : Optional.of(new LineReader(cursor, roles).line());
  }

  private Line line() throws Misread {
    if (Cursor.isDigit(cursor.here()) || cursor.isAt("on")) {
      return step();
    }
    for (Line.Sort sort : Line.Sort.values()) {
      String[] words = sort.word.split(" ");
      if (cursor.isAt(words[0])) {
        int column = cursor.column();
        cursor.phrase(sort.word, words);
        return header(sort, column);
      }
    }
    throw beginsNothing();
  }

  private Misread beginsNothing() {
    String word = cursor.word();
    int written = Amounts.NUMBERS.indexOf(word.toLowerCase(Locale.ROOT));
    if (written >= 0) {
      return cursor.misread(
          Code.LINE_START,
          quoted(word) + " begins no line",
          BEGINS,
          "write " + written + " in digits",
          word.length(),
          String.valueOf(written));
    }
    if (word.matches("[-+\\u2212].*")) {
      return cursor.misread(
          Code.LINE_START,
          quoted(word) + " begins no line",
          BEGINS,
          "leave the sign out and write \"before\" or \"after\"",
          1,
          "");
    }
    return cursor.unknown(
        Code.LINE_START,
        " begins no line",
        BEGINS,
        BEGINNINGS,
        "begin a step with a number or with on");
  }

  // ---- Headers ---------------------------------------------------------------------------------

  private Line header(Line.Sort sort, int column) throws Misread {
    if (!cursor.takes(':')) {
      throw cursor.misread(
          Code.COLON_MISSING,
          cursor.said() + " stands where the colon belongs",
          "a colon",
          "write " + quoted(sort.word + ":"),
          0,
          ": ");
    }
    List<Placed<Name>> names = new ArrayList<>();
    if (sort == Line.Sort.LANGUAGE) {
      language();
    } else {
      String what =
          switch (sort) {
            case CHAIN -> "the chain";
            case KEY_DATE -> "the key date";
            default -> "a question";
          };
      do {
        if (names.size() == MOST_QUESTIONS) {
          throw cursor.misread(
              Code.LIMIT,
              "more than " + MOST_QUESTIONS + " questions",
              "at most " + MOST_QUESTIONS,
              "leave this one out");
        }
        names.add(cursor.name(what));
      } while (sort == Line.Sort.ASK && cursor.takes(','));
      end(names.get(names.size() - 1), what);
    }
    return new Line.Header(cursor.line(), column, sort, names);
  }

  private void language() throws Misread {
    String version = cursor.word();
    if (!version.equals("1")) {
      throw cursor.misread(
          Code.LANGUAGE,
          version.isEmpty()
              ? "the number of the language is missing"
              : "language " + quoted(version) + " is not known here",
          "language: 1",
          "read it with a later version, or write language: 1 if it is that",
          version.length(),
          "1");
    }
    cursor.take(version);
    if (cursor.here() != Cursor.END) {
      throw behind("the end of the line");
    }
  }

  /** Nothing may stand behind a name. */
  private void end(Placed<Name> name, String what) throws Misread {
    if (cursor.here() != Cursor.END) {
      throw isBare(name)
          ? cursor.mark(what, name.column() - 1, name.column() - 1 + name.length())
          : behind("the end of the line");
    }
  }

  /** Whether a name stands as it is read, without quotes. */
  private boolean isBare(Placed<Name> name) {
    return !cursor.isQuote(name.column());
  }

  private Misread behind(String expected) {
    return cursor.misread(
        Code.CLAUSE_END,
        cursor.said() + " stands behind what ends here",
        expected,
        "take it out, or begin the next part with its mark");
  }

  // ---- When ------------------------------------------------------------------------------------

  private Line step() throws Misread {
    Line.OfStep step = new Line.OfStep(cursor.line(), cursor.column());
    if (!cursor.takes("on")) {
      int number = amounts.number("use a larger unit: days for hours, weeks or months for days");
      step.unit = cursor.column();
      Unit unit = amounts.unit(number);
      step.offset = Optional.of(new Step.Offset(number, unit, amounts.side()));
    }
    step.from = cursor.name(COUNTED);
    while (!cursor.takes(':')) {
      if (!cursor.takes(',')) {
        throw noColon();
      }
      how(step);
    }
    step.name = cursor.name("the step");
    while (cursor.here() != Cursor.END) {
      if (!cursor.takes(';')) {
        throw isNameAlone(step) ? noEnd(step) : behind("a semicolon or the end of the line");
      }
      more(step);
    }
    return step;
  }

  /** Whether nothing but the bare name of the step was read since the colon. */
  private boolean isNameAlone(Line.OfStep step) {
    return step.who.isEmpty()
        && step.reminders.isEmpty()
        && step.conditions.isEmpty()
        && isBare(step.name);
  }

  /** A mark ends the name of the step; where that is the rest of a time, a comma is missing. */
  private Misread noEnd(Line.OfStep step) {
    Placed<Name> before = step.by.isPresent() ? step.method : step.from;
    Matcher hour = ENDS_IN_HOUR.matcher(before.value().text());
    boolean isTime =
        cursor.here() == ':'
            && isBare(before)
            && hour.matches()
            && step.name.value().text().matches("\\d\\d");
    if (!isTime) {
      int begins = step.name.column() - 1;
      return cursor.mark("the step", begins, begins + step.name.length());
    }
    int length = Cursor.length(hour.group(1));
    String time = "at " + hour.group(2) + ":" + step.name.value();
    boolean isMethod = step.by.isPresent();
    return new Misread(
        cursor.fault(
            isMethod ? Code.METHOD_UNKNOWN : Code.NAME_UNKNOWN,
            before.column(),
            quoted(hour.group(1) + " " + time) + " is no name",
            isMethod ? "the name of the method" : "the name of " + COUNTED,
            "put a comma before " + quoted(time),
            new Fault.Edit(
                before.column() + length, before.length() - length, ", at " + hour.group(2))));
  }

  private Misread noColon() {
    if (cursor.here() == Cursor.END) {
      return cursor.misread(
          Code.COLON_MISSING,
          "the end of the line comes before the colon",
          "a colon and the name of the step",
          "write the colon and what is to be done",
          0,
          ": ");
    }
    return cursor.here() == ';'
        ? cursor.misread(
            Code.COLON_MISSING,
            "the semicolon comes before the colon",
            "a colon and the name of the step",
            "write the colon and what is to be done before it")
        : behind("a comma, or a colon and the name of the step");
  }

  // ---- How -------------------------------------------------------------------------------------

  private void how(Line.OfStep step) throws Misread {
    if (cursor.isAt("by")) {
      once(step.by.isPresent(), "a second method", "one method");
      cursor.take("by");
      by(step);
    } else if (cursor.isAt("at")) {
      once(step.at.isPresent(), "a second time", "one time");
      cursor.take("at");
      step.at = Optional.of(amounts.time());
    } else if (cursor.isAt("back") || cursor.isAt("forward") || cursor.isAt("on")) {
      once(step.roll.isPresent(), "a second way to roll", "one way to roll");
      step.roll = Optional.of(roll());
    } else {
      throw noHow();
    }
    if (cursor.here() != ',' && cursor.here() != ':') {
      throw noColon();
    }
  }

  private Misread noHow() {
    if (cursor.word().isEmpty()) {
      return cursor.misread(
          Code.CLAUSE_MISSING,
          cursor.said() + " follows the comma",
          HOW,
          "take the comma out or go on");
    }
    return MORES.stream().anyMatch(cursor::isAt)
        ? cursor.misread(
            Code.CLAUSE_SIDE,
            cursor.said() + " comes too early",
            HOW,
            "move it behind the name of the step, after a semicolon")
        : cursor.unknown(
            Code.CLAUSE, " begins nothing that can stand here", HOW, HOWS, "take it out");
  }

  private void once(boolean twice, String what, String most) throws Misread {
    if (twice) {
      throw cursor.misread(
          Code.CLAUSE_TWICE, what + " in one step", "at most " + most, "take one of the two out");
    }
  }

  private void by(Line.OfStep step) throws Misread {
    boolean bare = cursor.here() != '"';
    step.method = cursor.name("the method");
    boolean chosen = bare && step.method.value().equals(Spelling.CHOSEN);
    step.by =
        Optional.of(new Step.By(chosen ? Optional.empty() : Optional.of(step.method.value())));
  }

  private Step.Roll roll() throws Misread {
    if (cursor.takes("on")) {
      cursor.phrase("on any day", "any", "day");
      return Step.Roll.ANY_DAY;
    }
    Step.Roll roll = cursor.isAt("back") ? Step.Roll.BACK : Step.Roll.FORWARD;
    String word = cursor.word();
    cursor.take(word);
    cursor.phrase(word.toLowerCase(Locale.ROOT) + " to a working day", "to", "a", "working", "day");
    return roll;
  }

  // ---- More ------------------------------------------------------------------------------------

  private void more(Line.OfStep step) throws Misread {
    if (cursor.isAt("for")) {
      most(step.who.size(), MOST_FOR, "for");
      cursor.take("for");
      step.who.add(who());
    } else if (cursor.isAt("remind")) {
      most(step.reminders.size(), MOST_REMIND, "remind");
      cursor.take("remind");
      step.reminders.add(remind());
    } else if (cursor.isAt("only")) {
      cursor.phrase("only if", "only", "if");
      step.conditions.add(new Line.If(true, cursor.name("the question")));
    } else if (cursor.isAt("unless")) {
      cursor.take("unless");
      step.conditions.add(new Line.If(false, cursor.name("the question")));
    } else {
      throw noMore();
    }
    if (cursor.here() != ';' && cursor.here() != Cursor.END) {
      throw behind("a semicolon or the end of the line");
    }
  }

  private Misread noMore() {
    if (cursor.word().isEmpty()) {
      return cursor.misread(
          Code.CLAUSE_MISSING,
          cursor.said() + " follows the semicolon",
          MORE,
          "take the semicolon out or go on");
    }
    if (HOWS.stream().anyMatch(cursor::isAt)) {
      return cursor.misread(
          Code.CLAUSE_SIDE,
          cursor.said() + " comes too late",
          MORE,
          "move it before the colon, after a comma");
    }
    String what = " begins nothing that can stand here";
    return cursor.isAt("if")
        ? cursor.misread(Code.CLAUSE, cursor.said() + what, MORE, "write \"only if\"", 2, "only if")
        : cursor.unknown(Code.CLAUSE, what, MORE, MORES, "take it out");
  }

  private void most(int have, int most, String word) throws Misread {
    if (have == most) {
      throw cursor.misread(
          Code.LIMIT,
          "more than " + most + " times " + quoted(word) + " in one step",
          "at most " + most,
          "leave this one out");
    }
  }

  private Line.Who who() throws Misread {
    boolean holding = cursor.isAt("the");
    if (holding) {
      cursor.take("the");
    }
    String what = holding ? "the role" : "a person or a team";
    Optional<Integer> as = cursor.lastBeforeMark("as");
    Placed<Name> name = as.isPresent() ? cursor.bare(what, as.get()) : cursor.name(what);
    if (cursor.takes("as")) {
      return new Line.Who(holding, name, Optional.of(cursor.name("the role")));
    }
    if (!holding) {
      throw noRole(name);
    }
    return new Line.Who(true, name, Optional.empty());
  }

  private Misread noRole(Placed<Name> name) {
    String first = roles.isEmpty() ? "" : roles.get(0).text();
    String others = roles.stream().skip(1).map(Name::text).collect(Collectors.joining(", "));
    return cursor.misread(
        Code.AS_MISSING,
        "nothing says what " + quoted(name.value().text()) + " is to be",
        "\"as\" and a role",
        "write: for "
            + name.value()
            + " as "
            + first
            + (others.isEmpty() ? "" : " (or " + others + ")"),
        0,
        " as " + first);
  }

  private Line.Remind remind() throws Misread {
    int column = cursor.column();
    int number = amounts.number("use a larger unit: hours for minutes, working days for hours");
    Unit unit = amounts.reminderUnit(number);
    if (!cursor.takes("before")) {
      String what = cursor.word().isEmpty() ? " comes before the side" : " does not say which side";
      throw cursor.unknown(Code.DIRECTION, what, "before", List.of("before"), "write \"before\"");
    }
    Optional<Placed<LocalTime>> at = Optional.empty();
    if (cursor.takes("at")) {
      at = Optional.of(amounts.time());
    }
    return new Line.Remind(
        new Placed<>(new Step.Remind(number, unit, at.map(Placed::value)), column, 0),
        at.map(Placed::column).orElse(0));
  }
}
