package mellowrota.server.incoming;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.work.Kind;
import mellowrota.server.platform.Problem;
import tools.jackson.databind.JsonNode;

/**
 * Rows of a file as they are sent to be looked at or taken.
 *
 * @param what RECORDS, PEOPLE or PLACES
 * @param source where they come from; rows are known again by this and their id there
 * @param kind what records of rows without a kind become
 * @param strokes how dates with strokes are meant, DAY_FIRST or MONTH_FIRST
 * @param fields what each column is; empty for a column that is left out
 */
record FileRows(
    Field.What what,
    String source,
    Kind kind,
    Optional<Moment.Strokes> strokes,
    List<String> fields,
    List<Table.Row> rows) {

  private static final int LONGEST_SOURCE = 60;

  /** How such rows are written in JSON. */
  @Schema(name = "FileRows")
  record Sent(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String what,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) String source,
      String kind,
      String strokes,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> fields,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<SentRow> rows) {}

  /** One of them. */
  @Schema(name = "FileRow")
  record SentRow(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) int row,
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<String> cells) {}

  /**
   * Reads them.
   *
   * @param known the fields there are
   * @param most how many rows are taken at once
   */
  static FileRows of(
      JsonNode body, java.util.function.Function<Field.What, List<Field>> known, int most) {
    List<Problem.Fault> faults = new ArrayList<>();
    Field.What what = choice(body, "what", Field.What.class, faults).orElse(Field.What.RECORDS);
    if (body.path("what").isMissingNode()) {
      faults.add(new Problem.Fault("/what", "is missing; RECORDS, PEOPLE or PLACES"));
    }
    String source = body.path("source").isString() ? body.get("source").asString().strip() : "";
    if (source.isEmpty() || source.length() > LONGEST_SOURCE || !plain(source)) {
      faults.add(
          new Problem.Fault(
              "/source", "is no short name of where the file comes from, such as \"tickets\""));
    }
    Optional<Kind> kind = choice(body, "kind", Kind.class, faults);
    Optional<Moment.Strokes> strokes = choice(body, "strokes", Moment.Strokes.class, faults);
    List<String> fields = fields(body, known.apply(what), faults);
    List<Table.Row> rows = rows(body, most, faults);
    if (!faults.isEmpty()) {
      throw Problem.faults(faults);
    }
    return new FileRows(what, source, kind.orElse(Kind.TICKET), strokes, fields, rows);
  }

  private static <E extends Enum<E>> Optional<E> choice(
      JsonNode body, String name, Class<E> type, List<Problem.Fault> faults) {
    JsonNode node = body.path(name);
    if (node.isMissingNode() || node.isNull()) {
      return Optional.empty();
    }
    for (E one : type.getEnumConstants()) {
      if (node.isString() && one.name().equals(node.asString())) {
        return Optional.of(one);
      }
    }
    String all =
        String.join(", ", List.of(type.getEnumConstants()).stream().map(Enum::name).toList());
    faults.add(new Problem.Fault("/" + name, "is none of " + all));
    return Optional.empty();
  }

  private static List<String> fields(JsonNode body, List<Field> known, List<Problem.Fault> faults) {
    List<String> found = new ArrayList<>();
    Set<String> keys = new HashSet<>(known.stream().map(Field::key).toList());
    if (!body.path("fields").isArray() || body.get("fields").size() > Table.MOST_COLUMNS) {
      faults.add(new Problem.Fault("/fields", "is no list of at most 100 fields"));
      return found;
    }
    for (JsonNode one : body.get("fields")) {
      String field = one.isString() ? one.asString() : "?";
      String at = "/fields/" + found.size();
      if (!field.isEmpty() && !keys.contains(field)) {
        faults.add(new Problem.Fault(at, "is no field; POST /api/v1/files/read lists them"));
      } else if (!field.isEmpty() && found.contains(field)) {
        faults.add(new Problem.Fault(at, "stands twice; two columns cannot be the same"));
      }
      found.add(field);
    }
    return found;
  }

  private static List<Table.Row> rows(JsonNode body, int most, List<Problem.Fault> faults) {
    List<Table.Row> found = new ArrayList<>();
    if (!body.path("rows").isArray() || body.get("rows").size() > most) {
      faults.add(new Problem.Fault("/rows", "is no list of at most " + most + " rows"));
      return found;
    }
    for (JsonNode one : body.get("rows")) {
      JsonNode cells = one.path("cells");
      boolean good = one.path("row").canConvertToInt() && cells.isArray();
      List<String> texts = new ArrayList<>();
      if (good) {
        for (JsonNode cell : cells) {
          good &= cell.isString() && cell.asString().length() <= Table.LONGEST_CELL;
          texts.add(cell.asString(""));
        }
      }
      if (!good) {
        faults.add(
            new Problem.Fault(
                "/rows/" + found.size(), "has no number \"row\" or no texts \"cells\""));
        return found;
      }
      found.add(new Table.Row(one.get("row").asInt(), texts));
    }
    return found;
  }

  private static boolean plain(String text) {
    return text.chars().noneMatch(Character::isISOControl);
  }
}
