package mellowrota.server.crew;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Undoes;
import mellowrota.server.platform.KeptSession;
import mellowrota.server.platform.Problem;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Takes back what an act settled for the crew and the house: people, teams, places, hours, leave,
 * skills, duties, limits, regions. Each of its rows gets back what the act changed of it, whole or
 * not at all, with the same identities; where somebody changed the same since, nothing is done.
 */
@Service
class SettledActs implements Undoes {

  /** Of a person, what the person, and what whoever has office rights on them, settles. */
  private static final Set<String> THEIR_OWN = Set.of("own_title");

  private static final Set<String> OF_A_PERSON =
      Set.of("person_skill", "working_hours", "hours_dated", "leave");

  private static final Set<String> OF_THEIR_OFFICE =
      Set.of("zone", "contract_minutes", "not_alone");

  /** Of a row t: that it stays as it is with these of its columns laid over it. */
  private static final String STANDS = "to_jsonb(t) = to_jsonb(jsonb_populate_record(t, ?::jsonb))";

  private final Acts acts;
  private final People people;
  private final WorkTimes times;
  private final KeptSession session;
  private final JdbcClient jdbc;
  private final JsonMapper json;

  SettledActs(
      Acts acts,
      People people,
      WorkTimes times,
      KeptSession session,
      JdbcClient jdbc,
      JsonMapper json) {
    this.session = session;
    this.acts = acts;
    this.people = people;
    this.times = times;
    this.jdbc = jdbc;
    this.json = json;
  }

  /**
   * What an act did to one row.
   *
   * @param before as it was; empty: it was not there
   * @param after as it became; empty: it is gone
   */
  record Row(String table, Optional<JsonNode> before, Optional<JsonNode> after) {

    JsonNode any() {
      return after.or(this::before).orElseThrow();
    }

    /** Whose it is, if it is somebody's. */
    Stream<PersonId> person() {
      return Stream.ofNullable(any().get(table.equals("person") ? "id" : "person"))
          .filter(JsonNode::isNumber)
          .map(number -> PersonId.of(number.asLong()));
    }

    /** The columns that the act changed, of a row that was there and stayed. */
    Set<String> changed() {
      Set<String> found = new TreeSet<>();
      if (before.isPresent() && after.isPresent()) {
        for (String column : after.get().propertyNames()) {
          if (!after.get().get(column).equals(before.get().get(column))) {
            found.add(column);
          }
        }
      }
      return found;
    }
  }

  @Override
  public boolean knows(long act) {
    return acts.settled(act);
  }

  /** What the house did by itself is nobody's to take back; what others did is coordinators'. */
  @Override
  public boolean mayUndo(PersonId asker, long act) {
    return people.find(asker).orElseThrow(Problem::notFound).isCoordinator()
        ? !isBy(PersonId.of(Acts.THE_HOUSE), act)
        : isBy(asker, act);
  }

  private boolean isBy(PersonId actor, long act) {
    return jdbc.sql("select exists (select 1 from act where id = ? and actor = ?)")
        .param(act)
        .param(actor.value())
        .query(Boolean.class)
        .single();
  }

  @Override
  public Acts.Done undo(PersonId asker, long undone, Optional<String> key) {
    return acts.run(
        Acts.Wanted.by(asker, "settled.undo", key, Long.toString(undone))
            .changingTheWorld()
            .undoing(undone),
        act -> {
          List<Row> rows = rows(undone);
          requireMay(asker, rows);
          takeBack(undone, rows);
          // The rows changed past what the session knows of them.
          session.forget();
          requireSound();
          return "";
        });
  }

  /** The first rows of each of these acts, but for what follows by itself. */
  Map<Long, List<Row>> firstRows(Set<Long> acts, int most) {
    Map<Long, List<Row>> found = new HashMap<>();
    jdbc.sql(
            """
            select act, kept_in, before::text, after::text from (
              select *, row_number() over (partition by act order by id) as no from act_row
              where act = any(?) and kept_in not in ('calendar', 'taken_row')) r
            where no <= ? order by id
            """)
        .param(acts.toArray(Long[]::new))
        .param(most)
        .query(
            row -> {
              found
                  .computeIfAbsent(row.getLong(1), act -> new ArrayList<>())
                  .add(new Row(row.getString(2), read(row.getString(3)), read(row.getString(4))));
            });
    return found;
  }

