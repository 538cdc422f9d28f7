package mellowrota.server.records;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** One act in a record's history, as far as the asker might see it then and may see it now. */
public record HistoryView(
    long act,
    Instant at,
    String who,
    String kind,
    @Nullable String reason,
    boolean undone,
    boolean mayUndo,
    List<ChangeView> changes) {

  /** One value before and after, in words; empty text for nothing. */
  public record ChangeView(String label, String before, String after) {}
}
