package mellowrota.server.records;

import jakarta.persistence.EntityManager;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.Crew;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.DetailKey;
import mellowrota.server.sight.World;
import org.hibernate.Session;
import org.hibernate.query.NativeQuery;
import org.springframework.stereotype.Repository;

/**
 * Who may open a record, said as a condition of a query (SIGHT 2, 3, 9), so that no list looks at
 * more than it shows. {@link mellowrota.core.sight.RecordReaders} says the same of one record.
 */
@Repository
@RequiredArgsConstructor
public class OpenableRecords {

  /**
   * Records as {@code r}, with what the asker is on each: {@code me.bits}, as {@link Capacities}.
   * {@code offset 0} has the database work it out once a row and not wherever it is named.
   */
  public static final String RECORDS =
      """
       record r
       cross join lateral (select :always | coalesce((
           select bit_or(cast(1 as bigint) << (3 + a.role)) from assignment a where a.record = r.id
             and (a.holder_kind = 'P' and a.holder = :me
               or a.holder_kind = 'T' and a.holder = any(:teams))), 0)
         | case when r.team = any(:ledTeams) or exists (
             select 1 from assignment a where a.record = r.id and a.role <> 3
               and (a.holder_kind = 'P' and a.holder = any(:ledPeople)
                 or a.holder_kind = 'T' and a.holder = any(:ledHolders)))
           then 1 else 0 end as bits offset 0) me
      """;

  /**
   * Beside {@link #RECORDS}: what whoever looks with the asker's eyes is ({@code you.bits}; all
   * where nobody does), and which of the details that are not typed both of them see ({@code
   * sees.ref}, {@code sees.times}, …).
   */
  public static final String SEEN =
      """
       cross join lateral (select case when :watcher = 0 then cast(-1 as bigint)
         else :watcherAlways | coalesce((
           select bit_or(cast(1 as bigint) << (3 + a.role)) from assignment a where a.record = r.id
             and (a.holder_kind = 'P' and a.holder = :watcher
               or a.holder_kind = 'T' and a.holder = any(:watcherTeams))), 0) end as bits offset 0) you
       cross join lateral (select
         coalesce(max(d.for_bits) filter (where d.key = 'ref'), :refFor) as ref,
         coalesce(max(d.for_bits) filter (where d.key = 'times'), :timesFor) as times,
         coalesce(max(d.for_bits) filter (where d.key = 'people'), :peopleFor) as people,
         coalesce(max(d.for_bits) filter (where d.key = 'place'), :placeFor) as place,
         coalesce(max(d.for_bits) filter (where d.key = 'team'), :teamFor) as team,
         coalesce(max(d.for_bits) filter (where d.key = 'tags'), :tagsFor) as tags
         from detail d where d.record = r.id and d.for_bits is not null) who
       cross join lateral (select
         (who.ref & me.bits) <> 0 and (who.ref & you.bits) <> 0 as ref,
         (who.times & me.bits) <> 0 and (who.times & you.bits) <> 0 as times,
         (who.people & me.bits) <> 0 and (who.people & you.bits) <> 0 as people,
         (who.place & me.bits) <> 0 and (who.place & you.bits) <> 0 as place,
         (who.team & me.bits) <> 0 and (who.team & you.bits) <> 0 as team,
         (who.tags & me.bits) <> 0 and (who.tags & you.bits) <> 0 as tags,
         (me.bits & 1) <> 0 as office offset 0) sees
      """;

  /** That the asker may open {@code r}; coordinators, who alone watch, may open all. */
  public static final String MAY_OPEN =
      """
       ((me.bits & 1) <> 0
         or r.state = 'DRAFT' and r.author = :me
         or r.state <> 'DRAFT' and ((me.bits >> 3) <> 0
           or not r.private and exists (
             select 1 from entry e join face f on f.entry = e.id
             where e.record = r.id and f.live and f.rendering = any(:inFull))))
      """;

  /** The numbers of more records than {@link #MAY_OPEN} lets open, read off indexes alone. */
  static final String AMONG =
      """
      select a.record from assignment a where a.holder_kind = 'P' and a.holder = :me
      union all
      select a.record from assignment a where a.holder_kind = 'T' and a.holder = any(:teams)
      union all
      select a.record from assignment a
        where a.holder_kind = 'P' and a.holder = any(:ledPeople) and a.role <> 3
      union all
      select a.record from assignment a
        where a.holder_kind = 'T' and a.holder = any(:ledHolders) and a.role <> 3
      union all
      select t.id from record t where t.team = any(:ledTeams)
      union all
      select d.id from record d where d.author = :me and d.state = 'DRAFT'
      union all
      select e.record from entry e where e.calendar = any(:calendarsInFull) and e.state = 'LIVE'\
      """;

  /** That the asker has office rights on the record of the entry {@code e}. */
  public static final String OFFICE_ON_ENTRY =
      " exists (select 1 from" + RECORDS + " where r.id = e.record and (me.bits & 1) <> 0)";

  private final EntityManager kept;

