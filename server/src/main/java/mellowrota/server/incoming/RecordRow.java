package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mellowrota.core.people.Holder;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Kind;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkRecord;
import mellowrota.server.platform.Problem;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * One row of a file as the change of a record that the API takes, so that both are judged by the
 * same code; faults of that change are told of the cells it came from.
 */
final class RecordRow {

  private static final JsonMapper JSON = JsonMapper.shared();
  private static final Set<String> SPAN = Set.of("start", "end", "zone");
  private static final Set<String> WANTS = Set.of("wanted", "skills");

  /** As 2, 2.5 or 2:30; of minutes there are no more than two digits. */
  private static final Pattern HOURS =
      Pattern.compile("(\\d{1,4})(?:[.,](\\d{1,2})|:([0-5]\\d))?(?: ?h)?");

  private static final Set<String> YES = Set.of("yes", "y", "true", "1", "x");
  private static final Set<String> NO = Set.of("", "no", "n", "false", "0");

  private final Known known;
  private final Cells cells;
  private final Optional<Moment.Strokes> strokes;
  private final Kind kind;
  private final Map<String, String> pointers = new HashMap<>();

  RecordRow(Known known, Cells cells, Optional<Moment.Strokes> strokes, Kind usual) {
    this.known = known;
    this.cells = cells;
    this.strokes = strokes;
    kind = kind(usual);
  }

  private Kind kind(Kind usual) {
    String text = cells.text("kind");
    if (text.isEmpty()) {
      return usual;
    }
    for (Kind one : Kind.values()) {
      if (one.name().equalsIgnoreCase(text)) {
        return one;
      }
    }
    cells.faultOf("kind", text, say("incoming.is-not-a-kind"));
    return usual;
  }

  /** A new record with all that the row says. */
  ObjectNode made(String source, String sourceId) {
    ObjectNode body = JSON.createObjectNode();
    body.put("kind", kind.name());
    body.put("source", source);
    body.put("sourceId", sourceId);
    pointers.put("/kind", "kind");
    pointers.put("/sourceId", "id");
    fill(body, cells.fields(), Optional.empty(), Map.of());
    if (!body.has("title")) {
      // Judged as every record is: what it lacks is told.
      body.put("title", "");
    }
    return body;
  }

  /**
   * What the row changes of a record.
   *
   * @param said what its cells said before; what else was changed meanwhile stays
   */
  ObjectNode changed(WorkRecord record, Map<String, String> said, boolean takesUpAgain) {
    Set<String> fields = cells.differing(said);
    if (!cells.text("kind").isEmpty() && kind != record.kind()) {
      cells.faultOf(
          "kind",
          cells.text("kind"),
          say("incoming.cannot-change-the-record", word(record.kind())));
    }
    ObjectNode body = JSON.createObjectNode();
    fill(body, fields, Optional.of(record), said);
    if (takesUpAgain && !body.has("state")) {
      body.put("state", (record.kind() == Kind.JOB ? State.DRAFT : State.CONFIRMED).name());
    }
    return body;
  }

  private static String word(Kind kind) {
    return kind.name().toLowerCase(Locale.ROOT);
  }

  private void fill(
      ObjectNode body, Set<String> fields, Optional<WorkRecord> record, Map<String, String> said) {
    boolean fresh = record.isEmpty();
    for (String field : fields) {
      boolean clears = cells.text(field).isEmpty();
      if (clears && fresh) {
        continue;
      }
      switch (field) {
        case "title" -> put(body, "title", field, cells.text(field));
        case "place" ->
            number(body, field, clears, cells.named(field, known.places()).map(p -> p.value()));
        case "uses" -> uses(body);
        case "team" ->
            number(body, field, clears, cells.named(field, known.teams()).map(t -> t.value()));
        case "due" -> due(body, clears);
        case "tags" -> tags(body);
        case "state" -> state(body);
        case "private" -> yesNo(body);
        case "leastHeadCount" -> headCount(body, clears);
        case "estimate" -> estimate(body, clears);
        default -> {
          if (field.startsWith(Field.DETAIL)) {
            detail(body, field, clears);
          }
        }
      }
    }
    if (fields.stream().anyMatch(SPAN::contains)) {
      span(body, record);
    }
    if (fields.stream().anyMatch(WANTS::contains)) {
      wants(body, record);
    }
    List<String> roles = fields.stream().filter(field -> field.startsWith(Field.ROLE)).toList();
    if (!roles.isEmpty()) {
      people(body, roles, record, said);
    }
  }

