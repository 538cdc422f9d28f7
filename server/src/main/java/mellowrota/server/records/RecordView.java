package mellowrota.server.records;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import mellowrota.core.work.Kind;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.State;

/** A record as one person may see it. What they may not see is not there. */
@JsonInclude(JsonInclude.Include.NON_NULL)
@Schema(description = "A record as the asker may see it")
public record RecordView(
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long id,
    String ref,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED, implementation = Kind.class) String kind,
    @Schema(implementation = State.class) String state,
    Boolean started,
    Boolean cant,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean isPrivate,
    String title,
    PlaceView place,
    NamedView team,
    DueView due,
    List<NamedDateView> dates,
    List<VisitView> visits,
    List<PersonOnIt> people,
    List<String> tags,
    Integer leastHeadCount,
    WantsView wants,
    @Schema(description = "The effort of each person on it") Long estimateMinutes,
    List<ExceptionView> exceptions,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<DetailView> details,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> mayChange,
    List<StandsInsideView> warnings) {

  /** A value that stands word for word inside a detail that more people read (SIGHT 12). */
  @Schema(name = "StandsInside")
  public record StandsInsideView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String detail,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String inside,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String insideFor) {}

  /** How many people each visit wants, and of which skills. */
  @Schema(name = "Wants")
  public record WantsView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int people,
      @Schema(
              requiredMode = Schema.RequiredMode.REQUIRED,
              description = "That some of them have to have, named once for each who has to")
          List<String> skills) {}

  /** A place by name and code. */
  public record PlaceView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long id,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String code,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name) {}

  /** Anything with a name. */
  public record NamedView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long id,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name) {}

  /** A due time in a zone, or a due date. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record DueView(String at, String zone, Instant instant, String date) {}

  /** A further date of its own. */
  public record NamedDateView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) DueView when) {}

  /**
   * One span: local times in a zone, or days, the last included; neither while it has none.
   *
   * @param before minutes of margin, where the asker may see them
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record VisitView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int no,
      String start,
      String end,
      String zone,
      Instant starts,
      Instant ends,
      String first,
      String last,
      Long before,
      Long after,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean tentative) {}

  /** What the office decided for this record beside the rules. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record ExceptionView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED, implementation = Ruling.Sort.class)
          String sort,
      Long calendar,
      String calendarName,
      Integer visit,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String reason) {}

  /**
   * Who is what on it.
   *
   * @param visit which visit; absent where the record has only one
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record PersonOnIt(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int role,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String roleName,
      Integer visit,
      Long person,
      Long team,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String name,
      Instant given) {}

  /**
   * A typed detail.
   *
   * @param value absent where it is kept back from the asker, who may then be told so
   * @param forWhom in words
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record DetailView(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String key,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String label,
      String value,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String forWhom) {}
}
