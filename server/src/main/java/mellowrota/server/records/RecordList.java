package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.core.work.Kind;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.hibernate.query.NativeQuery;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Lists records in keyset pages. A cursor is made of the last record that was shown (SIGHT 9). */
@Service
@RequiredArgsConstructor
public class RecordList {

  private static final int AT_ONCE = 200;
  private static final int LONGEST_LINE = 200;
  private static final Instant LAST = Instant.parse("2999-01-01T00:00:00Z");

  /** Selects what the asker may open and may match by, and nothing else (SIGHT 9). */
  private static final String SELECT =
      "select due, id from (select r.id, %s as due from"
          + OpenableRecords.RECORDS
          + OpenableRecords.SEEN
          + " where "
          + FoundBy.CONDITION
          + " and "
          + OpenableRecords.MAY_OPEN
          + ") s where %s limit :most";

  /** As they were made: by their numbers alone. */
  private static final String MADE = "cast(:undated as timestamptz)";

  private static final String DUE =
      "case when sees.times then coalesce(r.sorts_at, :undated) else :undated end";

  /** In which order. */
  enum Sort {
    /** By due time or beginning; what has neither comes last. */
    SOONEST(DUE, "(due, -id) > (:due, -:id) order by due, -id", Instant.EPOCH, Long.MAX_VALUE),
    /** Likewise, the latest first. */
    LATEST(DUE, "(due, id) < (:due, :id) order by due desc, id desc", LAST, Long.MAX_VALUE),
    /** As they were made, the last one first. */
    NEWEST(MADE, "(due, id) < (:due, :id) order by due desc, id desc", LAST, Long.MAX_VALUE),
    OLDEST(MADE, "(due, id) > (:due, :id) order by due, id", LAST, 0);

    private final String select;
    private final Key begin;

    Sort(String key, String goesOn, Instant due, long id) {
      select = SELECT.formatted(key, goesOn);
      begin = new Key(due, id);
    }

    /** Of what has no time, or none that its asker may know. */
    Instant undated() {
      return this == LATEST ? Instant.EPOCH : LAST;
    }
  }

  private final OpenableRecords opens;
  private final Finding finding;
  private final Clock clock;
  private final RecordStore store;
  private final RecordAccess access;
  private final RecordViews views;

  /** What is asked for. */
  public record Wanted(
      String find,
      Optional<Kind> kind,
      Set<State> states,
      OptionalLong person,
      OptionalLong place,
      OptionalLong team,
      Sort sort,
      Optional<String> cursor,
      int limit) {

    /** From what stands in an address; refuses what is none of these. */
    public static Wanted of(
        String find, String kind, String state, Long person, Long place, Long team, String sort) {
      requireLine(find);
      Set<State> states = EnumSet.noneOf(State.class);
      for (String name : state.split(",")) {
        if (!name.isBlank()) {
          states.add(choice("state", name.strip(), State.class));
        }
      }
      return new Wanted(
          find,
          Optional.ofNullable(kind).map(k -> choice("kind", k, Kind.class)),
          states,
          number(person),
          number(place),
          number(team),
          choice("sort", sort, Sort.class),
          Optional.empty(),
          50);
    }

    /** The same from a cursor on, so many at once. */
    public Wanted from(Optional<String> next, int most) {
      return new Wanted(find, kind, states, person, place, team, sort, next, most);
    }

    private static OptionalLong number(Long value) {
      return value == null ? OptionalLong.empty() : OptionalLong.of(value);
    }

    private static <E extends Enum<E>> E choice(String name, String text, Class<E> type) {
      List<String> names = new ArrayList<>();
      for (E one : type.getEnumConstants()) {
        if (one.name().equals(text.toUpperCase(Locale.ROOT))) {
          return one;
        }
        names.add(one.name());
      }
      throw Problem.badRequest(say("records.must-be-one-of", name, String.join(", ", names)));
    }
  }

  /** Goes on where this may be a line that finds. */
  static void requireLine(String find) {
    if (find.length() > LONGEST_LINE) {
      throw Problem.badRequest(say("records.find-may-have-at"));
    }
    if (find.chars().anyMatch(Character::isISOControl)) {
      throw Problem.badRequest(say("records.find-contains-a-character"));
    }
  }

  /**
   * A page.
   *
   * @param next the cursor of the next page; absent on the last
   */
  public record Page(List<RecordView> items, @Nullable String next) {}

  private record Key(Instant due, long id) {}

  /** The records that match, as this person may see them. */
  public Page page(World world, Person asker, Wanted wanted) {
    Key after = wanted.cursor().map(RecordList::decode).orElse(wanted.sort().begin);
    List<Key> keys = keys(world, asker, wanted, after, wanted.limit() + 1);
    List<Key> shown = keys.subList(0, Math.min(keys.size(), wanted.limit()));
    return new Page(
        views(world, asker, shown),
        keys.size() > shown.size() ? encode(shown.get(shown.size() - 1)) : null);
  }

  /** All that match, whatever their page; empty where they are more than that many. */
  public Optional<List<RecordView>> all(World world, Person asker, Wanted wanted, int most) {
    List<Key> keys = keys(world, asker, wanted, wanted.sort().begin, most + 1);
    return keys.size() > most ? Optional.empty() : Optional.of(views(world, asker, keys));
  }

  private List<RecordView> views(World world, Person asker, List<Key> keys) {
    List<RecordView> found = new ArrayList<>(keys.size());
    for (int from = 0; from < keys.size(); from += AT_ONCE) {
      List<RecordId> ids =
          keys.subList(from, Math.min(keys.size(), from + AT_ONCE)).stream()
              .map(key -> RecordId.of(key.id()))
              .toList();
      access.standings(world, asker, store.load(ids, false)).stream()
          .flatMap(standing -> views.view(standing).stream())
          .forEach(found::add);
    }
    return found;
  }

  /** In their order. Where a record's times are not for the asker it sorts last. */
  private List<Key> keys(World world, Person asker, Wanted wanted, Key after, int most) {
    NativeQuery<Key> query = opens.query(Key.class, wanted.sort().select, world, asker);
    return new FoundBy(finding.read(world, asker, wanted.find()), wanted)
        .give(query, world.house().zone(), clock.instant())
        .setParameter("undated", wanted.sort().undated())
        .setParameter("due", after.due())
        .setParameter("id", after.id())
        .setParameter("most", most)
        .getResultList();
  }

  private static String encode(Key key) {
    String text = key.due().toEpochMilli() + ":" + key.id();
    return Base64.getUrlEncoder()
        .withoutPadding()
        .encodeToString(text.getBytes(StandardCharsets.US_ASCII));
  }

  private static Key decode(String cursor) {
    try {
      String[] parts =
          new String(Base64.getUrlDecoder().decode(cursor), StandardCharsets.US_ASCII).split(":");
      Instant due = Instant.ofEpochMilli(Long.parseLong(parts[0]));
      if (due.isAfter(LAST) || due.isBefore(Instant.EPOCH)) {
        throw new IllegalArgumentException("outside");
      }
      return new Key(due, Long.parseLong(parts[1]));
    } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException unreadable) {
      throw Problem.badRequest(say("records.cursor-is-not-from"));
    }
  }
}
