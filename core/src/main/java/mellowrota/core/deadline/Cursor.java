package mellowrota.core.deadline;

import java.util.Arrays;
import java.util.Collection;
import java.util.Optional;
import java.util.stream.Collectors;
import mellowrota.core.text.Near;

/** A place in one line, without its comment, and what stands there. */
final class Cursor {

  static final int END = -1;

  private static final String MARKS = ",:;\"";
  private static final String CURLY = "\u201c\u201d\u201e\u2018\u2019\u201a\u00ab\u00bb";

  /** The line is not read further. */
  @SuppressWarnings("serial")
  static final class Misread extends Exception {
    final Fault fault;

    Misread(Fault fault) {
      super(fault.toString(), null, false, false);
      this.fault = fault;
    }
  }

  /** What was read, and where it begins. */
  record Placed<T>(T value, int column, int length) {}

  private final int line;
  private final int[] chars;
  private int at;

  Cursor(int line, String text) {
    this.line = line;
    int[] all = text.codePoints().toArray();
    int end = comment(all);
    chars = end == all.length ? all : Arrays.copyOf(all, end);
    blanks();
  }

  /** Where a comment begins; without one the end. */
  private static int comment(int[] all) {
    boolean quoted = false;
    for (int i = 0; i < all.length; i++) {
      quoted ^= all[i] == '"';
      boolean begins = all[i] == '#' && !quoted && (i == 0 || isBlank(all[i - 1]));
      if (begins && (i + 1 == all.length || isBlank(all[i + 1]))) {
        return i;
      }
    }
    return all.length;
  }

  static boolean isBlank(int c) {
    return c == ' ' || c == '\t' || c == '\u00a0';
  }

  private static boolean isMark(int c) {
    return c == END || MARKS.indexOf(c) >= 0;
  }

  static boolean isCurly(int c) {
    return CURLY.indexOf(c) >= 0;
  }

  static boolean isDigit(int c) {
    return c >= '0' && c <= '9';
  }

  int column() {
    return at + 1;
  }

  int line() {
    return line;
  }

  /** What stands here; {@link #END} behind the last. */
  int here() {
    return at < chars.length ? chars[at] : END;
  }

  /** Goes on to the next that is not white space. */
  void blanks() {
    while (at < chars.length && isBlank(chars[at])) {
      at++;
    }
  }

  /** The word here, until white space or a mark; empty where a mark stands here. */
  String word() {
    int end = at;
    while (end < chars.length && !isBlank(chars[end]) && !isMark(chars[end])) {
      end++;
    }
    return new String(chars, at, end - at);
  }

  /** Whether a quote mark stands at a column. */
  boolean isQuote(int column) {
    return chars[column - 1] == '"';
  }

  /** Whether a word stands behind the one here. */
  boolean isBehind(String word) {
    int now = at;
    take(word());
    boolean found = isAt(word);
    at = now;
    return found;
  }

  boolean isAt(String word) {
    return word().equalsIgnoreCase(word);
  }

  /** Takes a word with the white space behind it. */
  void take(String word) {
    at += length(word);
    blanks();
  }

  /** Takes it if it stands here. */
  boolean takes(String word) {
    boolean here = isAt(word);
    if (here) {
      take(word());
    }
    return here;
  }

  /** Takes a mark if it stands here. */
  boolean takes(char mark) {
    boolean here = here() == mark;
    if (here) {
      at++;
      blanks();
    }
    return here;
  }

  /** What stands here, in words. */
  String said() {
    return switch (here()) {
      case END -> "the end of the line";
      case ',' -> "the comma";
      case ':' -> "the colon";
      case ';' -> "the semicolon";
      case '"' -> "the quote mark";
      default -> quoted(word());
    };
  }

  static String quoted(String text) {
    return '"' + text + '"';
  }

  // ---- Faults ----------------------------------------------------------------------------------

  Fault fault(
      Fault.Code code, int column, String what, String expected, String mend, Fault.Edit edit) {
    return new Fault(code, line, column, what, expected, mend, Optional.of(edit));
  }

  Misread misread(Fault.Code code, String what, String expected, String mend) {
    return new Misread(Fault.of(code, line, column(), what, expected, mend));
  }

  /** Mended by other words in place of what stands here. */
  Misread misread(
      Fault.Code code, String what, String expected, String mend, int length, String text) {
    return new Misread(
        fault(code, column(), what, expected, mend, new Fault.Edit(column(), length, text)));
  }

  /**
   * Of a word that is none of those known: the near one, else what to do in its place.
   *
   * @param known each a word, or two of which the first is meant
   */
  Misread unknown(
      Fault.Code code, String what, String expected, Collection<String> known, String mend) {
    String word = word();
    return Near.of(word, known.stream().map(one -> one.split(" ")[0]).toList())
        .flatMap(first -> known.stream().filter(one -> one.split(" ")[0].equals(first)).findFirst())
        .map(
            near ->
                misread(
                    code,
                    quoted(word) + what,
                    expected,
                    "did you mean " + quoted(near) + "?",
                    length(word),
                    isBehind(last(near)) ? near.substring(0, near.lastIndexOf(' ')) : near))
        .orElseGet(
            () -> misread(code, (word.isEmpty() ? said() : quoted(word)) + what, expected, mend));
  }

  /** The second word of two; of one none. */
  private static String last(String words) {
    return words.contains(" ") ? words.substring(words.lastIndexOf(' ') + 1) : "\n";
  }

  static int length(String text) {
    return text.codePointCount(0, text.length());
  }

  // ---- Phrases, names, times -------------------------------------------------------------------

