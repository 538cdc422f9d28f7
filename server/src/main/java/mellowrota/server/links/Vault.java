package mellowrota.server.links;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.Map;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * Seals passwords with AES-256-GCM (NIST SP 800-38D). The keys are in a file beside the database,
 * never in it: a line each, a name and 32 octets in base64. The last one seals; the others still
 * open what they sealed, until it is sealed anew.
 */
@Component
public class Vault {

  private static final SecureRandom RANDOM = new SecureRandom();
  private static final int NONCE = 12;
  private static final int TAG_BITS = 128;

  private final Path file;
  private Map<String, SecretKeySpec> keys = Map.of();

  Vault(@Value("${mellow.keys}") String file) {
    this.file = Path.of(file);
  }

  /** The key is not here, or it is not what was sealed with it. */
  public static final class Unopenable extends IllegalStateException {
    private static final long serialVersionUID = 1;

    Unopenable(String message, Throwable cause) {
      super(message, cause);
    }
  }

  /** What is kept, and the name of the key that opens it. */
  public record Sealed(byte[] octets, String key) {}

  /**
   * Seals a secret.
   *
   * @param of what it belongs to; it cannot be opened for anything else
   */
  public synchronized Sealed seal(String secret, String of) {
    String newest = newest();
    byte[] nonce = new byte[NONCE];
    RANDOM.nextBytes(nonce);
    byte[] sealed =
        crypt(Cipher.ENCRYPT_MODE, newest, nonce, secret.getBytes(StandardCharsets.UTF_8), of);
    return new Sealed(
        ByteBuffer.allocate(NONCE + sealed.length).put(nonce).put(sealed).array(), newest);
  }

  public synchronized String open(Sealed sealed, String of) {
    ByteBuffer octets = ByteBuffer.wrap(sealed.octets());
    byte[] nonce = new byte[NONCE];
    octets.get(nonce);
    byte[] rest = new byte[octets.remaining()];
    octets.get(rest);
    return new String(
        crypt(Cipher.DECRYPT_MODE, sealed.key(), nonce, rest, of), StandardCharsets.UTF_8);
  }

  /** Whether another key seals by now. */
  public synchronized boolean isOld(Sealed sealed) {
    return !sealed.key().equals(newest());
  }

  private byte[] crypt(int mode, String name, byte[] nonce, byte[] octets, String of) {
    if (!keys.containsKey(name)) {
      keys = read();
    }
    SecretKeySpec key = keys.get(name);
    if (key == null) {
      throw new Unopenable("the file of keys has none named " + name, null);
    }
    try {
      Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
      cipher.init(mode, key, new GCMParameterSpec(TAG_BITS, nonce));
      cipher.updateAAD(of.getBytes(StandardCharsets.UTF_8));
      return cipher.doFinal(octets);
    } catch (GeneralSecurityException fault) {
      throw new Unopenable("what was sealed does not open", fault);
    }
  }

  private String newest() {
    keys = read();
    String last = null;
    for (String name : keys.keySet()) {
      last = name;
    }
    return last;
  }

  /** Makes the file where there is none; of two processes that begin at once one makes it. */
  private Map<String, SecretKeySpec> read() {
    try {
      if (!Files.exists(file)) {
        make();
      }
      Map<String, SecretKeySpec> found = new LinkedHashMap<>();
      for (String line : Files.readAllLines(file)) {
        String[] parts = line.strip().split(" ");
        if (parts.length == 2) {
          found.put(parts[0], new SecretKeySpec(Base64.getDecoder().decode(parts[1]), "AES"));
        }
      }
      if (found.isEmpty()) {
        throw new IllegalStateException("the file of keys is empty: " + file);
      }
      return found;
    } catch (IOException fault) {
      throw new IllegalStateException("the file of keys cannot be read: " + file, fault);
    }
  }

  private void make() throws IOException {
    byte[] key = new byte[32];
    RANDOM.nextBytes(key);
    Path whole =
        Files.createTempFile(
            file.toAbsolutePath().getParent(),
            "keys",
            ".tmp",
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
    Files.writeString(
        whole, "1 " + Base64.getEncoder().encodeToString(key) + "\n", StandardOpenOption.WRITE);
    try {
      Files.createLink(file, whole);
    } catch (FileAlreadyExistsException another) {
      // Another process was there first; its key is the one.
    } finally {
      Files.delete(whole);
    }
  }
}
