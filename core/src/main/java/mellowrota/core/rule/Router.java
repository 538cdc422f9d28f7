package mellowrota.core.rule;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.Family;
import mellowrota.core.entry.Reminder;
import mellowrota.core.entry.Uid;
import mellowrota.core.people.Crew;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.WorkRecord;

/**
 * Says on which calendars a record lands, as a pure function of record, people, calendars and
 * rules: the same input gives the same entries with the same identifiers.
 *
 * <p>Cost: O(visits × rules × calendars named).
 */
public final class Router {

  /** A rule for another kind is further off than one that lacks all else. */
  private static final int OTHER_KIND = 1000;

  private final Crew crew;
  private final Calendars calendars;
  private final Shapes shapes;
  private final List<LandingRule> rules;

  public Router(
      Crew crew,
      Calendars calendars,
      Places places,
      MarginSettings margins,
      Collection<LandingRule> rules) {
    this.crew = crew;
    this.calendars = calendars;
    this.shapes = new Shapes(places, margins);
    this.rules =
        rules.stream()
            .filter(LandingRule::on)
            .sorted(
                Comparator.comparingInt(LandingRule::position).thenComparingLong(LandingRule::id))
            .toList();
  }

  /** Every entry the record has now, in the order of their keys. */
  public List<Landing.Lands> land(WorkRecord record) {
    if (heldBack(record).isPresent()) {
      return List.of();
    }
    List<Landing.Lands> found = new ArrayList<>();
    for (Visit visit : record.visits()) {
      landVisit(record, visit, found);
    }
    found.sort((one, other) -> one.entry().key().compareTo(other.entry().key()));
    return found;
  }

  private static Optional<Reason> heldBack(WorkRecord record) {
    if (record.state() == State.DRAFT) {
      return Optional.of(Reason.of(Reason.Code.DRAFT));
    }
    if (record.state() == State.CANCELLED) {
      return Optional.of(Reason.of(Reason.Code.CANCELLED));
    }
    return Optional.empty();
  }

  /** What has met on one (calendar, visit, family) so far; the earliest rule decides. */
  private static final class Meeting {
    final LandingRule first;
    final Shapes.Laid laid;
    final List<Long> rules = new ArrayList<>(2);
    final List<Reason> reasons = new ArrayList<>(2);
    final Optional<Instant> given;
    final boolean throughTeamOnly;
    private final Set<Reminder> reminders = new TreeSet<>();

    Meeting(LandingRule first, Shapes.Laid laid, Optional<Instant> given, boolean throughTeamOnly) {
      this.first = first;
      this.laid = laid;
      this.given = given;
      this.throughTeamOnly = throughTeamOnly;
    }

    void add(LandingRule rule) {
      reminders.addAll(rule.with().reminders());
      rules.add(rule.id());
      reasons.add(Reason.of(Reason.Code.RULE, rule.id()));
    }

    /** The reminders of all of them, the attendees of the earliest. */
    Entry.With with() {
      return rules.size() == 1
          ? first.with()
          : new Entry.With(List.copyOf(reminders), first.with().attendees());
    }
  }

  /** With the reminders of the record itself. */
  private static Entry.With with(WorkRecord record, Entry.With rules) {
    if (record.reminders().isEmpty()) {
      return rules;
    }
    Set<Reminder> all = new TreeSet<>(rules.reminders());
    record
        .reminders()
        .forEach(one -> all.add(new Reminder((int) one.toMinutes(), Reminder.Unit.MINUTES)));
    return new Entry.With(List.copyOf(all), rules.attendees());
  }

  private record Spot(CalendarId calendar, Family family) {}

