package mellowrota.core.deadline;

import static mellowrota.core.deadline.Cursor.quoted;

import java.time.LocalTime;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mellowrota.core.deadline.Cursor.Misread;
import mellowrota.core.deadline.Cursor.Placed;
import mellowrota.core.deadline.Fault.Code;

/** Numbers, units, sides and times, where the cursor stands. */
final class Amounts {

  static final List<String> NUMBERS =
      List.of(
          "zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten",
          "eleven", "twelve");
  private static final List<String> UNITS =
      List.of("hour", "hours", "day", "days", "working days", "week", "weeks", "month", "months");
  private static final String UNIT = "hours, days, working days, weeks or months";
  private static final String REMINDER_UNIT = "minutes, hours or working days";
  private static final List<String> REMINDER_UNITS =
      List.of("minute", "minutes", "hour", "hours", "working days");
  private static final Map<String, String> SIDES =
      Map.of(
          "prior",
          "before",
          "until",
          "before",
          "ahead",
          "before",
          "earlier",
          "before",
          "following",
          "after",
          "past",
          "after",
          "since",
          "after",
          "from",
          "after",
          "later",
          "after");
  private static final Pattern TIME = Pattern.compile("(\\d{1,2}):(\\d\\d)");
  private static final Pattern ABOUT =
      Pattern.compile("(\\d{1,2})(?:[:.](\\d\\d?))?(?:([ap])\\.?m\\.?)?", Pattern.CASE_INSENSITIVE);

  private final Cursor cursor;

  Amounts(Cursor cursor) {
    this.cursor = cursor;
  }

  int number(String larger) throws Misread {
    String word = cursor.word();
    String digits = digits(word);
    if (word.isEmpty() || digits.isEmpty()) {
      int written = NUMBERS.indexOf(word.toLowerCase(Locale.ROOT));
      throw written < 0
          ? cursor.misread(
              Code.NUMBER,
              cursor.said() + " is not a number",
              "a whole number in digits",
              "write how many")
          : cursor.misread(
              Code.NUMBER,
              cursor.said() + " is not a number",
              "a whole number in digits",
              "write " + written + " in digits",
              word.length(),
              String.valueOf(written));
    }
    if (!digits.equals(word)) {
      boolean isPart = word.substring(digits.length()).matches("[.\\u00bd/].*|\\u00bd");
      throw isPart
          ? cursor.misread(
              Code.NUMBER_WHOLE,
              quoted(word) + " is not a whole number",
              "a whole number in digits",
              "use a smaller unit: hours for part of a day, days for part of a week")
          : cursor.misread(
              Code.NUMBER,
              quoted(word) + " is not a number",
              "a number, a space and what it counts",
              "write " + quoted(digits + " " + word.substring(digits.length())),
              Cursor.length(word),
              digits + " " + word.substring(digits.length()));
    }
    String plain = digits.replaceFirst("^0+(?=.)", "");
    if (plain.length() > 4) {
      throw cursor.misread(
          Code.NUMBER_RANGE,
          digits + " is too large",
          "a number from 0 to " + Chain.LARGEST,
          larger);
    }
    cursor.take(word);
    return Integer.parseInt(plain);
  }

  private static String digits(String word) {
    int end = 0;
    while (end < word.length() && Cursor.isDigit(word.charAt(end))) {
      end++;
    }
    return word.substring(0, end);
  }

  Unit unit(int number) throws Misread {
    for (Unit unit : Unit.values()) {
      if (unit != Unit.MINUTES && takes(unit)) {
        return unit;
      }
    }
    String word = cursor.word().toLowerCase(Locale.ROOT);
    if (word.isEmpty() || word.equals("before") || word.equals("after")) {
      throw cursor.misread(
          Code.UNIT_MISSING,
          "the unit is missing",
          UNIT,
          "say what the number counts, such as " + number + " days",
          0,
          "days ");
    }
    String what = " is not a unit";
    if (word.equals("business") || word.equals("office") || word.equals("work")) {
      throw cursor.misread(
          Code.UNIT,
          quoted(cursor.word()) + what,
          UNIT,
          "write working days",
          word.length(),
          "working");
    }
    if (word.equals("year") || word.equals("years")) {
      throw cursor.misread(
          Code.UNIT, quoted(cursor.word()) + what, UNIT, "write 12 months for each year");
    }
    if (word.equals("minute") || word.equals("minutes")) {
      throw cursor.misread(Code.UNIT, quoted(cursor.word()) + what, UNIT, "write hours");
    }
    throw cursor.unknown(Code.UNIT, what, UNIT, UNITS, "write what the number counts");
  }

