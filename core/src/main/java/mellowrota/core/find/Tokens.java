package mellowrota.core.find;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** The words of a line. White space and commas part them; what stands in quotes is one. */
final class Tokens {

  private static final Pattern TOKEN = Pattern.compile("\"([^\"]*)(?:\"|$)|[^\\s,\"]+");

  /**
   * One of them.
   *
   * @param plain in small letters, to be compared
   * @param quoted it means nothing but itself
   */
  record Token(int from, int until, String text, String plain, boolean quoted) {}

  private final List<Token> all = new ArrayList<>();

  Tokens(String line) {
    Matcher found = TOKEN.matcher(line);
    while (found.find()) {
      boolean quoted = found.group(1) != null;
      String text = quoted ? found.group(1).strip() : found.group();
      if (!text.isEmpty()) {
        all.add(new Token(found.start(), found.end(), text, text.toLowerCase(Locale.ROOT), quoted));
      }
    }
  }

  int size() {
    return all.size();
  }

  Token at(int index) {
    return all.get(index);
  }

  /** What stands there, to be compared; nothing behind the end and for what is in quotes. */
  String plain(int index) {
    return index < all.size() && !all.get(index).quoted() ? all.get(index).plain() : "";
  }

  /** Some of them with one space between; nothing where one is in quotes. */
  String plain(int from, int until) {
    List<Token> some = all.subList(from, until);
    return some.stream().anyMatch(Token::quoted)
        ? ""
        : some.stream().map(Token::plain).collect(Collectors.joining(" "));
  }
}
