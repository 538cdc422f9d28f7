package mellowrota.server.records;

import io.swagger.v3.oas.annotations.media.Schema;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Kind;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/**
 * Lists records by due time or beginning, then newest first, in keyset pages. The database narrows;
 * what decides is whether the asker may see what matched (SIGHT 9).
 */
@Service
public class RecordList {

  private static final int SCAN_AT_ONCE = 200;
  private static final int SCAN_MOST = 4000;
  private static final Instant LAST = Instant.parse("2999-01-01T00:00:00Z");

  private final JdbcClient jdbc;
  private final RecordStore store;
  private final RecordAccess access;
  private final RecordViews views;

  RecordList(JdbcClient jdbc, RecordStore store, RecordAccess access, RecordViews views) {
    this.jdbc = jdbc;
    this.store = store;
    this.access = access;
    this.views = views;
  }

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
        throw Problem.badRequest("find holds at most 200 characters.");
      }
      if (find.chars().anyMatch(Character::isISOControl)) {
        throw Problem.badRequest("find holds a character that cannot be looked for.");
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
      throw Problem.badRequest(name + " is one of " + String.join(", ", names) + ".");
    }
  }

  /**
   * A page.
   *
   * @param next the cursor of the next page; absent on the last
   */
  @com.fasterxml.jackson.annotation.JsonInclude(
      com.fasterxml.jackson.annotation.JsonInclude.Include.NON_NULL)
  public record Page(
      @Schema(requiredMode = Schema.RequiredMode.REQUIRED) List<RecordView> items, String next) {}

  private record Key(Instant due, long id) {}

  /** The records that match, as this person may see them. */
  public Page page(World world, Person asker, Wanted wanted) {
    List<String> terms =
        Arrays.stream(wanted.find().toLowerCase(Locale.ROOT).split("\\s+"))
            .filter(term -> !term.isEmpty())
            .limit(8)
            .toList();
    Key after =
        wanted.cursor().map(RecordList::decode).orElse(new Key(Instant.EPOCH, Long.MAX_VALUE));
    List<RecordView> items = new ArrayList<>();
    int scanned = 0;
    while (scanned < SCAN_MOST) {
      List<Key> keys = keys(world, asker, wanted, terms, after);
      scanned += keys.size();
      List<WorkRecord> records =
          store.load(keys.stream().map(key -> RecordId.of(key.id())).toList(), false);
      Map<Long, Set<CalendarId>> standsOn =
          access.standsOn(records.stream().map(WorkRecord::id).toList());
      for (int i = 0; i < records.size(); i++) {
        RecordAccess.Standing standing = access.standing(world, asker, records.get(i), standsOn);
        if (matches(standing, wanted, terms)) {
          if (items.size() == wanted.limit()) {
            return new Page(items, encode(after));
          }
          views.view(standing).ifPresent(items::add);
        }
        after = keys.get(i);
      }
      if (keys.size() < SCAN_AT_ONCE) {
        return new Page(items, null);
      }
    }
    return new Page(items, encode(after));
  }

  /** Times that the asker may not see in every capacity they always have do not sort. */
  private List<Key> keys(World world, Person asker, Wanted wanted, List<String> terms, Key after) {
    Capacities always = asker.everywhere();
    ForSet times =
        world.details().find(DetailKey.TIMES).map(DetailDefinition::forWhom).orElse(ForSet.OFFICE);
    String sortKey =
        times.allows(always)
            ? """
              case when exists (select 1 from detail d where d.record = r.id and d.key = 'times'
                and d.for_bits is not null and (d.for_bits & %d) = 0) then timestamptz '2999-01-01Z'
              else coalesce(r.sorts_at, timestamptz '2999-01-01Z') end
              """
                .formatted(always.bits())
            : "timestamptz '2999-01-01Z'";
    StringBuilder sql =
        new StringBuilder("select * from (select r.id, ")
            .append(sortKey)
            .append(" as due from record r where true");
    List<Object> values = new ArrayList<>();
    wanted.kind().ifPresent(kind -> and(sql, values, "r.kind = ?", kind.name()));
    if (!wanted.states().isEmpty()) {
      and(
          sql,
          values,
          "r.state = any(?)",
          wanted.states().stream().map(Enum::name).toArray(String[]::new));
    }
    wanted.place().ifPresent(place -> and(sql, values, "r.place = ?", place));
    wanted.team().ifPresent(team -> and(sql, values, "r.team = ?", team));
    wanted
        .person()
        .ifPresent(
            person ->
                and(
                    sql,
                    values,
                    """
                    exists (select 1 from assignment a where a.record = r.id
                      and a.holder_kind = 'P' and a.holder = ?)
                    """,
                    person));
    for (String term : terms) {
      String like = "%" + term.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
      sql.append(
          """
           and (r.ref ilike ? or exists (select 1 from detail d where d.record = r.id and d.value ilike ?)
            or exists (select 1 from place p where p.id = r.place and (p.name ilike ? or p.code ilike ?))
            or exists (select 1 from tag t where t.record = r.id and t.tag ilike ?)
            or exists (select 1 from assignment a join person q on q.id = a.holder
              where a.record = r.id and a.holder_kind = 'P' and q.name ilike ?))
          """);
      for (int i = 0; i < 6; i++) {
        values.add(like);
      }
    }
    sql.append(") s where (due, -id) > (?, ?) order by due, -id limit ?");
    values.add(after.due().atOffset(ZoneOffset.UTC));
    values.add(-after.id());
    values.add(SCAN_AT_ONCE);
    return jdbc.sql(sql.toString())
        .params(values)
        .query(
            (row, n) -> new Key(row.getObject(2, OffsetDateTime.class).toInstant(), row.getLong(1)))
        .list();
  }

  private static void and(StringBuilder sql, List<Object> values, String clause, Object value) {
    sql.append(" and ").append(clause);
    values.add(value);
  }

  private static boolean matches(
      RecordAccess.Standing standing, Wanted wanted, List<String> terms) {
    boolean facets =
        standing.opens()
            && (wanted.states().isEmpty() || standing.sees(DetailKey.TIMES))
            && (wanted.person().isEmpty() || standing.sees(DetailKey.PEOPLE))
            && (wanted.place().isEmpty() || standing.sees(DetailKey.PLACE))
            && (wanted.team().isEmpty() || standing.sees(DetailKey.TEAM));
    if (!facets) {
      return false;
    }
    List<String> texts = terms.isEmpty() ? List.of() : texts(standing);
    return terms.stream().allMatch(term -> texts.stream().anyMatch(text -> text.contains(term)));
  }

  /** Everything the asker may see of it that can be searched, in lower case. */
  private static List<String> texts(RecordAccess.Standing standing) {
    List<String> found = new ArrayList<>();
    WorkRecord record = standing.record();
    if (standing.sees(DetailKey.REF)) {
      found.add(record.ref());
    }
    record
        .details()
        .forEach(
            (key, value) -> {
              if (standing.sees(key)) {
                found.add(value.text());
              }
            });
    if (standing.sees(DetailKey.PLACE)) {
      record
          .place()
          .flatMap(standing.world().places()::find)
          .ifPresent(place -> found.addAll(List.of(place.name(), place.code())));
    }
    if (standing.sees(DetailKey.TAGS)) {
      found.addAll(record.tags());
    }
    if (standing.sees(DetailKey.PEOPLE)) {
      record.assignments().stream()
          .filter(a -> a.holder() instanceof Holder.OnePerson)
          .map(a -> ((Holder.OnePerson) a.holder()).person())
          .map((PersonId id) -> standing.world().crew().person(id).map(Person::name).orElse(""))
          .forEach(found::add);
    }
    return found.stream().map(text -> text.toLowerCase(Locale.ROOT)).toList();
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
      throw Problem.badRequest("cursor is none that this list gave out; ask without it.");
    }
  }
}
