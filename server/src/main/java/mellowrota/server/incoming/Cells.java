package mellowrota.server.incoming;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** The cells of one row by the fields their columns are, and the faults found in them. */
final class Cells {

  private final Map<String, String> byField;
  private final Map<String, Integer> columns;
  private final List<Verdict.Fault> faults = new ArrayList<>();

  private Cells(Map<String, String> byField, Map<String, Integer> columns) {
    this.byField = byField;
    this.columns = columns;
  }

  /**
   * Parts a row.
   *
   * @param fields what each column is, empty for one that is left out
   */
  static Cells of(List<String> fields, Table.Row row) {
    Map<String, String> byField = new HashMap<>();
    Map<String, Integer> columns = new HashMap<>();
    for (int i = 0; i < fields.size(); i++) {
      if (!fields.get(i).isEmpty()) {
        byField.put(fields.get(i), i < row.cells().size() ? row.cells().get(i).strip() : "");
        columns.put(fields.get(i), i);
      }
    }
    Cells cells = new Cells(byField, columns);
    if (row.cells().size() != fields.size()) {
      cells.fault(
          "",
          "has "
              + row.cells().size()
              + " cells where the header has "
              + fields.size()
              + "; a comma inside a cell wants quotation marks around the cell");
    }
    return cells;
  }

  /** What a field's cell says; empty where no column is it. */
  String text(String field) {
    return byField.getOrDefault(field, "");
  }

  boolean has(String field) {
    return byField.containsKey(field);
  }

  Set<String> fields() {
    return new TreeSet<>(byField.keySet());
  }

  Map<String, String> all() {
    return byField;
  }

  /** The fields whose cells say something else than they did. */
  Set<String> differing(Map<String, String> before) {
    Set<String> found = new TreeSet<>();
    byField.forEach(
        (field, text) -> {
          if (!text.equals(before.get(field))) {
            found.add(field);
          }
        });
    return found;
  }

  /** Notes a fault; a field that is no column's, or none, is of the whole row. */
  void fault(String field, String message) {
    Verdict.Fault fault = new Verdict.Fault(columns.get(field), message);
    if (!faults.contains(fault)) {
      faults.add(fault);
    }
  }

  /** Notes a fault of what stands in the cell, which it quotes. */
  void faultOf(String field, String said, String message) {
    String shown = said.length() > 60 ? said.substring(0, 60) + "…" : said;
    fault(field, "“" + shown + "” " + message);
  }

  List<Verdict.Fault> faults() {
    return faults;
  }

  Optional<Moment> moment(String field, Optional<Moment.Strokes> strokes) {
    if (text(field).isEmpty()) {
      return Optional.empty();
    }
    try {
      return Optional.of(Moment.read(text(field), strokes));
    } catch (Moment.Unreadable unreadable) {
      faultOf(field, text(field), unreadable.getMessage());
      return Optional.empty();
    }
  }

  <T> Optional<T> named(String field, Names<T> names) {
    return text(field).isEmpty() ? Optional.empty() : named(field, text(field), names);
  }

  <T> Optional<T> named(String field, String name, Names<T> names) {
    try {
      return Optional.of(names.find(name));
    } catch (Names.Unknown unknown) {
      faultOf(field, name, unknown.getMessage());
      return Optional.empty();
    }
  }
}
