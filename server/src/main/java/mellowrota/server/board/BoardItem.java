package mellowrota.server.board;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import mellowrota.core.work.Kind;
import mellowrota.core.work.State;
import mellowrota.server.records.RecordView;
import org.jspecify.annotations.Nullable;

/**
 * One visit as it lies on the board. What the asker may not see is not there.
 *
 * @param moves whether the asker may change when it is
 * @param on which of the calendars asked for it stands on
 * @param hands whether the asker may change who is on it
 */
record BoardItem(
    long record,
    int visit,
    int visits,
    Kind kind,
    @Nullable String ref,
    @Nullable String title,
    @Nullable Long place,
    @Nullable List<Long> uses,
    @Nullable Long team,
    State state,
    @Nullable Boolean started,
    @Nullable Boolean isPrivate,
    RecordView.@Nullable VisitView when,
    RecordView.@Nullable DueView due,
    @Nullable List<OnIt> people,
    @Nullable Boolean moves,
    @Nullable Boolean hands,
    @Nullable List<Long> on) {

  /**
   * Who is what on it.
   *
   * @param given since when, for work without a span
   */
  @Schema(name = "BoardOnIt")
  record OnIt(int role, @Nullable Long person, @Nullable Long team, @Nullable Instant given) {}
}
