package mellowrota.core.entry;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;

/** Digests that every Java platform has; a clone costs less than looking one up again. */
public enum Hash {
  MD5("MD5"),
  SHA_256("SHA-256");

  private final MessageDigest fresh;

  Hash(String algorithm) {
    try {
      fresh = MessageDigest.getInstance(algorithm);
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException("every Java platform has " + algorithm, impossible);
    }
  }

  /** A digest to add to, for what does not stand in memory at once. */
  public MessageDigest running() {
    try {
      return (MessageDigest) fresh.clone();
    } catch (CloneNotSupportedException impossible) {
      throw new IllegalStateException("the platform's digests can be cloned", impossible);
    }
  }

  /** The digest of the bytes: 16 of MD5, 32 of SHA-256. */
  public byte[] of(byte[] bytes) {
    return running().digest(bytes);
  }
}
