package mellowrota.server.cover;

import java.time.Clock;
import java.time.Instant;
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
import mellowrota.core.cover.Able;
import mellowrota.core.cover.Clash;
import mellowrota.core.cover.Clashes;
import mellowrota.core.cover.Commitments;
import mellowrota.core.cover.Cover;
import mellowrota.core.cover.Fill;
import mellowrota.core.cover.Filling;
import mellowrota.core.cover.Limits;
import mellowrota.core.cover.Need;
import mellowrota.core.cover.Travel;
import mellowrota.core.cover.WhoCould;
import mellowrota.core.cover.Work;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.links.OutsideBusy;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Brings the core what it computes cover from. */
@Service
class Covers {

  /** Rest, weeks and days in a row are seen whole so far around what is asked for. */
  private static final int AROUND_DAYS = 15;

  private final Duties duties;
  private final WorkTimes times;
  private final CrewTimes crew;
  private final OutsideBusy busy;
  private final HouseLimits limits;
  private final Clock clock;

  Covers(
      Duties duties,
      WorkTimes times,
      CrewTimes crew,
      OutsideBusy busy,
      HouseLimits limits,
      Clock clock) {
    this.duties = duties;
    this.times = times;
    this.crew = crew;
    this.busy = busy;
    this.limits = limits;
    this.clock = clock;
  }

  Instant now() {
    return clock.instant();
  }

  Duties.Kept duty(long id) {
    return duties.find(id);
  }

