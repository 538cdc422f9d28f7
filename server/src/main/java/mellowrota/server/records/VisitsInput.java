package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Input;
import mellowrota.server.sight.World;

/** Reads the visits of a record and who is on each. */
final class VisitsInput {

  static final Set<String> MARGINS = Set.of("before", "after");

  private static final int MOST_VISITS = 60;
  private static final int MOST_PEOPLE = 40;
  private static final int LONGEST_DAYS = 366;
  private static final long LONGEST_MARGIN_MINUTES = 24 * 60;

  private final Input input;
  private final World world;

  VisitsInput(Input input, World world) {
    this.input = input;
    this.world = world;
  }

  /** Whether a visit names margins, which are a detail of their own. */
  boolean namesMargins() {
    return input.objects("visits", MOST_VISITS, RecordSchemas.VisitSchema.class).stream()
        .anyMatch(item -> MARGINS.stream().anyMatch(item::has));
  }

  /**
   * The visits as sent. One with a number is that visit; one without fills the visit that has no
   * span yet, else it is new. None at all is one without a span.
   */
  List<Visit> visits(WorkRecord record, ZoneId siteZone) {
    List<Visit> found = new ArrayList<>();
    Set<Integer> taken = new HashSet<>();
    int next = 1 + record.visits().stream().mapToInt(Visit::no).max().orElse(0);
    for (Input item : input.objects("visits", MOST_VISITS, RecordSchemas.VisitSchema.class)) {
      OptionalLong no = item.number("no");
      Optional<Visit> known =
          no.isPresent() ? byNumber(record, item, no.getAsLong()) : firstBare(record, taken);
      int number = known.isPresent() ? known.get().no() : next++;
      if (!taken.add(number)) {
        item.fault("no", say("common.is-listed-twice"));
      }
      found.add(new Visit(number, when(item, known, siteZone), margins(item, known)));
    }
    found.sort((one, other) -> Integer.compare(one.no(), other.no()));
    return found.isEmpty() ? List.of(Visit.bare(record.visits().get(0).no())) : found;
  }

  private static Optional<Visit> byNumber(WorkRecord record, Input item, long no) {
    Optional<Visit> known = record.visits().stream().filter(visit -> visit.no() == no).findFirst();
    if (known.isEmpty()) {
      item.fault("no", say("records.is-not-a-visit-of"));
    }
    return known;
  }

  private static Optional<Visit> firstBare(WorkRecord record, Set<Integer> taken) {
    return record.visits().stream()
        .filter(visit -> visit.when().isEmpty() && !taken.contains(visit.no()))
        .findFirst();
  }

  private Optional<When> when(Input item, Optional<Visit> known, ZoneId siteZone) {
    boolean timed = item.has("start") || item.has("end");
    boolean days = item.has("first") || item.has("last");
    if (timed && days) {
      item.fault("", say("records.needs-either-start-and"));
      return Optional.empty();
    }
    return timed ? timed(item, known, siteZone) : days ? allDay(item) : Optional.empty();
  }

  private Optional<When> timed(Input item, Optional<Visit> known, ZoneId siteZone) {
    Optional<LocalDateTime> start = item.localTime("start");
    Optional<LocalDateTime> end = item.localTime("end");
    ZoneId zone = item.zone("zone").orElseGet(() -> zoneOf(known).orElse(siteZone));
    if (item.isNull("start") && item.isNull("end")) {
      return Optional.empty();
    }
    if (start.isEmpty() || end.isEmpty()) {
      if (!item.has("start") || !item.has("end")) {
        item.fault("", say("records.needs-both-start-and"));
      }
      return Optional.empty();
    }
    ZonedDateTime from = LocalTimes.resolve(start.get(), zone);
    ZonedDateTime to = LocalTimes.resolve(end.get(), zone);
    if (to.isBefore(from)) {
      item.fault("end", say("records.is-before-its-start"));
      return Optional.empty();
    }
    if (from.plusDays(LONGEST_DAYS).isBefore(to)) {
      item.fault("end", say("records.is-more-than-a-year-after"));
      return Optional.empty();
    }
    return Optional.of(new When.Timed(from, to));
  }

  private static Optional<ZoneId> zoneOf(Optional<Visit> known) {
    return known
        .flatMap(Visit::when)
        .filter(When.Timed.class::isInstance)
        .map(when -> ((When.Timed) when).start().getZone());
  }

  private static Optional<When> allDay(Input item) {
    Optional<LocalDate> first = item.day("first");
    Optional<LocalDate> last = item.has("last") ? item.day("last") : first;
    if (first.isEmpty() || last.isEmpty()) {
      if (!item.has("first")) {
        item.fault("first", say("common.is-missing"));
      }
      return Optional.empty();
    }
    if (last.get().isBefore(first.get())) {
      item.fault("last", say("common.is-before-the-first"));
      return Optional.empty();
    }
    if (first.get().plusDays(LONGEST_DAYS).isBefore(last.get())) {
      item.fault("last", say("records.is-more-than-a-year"));
      return Optional.empty();
    }
    return Optional.of(new When.AllDay(DaySpan.through(first.get(), last.get())));
  }

