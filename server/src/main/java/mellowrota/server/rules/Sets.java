package mellowrota.server.rules;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import mellowrota.core.entry.WordingId;
import mellowrota.core.people.ForSet;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.sight.Pattern;
import mellowrota.core.sight.Wording;
import mellowrota.core.sight.Wordings;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.core.work.State;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.sight.RuleSentences;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The house's rules, wordings and details as they are kept. */
@Component
class Sets {

  private final HouseStore house;
  private final JdbcClient jdbc;
  private final JsonMapper json;
  private final RuleSentences sentences;
  private final Worlds worlds;

  Sets(HouseStore house, JdbcClient jdbc, JsonMapper json, RuleSentences sentences, Worlds worlds) {
    this.house = house;
    this.jdbc = jdbc;
    this.json = json;
    this.sentences = sentences;
    this.worlds = worlds;
  }

  /** All of it as it is sent, in one object. */
  ObjectNode now() {
    ObjectNode set = json.createObjectNode();
    rules(set.putArray("rules"));
    wordings(set.putArray("wordings"));
    set.set("details", json.valueToTree(details()));
    ObjectNode usual = set.putObject("usual");
    jdbc.sql("select kind, wording from usual_wording order by kind")
        .query(
            row -> {
              usual.put(row.getString(1), row.getLong(2));
            });
    house.fallbackWording().ifPresent(wording -> set.put("fallback", wording));
    house.titlesFixed().ifPresent(why -> set.put("titlesFixed", why));
    return set;
  }

  private void rules(ArrayNode rules) {
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
  }

  private void wordings(ArrayNode wordings) {
    jdbc.sql(
            """
            select id, name, title, place, text, categories, fixed from wording
            order by lower(name), id
            """)
        .query(
            row -> {
              ObjectNode one = wordings.addObject().put("id", row.getLong(1));
              one.put("name", row.getString(2)).put("title", row.getString(3));
              one.put("place", row.getString(4)).put("text", row.getString(5));
              ArrayNode categories = one.putArray("categories");
              for (String category : listed(row.getString(6))) {
                categories.add(category);
              }
              if (row.getString(7) != null) {
                one.put("fixed", row.getString(7));
              }
            });
  }

  private List<SetViews.DetailView> details() {
    return jdbc.sql(
            """
            select key, label, kinds, for_bits, sort, choices::text, states, typed
            from detail_definition order by position, key
            """)
        .query(
            (row, n) ->
                new SetViews.DetailView(
                    row.getString(1),
                    row.getString(2),
                    listed(row.getString(3)),
                    ForSets.view(new ForSet(row.getLong(4))),
                    row.getString(5),
                    List.of(json.readValue(row.getString(6), String[].class)),
                    listed(row.getString(7)),
                    row.getBoolean(8),
                    DetailsInput.isOwn(new DetailKey(row.getString(1)))))
        .list();
  }

  private static List<String> listed(String names) {
    return names.isBlank() ? List.of() : List.of(names.split(","));
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
        details(),
        json.treeToValue(now.get("usual"), SetViews.UsualView.class),
        now.get("fallback").asLong(),
        now.has("titlesFixed") ? now.get("titlesFixed").asString() : null,
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
    Details details = set.asDetails();
    List<LandingRule> rules = new ArrayList<>();
    for (RuleSet.OneRule rule : set.rules()) {
      int position = rules.size() + 1;
      long id = rule.id().orElse(-position);
      rules.add(sentences.rule(id, position, rule.on(), rule.sentence().toString(), details));
    }
    Set<DetailKey> known = Worlds.keys(set.details());
    List<Wording> all = set.wordings().stream().map(one -> wording(one, known)).toList();
    WordingId fallback = world.wordings().fallback().id();
    Wording last = all.stream().filter(w -> w.id().equals(fallback)).findFirst().orElseThrow();
    Map<Kind, WordingId> usual = new EnumMap<>(Kind.class);
    set.usual().forEach((kind, id) -> usual.put(kind, WordingId.of(id)));
    Wordings wordings =
        Wordings.of(all, last)
            .usually(usual)
            .ownTitles(world.wordings().ownTitles(), set.titlesFixed());
    return worlds.with(world, details, wordings, rules);
  }

  private static Wording wording(RuleSet.OneWording one, Set<DetailKey> known) {
    return new Wording(
        WordingId.of(one.id()),
        one.name(),
        Pattern.of(one.title(), known),
        Pattern.of(one.place(), known),
        Pattern.of(one.text(), known),
        one.categories().stream().map(Wording.Category::valueOf).collect(Collectors.toSet()),
        one.fixed());
  }

  /** Keeps a set in place of the one there is. */
  void write(RuleSet set) {
    writeDetails(set.details());
    Map<Long, Long> numbers = writeWordings(set.wordings());
    List<Long> kept = new ArrayList<>();
    int position = 1;
    for (RuleSet.OneRule rule : set.rules()) {
      kept.add(write(numbered(rule, numbers), position++));
    }
    jdbc.sql("delete from rule where id <> all(?)").param(kept.toArray(Long[]::new)).update();
    jdbc.sql("delete from usual_wording").update();
    set.usual()
        .forEach(
            (kind, wording) ->
                jdbc.sql("insert into usual_wording (kind, wording) values (?, ?)")
                    .param(kind.name())
                    .param(numbers.get(wording))
                    .update());
    jdbc.sql("delete from wording where id <> all(?)")
        .param(numbers.values().toArray(Long[]::new))
        .update();
    house.fixTitles(set.titlesFixed());
  }