  private List<Row> rows(long act) {
    return jdbc.sql(
            "select kept_in, before::text, after::text from act_row where act = ? order by id")
        .param(act)
        .query(
            (row, n) -> new Row(row.getString(1), read(row.getString(2)), read(row.getString(3))))
        .list();
  }

  private Optional<JsonNode> read(String kept) {
    return Optional.ofNullable(kept).map(json::readTree);
  }

  /** Others than coordinators take back what they did themselves, where they still may. */
  private void requireMay(PersonId asker, List<Row> rows) {
    Person me = people.find(asker).orElseThrow(Problem::notFound);
    if (!me.isCoordinator()) {
      Set<PersonId> office = times.officeOver(me, rows.stream().flatMap(Row::person).toList());
      if (!rows.stream().allMatch(row -> isTheirs(me, office, row))) {
        throw Problem.forbidden(
            "You may no longer settle this; ask a coordinator to take it back.");
      }
    }
  }

  private static boolean isTheirs(Person me, Set<PersonId> office, Row row) {
    boolean isOffice = row.person().anyMatch(office::contains);
    boolean isSelf = row.person().anyMatch(me.id()::equals);
    if (OF_A_PERSON.contains(row.table())) {
      return isOffice || (isSelf && row.table().equals("leave"));
    }
    if (!row.table().equals("person")) {
      return false;
    }
    Set<String> changed = row.changed();
    return !changed.isEmpty()
        && ((isSelf && THEIR_OWN.containsAll(changed))
            || (isOffice && OF_THEIR_OFFICE.containsAll(changed)));
  }

  private void takeBack(long undone, List<Row> rows) {
    requireUnnamed(undone, rows);
    List<Row> lastFirst = new ArrayList<>(rows);
    Collections.reverse(lastFirst);
    Map<String, List<String>> keys = new HashMap<>();
    try {
      for (Row row : lastFirst) {
        List<String> key = keys.computeIfAbsent(row.table(), this::keyOf);
        if (takeBack(row, key) != 1) {
          throw changedSince();
        }
      }
    } catch (DataIntegrityViolationException inUse) {
      throw Problem.of(
          409, "in-use", "Something else rests on this by now; change that first, then undo this.");
    }
  }

  /** The columns that tell a row of a table from its others. */
  private List<String> keyOf(String table) {
    return jdbc.sql(
            """
            select a.attname from pg_index i
            join pg_attribute a on a.attrelid = i.indrelid and a.attnum = any(i.indkey)
            where i.indrelid = ?::regclass and i.indisprimary
            """)
        .param(table)
        .query(String.class)
        .list();
  }

  /** Only as long as what the act did to it stands; the number of rows that did. */
  private int takeBack(Row row, List<String> key) {
    String is =
        key.stream()
            .map(one -> "t.%1$s = k.%1$s".formatted(one))
            .collect(Collectors.joining(" and "));
    if (row.before().isEmpty()) {
      return jdbc.sql(
              """
              delete from %1$s t using jsonb_populate_record(null::%1$s, ?::jsonb) k
              where %2$s and %3$s
              """
                  .formatted(row.table(), is, STANDS))
          .param(row.after().orElseThrow().toString())
          .param(row.after().orElseThrow().toString())
          .update();
    }
    if (row.after().isEmpty()) {
      List<String> columns = List.copyOf(row.before().get().propertyNames());
      return jdbc.sql(
              """
              insert into %1$s (%2$s) overriding system value
              select %2$s from jsonb_populate_record(null::%1$s, ?::jsonb)
              """
                  .formatted(row.table(), String.join(", ", columns)))
          .param(row.before().get().toString())
          .update();
    }
    Set<String> changed = row.changed();
    Map<String, JsonNode> stands = new HashMap<>();
    changed.forEach(column -> stands.put(column, row.after().get().get(column)));
    return jdbc.sql(
            """
            update %1$s t set %2$s from jsonb_populate_record(null::%1$s, ?::jsonb) k
            where %3$s and %4$s
            """
                .formatted(
                    row.table(),
                    changed.stream()
                        .map(one -> "%1$s = k.%1$s".formatted(one))
                        .collect(Collectors.joining(", ")),
                    is,
                    STANDS))
        .param(row.before().get().toString())
        .param(json.writeValueAsString(stands))
        .update();
  }

