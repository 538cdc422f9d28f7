package mellowrota.server.rules;

import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.Team;
import mellowrota.core.sight.Wording;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Kind;
import mellowrota.core.work.Place;
import mellowrota.core.work.State;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.World;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Reads a set from a file that people write (YAML 1.1), names in place of numbers. What is wrong is
 * told by line and column; a part that the file leaves out stays as it is.
 */
final class SetFileReader extends YamlReading {

  private static final Pattern REMINDER =
      Pattern.compile("(\\d{1,6}) (minutes?|hours?|working days?)", Pattern.CASE_INSENSITIVE);
  private static final Map<String, String> KINDS = words(Kind.class);
  private static final Map<String, String> STATES = words(State.class);
  private static final Map<String, String> CATEGORIES = words(Wording.Category.class);

  private final World world;
  private final ObjectNode now;
  private final JsonMapper json;
  private final Map<String, Long> wordings = new LinkedHashMap<>();

  private SetFileReader(World world, ObjectNode now, JsonMapper json) {
    this.world = world;
    this.now = now;
    this.json = json;
  }

  /**
   * The set that the file says, as it is sent to be looked at.
   *
   * @param now the set as it stands, of which parts stay
   */
  static ObjectNode read(World world, ObjectNode now, String text, JsonMapper json) {
    SetFileReader reader = new SetFileReader(world, now, json);
    ObjectNode set = reader.set(reader.compose(text));
    if (reader.faults.isEmpty()) {
      reader.judge(set);
    }
    if (!reader.faults.isEmpty()) {
      throw Problem.faults(reader.faults);
    }
    return set;
  }

  /** Judges what the file says as the API would, and tells faults where they stand in the file. */
  private void judge(ObjectNode set) {
    try {
      SetInput.read(world, set);
    } catch (Problem problem) {
      if (!(problem.more().get("faults") instanceof List<?> found)) {
        throw problem;
      }
      for (Object one : found) {
        Problem.Fault fault = (Problem.Fault) one;
        faults.add(new Problem.Fault(at(place(fault.pointer())), words(fault)));
      }
    }
  }

  private ObjectNode set(Node node) {
    ObjectNode set = now.deepCopy();
    places.put("", node.getStartMark());
    Map<String, Node> parts =
        fields(node, "details", "wordings", "usually", "titles fixed", "rules");
    for (var one : now.get("wordings")) {
      wordings.put(one.get("name").asString(), one.get("id").asLong());
    }
    list(parts, "details", "details", set, this::detail);
    if (parts.containsKey("wordings")) {
      wordings.keySet().retainAll(names(parts.get("wordings")));
    }
    list(parts, "wordings", "wordings", set, this::wording);
    usual(parts, set);
    scalar(parts, "titles fixed").ifPresent(why -> set.put("titlesFixed", why));
    list(parts, "rules", "rules", set, this::rule);
    if (set.get("rules") instanceof ArrayNode rules && parts.containsKey("rules")) {
      number(rules);
    }
    return set;
  }

  /** What the wordings of the file are called; the others of the house are taken out. */
  private static Set<String> names(Node wordings) {
    Set<String> found = new HashSet<>();
    if (wordings instanceof SequenceNode list) {
      for (Node item : list.getValue()) {
        if (item instanceof MappingNode map) {
          for (NodeTuple tuple : map.getValue()) {
            if (tuple.getKeyNode() instanceof ScalarNode key
                && key.getValue().equals("name")
                && tuple.getValueNode() instanceof ScalarNode name) {
              found.add(name.getValue());
            }
          }
        }
      }
    }
    return found;
  }

  /** A rule that says what one of the house says is that one; the others are new. */
  private void number(ArrayNode rules) {
    Map<String, Long> known = new HashMap<>();
    for (var rule : now.get("rules")) {
      ObjectNode plain = ((ObjectNode) rule).deepCopy();
      long id = plain.remove("id").asLong();
      plain.remove(List.of("on", "note"));
      known.putIfAbsent(sorted(plain), id);
    }
    for (var rule : rules) {
      ObjectNode plain = ((ObjectNode) rule).deepCopy();
      plain.remove(List.of("on", "note"));
      Long id = known.remove(sorted(plain));
      if (id != null) {
        ((ObjectNode) rule).put("id", id);
      }
    }
  }