  private void landVisit(WorkRecord record, Visit visit, List<Landing.Lands> found) {
    List<Assignment> assigned = record.on(visit.no());
    Map<Spot, Meeting> met = new LinkedHashMap<>();
    for (LandingRule rule : rules) {
      if (rule.when().holds(record, visit)) {
        for (Target target : rule.targets()) {
          for (Calendar calendar : named(target, record, assigned)) {
            meet(record, visit, assigned, rule, target, calendar, met);
          }
        }
      }
    }
    met.forEach(
        (spot, meeting) -> {
          if (!record.isDone() || meeting.first.whenDone() != LandingRule.WhenDone.COMES_OFF) {
            found.add(lands(record, visit, spot.calendar(), spot.family(), meeting));
          }
        });
    if (!record.rulings().isEmpty()) {
      alsoHere(record, visit, assigned, met, found);
    }
  }

  private void meet(
      WorkRecord record,
      Visit visit,
      List<Assignment> assigned,
      LandingRule rule,
      Target target,
      Calendar calendar,
      Map<Spot, Meeting> met) {
    if (barred(record, visit, assigned, calendar).isPresent()) {
      return;
    }
    Optional<Instant> given = given(calendar, assigned, rolesOf(target));
    Optional<Shapes.Laid> laid = shapes.lay(rule.shape(), record, visit, given, whose(calendar));
    if (laid.isEmpty()) {
      return;
    }
    Meeting meeting =
        met.computeIfAbsent(
            new Spot(calendar.id(), laid.get().family()),
            spot -> new Meeting(rule, laid.get(), given, throughTeamOnly(calendar, assigned)));
    if (meeting.rules.isEmpty() || meeting.rules.get(meeting.rules.size() - 1) != rule.id()) {
      meeting.add(rule);
    }
  }

  private Landing.Lands lands(
      WorkRecord record, Visit visit, CalendarId calendar, Family family, Meeting meeting) {
    boolean usuallyBusy = family == Family.WORK;
    boolean busy =
        meeting.first.busy().orElse(usuallyBusy) && usuallyBusy && !meeting.throughTeamOnly;
    return lands(
        record,
        visit,
        new EntryKey(record.id(), visit.no(), calendar, family),
        meeting.laid,
        meeting.given,
        busy,
        meeting.first.wording(),
        meeting.rules,
        meeting.with(),
        meeting.first.afterYes(),
        meeting.reasons);
  }

  private Landing.Lands lands(
      WorkRecord record,
      Visit visit,
      EntryKey key,
      Shapes.Laid laid,
      Optional<Instant> given,
      boolean busy,
      Optional<mellowrota.core.entry.WordingId> wording,
      List<Long> ruleIds,
      Entry.With with,
      boolean waits,
      List<Reason> reasons) {
    Entry.Marks marks =
        new Entry.Marks(
            record.isDone(),
            record.tentative(visit.no()),
            busy && !record.free(),
            laid.late() && !record.isDone(),
            laid.unhanded());
    Entry entry =
        new Entry(
            key,
            Uid.of(calendars.house().seed(), key),
            laid.times(),
            laid.bare(),
            given,
            marks,
            wording,
            ruleIds,
            with(record, with),
            waits);
    return new Landing.Lands(entry, reasons);
  }

  /** An <i>also here</i> adds what no rule lands; it never overrides privacy. */
  private void alsoHere(
      WorkRecord record,
      Visit visit,
      List<Assignment> assigned,
      Map<Spot, Meeting> met,
      List<Landing.Lands> found) {
    for (Ruling ruling : record.rulings()) {
      Calendar calendar = calendars.find(CalendarId.of(ruling.calendar())).orElse(null);
      if (ruling.sort() != Ruling.Sort.ALSO_HERE
          || !ruling.concerns(visit.no())
          || calendar == null
          || barred(record, visit, assigned, calendar).isPresent()) {
        continue;
      }
      Optional<Instant> given = given(calendar, assigned, Set.of());
      Shapes.Laid laid =
          shapes.lay(Shape.AS_IT_COMES, record, visit, given, Optional.empty()).orElse(null);
      if (laid == null || met.containsKey(new Spot(calendar.id(), laid.family()))) {
        continue;
      }
      EntryKey key = new EntryKey(record.id(), visit.no(), calendar.id(), laid.family());
      boolean busy = laid.family() == Family.WORK && !throughTeamOnly(calendar, assigned);
      Reason why = Reason.of(Reason.Code.ALSO_HERE, ruling.reason());
      found.add(
          lands(
              record,
              visit,
              key,
              laid,
              given,
              busy,
              Optional.empty(),
              List.of(),
              Entry.With.NOTHING,
              false,
              List.of(why)));
    }
  }

