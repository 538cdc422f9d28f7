package mellowrota.server.rules;

import java.io.StringWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.LongFunction;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.people.Capacities;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Role;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.Team;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.Kind;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.server.sight.World;
import org.yaml.snakeyaml.DumperOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import org.yaml.snakeyaml.nodes.Tag;
import tools.jackson.databind.JsonNode;

/** Writes a set as a file that people read and write (YAML 1.1), with names in place of numbers. */
final class SetFileWriter {

  private static final int WIDTH = 100;

  private final World world;

  private SetFileWriter(World world) {
    this.world = world;
  }

  /** The set, as {@link Sets#now} gives it, as text. */
  static String write(World world, JsonNode set) {
    SetFileWriter writer = new SetFileWriter(world);
    MappingNode all = map();
    put(all, "details", list(set.get("details"), writer::detail));
    put(all, "wordings", list(set.get("wordings"), writer::wording));
    MappingNode usual = map();
    for (Kind kind : Kind.values()) {
      if (set.get("usual").has(kind.name())) {
        long id = set.get("usual").get(kind.name()).asLong();
        put(usual, FileWords.lower(kind.name()), text(wordingName(set, id)));
      }
    }
    if (!usual.getValue().isEmpty()) {
      put(all, "usually", usual);
    }
    if (set.has("titlesFixed")) {
      put(all, "titles fixed", text(set.get("titlesFixed").asString()));
    }
    put(all, "rules", list(set.get("rules"), rule -> writer.rule(set, rule)));
    DumperOptions options = new DumperOptions();
    options.setWidth(WIDTH);
    options.setSplitLines(false);
    options.setIndicatorIndent(2);
    options.setIndent(4);
    options.setAllowUnicode(true);
    StringWriter text = new StringWriter();
    new Yaml(options).serialize(all, text);
    return "# Rules, wordings and details of "
        + world.house().name().replaceAll("[\\r\\n]", " ")
        + "\n"
        + text;
  }

  private static String wordingName(JsonNode set, long id) {
    for (JsonNode one : set.get("wordings")) {
      if (one.get("id").asLong() == id) {
        return one.get("name").asString();
      }
    }
    return "";
  }

  private Node detail(JsonNode detail) {
    MappingNode map = map();
    put(map, "name", text(detail.get("label").asString()));
    put(map, "called", text(detail.get("key").asString()));
    put(map, "for", forWhom(detail.get("for")));
    if (detail.get("typed").asBoolean() && !detail.get("key").asString().equals("title")) {
      put(map, "holds", text(FileWords.SORTS.get(detail.get("sort").asString())));
      if (detail.get("choices").size() > 0) {
        put(map, "choices", inline(detail.get("choices"), JsonNode::asString));
      }
      if (detail.get("kinds").size() < Kind.values().length) {
        put(map, "kinds", inline(detail.get("kinds"), SetFileWriter::lower));
      }
      if (detail.get("states").size() > 0) {
        put(map, "while", inline(detail.get("states"), SetFileWriter::lower));
      }
    }
    return map;
  }

  private Node forWhom(JsonNode sent) {
    long bits = 0;
    List<String> names = new ArrayList<>();
    boolean everyone = sent.has("everyone");
    for (String part : List.of("office", "crew", "outside")) {
      if (sent.has(part) && sent.get(part).asBoolean()) {
        names.add(part);
        bits |=
            part.equals("office")
                ? Capacities.OFFICE
                : part.equals("crew") ? Capacities.CREW : Capacities.OUTSIDE;
      }
    }
    if (sent.has("roles")) {
      for (JsonNode role : sent.get("roles")) {
        names.add(role(role.asInt()));
        bits |= Capacities.role(RoleId.of(role.asInt()));
      }
    }
    ForSet set = everyone ? ForSet.EVERYONE : new ForSet(bits);
    for (Map.Entry<String, ForSet> preset : FileWords.PRESETS.entrySet()) {
      if (preset.getValue().equals(set)) {
        return text(preset.getKey());
      }
    }
    return flow(names.stream().map(SetFileWriter::text).toList());
  }

  private Node wording(JsonNode wording) {
    MappingNode map = map();
    put(map, "name", text(wording.get("name").asString()));
    for (String part : List.of("title", "place", "text")) {
      if (!wording.get(part).asString().isEmpty()) {
        put(map, part, text(wording.get(part).asString()));
      }
    }
    if (wording.get("categories").size() > 0) {
      put(map, "categories", inline(wording.get("categories"), SetFileWriter::lower));
    }
    if (wording.has("fixed")) {
      put(map, "fixed", text(wording.get("fixed").asString()));
    }
    return map;
  }

