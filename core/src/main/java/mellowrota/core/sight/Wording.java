package mellowrota.core.sight;

import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.entry.WordingId;
import mellowrota.core.work.DetailKey;

/**
 * The patterns for an entry's title, place and text, and what travels as categories.
 *
 * @param fixed why nobody may put a title of their own in place of its title; empty: they may
 */
public record Wording(
    WordingId id,
    String name,
    Pattern title,
    Pattern place,
    Pattern text,
    Set<Category> categories,
    Optional<String> fixed) {

  /**
   * What may travel as CATEGORIES (RFC 5545 §3.8.1.2). Kind is for everyone, the others for crew.
   */
  public enum Category {
    KIND,
    TEAM,
    TAGS
  }

  public Wording {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(title, "title");
    Objects.requireNonNull(place, "place");
    Objects.requireNonNull(text, "text");
    Objects.requireNonNull(fixed, "fixed");
    categories = categories.isEmpty() ? EnumSet.noneOf(Category.class) : EnumSet.copyOf(categories);
  }

  /** One whose title a person may replace on their own calendar. */
  public Wording(
      WordingId id,
      String name,
      Pattern title,
      Pattern place,
      Pattern text,
      Set<Category> categories) {
    this(id, name, title, place, text, categories, Optional.empty());
  }

  /** The same under another title. */
  Wording titled(Pattern other) {
    return new Wording(id, name, other, place, text, categories, fixed);
  }

  /** Whether whatever is worded so reads as if it were worded like the other. */
  boolean readsAs(Wording other) {
    return this == other
        || title.toString().equals(other.title.toString())
            && place.toString().equals(other.place.toString())
            && text.toString().equals(other.text.toString())
            && categories.equals(other.categories);
  }

  /** Every detail it asks for. */
  public Set<DetailKey> asksFor() {
    Set<DetailKey> all = new LinkedHashSet<>(title.asksFor());
    all.addAll(place.asksFor());
    all.addAll(text.asksFor());
    return all;
  }
}