  private void put(ObjectNode body, String name, String field, String value) {
    body.put(name, value);
    pointers.put("/" + name, field);
  }

  private void number(ObjectNode body, String field, boolean clears, Optional<Long> id) {
    pointers.put("/" + field, field);
    if (clears) {
      body.putNull(field);
    }
    id.ifPresent(value -> body.put(field, value));
  }

  private void due(ObjectNode body, boolean clears) {
    pointers.put("/due", "due");
    if (clears) {
      body.putNull("due");
    }
    cells
        .moment("due", strokes)
        .ifPresent(
            due -> {
              ObjectNode node = body.putObject("due");
              node.put(due.time().isPresent() ? "at" : "date", due.iso());
              if (due.time().isPresent() && !cells.text("zone").isEmpty()) {
                node.put("zone", cells.text("zone"));
                pointers.put("/due/zone", "zone");
              }
            });
  }

  /** Names of places may hold commas. */
  private void uses(ObjectNode body) {
    pointers.put("/uses", "uses");
    ArrayNode uses = body.putArray("uses");
    for (String place : cells.text("uses").split("[;\n]")) {
      if (!place.isBlank()) {
        cells.named("uses", place.strip(), known.places()).ifPresent(one -> uses.add(one.value()));
      }
    }
  }

  private void tags(ObjectNode body) {
    pointers.put("/tags", "tags");
    ArrayNode tags = body.putArray("tags");
    for (String tag : cells.text("tags").split("[,;\n]")) {
      if (!tag.isBlank()) {
        tags.add(tag.strip());
      }
    }
  }

  private void state(ObjectNode body) {
    String text = cells.text("state");
    pointers.put("/state", "state");
    for (State state : State.values()) {
      if (state.name().equalsIgnoreCase(text)) {
        body.put("state", state.name());
        return;
      }
    }
    if (!text.isEmpty()) {
      cells.faultOf("state", text, say("incoming.is-not-a-state"));
    }
  }

  private void yesNo(ObjectNode body) {
    String text = cells.text("private").toLowerCase(Locale.ROOT);
    if (YES.contains(text) || NO.contains(text)) {
      body.put("private", YES.contains(text));
    } else {
      cells.faultOf("private", text, say("incoming.must-be-yes-or"));
    }
  }

  private void headCount(ObjectNode body, boolean clears) {
    pointers.put("/leastHeadCount", "leastHeadCount");
    if (clears) {
      body.putNull("leastHeadCount");
    } else if (cells.text("leastHeadCount").matches("\\d{1,4}")) {
      body.put("leastHeadCount", Integer.parseInt(cells.text("leastHeadCount")));
    } else {
      cells.faultOf(
          "leastHeadCount", cells.text("leastHeadCount"), say("incoming.must-be-a-whole"));
    }
  }

  private void estimate(ObjectNode body, boolean clears) {
    String text = cells.text("estimate");
    pointers.put("/estimateMinutes", "estimate");
    if (clears) {
      body.putNull("estimateMinutes");
      return;
    }
    Matcher hours = HOURS.matcher(text);
    if (!hours.matches()) {
      cells.faultOf("estimate", text, say("incoming.must-be-a-number"));
      return;
    }
    double part =
        hours.group(2) != null
            ? Double.parseDouble("0." + hours.group(2))
            : hours.group(3) != null ? Integer.parseInt(hours.group(3)) / 60.0 : 0;
    body.put("estimateMinutes", Math.round(60 * (Integer.parseInt(hours.group(1)) + part)));
  }

