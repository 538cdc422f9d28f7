package mellowrota.core.sight;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Fills one line of a pattern and tidies the separators beside what went (LANDING 22): at the ends
 * of the line all go; between two pieces the first that holds a separator stays, else one space.
 */
final class LineFiller {

  private sealed interface Token {}

  private record Kept(String text) implements Token {}

  /** White space and separators of the pattern itself. */
  private record Run(String text) implements Token {
    boolean holdsSeparator() {
      return text.chars().anyMatch(c -> Pattern.SEPARATORS.indexOf(c) >= 0);
    }
  }

  private record Gone() implements Token {}

  private final List<Token> tokens = new ArrayList<>();
  private boolean anyDetail;
  private boolean anyLeft;

  private LineFiller() {}

  /** The line, or empty when all its details went and it has no words. */
  static Optional<String> fill(Pattern.Line line, Pattern.Values values) {
    LineFiller filler = new LineFiller();
    filler.add(line.pieces(), values);
    boolean words = filler.tokens.stream().anyMatch(Kept.class::isInstance);
    if (filler.anyDetail && !filler.anyLeft && !words) {
      return Optional.empty();
    }
    return Optional.of(filler.join());
  }

  private void add(List<Pattern.Piece> pieces, Pattern.Values values) {
    for (Pattern.Piece piece : pieces) {
      if (piece instanceof Pattern.Words words) {
        addWords(words.text());
      } else if (piece instanceof Pattern.Asked asked) {
        addDetail(asked, values);
      } else {
        addGroup(((Pattern.Group) piece).pieces(), values);
      }
    }
  }

  private void addDetail(Pattern.Asked asked, Pattern.Values values) {
    anyDetail = true;
    Optional<String> value = value(asked, values);
    value.ifPresent(text -> anyLeft = true);
    tokens.add(value.<Token>map(Kept::new).orElseGet(Gone::new));
  }

  private static Optional<String> value(Pattern.Asked asked, Pattern.Values values) {
    return values
        .of(asked.name(), asked.detail(), asked.format())
        .map(String::strip)
        .filter(text -> !text.isEmpty());
  }

  private void addGroup(List<Pattern.Piece> pieces, Pattern.Values values) {
    boolean missing =
        pieces.stream()
            .anyMatch(p -> p instanceof Pattern.Asked asked && value(asked, values).isEmpty());
    if (missing) {
      anyDetail = true;
      tokens.add(new Gone());
    } else {
      add(pieces, values);
    }
  }

  private void addWords(String text) {
    int first = 0;
    while (first < text.length() && loose(text.charAt(first))) {
      first++;
    }
    int last = text.length();
    while (last > first && loose(text.charAt(last - 1))) {
      last--;
    }
    addRun(text.substring(0, first));
    if (last > first) {
      tokens.add(new Kept(text.substring(first, last)));
    }
    addRun(text.substring(last));
  }

  private void addRun(String text) {
    if (!text.isEmpty()) {
      tokens.add(new Run(text));
    }
  }

  private static boolean loose(char c) {
    return Character.isWhitespace(c) || Pattern.SEPARATORS.indexOf(c) >= 0;
  }

  private String join() {
    StringBuilder out = new StringBuilder();
    List<Token> between = new ArrayList<>();
    boolean started = false;
    for (Token token : tokens) {
      if (token instanceof Kept kept) {
        out.append(gap(between, !started));
        out.append(kept.text());
        between.clear();
        started = true;
      } else {
        between.add(token);
      }
    }
    out.append(gap(between, true));
    return out.toString().strip();
  }

  private static String gap(List<Token> between, boolean atAnEnd) {
    boolean beside = between.stream().anyMatch(Gone.class::isInstance);
    StringBuilder whole = new StringBuilder();
    String firstSeparator = null;
    for (Token token : between) {
      if (token instanceof Run run) {
        whole.append(run.text());
        if (firstSeparator == null && run.holdsSeparator()) {
          firstSeparator = run.text();
        }
      }
    }
    if (!beside) {
      return whole.toString();
    }
    if (atAnEnd) {
      return "";
    }
    return firstSeparator == null ? " " : firstSeparator;
  }
}
