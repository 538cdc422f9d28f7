package mellowrota.server.cover;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import mellowrota.core.cover.Asks;
import mellowrota.core.cover.Bounds;
import mellowrota.core.cover.Clashes;
import mellowrota.core.cover.Cover;
import mellowrota.core.cover.Eligibility;
import mellowrota.core.cover.Limits;
import mellowrota.core.cover.Swaps;
import mellowrota.core.cover.WhoCould;
import mellowrota.core.cover.Work;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.When;
import mellowrota.server.links.OutsideBusy;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;

/** Everybody the asker answers for, to be tried with work in a span. */
final class CandidateTrial {

  /** Begins a trial. */
  @Component
  static final class Source {
    private final Covers covers;
    private final Duties duties;
    private final CrewTimes crew;
    private final OutsideBusy busy;
    private final HouseLimits limits;

    Source(Covers covers, Duties duties, CrewTimes crew, OutsideBusy busy, HouseLimits limits) {
      this.covers = covers;
      this.duties = duties;
      this.crew = crew;
      this.busy = busy;
      this.limits = limits;
    }

    CandidateTrial trying(World world, Person asker, TimeSpan span) {
      return new CandidateTrial(this, world, asker, span);
    }
  }

  private final World world;
  final List<Duties.Kept> duties;
  final Set<PersonId> watched;
  private final Set<PersonId> unknown = new HashSet<>();
  private final Person asker;
  private final HouseLimits limits;
  private final Limits house;
  private final LocalDate first;
  private final LocalDate until;
  private final TimeSpan span;
  final CrewTimes.Around around;

  private CandidateTrial(Source source, World world, Person asker, TimeSpan span) {
    this.world = world;
    this.asker = asker;
    this.span = span;
    limits = source.limits;
    house = limits.limits();
    duties = source.duties.all();
    ZoneId zone = world.house().zone();
    LocalDate day = LocalDate.ofInstant(span.start(), zone);
    first = day.minusDays(Covers.AROUND_DAYS + 7L * house.periodWeeks());
    until = LocalDate.ofInstant(span.end(), zone).plusDays(Covers.AROUND_DAYS);
    watched = source.covers.watched(world, asker);
    around = source.crew.around(world, duties, first, until, watched);
    source.busy.ages(watched).stream()
        .filter(age -> age.trust() == OutsideBusy.Trust.UNKNOWN)
        .forEach(age -> unknown.add(age.person()));
  }

  /** As if they did not do what is tried, which they are told they do already. */
  List<WhoCould.Candidate> candidates(Predicate<OnIt> tried, List<TimeSpan> alone) {
    return candidates(tried, alone, true, Optional.empty());
  }

  /**
   * As if they did not do what is tried.
   *
   * @param told whether they are told that they do already
   * @param team whose work it is
   */
  List<WhoCould.Candidate> candidates(
      Predicate<OnIt> tried, List<TimeSpan> alone, boolean told, Optional<TeamId> team) {
    return Covers.here(world).parallelStream()
        .filter(watched::contains)
        .map(
            id -> {
              List<TimeSpan> here =
                  around.of(id).stream()
                      .filter(one -> told && tried.test(one))
                      .flatMap(one -> one.span(around.zone(id)).stream())
                      .toList();
              List<TimeSpan> lonely = around.able(id).notAlone() ? alone : List.of();
              return candidate(id, tried, here, lonely, team);
            })
        .toList();
  }

  /** The same, and after them those who have left, of whom the office is told why not. */
  List<WhoCould.Candidate> everybody(
      Predicate<OnIt> tried, List<TimeSpan> alone, boolean told, Optional<TeamId> team) {
    List<WhoCould.Candidate> found = new ArrayList<>(candidates(tried, alone, told, team));
    if (asker.isCoordinator()) {
      world.crew().people().stream()
          .filter(Person::hasLeft)
          .forEach(one -> found.add(candidate(one.id(), tried, List.of(), List.of(), team)));
    }
    return found;
  }

