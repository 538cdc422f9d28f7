package mellowrota.server.rules;

import static mellowrota.server.platform.Words.say;

import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.LongPredicate;
import java.util.stream.Collectors;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.Attendees;
import mellowrota.core.entry.Reminder;
import mellowrota.core.people.RoleId;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Shape;
import mellowrota.core.sight.Pattern;
import mellowrota.core.sight.Wording;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Kind;
import mellowrota.core.work.ValueTest;
import mellowrota.server.platform.Input;
import mellowrota.server.sight.ConditionTerm;
import mellowrota.server.sight.TargetTerm;
import mellowrota.server.sight.World;
import mellowrota.server.sight.Worlds;
import mellowrota.server.sight.store.SetStore.OneWording;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Reads a set of rules, wordings and details as it was sent, and tells every fault at its place.
 */
final class SetInput {

  /** A year before, in minutes. */
  private static final long LONGEST_REMINDER = 366L * 24 * 60;

  private static final int MOST_REMINDERS = 5;
  private static final int MOST_RULES = 200;
  private static final int MOST_WORDINGS = 100;
  private static final int MOST_PARTS = 20;
  private static final int DEEPEST = 6;

  private final World world;
  private final Input input;
  private final JsonNode body;
  private List<DetailDefinition> details = List.of();

  private SetInput(World world, JsonNode body) {
    this.world = world;
    this.body = body;
    // As it was told it may be sent again.
    Set<String> fields = new HashSet<>(Input.names(SetViews.WishView.class));
    fields.addAll(Input.names(SetViews.SetView.class));
    input = Input.of(body, fields);
  }

  /** Reads it whole; throws all faults at once. */
  static RuleSet read(World world, JsonNode body) {
    SetInput reading = new SetInput(world, body);
    reading.details = new DetailsInput(world).read(reading.input);
    List<OneWording> wordings = reading.wordings();
    Set<Long> ids = wordings.stream().map(OneWording::id).collect(Collectors.toSet());
    RuleSet set =
        new RuleSet(
            reading.input.text("tag", 100),
            reading.rules(ids),
            wordings,
            reading.details,
            reading.usual(ids),
            reading.titlesFixed(),
            reading.input.day("from"),
            Optional.of(reading.input.text("looked", 100)).filter(text -> !text.isEmpty()),
            reading.input.number("record"));
    reading.input.check();
    return set;
  }

  private List<OneWording> wordings() {
    Set<DetailKey> known = Worlds.keys(details);
    Set<Long> house =
        world.wordings().all().stream().map(w -> w.id().value()).collect(Collectors.toSet());
    Set<Long> ids = new HashSet<>();
    Set<String> names = new HashSet<>();
    List<OneWording> found = new ArrayList<>();
    for (Input item : input.objects("wordings", MOST_WORDINGS, SetViews.WordingView.class)) {
      long id = item.number("id").orElse(0);
      boolean fresh = item.flag("fresh").orElse(false);
      if (fresh == house.contains(id) || !ids.add(id)) {
        item.fault("id", say("rules.is-not-a-wording-here"));
      }
      String name = item.required("name", 60);
      if (!names.add(name.toLowerCase(Locale.ROOT))) {
        item.fault("name", say("rules.is-already-the-name-of"));
      }
      found.add(
          new OneWording(
              id,
              fresh,
              name,
              pattern(item, "title", item.text("title", 300), known),
              pattern(item, "place", item.text("place", 300), known),
              pattern(item, "text", item.lines("text", 4000), known),
              categories(item),
              reason(item, "fixed")));
    }
    if (!ids.contains(world.wordings().fallback().id().value()) && !input.namesFault("wordings")) {
      input.fault(
          "wordings", say("rules.lack-the-default-wording", world.wordings().fallback().name()));
    }
    return found;
  }

  private static Optional<String> reason(Input item, String field) {
    return Optional.of(item.text(field, 200)).filter(text -> !text.isEmpty());
  }

  private Optional<String> titlesFixed() {
    return input.has("titlesFixed") ? reason(input, "titlesFixed") : world.wordings().titlesFixed();
  }

