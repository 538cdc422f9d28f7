package mellowrota.server.links;

import static mellowrota.server.platform.Words.say;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.entry.Family;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;
import mellowrota.core.sync.Answer;
import mellowrota.core.sync.Part;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.work.Due;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.ical.CopyText;
import mellowrota.server.links.store.CopyStore;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.Permits;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.Records;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Brings what was changed in somebody's calendar into the record, as their own act. */
@Component
@RequiredArgsConstructor
class RemoteEdits {

  private static final DateTimeFormatter LOCAL = DateTimeFormatter.ofPattern("yyyy-MM-dd'T'HH:mm");

  private final Records records;
  private final RecordStore store;
  private final RecordAccess access;
  private final JsonMapper json;

  /**
   * What somebody may change of an entry in their own calendar; nothing where it is nobody's. It is
   * found out when it is asked for, since mostly nothing was changed.
   */
  Answer.Rights rights(World world, Optional<PersonId> person, CopyStore.Copy copy) {
    return part -> found(world, person, copy).to(part);
  }

  private Answer.Rights found(World world, Optional<PersonId> person, CopyStore.Copy copy) {
    Optional<RecordAccess.Standing> standing =
        person
            .flatMap(id -> world.crew().person(id))
            .filter(one -> !one.hasLeft())
            .flatMap(
                one -> store.find(copy.record(), false).map(r -> access.standing(world, one, r)));
    if (standing.isEmpty() || !hasSay(world, standing.get())) {
      return part -> Answer.PUT_BACK;
    }
    boolean moves = Permits.mayMove(standing.get());
    Set<Role.Right> rights = standing.get().rights();
    boolean notes = standing.get().isOffice() || rights.contains(Role.Right.NOTES);
    return part ->
        part == Part.TIMES && moves || part == Part.NOTE && notes ? Answer.TAKE : Answer.PROPOSE;
  }

  /** Who is Informed may look; who else is on it, or is the office, has a say. */
  private static boolean hasSay(World world, RecordAccess.Standing standing) {
    Capacities capacities = standing.capacities();
    return standing.isOffice()
        || world.roles().stream()
            .anyMatch(role -> !role.id().equals(RoleId.INFORMED) && capacities.holds(role.id()));
  }

  /** Whether this person has a say in the record of the copy. */
  boolean hasSay(World world, Optional<PersonId> person, CopyStore.Copy copy) {
    return rights(world, person, copy).to(Part.TEXT) != Answer.PUT_BACK;
  }

  /** Adds a note; the same key adds it once. */
  long note(PersonId person, CopyStore.Copy copy, String note, String key) {
    ObjectNode body = json.createObjectNode();
    body.put("note", note.replace('\n', ' '));
    body.put("reason", say("links.note-added-in-their"));
    return change(person, copy, body, key);
  }

  /** Gives the record another title. */
  long title(PersonId person, CopyStore.Copy copy, String title, String key) {
    ObjectNode body = json.createObjectNode();
    body.put("title", CopyText.withoutTick(title));
    body.put("reason", say("links.renamed-in-an-external"));
    return change(person, copy, body, key);
  }

  /**
   * Moves the record as the entry was moved there.
   *
   * @return empty: what was moved there is not the record's own span, so that nobody can tell what
   *     was meant
   */
  Optional<Long> move(
      PersonId person, CopyStore.Copy copy, EntryTimes sent, EntryTimes theirs, String key) {
    Optional<WorkRecord> record = store.find(copy.record(), false);
    Optional<ObjectNode> body =
        record.flatMap(
            one ->
                copy.family() == Family.WORK
                    ? span(one, copy.visit(), sent, theirs)
                    : due(one, copy.family(), sent, theirs));
    return body.map(
        one -> change(person, copy, one.put("reason", say("links.moved-in-their-own")), key));
  }

  private long change(PersonId person, CopyStore.Copy copy, ObjectNode body, String key) {
    return records.change(person, copy.record(), Optional.of(key), "*", body).done().act();
  }