  /** Why nothing of this visit may stand on this calendar, whatever the rules say. */
  private Optional<Reason> barred(
      WorkRecord record, Visit visit, List<Assignment> assigned, Calendar calendar) {
    for (Ruling ruling : record.rulings()) {
      if (ruling.sort() == Ruling.Sort.NOT_SENT && ruling.concerns(visit.no())) {
        return Optional.of(Reason.of(Reason.Code.NOT_SENT, ruling.reason()));
      }
    }
    for (Ruling ruling : record.rulings()) {
      if (ruling.sort() == Ruling.Sort.NEVER_HERE
          && ruling.calendar() == calendar.id().value()
          && ruling.concerns(visit.no())) {
        return Optional.of(Reason.of(Reason.Code.NEVER_HERE, ruling.reason()));
      }
    }
    if (record.isPrivate() && !isOwnOfAHolder(record, calendar)) {
      return Optional.of(Reason.of(Reason.Code.PRIVATE));
    }
    if (record.personal() && !isOwnOf(record.author(), calendar)) {
      return Optional.of(Reason.of(Reason.Code.PERSONAL));
    }
    if (calendar.owner() instanceof Calendar.Owner.Own own
        && crew.person(own.person()).map(Person::hasLeft).orElse(true)) {
      return Optional.of(Reason.of(Reason.Code.LEFT_THE_HOUSE));
    }
    return Optional.empty();
  }

  private static boolean isOwnOf(PersonId person, Calendar calendar) {
    return calendar.owner() instanceof Calendar.Owner.Own own && own.person().equals(person);
  }

  private boolean isOwnOfAHolder(WorkRecord record, Calendar calendar) {
    return calendar.owner() instanceof Calendar.Owner.Own own
        && record.assignments().stream().anyMatch(a -> holds(a.holder(), own.person()));
  }

  private boolean holds(Holder holder, PersonId person) {
    if (holder instanceof Holder.OnePerson one) {
      return one.person().equals(person);
    }
    return crew.isIn(person, ((Holder.WholeTeam) holder).team());
  }

  /** On somebody's own calendar only through a team: free, not busy (LANDING 8). */
  private boolean throughTeamOnly(Calendar calendar, List<Assignment> assigned) {
    if (!(calendar.owner() instanceof Calendar.Owner.Own own)) {
      return false;
    }
    boolean throughTeam = false;
    for (Assignment assignment : assigned) {
      if (holds(assignment.holder(), own.person())) {
        if (assignment.holder() instanceof Holder.OnePerson) {
          return false;
        }
        throughTeam = true;
      }
    }
    return throughTeam;
  }

  private static Optional<PersonId> whose(Calendar calendar) {
    return calendar.owner() instanceof Calendar.Owner.Own own
        ? Optional.of(own.person())
        : Optional.empty();
  }

  private static Set<RoleId> rolesOf(Target target) {
    return target instanceof Target.OwnOf own ? own.roles() : Set.of();
  }

