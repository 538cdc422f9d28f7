package mellowrota.server.sight;

import java.time.LocalTime;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.Attendees;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.Reminder;
import mellowrota.core.entry.WordingId;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.rule.Condition;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Shape;
import mellowrota.core.rule.Target;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.State;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Landing rules as they are kept: a sentence in JSON. */
@Component
@RequiredArgsConstructor
public class RuleSentences {

  private final JsonMapper json;

  /** The rule that a kept sentence says, where details apply as these say. */
  public LandingRule rule(long id, int position, boolean on, String sentence, Details details) {
    JsonNode node = json.readTree(sentence);
    return new LandingRule(
        id,
        position,
        on,
        condition(node.required("when"), details),
        targets(node.required("lands")),
        Shape.valueOf(node.required("as").asString()),
        node.has("wordingId")
            ? Optional.of(WordingId.of(node.get("wordingId").asLong()))
            : Optional.empty(),
        node.has("busy") ? Optional.of(node.get("busy").asBoolean()) : Optional.empty(),
        new Entry.With(
            reminders(node),
            node.has("attendees")
                ? Attendees.valueOf(node.get("attendees").asString())
                : Attendees.NOBODY),
        LandingRule.WhenDone.valueOf(node.required("whenDone").asString()),
        node.has("afterYes") && node.get("afterYes").asBoolean(),
        node.has("note") ? node.get("note").asString() : "");
  }

  private static List<Reminder> reminders(JsonNode rule) {
    List<Reminder> found = new ArrayList<>();
    if (rule.has("reminders")) {
      for (JsonNode one : rule.get("reminders")) {
        found.add(
            new Reminder(
                one.required("amount").asInt(),
                Reminder.Unit.valueOf(one.required("unit").asString())));
      }
    }
    return found;
  }

  private Condition condition(JsonNode node, Details details) {
    String name = node.propertyNames().iterator().next();
    JsonNode value = node.get(name);
    return switch (name) {
      case "all" -> new Condition.All(conditions(value, details));
      case "any" -> new Condition.Any(conditions(value, details));
      case "none" -> new Condition.None(conditions(value, details));
      case "kind" -> new Condition.KindIs(enums(value, Kind.class));
      case "state" -> new Condition.StateIs(enums(value, State.class));
      case "tag" -> new Condition.Tagged(value.asString());
      case "team" -> new Condition.TeamIs(TeamId.of(value.asLong()));
      case "place" -> new Condition.PlaceIs(PlaceId.of(value.asLong()));
      case "role" -> new Condition.RolePresent(RoleId.of(value.asInt()));
      case "detail" -> {
        DetailKey key = new DetailKey(value.asString());
        yield new Condition.DetailPresent(key, record -> details.applies(record, key));
      }
      case "private" -> new Condition.IsPrivate();
      case "madeBy" -> new Condition.MadeBy(PersonId.of(value.asLong()));
      case "startsBetween" ->
          new Condition.StartsBetween(
              LocalTime.parse(value.get(0).asString()), LocalTime.parse(value.get(1).asString()));
      case "allDay" -> new Condition.IsAllDay();
      default -> throw new IllegalStateException("no condition: " + name);
    };
  }

  private List<Condition> conditions(JsonNode list, Details details) {
    List<Condition> found = new ArrayList<>();
    list.forEach(node -> found.add(condition(node, details)));
    return found;
  }

  private static <E extends Enum<E>> Set<E> enums(JsonNode list, Class<E> type) {
    Set<E> found = EnumSet.noneOf(type);
    list.forEach(node -> found.add(Enum.valueOf(type, node.asString())));
    return found;
  }

  private static List<Target> targets(JsonNode list) {
    List<Target> found = new ArrayList<>();
    for (JsonNode node : list) {
      String name = node.propertyNames().iterator().next();
      JsonNode value = node.get(name);
      found.add(
          switch (name) {
            case "ownOf" -> new Target.OwnOf(roles(value));
            case "teamsOf" -> new Target.TeamsOf(roles(value));
            case "thePlaces" -> new Target.ThePlaces();
            case "master" -> new Target.Master();
            case "calendar" -> new Target.One(CalendarId.of(value.asLong()));
            default -> throw new IllegalStateException("no target: " + name);
          });
    }
    return found;
  }

  private static Set<RoleId> roles(JsonNode list) {
    Set<RoleId> found = new HashSet<>();
    list.forEach(node -> found.add(RoleId.of(node.asInt())));
    return found;
  }
}
