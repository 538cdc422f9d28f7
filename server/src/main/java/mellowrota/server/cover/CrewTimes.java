package mellowrota.server.cover;

import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.cover.Asks;
import mellowrota.core.cover.Clashes;
import mellowrota.core.cover.Commitments;
import mellowrota.core.cover.Duty;
import mellowrota.core.cover.Eligibility;
import mellowrota.core.cover.Hours;
import mellowrota.core.cover.Need;
import mellowrota.core.cover.Work;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Due;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.crew.Skills;
import mellowrota.server.crew.WorkTimes;
import mellowrota.server.links.OutsideBusy;
import mellowrota.server.records.KnownRecords;
import mellowrota.server.records.store.RecordSets;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Service;

/** Brings what takes people's time from where it is kept, as the core computes with it. */
@Service
@RequiredArgsConstructor
class CrewTimes {

  /** No visit is longer. */
  private static final int LONGEST_DAYS = 368;

  private final WorkTimes times;
  private final Skills skills;
  private final OutsideBusy busy;
  private final KnownRecords records;
  private final RecordSets sets;

  /** A shift that nobody has. */
  record Waiting(WorkRecord record, Visit visit, TimeSpan span) {
    String id() {
      return OnIt.id(record, visit);
    }
  }

  /** Who has work to be done by a due day, whenever that is, and not at a time. */
  List<OnIt> given() {
    return records.load(sets.given()).stream()
        .flatMap(record -> OnIt.all(record).stream())
        .filter(one -> one.takesTime() && one.visit().when().isEmpty())
        .toList();
  }

  /** All that was brought for a range of the house's days. */
  final class Around {
    private final World world;
    private final TimeSpan range;
    private final LocalDate first;
    private final LocalDate until;
    private final List<WorkRecord> work;
    private final Map<Long, WorkRecord> byId = new HashMap<>();
    private final List<OnIt> onIt = new ArrayList<>();
    private final Map<PersonId, List<OnIt>> byPerson = new HashMap<>();
    private final Map<String, List<OnIt>> there = new HashMap<>();
    private final Map<PersonId, WorkTimes.Terms> terms;
    private final Map<PersonId, Hours> hours;
    private final Map<PersonId, List<Commitments.Leave>> leave = new HashMap<>();
    private final Map<PersonId, List<Commitments.Busy>> outside = new HashMap<>();
    private final Map<PersonId, Skills.Known> known;
    private final Map<Duties.Post, List<Duties.Kept>> stood = new HashMap<>();
    private final List<Wanting> wanting;
    private final Map<PersonId, Commitments> commitments = new ConcurrentHashMap<>();
    private final Map<String, Duty> duties = new ConcurrentHashMap<>();

    private Around(
        World world,
        List<Duties.Kept> duties,
        LocalDate first,
        LocalDate until,
        Set<PersonId> watched,
        List<WorkTimes.Hours> weekly,
        List<WorkRecord> work) {
      this.world = world;
      this.first = first;
      this.until = until;
      this.work = work;
      range = DaySpan.of(first, until).in(zone());
      sort();
      wanting = wanted();
      terms = times.terms();
      hours = hours(weekly);
      known = skills.all();
      duties.forEach(
          duty -> stood.computeIfAbsent(duty.post(), key -> new ArrayList<>()).add(duty));
      for (WorkTimes.Away away : times.away(first, until)) {
        if (away.agreed()) {
          leave
              .computeIfAbsent(away.person(), key -> new ArrayList<>())
              .add(new Commitments.Leave("" + away.id(), away.in(zone(away.person()))));
        }
      }
      busy.between(watched, range.start(), range.end(), this::zone)
          .forEach(
              one ->
                  outside
                      .computeIfAbsent(one.person(), key -> new ArrayList<>())
                      .add(
                          new Commitments.Busy(
                              TimeSpan.of(one.starts(), one.ends()), one.tentative())));
    }

    private Around(Around facts, List<WorkRecord> work) {
      world = facts.world;
      range = facts.range;
      first = facts.first;
      until = facts.until;
      terms = facts.terms;
      hours = facts.hours;
      known = facts.known;
      leave.putAll(facts.leave);
      outside.putAll(facts.outside);
      stood.putAll(facts.stood);
      this.work = work;
      sort();
      wanting = wanted();
    }