  private static String sorted(JsonNode node) {
    if (node.isArray()) {
      return node.valueStream().map(SetFileReader::sorted).toList().toString();
    }
    return node.isObject()
        ? new java.util.TreeMap<>(
                node.propertyStream()
                    .collect(Collectors.toMap(Map.Entry::getKey, one -> sorted(one.getValue()))))
            .toString()
        : node.toString();
  }

  private void detail(Node node, ObjectNode detail, String pointer) {
    Map<String, Node> fields =
        fields(node, "name", "called", "for", "holds", "choices", "kinds", "while");
    copy(fields, "name", detail, "label", pointer);
    copy(fields, "called", detail, "key", pointer);
    detail.put("sort", DetailSort.TEXT.name());
    one(fields, "holds", FileWords.SORTS, detail, "sort", pointer);
    detail.putArray("choices");
    if (fields.containsKey("choices")) {
      places.put(pointer + "/choices", fields.get("choices").getStartMark());
      ArrayNode choices = (ArrayNode) detail.get("choices");
      scalars(fields.get("choices"), "choices").forEach(one -> choices.add(one.getValue()));
    }
    ArrayNode kinds = detail.putArray("kinds");
    if (!fields.containsKey("kinds")) {
      for (Kind kind : Kind.values()) {
        kinds.add(kind.name());
      }
    }
    constants(fields, "kinds", KINDS, detail, "kinds", pointer);
    detail.putArray("states");
    constants(fields, "while", STATES, detail, "states", pointer);
    known(detail);
    if (fields.containsKey("for")) {
      places.put(pointer + "/for", fields.get("for").getStartMark());
      forWhom(fields.get("for"), detail.putObject("for"));
    }
  }

  /** What the house settles of a detail and no file says. */
  private void known(ObjectNode detail) {
    String key = detail.has("key") ? detail.get("key").asString() : "";
    detail.put("typed", true).put("own", DetailsInput.isOwn(new DetailKey(key)));
    for (var one : now.get("details")) {
      if (one.get("key").asString().equals(key)) {
        boolean typed = one.get("typed").asBoolean();
        detail.put("typed", typed);
        if (!typed || key.equals(DetailKey.TITLE.name())) {
          detail.set("kinds", one.get("kinds"));
          detail.set("sort", one.get("sort"));
        }
      }
    }
  }

  private void forWhom(Node node, ObjectNode to) {
    if (node instanceof ScalarNode scalar && FileWords.PRESETS.containsKey(scalar.getValue())) {
      to.setAll(
          (ObjectNode) json.valueToTree(ForSets.view(FileWords.PRESETS.get(scalar.getValue()))));
      return;
    }
    long bits = 0;
    for (ScalarNode one : scalars(node, "for")) {
      Optional<Role> role = role(one.getValue());
      if (role.isPresent()) {
        bits |= Capacities.role(role.get().id());
      } else {
        switch (one.getValue()) {
          case "office" -> bits |= Capacities.OFFICE;
          case "crew" -> bits |= Capacities.CREW;
          case "outside" -> bits |= Capacities.OUTSIDE;
          default ->
              fault(
                  one,
                  "\""
                      + cut(one.getValue())
                      + "\" are no readers; one of everyone, crew, people on it, office, or a list of office, crew, outside, "
                      + roles());
        }
      }
    }
    to.setAll((ObjectNode) json.valueToTree(ForSets.view(new ForSet(bits))));
  }

  private Optional<Role> role(String name) {
    return world.roles().stream().filter(role -> role.name().equalsIgnoreCase(name)).findFirst();
  }

  private String roles() {
    return world.roles().stream().map(Role::name).collect(Collectors.joining(", "));
  }

  private void wording(Node node, ObjectNode wording, String pointer) {
    Map<String, Node> fields =
        fields(node, "name", "title", "place", "text", "categories", "fixed");
    copy(fields, "name", wording, "name", pointer);
    wording.put("title", "").put("place", "").put("text", "");
    for (String part : List.of("title", "place", "text", "fixed")) {
      copy(fields, part, wording, part, pointer);
    }
    wording.putArray("categories");
    constants(fields, "categories", CATEGORIES, wording, "categories", pointer);
    String name = wording.has("name") ? wording.get("name").asString() : "";
    Long known = wordings.get(name);
    if (known == null) {
      long fresh = 1_000_000 + wordings.size();
      wordings.put(name, fresh);
      wording.put("id", fresh).put("fresh", true);
    } else {
      wording.put("id", known);
      if (known >= 1_000_000) {
        wording.put("fresh", true);
      }
    }
  }

