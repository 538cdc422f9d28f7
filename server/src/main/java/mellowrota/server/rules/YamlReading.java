package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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

/** One file being read: what is wrong in it, by line and column, and where everything stands. */
final class YamlReading {

  private static final int MOST_CHARACTERS = 1 << 20;
  private static final int DEEPEST = 30;
  private static final int LONGEST_SAID_AGAIN = 40;

  private final List<Problem.Fault> faults = new ArrayList<>();
  private final Map<String, Mark> places = new HashMap<>();

  Node compose(String text) {
    LoaderOptions options = new LoaderOptions();
    options.setAllowDuplicateKeys(false);
    options.setMaxAliasesForCollections(0);
    options.setNestingDepthLimit(DEEPEST);
    options.setCodePointLimit(MOST_CHARACTERS);
    try {
      Node node = new Yaml(options).compose(new StringReader(text));
      if (node == null) {
        throw Problem.fault("line 1, column 1", say("rules.the-file-is-empty"));
      }
      places.put("", node.getStartMark());
      return node;
    } catch (MarkedYAMLException unreadable) {
      String problem =
          Optional.ofNullable(unreadable.getProblem()).orElse(say("rules.cannot-be-read"));
      throw Problem.fault(at(unreadable.getProblemMark()), say("rules.this-is-not-yaml", problem));
    } catch (YAMLException unreadable) {
      throw Problem.fault("line 1, column 1", say("rules.write-it-in-a", unreadable.getMessage()));
    }
  }

  private static String at(Mark mark) {
    return mark == null
        ? "line 1, column 1"
        : "line " + (mark.getLine() + 1) + ", column " + (mark.getColumn() + 1);
  }

  /** Notes what is wrong with a node, of which nothing is made then. */
  <T> Optional<T> fault(Node node, String message) {
    faults.add(new Problem.Fault(at(node.getStartMark()), message));
    return Optional.empty();
  }

  /** Notes what is wrong with something said, which is said again. */
  <T> Optional<T> fault(Node node, String message, String said) {
    boolean isLong = said.length() > LONGEST_SAID_AGAIN;
    String again = isLong ? said.substring(0, LONGEST_SAID_AGAIN) + "…" : said;
    return fault(node, "\"" + again + "\" " + message);
  }

  /** Notes where something stands. */
  void stands(YamlForm.Spot spot, Node node) {
    places.put(spot.pointer(), node.getStartMark());
  }

  /** Tells all that is wrong, if anything is. */
  void check() {
    if (!faults.isEmpty()) {
      throw Problem.faults(faults);
    }
  }

  /** What was found wrong in what was made of the file, told where it stands in the file. */
  Problem told(Problem problem) {
    if (!(problem.more().get("faults") instanceof List<?> wrong)) {
      return problem;
    }
    for (Object one : wrong) {
      Problem.Fault fault = (Problem.Fault) one;
      faults.add(new Problem.Fault(at(place(fault.pointer())), words(fault)));
    }
    return Problem.faults(faults);
  }

  /** The place of what a pointer names, or of the nearest that holds it. */
  private Mark place(String pointer) {
    for (String at = pointer; ; at = at.substring(0, Math.max(0, at.lastIndexOf('/')))) {
      if (places.containsKey(at) || at.isEmpty()) {
        return places.get(at);
      }
    }
  }

  private static String words(Problem.Fault fault) {
    String last = fault.pointer().substring(fault.pointer().lastIndexOf('/') + 1);
    return last.matches("\\d+") ? "this " + fault.message() : last + " " + fault.message();
  }

  /** The values of a mapping by name; others than these are faults. */
  Map<String, Node> fields(Node node, List<String> known) {
    Map<String, Node> values = new LinkedHashMap<>();
    if (!(node instanceof MappingNode map)) {
      fault(node, say("rules.must-be-a-list-of", String.join(", ", known)));
      return values;
    }
    for (NodeTuple tuple : map.getValue()) {
      String key = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "";
      if (!known.contains(key)) {
        fault(tuple.getKeyNode(), say("rules.is-not-a-name", String.join(", ", known)), key);
      } else if (values.put(key, tuple.getValueNode()) != null) {
        fault(tuple.getKeyNode(), say("common.is-listed-twice"), key);
      }
    }
    return values;
  }
}
