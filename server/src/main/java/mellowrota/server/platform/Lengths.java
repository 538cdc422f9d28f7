package mellowrota.server.platform;

import java.time.Duration;

/** Lengths of time in words. */
public final class Lengths {

  private Lengths() {}

  /** In hours and minutes: {@code 7 h 30 min}, {@code 8 h}. */
  public static String said(Duration length) {
    return length.toMinutesPart() == 0
        ? length.toHours() + " h"
        : length.toHours() + " h " + length.toMinutesPart() + " min";
  }
}
