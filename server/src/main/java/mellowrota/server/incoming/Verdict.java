package mellowrota.server.incoming;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What becomes of one row.
 *
 * @param row its number in the file
 * @param verdict NEW, CHANGED, SAME (as it was taken before) or FAULTY (left until it is mended)
 */
@Schema(name = "RowVerdict")
record Verdict(int row, Outcome verdict, List<Fault> faults) {

  /** What becomes of a row. */
  enum Outcome {
    NEW,
    CHANGED,
    SAME,
    FAULTY
  }

  /**
   * What is wrong and how to mend it.
   *
   * @param column which cell, from 0; absent where it is the row
   * @param near what may be meant in place of the cell's text
   */
  @Schema(name = "RowFault")
  record Fault(@Nullable Integer column, String message, @Nullable String near) {}
}
