package mellowrota.server.regions;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingDays.Holiday;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Acts;
import mellowrota.server.crew.Weeks;
import mellowrota.server.platform.Problem;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** Regions and closures as they are kept. */
@Service
public class Regions {

  private final JdbcClient jdbc;
  private final Acts acts;

  Regions(JdbcClient jdbc, Acts acts) {
    this.jdbc = jdbc;
    this.acts = acts;
  }

  /**
   * A region.
   *
   * @param week empty: as the house's
   * @param holidays by day
   */
  public record Kept(long id, String name, Optional<WorkingWeek> week, List<Holiday> holidays) {
    WorkingDays.Region said() {
      return new WorkingDays.Region(week, holidays);
    }
  }

  /** Days on which no work is done. */
  public record Closure(DaySpan days, String why) {}

  /**
   * What is said of a place or, where no place is named, of the house.
   *
   * @param region in which it lies; empty: the house's, and for the house none
   * @param week empty: as its region's, then the house's; the house's own is settled elsewhere
   */
  public record Said(Optional<Long> region, Optional<WorkingWeek> week, List<Closure> closures) {}

  /** All of them, by name. */
  public List<Kept> all() {
    Map<Long, List<Holiday>> holidays = new HashMap<>();
    jdbc.sql("select region, day, name, half from holiday order by day")
        .query(
            row -> {
              holidays
                  .computeIfAbsent(row.getLong(1), key -> new ArrayList<>())
                  .add(
                      new Holiday(
                          row.getObject(2, LocalDate.class), row.getString(3), row.getBoolean(4)));
            });
    return jdbc.sql("select id, name, week from region order by name")
        .query(
            (row, n) ->
                new Kept(
                    row.getLong(1),
                    row.getString(2),
                    Optional.ofNullable(row.getString(3)).map(Weeks::of),
                    holidays.getOrDefault(row.getLong(1), List.of())))
        .list();
  }

  /** Adds one without holidays. */
  public long add(PersonId actor, String name, Optional<WorkingWeek> week) {
    List<Long> made = new ArrayList<>();
    act(
        actor,
        "house.region",
        () -> {
          requireFree(name, 0);
          made.add(
              jdbc.sql("insert into region (name, week) values (?, ?) returning id")
                  .param(name)
                  .param(week.map(Weeks::kept).orElse(null))
                  .query(Long.class)
                  .single());
        });
    return made.get(0);
  }

  /**
   * Says a region anew, its holidays too.
   *
   * @throws Problem where there is none such, or its name is another's
   */
  public void set(
      PersonId actor,
      long id,
      String name,
      Optional<WorkingWeek> week,
      Collection<Holiday> holidays) {
    act(
        actor,
        "house.region",
        () -> {
          requireFree(name, id);
          int found =
              jdbc.sql("update region set name = ?, week = ? where id = ?")
                  .param(name)
                  .param(week.map(Weeks::kept).orElse(null))
                  .param(id)
                  .update();
          if (found == 0) {
            throw Problem.notFound();
          }
          jdbc.sql("delete from holiday where region = ?").param(id).update();
          for (Holiday one : holidays) {
            jdbc.sql("insert into holiday (region, day, name, half) values (?, ?, ?, ?)")
                .param(id)
                .param(one.day())
                .param(one.name())
                .param(one.half())
                .update();
          }
        });
  }

  private void requireFree(String name, long id) {
    boolean taken =
        jdbc.sql("select 1 from region where name = ? and id <> ?")
            .param(name)
            .param(id)
            .query(Integer.class)
            .optional()
            .isPresent();
    if (taken) {
      throw Problem.of(409, "name-taken", "There is a region of that name already.");
    }
  }

  /**
   * Takes a region away.
   *
   * @throws Problem where there is none such, or something lies in it
   */
  public void remove(PersonId actor, long id) {
    act(
        actor,
        "house.region",
        () -> {
          List<String> in =
              jdbc.sql(
                      """
                      select name from place where region = ?
                      union all select 'the house' from house where region = ?
                      """)
                  .param(id)
                  .param(id)
                  .query(String.class)
                  .list();
          if (!in.isEmpty()) {
            throw Problem.of(
                409,
                "in-use",
                "In this region lies " + String.join(", ", in) + "; give it another one first.");
          }
          jdbc.sql("delete from holiday where region = ?").param(id).update();
          if (jdbc.sql("delete from region where id = ?").param(id).update() == 0) {
            throw Problem.notFound();
          }
        });
  }

