package mellowrota.server.cover;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.RecordAccess;
import mellowrota.server.records.RecordStore;
import mellowrota.server.records.RecordViews;
import mellowrota.server.records.Records;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Gives what is short to somebody. */
@Service
class Gives {

  private static final DateTimeFormatter LOCAL = DateTimeFormatter.ofPattern("yyyy-MM-dd'T'HH:mm");

  private final Records records;
  private final RecordStore store;
  private final RecordAccess access;
  private final RecordViews views;
  private final Worlds worlds;
  private final JdbcClient jdbc;
  private final JsonMapper json;

  Gives(
      Records records,
      RecordStore store,
      RecordAccess access,
      RecordViews views,
      Worlds worlds,
      JdbcClient jdbc,
      JsonMapper json) {
    this.records = records;
    this.store = store;
    this.access = access;
    this.views = views;
    this.worlds = worlds;
    this.jdbc = jdbc;
    this.json = json;
  }

  /** The act it took, and the record that was given or made. */
  record Given(long act, long record) {}

  Given give(
      PersonId asker,
      Optional<String> key,
      Duties.Kept duty,
      ZoneId zone,
      TimeSpan span,
      PersonId person) {
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
    if (record.on(visit).stream().anyMatch(one -> one.holder().equals(Holder.of(person)))) {
      throw Problem.fault("/person", "is on it already");
    }
    boolean led = record.on(visit).stream().anyMatch(one -> one.role().equals(RoleId.LEAD));
    List<Assignment> all = new ArrayList<>(record.assignments());
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
    for (Assignment one : standing.record().assignments()) {
      boolean handed = one.visit() == visit && one.holder().equals(Holder.of(from));
      all.add(handed ? new Assignment(visit, Holder.of(to), one.role(), one.givenAt()) : one);
    }
    return put(asker, key, standing, all);
  }

  /** Who is named twice in one role on one visit is put there once. */
  private Given put(
      PersonId asker, Optional<String> key, RecordAccess.Standing standing, List<Assignment> all) {
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
    Records.Saved saved = records.change(asker, standing.record().id(), key, tag(standing), body);
    return new Given(saved.done().act(), standing.record().id().value());
  }

  /** A record as the asker sees it. */
  RecordAccess.Standing standing(World world, PersonId asker, long record) {
    return store
        .find(RecordId.of(record), false)
        .map(found -> access.standing(world, world.person(asker), found))
        .filter(RecordAccess.Standing::opens)
        .orElseThrow(Problem::notFound);
  }

  /** A shift at its place that nobody has and that holds the span, as the asker sees it. */
  private Optional<RecordAccess.Standing> waiting(PersonId asker, Duties.Kept duty, TimeSpan span) {
    World world = worlds.now();
    return jdbc.sql(
            """
            select r.id from record r join visit v on v.record = r.id
            where r.kind = 'SHIFT' and r.state = 'CONFIRMED' and r.place = ?
              and v.starts <= ? and v.ends >= ?
              and not exists (select 1 from assignment a where a.record = r.id)
            order by v.ends - v.starts, r.id limit 1
            """)
        .param(duty.place().value())
        .param(span.start().atOffset(ZoneOffset.UTC))
        .param(span.end().atOffset(ZoneOffset.UTC))
        .query(Long.class)
        .optional()
        .flatMap(id -> store.find(RecordId.of(id), false))
        .filter(record -> record.assignments().isEmpty())
        .map(record -> access.standing(world, world.person(asker), record));
  }

  /** Of two who give the same at once, the second is told that it was given. */
  private String tag(RecordAccess.Standing seen) {
    return views.etag(views.view(seen).orElseThrow(Problem::notFound));
  }

  private static ObjectNode shift(ObjectNode body, Duties.Kept duty, ZoneId zone, TimeSpan span) {
    body.put("kind", "SHIFT").put("title", duty.name()).put("place", duty.place().value());
    body.putArray("visits")
        .addObject()
        .put("start", LOCAL.format(span.start().atZone(zone)))
        .put("end", LOCAL.format(span.end().atZone(zone)))
        .put("zone", zone.getId());
    return body;
  }
}
