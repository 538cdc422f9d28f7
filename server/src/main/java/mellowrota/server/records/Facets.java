package mellowrota.server.records;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Team;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Kind;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.State;
import mellowrota.server.sight.World;
import org.jspecify.annotations.Nullable;

/**
 * How many records of a list there are of each sort, as far as its asker sees that of them (SIGHT
 * 8): a record whose place is hidden from them is counted for no place.
 *
 * @param over whether there are more than are counted; then nothing is told of their sorts
 */
@Schema(name = "RecordFacets")
record Facets(int total, boolean over, List<Facet> facets) {

  /** More are not counted. */
  static final int MOST = 1_000;

  /** By what records are counted. */
  enum Sort {
    KIND,
    STATE,
    TEAM,
    PLACE,
    PERSON
  }

  @Schema(name = "RecordFacet")
  record Facet(Sort sort, List<Value> values) {}

  /**
   * One of a sort: a kind, a state, or the number of a team, place or person.
   *
   * @param name what it is called
   */
  @Schema(name = "RecordFacetValue")
  record Value(
      @Nullable Kind kind, @Nullable State state, @Nullable Long id, String name, long count) {

    static Value of(Kind kind, long count) {
      return new Value(kind, null, null, kind.word(), count);
    }

    static Value of(State state, long count) {
      return new Value(null, state, null, state.name().toLowerCase(Locale.ROOT), count);
    }

    static Value of(long id, String name, long count) {
      return new Value(null, null, id, name, count);
    }
  }

  /** One row of {@link #QUESTION}; without a sort the number of all. */
  record Row(String sort, String value, long count) {}

  /** Wants where records come from, and what they must be like; counts one more than the most. */
  static final String QUESTION =
      """
      with found as materialized (
        select r.id, r.kind, sees.people as with_people,
          case when sees.times then r.state end as state,
          case when sees.team then r.team end as team,
          case when sees.place then r.place end as place
        from %s where %s limit :most)
      select '' as sort, '' as value, count(*) as count from found
      union all select 'KIND', kind, count(*) from found group by kind
      union all select 'STATE', state, count(*) from found where state is not null group by state
      union all select 'TEAM', cast(team as text), count(*) from found
        where team is not null group by team
      union all select 'PLACE', cast(place as text), count(*) from found
        where place is not null group by place
      union all select 'PERSON', cast(a.holder as text), count(distinct f.id)
        from found f join assignment a on a.record = f.id
        where f.with_people and a.holder_kind = 'P' group by a.holder
      """;

  static Facets of(World world, List<Row> rows) {
    int total = 0;
    Map<Sort, List<Value>> found = new EnumMap<>(Sort.class);
    for (Row row : rows) {
      if (row.sort().isEmpty()) {
        total = (int) row.count();
      } else {
        Sort sort = Sort.valueOf(row.sort());
        value(world, sort, row)
            .ifPresent(value -> found.computeIfAbsent(sort, key -> new ArrayList<>()).add(value));
      }
    }
    if (total > MOST) {
      return new Facets(MOST, true, List.of());
    }
    List<Facet> facets = new ArrayList<>();
    found.forEach(
        (sort, values) -> {
          values.sort(
              Comparator.comparing(Value::count)
                  .reversed()
                  .thenComparing(Value::name)
                  .thenComparing(one -> one.id() == null ? 0 : one.id()));
          facets.add(new Facet(sort, values));
        });
    return new Facets(total, false, facets);
  }

  private static Optional<Value> value(World world, Sort sort, Row row) {
    long count = row.count();
    if (sort == Sort.KIND) {
      return Optional.of(Value.of(Kind.valueOf(row.value()), count));
    } else if (sort == Sort.STATE) {
      return Optional.of(Value.of(State.valueOf(row.value()), count));
    }
    long id = Long.parseLong(row.value());
    Optional<String> name =
        switch (sort) {
          case TEAM -> world.crew().team(TeamId.of(id)).map(Team::name);
          case PLACE -> world.places().find(PlaceId.of(id)).map(Place::name);
          default -> world.crew().person(PersonId.of(id)).map(Person::name);
        };
    return name.map(called -> Value.of(id, called, count));
  }
}