    private void sort() {
      for (WorkRecord record : work) {
        byId.put(record.id().value(), record);
        onIt.addAll(OnIt.all(record));
      }
      onIt.forEach(
          one -> byPerson.computeIfAbsent(one.person(), key -> new ArrayList<>()).add(one));
    }

    /** The same with these records too. */
    Around and(Collection<WorkRecord> more) {
      List<WorkRecord> all = new ArrayList<>(work);
      all.addAll(more);
      return new Around(this, all);
    }

    private Map<PersonId, Hours> hours(List<WorkTimes.Hours> weeks) {
      Map<PersonId, List<Hours.Weekly>> weekly = new HashMap<>();
      for (WorkTimes.Hours one : weeks) {
        weekly
            .computeIfAbsent(one.person(), key -> new ArrayList<>())
            .add(
                new Hours.Weekly(
                    one.weekday(),
                    one.from(),
                    one.until(),
                    one.place(),
                    zone(one.place().flatMap(world.places()::find), one.person()),
                    one.first(),
                    one.last()));
      }
      Map<PersonId, List<Hours.Dated>> dated = new HashMap<>();
      for (WorkTimes.Dated one : times.dated(first.minusDays(1), until.plusDays(1))) {
        dated
            .computeIfAbsent(one.person(), key -> new ArrayList<>())
            .add(
                new Hours.Dated(
                    one.day(),
                    one.place(),
                    zone(one.place().flatMap(world.places()::find), one.person()),
                    one.times().stream()
                        .map(time -> new Hours.Clock(time.from(), time.until()))
                        .toList()));
      }
      Set<PersonId> all = new HashSet<>(weekly.keySet());
      all.addAll(dated.keySet());
      Map<PersonId, Hours> found = new HashMap<>();
      all.forEach(
          person ->
              found.put(
                  person,
                  new Hours(
                      weekly.getOrDefault(person, List.of()),
                      dated.getOrDefault(person, List.of()))));
      return found;
    }

    World world() {
      return world;
    }

    private ZoneId zone(Optional<Place> place, PersonId person) {
      return place.isPresent() ? site(place) : zone(person);
    }

    private ZoneId zone() {
      return world.house().zone();
    }

    /** In whose days somebody works. */
    ZoneId zone(PersonId person) {
      return terms(person).zone().orElse(zone());
    }

    WorkTimes.Terms terms(PersonId person) {
      return terms.getOrDefault(person, WorkTimes.Terms.UNSAID);
    }

    private ZoneId site(Optional<Place> place) {
      return place.flatMap(Place::zone).orElse(world.places().houseZone());
    }

    List<OnIt> onIt() {
      return onIt;
    }

    List<OnIt> of(PersonId person) {
      return byPerson.getOrDefault(person, List.of());
    }

    Eligibility able(PersonId person) {
      Skills.Known can = known.getOrDefault(person, Skills.Known.NOTHING);
      boolean left = world.crew().person(person).map(Person::hasLeft).orElse(true);
      Optional<LocalDate> lastDay =
          left ? Optional.of(world.day().minusDays(1)) : terms(person).lastDay();
      return new Eligibility(
          can.skills(),
          can.notAlone(),
          leave.getOrDefault(person, List.of()).stream().map(Commitments.Leave::span).toList(),
          lastDay.map(Validity::until).flatMap(days -> days.ends(zone(person))));
    }

    Commitments commitments(PersonId person) {
      return commitments.computeIfAbsent(person, key -> without(key, one -> false));
    }

    /** Their time, as if they did not do some of it. */
    Commitments commitments(PersonId person, Predicate<OnIt> without) {
      return of(person).stream().noneMatch(without)
          ? commitments(person)
          : without(person, without);
    }

    private Commitments without(PersonId person, Predicate<OnIt> without) {
      Map<String, Work> all = new LinkedHashMap<>();
      for (OnIt one : of(person)) {
        if (one.takesTime() && !without.test(one)) {
          work(one).ifPresent(work -> all.putIfAbsent(work.id(), work));
        }
      }
      return new Commitments(
          person,
          zone(person),
          hours.getOrDefault(person, Hours.UNSAID),
          leave.getOrDefault(person, List.of()),
          outside.getOrDefault(person, List.of()),
          List.copyOf(all.values()),
          able(person),
          world.margins().of(person));
    }

    /** What is said of the margins of a shift that is yet to be made. */
    MarginSetting newShift(Duties.Kept duty) {
      return world
          .margins()
          .of(MarginSetting.UNSET, Optional.of(duty.place()), Optional.of(Kind.SHIFT));
    }

