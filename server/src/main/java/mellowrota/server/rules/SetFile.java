package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;
import static mellowrota.server.rules.YamlForm.TEXT;
import static mellowrota.server.rules.YamlForm.fields;
import static mellowrota.server.rules.YamlForm.flag;
import static mellowrota.server.rules.YamlForm.inline;
import static mellowrota.server.rules.YamlForm.list;
import static mellowrota.server.rules.YamlForm.named;
import static mellowrota.server.rules.YamlForm.scalar;
import static mellowrota.server.rules.YamlForm.word;

import java.io.StringWriter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Role;
import mellowrota.core.sight.Wording;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Kind;
import mellowrota.core.work.State;
import mellowrota.server.platform.Problem;
import mellowrota.server.records.ForWords;
import mellowrota.server.rules.YamlForm.Field;
import mellowrota.server.rules.YamlForm.Spot;
import mellowrota.server.sight.ConditionTerm;
import mellowrota.server.sight.TargetTerm;
import mellowrota.server.sight.World;
import org.yaml.snakeyaml.DumperOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.Tag;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.BooleanNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;

/**
 * A set as a file that people read and write (YAML 1.1), names in place of numbers. What is wrong
 * is told by line and column; a part that the file leaves out stays as it is.
 */
final class SetFile {

  private static final int WIDTH = 100;

  /** Numbers of new wordings, only for the rules of the same file to name them by. */
  private static final long FRESH = 1_000_000;

  private static final Pattern REMINDER =
      Pattern.compile("(\\d{1,6}) (minutes?|hours?|working days?)", Pattern.CASE_INSENSITIVE);
  private static final JsonNodeFactory MAKE = JsonNodeFactory.instance;
  private static final StringNode NOTHING = StringNode.valueOf("");
  private static final Field OTHERWISE_A_CONDITION =
      Field.of(
          "",
          scalar(
              (file, node, spot) ->
                  file.fault(node, say("rules.is-not-a-condition"), node.getValue()),
              JsonNode::asString));

  private final World world;
  private final ObjectNode now;
  private final JsonMapper json;

  /** By name, those of the file where it has any. */
  private final Map<String, Long> wordings = new LinkedHashMap<>();

  private final Map<String, Long> ofTheHouse;

  /**
   * A file of a house.
   *
   * @param now the set as it stands, as {@link RuleSets#now} gives it
   */
  SetFile(World world, ObjectNode now, JsonMapper json) {
    this.world = world;
    this.now = now;
    this.json = json;
    now.get("wordings").forEach(w -> wordings.put(w.get("name").asString(), w.get("id").asLong()));
    ofTheHouse = Map.copyOf(wordings);
  }

  /** The set that a file says, as it is sent to be looked at. */
  ObjectNode read(String text) {
    YamlReading file = new YamlReading();
    ObjectNode set = now.deepCopy();
    set()
        .read(file, file.compose(text), new Spot("", ""))
        .map(ObjectNode.class::cast)
        .ifPresent(set::setAll);
    file.check();
    if (set.get("rules") != now.get("rules")) {
      number((ArrayNode) set.get("rules"));
    }
    try {
      SetInput.read(world, set);
    } catch (Problem problem) {
      throw file.told(problem);
    }
    return set;
  }

  /** The set as it stands, as text. */
  String write() {
    DumperOptions options = new DumperOptions();
    options.setWidth(WIDTH);
    options.setSplitLines(false);
    options.setIndicatorIndent(2);
    options.setIndent(4);
    options.setAllowUnicode(true);
    StringWriter text = new StringWriter();
    new Yaml(options).serialize(set().write(now), text);
    return "# Rules, wordings and details of "
        + world.house().name().replaceAll("[\\r\\n]", " ")
        + "\n"
        + text;
  }

  private YamlForm set() {
    YamlForm ofTheFile = list(wording());
    return fields(
        Field.of("details", list(detail())),
        Field.of(
            "wordings",
            YamlForm.of(
                (file, node, spot) -> {
                  wordings.clear();
                  return ofTheFile.read(file, node, spot);
                },
                ofTheFile::write)),
        Field.of(
                "usually",
                "usual",
                fields(
                    Arrays.stream(Kind.values())
                        .map(kind -> Field.of(FileWords.lower(kind.name()), kind.name(), worded()))
                        .toArray(Field[]::new)))
            .unless(MAKE.objectNode()),
        Field.of("titles fixed", "titlesFixed", TEXT),
        Field.of("rules", list(rule())));
  }

  private YamlForm worded() {
    return named(
        wordings.entrySet(), Map.Entry::getKey, Map.Entry::getValue, say("rules.is-not-a-wording"));
  }

