package mellowrota.server.sight;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.Attendees;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.Reminder;
import mellowrota.core.entry.WordingId;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Shape;
import mellowrota.core.work.Details;
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
        ConditionTerm.read(node.required("when"), details),
        node.required("lands").valueStream().map(TargetTerm::read).toList(),
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
}
