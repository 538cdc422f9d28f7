package mellowrota.server.records;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;

/** A record as one person may see it. What they may not see is not there. */
@JsonInclude(JsonInclude.Include.NON_NULL)
@Schema(description = "A record as the asker may see it")
public record RecordView(
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) long id,
    String ref,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String kind,
    String state,
    Boolean started,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) boolean isPrivate,
    String title,
    PlaceView place,
    NamedView team,
    DueView due,
    List<PersonOnIt> people,
    List<String> tags,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<DetailView> details,
    @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> mayChange) {

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

  /** Who is what on it. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record PersonOnIt(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int role,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String roleName,
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
