package mellowrota.server.platform;

import static mellowrota.server.platform.Words.say;

import tools.jackson.databind.JsonNode;

/**
 * The tag of what its changer saw before they changed it, sent in the header {@code If-Match} (RFC
 * 9110 §13.1.1). Controllers have it as a parameter; who sends none is refused with 428 (RFC 6585).
 *
 * @param tag a strong entity tag with its quotes, or {@code *}: whatever it is like by now
 */
public record IfMatch(String tag) {

  static final String HEADER = "If-Match";

  private static final String ANY = "*";

  /** Whether it is taken whatever it is like by now. */
  public boolean isAny() {
    return tag.equals(ANY);
  }

  static IfMatch sent(String header) {
    if (header == null) {
      throw Problem.of(428, "if-match-missing", say("platform.send-if-match-with"));
    }
    return new IfMatch(header);
  }

  /**
   * Goes on only where it is still as its changer saw it.
   *
   * @param now its tag by now, for the asker
   * @param theirs as the asker would see it now
   * @param mine what they sent
   * @throws Problem 412 with theirs and mine
   */
  public void require(String now, Object theirs, JsonNode mine) {
    if (!isAny() && !tag.equals(now)) {
      throw Problem.of(412, "changed-meanwhile", say("platform.somebody-else-has-changed"))
          .with("theirs", theirs)
          .with("theirsTag", now)
          .with("mine", mine);
    }
  }
}