  private WhoCould.Candidate candidate(
      PersonId id,
      Predicate<OnIt> without,
      List<TimeSpan> here,
      List<TimeSpan> alone,
      Optional<TeamId> team) {
    Person person = world.person(id);
    return new WhoCould.Candidate(
        around.commitments(id, without),
        person.name(),
        unknown.contains(id),
        here,
        alone,
        around.commitments(id).load(week(around.zone(id))),
        around.terms(id).contract(),
        new WhoCould.Ties(
            person.standing() == Person.Standing.AGENCY,
            person.isCoordinator(),
            team.filter(one -> world.crew().isIn(id, one)).isPresent()));
  }

  /** The week that the work begins in, where somebody lives. */
  private TimeSpan week(ZoneId zone) {
    LocalDate begins =
        LocalDate.ofInstant(span.start(), zone)
            .with(TemporalAdjusters.previousOrSame(house.weekBegins()));
    return DaySpan.of(begins, begins.plusWeeks(1)).in(zone);
  }

  /** Work of theirs that another would take, and they without it. */
  Optional<Swaps.Side> side(OnIt one) {
    return around
        .work(one)
        .map(
            work ->
                new Swaps.Side(
                    instead(work.sure(), around.able(one.person())),
                    candidate(
                        one.person(),
                        tried -> tried.ask().equals(one.ask()),
                        List.of(),
                        List.of(),
                        Optional.empty())));
  }

  /** One is wanted in their stead: for the place they fit, where each wants a skill. */
  static Work instead(Work work, Eligibility leaving) {
    List<Optional<String>> places = work.asks().places();
    if (places.isEmpty() || places.contains(Optional.<String>empty())) {
      return work.asking(List.of(Optional.empty()));
    }
    Optional<String> theirs =
        places.stream()
            .filter(skill -> leaving.meeting(skill, work.site(), work.span()).isPresent())
            .findFirst()
            .orElse(places.get(0));
    return work.asking(List.of(theirs));
  }

  Cover cover() {
    return Covers.cover(world, duties, Covers.range(world, first, until), around);
  }

  /** As it would be given: the shift there that nobody has, whole; else a new one. */
  Work trial(Duties.Kept duty, TimeSpan span, List<Optional<String>> missing) {
    Optional<CrewTimes.Waiting> waits = around.waiting(duty, span);
    return new Work(
        waits.map(CrewTimes.Waiting::id).orElse("trial " + duty.key() + " " + span.start()),
        waits.map(CrewTimes.Waiting::span).orElse(span),
        waits.flatMap(one -> one.visit().when().flatMap(When::wholeDays)),
        false,
        Optional.of(duty.place()),
        waits
            .map(one -> world.margins().of(one.record(), one.visit()))
            .orElseGet(() -> around.newShift(duty)),
        duty.meanwhile(),
        Asks.of(missing),
        duty.in(world).zone(),
        waits.map(one -> one.record().uses()).orElse(List.of()));
  }

  /** Who is in what asks by now, in a span. */
  Set<PersonId> there(String ask, TimeSpan span) {
    return around.onIt().stream()
        .filter(
            one ->
                one.ask().key().equals(ask)
                    || around.standing(one).stream().anyMatch(d -> d.key().equals(ask)))
        .filter(one -> around.isIn(one, span))
        .map(OnIt::person)
        .collect(Collectors.toSet());
  }

  /** Without the room at places. */
  Bounds anywhere() {
    return new Bounds(house, limits.ofPlaces(world).travel(), Map.of());
  }

  Bounds bounds() {
    return bounds(stay -> true);
  }

  /** Without what is moved, which leaves its place. */
  Bounds bounds(Ask.OfVisit moved) {
    return bounds(stay -> !stay.id().equals(moved.record() + "/" + moved.visit()));
  }

  private Bounds bounds(Predicate<Clashes.Stay> which) {
    HouseLimits.OfPlaces places = limits.ofPlaces(world);
    Map<PlaceId, List<Clashes.Stay>> stays = around.stays(places.capacities().keySet());
    Map<PlaceId, Bounds.Room> rooms = new HashMap<>();
    places
        .capacities()
        .forEach(
            (place, capacity) ->
                rooms.put(
                    place,
                    new Bounds.Room(
                        capacity,
                        stays.getOrDefault(place, List.of()).stream().filter(which).toList())));
    return new Bounds(house, places.travel(), rooms);
  }
}
