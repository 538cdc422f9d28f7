package mellowrota.server.platform;

import static mellowrota.server.platform.Words.say;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * An expected refusal that reaches the caller as a problem document (RFC 9457). Its words say what,
 * where and how to mend it.
 */
public final class Problem extends RuntimeException {

  private final int status;
  private final String type;
  private final Map<String, Object> more = new LinkedHashMap<>();

  /**
   * A fault at one place of the input.
   *
   * @param pointer a JSON pointer (RFC 6901) into the body, or the name of a parameter
   */
  public record Fault(String pointer, String message) {}

  private Problem(int status, String type, String detail) {
    super(detail, null, false, false);
    this.status = status;
    this.type = type;
  }

  public static Problem of(int status, String type, String detail) {
    return new Problem(status, type, detail);
  }

  public static Problem badRequest(String detail) {
    return new Problem(400, "malformed", detail);
  }

  public static Problem faults(List<Fault> faults) {
    Fault first = faults.get(0);
    return new Problem(422, "faults", first.pointer() + ": " + first.message())
        .with("faults", faults);
  }

  public static Problem fault(String pointer, String message) {
    return faults(List.of(new Fault(pointer, message)));
  }

  /** Alike whether it is not there or not for the asker. */
  public static Problem notFound() {
    return new Problem(404, "not-found", say("platform.this-does-not-exist"));
  }

  public static Problem forbidden(String detail) {
    return new Problem(403, "not-allowed", detail);
  }

  public Problem with(String name, Object value) {
    more.put(name, value);
    return this;
  }

  /** The same, of an input that stands at a pointer inside a larger one. */
  public Problem inside(String pointer) {
    Problem outer = new Problem(status, type, getMessage());
    outer.more.putAll(more);
    if (more.get("faults") instanceof List<?> faults) {
      outer.more.put(
          "faults",
          faults.stream()
              .map(Fault.class::cast)
              .map(fault -> new Fault(pointer + fault.pointer(), fault.message()))
              .toList());
    }
    return outer;
  }

  public int status() {
    return status;
  }

  public String type() {
    return type;
  }

  public Map<String, Object> more() {
    return more;
  }
}