  /** The wording of each kind; those the house has where none were sent. */
  private Map<Kind, Long> usual(Set<Long> wordings) {
    Map<Kind, Long> found = new EnumMap<>(Kind.class);
    if (!input.has("usual")) {
      world.wordings().usual().forEach((kind, id) -> found.put(kind, id.value()));
      found.values().retainAll(wordings);
      return found;
    }
    input
        .object("usual", SetViews.UsualView.class)
        .ifPresent(
            sent -> {
              for (Kind kind : Kind.values()) {
                OptionalLong id = sent.number(kind.name());
                if (id.isPresent() && !wordings.contains(id.getAsLong())) {
                  sent.fault(kind.name(), say("rules.is-not-a-wording-of"));
                }
                id.ifPresent(one -> found.put(kind, one));
              }
            });
    return found;
  }

  private static String pattern(Input item, String field, String text, Set<DetailKey> known) {
    for (Pattern.Fault fault : Pattern.parse(text, known).faults()) {
      item.fault(field, say("rules.at-character", (fault.position() + 1), fault.message()));
    }
    return text;
  }

  private static List<String> categories(Input item) {
    List<String> found = item.texts("categories", 3, 10);
    for (String one : found) {
      if (!names(Wording.Category.values()).contains(one)) {
        item.fault("categories", say("rules.must-hold-only-kind"));
      }
    }
    return found;
  }

  private List<RuleSet.OneRule> rules(Set<Long> wordings) {
    Set<Long> left = world.rules().stream().map(LandingRule::id).collect(Collectors.toSet());
    List<RuleSet.OneRule> found = new ArrayList<>();
    int i = 0;
    for (Input item : input.objects("rules", MOST_RULES, SetViews.RuleView.class)) {
      OptionalLong id = item.number("id");
      if (id.isPresent() && !left.remove(id.getAsLong())) {
        item.fault("id", say("rules.is-not-a-rule"));
      }
      boolean on = item.flag("on").orElse(true);
      judge(item, wordings);
      JsonNode sent = body.get("rules").get(i++);
      if (sent instanceof ObjectNode node) {
        found.add(new RuleSet.OneRule(id, on, RuleSet.kept(node)));
      }
    }
    if (!input.has("rules")) {
      input.fault("rules", say("rules.are-missing-send-all"));
    }
    return found;
  }

  private void judge(Input rule, Set<Long> wordings) {
    Optional<Input> when = rule.object("when", SetViews.ConditionView.class);
    if (when.isEmpty() && !rule.namesFault("when")) {
      rule.fault("when", say("rules.is-missing-all-fits"));
    }
    when.ifPresent(condition -> condition(condition, 0));
    List<Input> lands = rule.objects("lands", MOST_PARTS, SetViews.TargetView.class);
    if (lands.isEmpty() && !rule.namesFault("lands")) {
      rule.fault("lands", say("rules.is-missing-say-which"));
    }
    lands.forEach(this::target);
    rule.requiredChoice("as", Shape.class);
    OptionalLong wording = rule.number("wording");
    if (wording.isPresent() && !wordings.contains(wording.getAsLong())) {
      rule.fault("wording", say("rules.is-not-a-wording-of"));
    }
    rule.flag("busy");
    rule.requiredChoice("whenDone", LandingRule.WhenDone.class);
    rule.objects("reminders", MOST_REMINDERS, SetViews.ReminderView.class)
        .forEach(SetInput::reminder);
    rule.choice("attendees", Attendees.class);
    rule.flag("afterYes");
    rule.text("note", 300);
  }

  private static void reminder(Input one) {
    long amount = one.number("amount").orElse(-1);
    Optional<Reminder.Unit> unit = one.requiredChoice("unit", Reminder.Unit.class);
    long minutes =
        unit.map(u -> u == Reminder.Unit.MINUTES ? 1L : u == Reminder.Unit.HOURS ? 60 : 24 * 60)
            .orElse(1L);
    if ((amount < 0 || amount > LONGEST_REMINDER / minutes) && !one.namesFault("amount")) {
      one.fault("amount", say("rules.must-be-a-whole"));
    }
  }

  private static List<String> names(Enum<?>[] values) {
    return List.of(values).stream().map(Enum::name).toList();
  }

  /** The one name that a part may have; empty where that is told as a fault. */
  private static Optional<String> only(Input item, Class<? extends Record> view) {
    Set<String> names = item.names();
    if (!Input.names(view).containsAll(names)) {
      // Told already: what is no field here.
      return Optional.empty();
    }
    if (names.size() != 1) {
      String known = String.join(", ", new TreeSet<>(Input.names(view)));
      item.fault("", say("rules.must-name-exactly-one", known));
      return Optional.empty();
    }
    return names.stream().findFirst();
  }