  /**
   * Takes the words of a phrase.
   *
   * @param whole the phrase, for the mend
   */
  void phrase(String whole, String... words) throws Misread {
    for (String word : words) {
      if (!takes(word)) {
        throw misread(
            Fault.Code.PHRASE,
            said() + " does not go on with the phrase",
            quoted(word),
            "write " + quoted(whole),
            length(word()),
            here() == END || word().isEmpty() ? " " + word : word);
      }
    }
  }

  /**
   * A name, bare until the next mark or in quotes.
   *
   * @param what of what, as in "the step"
   */
  Placed<Name> name(String what) throws Misread {
    return here() == '"' ? inQuotes(what) : bare(what, chars.length);
  }

  /** The bare name from here until a mark, or until a place before it. */
  Placed<Name> bare(String what, int most) throws Misread {
    int begins = at;
    int end = at;
    while (end < most && !isMark(chars[end])) {
      end++;
    }
    int last = end;
    while (last > begins && isBlank(chars[last - 1])) {
      last--;
    }
    if (last == begins) {
      throw missing(what);
    }
    if (isCurly(chars[begins])) {
      throw curly(begins, last);
    }
    at = end;
    if (here() == '"') {
      throw mark(what, begins, last);
    }
    return placed(what, begins, last, new String(chars, begins, last - begins));
  }

  Misread missing(String what) {
    return misread(
        Fault.Code.NAME_MISSING,
        "the name of " + what + " is missing",
        "the name of " + what,
        "write it here");
  }

  private Misread curly(int begins, int last) {
    String inner =
        new String(chars, begins + 1, Math.max(0, last - begins - 1))
            .replaceAll("[" + CURLY + "]$", "");
    return misread(
        Fault.Code.QUOTE_CURLY,
        "this is a printed quote mark",
        "a straight quote mark",
        "type \" on both sides of the name",
        last - begins,
        spelled(inner));
  }

  /** A mark stands here that cannot stand in the bare name that began before it. */
  Misread mark(String what, int begins, int last) {
    String rest = rest(begins);
    return new Misread(
        fault(
            Fault.Code.NAME_MARK,
            column(),
            said() + " cannot stand in a bare name",
            "the end of the name of " + what,
            "put the whole name in quotes, \"like this\", or begin the next part with a semicolon",
            new Fault.Edit(begins + 1, length(rest), spelled(rest))));
  }

  /** From a place until the next part, as somebody meant it for a name. */
  private String rest(int begins) {
    int end = at;
    while (end < chars.length && chars[end] != ';') {
      end++;
    }
    while (end > begins && isBlank(chars[end - 1])) {
      end--;
    }
    return new String(chars, begins, end - begins);
  }

  static String spelled(String text) {
    return '"' + text.replace("\"", "\"\"") + '"';
  }

  private Placed<Name> inQuotes(String what) throws Misread {
    int begins = at;
    StringBuilder text = new StringBuilder();
    int i = at + 1;
    while (true) {
      if (i >= chars.length) {
        throw misread(
            Fault.Code.QUOTE_OPEN,
            "this quote mark is never closed",
            "a second quote mark",
            "close the name with \" before the line ends, and write \"\" for a quote mark in a name",
            chars.length - begins,
            new String(chars, begins, chars.length - begins).stripTrailing() + '"');
      }
      if (chars[i] != '"') {
        text.appendCodePoint(chars[i++]);
      } else if (i + 1 < chars.length && chars[i + 1] == '"') {
        text.append('"');
        i += 2;
      } else {
        break;
      }
    }
    if (text.chars().allMatch(Cursor::isBlank)) {
      throw missing(what);
    }
    at = i + 1;
    return placed(what, begins, at, text.toString());
  }

  private Placed<Name> placed(String what, int begins, int end, String text) throws Misread {
    Name name = Name.of(text);
    if (length(name.text()) > Name.LONGEST) {
      throw new Misread(
          Fault.of(
              Fault.Code.NAME_LONG,
              line,
              begins + 1,
              "the name of " + what + " has " + length(name.text()) + " characters",
              "at most " + Name.LONGEST,
              "make it shorter"));
    }
    blanks();
    return new Placed<>(name, begins + 1, end - begins);
  }

  /** Where, from here on, the last of a word stands before a mark; empty: nowhere. */
  Optional<Integer> lastBeforeMark(String word) {
    Optional<Integer> found = Optional.empty();
    for (int i = at; i < chars.length && !isMark(chars[i]); i++) {
      boolean begins = i == at || isBlank(chars[i - 1]);
      int end = i + word.length();
      boolean ends = end >= chars.length || isBlank(chars[end]) || isMark(chars[end]);
      boolean fits = begins && ends && end <= chars.length;
      if (fits && new String(chars, i, word.length()).equalsIgnoreCase(word)) {
        found = Optional.of(i);
      }
    }
    return found;
  }

  /** What looks like a time: with a colon where digits stand on both sides of it. */
  String time() {
    int end = at;
    while (end < chars.length && !isBlank(chars[end])) {
      boolean between =
          chars[end] == ':'
              && end > at
              && isDigit(chars[end - 1])
              && end + 1 < chars.length
              && isDigit(chars[end + 1]);
      if (isMark(chars[end]) && !between) {
        break;
      }
      end++;
    }
    return new String(chars, at, end - at);
  }

  /** As in {@code a, b or c}. */
  static String all(Collection<String> names, String last) {
    String joined = names.stream().collect(Collectors.joining(", "));
    int comma = joined.lastIndexOf(", ");
    return comma < 0
        ? joined
        : joined.substring(0, comma) + " " + last + " " + joined.substring(comma + 2);
  }
}
