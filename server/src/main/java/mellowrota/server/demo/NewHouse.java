package mellowrota.server.demo;

import java.time.Clock;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import mellowrota.core.sight.Pattern;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.server.calendars.CalendarKeeper;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.crew.store.Persons;
import org.springframework.jdbc.core.simple.JdbcClient;
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
class NewHouse {

  private final Persons persons;
  private final JdbcClient jdbc;
  private final HouseStore house;
  private final CalendarKeeper keeper;
  private final JsonMapper json;
  private final Clock clock;

  NewHouse(
      Persons persons,
      JdbcClient jdbc,
      HouseStore house,
      CalendarKeeper keeper,
      JsonMapper json,
      Clock clock) {
    this.persons = persons;
    this.jdbc = jdbc;
    this.house = house;
    this.keeper = keeper;
    this.json = json;
    this.clock = clock;
  }

  /** Does nothing where a house stands already. */
  @Transactional
  boolean layIfMissing(String name, ZoneId zone, boolean demo) {
    jdbc.sql("select pg_advisory_xact_lock(7302001)").query().singleRow();
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
    details();
    JsonNode rules = Resources.read(json, "house-rules.json");
    Map<String, Long> wordings = wordings(rules);
    Map<String, Long> calendars = new HashMap<>();
    keeper.insert("MASTER", "Master");
    for (JsonNode list : rules.get("dateLists")) {
      calendars.put(list.asString(), keeper.insert("DATE_LIST", list.asString()));
    }
    for (JsonNode named : rules.get("named")) {
      calendars.put(named.asString(), keeper.insert("NAMED", named.asString()));
    }
    keeper.keep();
    rules(rules, wordings, calendars);
    return true;
  }

  static String newIncarnation() {
    byte[] bytes = new byte[8];
    new java.security.SecureRandom().nextBytes(bytes);
    return HexFormat.of().formatHex(bytes);
  }

  private void details() {
    int position = 0;
    for (DetailDefinition d : Details.usual()) {
      jdbc.sql(
              """
              insert into detail_definition (key, label, kinds, for_bits, typed, position, sort)
              values (?, ?, ?, ?, ?, ?, ?)
              """)
          .param(d.key().name())
          .param(d.label())
          .param(d.kinds().stream().sorted().map(Enum::name).collect(Collectors.joining(",")))
          .param(d.forWhom().bits())
          .param(d.typed())
          .param(position++)
          .param(d.sort().name())
          .update();
    }
  }

  private Map<String, Long> wordings(JsonNode rules) {
    java.util.Set<DetailKey> known =
        Details.usual().stream().map(DetailDefinition::key).collect(Collectors.toSet());
    Map<String, Long> ids = new HashMap<>();
    for (JsonNode w : rules.get("wordings")) {
      List<String> parts = List.of("title", "place", "text");
      parts.forEach(part -> Pattern.of(w.get(part).asString(), known));
      String categories =
          w.get("categories")
              .valueStream()
              .map(JsonNode::asString)
              .collect(Collectors.joining(","));
      ids.put(
          w.get("name").asString(),
          jdbc.sql(
                  """
                  insert into wording (name, title, place, text, categories)
                  values (?, ?, ?, ?, ?) returning id
                  """)
              .param(w.get("name").asString())
              .param(w.get("title").asString())
              .param(w.get("place").asString())
              .param(w.get("text").asString())
              .param(categories)
              .query(Long.class)
              .single());
    }
    house.fallBackOn(ids.get(rules.get("fallbackWording").asString()));
    return ids;
  }

  private void rules(JsonNode rules, Map<String, Long> wordings, Map<String, Long> calendars) {
    int position = 1;
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
      jdbc.sql("insert into rule (position, sentence) values (?, ?::jsonb)")
          .param(position++)
          .param(sentence.toString())
          .update();
    }
  }
}