  private void condition(Input item, int depth) {
    only(item, SetViews.ConditionView.class)
        .ifPresent(
            name -> {
              if (depth > DEEPEST) {
                item.fault(name, say("rules.is-nested-more-than", DEEPEST));
              } else {
                value(item, ConditionTerm.of(name), name, depth);
              }
            });
  }

  private void value(Input item, ConditionTerm term, String name, int depth) {
    switch (term.value()) {
      case PARTS ->
          item.objects(name, MOST_PARTS, SetViews.ConditionView.class)
              .forEach(part -> condition(part, depth + 1));
      case CONSTANTS -> someOf(item, name, term.constants().getEnumConstants());
      case TEXT -> item.required(name, 40);
      case NUMBER -> known(item, name, term.thing().word(), term.thing().names(world)::containsKey);
      case DETAIL -> {
        String key = item.required(name, 60);
        if (!key.isEmpty() && !Worlds.keys(details).contains(new DetailKey(key))) {
          item.fault(name, say("rules.is-not-a-detail"));
        }
      }
      case COMPARED -> compared(item, name, ValueTest.valueOf(term.name()));
      case HOURS -> hours(item, name);
      default -> flag(item, name, "rules.must-be-true-or-absent");
    }
  }

  /** A detail that the set has, and a value that it could hold, in the form in which it is kept. */
  private void compared(Input item, String name, ValueTest test) {
    List<String> sent = item.texts(name, 2, 200);
    Optional<DetailDefinition> detail =
        details.stream()
            .filter(one -> sent.size() == 2 && one.isWritten())
            .filter(one -> one.key().name().equals(sent.get(0)))
            .findFirst();
    if (item.namesFault(name)) {
      return;
    }
    if (detail.isEmpty()) {
      item.fault(name, say("rules.must-be-a-detail-and"));
    } else if (!test.isFor(detail.get().sort())) {
      item.fault(name, say("rules.has-no-order", detail.get().label()));
    } else {
      DetailSort.Reading reading = detail.get().read(sent.get(1));
      if (reading.value().filter(value -> !value.isEmpty()).isEmpty()) {
        item.fault(
            name,
            reading.remedy().isEmpty() ? say("rules.must-be-a-detail-and") : reading.remedy());
      }
    }
  }

  private static void flag(Input item, String name, String words) {
    if (!item.flag(name).orElse(false) && !item.namesFault(name)) {
      item.fault(name, say(words));
    }
  }

  private static void someOf(Input item, String name, Enum<?>[] values) {
    List<String> sent = item.texts(name, values.length, 20);
    List<String> known = names(values);
    if (sent.isEmpty() && !item.namesFault(name)) {
      item.fault(name, say("rules.is-empty-name-at", String.join(", ", known)));
    }
    if (!known.containsAll(sent)) {
      item.fault(name, say("common.must-hold-only", String.join(", ", known)));
    }
  }

  private static void known(Input item, String name, String sort, LongPredicate isKnown) {
    OptionalLong id = item.number(name);
    if (id.isEmpty() || !isKnown.test(id.getAsLong())) {
      if (!item.namesFault(name)) {
        item.fault(name, say("rules.is-not-a-here", sort));
      }
    }
  }

  private static void hours(Input item, String name) {
    List<String> sent = item.texts(name, 2, 5);
    boolean good = sent.size() == 2;
    for (String one : sent) {
      try {
        LocalTime.parse(one);
      } catch (DateTimeParseException unreadable) {
        good = false;
      }
    }
    if (!good && !item.namesFault(name)) {
      item.fault(name, say("rules.must-be-two-times"));
    }
  }

  private void target(Input item) {
    only(item, SetViews.TargetView.class).ifPresent(name -> target(item, name));
  }

  private void target(Input item, String name) {
    switch (TargetTerm.of(name).value()) {
      case ROLES -> {
        List<Long> roles = item.numbers(name, RoleId.MOST);
        if (roles.isEmpty() || !roles.stream().allMatch(world::isRole)) {
          item.fault(name, say("rules.must-be-roles"));
        }
      }
      case CALENDAR -> known(item, name, say("rules.date-list-or-named"), this::isOfAll);
      default -> flag(item, name, "rules.must-be-true-or");
    }
  }

  private boolean isOfAll(long calendar) {
    return world
        .calendars()
        .find(CalendarId.of(calendar))
        .map(found -> found.owner().sort())
        .filter(sort -> sort == Calendar.Sort.DATE_LIST || sort == Calendar.Sort.NAMED)
        .isPresent();
  }
}
