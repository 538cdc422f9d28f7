package mellowrota.core.work;

import java.math.BigDecimal;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/** What a typed detail may hold. Values are kept as text in one canonical form each. */
public enum DetailSort {
  /** One line. */
  TEXT,
  /** Several lines. */
  NOTES,
  /** A decimal number such as 12.5. */
  NUMBER,
  /** An amount with two decimals; the detail's label says of which currency. */
  MONEY,
  /** A date, ISO 8601. */
  DATE,
  /** Digits with spaces, hyphens, brackets and a leading plus. */
  PHONE,
  /** Where post goes, of several lines. */
  ADDRESS,
  /** One of the values that the definition lists. */
  CHOICE,
  /** "yes" or "no". */
  YES_NO,
  /** An address of the web, http or https (RFC 3986). */
  LINK;

  private static final Pattern NUMERAL = Pattern.compile("[+-]?\\d{1,15}([.,]\\d{1,6})?");
  private static final Pattern DIALLED = Pattern.compile("\\+?[0-9 ()/.-]{3,40}");

  /**
   * A text as this sort keeps it.
   *
   * @param value empty where the text cannot be read
   * @param remedy what is wanted instead; blank where it can
   */
  public record Reading(Optional<String> value, String remedy) {
    static Reading of(String value) {
      return new Reading(Optional.of(value), "");
    }

    static Reading fault(String remedy) {
      return new Reading(Optional.empty(), remedy);
    }
  }

  /** Whether a value may have several lines. */
  public boolean hasLines() {
    return this == NOTES || this == ADDRESS;
  }

  /**
   * Reads what somebody typed; blank is empty in every sort.
   *
   * @param choices what a choice may be
   */
  public Reading read(String typed, List<String> choices) {
    String text = typed.strip();
    if (text.isEmpty()) {
      return Reading.of("");
    }
    return switch (this) {
      case TEXT, NOTES, ADDRESS -> Reading.of(text);
      case NUMBER -> number(text);
      case MONEY -> money(text);
      case DATE -> date(text);
      case PHONE ->
          DIALLED.matcher(text).matches()
              ? Reading.of(text)
              : Reading.fault("must be a phone number: digits, spaces and a leading +");
      case CHOICE -> choice(text, choices);
      case YES_NO -> yesNo(text);
      case LINK -> link(text);
    };
  }

  private static Reading number(String text) {
    return NUMERAL.matcher(text).matches()
        ? Reading.of(plain(text).stripTrailingZeros().toPlainString())
        : Reading.fault("must be a number such as 12.5");
  }

  private static BigDecimal plain(String text) {
    return new BigDecimal(text.replace(',', '.'));
  }

  private static Reading money(String text) {
    boolean good = NUMERAL.matcher(text).matches() && plain(text).stripTrailingZeros().scale() <= 2;
    return good
        ? Reading.of(plain(text).setScale(2).toPlainString())
        : Reading.fault("must be an amount such as 120.00, without a currency sign");
  }

  private static Reading date(String text) {
    try {
      return Reading.of(LocalDate.parse(text).toString());
    } catch (DateTimeParseException unreadable) {
      return Reading.fault("must be a date such as 2026-11-27");
    }
  }

  private static Reading choice(String text, List<String> choices) {
    return choices.stream()
        .filter(text::equalsIgnoreCase)
        .findFirst()
        .map(Reading::of)
        .orElseGet(() -> Reading.fault("must be one of " + String.join(", ", choices)));
  }

  private static Reading yesNo(String text) {
    return switch (text.toLowerCase(Locale.ROOT)) {
      case "yes", "true" -> Reading.of("yes");
      case "no", "false" -> Reading.of("no");
      default -> Reading.fault("must be yes or no");
    };
  }

  private static Reading link(String text) {
    Reading fault = Reading.fault("must be an address that begins with https:// or http://");
    try {
      URI uri = new URI(text);
      boolean web =
          "https".equalsIgnoreCase(uri.getScheme()) || "http".equalsIgnoreCase(uri.getScheme());
      return web && uri.getHost() != null && uri.getUserInfo() == null ? Reading.of(text) : fault;
    } catch (URISyntaxException unreadable) {
      return fault;
    }
  }
}
