package mellowrota.server.links;

import java.time.Duration;
import java.util.concurrent.ThreadLocalRandom;
import lombok.RequiredArgsConstructor;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * How long to wait after a failure: twice as long each time, up to a limit, and somewhere between
 * half of it and all of it, so that many do not come back at once.
 */
@Component
@RequiredArgsConstructor
class Backoff {

  private static final int MOST_DOUBLINGS = 20;

  @Value("${mellow.copies.again-after:5s}")
  private final Duration first;

  @Value("${mellow.copies.again-at-most:15m}")
  private final Duration most;

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