  /** A side that is not named stays, null is as the house settles it; in whole minutes. */
  private static MarginSetting margins(Input item, Optional<Visit> known) {
    MarginSetting kept = known.map(Visit::margins).orElse(MarginSetting.UNSET);
    return new MarginSetting(
        minutes(item, "before", kept.before()), minutes(item, "after", kept.after()));
  }

  private static Optional<Duration> minutes(Input item, String field, Optional<Duration> kept) {
    return item.has(field) ? item.minutes(field, LONGEST_MARGIN_MINUTES) : kept;
  }

  /** Who stays where their visit stays; a new visit begins with the people of the first. */
  static List<Assignment> carried(WorkRecord before, List<Visit> visits, Instant now) {
    List<Assignment> found = new ArrayList<>();
    int first = before.visits().get(0).no();
    for (Visit visit : visits) {
      if (before.visit(visit.no()).isPresent()) {
        found.addAll(before.on(visit.no()));
      } else {
        before.on(first).stream()
            .map(a -> new Assignment(visit.no(), a.holder(), a.role(), now))
            .forEach(found::add);
      }
    }
    return found;
  }

  /**
   * The people as sent, on the visit they name or else on every one. Who stays in a role keeps the
   * moment of hand-over; who is new gets it now, or as sent.
   */
  List<Assignment> people(WorkRecord record, List<Visit> visits, Instant now) {
    List<Assignment> found = new ArrayList<>();
    for (Input item : input.objects("people", MOST_PEOPLE, RecordSchemas.PersonSchema.class)) {
      Optional<Holder> holder = holder(item);
      Optional<RoleId> role = role(item);
      List<Visit> on = on(item, visits);
      if (holder.isEmpty() || role.isEmpty()) {
        continue;
      }
      Optional<Instant> given =
          item.localTime("given").map(t -> LocalTimes.resolve(t, world.house().zone()).toInstant());
      for (Visit visit : on) {
        Assignment one =
            new Assignment(
                visit.no(),
                holder.get(),
                role.get(),
                given.orElseGet(
                    () -> before(record, visit.no(), holder.get(), role.get()).orElse(now)));
        if (found.stream().anyMatch(a -> sameSeat(a, one))) {
          item.fault("", say("records.is-listed-twice-in"));
        }
        found.add(one);
      }
    }
    return found;
  }

  private static boolean sameSeat(Assignment one, Assignment other) {
    return one.visit() == other.visit()
        && one.holder().equals(other.holder())
        && one.role().equals(other.role());
  }

  private static List<Visit> on(Input item, List<Visit> visits) {
    OptionalLong no = item.number("visit");
    if (no.isEmpty()) {
      return visits;
    }
    List<Visit> found = visits.stream().filter(visit -> visit.no() == no.getAsLong()).toList();
    if (found.isEmpty()) {
      item.fault("visit", say("records.is-not-a-visit"));
    }
    return found;
  }

  /** On this visit, else on any: who is moved to another visit has had the work since. */
  private static Optional<Instant> before(
      WorkRecord record, int visit, Holder holder, RoleId role) {
    List<Assignment> had =
        record.assignments().stream()
            .filter(a -> a.holder().equals(holder) && a.role().equals(role))
            .toList();
    return had.stream()
        .filter(a -> a.visit() == visit)
        .findFirst()
        .or(() -> had.stream().findFirst())
        .map(Assignment::givenAt);
  }

  private Optional<RoleId> role(Input item) {
    OptionalLong role = item.number("role");
    if (role.isEmpty() || !world.isRole(role.getAsLong())) {
      item.fault("role", say("common.is-not-a-role"));
      return Optional.empty();
    }
    return Optional.of(RoleId.of((int) role.getAsLong()));
  }

  private Optional<Holder> holder(Input item) {
    OptionalLong person = item.number("person");
    OptionalLong team = item.number("team");
    if (person.isPresent() == team.isPresent()) {
      item.fault("", say("records.needs-either-a-person"));
      return Optional.empty();
    }
    if (person.isPresent()) {
      PersonId id = PersonId.of(person.getAsLong());
      if (world.crew().person(id).filter(p -> !p.hasLeft()).isEmpty()) {
        item.fault("person", say("common.is-not-a-person"));
        return Optional.empty();
      }
      return Optional.of(Holder.of(id));
    }
    TeamId id = TeamId.of(team.getAsLong());
    if (world.crew().team(id).isEmpty()) {
      item.fault("team", say("records.is-not-a-team"));
      return Optional.empty();
    }
    return Optional.of(Holder.of(id));
  }
}