  private void usual(Map<String, Node> parts, ObjectNode set) {
    if (!parts.containsKey("usually")) {
      return;
    }
    ObjectNode usual = set.putObject("usual");
    Map<String, Node> fields = fields(parts.get("usually"), KINDS.values().toArray(String[]::new));
    fields.forEach(
        (kind, node) ->
            wordingNamed(fields, kind)
                .ifPresent(id -> usual.put(FileWords.constant(KINDS, kind).orElseThrow(), id)));
  }

  private Optional<Long> wordingNamed(Map<String, Node> fields, String field) {
    Optional<String> name = scalar(fields, field);
    if (name.isPresent() && !wordings.containsKey(name.get())) {
      fault(
          fields.get(field), "\"" + cut(name.get()) + "\" is no wording of this file or the house");
      return Optional.empty();
    }
    return name.map(wordings::get);
  }

  private void rule(Node node, ObjectNode rule, String pointer) {
    Map<String, Node> fields =
        fields(
            node,
            "note",
            "off",
            "when",
            "lands on",
            "as",
            "worded",
            "shown as",
            "when done",
            "reminders",
            "invites",
            "release");
    boolean off =
        scalar(fields, "off").filter(said -> List.of("true", "yes").contains(said)).isPresent();
    rule.put("on", !off);
    if (fields.containsKey("when")) {
      places.put(pointer + "/when", fields.get("when").getStartMark());
      ArrayNode all = rule.putObject("when").putArray("all");
      conditions(fields.get("when"), all, pointer + "/when/all");
    }
    if (fields.containsKey("lands on")) {
      places.put(pointer + "/lands", fields.get("lands on").getStartMark());
      ArrayNode lands = rule.putArray("lands");
      Node on = fields.get("lands on");
      for (Node target : on instanceof SequenceNode list ? list.getValue() : List.of(on)) {
        places.put(pointer + "/lands/" + lands.size(), target.getStartMark());
        target(target, lands.addObject());
      }
    }
    one(fields, "as", FileWords.SHAPES, rule, "as", pointer);
    wordingNamed(fields, "worded").ifPresent(id -> rule.put("wording", id));
    if (fields.containsKey("shown as")) {
      ObjectNode shown = json.createObjectNode();
      one(fields, "shown as", Map.of("BUSY", "busy", "FREE", "free"), shown, "as", pointer);
      if (shown.has("as")) {
        rule.put("busy", shown.get("as").asString().equals("BUSY"));
      }
    }
    one(fields, "when done", FileWords.WHEN_DONE, rule, "whenDone", pointer);
    if (fields.containsKey("reminders")) {
      reminders(fields.get("reminders"), rule.putArray("reminders"), pointer + "/reminders/");
    }
    one(fields, "invites", FileWords.ATTENDEES, rule, "attendees", pointer);
    ObjectNode release = json.createObjectNode();
    one(fields, "release", FileWords.RELEASE, release, "as", pointer);
    if (release.has("as")) {
      rule.put("afterYes", Boolean.parseBoolean(release.get("as").asString()));
    }
    copy(fields, "note", rule, "note", pointer);
  }

  private void reminders(Node node, ArrayNode to, String pointer) {
    for (ScalarNode one : scalars(node, "reminders such as 30 minutes")) {
      Matcher said = REMINDER.matcher(one.getValue().strip());
      places.put(pointer + to.size(), one.getStartMark());
      if (said.matches()) {
        String unit = said.group(2).endsWith("s") ? said.group(2) : said.group(2) + "s";
        to.addObject()
            .put("amount", Integer.parseInt(said.group(1)))
            .put("unit", FileWords.constant(FileWords.UNITS, unit).orElseThrow());
      } else {
        fault(
            one,
            "\""
                + cut(one.getValue())
                + "\" is no reminder; such as 30 minutes, 2 hours or 3 working days");
      }
    }
  }

