package mellowrota.server.board;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import mellowrota.core.work.Kind;
import mellowrota.core.work.State;
import mellowrota.server.records.RecordView;

/**
 * One visit as it lies on the board. What the asker may not see is not there.
 *
 * @param moves whether the asker may change when it is
 * @param on which of the calendars asked for it stands on
 * @param hands whether the asker may change who is on it
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
record BoardItem(
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long record,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int visit,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int visits,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED, implementation = Kind.class) String kind,
    String ref,
    String title,
    Long place,
    Long team,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED, implementation = State.class) String state,
    Boolean started,
    Boolean isPrivate,
    RecordView.VisitView when,
    RecordView.DueView due,
    List<OnIt> people,
    Boolean moves,
    Boolean hands,
    List<Long> on) {

  /**
   * Who is what on it.
   *
   * @param given since when, for work without a span
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  @Schema(name = "BoardOnIt")
  record OnIt(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int role,
      Long person,
      Long team,
      Instant given) {}
}
