package mellowrota.server.records;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import mellowrota.core.change.RecordField;
import mellowrota.core.work.Kind;
import mellowrota.core.work.Place;
import mellowrota.core.work.Position;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.State;
import org.jspecify.annotations.Nullable;

/** A record as one person may see it. What they may not see is not there. */
@Schema(description = "A record as the caller may see it")
public record RecordView(
    long id,
    @Nullable String ref,
    Kind kind,
    @Nullable State state,
    @Nullable Boolean started,
    @Nullable Boolean cant,
    boolean isPrivate,
    @Schema(description = "It takes nobody’s time") @Nullable Boolean free,
    @Nullable String title,
    @Nullable PlaceView place,
    @Schema(description = "Further places or things it uses, such as a vehicle")
        @Nullable List<PlaceView> uses,
    @Nullable NamedView team,
    @Nullable DueView due,
    @Nullable List<NamedDateView> dates,
    @Nullable List<VisitView> visits,
    @Nullable List<PersonOnIt> people,
    @Nullable List<String> tags,
    @Nullable Long leastHeadCount,
    @Nullable WantsView wants,
    @Schema(description = "Estimated effort per person") @Nullable Long estimateMinutes,
    @Nullable List<ExceptionView> exceptions,
    List<DetailView> details,
    List<String> mayChange,
    @Nullable List<StandsInsideView> warnings) {

  /** What it says of a number, as far as it is one; null for nothing. */
  public @Nullable Long number(RecordField field) {
    return switch (field) {
      case HEAD_COUNT -> leastHeadCount;
      case ESTIMATE -> estimateMinutes;
      default -> null;
    };
  }

  /** A value that stands word for word inside a detail that more people read (SIGHT 12). */
  @Schema(name = "StandsInside")
  public record StandsInsideView(String detail, String inside, String insideFor) {}

  /** How many people each visit wants, and of which skills. */
  @Schema(name = "Wants")
  public record WantsView(
      int people,
      @Schema(description = "Needed by some of them, named once for each person")
          List<String> skills) {}

  /** A place by name and code. */
  public record PlaceView(
      long id,
      String code,
      String name,
      @Nullable String address,
      @Schema(description = "Latitude (WGS 84)") @Nullable Double latitude,
      @Schema(description = "Longitude (WGS 84)") @Nullable Double longitude) {

    static PlaceView of(Place place) {
      return new PlaceView(
          place.id().value(),
          place.code(),
          place.name(),
          place.address().orElse(null),
          place.position().map(Position::latitude).orElse(null),
          place.position().map(Position::longitude).orElse(null));
    }
  }

  /** Anything with a name. */
  public record NamedView(long id, String name) {}

  /**
   * A due time in a zone, or a due date.
   *
   * @param overdueFrom from when on open work is overdue
   */
  public record DueView(
      @Nullable String at,
      @Nullable String zone,
      @Nullable Instant instant,
      @Nullable String date,
      Instant overdueFrom) {}

  /** A further date of its own. */
  public record NamedDateView(String name, DueView when) {}

  /**
   * One span: local times in a zone, or days, the last included; neither while it has none.
   *
   * @param before minutes of margin, where the asker may see them
   */
  public record VisitView(
      int no,
      @Nullable String start,
      @Nullable String end,
      @Nullable String zone,
      @Nullable Instant starts,
      @Nullable Instant ends,
      @Nullable String first,
      @Nullable String last,
      @Schema(description = "Margin it states itself, in minutes") @Nullable Long before,
      @Schema(description = "Likewise") @Nullable Long after,
      @Schema(
              description =
                  "Margin it has, in minutes: its own, its place’s, its kind’s, its lead’s or the organisation’s")
          @Nullable Long marginBefore,
      @Schema(description = "Likewise") @Nullable Long marginAfter,
      boolean tentative) {}

  /** What the office decided for this record beside the rules. */
  public record ExceptionView(
      Ruling.Sort sort,
      @Nullable Long calendar,
      @Nullable String calendarName,
      @Nullable Integer visit,
      String reason) {}

  /**
   * Who is what on it.
   *
   * @param visit which visit; absent where the record has only one
   */
  public record PersonOnIt(
      int role,
      String roleName,
      @Nullable Integer visit,
      @Nullable Long person,
      @Nullable Long team,
      String name,
      @Nullable Instant given) {}

  /**
   * A typed detail.
   *
   * @param value absent where it is kept back from the asker, who may then be told so
   * @param forWhom in words
   */
  public record DetailView(String key, String label, @Nullable String value, String forWhom) {}
}
