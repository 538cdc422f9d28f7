package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Chains of deadlines: read, dated, kept as they were typed. */
public class ChainsTest extends OnDemo {

  private static final String CHAINS = "/api/v1/chains";

  private static final String STOPPAGE =
      """
      # The usual winter stoppage.
      chain: planned stoppage
      key date: closure starts
      ask: drained

      28 days before closure starts, by chosen method: publish notice; for Duty Office as Lead
      10 working days before closure starts: call ecologist; only if drained
      on closure starts, at 06:00: lock the gates; for Marguerite Pell as Support
      """;

  private static String text(String text, String more) {
    return "{\"text\": " + JsonMapper.shared().writeValueAsString(text) + more + "}";
  }

  private JsonNode tried(String more) {
    return hana.post(CHAINS + "/read", text(STOPPAGE, more)).expect(200).json();
  }

  private static List<String> dates(JsonNode tried) {
    return StreamSupport.stream(tried.get("dates").spliterator(), false)
        .map(
            one ->
                one.get("step").asString()
                    + " | "
                    + one.get("standing").asString()
                    + " | "
                    + (one.has("sum") ? one.get("sum") : one.get("why")).asString())
        .collect(Collectors.toList());
  }

  @Test
  public void aTextIsReadAndDatedBeforeItIsKept() {
    hana.put(
            "/api/v1/notice-methods",
            "{\"methods\": [{\"name\": \"post\", \"number\": 2, \"unit\": \"WORKING_DAYS\"}]}")
        .expect(204);
    assertThat(dates(tried("")))
        .containsExactly(
            "publish notice | PENDING | the key date is not known yet",
            "call ecologist | PENDING | nobody has answered yet: drained",
            "lock the gates | PENDING | the key date is not known yet");
    JsonNode dated =
        tried(
            """
            , "keyDate": {"at": "2027-03-01T08:00"}, "method": "Post",
            "answers": [{"question": "drained", "yes": false}]
            """);
    assertThat(dates(dated))
        .containsExactly(
            "publish notice | RECKONED | Thu 28 Jan: 28 days before Mon 1 Mar 08:00 is Mon 1 Feb;"
                + " by post 2 working days earlier, not counting 2 days off in the week pattern:"
                + " Thu 28 Jan; Thu is a working day",
            "call ecologist | DOES_NOT_APPLY | only if drained",
            "lock the gates | RECKONED | Mon 1 Mar 06:00: on Mon 1 Mar 08:00; any day will do;"
                + " at 06:00");
    assertThat(dated.get("dates").get(2).get("date").get("at").asString())
        .startsWith("2027-03-01T06:00");
    assertThat(dated.get("asksMethod").asBoolean()).isTrue();
    assertThat(dated.get("questions").toString()).isEqualTo("[\"drained\"]");
    assertThat(dated.get("plain").asString()).startsWith("language: 1\nchain: planned stoppage\n");
    JsonNode faults =
        hana.post(CHAINS + "/read", text(STOPPAGE.replace("28 days", "28 dys"), ""))
            .expect(200)
            .json()
            .get("faults");
    assertThat(faults).hasSize(1);
    assertThat(faults.get(0).toString())
        .contains("\"line\":6,\"column\":4,\"code\":\"unit\"", "did you mean \\\"days\\\"?")
        .contains("\"edit\":{\"column\":4,\"length\":3,\"text\":\"days\"}");
    hana.post(CHAINS + "/read", text(STOPPAGE, ", \"place\": 999999")).expect(422);
  }

  @Test
  public void aChainIsKeptAsItWasTypedEachChangeAVersion() {
    String text =
        STOPPAGE.replace("planned stoppage", "short stoppage").replace(", by chosen method", "");
    long id = hana.post(CHAINS, text(text, "")).expect(201).json().get("id").asLong();
    JsonNode kept = only(id);
    assertThat(kept.get("text").asString()).isEqualTo(text);
    assertThat(kept.get("version").asInt()).isEqualTo(1);
    assertThat(hana.post(CHAINS, text(text.replace("short", "SHORT"), "")).expect(409).text())
        .contains("already a chain");
    assertThat(hana.post(CHAINS, text(text + "on nothing: x", "")).expect(422).text())
        .contains("line 9, col 4: nothing here is called");
    hana.put(CHAINS + "/" + id, text(text, "")).expect(204);
    assertThat(only(id).get("version").asInt()).as("the same is no version").isEqualTo(1);
    String tag = kept.get("tag").asString();
    hana.put(CHAINS + "/" + id, text(text.replace("28", "21"), ""), "If-Match", tag).expect(204);
    assertThat(only(id).get("version").asInt()).isEqualTo(2);
    hana.put(CHAINS + "/" + id, text(text, ""), "If-Match", tag).expect(412);
    JsonNode act = hana.get("/api/v1/settled").expect(200).json().get("items").get(0);
    assertThat(act.toString()).contains("house.chain", "Text of the chain");
    hana.post("/api/v1/acts/" + act.get("act").asLong() + "/undo", "").expect(200);
    assertThat(only(id)).as("back to what it was").isEqualTo(kept);
    hana.delete(CHAINS + "/" + id).expect(204);
    hana.delete(CHAINS + "/" + id).expect(404);
  }

  private JsonNode only(long id) {
    for (JsonNode one : hana.get(CHAINS).expect(200).json()) {
      if (one.get("id").asLong() == id) {
        return one;
      }
    }
    throw new AssertionError("no chain " + id);
  }

  @Test
  public void theyAreTheCoordinatorsAlone() {
    for (String who : List.of("marguerite", "ines")) {
      Api other = Api.of(server, who);
      other.get(CHAINS).expect(403);
      other.get("/api/v1/notice-methods").expect(403);
      other.post(CHAINS, text(STOPPAGE, "")).expect(403);
      other.post(CHAINS + "/read", text(STOPPAGE, "")).expect(403);
      other.put("/api/v1/notice-methods", "{\"methods\": []}").expect(403);
    }
  }

  @Test
  public void aMethodIsWhatItAdds() {
    String methods = "/api/v1/notice-methods";
    String one = "{\"methods\": [{\"name\": \"%s\", \"number\": %s, \"unit\": \"%s\"}]}";
    assertThat(hana.put(methods, one.formatted("post", "-1", "DAYS")).expect(422).text())
        .contains("/methods/0/number");
    assertThat(hana.put(methods, one.formatted("post", "1", "MINUTES")).expect(422).text())
        .contains("/methods/0/unit");
    assertThat(hana.put(methods, "{}").expect(422).text()).contains("/methods");
  }
}
