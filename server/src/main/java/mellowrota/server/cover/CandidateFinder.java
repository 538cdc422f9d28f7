package mellowrota.server.cover;

import static mellowrota.server.platform.Words.say;

import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Asks;
import mellowrota.core.cover.Bounds;
import mellowrota.core.cover.Cover;
import mellowrota.core.cover.Fill;
import mellowrota.core.cover.Swaps;
import mellowrota.core.cover.WhenCould;
import mellowrota.core.cover.WhoCould;
import mellowrota.core.cover.Work;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Tries people with work: who could, when they could, and who could in whose stead. */
@Service
@RequiredArgsConstructor
class CandidateFinder {

  /** So far before and after it somebody may have something to change it for. */
  private static final Duration NEAR = Duration.ofDays(7);

  private final CandidateTrial.Source source;
  private final Covers covers;
  private final Duties duties;
  private final RecordStore store;
  private final RecordAccess access;
  private final Clock clock;

  /**
   * Who of those the asker has office rights on could stand a span of a duty, or come to a visit.
   */
  Asked whoCould(World world, Person asker, Ask ask, TimeSpan span) {
    if (ask instanceof Ask.OfVisit visit) {
      TimeSpan whole = span(world, wanting(world, asker, visit), visit.visit());
      CandidateTrial trying = source.trying(world, asker, whole);
      Wanting wanting =
          trying.around.wanting().stream()
              .filter(one -> one.ask().equals(visit))
              .findFirst()
              .orElseThrow(Problem::notFound);
      Cover now = trying.cover();
      return asked(
          trial(world, wanting, missing(now, ask, span)),
          trying,
          trying.everybody(
              one -> one.ask().equals(visit) && one.takesTime(),
              alone(now, ask),
              true,
              wanting.record().team()),
          trying.bounds());
    }
    Duties.Kept duty = duties.find(((Ask.OfDuty) ask).duty());
    requireOwn(world, duty, span);
    CandidateTrial trying = source.trying(world, asker, span);
    Cover now = trying.cover();
    Work work = trying.trial(duty, span, missing(now, ask, span));
    return asked(
        work,
        trying,
        trying.everybody(
            one ->
                !one.isTentative()
                    && trying.around.standing(one).contains(duty)
                    && trying.around.isIn(one, work.span()),
            alone(now, ask),
            true,
            Optional.empty()),
        trying.bounds());
  }

  private static Asked asked(
      Work work, CandidateTrial trying, List<WhoCould.Candidate> all, Bounds bounds) {
    return new Asked(work, WhoCould.of(work, all, bounds), trying.around);
  }

  /** Nobody stands two shifts of a duty as one: a part of one of its own spans is asked for. */
  static void requireOwn(World world, Duties.Kept duty, TimeSpan span) {
    if (duty.in(world).spans(span).stream().noneMatch(own -> own.contains(span))) {
      throw Problem.fault("/start", say("cover.is-not-within-one-shift"));
    }
  }

  /**
   * Who could.
   *
   * @param work what they would do
   */
  record Asked(Work work, List<WhoCould.Answer> answers, CrewTimes.Around around) {}

  /** A record that wants people, of those the asker answers for. */
  private WorkRecord wanting(World world, Person asker, Ask.OfVisit visit) {
    return store
        .find(RecordId.of(visit.record()), false)
        .flatMap(record -> access.opening(world, asker, record))
        .filter(RecordAccess.Standing::isOffice)
        .map(RecordAccess.Standing::record)
        .orElseThrow(Problem::notFound);
  }

  /** When a visit is; all-day work takes the house's days. */
  private static TimeSpan span(World world, WorkRecord record, int visit) {
    return record.visit(visit).stream()
        .flatMap(one -> one.when().stream())
        .map(when -> when.in(world.house().zone()))
        .findFirst()
        .orElseThrow(Problem::notFound);
  }

