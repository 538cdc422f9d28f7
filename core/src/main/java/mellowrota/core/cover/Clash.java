package mellowrota.core.cover;

import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.PlaceId;

/**
 * Things one person cannot all do, or that a house limit does not want: one of a pair of items and
 * a person, or of a person, a limit and a span (COVER 15 to 24).
 *
 * @param also what else is wrong with the same pair
 * @param person empty only where a place holds too much
 * @param items by start
 * @param span where it is: of a pair what both take, or what lies between them; may be empty
 */
public record Clash(
    Kind kind,
    Level level,
    List<Kind> also,
    Optional<PersonId> person,
    Optional<PlaceId> place,
    List<Item> items,
    TimeSpan span) {

  /** What is wrong; of several on a pair the earlier stands, where their limits are alike. */
  public enum Kind {
    /** Two works at once. */
    DOUBLE,
    /** Work on agreed leave. */
    LEAVE,
    /** Work over what stands in a calendar of theirs. */
    BUSY,
    /** No time to get from one place to the other. */
    TRAVEL,
    /** Too little rest between two stretches of work. */
    REST,
    /** A margin that does not fit; always soft. */
    MARGIN,
    /** Work outside working hours. */
    HOURS,
    /** A stretch of work that is too long. */
    LONGEST,
    /** More hours in a week than the limit. */
    WEEK,
    /** More hours over the reference period than the limit. */
    PERIOD,
    /** Work on too many days in a row. */
    DAYS,
    /** Work in too many nights in a row. */
    NIGHTS,
    /** None of the places of the work is one they can fill. */
    SKILL,
    /** Work after their last day; never allowed. */
    LEFT,
    /** More in a place than it holds. */
    CAPACITY,
    /** Work at a place while it is shut; it only warns. */
    SHUT,
    /** Too much due on one day. */
    DUE
  }

  /** How far the house minds. */
  public enum Level {
    NEVER,
    WARN
  }

  /** What an item of a clash is. */
  public enum Sort {
    WORK,
    LEAVE,
    BUSY
  }

  /**
   * One thing that takes time.
   *
   * @param id of its sort; outside busy time has none
   */
  public record Item(Sort sort, String id, TimeSpan span) {}

  public static final Comparator<Clash> BY_START =
      Comparator.comparing((Clash one) -> one.span().start())
          .thenComparing(one -> one.span().end())
          .thenComparing(Clash::kind)
          .thenComparing(one -> one.person().map(PersonId::value).orElse(0L))
          .thenComparing(one -> one.place().map(PlaceId::value).orElse(0L))
          .thenComparing(
              one -> one.items().stream().map(Item::id).collect(Collectors.joining(" ")));

  public Clash {
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(level, "level");
    Objects.requireNonNull(person, "person");
    Objects.requireNonNull(place, "place");
    Objects.requireNonNull(span, "span");
    also = List.copyOf(also);
    items = List.copyOf(items);
  }

  /** Somebody's. */
  static Clash of(
      PersonId person, Kind kind, Level level, List<Kind> also, List<Item> items, TimeSpan span) {
    return new Clash(kind, level, also, Optional.of(person), Optional.empty(), items, span);
  }

  /** Nobody's, at a place. */
  static Clash at(PlaceId place, Kind kind, Level level, List<Item> items, TimeSpan span) {
    return new Clash(kind, level, List.of(), Optional.empty(), Optional.of(place), items, span);
  }

  public boolean involves(String work) {
    return items.stream().anyMatch(one -> one.sort() == Sort.WORK && one.id().equals(work));
  }
}
