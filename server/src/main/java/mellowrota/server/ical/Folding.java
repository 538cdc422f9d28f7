package mellowrota.server.ical;

import java.util.ArrayList;
import java.util.List;

/** Folds content lines at 75 octets without cutting a UTF-8 sequence (RFC 5545 §3.1). */
final class Folding {

  private static final int MOST = 75;

  private Folding() {}

  /** Takes text folded in any way and folds it again; lines end with CRLF. */
  static String refold(String text) {
    StringBuilder out = new StringBuilder(text.length() + 64);
    lines(text).forEach(line -> fold(line, out));
    return out.toString();
  }

  /** The content lines of a text, unfolded, whatever its lines end with. */
  static List<String> lines(String text) {
    List<String> lines = new ArrayList<>();
    int from = 0;
    while (from < text.length()) {
      int feed = text.indexOf('\n', from);
      int end = feed < 0 ? text.length() : feed;
      int next = feed < 0 ? end : feed + 1;
      if (feed > from && text.charAt(feed - 1) == '\r') {
        end--;
      }
      char first = text.charAt(from);
      int last = lines.size() - 1;
      if (last >= 0 && (first == ' ' || first == '\t')) {
        lines.set(last, lines.get(last) + text.substring(from + 1, end));
      } else {
        lines.add(text.substring(from, end));
      }
      from = next;
    }
    return lines;
  }

  private static void fold(String line, StringBuilder out) {
    int octets = 0;
    int from = 0;
    for (int i = 0; i < line.length(); ) {
      int point = line.codePointAt(i);
      int size = octets(point);
      if (octets + size > MOST) {
        out.append(line, from, i).append("\r\n ");
        from = i;
        octets = 1;
      }
      octets += size;
      i += Character.charCount(point);
    }
    out.append(line, from, line.length()).append("\r\n");
  }

  /** How many a code point takes in UTF-8 (RFC 3629 §3). */
  private static int octets(int point) {
    if (point < 0x80) {
      return 1;
    }
    if (point < 0x800) {
      return 2;
    }
    return point < 0x10000 ? 3 : 4;
  }
}
