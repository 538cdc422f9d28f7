package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.function.ToLongFunction;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.yaml.snakeyaml.DumperOptions;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import org.yaml.snakeyaml.nodes.Tag;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.BooleanNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;

/**
 * How a thing stands in a file that people write (YAML 1.1) and in the API: one description, by
 * which it is read and written.
 */
interface YamlForm {

  /** What stands in a file: the pointer of what is made of it, and what the file calls it. */
  record Spot(String pointer, String name) {
    Spot of(Object part, String name) {
      return new Spot(pointer + "/" + part, name);
    }
  }

  /** Makes of a node what the API has for it; empty where it cannot, which is told. */
  interface Reader<N extends Node> {
    Optional<JsonNode> read(YamlReading file, N node, Spot spot);
  }

  Optional<JsonNode> read(YamlReading file, Node node, Spot spot);

  Node write(JsonNode value);

  /** The same, where the API has more of it than the file says, which is not written. */
  default YamlForm with(Consumer<ObjectNode> more, UnaryOperator<ObjectNode> less) {
    return of(
        (file, node, spot) -> {
          Optional<JsonNode> made = read(file, node, spot);
          made.ifPresent(said -> more.accept((ObjectNode) said));
          return made;
        },
        value -> write(less.apply((ObjectNode) value)));
  }

  static YamlForm of(Reader<Node> reader, Function<JsonNode, Node> writer) {
    return new YamlForm() {
      @Override
      public Optional<JsonNode> read(YamlReading file, Node node, Spot spot) {
        return reader.read(file, node, spot);
      }

      @Override
      public Node write(JsonNode value) {
        return writer.apply(value);
      }
    };
  }

  /** For what holds others of its own sort. */
  static YamlForm later(Supplier<YamlForm> form) {
    return of((file, node, spot) -> form.get().read(file, node, spot), v -> form.get().write(v));
  }

  /** One text. */
  static YamlForm scalar(Reader<ScalarNode> reader, Function<JsonNode, String> writer) {
    return of(
        (file, node, spot) ->
            node instanceof ScalarNode scalar
                ? reader.read(file, scalar, spot)
                : file.fault(node, say("rules.must-be-one-text", spot.name())),
        value -> text(writer.apply(value)));
  }

  YamlForm TEXT =
      scalar(
          (file, node, spot) -> Optional.of(StringNode.valueOf(node.getValue())),
          JsonNode::asString);

  /** One of some words, which the API calls by constants. */
  static YamlForm word(Map<String, String> words) {
    return scalar(
        (file, node, spot) -> {
          Optional<String> constant = FileWords.constant(words, node.getValue());
          if (constant.isEmpty()) {
            String all = words.values().stream().sorted().collect(Collectors.joining(", "));
            return file.fault(node, say("rules.is-not-a-one", spot.name(), all), node.getValue());
          }
          return constant.map(StringNode::valueOf);
        },
        value -> words.get(value.asString()));
  }

  /** One word for yes, another for no. */
  static YamlForm flag(String yes, String no) {
    YamlForm word = word(Map.of("true", yes, "false", no));
    return of(
        (file, node, spot) ->
            word.read(file, node, spot)
                .map(said -> BooleanNode.valueOf(Boolean.parseBoolean(said.asString()))),
        value -> text(value.asBoolean() ? yes : no));
  }

  /**
   * The name of one of some things, which the API calls by numbers.
   *
   * @param none what is wrong with the name of none of them
   */
  static <T> YamlForm named(
      Collection<T> all, Function<T, String> name, ToLongFunction<T> id, String none) {
    return scalar(
        (file, node, spot) -> {
          List<T> called =
              all.stream().filter(t -> name.apply(t).equalsIgnoreCase(node.getValue())).toList();
          return called.size() == 1
              ? Optional.of(JsonNodeFactory.instance.numberNode(id.applyAsLong(called.get(0))))
              : file.fault(
                  node, called.isEmpty() ? none : say("rules.is-the-name-of"), node.getValue());
        },
        value ->
            all.stream()
                .filter(t -> id.applyAsLong(t) == value.asLong())
                .map(name)
                .findFirst()
                .orElse(""));
  }

  /** A list, each of its items beginning with a dash. */
  static YamlForm list(YamlForm item) {
    return of(
        (file, node, spot) ->
            node instanceof SequenceNode list
                ? items(file, list.getValue(), item, spot)
                : file.fault(node, say("rules.must-be-a-list", spot.name())),
        value ->
            sequence(
                value,
                item,
                value.isEmpty() ? DumperOptions.FlowStyle.FLOW : DumperOptions.FlowStyle.BLOCK));
  }

