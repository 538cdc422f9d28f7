package mellowrota.bench;

import java.time.LocalDate;

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
    System.out.printf(
        "board of 500 people, %d spans: %s%n", spans, Readings.of(hana, path, READINGS));
  }
}