  private YamlForm wording() {
    return fields(
            Field.of("name", TEXT),
            Field.of("title", TEXT).unless(NOTHING),
            Field.of("place", TEXT).unless(NOTHING),
            Field.of("text", TEXT).unless(NOTHING),
            Field.of("categories", inline(word(FileWords.of(Wording.Category.class))))
                .unless(MAKE.arrayNode()),
            Field.of("fixed", TEXT))
        .with(this::identify, UnaryOperator.identity());
  }

  /** A wording of the house keeps its number; another has one until it is kept. */
  private void identify(ObjectNode wording) {
    String name = wording.path("name").asString("");
    long id = ofTheHouse.getOrDefault(name, FRESH + wordings.size());
    wordings.put(name, id);
    wording.put("id", id);
    if (id >= FRESH) {
      wording.put("fresh", true);
    }
  }

  private YamlForm detail() {
    ArrayNode allKinds = MAKE.arrayNode();
    Arrays.stream(Kind.values()).map(Kind::name).forEach(allKinds::add);
    return fields(
            Field.of("name", "label", TEXT),
            Field.of("called", "key", TEXT),
            Field.of("for", forWhom()),
            Field.of("holds", "sort", word(FileWords.SORTS))
                .unless(StringNode.valueOf(DetailSort.TEXT.name())),
            Field.of("in", "unit", TEXT),
            Field.of("choices", inline(TEXT)).unless(MAKE.arrayNode()),
            Field.of("kinds", inline(word(FileWords.of(Kind.class)))).unless(allKinds),
            Field.of("while", "states", inline(word(FileWords.of(State.class))))
                .unless(MAKE.arrayNode()))
        .with(
            this::settle,
            detail ->
                isSettled(detail)
                    ? detail
                        .deepCopy()
                        .without(List.of("sort", "choices", "kinds", "states", "unit"))
                    : detail);
  }

  /** Whether its sort and its kinds are the house's, which no file says. */
  private static boolean isSettled(JsonNode detail) {
    return !detail.get("typed").asBoolean()
        || detail.path("key").asString("").equals(DetailKey.TITLE.name());
  }

  private void settle(ObjectNode detail) {
    String key = detail.path("key").asString("");
    detail.put("typed", true).put("own", DetailsInput.isOwn(new DetailKey(key)));
    for (JsonNode known : now.get("details")) {
      if (known.get("key").asString().equals(key)) {
        detail.set("typed", known.get("typed"));
        if (isSettled(known)) {
          detail.set("kinds", known.get("kinds"));
          detail.set("sort", known.get("sort"));
        }
      }
    }
  }

  private YamlForm forWhom() {
    Map<String, Long> readers = ForWords.capacities(world.roles());
    YamlForm listed =
        inline(
            named(
                readers.entrySet(),
                Map.Entry::getKey,
                Map.Entry::getValue,
                say(
                    "rules.is-not-a-group",
                    String.join(", ", ForWords.PRESETS.keySet()),
                    String.join(", ", readers.keySet()))));
    return YamlForm.of(
        (file, node, spot) ->
            Optional.of(node)
                .filter(ScalarNode.class::isInstance)
                .map(scalar -> ForWords.PRESETS.get(((ScalarNode) scalar).getValue()))
                .or(
                    () ->
                        listed
                            .read(file, node, spot)
                            .map(bits -> bits.valueStream().mapToLong(JsonNode::asLong))
                            .map(bits -> new ForSet(bits.reduce(0, (one, other) -> one | other))))
                .map(set -> json.valueToTree(ForSets.view(set))),
        value -> {
          ForSet set = ForSets.of(json.treeToValue(value, ForSets.ForView.class));
          ArrayNode bits = MAKE.arrayNode();
          readers.values().stream().filter(bit -> (set.bits() & bit) != 0).forEach(bits::add);
          return ForWords.PRESETS.entrySet().stream()
              .filter(preset -> preset.getValue().equals(set))
              .findFirst()
              .map(preset -> YamlForm.text(preset.getKey()))
              .orElseGet(() -> listed.write(bits));
        });
  }

  private YamlForm rule() {
    YamlForm target = target();
    return fields(
        Field.of("note", TEXT),
        Field.of("off", "on", OFF).unless(BooleanNode.TRUE),
        Field.of("when", when()),
        Field.of("lands on", "lands", YamlForm.of(inline(target)::read, list(target)::write)),
        Field.of("as", word(FileWords.SHAPES)),
        Field.of("worded", "wording", worded()),
        Field.of("shown as", "busy", flag("busy", "free")),
        Field.of("reminders", inline(reminder())),
        Field.of("invites", "attendees", word(FileWords.ATTENDEES)),
        Field.of("release", "afterYes", flag("after approval", "automatically")),
        Field.of("when done", "whenDone", word(FileWords.WHEN_DONE)));
  }

