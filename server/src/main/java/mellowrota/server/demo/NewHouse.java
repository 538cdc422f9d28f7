package mellowrota.server.demo;

import java.time.Clock;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.sight.Pattern;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.crew.store.Persons;
import mellowrota.server.platform.Locks;
import mellowrota.server.sight.store.CalendarStore;
import mellowrota.server.sight.store.SetStore;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Lays an empty house: its details, roles, wordings, rules, master, date lists and named calendars,
 * from data.
 */
@Component
@RequiredArgsConstructor
class NewHouse {

  private final Persons persons;
  private final Locks locks;
  private final HouseStore house;
  private final CalendarStore store;
  private final SetStore sets;
  private final JsonMapper json;
  private final Clock clock;

  /** Does nothing where a house stands already. */
  @Transactional
  boolean layIfMissing(String name, ZoneId zone, boolean demo) {
    locks.alone(List.of("a new house"));
    if (house.exists()) {
      return false;
    }
    byte[] seed = new byte[16];
    new java.security.SecureRandom().nextBytes(seed);
    house.lay(
        new HouseStore.Beginning(
            HexFormat.of().formatHex(seed), name, zone, newIncarnation(), demo),
        house.todayIn(zone));
    persons.addUsualRoles();
    sets.writeDetails(Details.usual());
    JsonNode rules = Resources.read(json, "house-rules.json");
    Map<String, Long> wordings = wordings(rules);
    store.add(new Calendar.Owner.Master(), "Master");
    Map<String, Long> calendars = new HashMap<>();
    add(rules.get("dateLists"), new Calendar.Owner.DateList(), calendars);
    add(rules.get("named"), new Calendar.Owner.Named(), calendars);
    store.keep();
    rules(rules, wordings, calendars);
    return true;
  }

  private void add(JsonNode names, Calendar.Owner owner, Map<String, Long> calendars) {
    for (JsonNode name : names) {
      calendars.put(name.asString(), store.add(owner, name.asString()).value());
    }
  }

  static String newIncarnation() {
    byte[] bytes = new byte[8];
    new java.security.SecureRandom().nextBytes(bytes);
    return HexFormat.of().formatHex(bytes);
  }

  private Map<String, Long> wordings(JsonNode rules) {
    java.util.Set<DetailKey> known =
        Details.usual().stream().map(DetailDefinition::key).collect(Collectors.toSet());
    List<SetStore.OneWording> all = new ArrayList<>();
    for (JsonNode w : rules.get("wordings")) {
      List.of("title", "place", "text").forEach(part -> Pattern.of(w.get(part).asString(), known));
      all.add(
          new SetStore.OneWording(
              all.size(),
              true,
              w.get("name").asString(),
              w.get("title").asString(),
              w.get("place").asString(),
              w.get("text").asString(),
              w.get("categories").valueStream().map(JsonNode::asString).toList(),
              Optional.empty()));
    }
    Map<Long, Long> given = sets.writeWordings(all, Map.of());
    Map<String, Long> ids = new HashMap<>();
    all.forEach(one -> ids.put(one.name(), given.get(one.id())));
    house.fallBackOn(ids.get(rules.get("fallbackWording").asString()));
    return ids;
  }

  private void rules(JsonNode rules, Map<String, Long> wordings, Map<String, Long> calendars) {
    List<SetStore.OneRule> all = new ArrayList<>();
    for (JsonNode rule : rules.get("rules")) {
      ObjectNode sentence = ((ObjectNode) rule).deepCopy();
      sentence.put("wordingId", wordings.get(sentence.remove("wording").asString()));
      for (JsonNode target : sentence.get("lands")) {
        String named = target.has("dateList") ? "dateList" : "calendar";
        if (target.has(named)) {
          Long id = calendars.get(((ObjectNode) target).remove(named).asString());
          ((ObjectNode) target).put("calendar", id);
        }
      }
      all.add(new SetStore.OneRule(0, true, sentence.toString()));
    }
    sets.writeRules(all);
  }
}