  /**
   * Who could take a visit over.
   *
   * @param holder who has it, in whose place they would be; empty: nobody has it yet
   * @param moved how it is moved at the same time
   */
  Asked whoCould(
      World world,
      Person asker,
      WorkRecord record,
      int visit,
      Optional<PersonId> holder,
      Moved moved) {
    Ask.OfVisit same = new Ask.OfVisit(record.id().value(), visit);
    WorkRecord then = moved.isNothing() ? record : moved.with(record, visit);
    TimeSpan span = span(world, then, visit);
    CandidateTrial trying = source.trying(world, asker, span);
    PersonId has =
        holder
            .filter(one -> then.on(visit).stream().anyMatch(a -> a.holder().equals(Holder.of(one))))
            .orElse(asker.id());
    RoleId role =
        then.on(visit).stream()
            .filter(one -> one.holder().equals(Holder.of(has)))
            .map(Assignment::role)
            .min(Comparator.naturalOrder())
            .orElse(RoleId.LEAD);
    Set<PersonId> others = new HashSet<>(OnIt.takingPart(then, visit));
    others.remove(has);
    Work work = trying.around.work(then, visit, has, role).orElseThrow(Problem::notFound);
    // The place holds as many after it as before, as long as it stays when it is.
    Bounds bounds = moved.isNothing() ? trying.anywhere() : trying.bounds(same);
    return new Asked(
        work,
        WhoCould.of(
            work.sure(),
            trying.everybody(
                one -> one.ask().equals(same) && one.takesTime(),
                List.of(),
                moved.isNothing(),
                record.team()),
            bounds,
            others),
        trying.around);
  }

  /** Who could be on a visit as it is being planned, beside all they have but that visit. */
  Asked whoCould(World world, Person asker, WorkRecord planned, int visit) {
    TimeSpan span = span(world, planned, visit);
    CandidateTrial trying = source.trying(world, asker, span);
    Ask.OfVisit same = new Ask.OfVisit(planned.id().value(), visit);
    Work work =
        trying.around.work(planned, visit, asker.id(), RoleId.LEAD).orElseThrow(Problem::notFound);
    return asked(
        work.sure(),
        trying,
        trying.candidates(one -> one.ask().equals(same), List.of(), false, planned.team()),
        trying.bounds(same));
  }

  /** How far a visit goes on the clock. */
  record Moved(int days, int minutes) {

    boolean isNothing() {
      return days == 0 && minutes == 0;
    }

    WorkRecord with(WorkRecord record, int visit) {
      return record
          .with()
          .visits(
              record.visits().stream()
                  .map(
                      one ->
                          one.no() == visit
                              ? new Visit(visit, one.when().map(this::of), one.margins())
                              : one)
                  .toList())
          .build();
    }

    private When of(When when) {
      if (when instanceof When.AllDay allDay) {
        return new When.AllDay(
            DaySpan.of(allDay.days().first().plusDays(days), allDay.days().until().plusDays(days)));
      }
      When.Timed timed = (When.Timed) when;
      return new When.Timed(of(timed.start()), of(timed.end()));
    }

    private ZonedDateTime of(ZonedDateTime time) {
      return LocalTimes.resolve(
          time.toLocalDateTime().plusDays(days).plusMinutes(minutes), time.getZone());
    }
  }

  /**
   * What is asked when it could be.
   *
   * @param people who are wanted, all of them
   * @param margins a side that is not said is as the house settles it
   * @param visit what is moved, which is then not in its own way
   */
  record WhenAsked(
      List<PersonId> people,
      Duration length,
      MarginSetting margins,
      Optional<PlaceId> place,
      Optional<Kind> kind,
      Optional<Ask.OfVisit> visit) {}

