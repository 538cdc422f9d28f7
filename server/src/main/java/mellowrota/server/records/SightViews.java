package mellowrota.server.records;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import mellowrota.core.calendar.Calendar;
import org.jspecify.annotations.Nullable;

/** Who sees what of a record, as it is told. */
public final class SightViews {

  private SightViews() {}

  /**
   * A detail of the record.
   *
   * @param value as it stands; absent where the asker may not see it, filled or not
   */
  @Schema(name = "SightDetail")
  public record DetailView(String key, String label, String forWhom, @Nullable String value) {}

  /**
   * Whether an audience is shown a detail.
   *
   * @param status SHOWN, NOT_ASKED, NOT_FOR_A_READER, DOES_NOT_APPLY or EMPTY
   * @param reader whom it is not for
   */
  @Schema(name = "SightCell")
  public record CellView(String status, @Nullable String reader) {}

  /** An entry as its audience gets it; what the asker may not see of it is covered. */
  @Schema(name = "SightEntry")
  public record EntryView(
      String title,
      String place,
      String text,
      LandingView.TimesView times,
      boolean busy,
      List<String> invited,
      List<String> reminders) {}

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
  public record AudienceView(
      long calendar,
      String name,
      Calendar.Sort sort,
      @Schema(allowableValues = {"MEMBERS", "SHARE", "FEED", "COPY"}) String way,
      String readers,
      @Nullable Integer visit,
      List<CellView> cells,
      @Schema(allowableValues = {"FIRST", "CHANGE"}) @Nullable String waits,
      @Nullable EntryView entry) {}

  @Schema(name = "Sight")
  public record SightView(List<DetailView> details, List<AudienceView> audiences) {}
}
