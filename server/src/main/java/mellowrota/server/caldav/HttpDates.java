package mellowrota.server.caldav;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;

/** Dates as HTTP writes them (RFC 9110 §5.6.7). */
final class HttpDates {
  private HttpDates() {}

  static String format(Instant instant) {
    return DateTimeFormatter.RFC_1123_DATE_TIME
        .format(instant.atOffset(ZoneOffset.UTC))
        .replace(" Z", " GMT");
  }
}