    /** What somebody stands with it. */
    List<Duties.Kept> standing(OnIt one) {
      return standing(one.record(), one.role());
    }

    /** Who is on what asks, counting or not: on the visit, or in whatever role on a shift of it. */
    List<OnIt> there(String ask) {
      if (there.isEmpty()) {
        stood.values().stream()
            .flatMap(List::stream)
            .forEach(duty -> there.put(duty.key(), new ArrayList<>()));
        for (WorkRecord record : work) {
          Set<String> asks = shiftOf(record);
          OnIt.all(record)
              .forEach(
                  one -> {
                    asks.forEach(key -> there.get(key).add(one));
                    there.computeIfAbsent(one.ask().key(), key -> new ArrayList<>()).add(one);
                  });
        }
      }
      return there.getOrDefault(ask, List.of());
    }

    /** The duties of which a record is a shift, whoever is on it. */
    private Set<String> shiftOf(WorkRecord record) {
      return record.kind() != Kind.SHIFT || record.place().isEmpty()
          ? Set.of()
          : stood.keySet().stream()
              .filter(post -> post.place().equals(record.place().get()))
              .flatMap(post -> standing(record, post.role()).stream())
              .map(Duties.Kept::key)
              .collect(Collectors.toSet());
    }

    /** What it fills: all-day work fills the site's days, wherever who is on it lives. */
    Optional<TimeSpan> fills(OnIt one) {
      return one.span(site(one));
    }

    /** Whether what somebody is on fills any of a span. */
    boolean isIn(OnIt one, TimeSpan span) {
      return fills(one).filter(span::overlaps).isPresent();
    }

    /** In whose days what somebody is on lies. */
    ZoneId site(OnIt one) {
      return site(one.record());
    }

    /** Of several duties at one post a shift that bears the name of one is that one's alone. */
    private List<Duties.Kept> standing(WorkRecord record, RoleId role) {
      if (record.kind() != Kind.SHIFT || record.place().isEmpty()) {
        return List.of();
      }
      List<Duties.Kept> here =
          stood.getOrDefault(new Duties.Post(record.place().get(), role), List.of());
      if (here.size() < 2) {
        return here;
      }
      String title = record.text(DetailKey.TITLE).orElse("");
      List<Duties.Kept> named = here.stream().filter(one -> one.name().equals(title)).toList();
      return named.isEmpty() ? here : named;
    }

    /** What records want themselves. */
    List<Wanting> wanting() {
      return wanting;
    }

    private List<Wanting> wanted() {
      List<Wanting> found = new ArrayList<>();
      for (WorkRecord record : work) {
        if (!record.wants().isNone() && !record.free()) {
          for (Visit visit : record.visits()) {
            if (visit.when().isPresent()) {
              found.add(new Wanting(record, visit, site(record)));
            }
          }
        }
      }
      return found;
    }

    /** A visit as somebody would have it, in whose days all-day work lies. */
    Optional<Work> work(WorkRecord record, int visit, PersonId person, RoleId role) {
      return record
          .visit(visit)
          .flatMap(one -> work(new OnIt(record, one, person, role, record.createdAt())));
    }

    private ZoneId site(WorkRecord record) {
      return site(record.place().flatMap(world.places()::find));
    }

    Optional<Work> work(OnIt one) {
      WorkRecord record = one.record();
      List<Duties.Kept> duties = standing(one);
      return one.span(zone(one.person()))
          .map(
              span ->
                  new Work(
                      one.id(),
                      span,
                      one.visit().when().flatMap(When::wholeDays),
                      one.isTentative(),
                      record.place(),
                      world.margins().of(record, one.visit()),
                      !duties.isEmpty() && duties.stream().allMatch(Duties.Kept::meanwhile),
                      asks(record, duties, span),
                      site(record),
                      record.uses()));
    }

    private Asks asks(WorkRecord record, List<Duties.Kept> duties, TimeSpan span) {
      List<Optional<String>> throughout = new ArrayList<>(record.wants().places());
      List<Need> needs = new ArrayList<>();
      for (Duties.Kept duty : duties) {
        Asks asks = asks(duty, span);
        if (asks.wantSkills()) {
          throughout.addAll(asks.throughout());
          needs.addAll(asks.needs());
        }
      }
      return new Asks(throughout, needs);
    }

    Asks asks(Duties.Kept duty, TimeSpan span) {
      return duties.computeIfAbsent(duty.key(), key -> duty.in(world)).asks(span);
    }

