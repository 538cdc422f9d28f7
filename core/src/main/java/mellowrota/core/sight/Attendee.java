package mellowrota.core.sight;

import java.nio.charset.StandardCharsets;
import java.util.Objects;
import java.util.UUID;
import mellowrota.core.people.PersonId;

/**
 * Somebody who stands in a face as invited (RFC 5545 §3.8.4.1).
 *
 * @param id tells people apart and nothing else; no address, so nobody learns one from an entry
 * @param informed is told of the work, and not on it
 */
public record Attendee(String id, String name, boolean informed) {

  public Attendee {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(name, "name");
  }

  /** The same person has the same one in every entry of the house. */
  static String id(String houseSeed, PersonId person) {
    String name = houseSeed + "/person/" + person.value();
    return UUID.nameUUIDFromBytes(name.getBytes(StandardCharsets.UTF_8)).toString();
  }
}
