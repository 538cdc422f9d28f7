package mellowrota.core.entry;

import java.nio.charset.StandardCharsets;
import java.util.Objects;
import java.util.UUID;

/**
 * The identifier of an entry in every calendar program (RFC 5545 §3.8.4.7), for life: a name-based
 * UUID (RFC 9562 §5.3 form) of the house's seed and the entry's key, so the same key always has the
 * same one and nothing can be read off it.
 */
public record Uid(String value) {

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
    return new Uid(UUID.nameUUIDFromBytes(name.getBytes(StandardCharsets.UTF_8)).toString());
  }

  @Override
  public String toString() {
    return value;
  }
}