  /** Every start on a grid within days of the house's, and what speaks against it. */
  Possible whenCould(World world, Person asker, WhenAsked asked, LocalDate first, LocalDate until) {
    TimeSpan range = Covers.range(world, first, until);
    CandidateTrial trying = source.trying(world, asker, range);
    List<WhoCould.Candidate> people =
        trying
            .candidates(
                one -> asked.visit().equals(Optional.of(one.ask())),
                List.of(),
                false,
                Optional.empty())
            .stream()
            .filter(one -> asked.people().contains(one.person()))
            .toList();
    if (people.size() < asked.people().size()) {
      throw Problem.forbidden(say("cover.only-the-office-of"));
    }
    ZoneId site =
        asked
            .place()
            .flatMap(world.places()::find)
            .flatMap(Place::zone)
            .orElse(world.house().zone());
    Work work =
        new Work(
            "trial",
            TimeSpan.of(range.start(), range.start().plus(asked.length())),
            Optional.empty(),
            false,
            asked.place(),
            world.margins().of(asked.margins(), asked.place(), asked.kind()),
            false,
            Asks.NOTHING,
            site,
            List.of());
    Bounds bounds = asked.visit().map(trying::bounds).orElseGet(trying::bounds);
    return new Possible(site, WhenCould.of(work, range, people, bounds));
  }

  /**
   * When it could be.
   *
   * @param zone of the site
   */
  record Possible(ZoneId zone, List<WhenCould.Starts> starts) {}

  /**
   * What somebody has in days of theirs, or some hours of one, each with who could take it; nothing
   * is done.
   */
  List<Fill.Suggestion> left(World world, Person asker, WorkTimes.Away away) {
    PersonId person = away.person();
    CandidateTrial trying =
        source.trying(world, asker, Covers.range(world, away.days().first(), away.days().until()));
    if (!trying.watched.contains(person)) {
      throw Problem.forbidden(say("cover.only-this-persons-office-can"));
    }
    TimeSpan lost = away.in(trying.around.zone(person));
    List<Fill.Short> work = new ArrayList<>();
    for (OnIt one : trying.around.of(person)) {
      Optional<Work> theirs = trying.around.work(one);
      boolean left =
          one.takesTime()
              && !one.record().isDone()
              && theirs.filter(w -> w.span().overlaps(lost)).isPresent()
              && theirs.get().span().end().isAfter(clock.instant());
      if (left && work.stream().noneMatch(w -> w.of().equals(one.ask().key()))) {
        Set<PersonId> there =
            trying.around.onIt().stream()
                .filter(other -> other.ask().equals(one.ask()))
                .map(OnIt::person)
                .collect(Collectors.toSet());
        work.add(
            new Fill.Short(
                one.ask().key(),
                CandidateTrial.instead(theirs.get().sure(), trying.around.able(person)),
                List.of(),
                there,
                true));
      }
    }
    work.sort(Comparator.comparing(one -> one.work().span().start()));
    return Fill.suggest(
        work,
        trying.candidates(one -> false, List.of()).stream()
            .filter(one -> !one.person().equals(person))
            .toList(),
        trying.anywhere());
  }

  /** A visit somebody could have for it. */
  record Offer(RecordAccess.Standing standing, int visit, Swaps.Swap swap) {}

  /** What somebody could change a visit of theirs for, out of the week before and after it. */
  List<Offer> swaps(
      World world, Person asker, RecordAccess.Standing ours, int visit, PersonId person) {
    TimeSpan span = span(world, ours.record(), visit);
    TimeSpan about = TimeSpan.of(span.start().minus(NEAR), span.end().plus(NEAR));
    CandidateTrial trying = source.trying(world, asker, about);
    Ask.OfVisit ask = new Ask.OfVisit(ours.record().id().value(), visit);
    OnIt mine =
        trying.around.of(person).stream()
            .filter(one -> one.ask().equals(ask) && one.takesTime())
            .findFirst()
            .orElseThrow(Problem::notFound);
    if (!trying.watched.contains(person)) {
      throw Problem.forbidden(say("cover.only-this-persons-office"));
    }
    Map<Ask.OfVisit, Set<PersonId>> there = new HashMap<>();
    trying
        .around
        .onIt()
        .forEach(one -> there.computeIfAbsent(one.ask(), key -> new HashSet<>()).add(one.person()));
    Map<String, OnIt> asked = new HashMap<>();
    Map<Long, RecordAccess.Standing> standings = new HashMap<>();
    List<Swaps.Side> sides = new ArrayList<>();
    for (OnIt one : trying.around.onIt()) {
      boolean another =
          one.takesTime()
              && !one.record().isDone()
              && trying.watched.contains(one.person())
              && !world.person(one.person()).hasLeft()
              && !there.get(ask).contains(one.person())
              && !there.get(one.ask()).contains(person);
      boolean near =
          one.span(trying.around.zone(one.person()))
              .filter(at -> at.overlaps(about) && at.end().isAfter(clock.instant()))
              .isPresent();
      Optional<RecordAccess.Standing> office =
          another && near
              ? access.opening(world, asker, one.record()).filter(RecordAccess.Standing::isOffice)
              : Optional.empty();
      if (office.isPresent() && asked.putIfAbsent(one.person() + " " + one.id(), one) == null) {
        standings.put(one.record().id().value(), office.get());
        trying.side(one).ifPresent(sides::add);
      }
    }
    Swaps.Side side = trying.side(mine).orElseThrow(Problem::notFound);
    return Swaps.of(side, sides, trying.anywhere()).stream()
        .map(
            swap -> {
              Swaps.Side theirs = swap.theirs();
              OnIt one = asked.get(theirs.holder().person() + " " + theirs.work().id());
              return new Offer(standings.get(one.record().id().value()), one.visit().no(), swap);
            })
        .toList();
  }

