package mellowrota.server.accounts;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.HexFormat;

/** Makes tokens and passwords nobody can guess, and hashes what is kept of them. */
final class Secrets {

  private static final SecureRandom RANDOM = new SecureRandom();

  /** No i, l, o, 0 or 1, which are mistaken for one another when typed. */
  private static final String LETTERS = "abcdefghjkmnpqrstuvwxyz23456789";

  private Secrets() {}

  static String token() {
    byte[] bytes = new byte[24];
    RANDOM.nextBytes(bytes);
    return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
  }

  /** Four groups of five, about 99 bits. */
  static String appPassword() {
    StringBuilder out = new StringBuilder();
    for (int i = 0; i < 20; i++) {
      out.append(i > 0 && i % 5 == 0 ? "-" : "");
      out.append(LETTERS.charAt(RANDOM.nextInt(LETTERS.length())));
    }
    return out.toString();
  }

  static String sha256(String text) {
    try {
      MessageDigest sha = MessageDigest.getInstance("SHA-256");
      return HexFormat.of().formatHex(sha.digest(text.getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException("every Java platform has SHA-256", impossible);
    }
  }
}
