package mellowrota.core.entry;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Objects;
import java.util.UUID;

/**
 * The identifier of an entry in every calendar program (RFC 5545 §3.8.4.7), for life: a name-based
 * UUID (RFC 9562 §5.3 form) of the house's seed and the entry's key, so the same key always has the
 * same one and nothing can be read off it.
 */
public record Uid(String value) {

  private static final long VERSION_3 = 3L << 12;
  private static final long VARIANT = 0b10L << 62;

  public Uid {
    Objects.requireNonNull(value, "value");
  }

  public static Uid of(String houseSeed, EntryKey key) {
    String name =
        houseSeed
            + '/'
            + key.record().value()
            + '/'
            + key.visit()
            + '/'
            + key.calendar().value()
            + '/'
            + key.family();
    ByteBuffer hash = ByteBuffer.wrap(Hash.MD5.of(name.getBytes(StandardCharsets.UTF_8)));
    long high = hash.getLong() & ~0xF000L | VERSION_3;
    long low = hash.getLong() & ~(0b11L << 62) | VARIANT;
    return new Uid(new UUID(high, low).toString());
  }

  @Override
  public String toString() {
    return value;
  }
}
