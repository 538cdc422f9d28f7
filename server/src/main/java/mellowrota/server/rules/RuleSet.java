package mellowrota.server.rules;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import tools.jackson.databind.node.ObjectNode;

/**
 * Rules in their order and wordings, as somebody wants them; every part is known to be right.
 *
 * @param tag of the set it was made from
 * @param looked what the look at it was called
 * @param record a record to try it on
 */
record RuleSet(
    String tag,
    List<OneRule> rules,
    List<OneWording> wordings,
    Optional<String> looked,
    OptionalLong record) {

  /**
   * One rule.
   *
   * @param id none for a new one
   * @param sentence as it is kept
   */
  record OneRule(OptionalLong id, boolean on, ObjectNode sentence) {}

  /** One wording, its patterns as text. */
  record OneWording(
      long id, String name, String title, String place, String text, List<String> categories) {}

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
