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
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.WordingId;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.sight.Wording;
import mellowrota.core.sight.Wordings;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.server.calendars.store.Entries;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.sight.RuleSentences;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import mellowrota.server.sight.store.SetStore;
import mellowrota.server.sight.store.SetStore.OneWording;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The house's rules, wordings and details as they are kept. */
@Component
@RequiredArgsConstructor
class RuleSets {

  private final HouseStore house;
  private final SetStore store;
  private final Entries entries;
  private final JsonMapper json;
  private final RuleSentences sentences;
  private final Worlds worlds;

  /** All of it as it is sent, in one object. */
  ObjectNode now() {
    ObjectNode set = json.createObjectNode();
    rules(set.putArray("rules"));
    wordings(set.putArray("wordings"));
    set.set("details", json.valueToTree(details()));
    ObjectNode usual = set.putObject("usual");
    store.usual().forEach((kind, wording) -> usual.put(kind.name(), wording));
    house.fallbackWording().ifPresent(wording -> set.put("fallback", wording));
    house.titlesFixed().ifPresent(why -> set.put("titlesFixed", why));
    return set;
  }

  private void rules(ArrayNode rules) {
    for (SetStore.OneRule one : store.rules()) {
      ObjectNode rule = rules.addObject().put("id", one.id()).put("on", one.on());
      ObjectNode sentence = (ObjectNode) json.readTree(one.sentence());
      if (sentence.has("wordingId")) {
        sentence.put("wording", sentence.remove("wordingId").asLong());
      }
      rule.setAll(sentence);
    }
  }

  private void wordings(ArrayNode wordings) {
    for (OneWording one : store.wordings()) {
      ObjectNode node = wordings.addObject().put("id", one.id());
      node.put("name", one.name()).put("title", one.title());
      node.put("place", one.place()).put("text", one.text());
      ArrayNode categories = node.putArray("categories");
      one.categories().forEach(categories::add);
      one.fixed().ifPresent(why -> node.put("fixed", why));
    }
  }

  private List<SetViews.DetailView> details() {
    return store.details().stream()
        .map(
            one ->
                new SetViews.DetailView(
                    one.key().name(),
                    one.label(),
                    one.kinds().stream().sorted().toList(),
                    ForSets.view(one.forWhom()),
                    one.sort(),
                    one.choices(),
                    one.states().stream().sorted().toList(),
                    one.unit().isEmpty() ? null : one.unit(),
                    one.typed(),
                    DetailsInput.isOwn(one.key())))
        .toList();
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
    return entries.byRule().stream()
        .map(one -> new SetViews.CountView(one.rule(), one.entries(), one.calendars()))
        .toList();
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
    List<Wording> all = set.wordings().stream().map(one -> Worlds.wording(one, known)).toList();
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

  /** Keeps a set in place of the one there is. */
  void write(RuleSet set) {
    store.writeDetails(set.details());
    Map<Long, Long> numbers = store.writeWordings(set.wordings(), set.usual());
    store.writeRules(kept(set.rules().stream().map(one -> numbered(one, numbers)).toList()));
    house.fixTitles(set.titlesFixed());
  }

  private static List<SetStore.OneRule> kept(List<RuleSet.OneRule> rules) {
    return rules.stream()
        .map(one -> new SetStore.OneRule(one.id().orElse(0), one.on(), one.sentence().toString()))
        .toList();
  }

  private static RuleSet.OneRule numbered(RuleSet.OneRule rule, Map<Long, Long> numbers) {
    if (!rule.sentence().has("wordingId")) {
      return rule;
    }
    ObjectNode sentence = rule.sentence().deepCopy();
    sentence.put("wordingId", numbers.get(sentence.get("wordingId").asLong()));
    return new RuleSet.OneRule(rule.id(), rule.on(), sentence);
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

  private List<OneWording> pastWordings(JsonNode wordings) {
    List<OneWording> found = new ArrayList<>();
    for (JsonNode node : wordings) {
      SetViews.WordingView one = json.treeToValue(node, SetViews.WordingView.class);
      found.add(
          new OneWording(
              one.id(),
              false,
              one.name(),
              one.title(),
              one.place(),
              one.text(),
              one.categories().stream().map(Enum::name).toList(),
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
              Set.copyOf(one.kinds()),
              ForSets.of(one.forWhom()),
              one.typed(),
              one.sort(),
              one.choices(),
              Set.copyOf(one.states()),
              Optional.ofNullable(one.unit()).orElse("")));
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
