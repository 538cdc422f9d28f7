package mellowrota.core.rule;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import mellowrota.core.Worlds;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.Due;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;

/**
 * LANDING read aloud, line by line, with no regard to speed: every calendar of the house is asked
 * for every visit and every rule. Shares nothing with the router but the types.
 */
final class SlowRouter {

  private final Worlds.World world;
  private final List<LandingRule> rules;

  SlowRouter(Worlds.World world, List<LandingRule> rules) {
    this.world = world;
    this.rules = rules;
  }

  /** What stands where: by calendar, visit and family, the times and marks in words. */
  Map<String, String> land(WorkRecord record) {
    Map<String, String> found = new TreeMap<>();
    if (record.state() == State.DRAFT || record.state() == State.CANCELLED) {
      return found;
    }
    for (Calendar calendar : world.calendars().all()) {
      for (Visit visit : record.visits()) {
        if (mayStand(record, calendar)) {
          for (LandingRule rule : rules) {
            meet(record, visit, calendar, rule, found);
          }
        }
      }
    }
    found.values().removeIf(said -> said.endsWith("off"));
    return found;
  }

  private boolean mayStand(WorkRecord record, Calendar calendar) {
    PersonId owner = owner(calendar);
    if (owner != null && world.crew().person(owner).map(Person::hasLeft).orElse(true)) {
      return false;
    }
    if (record.isPrivate()) {
      return owner != null && record.assignments().stream().anyMatch(a -> holds(a, owner));
    }
    return !record.personal() || record.author().equals(owner);
  }

  private static PersonId owner(Calendar calendar) {
    return calendar.owner() instanceof Calendar.Owner.Own own ? own.person() : null;
  }

  private boolean holds(Assignment assignment, PersonId person) {
    return assignment.holder() instanceof Holder.OnePerson one
        ? one.person().equals(person)
        : world.crew().members(((Holder.WholeTeam) assignment.holder()).team()).containsKey(person);
  }

  private void meet(
      WorkRecord record,
      Visit visit,
      Calendar calendar,
      LandingRule rule,
      Map<String, String> found) {
    boolean asks =
        rule.when().holds(record, visit)
            && rule.targets().stream().anyMatch(t -> names(t, record, visit, calendar));
    if (!asks) {
      return;
    }
    String laid = laid(record, visit, calendar, rule);
    if (laid.isEmpty()) {
      return;
    }
    String family = laid.substring(0, laid.indexOf(' '));
    String key = "%s %s %s".formatted(Sentences.name(calendar), visit.no(), family);
    boolean work = family.equals("w");
    boolean busy =
        work
            && !record.free()
            && rule.busy().orElse(true)
            && !onlyThroughATeam(record, visit, calendar);
    boolean off = record.isDone() && rule.whenDone() == LandingRule.WhenDone.COMES_OFF;
    // The earliest rule decides, also that it comes off.
    found.putIfAbsent(key, laid + (busy ? " busy" : " free") + (off ? " off" : ""));
  }

  private boolean names(Target target, WorkRecord record, Visit visit, Calendar calendar) {
    Calendar.Owner owner = calendar.owner();
    for (Assignment a : record.assignments()) {
      if (a.visit() != visit.no()) {
        continue;
      }
      if (target instanceof Target.OwnOf own
          && own.roles().contains(a.role())
          && owner instanceof Calendar.Owner.Own o
          && holds(a, o.person())) {
        return true;
      }
      if (target instanceof Target.TeamsOf teams
          && teams.roles().contains(a.role())
          && owner instanceof Calendar.Owner.OfTeam o) {
        boolean itself =
            a.holder() instanceof Holder.WholeTeam whole && whole.team().equals(o.team());
        boolean theirs =
            a.holder() instanceof Holder.OnePerson one
                && !world.crew().person(one.person()).orElseThrow().hasLeft()
                && world.crew().directTeams(one.person()).contains(o.team());
        if (itself || theirs) {
          return true;
        }
      }
    }
    return target instanceof Target.Master && owner instanceof Calendar.Owner.Master
        || target instanceof Target.One one && one.calendar().equals(calendar.id())
        || target instanceof Target.ThePlaces
            && owner instanceof Calendar.Owner.OfPlace o
            && (record.place().filter(p -> p.value() == o.place()).isPresent()
                || record.uses().stream().anyMatch(p -> p.value() == o.place()));
  }

  private boolean onlyThroughATeam(WorkRecord record, Visit visit, Calendar calendar) {
    PersonId owner = owner(calendar);
    List<Assignment> theirs = new ArrayList<>();
    for (Assignment a : record.assignments()) {
      if (owner != null && a.visit() == visit.no() && holds(a, owner)) {
        theirs.add(a);
      }
    }
    return !theirs.isEmpty()
        && theirs.stream().noneMatch(a -> a.holder() instanceof Holder.OnePerson);
  }