  /** When the work was handed over, as this calendar counts it (LANDING 12). */
  private Optional<Instant> given(Calendar calendar, List<Assignment> assigned, Set<RoleId> named) {
    if (calendar.owner() instanceof Calendar.Owner.Own own) {
      Optional<Instant> inNamed = earliest(own.person(), assigned, named);
      return inNamed.isPresent() || named.isEmpty()
          ? inNamed
          : earliest(own.person(), assigned, Set.of());
    }
    Instant earliest = null;
    for (Assignment assignment : assigned) {
      if (assignment.role().equals(RoleId.LEAD)
          && (earliest == null || assignment.givenAt().isBefore(earliest))) {
        earliest = assignment.givenAt();
      }
    }
    return Optional.ofNullable(earliest);
  }

  /** In the roles named, or in any if none is named. */
  private Optional<Instant> earliest(
      PersonId person, List<Assignment> assigned, Set<RoleId> named) {
    Instant earliest = null;
    for (Assignment assignment : assigned) {
      if ((named.isEmpty() || named.contains(assignment.role()))
          && holds(assignment.holder(), person)) {
        Instant given = givenTo(person, assignment);
        if (earliest == null || given.isBefore(earliest)) {
          earliest = given;
        }
      }
    }
    return Optional.ofNullable(earliest);
  }

  /** Through a team: the later of the team's hand-over and the first day of membership. */
  private Instant givenTo(PersonId person, Assignment assignment) {
    if (assignment.holder() instanceof Holder.WholeTeam team) {
      Optional<LocalDate> first = crew.firstDay(team.team(), person);
      if (first.isPresent()) {
        Instant joined = first.get().atStartOfDay(calendars.house().zone()).toInstant();
        return joined.isAfter(assignment.givenAt()) ? joined : assignment.givenAt();
      }
    }
    return assignment.givenAt();
  }

  private List<Calendar> named(Target target, WorkRecord record, List<Assignment> assigned) {
    if (target instanceof Target.OwnOf own) {
      return ownCalendars(own.roles(), assigned);
    }
    if (target instanceof Target.TeamsOf teams) {
      return teamCalendars(teams.roles(), assigned);
    }
    if (target instanceof Target.ThePlaces) {
      return record.places().stream()
          .flatMap(place -> calendars.ofPlace(place.value()).stream())
          .toList();
    }
    if (target instanceof Target.Master) {
      return calendars.master().map(List::of).orElse(List.of());
    }
    return calendars.find(((Target.One) target).calendar()).map(List::of).orElse(List.of());
  }

  private List<Calendar> ownCalendars(Set<RoleId> roles, List<Assignment> assigned) {
    List<Calendar> found = new ArrayList<>(4);
    for (Assignment assignment : assigned) {
      if (!roles.contains(assignment.role())) {
        continue;
      }
      if (assignment.holder() instanceof Holder.OnePerson one) {
        calendars.own(one.person()).ifPresent(calendar -> addOnce(found, calendar));
      } else {
        TeamId team = ((Holder.WholeTeam) assignment.holder()).team();
        crew.members(team)
            .keySet()
            .forEach(p -> calendars.own(p).ifPresent(calendar -> addOnce(found, calendar)));
      }
    }
    return found;
  }

  private List<Calendar> teamCalendars(Set<RoleId> roles, List<Assignment> assigned) {
    List<Calendar> found = new ArrayList<>(4);
    for (Assignment assignment : assigned) {
      if (!roles.contains(assignment.role())) {
        continue;
      }
      if (assignment.holder() instanceof Holder.OnePerson one) {
        if (crew.person(one.person()).filter(p -> !p.hasLeft()).isPresent()) {
          crew.directTeams(one.person())
              .forEach(t -> calendars.ofTeam(t).ifPresent(calendar -> addOnce(found, calendar)));
        }
      } else {
        calendars
            .ofTeam(((Holder.WholeTeam) assignment.holder()).team())
            .ifPresent(calendar -> addOnce(found, calendar));
      }
    }
    return found;
  }

  private static void addOnce(List<Calendar> found, Calendar calendar) {
    if (!found.contains(calendar)) {
      found.add(calendar);
    }
  }

