package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
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
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/**
 * Lists records by due time or beginning, then newest first, in keyset pages. A cursor is made of
 * the last record that was shown (SIGHT 9).
 */
@Service
@RequiredArgsConstructor
public class RecordList {

  private static final int AT_ONCE = 200;
  private static final int MOST_TERMS = 8;
  private static final Instant LAST = Instant.parse("2999-01-01T00:00:00Z");
  private static final Key BEFORE_ALL = new Key(Instant.EPOCH, Long.MAX_VALUE);

  /** Selects what the asker may open and may match by, and nothing else (SIGHT 9). */
  private static final String SELECT =
      "select due, id from (select r.id, case when sees.times then coalesce(r.sorts_at, :last)"
          + " else :last end as due from"
          + OpenableRecords.RECORDS
          + OpenableRecords.SEEN
          + """
             where (:kind = '' or r.kind = :kind)
               and (cardinality(:states) = 0 or sees.times and r.state = any(:states))
               and (:place = 0 or sees.place and (r.place = :place or :place = any(r.uses)))
               and (:team = 0 or sees.team and r.team = :team)
               and (:person = 0 or sees.people and exists (select 1 from assignment a
                 where a.record = r.id and a.holder_kind = 'P' and a.holder = :person))
               and not exists (select 1 from unnest(:terms) as t(term) where not (
                 sees.ref and r.ref ilike t.term
                 or exists (select 1 from detail d join detail_definition n on n.key = d.key
                   where d.record = r.id and d.value ilike t.term
                     and (coalesce(d.for_bits, n.for_bits) & me.bits) <> 0
                     and (coalesce(d.for_bits, n.for_bits) & you.bits) <> 0
                     and r.kind = any(string_to_array(n.kinds, ','))
                     and (n.states = '' or r.state = any(string_to_array(n.states, ','))
                       or r.state = 'DONE' and r.state_before = any(string_to_array(n.states, ','))))
                 or sees.place and exists (select 1 from place p
                   where (p.id = r.place or p.id = any(r.uses)) and (p.name ilike t.term or p.code ilike t.term))
                 or sees.tags and exists (select 1 from tag g
                   where g.record = r.id and g.tag ilike t.term)
                 or sees.people and exists (select 1 from assignment a join person q on q.id = a.holder
                   where a.record = r.id and a.holder_kind = 'P' and q.name ilike t.term)))
               and
            """
          + OpenableRecords.MAY_OPEN
          + ") s where (due, -id) > (:afterDue, :afterId) order by due, -id limit :most";

  private final OpenableRecords opens;
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
      Optional<String> cursor,
      int limit) {

    /** From what stands in an address; refuses what is none of these. */
    public static Wanted of(
        String find, String kind, String state, Long person, Long place, Long team) {
      if (find.length() > 200) {
        throw Problem.badRequest(say("records.find-may-have-at"));
      }
      if (find.chars().anyMatch(Character::isISOControl)) {
        throw Problem.badRequest(say("records.find-contains-a-character"));
      }
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
          Optional.empty(),
          50);
    }

    /** The same from a cursor on, so many at once. */
    public Wanted from(Optional<String> next, int most) {
      return new Wanted(find, kind, states, person, place, team, next, most);
    }

    /** What is looked for, as patterns of the database. */
    private String[] terms() {
      return Arrays.stream(find.split("\\s+"))
          .filter(term -> !term.isEmpty())
          .limit(MOST_TERMS)
          .map(term -> term.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_"))
          .map(term -> "%" + term + "%")
          .toArray(String[]::new);
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

  /**
   * A page.
   *
   * @param next the cursor of the next page; absent on the last
   */
  public record Page(List<RecordView> items, @Nullable String next) {}

  private record Key(Instant due, long id) {}

  /** The records that match, as this person may see them. */
  public Page page(World world, Person asker, Wanted wanted) {
    Key after = wanted.cursor().map(RecordList::decode).orElse(BEFORE_ALL);
    List<Key> keys = keys(world, asker, wanted, after, wanted.limit() + 1);
    List<Key> shown = keys.subList(0, Math.min(keys.size(), wanted.limit()));
    return new Page(
        views(world, asker, shown),
        keys.size() > shown.size() ? encode(shown.get(shown.size() - 1)) : null);
  }

  /** All that match, whatever their page; empty where they are more than that many. */
  public Optional<List<RecordView>> all(World world, Person asker, Wanted wanted, int most) {
    List<Key> keys = keys(world, asker, wanted, BEFORE_ALL, most + 1);
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
    return opens
        .query(Key.class, SELECT, world, asker)
        .setParameter("kind", wanted.kind().map(Kind::name).orElse(""))
        .setParameter("states", wanted.states().stream().map(Enum::name).toArray(String[]::new))
        .setParameter("person", wanted.person().orElse(0))
        .setParameter("place", wanted.place().orElse(0))
        .setParameter("team", wanted.team().orElse(0))
        .setParameter("terms", wanted.terms())
        .setParameter("last", LAST)
        .setParameter("afterDue", after.due())
        .setParameter("afterId", -after.id())
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
