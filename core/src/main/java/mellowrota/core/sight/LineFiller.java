package mellowrota.core.sight;

import java.util.List;
import java.util.Optional;

/**
 * Fills one line of a pattern and tidies the separators beside what went (LANDING 22): at the ends
 * of the line all go; between two pieces the first that holds a separator stays, else one space.
 */
final class LineFiller {

  private final Pattern.Values values;
  private final StringBuilder out = new StringBuilder(48);
  private boolean anyDetail;
  private boolean anyPiece;

  /** What stands between the last piece and the next: white space and separators of the pattern. */
  private String between = "";

  private String firstSeparator;
  private boolean besideGone;

  private LineFiller(Pattern.Values values) {
    this.values = values;
  }

  /** The line, or empty when all its details went and it has no words. */
  static Optional<String> fill(Pattern.Line line, Pattern.Values values) {
    LineFiller filler = new LineFiller(values);
    filler.add(line.pieces());
    if (filler.anyDetail && !filler.anyPiece) {
      return Optional.empty();
    }
    filler.close(true);
    return Optional.of(filler.out.toString().strip());
  }

  private void add(List<Pattern.Piece> pieces) {
    for (Pattern.Piece piece : pieces) {
      if (piece instanceof Pattern.Words words) {
        addRun(words.before(), words.separatorBefore());
        if (!words.core().isEmpty()) {
          addPiece(words.core());
        }
        addRun(words.after(), words.separatorAfter());
      } else if (piece instanceof Pattern.Asked asked) {
        addDetail(asked);
      } else {
        addGroup(((Pattern.Group) piece).pieces());
      }
    }
  }

  private void addDetail(Pattern.Asked asked) {
    anyDetail = true;
    String value = value(asked);
    if (value.isEmpty()) {
      besideGone = true;
    } else {
      addPiece(value);
    }
  }

  private String value(Pattern.Asked asked) {
    return values.of(asked.name(), asked.detail(), asked.format()).orElse("").strip();
  }

  private void addGroup(List<Pattern.Piece> pieces) {
    for (Pattern.Piece piece : pieces) {
      if (piece instanceof Pattern.Asked asked && value(asked).isEmpty()) {
        anyDetail = true;
        besideGone = true;
        return;
      }
    }
    add(pieces);
  }

  private void addPiece(String text) {
    close(!anyPiece);
    out.append(text);
    anyPiece = true;
  }

  private void addRun(String text, boolean holdsSeparator) {
    if (text.isEmpty()) {
      return;
    }
    between = between.isEmpty() ? text : between + text;
    if (firstSeparator == null && holdsSeparator) {
      firstSeparator = text;
    }
  }

  private void close(boolean atAnEnd) {
    if (!besideGone) {
      out.append(between);
    } else if (!atAnEnd) {
      out.append(firstSeparator == null ? " " : firstSeparator);
    }
    between = "";
    firstSeparator = null;
    besideGone = false;
  }
}
