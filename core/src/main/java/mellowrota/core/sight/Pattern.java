package mellowrota.core.sight;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.work.DetailKey;

/**
 * A parsed pattern of the wording language: text, {@code {details}} and {@code [groups]} that
 * disappear when a detail in them is missing or may not be shown. No nesting.
 */
public final class Pattern {

  static final String SEPARATORS = "·•-–—,;:/|";

  /** One thing in a line. */
  sealed interface Piece {}

  /** Words, apart from the white space and separators at their ends. */
  record Words(
      String before, String core, String after, boolean separatorBefore, boolean separatorAfter)
      implements Piece {

    static Words of(String text) {
      int first = 0;
      while (first < text.length() && isLoose(text.charAt(first))) {
        first++;
      }
      int last = text.length();
      while (last > first && isLoose(text.charAt(last - 1))) {
        last--;
      }
      String before = text.substring(0, first);
      String after = text.substring(last);
      return new Words(
          before, text.substring(first, last), after, separates(before), separates(after));
    }

    private static boolean isLoose(char c) {
      return Character.isWhitespace(c) || SEPARATORS.indexOf(c) >= 0;
    }

    private static boolean separates(String run) {
      return run.chars().anyMatch(c -> SEPARATORS.indexOf(c) >= 0);
    }

    boolean isBlank() {
      return core.isEmpty() && before.isBlank() && after.isBlank();
    }
  }

  /** A detail by the name it is called by, with a format where it is a time. */
  record Asked(String name, DetailKey detail, Optional<DateTimeFormatter> format)
      implements Piece {}

  record Group(List<Piece> pieces) implements Piece {}

  record Line(List<Piece> pieces, boolean isBlank) {
    static Line of(List<Piece> pieces) {
      return new Line(
          List.copyOf(pieces),
          pieces.stream().allMatch(p -> p instanceof Words words && words.isBlank()));
    }
  }

  /**
   * A fault in a pattern.
   *
   * @param position of the character, from 0
   */
  public record Fault(int position, String message) {}

  /** What came of parsing: a pattern, or the faults of the text. */
  public record Parsed(Optional<Pattern> pattern, List<Fault> faults) {}

  private final String source;
  private final List<Line> lines;
  private final Set<DetailKey> asksFor = new LinkedHashSet<>();

  private Pattern(String source, List<Line> lines) {
    this.source = source;
    this.lines = lines;
    lines.forEach(line -> collect(line.pieces()));
  }

  private void collect(Collection<Piece> pieces) {
    for (Piece piece : pieces) {
      if (piece instanceof Asked asked) {
        asksFor.add(asked.detail());
      } else if (piece instanceof Group group) {
        collect(group.pieces());
      }
    }
  }

  /** Parses the text; details other than those named are faults. */
  public static Parsed parse(String text, Set<DetailKey> known) {
    return new PatternParser(text, known).parse();
  }

  /** Whether wordings use this name for what they work out of other details. */
  public static boolean isComputed(String name) {
    return PatternParser.COMPUTED.containsKey(name);
  }

  /** A pattern that is known to be right. */
  public static Pattern of(String text, Set<DetailKey> known) {
    Parsed parsed = parse(text, known);
    return parsed
        .pattern()
        .orElseThrow(() -> new IllegalArgumentException(text + ": " + parsed.faults()));
  }

  static Pattern built(String source, List<Line> lines) {
    return new Pattern(source, lines);
  }

  /** Fills in the values; what the source of values does not give has gone. */
  public String fill(Values values) {
    if (lines.size() == 1) {
      Line only = lines.get(0);
      return only.isBlank() ? "" : LineFiller.fill(only, values).orElse("");
    }
    List<String> filled = new ArrayList<>(lines.size());
    for (Line line : lines) {
      if (line.isBlank()) {
        filled.add("");
      } else {
        LineFiller.fill(line, values).ifPresent(filled::add);
      }
    }
    while (!filled.isEmpty() && filled.get(0).isEmpty()) {
      filled.remove(0);
    }
    while (!filled.isEmpty() && filled.get(filled.size() - 1).isEmpty()) {
      filled.remove(filled.size() - 1);
    }
    return String.join("\n", filled);
  }

  /** Gives the value of what a pattern asks for, or nothing where it is missing or kept back. */
  public interface Values {
    Optional<String> of(String name, DetailKey detail, Optional<DateTimeFormatter> format);
  }

  /** The details this pattern asks for. */
  public Set<DetailKey> asksFor() {
    return asksFor;
  }

  @Override
  public String toString() {
    return source;
  }

  static DateTimeFormatter formatter(String letters) {
    return DateTimeFormatter.ofPattern(letters, Locale.ENGLISH);
  }
}