  private Node rule(JsonNode set, JsonNode rule) {
    MappingNode map = map();
    if (rule.has("note")) {
      put(map, "note", text(rule.get("note").asString()));
    }
    if (!rule.get("on").asBoolean()) {
      put(map, "off", plain("true"));
    }
    JsonNode when = rule.get("when");
    put(
        map,
        "when",
        when.has("all")
            ? list(when.get("all"), this::condition)
            : sequence(List.of(condition(when))));
    put(map, "lands on", list(rule.get("lands"), this::target));
    put(map, "as", text(FileWords.SHAPES.get(rule.get("as").asString())));
    if (rule.has("wording")) {
      put(map, "worded", text(wordingName(set, rule.get("wording").asLong())));
    }
    if (rule.has("busy")) {
      put(map, "shown as", text(rule.get("busy").asBoolean() ? "busy" : "free"));
    }
    if (rule.has("reminders")) {
      put(
          map,
          "reminders",
          inline(
              rule.get("reminders"),
              one ->
                  one.get("amount").asString()
                      + " "
                      + FileWords.UNITS.get(one.get("unit").asString())));
    }
    if (rule.has("attendees")) {
      put(map, "invites", text(FileWords.ATTENDEES.get(rule.get("attendees").asString())));
    }
    if (rule.has("afterYes") && rule.get("afterYes").asBoolean()) {
      put(map, "release", text(FileWords.RELEASE.get("true")));
    }
    put(map, "when done", text(FileWords.WHEN_DONE.get(rule.get("whenDone").asString())));
    return map;
  }

  private Node condition(JsonNode condition) {
    String name = condition.propertyNames().iterator().next();
    JsonNode value = condition.get(name);
    return switch (name) {
      case "all", "any", "none" -> pair(name, list(value, this::condition));
      case "kind", "state" -> pair(name, inline(value, SetFileWriter::lower));
      case "team" ->
          pair(name, named(value, id -> world.crew().team(TeamId.of(id)).map(Team::name)));
      case "place" ->
          pair(name, named(value, id -> world.places().find(PlaceId.of(id)).map(Place::name)));
      case "role" -> pair(name, text(role(value.asInt())));
      case "madeBy" ->
          pair(
              "made by",
              named(value, id -> world.crew().person(PersonId.of(id)).map(Person::name)));
      case "startsBetween" -> pair("starts between", inline(value, JsonNode::asString));
      case "private" -> text("private");
      case "allDay" -> text("all day");
      default -> pair(name, text(value.asString()));
    };
  }

  private Node target(JsonNode target) {
    String name = target.propertyNames().iterator().next();
    JsonNode value = target.get(name);
    return switch (name) {
      case "ownOf" -> pair("own calendars of", inline(value, role -> role(role.asInt())));
      case "teamsOf" -> pair("calendars of the teams of", inline(value, r -> role(r.asInt())));
      case "thePlaces" -> text("the place");
      case "master" -> text("Master");
      default -> named(value, id -> world.calendars().find(CalendarId.of(id)).map(Calendar::name));
    };
  }

  private String role(int number) {
    return world.role(RoleId.of(number)).map(Role::name).orElse("");
  }

  private static Node named(JsonNode id, LongFunction<java.util.Optional<String>> name) {
    return text(name.apply(id.asLong()).orElse(""));
  }

  private static String lower(JsonNode constant) {
    return FileWords.lower(constant.asString());
  }

  private static MappingNode map() {
    return new MappingNode(Tag.MAP, new ArrayList<>(), DumperOptions.FlowStyle.BLOCK);
  }

  private static Node pair(String key, Node value) {
    MappingNode map = map();
    put(map, key, value);
    return map;
  }

  private static void put(MappingNode map, String key, Node value) {
    map.getValue().add(new NodeTuple(text(key), value));
  }

  private static Node list(JsonNode items, java.util.function.Function<JsonNode, Node> write) {
    List<Node> found = new ArrayList<>();
    items.forEach(item -> found.add(write.apply(item)));
    return sequence(found);
  }

  private static Node sequence(List<Node> items) {
    return new SequenceNode(
        Tag.SEQ,
        items,
        items.isEmpty() ? DumperOptions.FlowStyle.FLOW : DumperOptions.FlowStyle.BLOCK);
  }

  private static Node inline(JsonNode items, java.util.function.Function<JsonNode, String> word) {
    List<Node> found = new ArrayList<>();
    items.forEach(item -> found.add(text(word.apply(item))));
    return flow(found);
  }

  private static Node flow(List<Node> items) {
    return new SequenceNode(Tag.SEQ, items, DumperOptions.FlowStyle.FLOW);
  }

  private static Node text(String value) {
    DumperOptions.ScalarStyle style =
        value.contains("\n") ? DumperOptions.ScalarStyle.LITERAL : DumperOptions.ScalarStyle.PLAIN;
    return new ScalarNode(Tag.STR, value, null, null, style);
  }

  private static Node plain(String value) {
    return new ScalarNode(Tag.BOOL, value, null, null, DumperOptions.ScalarStyle.PLAIN);
  }
}
