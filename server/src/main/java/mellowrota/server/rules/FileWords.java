package mellowrota.server.rules;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.entry.Reminder;
import mellowrota.core.people.ForSet;
import mellowrota.core.rule.Shape;
import mellowrota.core.work.DetailSort;

/** What the file of a set calls things that the API calls by constants. */
final class FileWords {

  static final Map<String, String> SHAPES = words(Shape.class, "SPAN", "the span");
  static final Map<String, String> SORTS = words(DetailSort.class, "YES_NO", "yes or no");
  static final Map<String, String> WHEN_DONE =
      Map.of("STAYS_WITH_TICK", "stays with a tick", "COMES_OFF", "comes off");

  static final Map<String, String> ATTENDEES =
      Map.of("EVERYBODY", "everybody on it", "ONLY_ONESELF", "only oneself", "NOBODY", "nobody");
  static final Map<String, String> RELEASE = Map.of("true", "after a yes", "false", "by itself");
  static final Map<String, String> UNITS = words(Reminder.Unit.class, "MINUTES", "minutes");

  static final Map<String, ForSet> PRESETS = new LinkedHashMap<>();

  static {
    SHAPES.put("SPAN_WITH_MARGINS", "the span with margins");
    SHAPES.put("WHOLE_DAY", "the whole day");
    SHAPES.put("GIVEN_DUE", "given to due");
    SHAPES.put("DUE_MARK", "due mark");
    SORTS.put("NOTES", "lines of text");
    SORTS.put("MONEY", "amount");
    SORTS.put("PHONE", "phone number");
    PRESETS.put("everyone", ForSet.EVERYONE);
    PRESETS.put("crew", ForSet.CREW);
    PRESETS.put("people on it", ForSet.PEOPLE_ON_IT);
    PRESETS.put("office", ForSet.OFFICE);
  }

  private FileWords() {}

  private static <E extends Enum<E>> Map<String, String> words(
      Class<E> type, String name, String word) {
    Map<String, String> found = new LinkedHashMap<>();
    for (E one : type.getEnumConstants()) {
      found.put(one.name(), lower(one.name()));
    }
    found.put(name, word);
    return found;
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
