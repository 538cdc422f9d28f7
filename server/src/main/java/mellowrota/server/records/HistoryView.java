package mellowrota.server.records;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;

/** One act in a record's history, as far as the asker might see it then and may see it now. */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record HistoryView(
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long act,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Instant at,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String who,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String kind,
    String reason,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean undone,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean mayUndo,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<ChangeView> changes) {

  /** One value before and after, in words; empty text for nothing. */
  public record ChangeView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String label,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String before,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String after) {}
}
