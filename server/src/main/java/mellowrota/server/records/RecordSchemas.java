package mellowrota.server.records;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Map;

/** What changes to records look like when they are sent, for the API's document. */
public final class RecordSchemas {

  private RecordSchemas() {}

  /** What a change to a record looks like; every field may be left out. */
  @Schema(name = "RecordChange")
  public record ChangeSchema(
      @Schema(description = "Only when made: JOB, TICKET, SHIFT or DEADLINE; TICKET unless said")
          String kind,
      String title,
      @Schema(nullable = true) Long place,
      @Schema(nullable = true) Long team,
      @Schema(nullable = true) DueSchema due,
      @Schema(description = "Further dates of its own") List<NamedDateSchema> dates,
      @Schema(description = "All of them; only a job has more than one") List<VisitSchema> visits,
      List<PersonSchema> people,
      @Schema(description = "By key, as GET /api/v1/details lists them")
          Map<String, String> details,
      @Schema(name = "private") Boolean isPrivate,
      String state,
      Boolean started,
      @Schema(description = "It cannot be done as it is; say why in a note") Boolean cant,
      @Schema(description = "Goes under the notes, with who and when") String note,
      List<String> tags,
      @Schema(nullable = true, description = "A job with fewer people on a visit is tentative")
          Integer leastHeadCount,
      @Schema(nullable = true, description = "How many people each visit wants")
          RecordView.WantsView wants,
      @Schema(nullable = true, description = "The effort of each person on it")
          Integer estimateMinutes,
      @Schema(description = "What the office decides beside the rules")
          List<ExceptionSchema> exceptions,
      String reason,
      @Schema(description = "Only when made: how often it comes again") RepeatSchema repeat,
      @Schema(description = "Only when made: the system it comes from") String source,
      @Schema(description = "Only when made: its id there; the same one is made once")
          String sourceId) {}

  /** Either a local time, in the site's zone unless said, or a date. */
  @Schema(name = "DueChange")
  record DueSchema(String at, String zone, String date) {}

  /** A further date: either a local time or a date. */
  @Schema(name = "NamedDateChange")
  record NamedDateSchema(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      String at,
      String zone,
      String date) {}

  /** A span in local times or in days, or neither; without a number it is a new visit. */
  @Schema(name = "VisitChange")
  record VisitSchema(
      Integer no,
      String start,
      String end,
      @Schema(description = "The site's unless said") String zone,
      String first,
      @Schema(description = "The last day, included") String last,
      @Schema(description = "Margin before, in minutes") Integer before,
      @Schema(description = "Margin after, in minutes") Integer after) {}

  /** NOT_SENT (nowhere), NEVER_HERE or ALSO_HERE, with a reason. */
  @Schema(name = "ExceptionChange")
  record ExceptionSchema(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String sort,
      Long calendar,
      @Schema(description = "One visit; all unless said") Integer visit,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String reason) {}

  /** Each occurrence is a record of its own. */
  @Schema(name = "Repeat")
  record RepeatSchema(
      @Schema(description = "1 unless said") Integer every,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "DAYS, WEEKS, MONTHS or YEARS")
          String unit,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "How many in all, at most 200")
          int times) {}

  /** Several records to make or change as one act. */
  @Schema(name = "SeveralChanges")
  record SeveralSchema(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<SeveralItemSchema> items) {}

  /** Either a record with its ETag and what to change, or one to make, perhaps like another. */
  @Schema(name = "SeveralItem")
  record SeveralItemSchema(
      Long record, String ifMatch, ChangeSchema change, Long like, ChangeSchema make) {}

  /** Either a person or a team, in a role. */
  @Schema(name = "PersonChange")
  record PersonSchema(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int role,
      Long person,
      Long team,
      @Schema(description = "On which visit; on all of them unless said") Integer visit,
      @Schema(description = "House-local time of hand-over; now unless said") String given) {}
}
