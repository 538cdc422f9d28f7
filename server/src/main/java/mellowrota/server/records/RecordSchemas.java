package mellowrota.server.records;

import com.fasterxml.jackson.annotation.JsonProperty;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Map;
import mellowrota.core.work.Kind;
import mellowrota.core.work.Repeat;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.State;
import org.jspecify.annotations.Nullable;

/** What changes to records look like when they are sent, for the API's document. */
public final class RecordSchemas {

  private RecordSchemas() {}

  /** What a change to a record looks like; every field may be left out. */
  @Schema(name = "RecordChange")
  public record ChangeSchema(
      @Schema(description = "Only when made; TICKET unless said") @Nullable Kind kind,
      @Nullable String title,
      @Schema(nullable = true) @Nullable Long place,
      @Schema(nullable = true) @Nullable Long team,
      @Schema(nullable = true) @Nullable DueSchema due,
      @Schema(description = "Further dates of its own") @Nullable List<NamedDateSchema> dates,
      @Schema(description = "All of them; only a job has more than one")
          @Nullable List<VisitSchema> visits,
      @Nullable List<PersonSchema> people,
      @Schema(description = "By key, as GET /api/v1/details lists them")
          @Nullable Map<String, String> details,
      @JsonProperty("private") @Nullable Boolean isPrivate,
      @Nullable State state,
      @Nullable Boolean started,
      @Schema(description = "It cannot be done as it is; say why in a note") @Nullable Boolean cant,
      @Schema(description = "Goes under the notes, with who and when") @Nullable String note,
      @Nullable List<String> tags,
      @Schema(nullable = true, description = "A job with fewer people on a visit is tentative")
          @Nullable Integer leastHeadCount,
      @Schema(nullable = true, description = "How many people each visit wants")
          RecordView.@Nullable WantsView wants,
      @Schema(nullable = true, description = "The effort of each person on it")
          @Nullable Integer estimateMinutes,
      @Schema(description = "What the office decides beside the rules")
          @Nullable List<ExceptionSchema> exceptions,
      @Nullable String reason,
      @Schema(description = "Only when made: how often it comes again")
          @Nullable RepeatSchema repeat,
      @Schema(description = "Only when made: the system it comes from") @Nullable String source,
      @Schema(description = "Only when made: its id there; the same one is made once")
          @Nullable String sourceId) {}

  /** Either a local time, in the site's zone unless said, or a date. */
  @Schema(name = "DueChange")
  record DueSchema(@Nullable String at, @Nullable String zone, @Nullable String date) {}

  /** A further date: either a local time or a date. */
  @Schema(name = "NamedDateChange")
  record NamedDateSchema(
      String name, @Nullable String at, @Nullable String zone, @Nullable String date) {}

  /** A span in local times or in days, or neither; without a number it is a new visit. */
  @Schema(name = "VisitChange")
  record VisitSchema(
      @Nullable Integer no,
      @Nullable String start,
      @Nullable String end,
      @Schema(description = "The site's unless said") @Nullable String zone,
      @Nullable String first,
      @Schema(description = "The last day, included") @Nullable String last,
      @Schema(description = "Margin before, in minutes") @Nullable Integer before,
      @Schema(description = "Margin after, in minutes") @Nullable Integer after) {}

  /** Nowhere, never here or also here, with a reason. */
  @Schema(name = "ExceptionChange")
  record ExceptionSchema(
      Ruling.Sort sort,
      @Nullable Long calendar,
      @Schema(description = "One visit; all unless said") @Nullable Integer visit,
      String reason) {}

  /** Each occurrence is a record of its own. */
  @Schema(name = "Repeat")
  record RepeatSchema(
      @Schema(description = "1 unless said") @Nullable Integer every,
      Repeat.Unit unit,
      @Schema(description = "How many in all, at most 200") int times) {}

  /** Several records to make or change as one act. */
  @Schema(name = "SeveralChanges")
  record SeveralSchema(List<SeveralItemSchema> items) {}

  /** Either a record with its ETag and what to change, or one to make, perhaps like another. */
  @Schema(name = "SeveralItem")
  record SeveralItemSchema(
      @Nullable Long record,
      @Nullable String ifMatch,
      @Nullable ChangeSchema change,
      @Nullable Long like,
      @Nullable ChangeSchema make) {}

  /** Either a person or a team, in a role. */
  @Schema(name = "PersonChange")
  record PersonSchema(
      int role,
      @Nullable Long person,
      @Nullable Long team,
      @Schema(description = "On which visit; on all of them unless said") @Nullable Integer visit,
      @Schema(description = "House-local time of hand-over; now unless said")
          @Nullable String given) {}
}
