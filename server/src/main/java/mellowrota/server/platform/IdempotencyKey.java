package mellowrota.server.platform;

import java.util.Optional;

/** The key a caller gives a command, so that sent twice it is done once. */
public final class IdempotencyKey {

  private IdempotencyKey() {}

  /**
   * As sent in the header {@code Idempotency-Key}.
   *
   * @throws Problem where it is no such key
   */
  public static Optional<String> of(String header) {
    if (header == null) {
      return Optional.empty();
    }
    boolean good =
        !header.isBlank()
            && header.length() <= 100
            && header.chars().allMatch(c -> c > 32 && c < 127);
    if (!good) {
      throw Problem.badRequest("Idempotency-Key holds 1 to 100 printable ASCII characters.");
    }
    return Optional.of(header);
  }
}
