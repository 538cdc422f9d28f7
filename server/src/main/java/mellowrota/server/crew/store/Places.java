package mellowrota.server.crew.store;

import jakarta.persistence.EntityManager;
import java.time.DayOfWeek;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Hours;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Position;
import mellowrota.server.crew.Weeks;
import mellowrota.server.platform.Problem;
import org.springframework.stereotype.Repository;

/** Places as they are kept, what each holds, and how long the ways between them are. */
@Repository
@RequiredArgsConstructor
public class Places {

  private final EntityManager kept;

  /**
   * What a place holds and where it is.
   *
   * @param capacity how many at once; empty: nobody has said
   * @param ofPeople whether people are counted, else visits
   * @param address in one line
   * @param ways from it, in minutes
   * @param opening when work can be done there; none: nobody has said
   */
  public record Terms(
      Optional<Integer> capacity,
      boolean ofPeople,
      Optional<String> address,
      Optional<Position> position,
      Map<PlaceId, Integer> ways,
      List<Opening> opening) {}

  /** Hours of one weekday, until the next day's where {@code until} is not after {@code from}. */
  public record Opening(DayOfWeek weekday, LocalTime from, LocalTime until) {

    private static final Pattern TEXT = Pattern.compile("([1-7]) (\\d\\d:\\d\\d)-(\\d\\d:\\d\\d)");

    /** In the zone of the place. */
    public Hours.Weekly in(ZoneId zone) {
      return new Hours.Weekly(
          weekday, from, until, Optional.empty(), zone, Optional.empty(), Optional.empty());
    }

    /** As {@code "1 08:00-17:00"}. */
    @Override
    public String toString() {
      return weekday.getValue() + " " + from + "-" + until;
    }

    /** The inverse of {@link #toString}. */
    static Opening parse(String text) {
      Matcher read = TEXT.matcher(text);
      if (!read.matches()) {
        throw new IllegalArgumentException(text);
      }
      return new Opening(
          DayOfWeek.of(Integer.parseInt(read.group(1))),
          LocalTime.parse(read.group(2)),
          LocalTime.parse(read.group(3)));
    }
  }

  /** In which region a place lies, and on which days of the week it is worked there. */
  public record Days(Optional<Long> region, Optional<WorkingWeek> week) {}

  private List<PlaceEntity> entities() {
    return kept.createQuery("from PlaceEntity order by id", PlaceEntity.class).getResultList();
  }

  /**
   * The row of a place, to be changed.
   *
   * @throws Problem where there is none such
   */
  private PlaceEntity entity(PlaceId id) {
    return Optional.ofNullable(kept.find(PlaceEntity.class, id.value()))
        .orElseThrow(Problem::notFound);
  }

  public List<Place> all() {
    return entities().stream().map(PlaceEntity::place).toList();
  }

  public Optional<Place> find(PlaceId id) {
    return Optional.ofNullable(kept.find(PlaceEntity.class, id.value())).map(PlaceEntity::place);
  }

  public PlaceId add(String code, String name, Optional<ZoneId> zone) {
    PlaceEntity entity = new PlaceEntity(code, name, zone);
    kept.persist(entity);
    return PlaceId.of(entity.id);
  }

  /** Keeps a place that was there as it is now. */
  public void keep(Place place) {
    entity(place.id()).become(place.code(), place.name(), place.zone());
  }

  /** By place, in the order of their numbers. */
  public Map<PlaceId, Terms> terms() {
    Map<Long, Map<PlaceId, Integer>> ways = new HashMap<>();
    kept.createQuery("from WayEntity", WayEntity.class).getResultList().stream()
        .forEach(
            way ->
                ways.computeIfAbsent(way.fromPlace, key -> new HashMap<>())
                    .put(PlaceId.of(way.toPlace), way.minutes));
    return each(
        one ->
            new Terms(
                Optional.ofNullable(one.capacity),
                one.capacityOfPeople,
                Optional.ofNullable(one.address),
                one.position(),
                ways.getOrDefault(one.id, Map.of()),
                one.openHours == null
                    ? List.of()
                    : Stream.of(one.openHours.split(", ")).map(Opening::parse).toList()));
  }

  public void setTerms(PlaceId id, Terms terms) {
    PlaceEntity entity = entity(id);
    entity.capacity = terms.capacity().orElse(null);
    entity.capacityOfPeople = terms.ofPeople();
    entity.address = terms.address().orElse(null);
    entity.latitude = terms.position().map(Position::latitude).orElse(null);
    entity.longitude = terms.position().map(Position::longitude).orElse(null);
    entity.openHours =
        terms.opening().isEmpty()
            ? null
            : terms.opening().stream().map(Opening::toString).collect(Collectors.joining(", "));
    Map<PlaceId, Integer> open = new HashMap<>(terms.ways());
    kept
        .createQuery("from WayEntity where fromPlace = :place", WayEntity.class)
        .setParameter("place", id.value())
        .getResultList()
        .stream()
        .forEach(
            way -> {
              Integer minutes = open.remove(PlaceId.of(way.toPlace));
              if (minutes == null) {
                kept.remove(way);
              } else {
                way.minutes = minutes;
              }
            });
    open.forEach((to, minutes) -> kept.persist(new WayEntity(id.value(), to.value(), minutes)));
  }

  /** By place, in the order of their numbers. */
  public Map<PlaceId, Days> days() {
    return each(
        one ->
            new Days(
                Optional.ofNullable(one.region), Optional.ofNullable(one.week).map(Weeks::of)));
  }

  public void setDays(PlaceId id, Days days) {
    PlaceEntity entity = entity(id);
    entity.region = days.region().orElse(null);
    entity.week = days.week().map(Weeks::kept).orElse(null);
  }

  private <T> Map<PlaceId, T> each(Function<PlaceEntity, T> what) {
    return entities().stream()
        .collect(
            Collectors.toMap(
                one -> PlaceId.of(one.id), what, (one, other) -> one, LinkedHashMap::new));
  }
}
