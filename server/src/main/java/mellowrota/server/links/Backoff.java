package mellowrota.server.links;

import java.time.Duration;
import java.util.concurrent.ThreadLocalRandom;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * How long to wait after a failure: twice as long each time, up to a limit, and somewhere between
 * half of it and all of it, so that many do not come back at once.
 */
@Component
class Backoff {

  private static final int MOST_DOUBLINGS = 20;

  private final Duration first;
  private final Duration most;

  Backoff(
      @Value("${mellow.copies.again-after:5s}") Duration first,
      @Value("${mellow.copies.again-at-most:15m}") Duration most) {
    this.first = first;
    this.most = most;
  }

  /**
   * The wait after a failure.
   *
   * @param before how many there were before it
   */
  Duration after(int before) {
    long whole = first.toMillis() << Math.min(before, MOST_DOUBLINGS);
    long limit = Math.min(whole, most.toMillis());
    return Duration.ofMillis(limit / 2 + ThreadLocalRandom.current().nextLong(limit / 2 + 1));
  }
}
