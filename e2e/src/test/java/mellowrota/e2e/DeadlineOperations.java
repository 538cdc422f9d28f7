package mellowrota.e2e;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Function;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Every operation on chains and sets of deadlines, over a set whose key date is a private record's.
 */
final class DeadlineOperations {

  private static final String SETS = "/api/v1/deadline-sets";
  private static final String REEDS = "chain: reeds\nkey date: cut\n3 days before cut: ask";

  private final Map<String, Function<Api, Api.Answer>> all = new LinkedHashMap<>();
  private final long chain;
  private final long set;

  /**
   * Makes the set.
   *
   * @param secret a private record with a due time
   * @param canary stands in the names of the chain, of its key date and of its steps
   */
  DeadlineOperations(Api hana, long secret, String canary) {
    String text =
        """
        chain: chain %1$s
        key date: key %1$s
        5 days before key %1$s: first %1$s
        2 days before key %1$s: second %1$s
        """
            .formatted(canary);
    chain = hana.post("/api/v1/chains", body(text)).expect(201).json().get("id").asLong();
    set =
        hana.post(
                SETS,
                """
                {"sets": [{"chain": %d, "record": %d, "follows": {"what": "DUE"}}]}
                """
                    .formatted(chain, secret))
            .expect(201)
            .json()
            .get("sets")
            .get(0)
            .asLong();
    long step =
        hana.get(SETS + "/" + set).expect(200).json().get("steps").get(0).get("record").asLong();
    chains();
    String making =
        """
        {"sets": [{"chain": %d, "record": %d, "keyDate": {"date": "2027-05-03"}}]}
        """
            .formatted(chain, secret);
    String move = "{\"sets\": [{\"set\": %d, \"ifMatch\": \"*\"}]}".formatted(set);
    all.put("GET " + SETS, a -> a.get(SETS + "?limit=200"));
    all.put("GET " + SETS + " #one", a -> a.get(SETS + "?limit=1&cursor=" + (set - 1)));
    all.put("GET " + SETS + "/{id}", a -> a.get(SETS + "/" + set));
    all.put("GET " + SETS + "/{id}.csv", a -> a.get(SETS + "/" + set + ".csv"));
    all.put("GET " + SETS + "/{id}.ics", a -> a.get(SETS + "/" + set + ".ics"));
    all.put("GET /api/v1/chains/{id}.txt", a -> a.get("/api/v1/chains/" + chain + ".txt"));
    all.put(
        "GET /api/v1/records/{id}/deadline-sets",
        a -> a.get("/api/v1/records/" + step + "/deadline-sets"));
    all.put(
        "GET /api/v1/records/{id}/deadline-sets #work",
        a -> a.get("/api/v1/records/" + secret + "/deadline-sets"));
    all.put("POST " + SETS + "/look", a -> a.post(SETS + "/look", making));
    all.put("POST " + SETS, a -> a.post(SETS, making));
    all.put("POST " + SETS + "/move/look", a -> a.post(SETS + "/move/look", move));
    all.put("POST " + SETS + "/move", a -> a.post(SETS + "/move", move));
    all.put("POST " + SETS + "/off/look", a -> a.post(SETS + "/off/look", move));
    all.put("POST " + SETS + "/off", a -> a.post(SETS + "/off", move));
  }

  private void chains() {
    String step = "{\"name\": \"ask\", \"from\": \"cut\"}";
    all.put("GET /api/v1/chains", a -> a.get("/api/v1/chains"));
    all.put("POST /api/v1/chains", a -> a.post("/api/v1/chains", body(REEDS)));
    all.put("POST /api/v1/chains/read", a -> a.post("/api/v1/chains/read", body(REEDS)));
    all.put("POST /api/v1/chains/line", a -> a.post("/api/v1/chains/line", step));
    all.put("PUT /api/v1/chains/{id}", a -> a.put("/api/v1/chains/" + reeds(a), body(REEDS + "s")));
    all.put("DELETE /api/v1/chains/{id}", a -> a.delete("/api/v1/chains/" + reeds(a)));
    all.put("GET /api/v1/notice-methods", a -> a.get("/api/v1/notice-methods"));
    all.put(
        "PUT /api/v1/notice-methods", a -> a.put("/api/v1/notice-methods", "{\"methods\": []}"));
  }

  /** By the name that the document of the API has for each, and what it is of. */
  Map<String, Function<Api, Api.Answer>> all() {
    return all;
  }

  private static String body(String text) {
    return "{\"text\": " + JsonMapper.shared().writeValueAsString(text) + "}";
  }

  /** The chain that was added by one of them; whoever may see none gets one that is there. */
  private long reeds(Api asker) {
    Api.Answer answer = asker.get("/api/v1/chains");
    if (answer.status() == 200) {
      for (JsonNode one : answer.json()) {
        if (one.get("name").asString().equals("reeds")) {
          return one.get("id").asLong();
        }
      }
    }
    return chain;
  }
}
