package mellowrota.server.records;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.entry.Family;
import mellowrota.core.rule.Reason;
import org.jspecify.annotations.Nullable;

/** Where a record lands, and why not elsewhere, as far as the asker may know. */
public record LandingView(List<Lands> lands, List<Nowhere> nowhere) {

  /**
   * One calendar it stands on.
   *
   * @param visit which visit; absent where the record has only one
   * @param shape given → due, due mark or the span
   * @param waits FIRST before the first yes, CHANGE where readers keep what they had until the next
   * @param times absent where they are not for the asker
   * @param asked details of the kind that are asked for and allowed, of so many
   */
  public record Lands(
      long calendar,
      String name,
      Calendar.Sort sort,
      Family family,
      @Nullable Integer visit,
      @Schema(allowableValues = {"FIRST", "CHANGE"}) @Nullable String waits,
      @Nullable TimesView times,
      boolean late,
      boolean unhanded,
      int readers,
      int asked,
      int ofDetails,
      List<DetailShown> details,
      List<Why> why) {}

  /** When an entry stands there: local times in a zone, or days, the last included. */
  public record TimesView(
      @Nullable String start,
      @Nullable String end,
      @Nullable String zone,
      @Nullable String first,
      @Nullable String last) {}

  /**
   * Whether one detail is shown there.
   *
   * @param because the first reason that holds, in words; absent when shown
   */
  public record DetailShown(String label, boolean shown, @Nullable String because) {}

  /** A reason as a code and what it speaks of. */
  public record Why(Reason.Code code, String subject) {}

  /** A calendar it does not stand on, with the first reason that holds. */
  public record Nowhere(long calendar, String name, Why why) {}
}
