package mellowrota.core.sight;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mellowrota.core.work.DetailKey;

/** Reads the wording language; collects every fault with its position. */
final class PatternParser {

  /** Names that are computed from a detail rather than being one. */
  static final Map<String, DetailKey> COMPUTED =
      Map.of(
          "lead", DetailKey.PEOPLE,
          "others", DetailKey.PEOPLE,
          "start", DetailKey.TIMES,
          "end", DetailKey.TIMES,
          "given", DetailKey.TIMES,
          "due", DetailKey.TIMES,
          "place address", DetailKey.PLACE);

  private static final String FORMAT_LETTERS = "yMLdEHhmsa";

  private final String text;
  private final Set<DetailKey> known;
  private final List<Pattern.Fault> faults = new ArrayList<>();
  private final List<Pattern.Line> lines = new ArrayList<>();
  private List<Pattern.Piece> line = new ArrayList<>();
  private List<Pattern.Piece> group;
  private int groupStart;
  private final StringBuilder words = new StringBuilder();

  PatternParser(String text, Set<DetailKey> known) {
    this.text = text;
    this.known = known;
  }

  Pattern.Parsed parse() {
    int at = 0;
    while (at < text.length()) {
      at = step(at);
    }
    if (group != null) {
      faults.add(new Pattern.Fault(groupStart, "[ is not closed; add a ] after the last detail"));
    }
    endLine();
    return faults.isEmpty()
        ? new Pattern.Parsed(Optional.of(Pattern.built(text, List.copyOf(lines))), List.of())
        : new Pattern.Parsed(Optional.empty(), List.copyOf(faults));
  }

  private int step(int at) {
    char c = text.charAt(at);
    switch (c) {
      case '\\' -> {
        return escape(at);
      }
      case '{' -> {
        return detail(at);
      }
      case '}' ->
          faults.add(
              new Pattern.Fault(at, "} without a { before it; write \\} for the character itself"));
      case '[' -> openGroup(at);
      case ']' -> closeGroup(at);
      case '\n' -> newLine(at);
      default -> words.append(c);
    }
    return at + 1;
  }

  private int escape(int at) {
    if (at + 1 < text.length() && "{}[]\\".indexOf(text.charAt(at + 1)) >= 0) {
      words.append(text.charAt(at + 1));
      return at + 2;
    }
    words.append('\\');
    return at + 1;
  }

  private void openGroup(int at) {
    if (group != null) {
      faults.add(new Pattern.Fault(at, "[ inside [ ]; a group cannot contain another group"));
      return;
    }
    flush();
    group = new ArrayList<>();
    groupStart = at;
  }

  private void closeGroup(int at) {
    if (group == null) {
      faults.add(
          new Pattern.Fault(at, "] without a [ before it; write \\] for the character itself"));
      return;
    }
    flush();
    line.add(new Pattern.Group(List.copyOf(group)));
    group = null;
  }

  private void newLine(int at) {
    if (group != null) {
      faults.add(new Pattern.Fault(at, "a line ends inside [ ]; close the group on its own line"));
      group = null;
    }
    endLine();
  }

  private void endLine() {
    flush();
    lines.add(Pattern.Line.of(line));
    line = new ArrayList<>();
  }

  private void flush() {
    if (words.length() > 0) {
      (group == null ? line : group).add(Pattern.Words.of(words.toString()));
      words.setLength(0);
    }
  }

  private int detail(int at) {
    int close = text.indexOf('}', at);
    int nextLine = text.indexOf('\n', at);
    if (close < 0 || nextLine >= 0 && nextLine < close) {
      faults.add(new Pattern.Fault(at, "{ is not closed; add a } after the name of the detail"));
      return at + 1;
    }
    flush();
    String inside = text.substring(at + 1, close);
    int colon = inside.indexOf(':');
    String name = (colon < 0 ? inside : inside.substring(0, colon)).strip();
    DetailKey key = COMPUTED.getOrDefault(name, new DetailKey(name));
    if (!COMPUTED.containsKey(name) && !known.contains(key) || name.equals("times")) {
      faults.add(new Pattern.Fault(at + 1, "\"" + name + "\" is not a detail; one of " + names()));
      return close + 1;
    }
    Optional<DateTimeFormatter> format = Optional.empty();
    if (colon >= 0) {
      format = format(inside.substring(colon + 1).strip(), key, at + 1 + colon + 1);
    }
    (group == null ? line : group).add(new Pattern.Asked(name, key, format));
    return close + 1;
  }

  private Optional<DateTimeFormatter> format(String letters, DetailKey key, int at) {
    if (!key.equals(DetailKey.TIMES)) {
      faults.add(new Pattern.Fault(at, "only start, end, given and due can have a format"));
      return Optional.empty();
    }
    for (int i = 0; i < letters.length(); i++) {
      char c = letters.charAt(i);
      if (Character.isLetter(c) && FORMAT_LETTERS.indexOf(c) < 0) {
        String way = "\"" + c + "\" is not a format letter; one of y M L d E H h m s a";
        faults.add(new Pattern.Fault(at + i, way));
        return Optional.empty();
      }
    }
    try {
      return Optional.of(Pattern.formatter(letters));
    } catch (IllegalArgumentException fault) {
      faults.add(
          new Pattern.Fault(at, "\"" + letters + "\" is not a format: " + fault.getMessage()));
      return Optional.empty();
    }
  }

  private String names() {
    Set<String> all = new TreeSet<>(COMPUTED.keySet());
    known.forEach(key -> all.add(key.name()));
    all.remove("times");
    return String.join(", ", all);
  }
}
