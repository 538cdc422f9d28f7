package mellowrota.bench;

import java.time.LocalDate;
import java.util.Arrays;

/**
 * The board of 500 people over two weeks, 15 000 spans, against a running demo. Argument: the
 * server's address without a slash at the end.
 */
public final class BoardLoad {

  /** With the demo's own. */
  private static final int PEOPLE = 475;

  private static final int READINGS = 60;

  /** On which the two weeks begin. */
  static final LocalDate MONDAY = LocalDate.of(2027, 6, 7);

  private BoardLoad() {}

  public static void main(String[] arguments) throws Exception {
    DemoClient hana = new DemoClient(arguments[0]);
    int spans = new Growth(hana).grow(PEOPLE, 2, MONDAY);
    String path = "/api/v1/board?from=" + MONDAY + "&until=" + MONDAY.plusDays(14);
    double first = timed(hana, path);
    for (int i = 0; i < READINGS / 2; i++) {
      timed(hana, path);
    }
    double[] times = new double[READINGS];
    for (int i = 0; i < READINGS; i++) {
      times[i] = timed(hana, path);
    }
    Arrays.sort(times);
    System.out.printf(
        "board of 500 people, %d spans: first %.0f ms, then p50 %.0f ms, p95 %.0f ms%n",
        spans, first, times[READINGS / 2], times[(int) (READINGS * 0.95)]);
  }

  private static double timed(DemoClient client, String path) throws Exception {
    long from = System.nanoTime();
    client.send("GET", path, null);
    return (System.nanoTime() - from) / 1e6;
  }
}
