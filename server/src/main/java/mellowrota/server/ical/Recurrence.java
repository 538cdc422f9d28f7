package mellowrota.server.ical;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.Temporal;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import net.fortuna.ical4j.model.Recur;

/**
 * Follows recurrence rules (RFC 5545 §3.3.10) by the library, once it is known what that takes: a
 * rule by the second, one that names each second of a year, or one from the year 1601 would keep a
 * processor for hours. One for each file, whose rules share what it may take.
 */
public final class Recurrence {

  /** How many times one step of a rule may name, as every minute of a day does. */
  private static final int MOST_IN_A_STEP = 1_500;

  private static final long MOST_STEPS = 100_000;
  private static final long MOST_COUNTED = 10_000;
  private static final long MOST_OF_A_FILE = 50_000;

  /** A rule begun so many steps before it matters is taken up nearer. */
  private static final long NEAR = 50;

  private long spent;

  /**
   * When it happens, from one moment until another.
   *
   * @param seed when it happens first
   * @param most times are told at most
   * @throws DateTimeException where it would take too much
   * @throws IllegalArgumentException where it cannot be read
   */
  public <T extends Temporal> List<T> dates(String rule, T seed, T from, T until, int most) {
    Map<String, String> parts = parts(rule);
    ChronoUnit unit = unit(parts.getOrDefault("FREQ", ""));
    long interval = number(parts.getOrDefault("INTERVAL", "1"));
    if (!seed.isSupported(unit)) {
      throw new DateTimeException("it repeats by the hour, but has no hour");
    }
    long atOnce = atOnce(parts, unit);
    boolean counted = parts.containsKey("COUNT");
    T near = counted ? seed : near(seed, from, unit, interval);
    long steps = Math.max(0, unit.between(near, until) / interval) + 1;
    steps = counted ? Math.min(steps, counted(parts)) : steps;
    if (steps > MOST_STEPS) {
      throw new DateTimeException("it repeats too often to be followed: " + steps + " times");
    }
    spent += Math.min(steps, most) * atOnce;
    if (spent > MOST_OF_A_FILE) {
      throw new DateTimeException(
          "the rules of this file name more than " + MOST_OF_A_FILE + " times");
    }
    return new Recur<T>(rule).getDates(near, from, until, most);
  }

  private static Map<String, String> parts(String rule) {
    Map<String, String> found = new HashMap<>();
    for (String part : rule.split(";")) {
      int is = part.indexOf('=');
      if (is > 0) {
        found.put(
            part.substring(0, is).strip().toUpperCase(Locale.ROOT), part.substring(is + 1).strip());
      }
    }
    return found;
  }

  private static ChronoUnit unit(String frequency) {
    return switch (frequency.toUpperCase(Locale.ROOT)) {
      case "SECONDLY" -> ChronoUnit.SECONDS;
      case "MINUTELY" -> ChronoUnit.MINUTES;
      case "HOURLY" -> ChronoUnit.HOURS;
      case "DAILY" -> ChronoUnit.DAYS;
      case "WEEKLY" -> ChronoUnit.WEEKS;
      case "MONTHLY" -> ChronoUnit.MONTHS;
      case "YEARLY" -> ChronoUnit.YEARS;
      default -> throw new IllegalArgumentException("its frequency is not one of the standard");
    };
  }

  private static long number(String text) {
    if (!text.matches("[0-9]{1,9}") || Long.parseLong(text) == 0) {
      throw new IllegalArgumentException("one of its numbers is not a number");
    }
    return Long.parseLong(text);
  }

  /** How many times a step names at most: what its lists multiply to. */
  private static long atOnce(Map<String, String> parts, ChronoUnit unit) {
    long product = 1;
    for (Map.Entry<String, String> part : parts.entrySet()) {
      if (part.getKey().startsWith("BY") && !part.getKey().equals("BYSETPOS")) {
        product *= part.getValue().split(",").length;
        if (part.getKey().equals("BYDAY")) {
          product *= unit == ChronoUnit.YEARS ? 53 : unit == ChronoUnit.MONTHS ? 5 : 1;
        }
        if (product > MOST_IN_A_STEP) {
          throw new DateTimeException("it names more than " + MOST_IN_A_STEP + " times at once");
        }
      }
    }
    return product;
  }

  /** The same rule begun as many whole steps later, so that it keeps its beat and its day. */
  private static <T extends Temporal> T near(T seed, T from, ChronoUnit unit, long interval) {
    long steps = unit.between(seed, from) / interval - NEAR;
    boolean calendar = unit == ChronoUnit.MONTHS || unit == ChronoUnit.YEARS;
    for (long back = 0; steps - back > NEAR; back++) {
      @SuppressWarnings("unchecked")
      T near = (T) seed.plus((steps - back) * interval, unit);
      // A step of months keeps the month too, since a rule may take its month from where it began.
      if (!calendar
          || LocalDate.from(near).getDayOfMonth() == LocalDate.from(seed).getDayOfMonth()
              && LocalDate.from(near).getMonth() == LocalDate.from(seed).getMonth()) {
        return near;
      }
      if (back > 4 * 12 * 3) {
        return seed;
      }
    }
    return seed;
  }

  private static long counted(Map<String, String> parts) {
    long count = number(parts.get("COUNT"));
    if (count > MOST_COUNTED) {
      throw new DateTimeException("it repeats more than " + MOST_COUNTED + " times");
    }
    return count;
  }
}