  /** What is said of a place; empty: of the house. */
  public Said said(Optional<PlaceId> place) {
    List<Closure> closures = closures().getOrDefault(place, List.of());
    return (place.isEmpty()
            ? jdbc.sql("select region, null from house")
            : jdbc.sql("select region, week from place where id = ?").param(place.get().value()))
        .query(
            (row, n) ->
                new Said(
                    Optional.ofNullable(row.getObject(1, Long.class)),
                    Optional.ofNullable(row.getString(2)).map(Weeks::of),
                    closures))
        .single();
  }

  /** Says it anew. */
  public void set(PersonId actor, Optional<PlaceId> place, Said said) {
    Long id = place.map(PlaceId::value).orElse(null);
    act(
        actor,
        "house.days",
        () -> {
          Long region = said.region().orElse(null);
          if (id == null) {
            jdbc.sql("update house set region = ?").param(region).update();
          } else {
            jdbc.sql("update place set region = ?, week = ? where id = ?")
                .param(region)
                .param(said.week().map(Weeks::kept).orElse(null))
                .param(id)
                .update();
          }
          jdbc.sql("delete from closure where place is not distinct from ?").param(id).update();
          for (Closure one : said.closures()) {
            jdbc.sql("insert into closure (place, first_day, last_day, why) values (?, ?, ?, ?)")
                .param(id)
                .param(one.days().first())
                .param(one.days().until().minusDays(1))
                .param(one.why())
                .update();
          }
        });
  }

  private void act(PersonId actor, String kind, Runnable change) {
    acts.run(
        Acts.Wanted.by(actor, kind, Optional.empty(), ""),
        act -> {
          change.run();
          return "";
        });
  }

  /** By place; without one: of the whole house. */
  Map<Optional<PlaceId>, List<Closure>> closures() {
    Map<Optional<PlaceId>, List<Closure>> found = new HashMap<>();
    jdbc.sql("select place, first_day, last_day, why from closure order by first_day, id")
        .query(
            row -> {
              found
                  .computeIfAbsent(
                      Optional.ofNullable(row.getObject(1, Long.class)).map(PlaceId::of),
                      key -> new ArrayList<>())
                  .add(
                      new Closure(
                          DaySpan.of(
                              row.getObject(2, LocalDate.class),
                              row.getObject(3, LocalDate.class).plusDays(1)),
                          row.getString(4)));
            });
    return found;
  }

  /** Which days are worked where (COVER 26), as it is said now. */
  public WorkDays workDays(WorkingWeek house) {
    Map<Long, WorkingDays.Region> regions = new HashMap<>();
    all().forEach(one -> regions.put(one.id(), one.said()));
    Map<Optional<PlaceId>, List<Closure>> closures = closures();
    List<DaySpan> everywhere = spans(closures.getOrDefault(Optional.empty(), List.of()));
    WorkingDays.Region office =
        said(Optional.empty()).region().map(regions::get).orElse(WorkingDays.Region.UNSAID);
    Map<PlaceId, WorkingDays> places = new HashMap<>();
    jdbc.sql("select id, region, week from place")
        .query(
            row -> {
              PlaceId place = PlaceId.of(row.getLong(1));
              places.put(
                  place,
                  WorkingDays.of(
                      Optional.ofNullable(row.getString(3)).map(Weeks::of),
                      Optional.ofNullable(row.getObject(2, Long.class)).map(regions::get),
                      Stream.concat(
                              everywhere.stream(),
                              spans(closures.getOrDefault(Optional.of(place), List.of())).stream())
                          .toList(),
                      house,
                      office));
            });
    return new WorkDays(
        places, WorkingDays.of(Optional.empty(), Optional.of(office), everywhere, house, office));
  }

  private static List<DaySpan> spans(List<Closure> closures) {
    return closures.stream().map(Closure::days).toList();
  }

  /**
   * Which days are worked where.
   *
   * @param office for work without a place
   */
  public record WorkDays(Map<PlaceId, WorkingDays> places, WorkingDays office) {
    public WorkingDays at(Optional<PlaceId> place) {
      return place.map(places::get).orElse(office);
    }
  }
}
