package mellowrota.core.time;

import java.time.Instant;
import java.time.ZoneId;
import java.time.zone.ZoneOffsetTransition;
import java.time.zone.ZoneRules;
import java.util.Map;
import java.util.OptionalInt;
import java.util.concurrent.ConcurrentHashMap;

/**
 * What a zone's clock is off by, looked up once for some days: the rules are asked for each moment
 * of a crew's quarter otherwise. What is kept follows from the rules alone, so that it may be lost
 * or found twice.
 */
final class Offsets {

  /** A stretch is 2^18 seconds, about three days, from 1970 on; the last ends in 2102. */
  private static final int BITS = 18;

  private static final int STRETCHES = 16_000;

  /** More than any offset, so that a local second is looked for in its stretch. */
  private static final long AROUND = 24 * 3600;

  private static final int UNKNOWN = 0;
  private static final int CHANGES = 1;
  private static final int FIRST = 100_000;

  private static final Map<ZoneId, int[]> KEPT = new ConcurrentHashMap<>();

  private Offsets() {}

  /**
   * The offset that holds from a day before a second until a day after it.
   *
   * @param second since 1970, of UTC or of the local clock
   * @return in seconds; empty: the clock is changed in these days, or nobody keeps them
   */
  static OptionalInt steady(long second, ZoneId zone) {
    long stretch = second >> BITS;
    if (stretch < 0 || stretch >= STRETCHES) {
      return OptionalInt.empty();
    }
    int[] kept = KEPT.get(zone);
    if (kept == null) {
      kept = KEPT.computeIfAbsent(zone, key -> new int[STRETCHES]);
    }
    int found = kept[(int) stretch];
    if (found == UNKNOWN) {
      found = find(stretch, zone.getRules());
      kept[(int) stretch] = found;
    }
    return found == CHANGES ? OptionalInt.empty() : OptionalInt.of(found - FIRST);
  }

  private static int find(long stretch, ZoneRules rules) {
    Instant from = Instant.ofEpochSecond((stretch << BITS) - AROUND);
    Instant until = Instant.ofEpochSecond((stretch + 1 << BITS) + AROUND);
    ZoneOffsetTransition next = rules.nextTransition(from);
    return next == null || next.getInstant().isAfter(until)
        ? FIRST + rules.getOffset(from).getTotalSeconds()
        : CHANGES;
  }
}
