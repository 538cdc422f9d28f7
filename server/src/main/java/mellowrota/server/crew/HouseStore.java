package mellowrota.server.crew;

import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.calendar.House;
import mellowrota.core.calendar.Level;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Membership;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.Team;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** Reads the house and its crew from the store as the core's own types. */
@Repository
public class HouseStore {

  private final JdbcClient jdbc;
  private final Clock clock;

  HouseStore(JdbcClient jdbc, Clock clock) {
    this.jdbc = jdbc;
    this.clock = clock;
  }

  public House house() {
    return jdbc.sql("select seed, name, zone, outside_limit, trusts_own_feeds, week from house")
        .query(
            (row, n) ->
                new House(
                    row.getString(1),
                    row.getString(2),
                    ZoneId.of(row.getString(3)),
                    Level.valueOf(row.getString(4)),
                    row.getBoolean(5),
                    Weeks.of(row.getString(6))))
        .single();
  }

  public boolean exists() {
    return jdbc.sql("select count(*) from house").query(Long.class).single() > 0;
  }

  public boolean isDemo() {
    return exists() && jdbc.sql("select is_demo from house").query(Boolean.class).single();
  }

  public String incarnation() {
    return jdbc.sql("select incarnation from house").query(String.class).single();
  }

  /** The version of the world, and today in the house's zone. */
  public record Present(long worldVersion, LocalDate today) {}

  /** Both in one reading, since every request asks. */
  public Present present() {
    return jdbc.sql("select world_version, zone from house")
        .query(
            (row, n) ->
                new Present(
                    row.getLong(1),
                    LocalDate.ofInstant(clock.instant(), ZoneId.of(row.getString(2)))))
        .single();
  }

  public long raiseWorldVersion() {
    return jdbc.sql("update house set world_version = world_version + 1 returning world_version")
        .query(Long.class)
        .single();
  }

  /** The day for which entries were last projected. */
  public LocalDate projectedDay() {
    return jdbc.sql("select projected from house_day").query(LocalDate.class).single();
  }

  /** Today in a zone that is known. */
  public LocalDate todayIn(ZoneId zone) {
    return LocalDate.ofInstant(clock.instant(), zone);
  }

  /** Today in the house's zone. */
  public LocalDate today() {
    return present().today();
  }

  /** Everybody who has left. */
  public List<Long> left() {
    return jdbc.sql("select id from person where standing = 'LEFT' order by id")
        .query(Long.class)
        .list();
  }

  /** Whether an account of this person may be used: they are there and have not left. */
  public boolean mayEnter(PersonId person) {
    return jdbc.sql(
            "select 1 from person where id = ? and standing <> 'LEFT' and account_right <> 'NONE'")
        .param(person.value())
        .query(Integer.class)
        .optional()
        .isPresent();
  }

  public List<Person> people() {
    Map<Long, Set<TeamId>> coordinates = new HashMap<>();
    jdbc.sql("select person, team from coordinates")
        .query(
            row -> {
              coordinates
                  .computeIfAbsent(row.getLong(1), key -> new HashSet<>())
                  .add(TeamId.of(row.getLong(2)));
            });
    return jdbc.sql("select id, name, standing, account_right from person order by id")
        .query(
            (row, n) ->
                new Person(
                    PersonId.of(row.getLong(1)),
                    row.getString(2),
                    Person.Standing.valueOf(row.getString(3)),
                    Person.AccountRight.valueOf(row.getString(4)),
                    coordinates.getOrDefault(row.getLong(1), Set.of())))
        .list();
  }

  public List<Team> teams() {
    return jdbc.sql("select id, name from team order by id")
        .query((row, n) -> new Team(TeamId.of(row.getLong(1)), row.getString(2)))
        .list();
  }

  public List<Membership> memberships() {
    return jdbc.sql(
            "select team, member_person, member_team, from_day, until_day from membership order by id")
        .query(
            (row, n) -> {
              long person = row.getLong(2);
              Holder member =
                  row.wasNull()
                      ? Holder.of(TeamId.of(row.getLong(3)))
                      : Holder.of(PersonId.of(person));
              return new Membership(
                  TeamId.of(row.getLong(1)),
                  member,
                  row.getObject(4, LocalDate.class),
                  Optional.ofNullable(row.getObject(5, LocalDate.class)));
            })
        .list();
  }

  public List<Place> places() {
    return jdbc.sql("select id, code, name, zone from place order by id")
        .query(
            (row, n) ->
                new Place(
                    PlaceId.of(row.getLong(1)),
                    row.getString(2),
                    row.getString(3),
                    Optional.ofNullable(row.getString(4)).map(ZoneId::of)))
        .list();
  }

  public List<Role> roles() {
    return jdbc.sql("select number, name, rights from role order by number")
        .query(
            (row, n) ->
                new Role(RoleId.of(row.getInt(1)), row.getString(2), rights(row.getString(3))))
        .list();
  }

  private static Set<Role.Right> rights(String list) {
    Set<Role.Right> found = EnumSet.noneOf(Role.Right.class);
    for (String name : list.split(",")) {
      if (!name.isBlank()) {
        found.add(Role.Right.valueOf(name));
      }
    }
    return found;
  }

  /** Puts the roles every house begins with. */
  public void insertUsualRoles() {
    for (Role role : Role.usual()) {
      List<String> names = new ArrayList<>();
      role.rights().stream().sorted().forEach(right -> names.add(right.name()));
      jdbc.sql("insert into role (number, name, rights) values (?, ?, ?)")
          .param(role.id().value())
          .param(role.name())
          .param(String.join(",", names))
          .update();
    }
  }
}
