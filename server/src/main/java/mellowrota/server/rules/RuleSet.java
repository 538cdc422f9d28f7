package mellowrota.server.rules;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.UUID;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.server.sight.store.SetStore.OneWording;
import tools.jackson.databind.node.ObjectNode;

/**
 * Rules in their order, wordings and details, as somebody wants them; every part is known to be
 * right.
 *
 * @param tag of the set it was made from
 * @param usual the wording of each kind whose rule names none; others use the house's
 * @param titlesFixed why nobody may call things their own way on their own calendar
 * @param from work that ended before this day stays as it is, but for what is hidden
 * @param looked what the look at it was called
 * @param record a record to try it on
 */
record RuleSet(
    String tag,
    List<OneRule> rules,
    List<OneWording> wordings,
    List<DetailDefinition> details,
    Map<Kind, Long> usual,
    Optional<String> titlesFixed,
    Optional<LocalDate> from,
    Optional<String> looked,
    OptionalLong record) {

  /**
   * One rule.
   *
   * @param id none for a new one
   * @param sentence as it is kept
   */
  record OneRule(OptionalLong id, boolean on, ObjectNode sentence) {}

  Details asDetails() {
    return Details.of(details);
  }

  /** Tells one wish from another. */
  String hash() {
    String all = tag + rules + wordings + details + usual + titlesFixed + from;
    return UUID.nameUUIDFromBytes(all.getBytes(StandardCharsets.UTF_8)).toString();
  }

  /** A rule as it is sent, as the sentence that is kept. */
  static ObjectNode kept(ObjectNode sent) {
    ObjectNode sentence = sent.deepCopy();
    sentence.remove(List.of("id", "on"));
    if (sentence.has("wording")) {
      sentence.put("wordingId", sentence.remove("wording").asLong());
    }
    return sentence;
  }
}
