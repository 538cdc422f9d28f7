package mellowrota.server.platform;

import static mellowrota.server.platform.Words.say;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.lang.reflect.RecordComponent;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import mellowrota.core.time.Validity;
import tools.jackson.databind.JsonNode;

/**
 * Reads a JSON object field by field and collects every fault with its pointer, so that one answer
 * tells all that is wrong.
 */
public final class Input {

  /** Dates outside are taken for slips. */
  private static final LocalDate EARLIEST = LocalDate.of(1990, 1, 1);

  private static final LocalDate LATEST = LocalDate.of(2200, 1, 1);

  private final JsonNode node;
  private final String pointer;
  private final List<Problem.Fault> faults;

  private Input(JsonNode node, String pointer, List<Problem.Fault> faults) {
    this.node = node;
    this.pointer = pointer;
    this.faults = faults;
  }

  /** Begins with a body, which must be an object with no other fields than its view has. */
  public static Input of(JsonNode body, Class<? extends Record> view) {
    return of(body, names(view));
  }

  /** The same with some fields only. */
  public static Input of(JsonNode body, Set<String> known) {
    if (body == null || !body.isObject()) {
      throw Problem.badRequest(say("platform.the-body-must-be"));
    }
    Input input = new Input(body, "", new ArrayList<>());
    input.onlyKnown(known);
    return input;
  }

  /** What the fields of a view are called in JSON. */
  public static Set<String> names(Class<? extends Record> view) {
    return NAMES.get(view);
  }

  private static final ClassValue<Set<String>> NAMES =
      new ClassValue<>() {
        @Override
        protected Set<String> computeValue(Class<?> view) {
          return Arrays.stream(view.getRecordComponents())
              .map(Input::name)
              .collect(Collectors.toUnmodifiableSet());
        }
      };

  /** What a field of a view is called in JSON. */
  static String name(RecordComponent field) {
    JsonProperty named = field.getAccessor().getAnnotation(JsonProperty.class);
    return named == null ? field.getName() : named.value();
  }

  private void onlyKnown(Set<String> known) {
    for (String name : node.propertyNames()) {
      if (!known.contains(name)) {
        String listed = String.join(", ", known.stream().sorted().toList());
        fault(shown(name), say("platform.is-not-a-field", listed));
      }
    }
  }

  /** A name as it may stand in an answer: what a caller sent is cut and cleaned. */
  private static String shown(String name) {
    String clean = name.replaceAll("[^\\p{Alnum} _-]", "?");
    return clean.length() > 40 ? clean.substring(0, 40) : clean;
  }

  public void fault(String field, String message) {
    Problem.Fault found =
        new Problem.Fault(field.isEmpty() ? pointer : pointer + "/" + field, message);
    // A field may be read more than once.
    if (!faults.contains(found)) {
      faults.add(found);
    }
  }

  /** Throws all faults found so far, if any. */
  public void check() {
    if (!faults.isEmpty()) {
      throw Problem.faults(faults);
    }
  }

  public boolean has(String field) {
    return node.has(field);
  }

  public boolean isNull(String field) {
    return node.has(field) && node.get(field).isNull();
  }

  public Set<String> names() {
    return new java.util.TreeSet<>(node.propertyNames());
  }

  /** Text of at most so many characters, trimmed; absent and null read as empty. */
  public String text(String field, int most) {
    return textOrFault(field, most, false);
  }

  /** The same, of several lines. */
  public String lines(String field, int most) {
    return textOrFault(field, most, true);
  }

  /** What is read of a field, where it was sent. */
  public <T> Optional<T> ifSent(String field, Function<String, T> read) {
    return has(field) ? Optional.of(read.apply(field)) : Optional.empty();
  }

  /** As it was typed, blanks and all, such as a password; missing is a fault. */
  public String asTyped(String field, int most) {
    String typed = has(field) && node.get(field).isString() ? node.get(field).asString() : "";
    if (typed.isEmpty()) {
      fault(field, say("common.is-missing"));
    } else if (typed.length() > most) {
      fault(field, say("common.is-longer-than-characters", most));
    }
    return typed;
  }

  public String required(String field, int most) {
    String text = text(field, most);
    if (text.isEmpty() && faultsAt(field) == 0) {
      fault(field, say("common.is-missing"));
    }
    return text;
  }

  /** Whether a fault was found in a field or inside it, so that no second one is told. */
  public boolean namesFault(String field) {
    String at = pointer + "/" + field;
    return faults.stream()
        .anyMatch(f -> f.pointer().equals(at) || f.pointer().startsWith(at + "/"));
  }

