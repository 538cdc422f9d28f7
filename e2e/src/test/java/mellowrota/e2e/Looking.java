package mellowrota.e2e;

import java.time.Duration;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Looks at what a set of rules would do; on a busy machine that goes on after the first answer. */
final class Looking {

  private Looking() {}

  /** The look when it is done. */
  static JsonNode at(Api api, ObjectNode set) {
    JsonNode[] look = {api.post("/api/v1/rules/look", set.toString()).expect(200).json()};
    String looked = "/api/v1/rules/looks/" + look[0].get("looked").asString();
    Await.until(
        "all is looked at",
        Duration.ofSeconds(30),
        () -> {
          look[0] =
              look[0].get("finished").asBoolean() ? look[0] : api.get(looked).expect(200).json();
          return look[0].get("finished").asBoolean();
        });
    return look[0];
  }
}
