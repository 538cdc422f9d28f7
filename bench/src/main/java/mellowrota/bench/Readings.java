package mellowrota.bench;

import java.util.Arrays;

/**
 * How long one call takes to be answered, in milliseconds.
 *
 * @param first before anything is warm
 */
record Readings(double first, double p50, double p95) {

  /** One call, of which the number is given. */
  interface Call {
    void go(int number) throws Exception;
  }

  static Readings of(DemoClient client, String path, int readings) throws Exception {
    return of(number -> client.send("GET", path, null), readings);
  }

  /** So many of them, after half as many that do not count. */
  static Readings of(Call call, int readings) throws Exception {
    double first = timed(call, 0);
    for (int i = 0; i < readings / 2; i++) {
      timed(call, i + 1);
    }
    double[] times = new double[readings];
    for (int i = 0; i < readings; i++) {
      times[i] = timed(call, readings / 2 + i + 1);
    }
    Arrays.sort(times);
    return new Readings(first, times[readings / 2], times[(int) (readings * 0.95)]);
  }

  private static double timed(Call call, int number) throws Exception {
    long from = System.nanoTime();
    call.go(number);
    return (System.nanoTime() - from) / 1e6;
  }

  @Override
  public String toString() {
    return "first %.0f ms, then p50 %.0f ms, p95 %.0f ms".formatted(first, p50, p95);
  }
}
