package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import mellowrota.core.work.Kind;
import mellowrota.server.platform.Input;
import org.jspecify.annotations.Nullable;
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
  private static final Set<String> NAMES =
      Set.of("what", "source", "kind", "strokes", "fields", "rows");

  /** How such rows are written in JSON. */
  @Schema(name = "FileRows")
  record Sent(
      String what,
      String source,
      @Nullable String kind,
      @Nullable String strokes,
      List<String> fields,
      List<SentRow> rows) {}

  /** One of them. */
  @Schema(name = "FileRow")
  record SentRow(int row, List<String> cells) {}

  /**
   * Reads them.
   *
   * @param known the fields there are
   * @param most how many rows are taken at once
   */
  static FileRows of(JsonNode body, Function<Field.What, List<Field>> known, int most) {
    Input input = Input.of(body, NAMES);
    Optional<Field.What> what = input.choice("what", Field.What.class);
    if (!input.has("what")) {
      input.fault("what", say("incoming.is-missing-one-of"));
    }
    String source = input.required("source", LONGEST_SOURCE);
    Optional<Kind> kind = input.choice("kind", Kind.class);
    Optional<Moment.Strokes> strokes = input.choice("strokes", Moment.Strokes.class);
    List<String> fields = fields(body, what.map(known).orElse(List.of()), input);
    List<Table.Row> rows = rows(body, most, input);
    input.check();
    return new FileRows(
        what.orElseThrow(), source, kind.orElse(Kind.TICKET), strokes, fields, rows);
  }

  private static List<String> fields(JsonNode body, List<Field> known, Input input) {
    List<String> found = new ArrayList<>();
    Set<String> keys = new HashSet<>(known.stream().map(Field::key).toList());
    if (!body.path("fields").isArray() || body.get("fields").size() > Table.MOST_COLUMNS) {
      input.fault("fields", say("incoming.must-be-a-list-of"));
      return found;
    }
    for (JsonNode one : body.get("fields")) {
      String field = one.isString() ? one.asString() : "?";
      String at = "fields/" + found.size();
      if (!field.isEmpty() && !keys.contains(field)) {
        input.fault(at, say("incoming.is-not-a-field"));
      } else if (!field.isEmpty() && found.contains(field)) {
        input.fault(at, say("incoming.is-listed-twice-two"));
      }
      found.add(field);
    }
    return found;
  }

  private static List<Table.Row> rows(JsonNode body, int most, Input input) {
    List<Table.Row> found = new ArrayList<>();
    if (!body.path("rows").isArray() || body.get("rows").size() > most) {
      input.fault("rows", say("incoming.must-be-a-list", most));
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
        input.fault("/rows/" + found.size(), say("incoming.needs-a-number-row"));
        return found;
      }
      found.add(new Table.Row(one.get("row").asInt(), texts));
    }
    return found;
  }
}
