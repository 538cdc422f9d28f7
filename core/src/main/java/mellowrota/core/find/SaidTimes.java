package mellowrota.core.find;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.Month;
import java.time.Year;
import java.time.format.TextStyle;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads days, weeks, months and times of day as people say them. */
final class SaidTimes {

  private static final String DASH = "[-–—]";
  private static final Pattern ISO = Pattern.compile("\\d{4}-\\d{2}-\\d{2}");
  private static final Pattern DAY = Pattern.compile("(\\d{1,2})(?:st|nd|rd|th)?");
  private static final Pattern DAYS = Pattern.compile("(\\d{1,2})" + DASH + "(\\d{1,2})");
  private static final Pattern TIME = Pattern.compile("(\\d{1,2}):(\\d{2})");
  private static final Pattern TIMES =
      Pattern.compile("(\\d{1,2}:\\d{2})" + DASH + "(\\d{1,2}:\\d{2})");

  /** Alone no months. */
  private static final Set<String> WORDS_TOO = Set.of("mar", "may");

  private static final Pattern YEAR = Pattern.compile("(19|20|21)\\d{2}");

  private final Tokens tokens;
  private final Today today;

  /**
   * What was said.
   *
   * @param until without it
   * @param next the token behind it
   */
  record Said(LocalDateTime from, LocalDateTime until, int next) {}

  private record Days(LocalDate first, LocalDate until, int next) {
    static Days of(LocalDate day, int next) {
      return new Days(day, day.plusDays(1), next);
    }
  }

  SaidTimes(Tokens tokens, Today today) {
    this.tokens = tokens;
    this.today = today;
  }

  /** What is said from a token on; empty: nothing of time. */
  Optional<Said> at(int index) {
    return days(index).map(this::withTime);
  }

  private Said withTime(Days days) {
    String word = tokens.plain(days.next());
    boolean one = days.first().plusDays(1).equals(days.until());
    Matcher times = TIMES.matcher(word);
    if (one && times.matches()) {
      Optional<LocalTime> from = time(times.group(1));
      Optional<LocalTime> until = time(times.group(2));
      if (from.isPresent() && until.isPresent()) {
        LocalDateTime begins = days.first().atTime(from.get());
        LocalDateTime ends = days.first().atTime(until.get());
        return new Said(begins, ends.isAfter(begins) ? ends : ends.plusDays(1), days.next() + 1);
      }
    }
    Optional<LocalTime> at = one ? time(word) : Optional.empty();
    return at.map(time -> days.first().atTime(time))
        .map(time -> new Said(time, time.plusMinutes(1), days.next() + 1))
        .orElseGet(
            () -> new Said(days.first().atStartOfDay(), days.until().atStartOfDay(), days.next()));
  }

  private static Optional<LocalTime> time(String word) {
    Matcher found = TIME.matcher(word);
    if (!found.matches()) {
      return Optional.empty();
    }
    int hour = Integer.parseInt(found.group(1));
    int minute = Integer.parseInt(found.group(2));
    return hour < 24 && minute < 60 ? Optional.of(LocalTime.of(hour, minute)) : Optional.empty();
  }

  private Optional<Days> days(int index) {
    return relative(index)
        .or(() -> weekday(index))
        .or(() -> span(index))
        .or(() -> oneDay(index))
        .or(() -> month(index));
  }

  private LocalDate day() {
    return today.now().toLocalDate();
  }

  private Optional<Days> relative(int index) {
    String word = tokens.plain(index);
    switch (word) {
      case "today":
        return Optional.of(Days.of(day(), index + 1));
      case "tomorrow":
        return Optional.of(Days.of(day().plusDays(1), index + 1));
      case "yesterday":
        return Optional.of(Days.of(day().minusDays(1), index + 1));
      default:
        return steps(word).flatMap(steps -> unit(steps, index));
    }
  }

  /** How many weeks, months or years on from this one. */
  private static Optional<Integer> steps(String word) {
    return switch (word) {
      case "this" -> Optional.of(0);
      case "next" -> Optional.of(1);
      case "last" -> Optional.of(-1);
      default -> Optional.empty();
    };
  }

  private Optional<Days> unit(int steps, int index) {
    LocalDate week = day().with(TemporalAdjusters.previousOrSame(today.weekBegins()));
    LocalDate month = day().withDayOfMonth(1);
    LocalDate year = day().withDayOfYear(1);
    int next = index + 2;
    String unit = tokens.plain(index + 1);
    return switch (unit) {
      case "week" -> Optional.of(new Days(week.plusWeeks(steps), week.plusWeeks(steps + 1), next));
      case "month" ->
          Optional.of(new Days(month.plusMonths(steps), month.plusMonths(steps + 1), next));
      case "year" -> Optional.of(new Days(year.plusYears(steps), year.plusYears(steps + 1), next));
      default ->
          dayOfWeek(unit)
              .map(day -> week.plusWeeks(steps).with(TemporalAdjusters.nextOrSame(day)))
              .map(day -> Days.of(day, next));
    };
  }

