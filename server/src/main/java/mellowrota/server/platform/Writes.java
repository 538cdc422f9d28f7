package mellowrota.server.platform;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.jdbc.core.JdbcTemplate;

/** Statements that go to the database together, in one round trip. */
public final class Writes {

  /** Statements of few shapes stay prepared; a message holds 65 535 values. */
  private static final int MOST_ROWS = 200;

  private final List<String> statements = new ArrayList<>();
  private final List<Object> values = new ArrayList<>();

  /** Adds one statement, a mark for each value. */
  public void add(String sql, Object... itsValues) {
    statements.add(sql);
    values.addAll(Arrays.asList(itsValues));
  }

  /**
   * Adds one insert of many rows.
   *
   * @param before what stands before the rows' values, and {@code after} what follows them
   * @param marks of one row, in brackets
   */
  public void addRows(String before, String marks, List<Object[]> rows, String after) {
    for (int from = 0; from < rows.size(); from += MOST_ROWS) {
      List<Object[]> some = rows.subList(from, Math.min(rows.size(), from + MOST_ROWS));
      statements.add(before + " values " + marks + (", " + marks).repeat(some.size() - 1) + after);
      some.forEach(row -> values.addAll(Arrays.asList(row)));
    }
  }

  /**
   * Adds one statement over many rows, sent as a list a column: however many they are, it is the
   * same statement to the database.
   *
   * @param sql with {@code %s} where the rows stand, as a table of their columns
   * @param types of the columns, as the database calls them: bigint, int, boolean, text,
   *     timestamptz
   */
  public void addTable(String sql, List<String> types, List<Object[]> rows) {
    List<String> marks = new ArrayList<>();
    for (int i = 0; i < types.size(); i++) {
      int column = i;
      String type = types.get(i);
      Stream<Object> cells = rows.stream().map(row -> row[column]);
      marks.add(type.equals("timestamptz") ? "?::text[]::timestamptz[]" : "?::" + type + "[]");
      values.add(
          switch (type) {
            case "bigint" -> cells.toArray(Long[]::new);
            case "int" -> cells.toArray(Integer[]::new);
            case "boolean" -> cells.toArray(Boolean[]::new);
            default -> cells.map(String::valueOf).toArray(String[]::new);
          });
    }
    statements.add(sql.formatted("unnest(" + String.join(", ", marks) + ")"));
  }

  /** Sends what was added, once; nothing where nothing was. */
  public void send(JdbcTemplate template) {
    if (statements.isEmpty()) {
      return;
    }
    String all = String.join(";\n", statements);
    Object[] itsValues = values.toArray();
    statements.clear();
    values.clear();
    template.update(all, itsValues);
  }
}