  private void writeDetails(List<DetailDefinition> details) {
    int position = 0;
    for (DetailDefinition one : details) {
      jdbc.sql(
              """
              insert into detail_definition
                (key, label, kinds, for_bits, typed, position, sort, choices, states)
              values (?, ?, ?, ?, ?, ?, ?, ?::jsonb, ?)
              on conflict (key) do update set label = excluded.label, kinds = excluded.kinds,
                for_bits = excluded.for_bits, position = excluded.position,
                choices = excluded.choices, states = excluded.states
              """)
          .param(one.key().name())
          .param(one.label())
          .param(named(one.kinds()))
          .param(one.forWhom().bits())
          .param(one.typed())
          .param(position++)
          .param(one.sort().name())
          .param(json.writeValueAsString(one.choices()))
          .param(named(one.states()))
          .update();
    }
    jdbc.sql("delete from detail_definition where key <> all(?)")
        .param(details.stream().map(one -> one.key().name()).toArray(String[]::new))
        .update();
  }

  private static String named(Set<? extends Enum<?>> some) {
    return some.stream().sorted().map(Enum::name).collect(Collectors.joining(","));
  }

  /** Gives each wording's number in the house by its number in the set. */
  private Map<Long, Long> writeWordings(List<RuleSet.OneWording> wordings) {
    // Names may change places: first out of each other's way.
    jdbc.sql("update wording set name = '~' || id").update();
    Map<Long, Long> numbers = new HashMap<>();
    for (RuleSet.OneWording one : wordings) {
      String number = one.fresh() ? "default" : Long.toString(one.id());
      numbers.put(
          one.id(),
          jdbc.sql(
                  """
                  insert into wording (id, name, title, place, text, categories, fixed)
                  overriding system value values (%s, ?, ?, ?, ?, ?, ?)
                  on conflict (id) do update set name = excluded.name, title = excluded.title,
                    place = excluded.place, text = excluded.text,
                    categories = excluded.categories, fixed = excluded.fixed,
                    version = wording.version + 1
                  returning id
                  """
                      .formatted(number))
              .param(one.name())
              .param(one.title())
              .param(one.place())
              .param(one.text())
              .param(String.join(",", one.categories()))
              .param(one.fixed().orElse(null))
              .query(Long.class)
              .single());
    }
    return numbers;
  }

  private static RuleSet.OneRule numbered(RuleSet.OneRule rule, Map<Long, Long> numbers) {
    if (!rule.sentence().has("wordingId")) {
      return rule;
    }
    ObjectNode sentence = rule.sentence().deepCopy();
    sentence.put("wordingId", numbers.get(sentence.get("wordingId").asLong()));
    return new RuleSet.OneRule(rule.id(), rule.on(), sentence);
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

  /** The world as it was, or is, with a set from the log of changes. */
  World worldWith(World world, JsonNode set) {
    return worldWith(world, past(set));
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
    return new RuleSet(
        "",
        rules,
        pastWordings(set.get("wordings")),
        pastDetails(set.get("details")),
        usual(set.get("usual")),
        set.has("titlesFixed") ? Optional.of(set.get("titlesFixed").asString()) : Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        OptionalLong.empty());
  }

  private List<RuleSet.OneWording> pastWordings(JsonNode wordings) {
    List<RuleSet.OneWording> found = new ArrayList<>();
    for (JsonNode node : wordings) {
      SetViews.WordingView one = json.treeToValue(node, SetViews.WordingView.class);
      found.add(
          new RuleSet.OneWording(
              one.id(),
              false,
              one.name(),
              one.title(),
              one.place(),
              one.text(),
              one.categories(),
              Optional.ofNullable(one.fixed())));
    }
    return found;
  }

  private List<DetailDefinition> pastDetails(JsonNode details) {
    List<DetailDefinition> found = new ArrayList<>();
    for (JsonNode node : details) {
      SetViews.DetailView one = json.treeToValue(node, SetViews.DetailView.class);
      found.add(
          new DetailDefinition(
              new DetailKey(one.key()),
              one.label(),
              one.kinds().stream().map(Kind::valueOf).collect(Collectors.toSet()),
              ForSets.of(one.forWhom()),
              one.typed(),
              DetailSort.valueOf(one.sort()),
              one.choices(),
              one.states().stream().map(State::valueOf).collect(Collectors.toSet())));
    }
    return found;
  }

  private static Map<Kind, Long> usual(JsonNode usual) {
    Map<Kind, Long> found = new EnumMap<>(Kind.class);
    for (String kind : usual.propertyNames()) {
      found.put(Kind.valueOf(kind), usual.get(kind).asLong());
    }
    return found;
  }

  /** Labels of details by their keys. */
  static Map<DetailKey, String> labels(World world) {
    Map<DetailKey, String> found = new HashMap<>();
    world.details().all().forEach(one -> found.put(one.key(), one.label()));
    return found;
  }
}
