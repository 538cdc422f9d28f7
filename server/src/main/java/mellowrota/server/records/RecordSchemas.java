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
      @Schema(description = "Only when created; default: TICKET") @Nullable Kind kind,
      @Nullable String title,
      @Schema(nullable = true) @Nullable Long place,
      @Schema(description = "Further places or things it uses, such as a vehicle")
          @Nullable List<Long> uses,
      @Schema(nullable = true) @Nullable Long team,
      @Schema(nullable = true) @Nullable DueSchema due,
      @Schema(description = "Other dates of the record") @Nullable List<NamedDateSchema> dates,
      @Schema(description = "All of them; only a job can have more than one")
          @Nullable List<VisitSchema> visits,
      @Nullable List<PersonSchema> people,
      @Schema(description = "By key, as GET /api/v1/details lists them")
          @Nullable Map<String, String> details,
      @JsonProperty("private") @Nullable Boolean isPrivate,
      @Schema(description = "It takes nobody’s time and stands on calendars as free")
          @Nullable Boolean free,
      @Nullable State state,
      @Nullable Boolean started,
      @Schema(description = "Not possible as it is; give the reason in a note")
          @Nullable Boolean cant,
      @Schema(description = "Added to the notes with name and time") @Nullable String note,
      @Nullable List<String> tags,
      @Schema(nullable = true, description = "A job with fewer people on a visit is tentative")
          @Nullable Integer leastHeadCount,
      @Schema(nullable = true, description = "How many people each visit needs")
          RecordView.@Nullable WantsView wants,
      @Schema(nullable = true, description = "Estimated effort per person")
          @Nullable Integer estimateMinutes,
      @Schema(description = "Exceptions to the rules, set by the office")
          @Nullable List<ExceptionSchema> exceptions,
      @Nullable String reason,
      @Schema(description = "Only when created: how it repeats") @Nullable RepeatSchema repeat,
      @Schema(description = "Only when created: the system it comes from") @Nullable String source,
      @Schema(description = "Only when created: its id there; the same id is created once")
          @Nullable String sourceId) {}

  /** Either a local time, in the site's zone unless said, or a date. */
  @Schema(name = "DueChange")
  public record DueSchema(@Nullable String at, @Nullable String zone, @Nullable String date) {}

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
      @Schema(description = "Default: that of the place") @Nullable String zone,
      @Nullable String first,
      @Schema(description = "Last day, inclusive") @Nullable String last,
      @Schema(
              nullable = true,
              description = "Margin before, in minutes; null: as it is set for such work")
          @Nullable Integer before,
      @Schema(nullable = true, description = "Likewise after") @Nullable Integer after) {}

  /** Nowhere, never here or also here, with a reason. */
  @Schema(name = "ExceptionChange")
  record ExceptionSchema(
      Ruling.Sort sort,
      @Nullable Long calendar,
      @Schema(description = "One visit; default: all") @Nullable Integer visit,
      String reason) {}

  /** Each occurrence is a record of its own. */
  @Schema(name = "Repeat")
  record RepeatSchema(
      @Schema(description = "Default: 1") @Nullable Integer every,
      Repeat.Unit unit,
      @Schema(description = "Number of times, at most 200") int times) {}

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
      @Schema(description = "On which visit; default: all") @Nullable Integer visit,
      @Schema(description = "Local time of hand-over; default: now") @Nullable String given) {}
}
