package mellowrota.core.sight;

import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import mellowrota.core.entry.Entry;
import mellowrota.core.people.ForSet;
import mellowrota.core.work.DetailKey;

/**
 * What an entry said when a coordinator last said yes to it, and whom each detail was for then.
 * Readers keep it until the next yes, each value as far as its set of then and that of now allow it
 * (LANDING 21).
 *
 * @param entry where and when it stood
 * @param title the wording's pattern, as are place and text
 * @param values of all that the patterns asked for
 * @param sets whom every detail that was used is for
 */
public record Released(
    Entry entry,
    String title,
    String place,
    String text,
    List<Value> values,
    String ref,
    Optional<String> placeName,
    List<Tag> categories,
    List<Attendee> attendees,
    Map<DetailKey, ForSet> sets) {

  /** What a pattern asked for by this name, in this format, and got. */
  public record Value(
      String name, DetailKey detail, Optional<String> format, Optional<String> words) {}

  /**
   * A category, and as which detail it is kept back.
   *
   * @param detail empty: it is for everyone
   */
  public record Tag(Optional<DetailKey> detail, String word) {}

  public Released {
    Objects.requireNonNull(entry, "entry");
    Objects.requireNonNull(ref, "ref");
    values = List.copyOf(values);
    categories = List.copyOf(categories);
    attendees = List.copyOf(attendees);
    sets = Map.copyOf(sets);
  }

  /** Two formats that print alike are one. */
  static Optional<String> called(Optional<DateTimeFormatter> format) {
    return format.map(DateTimeFormatter::toString);
  }

  /** What it said under a name; nothing where it was not asked. */
  Optional<String> value(String name, DetailKey detail, Optional<DateTimeFormatter> format) {
    Optional<String> called = called(format);
    for (Value value : values) {
      if (value.name().equals(name)
          && value.detail().equals(detail)
          && value.format().equals(called)) {
        return value.words();
      }
    }
    return Optional.empty();
  }

  /** The details that said something. */
  Set<DetailKey> filled() {
    Set<DetailKey> found = new TreeSet<>();
    found.add(DetailKey.TIMES);
    if (entry.bareTimes().isPresent()) {
      found.add(DetailKey.MARGINS);
    }
    for (Value value : values) {
      if (value.words().isPresent()) {
        found.add(value.detail());
      }
    }
    if (!attendees.isEmpty()) {
      found.add(DetailKey.PEOPLE);
    }
    return found;
  }
}
