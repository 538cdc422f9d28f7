package mellowrota.server.rules;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import mellowrota.core.entry.WordingId;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.sight.Pattern;
import mellowrota.core.sight.Wording;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Kind;
import mellowrota.server.sight.RuleSentences;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The house's rules and wordings as they are kept. */
@Component
class Sets {

  private final JdbcClient jdbc;
  private final JsonMapper json;
  private final RuleSentences sentences;
  private final Worlds worlds;

  Sets(JdbcClient jdbc, JsonMapper json, RuleSentences sentences, Worlds worlds) {
    this.jdbc = jdbc;
    this.json = json;
    this.sentences = sentences;
    this.worlds = worlds;
  }

  /** All of it as it is sent, in one object: rules and wordings. */
  ObjectNode now() {
    ObjectNode set = json.createObjectNode();
    ArrayNode rules = set.putArray("rules");
    jdbc.sql("select id, is_on, sentence::text from rule order by position, id")
        .query(
            row -> {
              ObjectNode rule = json.createObjectNode();
              rule.put("id", row.getLong(1)).put("on", row.getBoolean(2));
              ObjectNode sentence = (ObjectNode) json.readTree(row.getString(3));
              if (sentence.has("wordingId")) {
                sentence.put("wording", sentence.remove("wordingId").asLong());
              }
              rule.setAll(sentence);
              rules.add(rule);
            });
    ArrayNode wordings = set.putArray("wordings");
    jdbc.sql(
            "select id, name, title, place, text, categories from wording order by lower(name), id")
        .query(
            row -> {
              ObjectNode one = wordings.addObject().put("id", row.getLong(1));
              one.put("name", row.getString(2)).put("title", row.getString(3));
              one.put("place", row.getString(4)).put("text", row.getString(5));
              ArrayNode categories = one.putArray("categories");
              for (String category : row.getString(6).split(",")) {
                if (!category.isBlank()) {
                  categories.add(category);
                }
              }
            });
    return set;
  }

  /** Tells one state of the set from another. */
  static String tag(JsonNode set) {
    return UUID.nameUUIDFromBytes(set.toString().getBytes(StandardCharsets.UTF_8)).toString();
  }

  SetViews.SetView view() {
    ObjectNode now = now();
    return new SetViews.SetView(
        tag(now),
        List.of(json.treeToValue(now.get("rules"), SetViews.RuleView[].class)),
        List.of(json.treeToValue(now.get("wordings"), SetViews.WordingView[].class)),
        counts());
  }

  private List<SetViews.CountView> counts() {
    return jdbc.sql(
            """
            select r.rule::bigint, count(*), count(distinct e.calendar)
            from entry e, unnest(string_to_array(e.rules, ',')) r(rule)
            where e.state = 'LIVE' group by r.rule order by 1
            """)
        .query((row, n) -> new SetViews.CountView(row.getLong(1), row.getLong(2), row.getInt(3)))
        .list();
  }

  /** The world as it would be with a set; new rules have numbers below 0 there. */
  World worldWith(World world, RuleSet set) {
    List<LandingRule> rules = new ArrayList<>();
    for (RuleSet.OneRule rule : set.rules()) {
      int position = rules.size() + 1;
      long id = rule.id().orElse(-position);
      rules.add(sentences.rule(id, position, rule.on(), rule.sentence().toString()));
    }
    Set<DetailKey> known = new HashSet<>();
    for (Kind kind : Kind.values()) {
      known.addAll(Worlds.keys(world.details().of(kind)));
    }
    List<Wording> wordings = new ArrayList<>();
    for (RuleSet.OneWording one : set.wordings()) {
      wordings.add(
          new Wording(
              WordingId.of(one.id()),
              one.name(),
              Pattern.of(one.title(), known),
              Pattern.of(one.place(), known),
              Pattern.of(one.text(), known),
              one.categories().stream()
                  .map(Wording.Category::valueOf)
                  .collect(Collectors.toSet())));
    }
    return worlds.with(world, wordings, rules);
  }

  /** Keeps a set in place of the one there is. */
  void write(RuleSet set) {
    List<Long> kept = new ArrayList<>();
    int position = 1;
    for (RuleSet.OneRule rule : set.rules()) {
      kept.add(write(rule, position++));
    }
    jdbc.sql("delete from rule where id <> all(?)").param(kept.toArray(Long[]::new)).update();
    // Names may change places: first out of each other's way.
    jdbc.sql("update wording set name = '~' || id").update();
    for (RuleSet.OneWording one : set.wordings()) {
      jdbc.sql(
              """
              update wording set name = ?, title = ?, place = ?, text = ?, categories = ?,
                version = version + 1 where id = ?
              """)
          .param(one.name())
          .param(one.title())
          .param(one.place())
          .param(one.text())
          .param(String.join(",", one.categories()))
          .param(one.id())
          .update();
    }
  }

  private long write(RuleSet.OneRule rule, int position) {
    if (rule.id().isEmpty()) {
      return jdbc.sql(
              "insert into rule (position, is_on, sentence) values (?, ?, ?::jsonb) returning id")
          .param(position)
          .param(rule.on())
          .param(rule.sentence().toString())
          .query(Long.class)
          .single();
    }
    long id = rule.id().getAsLong();
    // One that was taken out comes back under its number.
    jdbc.sql(
            """
            insert into rule (id, position, is_on, sentence) overriding system value
            values (?, ?, ?, ?::jsonb)
            on conflict (id) do update set position = excluded.position, is_on = excluded.is_on,
              sentence = excluded.sentence, version = rule.version + 1
            """)
        .param(id)
        .param(position)
        .param(rule.on())
        .param(rule.sentence().toString())
        .update();
    return id;
  }

  /** A set that was kept once, as it stands in the log of changes. */
  RuleSet past(JsonNode set) {
    List<RuleSet.OneRule> rules = new ArrayList<>();
    for (JsonNode rule : set.get("rules")) {
      rules.add(
          new RuleSet.OneRule(
              OptionalLong.of(rule.get("id").asLong()),
              rule.get("on").asBoolean(),
              RuleSet.kept((ObjectNode) rule)));
    }
    List<RuleSet.OneWording> wordings = new ArrayList<>();
    for (JsonNode one : set.get("wordings")) {
      wordings.add(json.treeToValue(one, RuleSet.OneWording.class));
    }
    return new RuleSet("", rules, wordings, java.util.Optional.empty(), OptionalLong.empty());
  }

  /** Labels of details by their keys. */
  static Map<DetailKey, String> labels(World world) {
    Map<DetailKey, String> found = new HashMap<>();
    for (Kind kind : Kind.values()) {
      for (DetailDefinition one : world.details().of(kind)) {
        found.put(one.key(), one.label());
      }
    }
    return found;
  }
}