  private static Problem changedSince() {
    return Problem.of(
        409,
        "changed-since",
        "Somebody changed this since; take that back first, or change it anew.");
  }

  /**
   * Whoever or whatever the act added is not taken away once work or rules may name it: those keep
   * numbers that no key of the database guards.
   */
  private void requireUnnamed(long undone, List<Row> rows) {
    Map<String, List<Long>> added =
        rows.stream()
            .filter(row -> row.before().isEmpty())
            .filter(row -> Set.of("person", "team", "place").contains(row.table()))
            .collect(
                Collectors.groupingBy(
                    Row::table,
                    Collectors.mapping(row -> row.any().get("id").asLong(), Collectors.toList())));
    if (added.isEmpty()) {
      return;
    }
    boolean named =
        jdbc.sql(
                """
                select exists (select 1 from set_change where act > :act)
                  or exists (select 1 from assignment where holder_kind = 'P' and holder = any(:people))
                  or exists (select 1 from assignment where holder_kind = 'T' and holder = any(:teams))
                  or exists (select 1 from history h
                    cross join lateral regexp_matches(h.old || ' ' || h.new, '(P|T)\\|(\\d+)', 'g') m
                    where h.act > :act and h.field = 'assignments'
                      and (m[1] = 'P' and m[2]::bigint = any(:people)
                        or m[1] = 'T' and m[2]::bigint = any(:teams)))
                  or exists (select 1 from history h where h.act > :act
                    and (h.field = 'team' and array[h.old, h.new] && :teams::text[]
                      or h.field = 'place' and array[h.old, h.new] && :places::text[]))
                """)
            .param("act", undone)
            .param("people", numbers(added.get("person")))
            .param("teams", numbers(added.get("team")))
            .param("places", numbers(added.get("place")))
            .query(Boolean.class)
            .single();
    if (named) {
      throw Problem.of(
          409,
          "in-use",
          "Work or rules may name this by now, so it stays; take back what names it first.");
    }
  }

  private static Long[] numbers(List<Long> some) {
    return some == null ? new Long[0] : some.toArray(Long[]::new);
  }

  /** What each change of the crew sees to, holds after one is taken back too. */
  private void requireSound() {
    record Found(boolean noCoordinator, boolean ring, boolean sameName) {}
    Found found =
        jdbc.sql(
                """
                with recursive inside(outermost, team) as (
                  select team, member_team from membership
                    where member_team is not null and until_day is null
                  union select i.outermost, m.member_team from inside i
                    join membership m on m.team = i.team
                    where m.member_team is not null and m.until_day is null)
                select
                  not exists (select 1 from person
                    where account_right = 'COORDINATOR' and standing <> 'LEFT') as no_coordinator,
                  exists (select 1 from inside where outermost = team) as ring,
                  exists (select 1 from team group by lower(name) having count(*) > 1)
                    or exists (select 1 from place group by lower(name) having count(*) > 1)
                    or exists (select 1 from place group by lower(code) having count(*) > 1)
                    as same_name
                """)
            .query(Found.class)
            .single();
    if (found.noCoordinator()) {
      throw Problem.of(
          409, "last-coordinator", "A house needs a coordinator; make somebody else one first.");
    }
    if (found.ring() || found.sameName()) {
      throw changedSince();
    }
  }
}