  private static final YamlForm OFF =
      YamlForm.of(
          (file, node, spot) ->
              TEXT.read(file, node, spot)
                  .map(
                      said ->
                          BooleanNode.valueOf(!List.of("true", "yes").contains(said.asString()))),
          value -> new ScalarNode(Tag.BOOL, "true", null, null, DumperOptions.ScalarStyle.PLAIN));

  private static YamlForm reminder() {
    return scalar(
        (file, node, spot) -> {
          Matcher said = REMINDER.matcher(node.getValue().strip());
          if (!said.matches()) {
            return file.fault(node, say("rules.is-not-a-reminder"), node.getValue());
          }
          String unit = said.group(2).endsWith("s") ? said.group(2) : said.group(2) + "s";
          return Optional.of(
              MAKE.objectNode()
                  .put("amount", Integer.parseInt(said.group(1)))
                  .put("unit", FileWords.constant(FileWords.UNITS, unit).orElseThrow()));
        },
        value ->
            value.get("amount").asString()
                + " "
                + FileWords.UNITS.get(value.get("unit").asString()));
  }

  private YamlForm when() {
    YamlForm conditions = list(condition());
    return YamlForm.of(
        (file, node, spot) ->
            conditions
                .read(file, node, spot.of("all", "when"))
                .map(all -> MAKE.objectNode().set("all", all)),
        value ->
            conditions.write(value.has("all") ? value.get("all") : MAKE.arrayNode().add(value)));
  }

  private YamlForm condition() {
    Map<String, String> flags = new LinkedHashMap<>();
    List<Field> others = new ArrayList<>();
    for (ConditionTerm term : ConditionTerm.values()) {
      if (term.value() == ConditionTerm.Value.FLAG) {
        flags.put(term.field(), term.words());
      } else {
        others.add(Field.of(term.words(), term.field(), value(term)));
      }
    }
    return YamlForm.oneOf(flags, OTHERWISE_A_CONDITION, others.toArray(Field[]::new));
  }

  private YamlForm value(ConditionTerm term) {
    return switch (term.value()) {
      case PARTS -> list(YamlForm.later(this::condition));
      case CONSTANTS -> inline(word(FileWords.of(term.constants())));
      case NUMBER -> {
        String none = say("rules.does-not-exist-here", term.thing().word());
        yield named(
            term.thing().names(world).entrySet(), Map.Entry::getValue, Map.Entry::getKey, none);
      }
      case HOURS, COMPARED -> inline(TEXT);
      default -> TEXT;
    };
  }

  private YamlForm target() {
    Map<String, String> flags = new LinkedHashMap<>();
    List<Field> others = new ArrayList<>();
    for (TargetTerm term : TargetTerm.values()) {
      switch (term.value()) {
        case FLAG -> flags.put(term.field(), term.words());
        case ROLES -> others.add(Field.of(term.words(), term.field(), roles()));
        default -> {}
      }
    }
    return YamlForm.oneOf(flags, calendar(), others.toArray(Field[]::new));
  }

  private YamlForm roles() {
    String known = world.roles().stream().map(Role::name).collect(Collectors.joining(", "));
    return inline(
        named(
            world.roles(),
            Role::name,
            role -> role.id().value(),
            say("rules.is-not-a-role", known)));
  }

  /** One needs no more than its name. */
  private Field calendar() {
    YamlForm form =
        named(
            world.calendars().all(),
            calendar -> calendar.name(),
            calendar -> calendar.id().value(),
            say("rules.is-not-a-calendar"));
    return Field.of(TargetTerm.CALENDAR.words(), TargetTerm.CALENDAR.field(), form);
  }

  /** A rule that says what one of the house says is that one; the others are new. */
  private void number(ArrayNode rules) {
    Map<String, Long> known = new HashMap<>();
    now.get("rules").forEach(rule -> known.putIfAbsent(plain(rule), rule.get("id").asLong()));
    for (JsonNode rule : rules) {
      Long id = known.remove(plain(rule));
      if (id != null) {
        ((ObjectNode) rule).put("id", id);
      }
    }
  }

  /** What it does, whatever the order in which it says so. */
  private static String plain(JsonNode rule) {
    ObjectNode does = ((ObjectNode) rule).deepCopy();
    does.remove(List.of("id", "on", "note"));
    return sorted(does);
  }

  private static String sorted(JsonNode node) {
    if (node.isArray()) {
      return node.valueStream().map(SetFile::sorted).toList().toString();
    }
    return node.isObject()
        ? node.propertyStream()
            .collect(
                Collectors.toMap(
                    Map.Entry::getKey, e -> sorted(e.getValue()), (a, b) -> a, TreeMap::new))
            .toString()
        : node.toString();
  }
}
