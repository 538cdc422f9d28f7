package mellowrota.server.caldav;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mellowrota.core.calendar.RenderingId;

/**
 * A sync token as a URI (RFC 6578 §4): which house since its last restore, which way of reading,
 * that way's access number, and the calendar's change number.
 */
record SyncToken(String incarnation, RenderingId rendering, long accessNo, long changeNo) {

  private static final Pattern FORM =
      Pattern.compile("urn:mellow-rota:sync:([0-9a-f]{1,40}):(\\d{1,18}):(\\d{1,18}):(\\d{1,18})");

  static Optional<SyncToken> parse(String text) {
    Matcher parts = FORM.matcher(text.strip());
    return parts.matches()
        ? Optional.of(
            new SyncToken(
                parts.group(1),
                RenderingId.of(Long.parseLong(parts.group(2))),
                Long.parseLong(parts.group(3)),
                Long.parseLong(parts.group(4))))
        : Optional.empty();
  }

  @Override
  public String toString() {
    return "urn:mellow-rota:sync:"
        + incarnation
        + ":"
        + rendering.value()
        + ":"
        + accessNo
        + ":"
        + changeNo;
  }
}
