package mellowrota.server.rules;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.entry.Reminder;
import mellowrota.core.rule.Shape;
import mellowrota.core.work.DetailSort;

/** What the file of a set calls things that the API calls by constants. */
final class FileWords {

  static final Map<String, String> SHAPES = of(Shape.class);
  static final Map<String, String> SORTS = of(DetailSort.class);
  static final Map<String, String> WHEN_DONE =
      Map.of("STAYS_WITH_TICK", "stays with a tick", "COMES_OFF", "comes off");

  static final Map<String, String> ATTENDEES =
      Map.of(
          "EVERYBODY",
          "everybody on the job",
          "ONLY_ONESELF",
          "each person alone",
          "NOBODY",
          "nobody");
  static final Map<String, String> UNITS = of(Reminder.Unit.class);

  static {
    SHAPES.put("SPAN", "the span");
    SHAPES.put("SPAN_WITH_MARGINS", "the span with margins");
    SHAPES.put("WHOLE_DAY", "the whole day");
    SHAPES.put("GIVEN_DUE", "given to due");
    SHAPES.put("DUE_MARK", "due mark");
    SORTS.put("YES_NO", "yes or no");
    SORTS.put("NOTES", "lines of text");
    SORTS.put("MONEY", "amount");
    SORTS.put("PHONE", "phone number");
  }

  private FileWords() {}

  /** Each constant in small letters. */
  static Map<String, String> of(Class<? extends Enum<?>> type) {
    Map<String, String> words = new LinkedHashMap<>();
    for (Enum<?> constant : type.getEnumConstants()) {
      words.put(constant.name(), lower(constant.name()));
    }
    return words;
  }

  static String lower(String constant) {
    return constant.toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  /** The constant that a file calls so, whatever the case. */
  static Optional<String> constant(Map<String, String> words, String said) {
    return words.entrySet().stream()
        .filter(one -> one.getValue().equalsIgnoreCase(said.strip()))
        .map(Map.Entry::getKey)
        .findFirst();
  }
}
