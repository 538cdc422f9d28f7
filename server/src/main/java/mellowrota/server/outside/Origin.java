package mellowrota.server.outside;

import java.net.URI;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Where an address leads, however it is spelt (RFC 3986 §6.2): letters of the host, the port that
 * goes without saying, escapes that need none, dots and slashes.
 */
public final class Origin {

  private static final Pattern ESCAPE = Pattern.compile("%([0-9A-Fa-f]{2})");

  private Origin() {}

  /** The host and port of an address, in one spelling. */
  static String of(URI address) {
    int usual = "http".equalsIgnoreCase(address.getScheme()) ? 80 : 443;
    return address.getHost().toLowerCase(Locale.ROOT)
        + ":"
        + (address.getPort() < 0 ? usual : address.getPort());
  }

  /** Whether both lead to the same host and port, as safely. */
  static boolean isSame(URI one, URI other) {
    return one.getHost() != null
        && other.getHost() != null
        && one.getScheme().equalsIgnoreCase(other.getScheme())
        && of(one).equals(of(other));
  }

  /** The path in one spelling, without a slash at its end. */
  static String path(URI address) {
    Matcher escapes = ESCAPE.matcher(address.getRawPath() == null ? "" : address.getRawPath());
    String plain =
        escapes.replaceAll(
            found -> {
              char c = (char) Integer.parseInt(found.group(1), 16);
              boolean needless =
                  c < 128 && (Character.isLetterOrDigit(c) || "-._~@".indexOf(c) >= 0);
              return Matcher.quoteReplacement(
                  needless ? String.valueOf(c) : found.group().toUpperCase(Locale.ROOT));
            });
    String path = URI.create(plain.replaceAll("/+", "/")).normalize().toString();
    return path.replaceAll("/$", "");
  }

  /** What two addresses of one calendar have in common, whatever its host is called. */
  public static String pathAndPort(URI address) {
    return of(address).substring(of(address).lastIndexOf(':')) + path(address);
  }

  /** The whole in one spelling: a calendar there is one thing. */
  public static String place(URI address) {
    return of(address) + path(address);
  }
}
