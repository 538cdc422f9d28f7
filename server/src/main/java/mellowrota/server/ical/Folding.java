package mellowrota.server.ical;

import java.nio.charset.StandardCharsets;

/** Folds content lines at 75 octets without cutting a UTF-8 sequence (RFC 5545 §3.1). */
final class Folding {

  private static final int MOST = 75;

  private Folding() {}

  /** Takes text folded in any way and folds it again; lines end with CRLF. */
  static String refold(String text) {
    String unfolded = text.replaceAll("\r?\n[ \t]", "");
    StringBuilder out = new StringBuilder(unfolded.length() + 64);
    for (String line : unfolded.split("\r?\n")) {
      fold(line, out);
    }
    return out.toString();
  }

  private static void fold(String line, StringBuilder out) {
    int octets = 0;
    for (int i = 0; i < line.length(); ) {
      int point = line.codePointAt(i);
      String one = Character.toString(point);
      int size = one.getBytes(StandardCharsets.UTF_8).length;
      if (octets + size > MOST) {
        out.append("\r\n ");
        octets = 1;
      }
      out.append(one);
      octets += size;
      i += Character.charCount(point);
    }
    out.append("\r\n");
  }
}