  /** How many a visit wants; skills alone want one of each. */
  private void wants(ObjectNode body, Optional<WorkRecord> record) {
    String many = cells.text("wanted");
    List<String> skills =
        Arrays.stream(cells.text("skills").split("[,;\n]"))
            .map(String::strip)
            .filter(one -> !one.isEmpty())
            .toList();
    pointers.put("/wants", cells.has("wanted") ? "wanted" : "skills");
    pointers.put("/wants/skills", "skills");
    if (!many.isEmpty() && !many.matches("\\d{1,4}")) {
      cells.faultOf("wanted", many, say("incoming.must-be-a-whole"));
      return;
    }
    int people =
        !many.isEmpty()
            ? Integer.parseInt(many)
            : cells.has("wanted")
                ? skills.size()
                : Math.max(skills.size(), record.map(r -> r.wants().people()).orElse(0));
    if (people == 0 && skills.isEmpty()) {
      body.putNull("wants");
      return;
    }
    ObjectNode wants = body.putObject("wants");
    wants.put("people", people);
    skills.forEach(wants.putArray("skills")::add);
  }

  private void detail(ObjectNode body, String field, boolean clears) {
    DetailKey key = new DetailKey(field.substring(Field.DETAIL.length()));
    boolean kept = known.world().details().of(kind).stream().anyMatch(one -> one.key().equals(key));
    if (!kept) {
      if (!clears) {
        cells.faultOf(
            field, cells.text(field), say("incoming.does-not-fit-a", word(kind), key.name()));
      }
      return;
    }
    pointers.put("/details/" + key.name(), field);
    ObjectNode details =
        body.has("details") ? (ObjectNode) body.get("details") : body.putObject("details");
    if (clears) {
      details.putNull(key.name());
    } else {
      details.put(key.name(), cells.text(field));
    }
  }

  private void span(ObjectNode body, Optional<WorkRecord> record) {
    Optional<Moment> start = cells.moment("start", strokes);
    Optional<Moment> end = cells.moment("end", strokes);
    if (record.isPresent() && record.get().visits().size() > 1) {
      cells.fault("start", say("incoming.the-record-has-several"));
      return;
    }
    if (start.isEmpty() || end.isEmpty()) {
      lacksOne(start, end);
      if (cells.text("start").isEmpty() && cells.text("end").isEmpty() && record.isPresent()) {
        body.putArray("visits");
      }
      return;
    }
    if (start.get().time().isPresent() != end.get().time().isPresent()) {
      cells.faultOf("end", cells.text("end"), say("incoming.and-the-start-must"));
      return;
    }
    ObjectNode visit = body.putArray("visits").addObject();
    record.ifPresent(r -> visit.put("no", r.visits().get(0).no()));
    boolean timed = start.get().time().isPresent();
    visit.put(timed ? "start" : "first", start.get().iso());
    visit.put(timed ? "end" : "last", end.get().iso());
    if (timed && !cells.text("zone").isEmpty()) {
      visit.put("zone", cells.text("zone"));
    }
    pointers.put("/visits", "start");
    pointers.put("/visits/0/start", "start");
    pointers.put("/visits/0/first", "start");
    pointers.put("/visits/0/end", "end");
    pointers.put("/visits/0/last", "end");
    pointers.put("/visits/0/zone", "zone");
  }

  private void lacksOne(Optional<Moment> start, Optional<Moment> end) {
    if (start.isPresent() && cells.text("end").isEmpty()) {
      cells.fault(cells.has("end") ? "end" : "start", say("incoming.has-a-start-but"));
    }
    if (end.isPresent() && cells.text("start").isEmpty()) {
      cells.fault(cells.has("start") ? "start" : "end", say("incoming.has-an-end-but"));
    }
  }

