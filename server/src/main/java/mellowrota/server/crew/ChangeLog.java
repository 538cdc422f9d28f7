package mellowrota.server.crew;

import static mellowrota.server.platform.Words.say;

import jakarta.persistence.EntityManager;
import jakarta.persistence.Query;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Membership;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Team;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Place;
import mellowrota.server.acts.Acts;
import mellowrota.server.acts.Undoes;
import mellowrota.server.acts.store.ActStore;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.platform.KeptSession;
import mellowrota.server.platform.Problem;
import org.hibernate.Session;
import org.hibernate.exception.ConstraintViolationException;
import org.springframework.stereotype.Service;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Takes back what an act settled for the crew and the house: people, teams, places, hours, leave,
 * skills, duties, limits, regions. Each of its rows gets back what the act changed of it, whole or
 * not at all, with the same identities; where somebody changed the same since, nothing is done.
 */
@Service
@RequiredArgsConstructor
class ChangeLog implements Undoes {

  /** Of a person, what the person, and what whoever has office rights on them, settles. */
  private static final Set<String> THEIR_OWN = Set.of("own_title");

  private static final Set<String> OF_A_PERSON =
      Set.of("person_skill", "working_hours", "hours_dated", "leave");

  private static final Set<String> OF_THEIR_OFFICE =
      Set.of("zone", "contract_minutes", "not_alone");

  /** Of a row t: that it stays as it is with these of its columns laid over it. */
  private static final String STANDS =
      "to_jsonb(t) = to_jsonb(jsonb_populate_record(t, cast(:stands as jsonb)))";