  /** What would fill what is short between two days; nothing is done. */
  List<Fill.Suggestion> fill(World world, Person asker, LocalDate first, LocalDate until) {
    TimeSpan range = Covers.range(world, first, until);
    CandidateTrial trying = source.trying(world, asker, range);
    Map<String, Duties.Kept> duty = new HashMap<>();
    trying.duties.forEach(one -> duty.put(one.key(), one));
    Map<String, Wanting> works = new HashMap<>();
    covers
        .seen(world, asker, trying.around, range)
        .forEach(one -> works.put(one.key(), one.wanting()));
    Cover cover = Covers.cover(world, trying.duties, range, trying.around);
    List<Fill.Short> gaps = new ArrayList<>();
    for (Cover.Gap gap : cover.gapsAt(clock.instant())) {
      Ask ask = Ask.of(gap.of());
      List<Work> asked =
          works.containsKey(gap.of())
              ? List.of(trial(world, works.get(gap.of()), gap.open()))
              : Optional.ofNullable(duty.get(gap.of())).stream()
                  .flatMap(
                      one ->
                          Covers.own(world, one, gap.span()).stream()
                              .map(span -> trying.trial(one, span, gap.open())))
                  .toList();
      for (Work work : asked) {
        if (work.span().end().isAfter(clock.instant())) {
          gaps.add(
              new Fill.Short(
                  gap.of(),
                  work,
                  alone(cover, ask),
                  trying.there(gap.of(), work.span()),
                  ask instanceof Ask.OfVisit));
        }
      }
    }
    gaps.sort(Comparator.comparing(one -> one.work().span().start()));
    return Fill.suggest(gaps, trying.candidates(one -> false, List.of()), trying.bounds());
  }

  /** Whoever comes has the whole visit. */
  private static Work trial(World world, Wanting one, List<Optional<String>> missing) {
    return new Work(
        one.id(),
        one.span(),
        one.visit().when().flatMap(When::wholeDays),
        false,
        one.record().place(),
        world.margins().of(one.record(), one.visit()),
        false,
        Asks.of(missing),
        one.zone(),
        one.record().uses());
  }

  /** The places that are open in a span, at its worst; where none is, any may come. */
  private static List<Optional<String>> missing(Cover cover, Ask ask, TimeSpan span) {
    List<Optional<String>> most = List.of();
    for (Cover.Stretch one : cover.only(ask.key()::equals).stretches()) {
      if (one.span().overlaps(span) && one.open().size() > most.size()) {
        most = one.open();
      }
    }
    return most;
  }

  /** When nobody stands it. */
  private static List<TimeSpan> alone(Cover cover, Ask ask) {
    return cover.only(ask.key()::equals).stretches().stream()
        .filter(one -> one.filled() == 0)
        .map(Cover.Stretch::span)
        .toList();
  }
}