  /** One or many of a unit. */
  private boolean takes(Unit unit) throws Misread {
    if (unit == Unit.WORKING_DAYS) {
      if (!cursor.takes("working")) {
        return false;
      }
      if (!cursor.takes("day")) {
        cursor.phrase("working days", "days");
      }
      return true;
    }
    return cursor.takes(unit.after(1)) || cursor.takes(unit.after(2));
  }

  Step.Side side() throws Misread {
    if (cursor.takes("before")) {
      return Step.Side.BEFORE;
    }
    if (cursor.takes("after")) {
      return Step.Side.AFTER;
    }
    String word = cursor.word();
    String what = word.isEmpty() ? " comes before the side" : " does not say which side";
    Optional<String> meant = Optional.ofNullable(SIDES.get(word.toLowerCase(Locale.ROOT)));
    throw meant.isPresent()
        ? cursor.misread(
            Code.DIRECTION,
            quoted(word) + what,
            "before or after",
            "write " + quoted(meant.get()),
            length(word),
            meant.get())
        : cursor.unknown(
            Code.DIRECTION,
            what,
            "before or after",
            List.of("before", "after"),
            "write \"before\" or \"after\"");
  }

  /** With a "to" behind it that belongs to "prior". */
  private int length(String word) {
    return Cursor.length(word) + (word.equalsIgnoreCase("prior") && cursor.isBehind("to") ? 3 : 0);
  }

  Placed<LocalTime> time() throws Misread {
    String word = cursor.time();
    Matcher exact = TIME.matcher(word);
    int column = cursor.column();
    if (exact.matches()) {
      int hour = Integer.parseInt(exact.group(1));
      int minute = Integer.parseInt(exact.group(2));
      if (hour < 24 && minute < 60) {
        cursor.take(word);
        return new Placed<>(LocalTime.of(hour, minute), column, word.length());
      }
    }
    String what = (word.isEmpty() ? cursor.said() : quoted(word)) + " is not a time of day";
    String expected = "a time such as 09:00";
    if (word.equals("24:00")) {
      throw cursor.misread(
          Code.TIME, what, expected, "write 23:59, or 00:00 and one day more", 5, "23:59");
    }
    Optional<String> meant = about(word);
    throw meant.isPresent()
        ? cursor.misread(
            Code.TIME, what, expected, "write " + meant.get(), Cursor.length(word), meant.get())
        : cursor.misread(Code.TIME, what, expected, "write hours and minutes, such as 09:00");
  }

  /** What somebody may have meant by another way of writing a time. */
  private static Optional<String> about(String word) {
    Matcher about = ABOUT.matcher(word);
    if (!about.matches()) {
      return Optional.empty();
    }
    int hour = Integer.parseInt(about.group(1));
    int minute = about.group(2) == null ? 0 : Integer.parseInt(about.group(2));
    if (about.group(3) != null) {
      hour = hour % 12 + (about.group(3).equalsIgnoreCase("p") ? 12 : 0);
    }
    return hour < 24 && minute < 60
        ? Optional.of(LocalTime.of(hour, minute).toString())
        : Optional.empty();
  }

  Unit reminderUnit(int number) throws Misread {
    for (Unit unit : List.of(Unit.MINUTES, Unit.HOURS, Unit.WORKING_DAYS)) {
      if (takes(unit)) {
        return unit;
      }
    }
    String word = cursor.word();
    if (word.isEmpty() || word.equalsIgnoreCase("before")) {
      throw cursor.misread(
          Code.UNIT_MISSING,
          "the unit is missing",
          REMINDER_UNIT,
          "say what the number counts, such as " + number + " working days",
          0,
          "working days ");
    }
    for (Unit unit : List.of(Unit.DAYS, Unit.WEEKS, Unit.MONTHS)) {
      if (cursor.isAt(unit.after(1)) || cursor.isAt(unit.after(2))) {
        throw cursor.misread(
            Code.REMINDER_UNIT,
            "a reminder does not count in " + unit.many(),
            REMINDER_UNIT,
            "write working days, or 24 hours for each day",
            word.length(),
            "working days");
      }
    }
    throw cursor.unknown(
        Code.REMINDER_UNIT,
        " is not a unit of a reminder",
        REMINDER_UNIT,
        REMINDER_UNITS,
        "write working days, or 24 hours for each day");
  }
}