  private final Acts acts;
  private final People people;
  private final WorkTimes times;
  private final TimesAtPlaces atPlaces;
  private final KeptSession session;
  private final HouseStore house;
  private final ActStore store;
  private final List<Naming> naming;
  private final EntityManager kept;
  private final JsonMapper json;

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
    return store.settled(act);
  }

  /** What the house did by itself is nobody's to take back; what others did is coordinators'. */
  @Override
  public boolean mayUndo(PersonId asker, long act) {
    return people.find(asker).orElseThrow(Problem::notFound).isCoordinator()
        ? !store.isBy(act, Acts.THE_HOUSE)
        : store.isBy(act, asker.value());
  }

  @Override
  public Acts.Done undo(PersonId asker, long undone, Optional<String> key) {
    return acts.run(
        Acts.Wanted.by(asker, "settled.undo", key, Long.toString(undone))
            .changingTheWorld()
            .undoing(undone),
        act -> {
          List<Row> rows = store.rows(undone).stream().map(this::row).toList();
          requireMay(asker, rows);
          takeBack(undone, rows);
          // The rows changed past what the session knows of them.
          session.forget();
          requireSound();
          atPlaces.takeBack(act, undone);
          return "";
        });
  }

  /** The first rows of each of these acts, but for what follows by itself. */
  Map<Long, List<Row>> firstRows(Set<Long> acts, int most) {
    return store.firstRows(acts, most).stream()
        .collect(
            Collectors.groupingBy(
                ActStore.Row::act, Collectors.mapping(this::row, Collectors.toList())));
  }

  private Row row(ActStore.Row one) {
    return new Row(one.keptIn(), read(one.before()), read(one.after()));
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
        throw Problem.forbidden(say("crew.you-may-no-longer"));
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
    } catch (ConstraintViolationException inUse) {
      throw Problem.of(409, "in-use", say("crew.something-else-depends-on"));
    }
  }

  /** The columns that tell a row of a table from its others. */
  private List<String> keyOf(String table) {
    return kept.unwrap(Session.class)
        .createNativeQuery(
            """
            select cast(a.attname as text) from pg_index i
            join pg_attribute a on a.attrelid = i.indrelid and a.attnum = any(i.indkey)
            where i.indrelid = cast(:table as regclass) and i.indisprimary
            """,
            String.class)
        .setParameter("table", table)
        .getResultList();
  }

  /** Only as long as what the act did to it stands; the number of rows that did. */
  private int takeBack(Row row, List<String> key) {
    String is =
        key.stream()
            .map(one -> "t.%1$s = k.%1$s".formatted(one))
            .collect(Collectors.joining(" and "));
    if (row.before().isEmpty()) {
      return change(
          """
          delete from %1$s t using jsonb_populate_record(cast(null as %1$s), cast(:row as jsonb)) k
          where %2$s and %3$s
          """
              .formatted(row.table(), is, STANDS),
          row.any(),
          row.after());
    }
    if (row.after().isEmpty()) {
      String columns = String.join(", ", row.before().get().propertyNames());
      return change(
          """
          insert into %1$s (%2$s) overriding system value
          select %2$s from jsonb_populate_record(cast(null as %1$s), cast(:row as jsonb))
          """
              .formatted(row.table(), columns),
          row.any(),
          Optional.empty());
    }
    Set<String> changed = row.changed();
    ObjectNode stands = json.createObjectNode();
    changed.forEach(column -> stands.set(column, row.after().get().get(column)));
    String set =
        changed.stream()
            .map(one -> "%1$s = k.%1$s".formatted(one))
            .collect(Collectors.joining(", "));
    return change(
        """
        update %1$s t set %2$s
        from jsonb_populate_record(cast(null as %1$s), cast(:row as jsonb)) k
        where %3$s and %4$s
        """
            .formatted(row.table(), set, is, STANDS),
        row.before().get(),
        Optional.of(stands));
  }

  /** Native: whichever table it is, the database knows how its rows are made of JSON. */
  private int change(String sql, JsonNode row, Optional<JsonNode> stands) {
    Query query = kept.createNativeQuery(sql).setParameter("row", row.toString());
    stands.ifPresent(one -> query.setParameter("stands", one.toString()));
    return query.executeUpdate();
  }

  private static Problem changedSince() {
    return Problem.of(409, "changed-since", say("crew.this-has-been-changed"));
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
    Naming.Added all =
        new Naming.Added(
            undone,
            added.getOrDefault("person", List.of()),
            added.getOrDefault("team", List.of()),
            added.getOrDefault("place", List.of()));
    if (naming.stream().anyMatch(one -> one.mayName(all))) {
      throw Problem.of(409, "in-use", say("crew.work-or-rules-may"));
    }
  }

  /** What each change of the crew sees to, holds after one is taken back too. */
  private void requireSound() {
    if (house.people().stream().noneMatch(one -> one.isCoordinator() && !one.hasLeft())) {
      throw Problem.of(409, "last-coordinator", say("crew.the-organisation-needs-at"));
    }
    List<Place> places = house.places();
    if (isTwice(house.teams(), Team::name)
        || isTwice(places, Place::name)
        || isTwice(places, Place::code)
        || isRing(house.memberships())) {
      throw changedSince();
    }
  }

  private static <T> boolean isTwice(List<T> all, Function<T, String> name) {
    return all.stream().map(one -> name.apply(one).toLowerCase(Locale.ROOT)).distinct().count()
        < all.size();
  }

  /** Whether a team is in itself, by however many others. */
  private static boolean isRing(List<Membership> all) {
    Map<TeamId, Set<TeamId>> inside = new HashMap<>();
    for (Membership one : all) {
      if (one.until().isEmpty() && one.member() instanceof Holder.WholeTeam nested) {
        inside.computeIfAbsent(one.team(), team -> new HashSet<>()).add(nested.team());
      }
    }
    // As often as there are teams each gets what is in those that are in it.
    for (int i = 0; i < inside.size(); i++) {
      inside
          .values()
          .forEach(
              teams ->
                  List.copyOf(teams)
                      .forEach(team -> teams.addAll(inside.getOrDefault(team, Set.of()))));
    }
    return inside.entrySet().stream().anyMatch(one -> one.getValue().contains(one.getKey()));
  }
}