  /**
   * Why the record lands on a calendar or does not, for each of its visits. Asked by a person,
   * never needed for landing itself.
   *
   * @param known the details that this person may know of the record: why not rests on no other
   */
  public List<Landing> explain(WorkRecord record, Calendar calendar, Predicate<DetailKey> known) {
    List<Landing.Lands> landed = land(record);
    List<Landing> told = new ArrayList<>();
    for (Visit visit : record.visits()) {
      List<Landing.Lands> here =
          landed.stream()
              .filter(l -> l.calendar().equals(calendar.id()))
              .filter(l -> l.entry().key().visit() == visit.no())
              .toList();
      told.addAll(here);
      if (here.isEmpty()) {
        told.add(
            new Landing.Nowhere(calendar.id(), visit.no(), whyNot(record, visit, calendar, known)));
      }
    }
    return told;
  }

  private Reason whyNot(
      WorkRecord record, Visit visit, Calendar calendar, Predicate<DetailKey> known) {
    List<Assignment> assigned = record.on(visit.no());
    return heldBack(record)
        .or(() -> barred(record, visit, assigned, calendar))
        .orElseGet(() -> byRules(record, visit, assigned, calendar, known));
  }

  /** What the nearest rule lacks: of those for the record's kind the one that lacks least. */
  private Reason byRules(
      WorkRecord record,
      Visit visit,
      List<Assignment> assigned,
      Calendar calendar,
      Predicate<DetailKey> known) {
    Reason nearest = Reason.of(Reason.Code.NO_RULE);
    int least = Integer.MAX_VALUE;
    for (LandingRule rule : rules) {
      boolean names =
          rule.targets().stream().anyMatch(t -> named(t, record, assigned).contains(calendar));
      if (!names) {
        continue;
      }
      List<Reason.Code> failing = rule.when().failing(record, visit, known);
      if (failing.isEmpty()) {
        return record.isDone() && rule.whenDone() == LandingRule.WhenDone.COMES_OFF
            ? Reason.of(Reason.Code.RULE_DONE, rule.id())
            : Reason.of(
                known.test(DetailKey.TIMES) ? Reason.Code.RULE_NO_TIME : Reason.Code.RULE_NOT_MET,
                rule.id());
      }
      boolean otherKind = failing.contains(Reason.Code.RULE_KIND);
      int lacks = failing.size() + (otherKind ? OTHER_KIND : 0);
      if (lacks < least) {
        least = lacks;
        nearest = Reason.of(failing.get(0), rule.id());
      }
    }
    return nearest;
  }

  /** The calendars worth explaining: those of everybody near the record, and those of all. */
  public List<Calendar> near(WorkRecord record) {
    Set<CalendarId> ids = new TreeSet<>();
    Map<CalendarId, Calendar> found = new HashMap<>();
    land(record).forEach(lands -> ids.add(lands.calendar()));
    for (Visit visit : record.visits()) {
      List<Assignment> assigned = record.on(visit.no());
      Set<RoleId> roles = new TreeSet<>();
      assigned.forEach(a -> roles.add(a.role()));
      ownCalendars(roles, assigned).forEach(c -> ids.add(c.id()));
      teamCalendars(roles, assigned).forEach(c -> ids.add(c.id()));
    }
    record.places().stream()
        .flatMap(place -> calendars.ofPlace(place.value()).stream())
        .forEach(calendar -> ids.add(calendar.id()));
    for (Calendar calendar : calendars.all()) {
      Calendar.Owner owner = calendar.owner();
      if (owner instanceof Calendar.Owner.Master
          || owner instanceof Calendar.Owner.DateList
          || owner instanceof Calendar.Owner.Named) {
        ids.add(calendar.id());
      }
    }
    for (CalendarId id : ids) {
      calendars.find(id).ifPresent(calendar -> found.put(id, calendar));
    }
    return ids.stream().map(found::get).filter(java.util.Objects::nonNull).toList();
  }
}
