package mellowrota.core.work;

import java.math.BigDecimal;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.regex.Pattern;

/** What a typed detail may hold. Values are kept as text in one canonical form each. */
public enum DetailSort {
  /** One line. */
  TEXT,
  /** Several lines. */
  NOTES,
  /** A decimal number such as 12.5. */
  NUMBER,
  /** An amount, with as many decimals as its currency has; of two where none is said. */
  MONEY,
  /** A date, ISO 8601. */
  DATE,
  /** Digits with spaces, hyphens, brackets and a leading plus. */
  PHONE,
  /** An address of electronic mail (as the WHATWG's HTML standard checks one). */
  MAIL,
  /** Where post goes, of several lines. */
  ADDRESS,
  /** One of the values that the definition lists. */
  CHOICE,
  /** "yes" or "no". */
  YES_NO,
  /** An address of the web, http or https (RFC 3986). */
  LINK;

  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("EEE d MMM yyyy", Locale.ENGLISH);
  private static final Pattern NUMERAL = Pattern.compile("[+-]?\\d{1,15}([.,]\\d{1,6})?");
  private static final Pattern MAILED =
      Pattern.compile("[\\w.!#$%&'*+/=?^`{|}~-]+@[A-Za-z0-9-]+(\\.[A-Za-z0-9-]+)+");
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
   * @param unit of a number or an amount, which may be typed before or behind it
   */
  Reading read(String typed, List<String> choices, String unit) {
    String text = without(unit, typed.strip());
    if (text.isEmpty()) {
      return Reading.of("");
    }
    return switch (this) {
      case TEXT, NOTES, ADDRESS -> Reading.of(text);
      case NUMBER -> number(text);
      case MONEY -> money(text, unit);
      case DATE -> date(text);
      case PHONE ->
          DIALLED.matcher(text).matches()
              ? Reading.of(text)
              : Reading.fault("must be a phone number: digits, spaces and a leading +");
      case MAIL ->
          MAILED.matcher(text).matches()
              ? Reading.of(text)
              : Reading.fault("must be a mail address such as name@host.example");
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

  private static Reading money(String text, String currency) {
    int digits = currency.isEmpty() ? 2 : Currency.getInstance(currency).getDefaultFractionDigits();
    boolean good =
        NUMERAL.matcher(text).matches() && plain(text).stripTrailingZeros().scale() <= digits;
    String example = new BigDecimal(120).setScale(digits).toPlainString();
    return good
        ? Reading.of(plain(text).setScale(digits).toPlainString())
        : Reading.fault(
            "must be an amount such as %s, %s"
                .formatted(
                    example,
                    currency.isEmpty() ? "without a currency sign" : "which is in " + currency));
  }

  private String without(String unit, String text) {
    if (unit.isEmpty() || this != NUMBER && this != MONEY) {
      return text;
    }
    int rest = text.length() - unit.length();
    if (text.regionMatches(true, Math.max(0, rest), unit, 0, unit.length())) {
      return text.substring(0, rest).strip();
    }
    return text.regionMatches(true, 0, unit, 0, unit.length())
        ? text.substring(unit.length()).strip()
        : text;
  }

  /** Whether values of it are less or more than one another. */
  public boolean isOrdered() {
    return this == NUMBER || this == MONEY || this == DATE;
  }

  /**
   * How a value stands to another.
   *
   * @return empty where one of them is no value of this sort, as text of before is
   */
  OptionalInt compare(String one, String other) {
    List<String> values = List.of(one, other);
    if (this == DATE) {
      return values.stream().allMatch(value -> date(value).value().isPresent())
          ? OptionalInt.of(LocalDate.parse(one).compareTo(LocalDate.parse(other)))
          : OptionalInt.empty();
    }
    if (isOrdered()) {
      return values.stream().allMatch(value -> NUMERAL.matcher(value).matches())
          ? OptionalInt.of(plain(one).compareTo(plain(other)))
          : OptionalInt.empty();
    }
    return OptionalInt.of(one.compareToIgnoreCase(other));
  }

  /** A value as people read it: 120.00 EUR, 12 gates, Fri 27 Nov 2026; text of before as it is. */
  String said(String value, String unit) {
    return switch (this) {
      case NUMBER, MONEY ->
          unit.isEmpty() || !NUMERAL.matcher(value).matches() ? value : value + " " + unit;
      case DATE -> date(value).value().map(LocalDate::parse).map(DAY::format).orElse(value);
      default -> value;
    };
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
