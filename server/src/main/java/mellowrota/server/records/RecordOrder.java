package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Base64;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Place;
import mellowrota.server.platform.Problem;

/**
 * In which order records are listed, as questions that an index answers from any cursor on. What
 * has not what an order goes by, or has it hidden from the asker, comes last, as it was made (SIGHT
 * 9): that is a second question, asked where the first one ended.
 */
enum RecordOrder {
  /** By due time or beginning. */
  SOONEST("sorts_at", "times", false),
  LATEST("sorts_at", "times", true),
  DUE("due_at", "times", false),
  DUE_LAST("due_at", "times", true),
  BEGIN("begins_at", "times", false),
  BEGIN_LAST("begins_at", "times", true),
  /** By what was changed last for the office, which alone may ask for it. */
  CHANGED("changed_at", "", true),
  CHANGED_FIRST("changed_at", "", false),
  /** As they were made, the last one first. */
  NEWEST("", "", true),
  OLDEST("", "", false),
  /** By the name of their place. */
  PLACE("place", "place", false),
  PLACE_LAST("place", "place", true),
  /** By the value of a detail, which the list names; numbers as numbers, days as days. */
  DETAIL("", "", false),
  DETAIL_LAST("", "", true);

  private static final Instant FIRST = Instant.EPOCH;
  private static final Instant LAST = Instant.parse("2999-01-01T00:00:00Z");

  private static final String TIMED =
      """
      select false as is_rest, cast(extract(epoch from r.%1$s) * 1000 as bigint) as key, r.id from %2$s
      where %3$s and r.%1$s is not null and (r.%1$s, r.id) %4$s (:at, :id)
      order by r.%1$s%5$s, r.id%5$s limit :most
      """;

  /** One place after the other, as they are given: none is looked at before it is wanted. */
  private static final String PLACED =
      """
      select false as is_rest, p.id as key, f.id from unnest(:spots) as p(id) cross join lateral (
        select r.id from %2$s
        where %3$s and r.place = p.id and (p.id <> :key or r.id %4$s :id)
        order by r.id%5$s limit :most) f
      limit :most
      """;

  private static final String MADE =
      """
      select false as is_rest, cast(0 as bigint) as key, r.id from %2$s
      where %3$s and r.id %4$s :id order by r.id%5$s limit :most
      """;

  /** What lacks it and what hides it are told apart by nothing. */
  private static final String REST =
      """
      select true as is_rest, cast(0 as bigint) as key, f.id from (
        (select r.id from %2$s where %3$s and r.%1$s is null and r.id %4$s :id
          order by r.id%5$s limit :most)
        union all
        (select r.id from %2$s where %3$s and r.%1$s is not null and not sees.%6$s
          and r.id %4$s :id order by r.id%5$s limit :most)) f
      order by f.id%5$s limit :most
      """;

  /** The value that a cursor stands at is looked up as the asker sees it, never told by it. */
  private static final String VALUED =
      """
      with shown as materialized (
        select f.id, f.v from (select r.id, %1$s as v from %2$s where %3$s) f where f.v is not null)
      select false as is_rest, cast(1 as bigint) as key, s.id from shown s
      where :key = 0 or (s.v, s.id) %4$s (select c.v, c.id from shown c where c.id = :id)
      order by s.v%5$s, s.id%5$s limit :most
      """;

  private static final String UNVALUED =
      """
      select true as is_rest, cast(0 as bigint) as key, r.id from %2$s
      where %3$s and %1$s is null and r.id %4$s :id order by r.id%5$s limit :most
      """;

  /** Where a detail is for the asker unless a record says otherwise. */
  private static final String OTHERWISE =
      "%1$s and r.id in (select d.record from detail d where d.key = '%1$s' and d.for_bits is not null)";

  private final String column;
  private final String detail;
  private final boolean isDown;

  RecordOrder(String column, String detail, boolean isDown) {
    this.column = column;
    this.detail = detail;
    this.isDown = isDown;
  }

  /**
   * Where a record stands.
   *
   * @param isRest whether among those that come last
   * @param key the time, in milliseconds of the epoch, or the number of the place; 1 after a record
   *     that has the detail
   */
  record Spot(boolean isRest, long key, long id) {

    String cursor() {
      String text = (isRest ? "r" : "") + key + ":" + id;
      return Base64.getUrlEncoder()
          .withoutPadding()
          .encodeToString(text.getBytes(StandardCharsets.US_ASCII));
    }

    static Spot of(String cursor) {
      try {
        String text = new String(Base64.getUrlDecoder().decode(cursor), StandardCharsets.US_ASCII);
        boolean isRest = text.startsWith("r");
        String[] parts = (isRest ? text.substring(1) : text).split(":");
        Spot spot = new Spot(isRest, Long.parseLong(parts[0]), Long.parseLong(parts[1]));
        if (spot.at().isBefore(FIRST) || spot.at().isAfter(LAST)) {
          throw new IllegalArgumentException("outside");
        }
        return spot;
      } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException unreadable) {
        throw Problem.badRequest(say("records.cursor-is-not-from"));
      }
    }

    Instant at() {
      return Instant.ofEpochMilli(key);
    }
  }

  /** Before the first of them. */
  Spot begin() {
    return new Spot(
        false,
        isByPlace() || isByDetail() ? 0 : (isDown ? LAST : FIRST).toEpochMilli(),
        isDown ? Long.MAX_VALUE : 0);
  }

  /** Before the first of those that come last. */
  Spot beginRest() {
    return new Spot(true, 0, isDown ? Long.MAX_VALUE : 0);
  }

  boolean isByChange() {
    return column.equals("changed_at");
  }

  boolean isByPlace() {
    return column.equals("place");
  }

  boolean isByDetail() {
    return this == DETAIL || this == DETAIL_LAST;
  }

  /**
   * The question for those that have and show the value of a detail, or for the others.
   *
   * @param value what they are sorted by, as a part of the question
   */
  String byDetail(String value, String from, String where, boolean isRest) {
    return (isRest ? UNVALUED : VALUED)
        .formatted(value, from, where, isDown ? "<" : ">", isDown ? " desc" : "");
  }

  /** The numbers of the places, in this order, from one of them on; all from 0 on. */
  Long[] from(List<Place> places, long first) {
    Comparator<Place> byName =
        Comparator.comparing((Place one) -> one.name().toLowerCase(Locale.ROOT))
            .thenComparing(one -> one.id().value());
    return places.stream()
        .sorted(isDown ? byName.reversed() : byName)
        .map(one -> one.id().value())
        .dropWhile(one -> first != 0 && one != first)
        .toArray(Long[]::new);
  }

  /** What it goes by, where that may be missing or hidden. */
  Optional<DetailKey> detail() {
    return detail.isEmpty() ? Optional.empty() : Optional.of(new DetailKey(detail));
  }

  /** The question for those that have it and show it. */
  String first(String from, String where) {
    String shown = detail.isEmpty() ? where : where + " and sees." + detail;
    String question = column.isEmpty() ? MADE : isByPlace() ? PLACED : TIMED;
    return question.formatted(column, from, shown, isDown ? "<" : ">", isDown ? " desc" : "");
  }

  /**
   * The question for those that come last.
   *
   * @param isUsual whether the asker sees it wherever no record says otherwise
   */
  String rest(String from, String where, boolean isUsual) {
    return REST.formatted(
        column,
        from,
        where,
        isDown ? "<" : ">",
        isDown ? " desc" : "",
        isUsual ? OTHERWISE.formatted(detail) : detail);
  }
}
