package mellowrota.core.deadline;

import java.util.Comparator;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;

/**
 * What is wrong with a text of a chain.
 *
 * @param line from 1
 * @param column of a code point of it, from 1; a tab is one
 * @param what what is wrong
 * @param expected what could stand there
 * @param mend how it is mended, in words
 * @param edit what mends it, where that can be told
 */
public record Fault(
    Code code,
    int line,
    int column,
    String what,
    String expected,
    String mend,
    Optional<Edit> edit) {

  /** In the order in which they are told. */
  static final Comparator<Fault> ORDER =
      Comparator.comparingInt(Fault::line)
          .thenComparingInt(Fault::column)
          .thenComparing(one -> one.code().toString());

  /**
   * Other characters in place of some of the line.
   *
   * @param column of the first of them; behind the line's last: nothing is taken away
   * @param length how many are taken away
   */
  public record Edit(int column, int length, String text) {}

  /** Of what sort; as in {@code "name-unknown"}. */
  public enum Code {
    LINE_START,
    LANGUAGE,
    HEADER_TWICE,
    HEADER_LATE,
    NUMBER,
    NUMBER_WHOLE,
    NUMBER_RANGE,
    UNIT,
    UNIT_MISSING,
    REMINDER_UNIT,
    DIRECTION,
    NAME_MISSING,
    NAME_LONG,
    NAME_MARK,
    QUOTE_OPEN,
    QUOTE_CURLY,
    PHRASE,
    TIME,
    CLAUSE,
    CLAUSE_SIDE,
    CLAUSE_MISSING,
    CLAUSE_END,
    COLON_MISSING,
    AS_MISSING,
    TEXT_LONG,
    LINES_MANY,
    LINE_LONG,
    CHARACTER,
    NAME_UNKNOWN,
    NAME_TWICE,
    LOOP,
    HOURS_OF_DAY,
    AT_HOURS,
    REMINDER_AT,
    ON_BY,
    METHOD_UNKNOWN,
    METHOD_HOURS,
    ROLE_UNKNOWN,
    HOLDER_UNKNOWN,
    HOLDER_TWICE,
    QUESTION_UNKNOWN,
    CONDITION_NEVER,
    QUESTION_TWICE,
    REMINDER_OF_DAY,
    CLAUSE_TWICE,
    LIMIT,
    CHAIN_MISSING,
    KEY_MISSING,
    STEPS_NONE,
    STEPS_MANY;

    @Override
    public String toString() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  public Fault {
    Objects.requireNonNull(code, "code");
    Objects.requireNonNull(what, "what");
    Objects.requireNonNull(expected, "expected");
    Objects.requireNonNull(mend, "mend");
    Objects.requireNonNull(edit, "edit");
  }

  /** Without anything that mends it by itself. */
  static Fault of(Code code, int line, int column, String what, String expected, String mend) {
    return new Fault(code, line, column, what, expected, mend, Optional.empty());
  }

  /** As in {@code line 4, col 16: what is wrong; expected what; how to mend it}. */
  @Override
  public String toString() {
    return "line "
        + line
        + ", col "
        + column
        + ": "
        + what
        + "; expected "
        + expected
        + "; "
        + mend;
  }
}
