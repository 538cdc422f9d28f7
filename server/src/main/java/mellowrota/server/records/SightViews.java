package mellowrota.server.records;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import mellowrota.core.calendar.Calendar;

/** Who sees what of a record, as it is told. */
public final class SightViews {

  private SightViews() {}

  /**
   * A detail of the record.
   *
   * @param value as it stands; absent where the asker may not see it, filled or not
   */
  @Schema(name = "SightDetail")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record DetailView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String key,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String label,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String forWhom,
      String value) {}

  /**
   * Whether an audience is shown a detail.
   *
   * @param status SHOWN, NOT_ASKED, NOT_FOR_A_READER, DOES_NOT_APPLY or EMPTY
   * @param reader whom it is not for
   */
  @Schema(name = "SightCell")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record CellView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String status, String reader) {}

  /** An entry as its audience gets it; what the asker may not see of it is covered. */
  @Schema(name = "SightEntry")
  public record EntryView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String title,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String place,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String text,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) LandingView.TimesView times,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean busy,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> invited,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> reminders) {}

  /**
   * Who reads one rendering of one entry.
   *
   * @param way MEMBERS, SHARE or FEED
   * @param readers in words
   * @param cells in the order of the details
   * @param waits FIRST before the first yes, CHANGE where they keep what they had until the next
   * @param entry absent where times may not be shown to all of them, and before the first yes
   */
  @Schema(name = "SightAudience")
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record AudienceView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long calendar,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, implementation = Calendar.Sort.class)
          String sort,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              allowableValues = {"MEMBERS", "SHARE", "FEED", "COPY"})
          String way,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String readers,
      Integer visit,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<CellView> cells,
      @Schema(allowableValues = {"FIRST", "CHANGE"}) String waits,
      EntryView entry) {}

  @Schema(name = "Sight")
  public record SightView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<DetailView> details,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<AudienceView> audiences) {}
}
