package mellowrota.core.calendar;

/** How much a way of reading lets through at most, from least to most. */
public enum Level {
  BUSY_ONLY,
  TIMES_AND_PLACE,
  /** All that the reader may see. */
  ALL;

  public Level atMost(Level limit) {
    return compareTo(limit) <= 0 ? this : limit;
  }

  public Level orWider(Level other) {
    return compareTo(other) >= 0 ? this : other;
  }
}
