package mellowrota.standin;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** A calendar: objects by name, each change with the next number (RFC 6578). */
public final class Collection {

  private static final Pattern UID = Pattern.compile("(?m)^UID:(.*?)\\r?$");

  /** One calendar object resource. */
  public record Stored(String text, String etag, long changedAt) {
    /** The UID that its text names. */
    public String uid() {
      return uidOf(text).orElse("");
    }
  }

  /** What a change was asked to find there. */
  public enum Outcome {
    CREATED,
    CHANGED,
    DELETED,
    PRECONDITION_FAILED,
    NOT_FOUND,
    UID_TAKEN
  }

  private final String id;
  private final String title;
  private final String resource;
  private final Map<String, Stored> objects = new LinkedHashMap<>();
  private final Map<String, String> byUid = new HashMap<>();
  private final Map<String, Long> removed = new TreeMap<>();
  private final Optional<Path> folder;
  private long number;
  private long writes;

  /**
   * A calendar.
   *
   * @param folder where it is kept, a file an object, its number in the first line; empty: nowhere
   */
  Collection(String id, String title, Optional<Path> folder) {
    this.id = id;
    this.title = title;
    this.folder = folder;
    folder.ifPresent(this::load);
    resource = resource(folder);
  }

  private void load(Path from) {
    try {
      Files.createDirectories(from);
      try (Stream<Path> files = Files.list(from)) {
        for (Path one : files.toList()) {
          String[] kept = Files.readString(one).split("\n", 2);
          long changedAt = Long.parseLong(kept[0]);
          number = Math.max(number, changedAt);
          String name = URLDecoder.decode(one.getFileName().toString(), StandardCharsets.UTF_8);
          Stored stored = new Stored(kept[1], tag(changedAt), changedAt);
          objects.put(name, stored);
          byUid.put(stored.uid(), name);
        }
      }
    } catch (IOException failure) {
      throw new UncheckedIOException(failure);
    }
  }

  /** What it is called whatever its address (RFC 5842 §3.1); kept beside its folder. */
  private static String resource(Optional<Path> folder) {
    String fresh = "urn:uuid:" + UUID.randomUUID();
    if (folder.isEmpty()) {
      return fresh;
    }
    Path kept = folder.get().resolveSibling(folder.get().getFileName() + ".id");
    try {
      if (!Files.exists(kept)) {
        Files.writeString(kept, fresh);
      }
      return Files.readString(kept);
    } catch (IOException failure) {
      throw new UncheckedIOException(failure);
    }
  }

  public String resource() {
    return resource;
  }

  private String tag(long changedAt) {
    return "\"" + id + "-" + changedAt + "\"";
  }

  private Path file(Path in, String name) {
    return in.resolve(URLEncoder.encode(name, StandardCharsets.UTF_8));
  }

  private void keep(String name) {
    if (folder.isEmpty()) {
      return;
    }
    try {
      Stored one = objects.get(name);
      if (one == null) {
        Files.deleteIfExists(file(folder.get(), name));
      } else {
        Files.writeString(file(folder.get(), name), one.changedAt() + "\n" + one.text());
      }
    } catch (IOException failure) {
      throw new UncheckedIOException(failure);
    }
  }

  public String id() {
    return id;
  }

  public String title() {
    return title;
  }

  static Optional<String> uidOf(String text) {
    Matcher found = UID.matcher(text.replaceAll("\\r?\\n[ \\t]", ""));
    return found.find() ? Optional.of(found.group(1).strip()) : Optional.empty();
  }

  /** All that stands there now, by name. */
  public synchronized Map<String, Stored> objects() {
    return new LinkedHashMap<>(objects);
  }

  /** How often something was written or removed. */
  public synchronized long writes() {
    return writes;
  }

  synchronized long number() {
    return number;
  }

  synchronized Optional<Stored> get(String name) {
    return Optional.ofNullable(objects.get(name));
  }

  /** Writes, if what stands there passes; atomically (RFC 9110 §13). */
  public synchronized Outcome put(String name, String text, Predicate<Optional<Stored>> passes) {
    Optional<Stored> before = get(name);
    if (!passes.test(before)) {
      return Outcome.PRECONDITION_FAILED;
    }
    String uid = uidOf(text).orElse("");
    if (!byUid.getOrDefault(uid, name).equals(name)) {
      return Outcome.UID_TAKEN;
    }
    number++;
    writes++;
    before.ifPresent(one -> byUid.remove(one.uid()));
    byUid.put(uid, name);
    objects.put(name, new Stored(text, tag(number), number));
    removed.remove(name);
    keep(name);
    return before.isPresent() ? Outcome.CHANGED : Outcome.CREATED;
  }

  /** Removes, if what stands there passes. */
  public synchronized Outcome delete(String name, Predicate<Optional<Stored>> passes) {
    Optional<Stored> before = get(name);
    if (before.isEmpty()) {
      return Outcome.NOT_FOUND;
    }
    if (!passes.test(before)) {
      return Outcome.PRECONDITION_FAILED;
    }
    number++;
    writes++;
    objects.remove(name);
    byUid.remove(before.get().uid());
    removed.put(name, number);
    keep(name);
    return Outcome.DELETED;
  }

  /** What changed after a number, and what went. */
  record Changes(Map<String, Stored> changed, List<String> removed, long number) {}

  synchronized Changes since(long from) {
    Map<String, Stored> changed = new LinkedHashMap<>();
    objects.forEach(
        (name, one) -> {
          if (one.changedAt() > from) {
            changed.put(name, one);
          }
        });
    List<String> gone = new ArrayList<>();
    removed.forEach(
        (name, at) -> {
          if (at > from) {
            gone.add(name);
          }
        });
    return new Changes(changed, gone, number);
  }
}
