package mellowrota.server.crew;

import java.util.Map;

/** What rows that acts settle are called, by whoever keeps them. */
public interface NamedRows {

  /** By table and number, as {@code team 5}. */
  Map<String, String> names();
}
