package mellowrota.server.demo;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.TreeMap;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.deadline.Method;
import mellowrota.core.deadline.Name;
import mellowrota.core.deadline.Unit;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.RecordId;
import mellowrota.server.deadlines.Chains;
import mellowrota.server.deadlines.DeadlineSets;
import mellowrota.server.sight.Worlds;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The demo's chains of deadlines, and the sets that were made from them. */
@Component
@RequiredArgsConstructor
class DemoDeadlines {

  private final Chains chains;
  private final DeadlineSets sets;
  private final Worlds worlds;
  private final JsonMapper json;

  /**
   * Lays them.
   *
   * @param works records by title
   */
  void lay(
      JsonNode world,
      PersonId coordinator,
      Map<String, Long> places,
      Map<String, RecordId> works,
      LocalDate today) {
    List<Chains.KeptMethod> methods = new ArrayList<>();
    for (JsonNode one : world.get("methods")) {
      Unit unit = Unit.valueOf(one.get("unit").asString());
      methods.add(
          new Chains.KeptMethod(
              OptionalLong.empty(),
              new Method(Name.of(one.get("name").asString()), one.get("number").asInt(), unit)));
    }
    chains.setMethods(coordinator, methods);
    Map<String, Long> known = new TreeMap<>();
    for (JsonNode one : world.get("chains")) {
      String text =
          one.valueStream().map(JsonNode::asString).collect(Collectors.joining("\n", "", "\n"));
      String name = text.lines().filter(it -> it.startsWith("chain: ")).findFirst().orElseThrow();
      known.put(name.substring(7), chains.add(worlds.now(), coordinator, text));
    }
    for (JsonNode one : world.get("sets")) {
      ObjectNode body = json.createObjectNode();
      ObjectNode set = body.putArray("sets").addObject();
      set.put("chain", known.get(one.get("chain").asString()));
      if (one.has("work")) {
        set.put("record", works.get(one.get("work").asString()).value());
        set.putObject("follows").put("what", "BEGINS");
      }
      if (one.has("place")) {
        set.put("place", places.get(one.get("place").asString()));
      }
      if (one.has("key")) {
        keyDate(set, one.get("key"), today);
      }
      if (one.has("method")) {
        set.set("method", one.get("method"));
      }
      ArrayNode answers = set.putArray("answers");
      one.path("answers")
          .properties()
          .forEach(
              answer ->
                  answers
                      .addObject()
                      .put("question", answer.getKey())
                      .set("yes", answer.getValue()));
      long made = sets.make(coordinator, Optional.empty(), body).sets().get(0);
      if (one.has("moved")) {
        ObjectNode moved = json.createObjectNode();
        ObjectNode move = moved.putArray("sets").addObject();
        keyDate(move.put("set", made).put("ifMatch", "*"), one.get("moved"), today);
        sets.move(coordinator, Optional.empty(), moved);
      }
    }
  }

  private static void keyDate(ObjectNode set, JsonNode key, LocalDate today) {
    LocalDate day = today.plusDays(key.get(0).asInt());
    ObjectNode date = set.putObject("keyDate");
    if (key.size() > 1) {
      date.put("at", day.atTime(LocalTime.parse(key.get(1).asString())).toString());
    } else {
      date.put("date", day.toString());
    }
  }
}
