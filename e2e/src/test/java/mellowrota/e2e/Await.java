package mellowrota.e2e;

import java.time.Duration;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;

/** Waits on a condition, never on time alone. */
final class Await {

  private Await() {}

  static void until(String what, Duration most, BooleanSupplier condition) {
    long end = System.nanoTime() + most.toNanos();
    long pause = 20_000_000;
    while (!condition.getAsBoolean()) {
      if (System.nanoTime() > end) {
        throw new AssertionError("after " + most.toSeconds() + " s it is not so that " + what);
      }
      LockSupport.parkNanos(pause);
      // Many who look often would keep what they wait for from its work.
      pause = Math.min(pause * 5 / 4, 250_000_000);
    }
  }
}