  private record Seat(RoleId role, Holder holder) {}

  /** Whom the file adds comes to those who are on it now, whom it drops goes; others stay. */
  private void people(
      ObjectNode body, List<String> fields, Optional<WorkRecord> record, Map<String, String> said) {
    ArrayNode people = JSON.createArrayNode();
    Set<Seat> sat = new HashSet<>();
    Set<Seat> wanted = new HashSet<>();
    List<Seat> named = new ArrayList<>();
    for (String field : fields) {
      RoleId role = RoleId.of(Integer.parseInt(field.substring(Field.ROLE.length())));
      sat.addAll(formerly(role, said.getOrDefault(field, "")));
      for (String name : known.holders().parted(cells.text(field))) {
        holder(field, name).ifPresent(holder -> named.add(new Seat(role, holder)));
      }
    }
    for (Seat seat : named) {
      if (!wanted.add(seat)) {
        cells.fault(Field.ROLE + seat.role().value(), say("incoming.names-somebody-twice"));
      }
    }
    Set<Seat> kept = new HashSet<>();
    for (Assignment a : record.map(WorkRecord::assignments).orElse(List.of())) {
      Seat seat = new Seat(a.role(), a.holder());
      if (!sat.contains(seat) || wanted.contains(seat)) {
        kept.add(seat);
        add(people, seat).put("visit", a.visit());
      }
    }
    for (Seat seat : named) {
      // Whom the file named before, and who was taken off here since, stays off.
      if (!sat.contains(seat) && kept.add(seat)) {
        pointers.put("/people/" + people.size(), Field.ROLE + seat.role().value());
        add(people, seat);
      }
    }
    body.set("people", people);
  }

  private Optional<Holder> holder(String field, String name) {
    if (!known.holders().has(name) && known.hasLeft(name)) {
      cells.faultOf(field, name, say("incoming.has-left-the-organisation"));
      return Optional.empty();
    }
    return cells.named(field, name, known.holders());
  }

  /** Whom a cell named when it was taken, as far as they are still known. */
  private List<Seat> formerly(RoleId role, String cell) {
    List<Seat> found = new ArrayList<>();
    for (String name : known.holders().parted(cell)) {
      try {
        found.add(new Seat(role, known.holders().find(name)));
      } catch (Names.Unknown gone) {
        // Whoever is no longer known is on no record either.
        continue;
      }
    }
    return found;
  }

  private static ObjectNode add(ArrayNode people, Seat seat) {
    ObjectNode one = people.addObject();
    one.put("role", seat.role().value());
    if (seat.holder() instanceof Holder.OnePerson person) {
      one.put("person", person.person().value());
    } else {
      one.put("team", ((Holder.WholeTeam) seat.holder()).team().value());
    }
    return one;
  }

  /** Tells the faults of the change by the cells they came from. */
  void tell(Problem problem) {
    if (!(problem.more().get("faults") instanceof List<?> faults)) {
      cells.fault("", problem.getMessage());
      return;
    }
    for (Object one : faults) {
      Problem.Fault fault = (Problem.Fault) one;
      String at = fault.pointer();
      while (!at.isEmpty() && !pointers.containsKey(at)) {
        at = at.substring(0, at.lastIndexOf('/'));
      }
      String field = pointers.getOrDefault(at, own(fault.pointer()));
      String said = cells.text(field);
      if (said.isEmpty()) {
        cells.fault(field, fault.message());
      } else {
        cells.faultOf(field, said, fault.message());
      }
    }
  }

  /** Where nothing was sent, the fault is of the cell that lacks it. */
  private static String own(String pointer) {
    String first = pointer.isEmpty() ? "" : pointer.substring(1).split("/")[0];
    return first.equals("visits") ? "start" : first;
  }
}