  /** The values that these want. */
  static Map<String, Object> values(World world, Person asker) {
    Map<String, Object> values = new HashMap<>();
    values.put("me", asker.id().value());
    values.put("always", asker.hasLeft() ? 0 : asker.everywhere().bits());
    values.put("teams", teams(world.crew(), asker.id()));
    List<Rendering> inFull = servedInFull(world, asker).toList();
    values.put("inFull", numbersOf(inFull.stream()));
    values.put(
        "calendarsInFull", inFull.stream().map(one -> one.calendar().value()).toArray(Long[]::new));
    led(world.crew(), asker, values);
    Optional<Person> watcher = SeenBy.watcher(world);
    values.put("watcher", watcher.map(one -> one.id().value()).orElse(0L));
    values.put("watcherAlways", watcher.map(one -> one.everywhere().bits()).orElse(0L));
    values.put(
        "watcherTeams", watcher.map(one -> teams(world.crew(), one.id())).orElse(new Long[0]));
    Map.of(
            "refFor", DetailKey.REF,
            "timesFor", DetailKey.TIMES,
            "peopleFor", DetailKey.PEOPLE,
            "placeFor", DetailKey.PLACE,
            "teamFor", DetailKey.TEAM,
            "tagsFor", DetailKey.TAGS)
        .forEach((name, key) -> values.put(name, world.details().forWhom(key).bits()));
    return values;
  }

  /**
   * A question with these values, to be given those that it wants beside. Native: HQL has neither
   * bits nor what one record is to an asker as a table beside it.
   *
   * @param type of its rows: one value, or a record with a component for each column
   */
  public <T> NativeQuery<T> query(Class<T> type, String sql, World world, Person asker) {
    return query(type, sql, values(world, asker));
  }

  /** A question with those of these values that it names. */
  <T> NativeQuery<T> query(Class<T> type, String sql, Map<String, Object> values) {
    NativeQuery<T> query = kept.unwrap(Session.class).createNativeQuery(sql, type);
    Set<String> wanted = query.getParameterMetadata().getNamedParameterNames();
    values.forEach(
        (name, value) -> {
          if (wanted.contains(name)) {
            query.setParameter(name, value);
          }
        });
    return query;
  }

  /** From here on in this transaction each question is planned for its own values. */
  void planAnew() {
    kept.unwrap(Session.class)
        .createNativeQuery(
            "select set_config('plan_cache_mode', 'force_custom_plan', true)", String.class)
        .getSingleResult();
  }

  /** Whether the asker has office rights on all records; so has whoever looks with their eyes. */
  static boolean opensAll(Person asker) {
    return !asker.hasLeft() && asker.isCoordinator();
  }

  /** Whether they see a detail on every record that says nothing else of it. */
  static boolean seesUsually(World world, Person asker, DetailKey key) {
    long bits = world.details().forWhom(key).bits();
    return !asker.hasLeft()
        && (bits & asker.everywhere().bits()) != 0
        && SeenBy.watcher(world).filter(one -> (bits & one.everywhere().bits()) == 0).isEmpty();
  }

  /** Every team through which this person holds what a team holds. */
  private static Long[] teams(Crew crew, PersonId person) {
    Set<TeamId> found = new HashSet<>();
    crew.directTeams(person).forEach(team -> found.addAll(crew.selfAndAncestors(team)));
    return numbers(found);
  }

  /** What gives a team coordinator office rights (LANDING 14). */
  private static void led(Crew crew, Person asker, Map<String, Object> values) {
    Set<TeamId> teams = new HashSet<>();
    Set<PersonId> people = new HashSet<>();
    if (asker.isTeamCoordinator()) {
      crew.teams().stream()
          .filter(team -> crew.selfAndAncestors(team.id()).stream().anyMatch(asker::leads))
          .forEach(team -> teams.add(team.id()));
      teams.forEach(team -> people.addAll(crew.members(team).keySet()));
    }
    Set<TeamId> holders = new HashSet<>(teams);
    people.forEach(
        person ->
            crew.directTeams(person).forEach(team -> holders.addAll(crew.selfAndAncestors(team))));
    values.put("ledTeams", numbers(teams));
    values.put("ledHolders", numbers(holders));
    values.put("ledPeople", people.stream().map(PersonId::value).toArray(Long[]::new));
  }

  private static Long[] numbers(Set<TeamId> teams) {
    return teams.stream().map(TeamId::value).toArray(Long[]::new);
  }

  /** The renderings in which this person is served calendars at full level. */
  static Long[] inFull(World world, Person person) {
    return numbersOf(servedInFull(world, person));
  }

  private static Long[] numbersOf(Stream<Rendering> renderings) {
    return renderings.map(Rendering::id).map(RenderingId::value).toArray(Long[]::new);
  }

  private static Stream<Rendering> servedInFull(World world, Person person) {
    return world.calendars().all().stream()
        .flatMap(one -> world.calendars().servedTo(person.id(), one.id()).stream())
        .filter(
            one ->
                world
                    .calendars()
                    .audience(one.id())
                    .levelOf(person.id())
                    .filter(level -> level == Level.ALL)
                    .isPresent());
  }
}
