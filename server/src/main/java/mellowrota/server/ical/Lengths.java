package mellowrota.server.ical;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.temporal.TemporalAmount;
import net.fortuna.ical4j.model.TemporalAmountAdapter;

/** Durations as files write them (RFC 5545 §3.3.6), as far as they are within reason. */
public final class Lengths {

  private static final Duration LONGEST = Duration.ofDays(3660);
  private static final LocalDateTime SOMETIME = LocalDateTime.of(2000, 1, 1, 0, 0);

  private Lengths() {}

  /**
   * Reads one.
   *
   * @throws DateTimeException where it is none, or longer than ten years
   */
  public static TemporalAmount parse(String text) {
    try {
      TemporalAmount length = TemporalAmountAdapter.parse(text.strip()).getDuration();
      Duration lasts = Duration.between(SOMETIME, SOMETIME.plus(length));
      if (lasts.abs().compareTo(LONGEST) <= 0) {
        return length;
      }
    } catch (ArithmeticException | IllegalArgumentException | NullPointerException none) {
      throw new DateTimeException("its duration cannot be read", none);
    }
    throw new DateTimeException("its duration is longer than ten years");
  }
}
