package mellowrota.server.records;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.rule.Places;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Due;
import mellowrota.core.work.Kind;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Input;
import mellowrota.server.sight.World;
import tools.jackson.databind.JsonNode;

/**
 * A change to a record as it was sent: only fields that are named change, null clears (RFC 7396).
 */
final class RecordInput {

  static final Set<String> FIELDS =
      Set.of(
          "kind",
          "title",
          "place",
          "team",
          "due",
          "people",
          "details",
          "private",
          "state",
          "started",
          "tags",
          "reason",
          "source",
          "sourceId");

  private static final int MOST_PEOPLE = 40;
  private final Input input;
  private final World world;

  private RecordInput(Input input, World world) {
    this.input = input;
    this.world = world;
  }

  static RecordInput of(JsonNode body, World world) {
    return new RecordInput(Input.of(body, FIELDS), world);
  }

  Input input() {
    return input;
  }

  String reason() {
    return input.text("reason", 300);
  }

  /** The fields named, as {@link Permits} calls them. */
  Set<String> named() {
    Set<String> names = new TreeSet<>(input.names());
    names.removeAll(Set.of("details", "reason", "kind", "source", "sourceId"));
    input.open("details").ifPresent(details -> names.addAll(details.names()));
    return names;
  }

  Kind kind() {
    Kind kind = input.choice("kind", Kind.class).orElse(Kind.TICKET);
    if (kind != Kind.TICKET) {
      input.fault("kind", "only tickets can be made here so far");
    }
    return kind;
  }

  Optional<String> source() {
    return Optional.of(input.text("source", 60)).filter(s -> !s.isEmpty());
  }

  Optional<String> sourceId() {
    return Optional.of(input.text("sourceId", 120)).filter(s -> !s.isEmpty());
  }

  /** The record with what was sent; throws all faults at once. */
  WorkRecord apply(WorkRecord record, Instant now) {
    WorkRecord.Builder builder = record.with();
    if (input.has("title")) {
      builder.detail(DetailKey.TITLE, keepFor(record, DetailKey.TITLE, input.text("title", 200)));
    }
    if (input.has("place")) {
      builder.place(place());
    }
    if (input.has("team")) {
      builder.team(team());
    }
    if (input.has("people")) {
      builder.assignments(people(record, now));
    }
    if (input.has("due")) {
      builder.due(due(builder.build()));
    }
    input.open("details").ifPresent(details -> details(record, details, builder));
    input.flag("private").ifPresent(builder::isPrivate);
    input.flag("started").ifPresent(builder::started);
    input.choice("state", State.class).ifPresent(builder::state);
    if (input.has("tags")) {
      builder.tags(new HashSet<>(input.texts("tags", 20, 40)));
    }
    input.check();
    return builder.build();
  }

  private static DetailValue keepFor(WorkRecord record, DetailKey key, String text) {
    DetailValue before = record.details().get(key);
    return new DetailValue(text, before == null ? Optional.empty() : before.forWhom());
  }

  private Optional<PlaceId> place() {
    OptionalLong id = input.number("place");
    if (id.isPresent() && world.places().find(PlaceId.of(id.getAsLong())).isEmpty()) {
      input.fault("place", "is no place of the house; GET /api/v1/places lists them");
      return Optional.empty();
    }
    return id.isPresent() ? Optional.of(PlaceId.of(id.getAsLong())) : Optional.empty();
  }

  private Optional<TeamId> team() {
    OptionalLong id = input.number("team");
    if (id.isPresent() && world.crew().team(TeamId.of(id.getAsLong())).isEmpty()) {
      input.fault("team", "is no team of the house; GET /api/v1/teams lists them");
      return Optional.empty();
    }
    return id.isPresent() ? Optional.of(TeamId.of(id.getAsLong())) : Optional.empty();
  }

