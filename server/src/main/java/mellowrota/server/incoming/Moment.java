package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A date, or a local time on it, as files write them.
 *
 * @param time empty for the whole day
 */
record Moment(LocalDate date, Optional<LocalTime> time) {

  /** How a file with strokes in its dates means 03/04/2026; nothing is guessed. */
  enum Strokes {
    DAY_FIRST,
    MONTH_FIRST
  }

  private static final String CLOCK =
      "(?:[T ]+(\\d{1,2}):(\\d{2})(?::\\d{2}(?:\\.\\d+)?)?(?: ?([AaPp])\\.?[Mm]\\.?)?)?";
  private static final Pattern YEAR_FIRST =
      Pattern.compile("(\\d{4})-(\\d{1,2})-(\\d{1,2})" + CLOCK);
  private static final Pattern DOTS = Pattern.compile("(\\d{1,2})\\.(\\d{1,2})\\.(\\d{4})" + CLOCK);
  private static final Pattern STROKES = Pattern.compile("(\\d{1,2})/(\\d{1,2})/(\\d{4})" + CLOCK);

  /** A text that is no moment, and how to mend it. */
  static final class Unreadable extends Exception {
    Unreadable(String message) {
      super(message, null, false, false);
    }
  }

  static Moment read(String text, Optional<Strokes> strokes) throws Unreadable {
    Matcher match = YEAR_FIRST.matcher(text);
    if (match.matches()) {
      return of(match, 1, 2, 3);
    }
    match = DOTS.matcher(text);
    if (match.matches()) {
      return of(match, 3, 2, 1);
    }
    match = STROKES.matcher(text);
    if (match.matches()) {
      if (strokes.isEmpty()) {
        throw new Unreadable(say("incoming.can-be-read-in"));
      }
      boolean day = strokes.get() == Strokes.DAY_FIRST;
      return day ? of(match, 3, 2, 1) : of(match, 3, 1, 2);
    }
    throw new Unreadable(say("incoming.is-not-a-date"));
  }

  private static Moment of(Matcher match, int year, int month, int day) throws Unreadable {
    LocalDate date;
    try {
      date = LocalDate.of(number(match, year), number(match, month), number(match, day));
    } catch (DateTimeException none) {
      throw new Unreadable(say("incoming.is-not-in-the"));
    }
    if (match.group(4) == null) {
      return new Moment(date, Optional.empty());
    }
    try {
      return new Moment(date, Optional.of(clock(match)));
    } catch (DateTimeException none) {
      throw new Unreadable(say("incoming.is-not-a-time-hours"));
    }
  }

  private static LocalTime clock(Matcher match) {
    int hour = number(match, 4);
    if (match.group(6) == null) {
      return LocalTime.of(hour, number(match, 5));
    }
    if (hour < 1 || hour > 12) {
      throw new DateTimeException("no hour of a twelve-hour clock");
    }
    boolean afternoon = match.group(6).equalsIgnoreCase("p");
    return LocalTime.of(hour % 12 + (afternoon ? 12 : 0), number(match, 5));
  }

  private static int number(Matcher match, int group) {
    return Integer.parseInt(match.group(group));
  }

  /** As the API takes it: a date, or a local time. */
  String iso() {
    return time.map(t -> date.atTime(t).toString()).orElseGet(date::toString);
  }
}
