package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Currency;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.people.ForSet;
import mellowrota.core.sight.Pattern;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.core.work.State;
import mellowrota.server.platform.Input;
import mellowrota.server.sight.World;

/**
 * Reads the details of a set. Those every house begins with stay, since pages rest on them; their
 * name, their readers, their states and their place among the others are the house's.
 */
final class DetailsInput {

  private static final int MOST = 60;
  private static final int MOST_CHOICES = 50;
  private static final String KEY_FORM = "[a-z][a-z0-9]*( [a-z0-9]+)*";

  private static final Set<DetailKey> BEGUN_WITH =
      Details.usual().stream().map(DetailDefinition::key).collect(Collectors.toSet());

  private final World world;
  private final Map<DetailKey, DetailDefinition> before = new LinkedHashMap<>();
  private final Set<DetailKey> keys = new HashSet<>();
  private final Set<String> labels = new HashSet<>();

  DetailsInput(World world) {
    this.world = world;
    world.details().all().forEach(one -> before.put(one.key(), one));
  }

  /** Whether it is one of the house's own, which can be taken out again. */
  static boolean isOwn(DetailKey key) {
    return !BEGUN_WITH.contains(key);
  }

  /** All of them in their order; what the house has where none were sent. */
  List<DetailDefinition> read(Input input) {
    if (!input.has("details")) {
      return world.details().all();
    }
    List<DetailDefinition> found = new ArrayList<>();
    for (Input item : input.objects("details", MOST, SetViews.DetailView.class)) {
      found.add(one(item));
    }
    Set<DetailKey> lacking = new LinkedHashSet<>(before.keySet());
    lacking.removeAll(keys);
    lacking.removeIf(DetailsInput::isOwn);
    if (!lacking.isEmpty() && !input.namesFault("details")) {
      input.fault(
          "details",
          say(
              "rules.lack-only-details-of",
              lacking.stream().map(DetailKey::name).collect(Collectors.joining(", "))));
    }
    return found;
  }

  private DetailDefinition one(Input item) {
    String name = item.required("key", 30);
    DetailKey key = new DetailKey(name);
    DetailDefinition known = before.get(key);
    if (!name.isEmpty() && known == null && !name.matches(KEY_FORM)) {
      item.fault("key", say("rules.must-be-lower-case"));
    } else if (known == null && Pattern.isComputed(name)) {
      item.fault("key", say("rules.is-already-used-in"));
    } else if (!keys.add(key)) {
      item.fault("key", say("common.is-listed-twice"));
    }
    String label = item.required("label", 40);
    if (!label.isEmpty() && !labels.add(label.toLowerCase(Locale.ROOT))) {
      item.fault("label", say("rules.is-already-the-name"));
    }
    ForSet forWhom = ForSets.read(world, item, "for");
    if (known != null && !known.isWritten()) {
      // What is computed from a record's structure is only named and shown otherwise.
      return new DetailDefinition(
          key, label, known.kinds(), forWhom, known.typed(), known.sort(), List.of(), Set.of(), "");
    }
    return written(item, key, label, forWhom, Optional.ofNullable(known));
  }

  private DetailDefinition written(
      Input item, DetailKey key, String label, ForSet forWhom, Optional<DetailDefinition> known) {
    Set<Kind> kinds = some(item, "kinds", Kind.class);
    if (kinds.isEmpty() && !item.namesFault("kinds")) {
      item.fault("kinds", say("rules.is-empty-name-at", names(Kind.class)));
    }
    DetailSort sort = item.choice("sort", DetailSort.class).orElse(DetailSort.TEXT);
    // Text of before stays as it is; what is typed from now on is of the new sort.
    if (known.map(DetailDefinition::sort).filter(one -> one != sort).isPresent()
        && sort != DetailSort.TEXT
        && known.get().sort() != DetailSort.TEXT
        && !item.namesFault("sort")) {
      item.fault("sort", say("rules.was-and-cannot-change", known.get().sort()));
    }
    List<String> choices = choices(item, sort);
    return new DetailDefinition(
        key,
        label,
        kinds,
        forWhom,
        true,
        sort,
        choices,
        some(item, "states", State.class),
        unit(item, sort));
  }

  private static String unit(Input item, DetailSort sort) {
    String unit = item.text("unit", 12);
    boolean known =
        switch (sort) {
          case MONEY ->
              unit.isEmpty()
                  || Currency.getAvailableCurrencies().stream()
                      .anyMatch(one -> one.getCurrencyCode().equals(unit));
          case NUMBER -> true;
          default -> unit.isEmpty();
        };
    if (!known) {
      item.fault(
          "unit", say(sort == DetailSort.MONEY ? "rules.unit-currency" : "rules.unit-of-numbers"));
    }
    return known ? unit : "";
  }

  private static List<String> choices(Input item, DetailSort sort) {
    List<String> choices = item.texts("choices", MOST_CHOICES, 60);
    boolean wanted = sort == DetailSort.CHOICE;
    if (wanted && choices.isEmpty() && !item.namesFault("choices")) {
      item.fault("choices", say("rules.are-missing-list-the"));
    }
    if (!wanted && !choices.isEmpty()) {
      item.fault("choices", say("rules.belong-only-to-a"));
    }
    Set<String> seen = new HashSet<>();
    for (String choice : choices) {
      if (!seen.add(choice.toLowerCase(Locale.ROOT))) {
        item.fault("choices", "hold \"" + choice + "\" twice");
      }
    }
    return choices;
  }

  private static <E extends Enum<E>> Set<E> some(Input item, String field, Class<E> type) {
    Set<E> found = EnumSet.noneOf(type);
    for (String sent : item.texts(field, 20, 20)) {
      Optional<E> one =
          Arrays.stream(type.getEnumConstants()).filter(e -> e.name().equals(sent)).findFirst();
      if (one.isEmpty()) {
        item.fault(field, say("common.must-hold-only", names(type)));
      }
      one.ifPresent(found::add);
    }
    return found;
  }

  private static <E extends Enum<E>> String names(Class<E> type) {
    return Arrays.stream(type.getEnumConstants()).map(Enum::name).collect(Collectors.joining(", "));
  }
}
