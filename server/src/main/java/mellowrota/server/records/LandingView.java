package mellowrota.server.records;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.entry.Family;
import mellowrota.core.rule.Reason;

/** Where a record lands, and why not elsewhere, as far as the asker may know. */
public record LandingView(
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<Lands> lands,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<Nowhere> nowhere) {

  /**
   * One calendar it stands on.
   *
   * @param visit which visit; absent where the record has only one
   * @param shape given → due, due mark or the span
   * @param waits FIRST before the first yes, CHANGE where readers keep what they had until the next
   * @param times absent where they are not for the asker
   * @param asked details of the kind that are asked for and allowed, of so many
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record Lands(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long calendar,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, implementation = Calendar.Sort.class)
          String sort,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, implementation = Family.class)
          String family,
      Integer visit,
      @Schema(allowableValues = {"FIRST", "CHANGE"}) String waits,
      TimesView times,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean late,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean unhanded,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int readers,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int asked,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int ofDetails,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<DetailShown> details,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<Why> why) {}

  /** When an entry stands there: local times in a zone, or days, the last included. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record TimesView(String start, String end, String zone, String first, String last) {}

  /**
   * Whether one detail is shown there.
   *
   * @param because the first reason that holds, in words; absent when shown
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record DetailShown(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String label,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean shown,
      String because) {}

  /** A reason as a code and what it speaks of. */
  public record Why(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, implementation = Reason.Code.class)
          String code,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String subject) {}

  /** A calendar it does not stand on, with the first reason that holds. */
  public record Nowhere(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long calendar,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) Why why) {}
}