  /** The family's letter and the times; nothing where the shape finds no time. */
  private String laid(WorkRecord record, Visit visit, Calendar calendar, LandingRule rule) {
    Shape shape = rule.shape();
    Instant given = given(record, visit, calendar, rule);
    if (shape == Shape.AS_IT_COMES) {
      shape =
          visit.when().isPresent() ? Shape.SPAN : given != null ? Shape.GIVEN_DUE : Shape.DUE_MARK;
    }
    When when = visit.when().orElse(null);
    return switch (shape) {
      case SPAN -> when == null ? "" : "w " + span(when, 0, 0);
      case SPAN_WITH_MARGINS ->
          when == null
              ? ""
              : "w "
                  + span(
                      when,
                      margin(record, visit, calendar, MarginSetting::before),
                      margin(record, visit, calendar, MarginSetting::after));
      case WHOLE_DAY -> days(record, when);
      case DUE_MARK -> record.due().isEmpty() ? "" : "d " + mark(record.due().get());
      default -> record.due().isEmpty() ? "" : "g " + rail(record, given);
    };
  }

  /** The first who says something: the visit, its place, its kind, the person, the house. */
  private long margin(
      WorkRecord record,
      Visit visit,
      Calendar calendar,
      Function<MarginSetting, Optional<Duration>> side) {
    List<MarginSetting> asked = new ArrayList<>();
    MarginSettings margins = world.margins();
    asked.add(visit.margins());
    record.place().ifPresent(place -> asked.add(margins.places().get(place)));
    asked.add(margins.kinds().get(record.kind()));
    PersonId person = owner(calendar);
    for (Assignment a : record.assignments()) {
      if (person == null
          && a.visit() == visit.no()
          && a.role().equals(RoleId.LEAD)
          && a.holder() instanceof Holder.OnePerson one) {
        person = one.person();
      }
    }
    asked.add(person == null ? null : margins.people().get(person));
    asked.add(margins.house());
    for (MarginSetting one : asked) {
      if (one != null && side.apply(one).isPresent()) {
        return side.apply(one).get().toMinutes();
      }
    }
    return 0;
  }

  private Instant given(WorkRecord record, Visit visit, Calendar calendar, LandingRule rule) {
    PersonId owner = owner(calendar);
    Instant inNamed = null;
    Instant inAny = null;
    Instant ofLead = null;
    for (Assignment a : record.assignments()) {
      if (a.visit() != visit.no()) {
        continue;
      }
      if (a.role().equals(RoleId.LEAD)) {
        ofLead = earlier(ofLead, a.givenAt());
      }
      if (owner != null && holds(a, owner)) {
        Instant given = a.givenAt();
        if (a.holder() instanceof Holder.WholeTeam team) {
          LocalDate joined = world.crew().members(team.team()).get(owner);
          Instant first = joined.atStartOfDay(world.house().zone()).toInstant();
          given = first.isAfter(given) ? first : given;
        }
        inAny = earlier(inAny, given);
        boolean named =
            rule.targets().stream()
                .anyMatch(t -> t instanceof Target.OwnOf own && own.roles().contains(a.role()));
        inNamed = named ? earlier(inNamed, given) : inNamed;
      }
    }
    return owner == null ? ofLead : inNamed != null ? inNamed : inAny;
  }

  private static Instant earlier(Instant one, Instant other) {
    return one == null || other.isBefore(one) ? other : one;
  }

  private static String span(When when, long before, long after) {
    if (when instanceof When.Timed timed) {
      return timed.start().minusMinutes(before).toLocalDateTime()
          + "/"
          + timed.end().plusMinutes(after).toLocalDateTime();
    }
    When.AllDay days = (When.AllDay) when;
    return days.days().first() + "/" + days.days().until();
  }

  private static String days(WorkRecord record, When when) {
    if (when instanceof When.AllDay allDay) {
      return "w " + allDay.days().first() + "/" + allDay.days().until();
    }
    if (when instanceof When.Timed timed) {
      LocalDate first = timed.start().toLocalDate();
      ZonedDateTime end = timed.end();
      boolean midnight = end.toLocalTime().equals(LocalTime.MIDNIGHT);
      LocalDate until = end.toLocalDate().plusDays(midnight ? 0 : 1);
      return "w " + first + "/" + (until.isAfter(first) ? until : first.plusDays(1));
    }
    return record.due().map(due -> "w " + dueDay(due) + "/" + dueDay(due).plusDays(1)).orElse("");
  }

  private static LocalDate dueDay(Due due) {
    return due instanceof Due.At at ? at.time().toLocalDate() : ((Due.On) due).day();
  }

  private static String mark(Due due) {
    return due instanceof Due.At at
        ? at.time().minusMinutes(15).toLocalDateTime() + "/" + at.time().toLocalDateTime()
        : dueDay(due) + "/" + dueDay(due).plusDays(1);
  }

  private String rail(WorkRecord record, Instant given) {
    Due due = record.due().orElseThrow();
    if (given == null) {
      return mark(due) + " ?";
    }
    ZonedDateTime from = given.atZone(world.house().zone());
    if (due instanceof Due.At at) {
      return given.isBefore(at.time().toInstant())
          ? from.toLocalDateTime() + "/" + at.time().toLocalDateTime()
          : mark(due) + (record.isDone() ? "" : " !");
    }
    return dueDay(due).isBefore(from.toLocalDate())
        ? mark(due) + (record.isDone() ? "" : " !")
        : from.toLocalDate() + "/" + dueDay(due).plusDays(1);
  }
}