  private Optional<Due> due(WorkRecord record) {
    Optional<Input> due = input.object("due", Set.of("at", "zone", "date"));
    if (due.isEmpty()) {
      return Optional.empty();
    }
    Optional<LocalDate> date = due.get().day("date");
    Optional<LocalDateTime> at = due.get().localTime("at");
    Optional<ZoneId> zone = due.get().zone("zone");
    if (due.get().has("date") == due.get().has("at")) {
      input.fault("due", "wants either \"at\", a local time, or \"date\"");
      return Optional.empty();
    }
    if (date.isPresent()) {
      return Optional.of(new Due.On(date.get()));
    }
    return at.map(
        local -> new Due.At(LocalTimes.resolve(local, zone.orElseGet(() -> siteZone(record)))));
  }

  private ZoneId siteZone(WorkRecord record) {
    Places places = world.places();
    return record.place().flatMap(places::find).flatMap(Place::zone).orElse(places.houseZone());
  }

  /** Who stays in a role keeps the moment of hand-over; who is new gets it now, or as sent. */
  private List<Assignment> people(WorkRecord record, Instant now) {
    List<Assignment> found = new ArrayList<>();
    for (Input item :
        input.objects("people", MOST_PEOPLE, Set.of("role", "person", "team", "given"))) {
      Optional<Holder> holder = holder(item);
      OptionalLong role = item.number("role");
      if (role.isEmpty()
          || role.getAsLong() >= RoleId.MOST
          || world.role(RoleId.of((int) role.getAsLong())).isEmpty()) {
        item.fault("role", "is no role of the house; GET /api/v1/roles lists them");
        continue;
      }
      if (holder.isEmpty()) {
        continue;
      }
      RoleId roleId = RoleId.of((int) role.getAsLong());
      Instant given = given(item).orElseGet(() -> before(record, holder.get(), roleId, now));
      boolean twice =
          found.stream().anyMatch(a -> a.holder().equals(holder.get()) && a.role().equals(roleId));
      if (twice) {
        item.fault("", "stands twice in the same role");
      }
      found.add(new Assignment(1, holder.get(), roleId, given));
    }
    return found;
  }

  private Optional<Instant> given(Input item) {
    return item.localTime("given")
        .map(t -> LocalTimes.resolve(t, world.house().zone()).toInstant());
  }

  private static Instant before(WorkRecord record, Holder holder, RoleId role, Instant now) {
    return record.assignments().stream()
        .filter(a -> a.holder().equals(holder) && a.role().equals(role))
        .map(Assignment::givenAt)
        .findFirst()
        .orElse(now);
  }

  private Optional<Holder> holder(Input item) {
    OptionalLong person = item.number("person");
    OptionalLong team = item.number("team");
    if (person.isPresent() == team.isPresent()) {
      item.fault("", "wants either a person or a team");
      return Optional.empty();
    }
    if (person.isPresent()) {
      PersonId id = PersonId.of(person.getAsLong());
      if (world.crew().person(id).filter(p -> !p.hasLeft()).isEmpty()) {
        item.fault("person", "is nobody of the house; GET /api/v1/people lists them");
        return Optional.empty();
      }
      return Optional.of(Holder.of(id));
    }
    TeamId id = TeamId.of(team.getAsLong());
    if (world.crew().team(id).isEmpty()) {
      item.fault("team", "is no team of the house; GET /api/v1/teams lists them");
      return Optional.empty();
    }
    return Optional.of(Holder.of(id));
  }

  private void details(WorkRecord record, Input details, WorkRecord.Builder builder) {
    for (String name : details.names()) {
      DetailKey key = new DetailKey(name);
      Optional<DetailDefinition> definition =
          world
              .details()
              .find(key)
              .filter(d -> d.typed() && d.kinds().contains(record.kind()))
              .filter(d -> !key.equals(DetailKey.TITLE));
      if (definition.isEmpty()) {
        details.fault("", "holds a name that is no detail; GET /api/v1/details lists them");
        continue;
      }
      boolean notes = key.equals(DetailKey.NOTES);
      String text = notes ? details.lines(name, 4000) : details.text(name, 200);
      builder.detail(key, keepFor(record, key, text));
    }
  }
}
