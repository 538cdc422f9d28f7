package mellowrota.server.platform;

import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import mellowrota.core.time.TimeSpan;

/** Spans of time in words. */
public final class SpanWords {

  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("EEE d MMM", Locale.ENGLISH);
  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm");

  private SpanWords() {}

  /**
   * As {@code Thu 10 Dec 08:00–12:00}; the second day only where the last minute is on another, and
   * midnight at the end is 24:00.
   */
  public static String said(TimeSpan span, ZoneId zone) {
    LocalDateTime from = LocalDateTime.ofInstant(span.start(), zone);
    LocalDateTime until = LocalDateTime.ofInstant(span.end(), zone);
    boolean midnight = until.toLocalTime().equals(LocalTime.MIDNIGHT) && until.isAfter(from);
    LocalDateTime last = midnight ? until.minusMinutes(1) : until;
    String day = last.toLocalDate().equals(from.toLocalDate()) ? "" : DAY.format(last) + " ";
    String end = midnight ? "24:00" : TIME.format(until);
    return DAY.format(from) + " " + TIME.format(from) + "–" + day + end;
  }
}
