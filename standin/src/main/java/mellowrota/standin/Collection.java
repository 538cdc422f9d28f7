package mellowrota.standin;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

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
  private final Map<String, Stored> objects = new LinkedHashMap<>();
  private final Map<String, Long> removed = new TreeMap<>();
  private long number;
  private long writes;

  Collection(String id, String title) {
    this.id = id;
    this.title = title;
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
    boolean taken =
        objects.entrySet().stream()
            .anyMatch(one -> !one.getKey().equals(name) && one.getValue().uid().equals(uid));
    if (taken) {
      return Outcome.UID_TAKEN;
    }
    number++;
    writes++;
    objects.put(name, new Stored(text, "\"" + id + "-" + number + "\"", number));
    removed.remove(name);
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
    removed.put(name, number);
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
