package mellowrota.bench;

import java.util.Arrays;

/**
 * How long one address takes to answer, in milliseconds.
 *
 * @param first before anything is warm
 */
record Readings(double first, double p50, double p95) {

  /** So many of them, after half as many that do not count. */
  static Readings of(DemoClient client, String path, int readings) throws Exception {
    double first = timed(client, path);
    for (int i = 0; i < readings / 2; i++) {
      timed(client, path);
    }
    double[] times = new double[readings];
    for (int i = 0; i < readings; i++) {
      times[i] = timed(client, path);
    }
    Arrays.sort(times);
    return new Readings(first, times[readings / 2], times[(int) (readings * 0.95)]);
  }

  private static double timed(DemoClient client, String path) throws Exception {
    long from = System.nanoTime();
    client.send("GET", path, null);
    return (System.nanoTime() - from) / 1e6;
  }

  @Override
  public String toString() {
    return "first %.0f ms, then p50 %.0f ms, p95 %.0f ms".formatted(first, p50, p95);
  }
}