  /** A list within a line; one alone needs no brackets. */
  static YamlForm inline(YamlForm item) {
    return of(
        (file, node, spot) -> items(file, itemsOf(node), item, spot),
        value -> sequence(value, item, DumperOptions.FlowStyle.FLOW));
  }

  static List<Node> itemsOf(Node node) {
    return node instanceof SequenceNode list ? list.getValue() : List.of(node);
  }

  private static Optional<JsonNode> items(
      YamlReading file, List<Node> nodes, YamlForm item, Spot spot) {
    ArrayNode made = JsonNodeFactory.instance.arrayNode();
    for (Node node : nodes) {
      Spot place = spot.of(made.size(), spot.name());
      file.stands(place, node);
      item.read(file, node, place).ifPresent(made::add);
    }
    return Optional.of(made);
  }

  private static Node sequence(JsonNode value, YamlForm item, DumperOptions.FlowStyle style) {
    return new SequenceNode(Tag.SEQ, value.valueStream().map(item::write).toList(), style);
  }

  static Node text(String value) {
    DumperOptions.ScalarStyle style =
        value.contains("\n") ? DumperOptions.ScalarStyle.LITERAL : DumperOptions.ScalarStyle.PLAIN;
    return new ScalarNode(Tag.STR, value, null, null, style);
  }

  /**
   * A name with a value.
   *
   * @param as what the API calls it
   * @param unsaid what holds where the file does not say it; that is not written either
   */
  record Field(String name, String as, YamlForm form, Optional<JsonNode> unsaid) {

    static Field of(String name, String as, YamlForm form) {
      return new Field(name, as, form, Optional.empty());
    }

    static Field of(String name, YamlForm form) {
      return of(name, name, form);
    }

    Field unless(JsonNode said) {
      return new Field(name, as, form, Optional.of(said));
    }
  }

  /** Names with their values, each at most once. */
  static YamlForm fields(Field... fields) {
    return of(
        (file, node, spot) -> Optional.of(read(fields, file, node, spot)),
        value -> {
          List<NodeTuple> tuples = new ArrayList<>();
          for (Field field : fields) {
            JsonNode said = value.get(field.as());
            if (said != null && !field.unsaid().equals(Optional.of(said))) {
              tuples.add(new NodeTuple(text(field.name()), field.form().write(said)));
            }
          }
          return new MappingNode(Tag.MAP, tuples, DumperOptions.FlowStyle.BLOCK);
        });
  }

  private static ObjectNode read(Field[] fields, YamlReading file, Node node, Spot spot) {
    ObjectNode made = JsonNodeFactory.instance.objectNode();
    Map<String, Node> said = file.fields(node, Arrays.stream(fields).map(Field::name).toList());
    for (Field field : fields) {
      Node value = said.get(field.name());
      if (value == null) {
        field.unsaid().ifPresent(usual -> made.set(field.as(), usual.deepCopy()));
      } else {
        Spot place = spot.of(field.as(), field.name());
        file.stands(place, value);
        field.form().read(file, value, place).ifPresent(v -> made.set(field.as(), v));
      }
    }
    return made;
  }

  /**
   * One name with its value, or a word alone.
   *
   * @param words that stand alone, with what the API calls them
   * @param alone what another text that stands alone is
   */
  static YamlForm oneOf(Map<String, String> words, Field alone, Field... fields) {
    YamlForm named = fields(fields);
    return of(
        (file, node, spot) -> {
          if (node instanceof ScalarNode scalar) {
            return Optional.of(read(words, alone, file, scalar, spot));
          }
          Optional<JsonNode> made = named.read(file, node, spot);
          return made.filter(one -> one.size() > 1).isPresent()
              ? file.fault(node, say("rules.this-is-one-item"))
              : made;
        },
        value -> {
          String name = value.propertyNames().iterator().next();
          return words.containsKey(name)
              ? text(words.get(name))
              : name.equals(alone.as()) ? alone.form().write(value.get(name)) : named.write(value);
        });
  }

  private static ObjectNode read(
      Map<String, String> words, Field alone, YamlReading file, ScalarNode node, Spot spot) {
    ObjectNode made = JsonNodeFactory.instance.objectNode();
    FileWords.constant(words, node.getValue())
        .ifPresentOrElse(
            flag -> made.put(flag, true),
            () -> alone.form().read(file, node, spot).ifPresent(v -> made.set(alone.as(), v)));
    return made;
  }
}
