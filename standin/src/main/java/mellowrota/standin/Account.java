package mellowrota.standin;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** A person at the host, with calendars and faults of their own. */
public final class Account {

  private final String name;
  private final String password;
  private final Faults faults = new Faults();
  private final Map<String, Collection> collections = new LinkedHashMap<>();

  private final Optional<Path> folder;
  private volatile String origin = "";

  Account(String name, String password, Optional<Path> folder) {
    this.name = name;
    this.password = password;
    this.folder = folder;
  }

  public String name() {
    return name;
  }

  String password() {
    return password;
  }

  public Faults faults() {
    return faults;
  }

  /** Has it told that the account is elsewhere, as an origin without a slash; empty: it is here. */
  public void livesAt(String elsewhere) {
    origin = elsewhere;
  }

  String origin() {
    return origin;
  }

  /** Makes a calendar at {@code /dav/ACCOUNT/ID/}. */
  public synchronized Collection make(String id, String title) {
    return collections.computeIfAbsent(
        id, key -> new Collection(id, title, folder.map(in -> in.resolve(id))));
  }

  public synchronized Map<String, Collection> collections() {
    return new LinkedHashMap<>(collections);
  }

  /** The calendar by this id, if there is one. */
  public synchronized Optional<Collection> collection(String id) {
    return Optional.ofNullable(collections.get(id));
  }
}
