package mellowrota.server.platform;

import static mellowrota.server.platform.Words.say;

import java.util.Optional;

/**
 * The key a caller gives a command, so that sent twice it is done once; empty: it is done each
 * time. Controllers have it as a parameter.
 */
public record IdempotencyKey(Optional<String> value) {

  static final String HEADER = "Idempotency-Key";

  /**
   * As sent in the header, or null.
   *
   * @throws Problem where it is no such key
   */
  static IdempotencyKey sent(String header) {
    if (header == null) {
      return new IdempotencyKey(Optional.empty());
    }
    boolean good =
        !header.isBlank()
            && header.length() <= 100
            && header.chars().allMatch(c -> c > 32 && c < 127);
    if (!good) {
      throw Problem.badRequest(say("platform.idempotency-key-must-be"));
    }
    return new IdempotencyKey(Optional.of(header));
  }
}