  /** What is covered, and what clashes of those the asker answers for, from one computation. */
  record Look(
      List<Duties.Kept> duties,
      Cover cover,
      List<Clash> clashes,
      List<Clash> pileUps,
      CrewTimes.Around around) {}

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
    Travel travel = limits.travel();
    List<Clash> clashes = new ArrayList<>();
    List<Clash> pileUps = new ArrayList<>();
    for (PersonId person : around.people()) {
      if (watched.contains(person)) {
        Commitments of = around.commitments(person);
        clashes.addAll(Clashes.in(Clashes.of(of, house, travel), range));
        pileUps.addAll(Clashes.in(Clashes.pileUps(of, around.due(person), house), range));
      }
    }
    if (asker.isCoordinator()) {
      Map<PlaceId, List<Clashes.Stay>> stays = around.stays();
      limits
          .capacities()
          .forEach(
              (place, capacity) ->
                  clashes.addAll(
                      Clashes.in(
                          Clashes.of(capacity, stays.getOrDefault(place, List.of()), house),
                          range)));
    }
    clashes.sort(Clash.BY_START);
    pileUps.sort(Clash.BY_START);
    return new Look(all, cover(world, all, range, around), clashes, pileUps, around);
  }

  private Set<PersonId> watched(World world, Person asker) {
    return times.officeOver(asker, here(world));
  }

  private static List<PersonId> here(World world) {
    return world.crew().people().stream()
        .filter(one -> !one.hasLeft() && one.standing() != Person.Standing.OUTSIDE)
        .map(Person::id)
        .toList();
  }

  private static TimeSpan range(World world, LocalDate first, LocalDate until) {
    ZoneId zone = world.house().zone();
    return TimeSpan.of(first.atStartOfDay(zone).toInstant(), until.atStartOfDay(zone).toInstant());
  }

  private static Cover cover(
      World world, List<Duties.Kept> all, TimeSpan range, CrewTimes.Around around) {
    List<Need> needs = new ArrayList<>();
    all.forEach(one -> needs.addAll(one.in(world).needs(range)));
    Map<PersonId, Able> able = new HashMap<>();
    world.crew().people().forEach(one -> able.put(one.id(), around.able(one.id())));
    return Cover.of(needs, fillings(all, around), able);
  }

  /** Whoever has the duty's role on a shift at its place stands it. */
  private static List<Filling> fillings(List<Duties.Kept> all, CrewTimes.Around around) {
    List<Filling> found = new ArrayList<>();
    for (CrewTimes.OnIt one : around.onIt()) {
      Optional<TimeSpan> span = one.span(around.zone(one.person()));
      for (Duties.Kept duty : around.standing(one)) {
        if (span.isPresent() && all.contains(duty)) {
          found.add(
              new Filling(
                  one.person(),
                  duty.key(),
                  span.get(),
                  one.given(),
                  one.record().id().value(),
                  one.isTentative()));
        }
      }
    }
    return found;
  }

  /** Who of those the asker has office rights on could stand a span of a duty. */
  List<WhoCould.Answer> whoCould(World world, Person asker, Duties.Kept duty, TimeSpan span) {
    Trying trying = new Trying(world, asker, span);
    Cover now =
        cover(world, List.of(duty), range(world, trying.first, trying.until), trying.around);
    return WhoCould.of(
        trial(world, duty, span, missing(now, span)),
        trying.candidates(one -> !one.isTentative() && one.stands(duty), alone(now, duty)),
        trying.house,
        trying.travel);
  }

  /**
   * Who could take a visit over.
   *
   * @param holder who has it, in whose place they would be
   */
  List<WhoCould.Answer> whoCould(
      World world, Person asker, WorkRecord record, int visit, PersonId holder) {
    TimeSpan span =
        record.visits().stream()
            .filter(one -> one.no() == visit)
            .flatMap(one -> one.when().stream())
            .map(when -> CrewTimes.span(when, world.house().zone()))
            .findFirst()
            .orElseThrow(Problem::notFound);
    Trying trying = new Trying(world, asker, span);
    Work work =
        trying.around.of(holder).stream()
            .filter(one -> one.record().id().equals(record.id()) && one.visit().no() == visit)
            .flatMap(one -> trying.around.work(one).stream())
            .findFirst()
            .orElseThrow(Problem::notFound);
    return WhoCould.of(
        sure(work),
        trying.candidates(
            one -> one.record().id().equals(record.id()) && one.visit().no() == visit, List.of()),
        trying.house,
        trying.travel);
  }

  private static Work sure(Work work) {
    return new Work(
        work.id(),
        work.span(),
        work.allDay(),
        false,
        work.place(),
        work.margins(),
        work.meanwhile(),
        work.asks(),
        work.site());
  }

  /** What would fill what is short between two days; nothing is done. */
  List<Fill.Suggestion> fill(World world, Person asker, LocalDate first, LocalDate until) {
    TimeSpan range = range(world, first, until);
    Trying trying = new Trying(world, asker, range);
    List<Duties.Kept> all = duties.all();
    Cover cover = cover(world, all, range, trying.around);
    Map<String, Duties.Kept> byKey = new HashMap<>();
    all.forEach(one -> byKey.put(one.key(), one));
    List<Fill.Short> gaps = new ArrayList<>();
    for (Cover.Gap gap : cover.gapsAt(now())) {
      if (gap.span().end().isAfter(now())) {
        Duties.Kept duty = byKey.get(gap.of());
        gaps.add(
            new Fill.Short(
                gap.of(), trial(world, duty, gap.span(), gap.open()), alone(cover, duty)));
      }
    }
    return Fill.suggest(
        gaps, trying.candidates(one -> false, List.of()), trying.house, trying.travel);
  }

  private static Work trial(
      World world, Duties.Kept duty, TimeSpan span, List<Optional<String>> missing) {
    return new Work(
        "trial " + duty.key() + " " + span.start(),
        span,
        false,
        false,
        Optional.of(duty.place()),
        Margins.NONE,
        duty.meanwhile(),
        missing,
        duty.in(world).zone());
  }

  /** The places that are open in a span, at its worst; where none is, any may come. */
  private static List<Optional<String>> missing(Cover cover, TimeSpan span) {
    List<Optional<String>> most = List.of();
    for (Cover.Stretch one : cover.stretches()) {
      if (one.span().overlaps(span) && one.open().size() > most.size()) {
        most = one.open();
      }
    }
    return most;
  }

  /** When nobody stands a duty. */
  private static List<TimeSpan> alone(Cover cover, Duties.Kept duty) {
    return cover.stretches().stream()
        .filter(one -> one.filled() == 0 && one.need().by().equals(duty.key()))
        .map(Cover.Stretch::span)
        .toList();
  }

  /** Everybody the asker answers for, to be tried with work in a span. */
  private final class Trying {
    private final World world;
    private final Set<PersonId> watched;
    private final Set<PersonId> unknown = new HashSet<>();
    private final Limits house = limits.limits();
    private final Travel travel = limits.travel();
    private final LocalDate first;
    private final LocalDate until;
    private final TimeSpan week;
    private final CrewTimes.Around around;

    Trying(World world, Person asker, TimeSpan span) {
      this.world = world;
      ZoneId zone = world.house().zone();
      LocalDate day = LocalDate.ofInstant(span.start(), zone);
      LocalDate begins = day.with(TemporalAdjusters.previousOrSame(house.weekBegins()));
      week = range(world, begins, begins.plusWeeks(1));
      first = day.minusDays(AROUND_DAYS + 7L * house.periodWeeks());
      until = LocalDate.ofInstant(span.end(), zone).plusDays(AROUND_DAYS);
      watched = watched(world, asker);
      around = crew.around(world, duties.all(), first, until, watched);
      busy.ages(watched).stream()
          .filter(age -> age.trust() == OutsideBusy.Trust.UNKNOWN)
          .forEach(age -> unknown.add(age.person()));
    }

    /** As if they did not do what is tried, which they are told they do already. */
    List<WhoCould.Candidate> candidates(Predicate<CrewTimes.OnIt> tried, List<TimeSpan> alone) {
      List<WhoCould.Candidate> found = new ArrayList<>();
      for (PersonId id : here(world)) {
        if (watched.contains(id)) {
          Commitments of = around.commitments(id, tried);
          List<TimeSpan> here =
              around.of(id).stream()
                  .filter(tried)
                  .flatMap(one -> one.span(of.zone()).stream())
                  .toList();
          found.add(
              new WhoCould.Candidate(
                  of,
                  world.person(id).name(),
                  unknown.contains(id),
                  here,
                  of.able().notAlone() ? alone : List.of(),
                  Optional.empty(),
                  around.commitments(id).load(week),
                  around.terms(id).contract(),
                  Optional.empty()));
        }
      }
      return found;
    }
  }
}
