package mellowrota.server.cover;

import java.time.DayOfWeek;
import java.time.Duration;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.cover.Clash;
import mellowrota.core.cover.Clashes;
import mellowrota.core.cover.Limits;
import mellowrota.core.cover.Travel;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.PlaceId;
import mellowrota.server.acts.Acts;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** What the house does not want of people's work, and how long ways and how large places are. */
@Service
public class HouseLimits {

  private final JdbcClient jdbc;
  private final Acts acts;

  HouseLimits(JdbcClient jdbc, Acts acts) {
    this.jdbc = jdbc;
    this.acts = acts;
  }

  private record Settled(String weekBegins, int periodWeeks, double travelSpeed) {}

  private Settled settled() {
    return jdbc.sql("select week_begins, period_weeks, travel_speed from house")
        .query(Settled.class)
        .single();
  }

  Limits limits() {
    Limits usual = Limits.usual();
    Map<Clash.Kind, Clash.Level> levels = new EnumMap<>(Clash.Kind.class);
    levels.putAll(usual.levels());
    Map<Clash.Kind, Integer> amounts = new EnumMap<>(Clash.Kind.class);
    for (Clash.Kind kind : Clash.Kind.values()) {
      amounts.put(kind, usual.amount(kind).orElse(0));
    }
    jdbc.sql("select kind, never, amount from house_limit")
        .query(
            row -> {
              Clash.Kind kind = Clash.Kind.valueOf(row.getString(1));
              levels.put(kind, row.getBoolean(2) ? Clash.Level.NEVER : Clash.Level.WARN);
              amounts.put(kind, row.getInt(3));
            });
    Settled settled = settled();
    return new Limits(
        levels,
        Duration.ofMinutes(amounts.get(Clash.Kind.REST)),
        Duration.ofMinutes(amounts.get(Clash.Kind.LONGEST)),
        DayOfWeek.valueOf(settled.weekBegins()),
        Duration.ofMinutes(amounts.get(Clash.Kind.WEEK)),
        settled.periodWeeks(),
        Duration.ofMinutes(amounts.get(Clash.Kind.PERIOD)),
        amounts.get(Clash.Kind.DAYS),
        amounts.get(Clash.Kind.NIGHTS),
        amounts.get(Clash.Kind.DUE));
  }

  /** Sets how long a stretch of work may be. */
  public void longest(PersonId actor, Duration most) {
    Wish wish = new Wish(Clash.Level.WARN, Optional.of((int) most.toMinutes()));
    set(actor, Map.of(Clash.Kind.LONGEST, wish), Optional.empty(), Optional.empty());
  }

  /** One limit of the house. */
  record Wish(Clash.Level level, Optional<Integer> amount) {}

  void set(
      PersonId actor,
      Map<Clash.Kind, Wish> wishes,
      Optional<DayOfWeek> weekBegins,
      Optional<Integer> periodWeeks) {
    acts.run(
        Acts.Wanted.by(actor, "house.limits", Optional.empty(), ""),
        act -> {
          wishes.forEach(
              (kind, wish) ->
                  jdbc.sql(
                          """
                          insert into house_limit (kind, never, amount) values (?, ?, ?)
                          on conflict (kind) do update
                            set never = excluded.never, amount = excluded.amount
                          """)
                      .param(kind.name())
                      .param(wish.level() == Clash.Level.NEVER)
                      .param(wish.amount().orElse(null))
                      .update());
          jdbc.sql(
                  """
                  update house set week_begins = coalesce(?, week_begins),
                    period_weeks = coalesce(?, period_weeks)
                  """)
              .param(weekBegins.map(DayOfWeek::name).orElse(null))
              .param(periodWeeks.orElse(null))
              .update();
          return "";
        });
  }

  Travel travel() {
    Map<Travel.Way, Duration> table = new HashMap<>();
    jdbc.sql("select from_place, to_place, minutes from travel")
        .query(
            row -> {
              table.put(
                  new Travel.Way(PlaceId.of(row.getLong(1)), PlaceId.of(row.getLong(2))),
                  Duration.ofMinutes(row.getInt(3)));
            });
    Map<PlaceId, Travel.Position> positions = new HashMap<>();
    jdbc.sql(
            """
            select id, latitude, longitude from place
            where latitude is not null and longitude is not null
            """)
        .query(
            row -> {
              positions.put(
                  PlaceId.of(row.getLong(1)),
                  new Travel.Position(row.getDouble(2), row.getDouble(3)));
            });
    return new Travel(table, positions, settled().travelSpeed());
  }

  /** Of the places about which it is said. */
  Map<PlaceId, Clashes.Capacity> capacities() {
    Map<PlaceId, Clashes.Capacity> found = new HashMap<>();
    jdbc.sql("select id, capacity, capacity_of_people from place where capacity is not null")
        .query(
            row -> {
              found.put(
                  PlaceId.of(row.getLong(1)),
                  new Clashes.Capacity(row.getInt(2), row.getBoolean(3)));
            });
    return found;
  }

  /**
   * What is said of one place.
   *
   * @param ofPeople whether people are counted, else visits
   * @param ways from it, in minutes
   */
  record PlaceTerms(
      Optional<Integer> capacity,
      boolean ofPeople,
      Optional<Double> latitude,
      Optional<Double> longitude,
      Map<PlaceId, Integer> ways) {}

  PlaceTerms place(PlaceId id) {
    Map<PlaceId, Integer> ways = new HashMap<>();
    jdbc.sql("select to_place, minutes from travel where from_place = ?")
        .param(id.value())
        .query(
            row -> {
              ways.put(PlaceId.of(row.getLong(1)), row.getInt(2));
            });
    return jdbc.sql(
            "select capacity, capacity_of_people, latitude, longitude from place where id = ?")
        .param(id.value())
        .query(
            (row, n) ->
                new PlaceTerms(
                    Optional.ofNullable(row.getObject(1, Integer.class)),
                    row.getBoolean(2),
                    Optional.ofNullable(row.getObject(3, Double.class)),
                    Optional.ofNullable(row.getObject(4, Double.class)),
                    ways))
        .single();
  }

  void setPlace(PersonId actor, PlaceId id, PlaceTerms terms) {
    acts.run(
        Acts.Wanted.by(actor, "house.place", Optional.empty(), ""),
        act -> {
          jdbc.sql(
                  """
                  update place set capacity = ?, capacity_of_people = ?, latitude = ?,
                    longitude = ? where id = ?
                  """)
              .param(terms.capacity().orElse(null))
              .param(terms.ofPeople())
              .param(terms.latitude().orElse(null))
              .param(terms.longitude().orElse(null))
              .param(id.value())
              .update();
          jdbc.sql("delete from travel where from_place = ?").param(id.value()).update();
          terms
              .ways()
              .forEach(
                  (to, minutes) ->
                      jdbc.sql(
                              """
                              insert into travel (from_place, to_place, minutes) values (?, ?, ?)
                              """)
                          .param(id.value())
                          .param(to.value())
                          .param(minutes)
                          .update());
          return "";
        });
  }
}