  /** All visits as they are, and the moved one as it was moved; times are kept to the minute. */
  private Optional<ObjectNode> span(
      WorkRecord record, int number, EntryTimes sent, EntryTimes theirs) {
    Optional<When> when = record.visit(number).flatMap(Visit::when);
    Optional<When> moved = when.flatMap(one -> moved(one, sent, theirs));
    if (moved.isEmpty()) {
      return Optional.empty();
    }
    ObjectNode body = json.createObjectNode();
    ArrayNode visits = body.putArray("visits");
    for (Visit visit : record.visits()) {
      ObjectNode one = visits.addObject().put("no", visit.no());
      (visit.no() == number ? moved : visit.when()).ifPresent(span -> write(one, span));
    }
    return Optional.of(body);
  }

  private static void write(ObjectNode visit, When when) {
    if (when instanceof When.Timed timed) {
      visit.put("start", LOCAL.format(timed.start()));
      visit.put("end", LOCAL.format(timed.end()));
      visit.put("zone", timed.start().getZone().getId());
    } else {
      DaySpan days = ((When.AllDay) when).days();
      visit.put("first", days.first().toString());
      visit.put("last", days.until().minusDays(1).toString());
    }
  }

  private static Optional<When> moved(When when, EntryTimes sent, EntryTimes theirs) {
    if (when instanceof When.AllDay days) {
      boolean plain = sent instanceof EntryTimes.AllDay one && one.days().equals(days.days());
      return plain && theirs instanceof EntryTimes.AllDay other
          ? Optional.of(new When.AllDay(other.days()))
          : Optional.empty();
    }
    if (!(sent instanceof EntryTimes.Timed was)
        || !(theirs instanceof EntryTimes.Timed is)
        || !is.from().equals(minute(is.from()))
        || !is.until().equals(minute(is.until()))) {
      return Optional.empty();
    }
    When.Timed timed = (When.Timed) when;
    ZoneId zone = zone(is, timed.start().getZone());
    boolean plain =
        was.from().equals(timed.start().toInstant()) && was.until().equals(timed.end().toInstant());
    if (plain) {
      return told(is.start().withZoneSameInstant(zone), is.end().withZoneSameInstant(zone));
    }
    // With margins around it only what was moved whole can be understood.
    Duration by = Duration.between(was.from(), is.from());
    return by.equals(Duration.between(was.until(), is.until()))
        ? told(
            timed.start().toInstant().plus(by).atZone(zone),
            timed.end().toInstant().plus(by).atZone(zone))
        : Optional.empty();
  }

  /** Work keeps local times: one in an hour's second pass has to be settled by somebody. */
  private static Optional<When> told(ZonedDateTime start, ZonedDateTime end) {
    return LocalTimes.isTold(start) && LocalTimes.isTold(end)
        ? Optional.of(new When.Timed(start, end))
        : Optional.empty();
  }

  private static Instant minute(Instant at) {
    return at.truncatedTo(ChronoUnit.MINUTES);
  }

  /** A region that was chosen there holds; an offset or UTC is only a way of writing. */
  private static ZoneId zone(EntryTimes.Timed theirs, ZoneId before) {
    ZoneId zone = theirs.start().getZone();
    boolean region = !(zone instanceof ZoneOffset) && zone.getId().contains("/");
    return region && !zone.getId().startsWith("Etc/") ? zone : before;
  }

  /** The due time is where the entry ends. */
  private Optional<ObjectNode> due(
      WorkRecord record, Family family, EntryTimes sent, EntryTimes theirs) {
    if (record.due().isEmpty()
        || sent.getClass() != theirs.getClass()
        || family == Family.GIVEN_DUE && !sent.from().equals(theirs.from())) {
      return Optional.empty();
    }
    ObjectNode body = json.createObjectNode();
    ObjectNode due = body.putObject("due");
    if (record.due().get() instanceof Due.At at && theirs instanceof EntryTimes.Timed is) {
      ZonedDateTime end = is.end().withZoneSameInstant(zone(is, at.time().getZone()));
      if (!LocalTimes.isTold(end)) {
        return Optional.empty();
      }
      LocalDateTime local = end.toLocalDateTime();
      due.put("at", LOCAL.format(local)).put("zone", end.getZone().getId());
      return Optional.of(body);
    }
    if (record.due().get() instanceof Due.On && theirs instanceof EntryTimes.AllDay days) {
      due.put("date", days.days().until().minusDays(1).toString());
      return Optional.of(body);
    }
    return Optional.empty();
  }

  /** Why it was not taken, in words. */
  static String why(Problem problem) {
    return say("links.it-could-not-be", problem.getMessage());
  }
}