  /** The next such day, today included. */
  private Optional<Days> weekday(int index) {
    return dayOfWeek(tokens.plain(index))
        .flatMap(
            // "Wed 2 Dec" is the second, whatever day that is.
            day ->
                oneDay(index + 1)
                    .or(
                        () ->
                            Optional.of(
                                Days.of(
                                    day().with(TemporalAdjusters.nextOrSame(day)), index + 1))));
  }

  private static Optional<DayOfWeek> dayOfWeek(String word) {
    for (DayOfWeek day : DayOfWeek.values()) {
      if (isName(word, day.getDisplayName(TextStyle.FULL, Locale.ENGLISH))) {
        return Optional.of(day);
      }
    }
    return Optional.empty();
  }

  /** Whole, or its first three letters or more where they are four at most. */
  private static boolean isName(String word, String name) {
    String full = name.toLowerCase(Locale.ROOT);
    return word.equals(full) || word.length() >= 3 && word.length() <= 4 && full.startsWith(word);
  }

  private static Optional<Month> named(String word) {
    for (Month month : Month.values()) {
      if (isName(word, month.getDisplayName(TextStyle.FULL, Locale.ENGLISH))) {
        return Optional.of(month);
      }
    }
    return Optional.empty();
  }

  /** "23–27 Nov", "23 Nov – 2 Dec", two dates with a dash between. */
  private Optional<Days> span(int index) {
    Matcher both = DAYS.matcher(tokens.plain(index));
    if (both.matches()) {
      return named(tokens.plain(index + 1))
          .flatMap(
              month -> {
                int first = Integer.parseInt(both.group(1));
                int last = Integer.parseInt(both.group(2));
                int after = index + 2;
                Optional<Integer> year = year(after);
                int next = year.isPresent() ? after + 1 : after;
                return date(first, month, year)
                    .flatMap(
                        from ->
                            date(last, month, Optional.of(from.getYear()))
                                .filter(to -> !to.isBefore(from))
                                .map(to -> new Days(from, to.plusDays(1), next)));
              });
    }
    return oneDay(index)
        .filter(from -> tokens.plain(from.next()).matches(DASH))
        .flatMap(
            from ->
                oneDay(from.next() + 1)
                    .filter(to -> !to.first().isBefore(from.first()))
                    .map(to -> new Days(from.first(), to.until(), to.next())));
  }

  /** "2026-12-02", "2 Dec", "2 Dec 2026". */
  private Optional<Days> oneDay(int index) {
    String word = tokens.plain(index);
    if (ISO.matcher(word).matches()) {
      try {
        return Optional.of(Days.of(LocalDate.parse(word), index + 1));
      } catch (DateTimeException noSuchDay) {
        return Optional.empty();
      }
    }
    Matcher day = DAY.matcher(word);
    if (!day.matches()) {
      return Optional.empty();
    }
    Optional<Integer> year = year(index + 2);
    int next = year.isPresent() ? index + 3 : index + 2;
    return named(tokens.plain(index + 1))
        .flatMap(month -> date(Integer.parseInt(day.group(1)), month, year))
        .map(date -> Days.of(date, next));
  }

  private Optional<Days> month(int index) {
    Optional<Integer> year = year(index + 1);
    return named(tokens.plain(index))
        .filter(month -> year.isPresent() || !WORDS_TOO.contains(tokens.plain(index)))
        .flatMap(month -> date(1, month, year))
        .map(
            first ->
                new Days(first, first.plusMonths(1), year.isPresent() ? index + 2 : index + 1));
  }

  private Optional<Integer> year(int index) {
    String word = tokens.plain(index);
    return YEAR.matcher(word).matches() ? Optional.of(Integer.valueOf(word)) : Optional.empty();
  }

  /** Without a year the one that is nearest to today. */
  private Optional<LocalDate> date(int day, Month month, Optional<Integer> said) {
    LocalDate nearest = null;
    int now = day().getYear();
    for (int year = said.orElse(now - 1); year <= said.orElse(now + 1); year++) {
      if (day >= 1 && day <= month.length(Year.isLeap(year))) {
        LocalDate date = LocalDate.of(year, month, day);
        if (nearest == null || away(date) < away(nearest)) {
          nearest = date;
        }
      }
    }
    return Optional.ofNullable(nearest);
  }

  private long away(LocalDate date) {
    return Math.abs(ChronoUnit.DAYS.between(day(), date));
  }
}
