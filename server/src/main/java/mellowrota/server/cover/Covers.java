package mellowrota.server.cover;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.ForkJoinTask;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Clash;
import mellowrota.core.cover.Clashes;
import mellowrota.core.cover.Commitments;
import mellowrota.core.cover.Cover;
import mellowrota.core.cover.Eligibility;
import mellowrota.core.cover.Filling;
import mellowrota.core.cover.Limits;
import mellowrota.core.cover.Need;
import mellowrota.core.cover.Travel;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.PlaceId;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** What is covered, from what is kept. */
@Service
@RequiredArgsConstructor
class Covers {

  /** Rest, weeks and days in a row are seen whole so far around what is asked for. */
  static final int AROUND_DAYS = 15;

  /** A gap at the edge of what is asked for is told whole so far beyond it. */
  private static final Duration BEYOND = Duration.ofDays(2);

  private static final Duration A_MINUTE = Duration.ofMinutes(1);

  private final Duties duties;
  private final WorkTimes times;
  private final CrewTimes crew;
  private final HouseLimits limits;
  private final RecordAccess access;
  private final Clock clock;

  Duties.Kept duty(long id) {
    return duties.find(id);
  }

  /** A visit that wants people, to whom the asker may see it. */
  record Seen(Wanting wanting, RecordAccess.Standing standing) {
    String key() {
      return wanting.ask().key();
    }
  }

  /**
   * What is covered, and what clashes of those the asker answers for, from one computation.
   *
   * @param works visits that want people, of those the asker answers for
   * @param cover of duties and of these works
   * @param gaps those that meet the days, some way beyond them too: to come by start, then past
   *     ones
   * @param goOn of these, those that began before what is told of them, or are not over after it
   * @param watched those the asker answers for
   * @param apart of works that are tentative, which ask for nobody yet
   */
  record Look(
      Instant now,
      List<Duties.Kept> duties,
      List<Seen> works,
      Cover cover,
      List<Cover.Gap> gaps,
      Map<Cover.Gap, GoesOn> goOn,
      Set<PersonId> watched,
      Cover apart,
      List<Clash> clashes,
      List<Clash> pileUps,
      CrewTimes.Around around) {}

  /** On which sides a gap is longer than is told of it. */
  record GoesOn(boolean before, boolean after) {}

  /** What is wrong with one person's time. */
  private record Wrong(List<Clash> clashes, List<Clash> pileUps) {}

  /** From one day until another, in the house's days. */
  Look look(World world, Person asker, LocalDate first, LocalDate until) {
    Set<PersonId> watched = watched(world, asker);
    List<Duties.Kept> all = duties.all();
    Limits house = limits.limits();
    CrewTimes.Around around =
        crew.around(
            world,
            all,
            first.minusDays(AROUND_DAYS + 7L * house.periodWeeks()),
            until.plusDays(AROUND_DAYS),
            watched);
    TimeSpan range = range(world, first, until);
    HouseLimits.OfPlaces places = limits.ofPlaces(world);
    Travel travel = places.travel();
    List<Clash> clashes = new ArrayList<>();
    List<Clash> pileUps = new ArrayList<>();
    TimeSpan told = TimeSpan.of(range.start().minus(BEYOND), range.end().plus(BEYOND));
    // A minute more on each side tells whether something goes on there.
    TimeSpan seen = TimeSpan.of(told.start().minus(A_MINUTE), told.end().plus(A_MINUTE));
    ForkJoinTask<Cover> cover =
        ForkJoinPool.commonPool().submit(() -> cover(world, all, seen, around));
    // One person's time says nothing of another's, so that all processors look at them.
    List<Wrong> wrong =
        around.people().parallelStream()
            .filter(watched::contains)
            .map(
                person -> {
                  Commitments of = around.commitments(person);
                  return new Wrong(
                      Clashes.in(Clashes.of(of, house, travel), range),
                      Clashes.in(Clashes.pileUps(of, around.due(person), house), range));
                })
            .toList();
    for (Wrong one : wrong) {
      clashes.addAll(one.clashes());
      pileUps.addAll(one.pileUps());
    }
    if (asker.isCoordinator()) {
      clashes.addAll(Clashes.in(atPlaces(places, around, house), range));
    }
    clashes.sort(Clash.BY_START);
    pileUps.sort(Clash.BY_START);
    List<Seen> works = seen(world, asker, around, range);
    Set<String> asks = new HashSet<>();
    all.forEach(one -> asks.add(one.key()));
    works.forEach(one -> asks.add(one.key()));
    Instant now = clock.instant();
    Cover whole = cover.join().only(asks::contains);
    List<Cover.Gap> gaps = new ArrayList<>();
    Map<Cover.Gap, GoesOn> goOn = new HashMap<>();
    for (Cover.Gap gap : whole.gapsAt(now)) {
      if (gap.span().overlaps(range)) {
        Cover.Gap shown = gap.within(told);
        gaps.add(shown);
        goOn.put(
            shown,
            new GoesOn(
                gap.span().start().isBefore(told.start()), gap.span().end().isAfter(told.end())));
      }
    }
    return new Look(
        now,
        all,
        works,
        whole.within(range),
        gaps,
        goOn,
        watched,
        apart(range, around).only(asks::contains),
        clashes,
        pileUps,
        around);
  }

