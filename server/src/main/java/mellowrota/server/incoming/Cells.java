package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The cells of one row by the fields their columns are, and the faults found in them. */
final class Cells {

  /** Control characters but line ends and tabs, and halves of characters. */
  private static final Pattern CANNOT_BE_KEPT = Pattern.compile("[\\p{Cc}\\p{Cs}&&[^\\n\\r\\t]]");

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
    Cells cells = new Cells(new HashMap<>(), new HashMap<>());
    for (int i = 0; i < fields.size(); i++) {
      if (!fields.get(i).isEmpty()) {
        cells.columns.put(fields.get(i), i);
        cells.keep(fields.get(i), i < row.cells().size() ? row.cells().get(i).strip() : "");
      }
    }
    if (row.cells().size() != fields.size()) {
      cells.fault("", say("incoming.has-cells-but-the", row.cells().size(), fields.size()));
    }
    return cells;
  }

  private void keep(String field, String text) {
    byField.put(field, text);
    Matcher lost = CANNOT_BE_KEPT.matcher(text);
    if (lost.find()) {
      fault(field, say("common.contains-a-character-that", (lost.start() + 1)));
      byField.put(field, lost.replaceAll("?"));
    }
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
    note(field, message, null);
  }

  /** Notes a fault of what stands in the cell, which it quotes. */
  void faultOf(String field, String said, String message) {
    note(field, quoted(said) + message, null);
  }

  private static String quoted(String said) {
    return "“" + (said.length() > 60 ? said.substring(0, 60) + "…" : said) + "” ";
  }

  private void note(String field, String message, String near) {
    Verdict.Fault fault = new Verdict.Fault(columns.get(field), message, near);
    if (!faults.contains(fault)) {
      faults.add(fault);
    }
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
      // Only a cell that is the name alone can be exchanged for it.
      String near = name.equals(text(field)) ? unknown.near().orElse(null) : null;
      note(field, quoted(name) + unknown.getMessage(), near);
      return Optional.empty();
    }
  }
}
