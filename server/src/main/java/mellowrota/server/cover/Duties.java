package mellowrota.server.cover;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mellowrota.core.cover.Duty;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Acts;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** What must be stood, as it is kept. */
@Service
public class Duties {

  private final JdbcClient jdbc;
  private final Acts acts;

  Duties(JdbcClient jdbc, Acts acts) {
    this.jdbc = jdbc;
    this.acts = acts;
  }

  /**
   * A duty. It is stood by whoever has the role on a shift at the place.
   *
   * @param skill asked of each of its people
   * @param meanwhile whether other work may be done meanwhile
   * @param lifted days on which it is not asked for
   */
  public record Kept(
      long id,
      String name,
      PlaceId place,
      RoleId role,
      Optional<String> skill,
      boolean meanwhile,
      List<Duty.Repeating> spans,
      Set<LocalDate> lifted) {

    Post post() {
      return new Post(place, role);
    }

    /** As the core computes with it; its hours are those of the place. */
    Duty in(World world) {
      ZoneId zone =
          world.places().find(place).flatMap(Place::zone).orElse(world.places().houseZone());
      return new Duty(key(), zone, skill, spans, lifted);
    }

    String key() {
      return new Ask.OfDuty(id).key();
    }
  }

  /** Whoever has the role on a shift at the place is at it. */
  record Post(PlaceId place, RoleId role) {}

  /** All of them, by name. */
  List<Kept> all() {
    Map<Long, List<Duty.Repeating>> spans = new HashMap<>();
    jdbc.sql(
            """
            select duty, weekdays, from_time, until_time, count, first_day, last_day
            from duty_span order by duty, position
            """)
        .query(
            row -> {
              spans
                  .computeIfAbsent(row.getLong(1), key -> new ArrayList<>())
                  .add(
                      new Duty.Repeating(
                          weekdays(row.getString(2)),
                          row.getObject(3, LocalTime.class),
                          row.getObject(4, LocalTime.class),
                          row.getInt(5),
                          Optional.ofNullable(row.getObject(6, LocalDate.class)),
                          Optional.ofNullable(row.getObject(7, LocalDate.class))));
            });
    Map<Long, Set<LocalDate>> lifted = new HashMap<>();
    jdbc.sql("select duty, day from duty_lifted")
        .query(
            row -> {
              lifted
                  .computeIfAbsent(row.getLong(1), key -> new HashSet<>())
                  .add(row.getObject(2, LocalDate.class));
            });
    return jdbc.sql("select id, name, place, role, skill, meanwhile from duty order by name")
        .query(
            (row, n) ->
                new Kept(
                    row.getLong(1),
                    row.getString(2),
                    PlaceId.of(row.getLong(3)),
                    RoleId.of(row.getInt(4)),
                    Optional.ofNullable(row.getString(5)),
                    row.getBoolean(6),
                    spans.getOrDefault(row.getLong(1), List.of()),
                    lifted.getOrDefault(row.getLong(1), Set.of())))
        .list();
  }

  Kept find(long id) {
    return all().stream().filter(one -> one.id() == id).findFirst().orElseThrow(Problem::notFound);
  }

  private static Set<DayOfWeek> weekdays(String list) {
    return Arrays.stream(list.split(","))
        .map(day -> DayOfWeek.of(Integer.parseInt(day)))
        .collect(Collectors.toSet());
  }

  /** Makes one; its number is given. */
  public long add(PersonId actor, Optional<String> key, Kept wanted) {
    return Long.parseLong(
        acts.run(
                Acts.Wanted.by(actor, "duty.add", key, wanted.toString()),
                act -> {
                  requireNew(wanted);
                  long id =
                      jdbc.sql(
                              """
                              insert into duty (name, place, role, skill, meanwhile)
                              values (?, ?, ?, ?, ?) returning id
                              """)
                          .param(wanted.name())
                          .param(wanted.place().value())
                          .param(wanted.role().value())
                          .param(wanted.skill().orElse(null))
                          .param(wanted.meanwhile())
                          .query(Long.class)
                          .single();
                  keep(id, wanted);
                  return Long.toString(id);
                })
            .answer());
  }

  void change(PersonId actor, Kept wanted) {
    acts.run(
        Acts.Wanted.by(actor, "duty.change", Optional.empty(), ""),
        act -> {
          find(wanted.id());
          requireNew(wanted);
          jdbc.sql(
                  """
                  update duty set name = ?, place = ?, role = ?, skill = ?, meanwhile = ?
                  where id = ?
                  """)
              .param(wanted.name())
              .param(wanted.place().value())
              .param(wanted.role().value())
              .param(wanted.skill().orElse(null))
              .param(wanted.meanwhile())
              .param(wanted.id())
              .update();
          empty(wanted.id());
          keep(wanted.id(), wanted);
          return "";
        });
  }

  private void requireNew(Kept wanted) {
    boolean taken =
        jdbc.sql("select exists (select 1 from duty where name = ? and id <> ?)")
            .param(wanted.name())
            .param(wanted.id())
            .query(Boolean.class)
            .single();
    if (taken) {
      throw Problem.fault("/name", "is the name of another duty");
    }
  }

  private void keep(long id, Kept wanted) {
    int position = 0;
    for (Duty.Repeating span : wanted.spans()) {
      jdbc.sql(
              """
              insert into duty_span (duty, position, weekdays, from_time, until_time, count,
                first_day, last_day) values (?, ?, ?, ?, ?, ?, ?, ?)
              """)
          .param(id)
          .param(position++)
          .param(
              new TreeSet<>(span.weekdays())
                  .stream().map(day -> "" + day.getValue()).collect(Collectors.joining(",")))
          .param(span.from())
          .param(span.until())
          .param(span.count())
          .param(span.first().orElse(null))
          .param(span.last().orElse(null))
          .update();
    }
    for (LocalDate day : wanted.lifted()) {
      jdbc.sql("insert into duty_lifted (duty, day) values (?, ?)").param(id).param(day).update();
    }
  }

  private void empty(long id) {
    jdbc.sql("delete from duty_span where duty = ?").param(id).update();
    jdbc.sql("delete from duty_lifted where duty = ?").param(id).update();
  }

  void remove(PersonId actor, long id) {
    acts.run(
        Acts.Wanted.by(actor, "duty.remove", Optional.empty(), ""),
        act -> {
          find(id);
          empty(id);
          jdbc.sql("delete from duty where id = ?").param(id).update();
          return "";
        });
  }
}