  /** What places hold too much of, and what stands there while they are shut. */
  private static List<Clash> atPlaces(
      HouseLimits.OfPlaces places, CrewTimes.Around around, Limits house) {
    List<Clash> found = new ArrayList<>();
    Map<PlaceId, List<Clashes.Stay>> stays = around.stays(places.capacities().keySet());
    Map<PlaceId, List<Clashes.Stay>> timed = around.timedStays(places.openings().keySet());
    places
        .capacities()
        .forEach(
            (place, capacity) ->
                found.addAll(Clashes.of(capacity, stays.getOrDefault(place, List.of()), house)));
    places
        .openings()
        .forEach(
            (place, opening) ->
                found.addAll(Clashes.shut(place, opening, timed.getOrDefault(place, List.of()))));
    return found;
  }

  /** What a visit wants is for the office. */
  List<Seen> seen(World world, Person asker, CrewTimes.Around around, TimeSpan range) {
    List<Seen> found = new ArrayList<>();
    for (Wanting one : around.wanting()) {
      if (one.span().overlaps(range)) {
        access
            .opening(world, asker, one.record())
            .filter(RecordAccess.Standing::isOffice)
            .ifPresent(standing -> found.add(new Seen(one, standing)));
      }
    }
    return found;
  }

  /** The parts of a gap of a duty that somebody may be given: those of its own spans. */
  static List<TimeSpan> own(World world, Duties.Kept duty, TimeSpan gap) {
    return duty.in(world).spans(gap).stream()
        .flatMap(span -> span.intersection(gap).stream())
        .sorted(Comparator.comparing(TimeSpan::start).thenComparing(TimeSpan::end))
        .toList();
  }

  Set<PersonId> watched(World world, Person asker) {
    return times.officeOver(asker, here(world));
  }

  static List<PersonId> here(World world) {
    return world.crew().people().stream()
        .filter(one -> !one.hasLeft() && one.standing() != Person.Standing.OUTSIDE)
        .map(Person::id)
        .toList();
  }

  static TimeSpan range(World world, LocalDate first, LocalDate until) {
    return DaySpan.of(first, until).in(world.house().zone());
  }

  /** Of duties and of what records want, whoever may see them. */
  static Cover cover(World world, List<Duties.Kept> all, TimeSpan range, CrewTimes.Around around) {
    List<Need> needs = new ArrayList<>();
    all.forEach(one -> needs.addAll(one.in(world).needs(range)));
    around.wanting().stream()
        .filter(one -> !one.isTentative())
        .forEach(one -> one.need(range).ifPresent(needs::add));
    List<Filling> fillings = fillings(around);
    fillings.addAll(coming(around, false));
    return Cover.of(needs, fillings, able(around));
  }

  /** As if what is tentative were sure. */
  private static Cover apart(TimeSpan range, CrewTimes.Around around) {
    List<Need> needs = new ArrayList<>();
    around.wanting().stream()
        .filter(Wanting::isTentative)
        .forEach(one -> one.need(range).ifPresent(needs::add));
    return Cover.of(needs, coming(around, true), able(around));
  }

  private static Map<PersonId, Eligibility> able(CrewTimes.Around around) {
    Map<PersonId, Eligibility> able = new HashMap<>();
    around.people().forEach(one -> able.put(one, around.able(one)));
    return able;
  }

  /** Whoever has the duty's role on a shift at its place stands it. */
  private static List<Filling> fillings(CrewTimes.Around around) {
    List<Filling> found = new ArrayList<>();
    for (OnIt one : around.onIt()) {
      for (Duties.Kept duty : around.standing(one)) {
        filling(around, one, duty.key(), one.isTentative(), duty.meanwhile()).ifPresent(found::add);
      }
    }
    return found;
  }

  /** Whoever is on a visit that wants people, in a role that takes time. */
  private static List<Filling> coming(CrewTimes.Around around, boolean tentative) {
    List<Filling> found = new ArrayList<>();
    for (OnIt one : around.onIt()) {
      if (!one.record().wants().isNone() && one.takesTime() && one.isTentative() == tentative) {
        filling(around, one, one.ask().key(), false, false).ifPresent(found::add);
      }
    }
    return found;
  }

  private static Optional<Filling> filling(
      CrewTimes.Around around, OnIt one, String ask, boolean tentative, boolean meanwhile) {
    return around
        .fills(one)
        .map(
            span ->
                new Filling(
                    one.person(),
                    ask,
                    span,
                    one.given(),
                    one.record().id().value(),
                    tentative,
                    meanwhile));
  }
}