    /** What stands at places, whoever is on it. */
    Map<PlaceId, List<Clashes.Stay>> stays(Set<PlaceId> at) {
      return stays(at, when -> true);
    }

    /** Of that, what does not take whole days. */
    Map<PlaceId, List<Clashes.Stay>> timedStays(Set<PlaceId> at) {
      return stays(at, when -> when.wholeDays().isEmpty());
    }

    /** Of that, what has times like these. */
    private Map<PlaceId, List<Clashes.Stay>> stays(Set<PlaceId> at, Predicate<When> such) {
      Map<PlaceId, List<Clashes.Stay>> found = new HashMap<>();
      for (WorkRecord record : work) {
        List<PlaceId> places = record.places().stream().filter(at::contains).toList();
        if (places.isEmpty()) {
          continue;
        }
        ZoneId site = site(record);
        for (Visit visit : record.visits()) {
          Optional<When> when = visit.when().filter(such);
          if (when.isPresent()) {
            Clashes.Stay stay =
                new Clashes.Stay(
                    OnIt.id(record, visit),
                    when.get().in(site),
                    OnIt.takingPart(record, visit.no()),
                    OnIt.isTentative(record, visit));
            places.forEach(
                place -> found.computeIfAbsent(place, key -> new ArrayList<>()).add(stay));
          }
        }
      }
      return found;
    }

    /** The shift of a duty that nobody has and that would be given for a span: the shortest. */
    Optional<Waiting> waiting(Duties.Kept duty, TimeSpan span) {
      List<Waiting> found = new ArrayList<>();
      for (WorkRecord record : work) {
        boolean waits =
            record.state() == State.CONFIRMED
                && record.assignments().isEmpty()
                && standing(record, duty.role()).contains(duty);
        for (Visit visit : waits ? record.visits() : List.<Visit>of()) {
          visit
              .when()
              .map(when -> when.in(site(record)))
              .filter(whole -> whole.contains(span))
              .ifPresent(whole -> found.add(new Waiting(record, visit, whole)));
        }
      }
      return found.stream()
          .min(
              Comparator.comparing((Waiting one) -> one.span().length())
                  .thenComparing(one -> one.record().id().value()));
    }

    /** A plain date is that date, a time the local day of whoever has it. */
    LocalDate dueDay(OnIt one) {
      return one.record().due().orElseThrow() instanceof Due.At at
          ? LocalTimes.day(at.time().toInstant(), zone(one.person()))
          : ((Due.On) one.record().due().get()).day();
    }

    /** What is due of them and not done yet. */
    List<Clashes.DueItem> due(PersonId person) {
      List<Clashes.DueItem> found = new ArrayList<>();
      for (OnIt one : of(person)) {
        if (one.takesTime() && !one.record().isDone() && one.record().due().isPresent()) {
          LocalDate day = dueDay(one);
          found.add(new Clashes.DueItem("" + one.record().id().value(), day, one.isTentative()));
        }
      }
      return found;
    }

    Optional<WorkRecord> record(long id) {
      return Optional.ofNullable(byId.get(id));
    }

    Set<PersonId> people() {
      return byPerson.keySet();
    }
  }

  /**
   * What there is in a range of the house's days, the last not included.
   *
   * @param watched whose outside busy times the asker may reckon with
   */
  Around around(
      World world,
      List<Duties.Kept> duties,
      LocalDate first,
      LocalDate until,
      Set<PersonId> watched) {
    Map<Long, Long> all = sets.standing(range(world, first, until));
    return new Around(world, duties, first, until, watched, times.hours(), records.load(all));
  }

  /** The same of what these people are on, or stands in or uses these, without these records. */
  Around around(
      World world,
      List<Duties.Kept> duties,
      LocalDate first,
      LocalDate until,
      Set<PersonId> people,
      Set<PlaceId> places,
      Set<RecordId> without) {
    Map<Long, Long> all = sets.standing(range(world, first, until), people, places);
    without.forEach(one -> all.remove(one.value()));
    return new Around(world, duties, first, until, people, times.hours(people), records.load(all));
  }

  private static RecordSets.Range range(World world, LocalDate first, LocalDate until) {
    TimeSpan range = DaySpan.of(first, until).in(world.house().zone());
    Duration day = Duration.ofDays(1);
    return new RecordSets.Range(
        range.start().minus(day), range.end().plus(day), first, until, LONGEST_DAYS);
  }
}
