package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mellowrota.core.work.RecordId;
import mellowrota.server.platform.Input;
import tools.jackson.databind.JsonNode;

/** Several records to make or change, as they were sent. */
final class SeveralInput {

  static final int MOST = 200;

  private SeveralInput() {}

  /**
   * One of them.
   *
   * @param record empty for one to make
   * @param like the record that one to make begins as a copy of
   * @param ifMatch the tag of the view its changer had
   */
  record Item(
      Optional<RecordId> record,
      Optional<RecordId> like,
      String ifMatch,
      JsonNode body,
      String pointer) {}

  private static Item item(Input one, int number, JsonNode body) {
    OptionalLong record = one.number("record");
    OptionalLong like = one.number("like");
    String tag = one.text("ifMatch", 200);
    if (one.has("make") == one.has("change") || one.has("change") != record.isPresent()) {
      one.fault("", say("records.needs-either-make-or"));
    } else if (record.isPresent() && tag.isEmpty()) {
      one.fault("ifMatch", say("records.is-missing-send-the"));
    }
    if (like.isPresent() && !one.has("make")) {
      one.fault("like", say("records.goes-with-make"));
    }
    String what = one.has("make") ? "make" : "change";
    JsonNode sent = body.path("items").path(number).path(what);
    return new Item(id(record), id(like), tag, sent, "/items/" + number + "/" + what);
  }

  static List<Item> read(JsonNode body) {
    Input input = Input.of(body, RecordSchemas.SeveralSchema.class);
    List<Item> found = new ArrayList<>();
    for (Input one : input.objects("items", MOST, RecordSchemas.SeveralItemSchema.class)) {
      found.add(item(one, found.size(), body));
    }
    if (found.isEmpty()) {
      input.fault("items", say("records.is-empty-send-at"));
    }
    input.check();
    return found;
  }

  private static Optional<RecordId> id(OptionalLong number) {
    return number.isPresent() ? Optional.of(RecordId.of(number.getAsLong())) : Optional.empty();
  }
}
