package mellowrota.server.incoming;

import java.util.List;

/**
 * What stands in a file, whatever it was written in: rows of text under named columns.
 *
 * @param columns their names as the file gives them
 * @param notRead what the file holds besides, that could not be read
 */
record Table(List<String> columns, List<Row> rows, List<NotRead> notRead, String written) {

  /**
   * One row.
   *
   * @param row its number in the file, as a spreadsheet counts; for a calendar, its component's
   */
  record Row(int row, List<String> cells) {}

  /** Something in the file that is in no row, and why. */
  record NotRead(int row, String what, String why) {}

  static final int MOST_ROWS = 20_000;
  static final int MOST_COLUMNS = 100;
  static final int LONGEST_CELL = 10_000;
}
