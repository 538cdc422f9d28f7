package mellowrota.server.cover;

import static mellowrota.server.platform.Words.say;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.RecordViews;
import mellowrota.server.records.Records;
import mellowrota.server.records.store.RecordStore;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Gives what is short to somebody. */
@Service
@RequiredArgsConstructor
class Assigning {

  private static final DateTimeFormatter LOCAL = DateTimeFormatter.ofPattern("yyyy-MM-dd'T'HH:mm");

  private final Records records;
  private final RecordStore store;
  private final RecordAccess access;
  private final RecordViews views;
  private final Worlds worlds;
  private final CandidateTrial.Source source;
  private final JsonMapper json;

  /** The act it took, and the record that was given or made. */
  record Given(long act, long record) {}

  Given give(
      PersonId asker,
      Optional<String> key,
      Duties.Kept duty,
      ZoneId zone,
      TimeSpan span,
      PersonId person) {
    CandidateFinder.requireOwn(worlds.now(), duty, span);
    ObjectNode body = json.createObjectNode();
    body.putArray("people")
        .addObject()
        .put("role", duty.role().value())
        .put("person", person.value());
    Optional<RecordAccess.Standing> waits = waiting(asker, duty, span);
    Records.Saved saved =
        waits.isPresent()
            ? records.change(asker, waits.get().record().id(), key, tag(waits.get()), body)
            : records.create(asker, key, shift(body, duty, zone, span));
    return new Given(saved.done().act(), saved.records().get(0).value());
  }

  /** Puts somebody on a visit: as its lead where it has none. */
  Given join(
      PersonId asker,
      Optional<String> key,
      RecordAccess.Standing standing,
      int visit,
      PersonId person) {
    WorkRecord record = standing.record();
    List<Assignment> theirs =
        record.on(visit).stream().filter(one -> one.holder().equals(Holder.of(person))).toList();
    if (theirs.stream().anyMatch(one -> OnIt.takesTime(one.role()))) {
      throw Problem.fault("/person", say("cover.is-already-on-it"));
    }
    boolean led = record.on(visit).stream().anyMatch(one -> one.role().equals(RoleId.LEAD));
    List<Assignment> all = new ArrayList<>(record.assignments());
    // Who only looked on until now changes their role.
    all.removeAll(theirs);
    all.add(
        new Assignment(
            visit, Holder.of(person), led ? RoleId.SUPPORT : RoleId.LEAD, Instant.EPOCH));
    return put(asker, key, standing, all);
  }

  /** Hands a visit from one person to another, in all roles that take time or not. */
  Given handOver(
      PersonId asker,
      Optional<String> key,
      RecordAccess.Standing standing,
      int visit,
      PersonId from,
      PersonId to) {
    List<Assignment> all = new ArrayList<>();
    standing.record().assignments().forEach(one -> all.add(handed(one, visit, from, to)));
    return put(asker, key, standing, all);
  }

  /** Somebody on a visit. */
  record Seat(RecordAccess.Standing standing, int visit, PersonId person) {
    RecordId record() {
      return standing.record().id();
    }
  }

  static boolean isOn(WorkRecord record, int visit, PersonId person) {
    return record.on(visit).stream().anyMatch(one -> one.holder().equals(Holder.of(person)));
  }

  /** Two people change places, each in the roles that the other had. */
  Given swap(PersonId asker, Optional<String> key, Seat one, Seat other) {
    for (Seat seat : List.of(one, other)) {
      Seat comes = seat == one ? other : one;
      if (isOn(seat.standing().record(), seat.visit(), comes.person())) {
        throw Problem.fault("/sides", say("cover.must-be-two-different"));
      }
    }
    if (one.record().equals(other.record())) {
      List<Assignment> all = new ArrayList<>();
      for (Assignment was : one.standing().record().assignments()) {
        boolean first = was.visit() == one.visit();
        all.add(
            first
                ? handed(was, one.visit(), one.person(), other.person())
                : handed(was, other.visit(), other.person(), one.person()));
      }
      return put(asker, key, one.standing(), all);
    }
    ObjectNode body = json.createObjectNode();
    ArrayNode items = body.putArray("items");
    for (Seat seat : List.of(one, other)) {
      Seat comes = seat == one ? other : one;
      List<Assignment> all =
          seat.standing().record().assignments().stream()
              .map(was -> handed(was, seat.visit(), seat.person(), comes.person()))
              .toList();
      items
          .addObject()
          .put("record", seat.record().value())
          .put("ifMatch", tag(seat.standing()))
          .set("change", people(all));
    }
    Records.Saved saved = records.several(asker, key, body);
    return new Given(saved.done().act(), one.record().value());
  }

  private static Assignment handed(Assignment one, int visit, PersonId from, PersonId to) {
    return one.visit() == visit && one.holder().equals(Holder.of(from))
        ? new Assignment(visit, Holder.of(to), one.role(), one.givenAt())
        : one;
  }

  private Given put(
      PersonId asker, Optional<String> key, RecordAccess.Standing standing, List<Assignment> all) {
    Records.Saved saved =
        records.change(asker, standing.record().id(), key, tag(standing), people(all));
    return new Given(saved.done().act(), standing.record().id().value());
  }

  /** Who is named twice in one role on one visit is put there once. */
  private ObjectNode people(List<Assignment> all) {
    ObjectNode body = json.createObjectNode();
    ArrayNode people = body.putArray("people");
    Set<String> seats = new HashSet<>();
    for (Assignment one : all) {
      if (seats.add(one.visit() + " " + one.role() + " " + one.holder())) {
        ObjectNode seat =
            people.addObject().put("visit", one.visit()).put("role", one.role().value());
        if (one.holder() instanceof Holder.OnePerson person) {
          seat.put("person", person.person().value());
        } else {
          seat.put("team", ((Holder.WholeTeam) one.holder()).team().value());
        }
      }
    }
    return body;
  }

  /** A record as the asker sees it. */
  RecordAccess.Standing standing(World world, PersonId asker, long record) {
    return store
        .find(RecordId.of(record), false)
        .map(found -> access.standing(world, world.person(asker), found))
        .filter(RecordAccess.Standing::opens)
        .orElseThrow(Problem::notFound);
  }

  /** The shift that was tried, as the asker sees it. */
  private Optional<RecordAccess.Standing> waiting(PersonId asker, Duties.Kept duty, TimeSpan span) {
    World world = worlds.now();
    Person me = world.person(asker);
    return source
        .trying(world, me, span)
        .around
        .waiting(duty, span)
        .map(waits -> access.standing(world, me, waits.record()));
  }

  /** Of two who give the same at once, the second is told that it was given. */
  private String tag(RecordAccess.Standing seen) {
    return views.etag(views.view(seen).orElseThrow(Problem::notFound));
  }

  private static ObjectNode shift(ObjectNode body, Duties.Kept duty, ZoneId site, TimeSpan span) {
    // Work keeps local times; one in an hour's second pass is told in UTC.
    boolean told =
        LocalTimes.isTold(span.start().atZone(site)) && LocalTimes.isTold(span.end().atZone(site));
    ZoneId zone = told ? site : ZoneId.of("UTC");
    body.put("kind", "SHIFT").put("title", duty.name()).put("place", duty.place().value());
    body.putArray("visits")
        .addObject()
        .put("start", LOCAL.format(span.start().atZone(zone)))
        .put("end", LOCAL.format(span.end().atZone(zone)))
        .put("zone", zone.getId());
    return body;
  }
}
