package mellowrota.standin;

import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;

/** How an account's calendars misbehave. Chances are drawn from a seed, so that a run repeats. */
public final class Faults {

  /** What may happen to a request, each with a chance of its own. */
  public enum Chance {
    /** It is answered late. */
    SLOW,
    /** 503, nothing was done. */
    SERVER_ERROR,
    /** 429 with Retry-After, nothing was done. */
    TOO_MANY,
    /** The connection ends before anything was done. */
    RESET_BEFORE,
    /** It was done, then the connection ends without an answer. */
    RESET_AFTER
  }

  /** What holds until it is switched off. */
  public enum Mode {
    WRONG_PASSWORD,
    /** 507 on anything that writes. */
    QUOTA,
    READ_ONLY,
    /** No sync-collection, and no sync-token. */
    NO_SYNC,
    /** No ctag either. */
    NO_CTAG,
    /** A PUT's answer has no ETag. */
    NO_ETAG_ON_PUT,
    /** It tells what it has, and is dead from the first request for more. */
    DIES,
    /** Nobody answers: connections end at once. */
    DEAD
  }

  private final Map<Chance, Double> chances = new EnumMap<>(Chance.class);
  private final Map<Mode, Boolean> modes = new EnumMap<>(Mode.class);
  private SplittableRandom random = new SplittableRandom(1);
  private long slowMillis = 300;
  private int retryAfter = 1;
  private long delayMillis;

  /** Sets how likely something is, from 0 to 1. */
  public synchronized void set(Chance chance, double likely) {
    if (!(likely >= 0 && likely <= 1)) {
      throw new IllegalArgumentException("a chance is from 0 to 1, not " + likely);
    }
    chances.put(chance, likely);
  }

  public synchronized void set(Mode mode, boolean on) {
    modes.put(mode, on);
  }

  public synchronized void seed(long seed) {
    random = new SplittableRandom(seed);
  }

  /** How late a slow answer comes. */
  public synchronized void slowMillis(long millis) {
    slowMillis = millis;
  }

  /** How late every answer comes. */
  public synchronized void delayMillis(long millis) {
    delayMillis = millis;
  }

  public synchronized void clear() {
    chances.clear();
    modes.clear();
    delayMillis = 0;
  }

  synchronized boolean is(Mode mode) {
    return modes.getOrDefault(mode, false);
  }

  synchronized double chance(Chance chance) {
    return chances.getOrDefault(chance, 0.0);
  }

  /** What happens to the next request; one thing at most. */
  synchronized Optional<Chance> draw() {
    double at = random.nextDouble();
    for (Map.Entry<Chance, Double> one : chances.entrySet()) {
      if (at < one.getValue()) {
        return Optional.of(one.getKey());
      }
      at -= one.getValue();
    }
    return Optional.empty();
  }

  synchronized long slowMillis() {
    return slowMillis;
  }

  synchronized long delayMillis() {
    return delayMillis;
  }

  synchronized int retryAfter() {
    return retryAfter;
  }
}
