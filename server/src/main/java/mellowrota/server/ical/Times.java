package mellowrota.server.ical;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** Dates and times as RFC 5545 §3.3.4 and §3.3.5 write them. */
public final class Times {

  private static final DateTimeFormatter LOCAL =
      DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss", Locale.ROOT);

  private Times() {}

  public static String local(LocalDateTime time) {
    return LOCAL.format(time);
  }

  public static String utc(Instant instant) {
    return LOCAL.format(instant.atOffset(ZoneOffset.UTC)) + "Z";
  }

  /** Reads a UTC date-time, the only form that filters allow (RFC 4791 §9.9). */
  public static Instant parseUtc(String text) {
    if (!text.endsWith("Z")) {
      throw new IllegalArgumentException("not a UTC date-time");
    }
    return LocalDateTime.parse(text.substring(0, text.length() - 1), LOCAL)
        .toInstant(ZoneOffset.UTC);
  }
}
