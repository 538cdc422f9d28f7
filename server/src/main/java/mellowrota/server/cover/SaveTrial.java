package mellowrota.server.cover;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.cover.Clashes;
import mellowrota.core.cover.Hours;
import mellowrota.core.cover.Limits;
import mellowrota.core.cover.Worsened;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;

/**
 * What a change of records makes wrong, or worse. Only confirmed work that is given, moved or asks
 * more is looked at: whoever finishes, calls off or writes a note makes nothing wrong.
 */
@Component
@RequiredArgsConstructor
class SaveTrial {

  private final Duties duties;
  private final CrewTimes crew;
  private final HouseLimits limits;

  /**
   * A record before and after.
   *
   * @param before empty: it is new
   */
  record Change(Optional<WorkRecord> before, WorkRecord after) {}

  /**
   * What is changed of people's time.
   *
   * @param people whose time is taken otherwise
   * @param places that hold only so much and in which something stands otherwise
   */
  record Touched(
      List<Change> changes, List<Moved> moved, Set<PersonId> people, Set<PlaceId> places) {
    boolean isNothing() {
      return moved.isEmpty();
    }
  }

  /** What was found, with what stands around it. */
  record Found(List<Clash> clashes, CrewTimes.Around around, Limits limits) {}

  Touched touched(World world, List<Change> changes) {
    List<Moved> moved = changes.stream().flatMap(SaveTrial::moved).toList();
    Set<PersonId> people = new TreeSet<>();
    Set<PlaceId> places = new TreeSet<>();
    if (!moved.isEmpty()) {
      Set<PlaceId> held = limits.ofPlaces(world).capacities().keySet();
      for (Moved one : moved) {
        people.addAll(one.people());
        one.record().places().stream().filter(held::contains).forEach(places::add);
      }
    }
    return new Touched(changes, moved, people, places);
  }

  Found find(World world, Touched touched) {
    return find(touched, others(world, touched));
  }

  /** The same beside others that were brought before. */
  Found find(Touched touched, CrewTimes.Around others) {
    Limits house = limits.limits();
    List<Change> changes = touched.changes();
    Sides sides =
        new Sides(
            others.and(standing(changes.stream().flatMap(one -> one.before().stream()))),
            others.and(standing(changes.stream().map(Change::after))));
    List<Clash> found = new ArrayList<>();
    HouseLimits.OfPlaces settled = limits.ofPlaces(others.world());
    for (PersonId person : touched.people()) {
      Set<String> theirs =
          touched.moved().stream()
              .filter(one -> one.people().contains(person))
              .map(Moved::id)
              .collect(Collectors.toSet());
      found.addAll(
          Worsened.of(
              sides.before().commitments(person),
              sides.after().commitments(person),
              theirs,
              house,
              settled.travel()));
    }
    Set<String> all = touched.moved().stream().map(Moved::id).collect(Collectors.toSet());
    Map<PlaceId, List<Clashes.Stay>> stoodBefore = sides.before().stays(touched.places());
    Map<PlaceId, List<Clashes.Stay>> standsAfter = sides.after().stays(touched.places());
    for (PlaceId place : touched.places()) {
      found.addAll(
          Worsened.of(
              settled.capacities().get(place),
              stoodBefore.getOrDefault(place, List.of()),
              standsAfter.getOrDefault(place, List.of()),
              all,
              house));
    }
    found.addAll(shut(touched, sides, settled.openings()));
    return new Found(found, sides.after(), house);
  }

  /** What comes to lie at a place, or to use it, while it is shut. */
  private static List<Clash> shut(Touched touched, Sides sides, Map<PlaceId, Hours> openings) {
    List<Clash> found = new ArrayList<>();
    Set<String> moved = touched.moved().stream().map(Moved::id).collect(Collectors.toSet());
    Map<PlaceId, List<Clashes.Stay>> before = sides.before().timedStays(openings.keySet());
    Map<PlaceId, List<Clashes.Stay>> after = sides.after().timedStays(openings.keySet());
    openings.forEach(
        (place, opening) -> {
          List<Clash> were = Clashes.shut(place, opening, before.getOrDefault(place, List.of()));
          Clashes.shut(place, opening, after.getOrDefault(place, List.of())).stream()
              .filter(one -> moved.stream().anyMatch(one::involves))
              .filter(one -> !were.contains(one))
              .forEach(found::add);
        });
    return found;
  }

  /**
   * Confirmed work that takes time otherwise than before.
   *
   * @param people for whom it does
   */
  record Moved(WorkRecord record, Visit visit, Set<PersonId> people) {
    String id() {
      return OnIt.id(record, visit);
    }
  }

  private static Stream<Moved> moved(Change change) {
    Optional<WorkRecord> before = change.before();
    WorkRecord after = change.after();
    return after.state() != State.CONFIRMED
        ? Stream.empty()
        : after.visits().stream()
            .filter(visit -> visit.when().isPresent() && !after.tentative(visit.no()))
            .flatMap(
                visit -> {
                  boolean stood = before.filter(was -> stoodSo(was, after, visit)).isPresent();
                  Set<PersonId> people = new HashSet<>(OnIt.takingPart(after, visit.no()));
                  if (stood) {
                    people.removeAll(OnIt.takingPart(before.get(), visit.no()));
                  }
                  return stood && people.isEmpty()
                      ? Stream.empty()
                      : Stream.of(new Moved(after, visit, people));
                });
  }

  /** Whether a visit stood when it stands and where, and asked the same. */
  private static boolean stoodSo(WorkRecord before, WorkRecord after, Visit visit) {
    return isStanding(before)
        && before.visit(visit.no()).filter(visit::equals).isPresent()
        && !OnIt.isTentative(before, visit)
        && before.places().equals(after.places())
        && before.place().equals(after.place())
        && before.wants().equals(after.wants());
  }

  private static boolean isStanding(WorkRecord record) {
    return record.state() != State.DRAFT && record.state() != State.CANCELLED;
  }

  private record Sides(CrewTimes.Around before, CrewTimes.Around after) {}

  /** What stands around it but for what is changed. */
  CrewTimes.Around others(World world, Touched touched) {
    ZoneId zone = world.house().zone();
    LocalDate first = LocalDate.MAX;
    LocalDate last = LocalDate.MIN;
    for (Moved one : touched.moved()) {
      TimeSpan span = one.visit().when().orElseThrow().in(zone);
      LocalDate begins = LocalDate.ofInstant(span.start(), zone);
      LocalDate ends = LocalDate.ofInstant(span.end(), zone);
      first = begins.isBefore(first) ? begins : first;
      last = ends.isAfter(last) ? ends : last;
    }
    return crew.around(
        world,
        duties.all(),
        first.minusDays(Covers.AROUND_DAYS + 7L * limits.limits().periodWeeks()),
        last.plusDays(Covers.AROUND_DAYS),
        touched.people(),
        touched.places(),
        touched.changes().stream().map(one -> one.after().id()).collect(Collectors.toSet()));
  }

  private static Collection<WorkRecord> standing(Stream<WorkRecord> records) {
    return records.filter(SaveTrial::isStanding).toList();
  }
}