  private long faultsAt(String field) {
    return faults.stream().filter(f -> f.pointer().equals(pointer + "/" + field)).count();
  }

  private String textOrFault(String field, int most, boolean lines) {
    if (!has(field) || isNull(field)) {
      return "";
    }
    if (!node.get(field).isString()) {
      fault(field, say("platform.must-be-a-text"));
      return "";
    }
    String text = node.get(field).asString().replace("\r\n", "\n").strip();
    if (text.length() > most) {
      fault(field, say("common.is-longer-than-characters", most));
      return "";
    }
    int lost = lost(text, lines);
    if (lost >= 0) {
      fault(field, say("common.contains-a-character-that", (lost + 1)));
      return "";
    }
    return text;
  }

  /** Where the first character stands that cannot be kept; -1 where all can. */
  private static int lost(String text, boolean lines) {
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      boolean alone =
          Character.isHighSurrogate(c)
                  && (i + 1 == text.length() || !Character.isLowSurrogate(text.charAt(i + 1)))
              || Character.isLowSurrogate(c)
                  && (i == 0 || !Character.isHighSurrogate(text.charAt(i - 1)));
      boolean control = Character.isISOControl(c) && !(lines && c == '\n');
      if (control || alone || c == '\ufffe' || c == '\uffff' || c == '\u2028' || c == '\u2029') {
        return i;
      }
    }
    return -1;
  }

  public Optional<Boolean> flag(String field) {
    if (!has(field) || isNull(field)) {
      return Optional.empty();
    }
    if (!node.get(field).isBoolean()) {
      fault(field, say("platform.must-be-true-or"));
      return Optional.empty();
    }
    return Optional.of(node.get(field).asBoolean());
  }

  /** A whole number from 0 up, such as an id. */
  public OptionalLong number(String field) {
    if (!has(field) || isNull(field)) {
      return OptionalLong.empty();
    }
    JsonNode value = node.get(field);
    if (!value.isIntegralNumber() || !value.canConvertToLong() || value.asLong() < 0) {
      fault(field, say("platform.must-be-a-whole"));
      return OptionalLong.empty();
    }
    return OptionalLong.of(value.asLong());
  }

  /** The days {@code first} and {@code last}, each if it is there. */
  public Validity validity() {
    Optional<LocalDate> first = day("first");
    Optional<LocalDate> last = day("last");
    if (first.isPresent() && last.isPresent() && last.get().isBefore(first.get())) {
      fault("last", say("common.is-before-the-first"));
    }
    return new Validity(first, last);
  }

  /** A length in whole minutes, from 0 to {@code most}; null is none. */
  public Optional<Duration> minutes(String field, long most) {
    OptionalLong minutes = number(field);
    if (minutes.isPresent() && minutes.getAsLong() > most) {
      fault(field, say("common.must-be-from-0", most));
    }
    return minutes.isPresent()
        ? Optional.of(Duration.ofMinutes(Math.min(minutes.getAsLong(), most)))
        : Optional.empty();
  }

  /** A number, with a fraction or without, from minus {@code most} to {@code most}. */
  public Optional<Double> decimal(String field, double most) {
    if (!has(field) || isNull(field)) {
      return Optional.empty();
    }
    JsonNode value = node.get(field);
    if (!value.isNumber() || !(Math.abs(value.asDouble()) <= most)) {
      fault(field, say("platform.must-be-a-number", most, most));
      return Optional.empty();
    }
    return Optional.of(value.asDouble());
  }

  public <E extends Enum<E>> Optional<E> choice(String field, Class<E> type) {
    return parsed(
        field,
        text -> Enum.valueOf(type, text.toUpperCase(Locale.ROOT)),
        say("common.must-be-one-of", listed(type)));
  }

  /** One that has to be there. */
  public <E extends Enum<E>> Optional<E> requiredChoice(String field, Class<E> type) {
    Optional<E> choice = choice(field, type);
    if (choice.isEmpty() && !namesFault(field)) {
      fault(field, say("platform.is-missing-one-of", listed(type)));
    }
    return choice;
  }

  private static String listed(Class<? extends Enum<?>> type) {
    return Arrays.stream(type.getEnumConstants()).map(Enum::name).collect(Collectors.joining(", "));
  }

  /** What was made of a text; one that nothing can be made of is a fault. */
  private <T> Optional<T> parsed(String field, Function<String, T> parse, String fault) {
    if (!has(field) || isNull(field)) {
      return Optional.empty();
    }
    try {
      return Optional.of(
          parse.apply(node.get(field).isString() ? node.get(field).asString().strip() : ""));
    } catch (DateTimeException | IllegalArgumentException unreadable) {
      fault(field, fault);
      return Optional.empty();
    }
  }

  public Optional<LocalDate> day(String field) {
    return parsed(field, LocalDate::parse, say("platform.must-be-a-date"))
        .filter(day -> sensible(field, day));
  }

  /** A time of the day that has to be there, as 07:30. */
  public Optional<LocalTime> clock(String field) {
    required(field, 5);
    return namesFault(field)
        ? Optional.empty()
        : parsed(field, LocalTime::parse, say("platform.must-be-a-time-such"));
  }

  /** A moment that has to be there, as 2026-11-27T09:00:00Z. */
  public Optional<Instant> moment(String field) {
    required(field, 40);
    return namesFault(field)
        ? Optional.empty()
        : parsed(field, Instant::parse, say("platform.must-be-a-moment"));
  }

  public Optional<LocalDateTime> localTime(String field) {
    return parsed(field, LocalDateTime::parse, say("platform.must-be-a-local"))
        .filter(time -> sensible(field, time.toLocalDate()))
        .map(time -> time.withNano(0));
  }

  private boolean sensible(String field, LocalDate day) {
    if (day.isBefore(EARLIEST) || !day.isBefore(LATEST)) {
      fault(field, say("platform.must-be-between-1990"));
      return false;
    }
    return true;
  }

  public Optional<ZoneId> zone(String field) {
    return parsed(field, Input::region, say("platform.must-be-a-time"));
  }

  private static ZoneId region(String text) {
    ZoneId zone = ZoneId.of(text);
    if (zone instanceof ZoneOffset || !ZoneId.getAvailableZoneIds().contains(text)) {
      throw new DateTimeException("no region");
    }
    return zone;
  }

  public Optional<Input> object(String field, Class<? extends Record> view) {
    if (!has(field) || isNull(field)) {
      return Optional.empty();
    }
    if (!node.get(field).isObject()) {
      fault(field, say("platform.must-be-an-object"));
      return Optional.empty();
    }
    Input inner = new Input(node.get(field), pointer + "/" + field, faults);
    inner.onlyKnown(names(view));
    return Optional.of(inner);
  }

  /** An object whose names are not fixed; the caller judges them. */
  public Optional<Input> open(String field) {
    if (!has(field) || isNull(field)) {
      return Optional.empty();
    }
    if (!node.get(field).isObject()) {
      fault(field, say("platform.must-be-an-object"));
      return Optional.empty();
    }
    return Optional.of(new Input(node.get(field), pointer + "/" + field, faults));
  }

  public List<Input> objects(String field, int most, Class<? extends Record> view) {
    List<Input> found = new ArrayList<>();
    for (JsonNode item : items(field, most)) {
      Input inner = new Input(item, pointer + "/" + field + "/" + found.size(), faults);
      if (item.isObject()) {
        inner.onlyKnown(names(view));
      } else {
        inner.fault("", say("platform.must-be-an-object"));
      }
      found.add(inner);
    }
    return found;
  }

  public List<String> texts(String field, int most, int length) {
    List<String> found = new ArrayList<>();
    for (JsonNode item : items(field, most)) {
      if (!item.isString() || item.asString().length() > length) {
        fault(field, say("platform.must-hold-texts-of", length));
        return List.of();
      }
      String text = item.asString().strip();
      if (text.isEmpty() || lost(text, false) >= 0) {
        fault(field, say("platform.contains-an-empty-text"));
        return List.of();
      }
      found.add(text);
    }
    return found;
  }

  /** Whole numbers from 0 up, such as ids. */
  public List<Long> numbers(String field, int most) {
    List<Long> found = new ArrayList<>();
    for (JsonNode item : items(field, most)) {
      if (!item.isIntegralNumber() || !item.canConvertToLong() || item.asLong() < 0) {
        fault(field, say("platform.must-hold-whole-numbers"));
        return List.of();
      }
      found.add(item.asLong());
    }
    return found;
  }

  private Iterable<JsonNode> items(String field, int most) {
    if (!has(field) || isNull(field)) {
      return List.of();
    }
    if (!node.get(field).isArray() || node.get(field).size() > most) {
      fault(field, say("platform.must-be-a-list", most));
      return List.of();
    }
    return node.get(field);
  }
}