  private void conditions(Node node, ArrayNode to, String pointer) {
    if (!(node instanceof SequenceNode list)) {
      fault(node, "is no list of conditions; begin each with a dash");
      return;
    }
    for (Node item : list.getValue()) {
      String at = pointer + "/" + to.size();
      places.put(at, item.getStartMark());
      condition(item, to.addObject(), at);
    }
  }

  private void condition(Node node, ObjectNode to, String pointer) {
    if (node instanceof ScalarNode scalar) {
      switch (scalar.getValue()) {
        case "private" -> to.put("private", true);
        case "all day" -> to.put("allDay", true);
        default ->
            fault(node, "\"" + cut(scalar.getValue()) + "\" is no condition; private or all day");
      }
      return;
    }
    Map<String, Node> fields =
        fields(
            node,
            "all",
            "any",
            "none",
            "kind",
            "state",
            "tag",
            "team",
            "place",
            "role",
            "detail",
            "made by",
            "starts between");
    if (fields.size() > 1) {
      fault(node, "a condition names one thing; begin the next with a dash of its own");
    }
    fields.forEach((name, value) -> part(name, value, fields, to, pointer));
  }

  private void part(
      String name, Node value, Map<String, Node> fields, ObjectNode to, String pointer) {
    switch (name) {
      case "all", "any", "none" -> conditions(value, to.putArray(name), pointer + "/" + name);
      case "kind" -> constants(fields, name, KINDS, to, name, pointer);
      case "state" -> constants(fields, name, STATES, to, name, pointer);
      case "team" ->
          named(fields, name, to, name, world.crew().teams(), Team::name, t -> t.id().value());
      case "place" ->
          named(fields, name, to, name, world.placeList(), Place::name, p -> p.id().value());
      case "made by" ->
          named(
              fields, name, to, "madeBy", world.crew().people(), Person::name, p -> p.id().value());
      case "role" ->
          named(
              fields, name, to, name, world.roles(), Role::name, role -> (long) role.id().value());
      case "starts between" -> {
        ArrayNode times = to.putArray("startsBetween");
        places.put(pointer + "/startsBetween", value.getStartMark());
        scalars(value, name).forEach(one -> times.add(one.getValue()));
      }
      default -> copy(fields, name, to, name, pointer);
    }
  }

  private <T> void named(
      Map<String, Node> fields,
      String field,
      ObjectNode to,
      String as,
      java.util.Collection<T> all,
      Function<T, String> name,
      Function<T, Long> id) {
    Optional<String> said = scalar(fields, field);
    List<T> found =
        all.stream().filter(one -> name.apply(one).equalsIgnoreCase(said.orElse(""))).toList();
    if (said.isPresent() && found.size() != 1) {
      fault(
          fields.get(field),
          "\""
              + cut(said.get())
              + (found.isEmpty() ? "\" is nothing the house calls so" : "\" is the name of several")
              + "; give the name of one "
              + field.replace("made by", "person"));
    } else if (said.isPresent()) {
      to.put(as, id.apply(found.get(0)));
    }
  }

  private void target(Node node, ObjectNode to) {
    if (node instanceof ScalarNode scalar) {
      String name = scalar.getValue();
      if (name.equals("the place")) {
        to.put("thePlaces", true);
      } else if (name.equalsIgnoreCase("Master")) {
        to.put("master", true);
      } else {
        Optional<Calendar> calendar =
            world.calendars().all().stream().filter(c -> c.name().equals(name)).findFirst();
        if (calendar.isEmpty()) {
          fault(
              node,
              "\""
                  + cut(name)
                  + "\" is no calendar; the place, Master, a date list, a named calendar, or own calendars of: [Lead]");
        }
        calendar.ifPresent(one -> to.put("calendar", one.id().value()));
      }
      return;
    }
    Map<String, Node> fields = fields(node, "own calendars of", "calendars of the teams of");
    if (fields.size() > 1) {
      fault(node, "a target names one thing; begin the next with a dash of its own");
    }
    fields.forEach(
        (name, roles) -> {
          ArrayNode list = to.putArray(name.startsWith("own") ? "ownOf" : "teamsOf");
          for (ScalarNode one : scalars(roles, name)) {
            Optional<Role> role = role(one.getValue());
            if (role.isEmpty()) {
              fault(one, "\"" + cut(one.getValue()) + "\" is no role; one of " + roles());
            }
            role.map(Role::id).map(RoleId::value).ifPresent(list::add);
          }
        });
  }
}
