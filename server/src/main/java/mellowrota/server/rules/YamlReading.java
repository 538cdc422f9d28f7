package mellowrota.server.rules;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mellowrota.server.platform.Problem;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.error.Mark;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.yaml.snakeyaml.error.YAMLException;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Reads names, values and lists of a file that people write, and collects what is wrong with its
 * place: by line and column, and by the pointer of what was made of it.
 */
class YamlReading {

  private static final int MOST_CHARACTERS = 1 << 20;
  private static final int DEEPEST = 30;

  final List<Problem.Fault> faults = new ArrayList<>();
  final Map<String, Mark> places = new HashMap<>();

  Node compose(String text) {
    LoaderOptions options = new LoaderOptions();
    options.setAllowDuplicateKeys(false);
    options.setMaxAliasesForCollections(0);
    options.setNestingDepthLimit(DEEPEST);
    options.setCodePointLimit(MOST_CHARACTERS);
    try {
      Node node = new Yaml(options).compose(new java.io.StringReader(text));
      if (node == null) {
        throw Problem.fault("line 1, column 1", "there is nothing in this file");
      }
      return node;
    } catch (MarkedYAMLException unreadable) {
      String problem = Optional.ofNullable(unreadable.getProblem()).orElse("cannot be read");
      throw Problem.fault(at(unreadable.getProblemMark()), problem + "; this is no YAML there");
    } catch (YAMLException unreadable) {
      throw Problem.fault("line 1, column 1", unreadable.getMessage() + "; write it plainer");
    }
  }

  static String at(Mark mark) {
    return mark == null
        ? "line 1, column 1"
        : "line " + (mark.getLine() + 1) + ", column " + (mark.getColumn() + 1);
  }

  void fault(Node node, String message) {
    faults.add(new Problem.Fault(at(node.getStartMark()), message));
  }

  /** The place of what a pointer names, or of the nearest that holds it. */
  Mark place(String pointer) {
    for (String at = pointer; ; at = at.substring(0, Math.max(0, at.lastIndexOf('/')))) {
      if (places.containsKey(at) || at.isEmpty()) {
        return places.get(at);
      }
    }
  }

  interface ItemReader {
    void read(Node node, ObjectNode item, String pointer);
  }

  void list(Map<String, Node> parts, String name, String field, ObjectNode set, ItemReader reader) {
    Node node = parts.get(name);
    if (node == null) {
      return;
    }
    places.put("/" + field, node.getStartMark());
    ArrayNode items = set.putArray(field);
    if (!(node instanceof SequenceNode sequence)) {
      fault(node, name + " is no list; begin each with a dash");
      return;
    }
    for (Node item : sequence.getValue()) {
      String pointer = "/" + field + "/" + items.size();
      places.put(pointer, item.getStartMark());
      reader.read(item, items.addObject(), pointer);
    }
  }

  /** The fields of a mapping by name; others than these are faults. */
  Map<String, Node> fields(Node node, String... known) {
    Map<String, Node> found = new LinkedHashMap<>();
    if (!(node instanceof MappingNode map)) {
      fault(node, "is no list of names and values; the names are " + String.join(", ", known));
      return found;
    }
    for (NodeTuple tuple : map.getValue()) {
      String key = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "";
      if (!List.of(known).contains(key)) {
        fault(
            tuple.getKeyNode(),
            "\"" + cut(key) + "\" is no name here; one of " + String.join(", ", known));
      } else if (found.put(key, tuple.getValueNode()) != null) {
        fault(tuple.getKeyNode(), "\"" + key + "\" stands twice");
      }
    }
    return found;
  }

  static String cut(String text) {
    return text.length() > 40 ? text.substring(0, 40) + "…" : text;
  }

  Optional<String> scalar(Map<String, Node> fields, String name) {
    Node node = fields.get(name);
    if (node == null) {
      return Optional.empty();
    }
    if (node instanceof ScalarNode scalar) {
      return Optional.of(scalar.getValue());
    }
    fault(node, name + " is one text, not a list");
    return Optional.empty();
  }

  void copy(Map<String, Node> fields, String name, ObjectNode to, String field, String at) {
    if (fields.containsKey(name)) {
      places.put(at + "/" + field, fields.get(name).getStartMark());
      scalar(fields, name).ifPresent(text -> to.put(field, text));
    }
  }

  List<ScalarNode> scalars(Node node, String what) {
    List<ScalarNode> found = new ArrayList<>();
    List<Node> items = node instanceof SequenceNode list ? list.getValue() : List.of(node);
    for (Node item : items) {
      if (item instanceof ScalarNode scalar) {
        found.add(scalar);
      } else {
        fault(item, what + " is a list of words, such as [one, another]");
      }
    }
    return found;
  }

  void constants(
      Map<String, Node> fields,
      String name,
      Map<String, String> words,
      ObjectNode to,
      String field,
      String pointer) {
    if (fields.containsKey(name)) {
      places.put(pointer + "/" + field, fields.get(name).getStartMark());
      ArrayNode list = to.putArray(field);
      for (ScalarNode one : scalars(fields.get(name), name)) {
        constant(one, words, name).ifPresent(list::add);
      }
    }
  }

  Optional<String> constant(ScalarNode node, Map<String, String> words, String what) {
    Optional<String> found = FileWords.constant(words, node.getValue());
    if (found.isEmpty()) {
      String all = words.values().stream().sorted().collect(Collectors.joining(", "));
      fault(node, "\"" + cut(node.getValue()) + "\" is no " + what + "; one of " + all);
    }
    return found;
  }

  void one(
      Map<String, Node> fields,
      String name,
      Map<String, String> words,
      ObjectNode to,
      String field,
      String pointer) {
    Node node = fields.get(name);
    if (node != null) {
      places.put(pointer + "/" + field, node.getStartMark());
      if (node instanceof ScalarNode scalar) {
        constant(scalar, words, name).ifPresent(value -> to.put(field, value));
      } else {
        fault(node, name + " is one of " + String.join(", ", words.values()));
      }
    }
  }

  static <E extends Enum<E>> Map<String, String> words(Class<E> type) {
    return Arrays.stream(type.getEnumConstants())
        .collect(Collectors.toMap(Enum::name, one -> FileWords.lower(one.name())));
  }

  static String words(Problem.Fault fault) {
    String last = fault.pointer().substring(fault.pointer().lastIndexOf('/') + 1);
    return last.matches("\\d+") ? "this " + fault.message() : last + " " + fault.message();
  }
}
