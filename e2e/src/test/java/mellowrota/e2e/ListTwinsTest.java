package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * SIGHT 9 over every list: two worlds that differ only in what a reader may not see answer alike,
 * walked in pages of 1 with every filter. Details, tags and times of hidden records vary, and so do
 * whole private records between those that the reader sees, and sets of deadlines over those, with
 * their texts, answers and key dates. {@code -DlistSeeds=200} runs more.
 */
public class ListTwinsTest extends OnDemo {

  private static final int SEEDS = Integer.getInteger("listSeeds", 1);
  private static final List<String> HIDDEN_FROM_CREW =
      List.of("gate code", "quote", "contact", "phone");
  private static final int MOST_PAGES = 400;

  private final Map<String, Api> readers = new LinkedHashMap<>();
  private long marina;
  private long thornmere;
  private long inesId;

  @BeforeClass
  public void readers() {
    readers.put("ines", Api.of(server, "ines"));
    readers.put("wren", Api.of(server, "wren"));
    readers.put("marguerite", Api.of(server, "marguerite"));
    inesId = hana.idOf("people", "Ines Okafor");
    thornmere = hana.idOf("teams", "Thornmere crew");
    marina = People.invited(server, hana, "Lockside Boatyard", "OUTSIDE", readers);
    long calendar = hana.idOf("calendars", "Thornmere crew, team");
    long share =
        hana.post(
                "/api/v1/shares",
                "{\"calendar\": %d, \"reader\": %d, \"level\": \"ALL\"}"
                    .formatted(calendar, marina))
            .expect(201)
            .json()
            .get("id")
            .asLong();
    readers.get("Lockside Boatyard").post("/api/v1/shares/" + share + "/accept", "{}").expect(204);
  }

  @DataProvider
  Object[][] seeds() {
    Object[][] all = new Object[SEEDS][];
    for (int i = 0; i < SEEDS; i++) {
      all[i] = new Object[] {i};
    }
    return all;
  }

  @Test(dataProvider = "seeds")
  public void twinsListAlikeInPagesOfOneWithEveryFilter(int seed) {
    SplittableRandom random = new SplittableRandom(seed);
    String mark = "twin" + seed;
    List<Long> shown = new ArrayList<>();
    List<Long> hidden = new ArrayList<>();
    for (int i = 0; i < 4; i++) {
      shown.add(hana.record(work(mark, i, false)));
      hidden.add(hana.record(work(mark, i, true)));
    }
    Family partly =
        family(
            hidden.get(0),
            """
            3 days before %s, at 10:00: lift the boom; for Ines Okafor as Support
            1 day before %s: haul; for Wren Adeyemi as Support
            """);
    Family wholly = family(hidden.get(1), "5 days before %s: sound; for Tam Birtles as Lead\n");
    readers.forEach(
        (name, api) -> {
          set(name, random.split(), mark, shown, hidden, 'a');
          sets(random.split(), mark + "xa", partly, wholly);
          Map<String, String> first = walks(api, mark, partly, wholly);
          Map<String, String> office = families(hana, partly, wholly);
          set(name, random.split(), mark, shown, hidden, 'b');
          sets(random.split(), mark + "xb", partly, wholly);
          Map<String, String> second = walks(api, mark, partly, wholly);
          assertThat(families(hana, partly, wholly)).as("what varies").isNotEqualTo(office);
          first.forEach(
              (list, answer) ->
                  assertThat(second.get(list))
                      .as("seed %d, %s: %s", seed, name, list)
                      .isEqualTo(answer));
          assertThat(first.get("/api/v1/records?limit=1&find=" + mark))
              .as(name + " sees the work that is shown")
              .contains("" + shown.get(0));
          assertThat(first.get("/api/v1/deadline-sets/" + partly.set()))
              .as(name + " is told their own step")
              .startsWith(Map.of("ines", "200", "wren", "200").getOrDefault(name, "404"));
        });
  }

  private String work(String mark, int i, boolean isPrivate) {
    ObjectNode body = Api.JSON.createObjectNode();
    body.put("title", mark + " work " + i).put("team", thornmere).put("private", isPrivate);
    body.put("place", 1 + i);
    body.putObject("due").put("at", "2027-03-0%dT10:00".formatted(1 + i));
    ArrayNode on = body.putArray("people");
    if (!isPrivate) {
      on.addObject().put("role", 1).put("person", hana.idOf("people", "Joss Hallard"));
    }
    return body.toString();
  }

  /** Gives every record what these readers may not see of it. */
  private void set(
      String reader,
      SplittableRandom random,
      String mark,
      List<Long> shown,
      List<Long> hidden,
      char twin) {
    for (long id : shown) {
      ObjectNode body = Api.JSON.createObjectNode();
      ObjectNode details = body.putObject("details");
      HIDDEN_FROM_CREW.forEach(
          key -> details.put(key, random.nextInt(4) == 0 ? "" : mark + "x" + twin + key.charAt(0)));
      if (reader.contains(" ")) {
        body.putArray("tags").add(mark + "tag" + twin);
        details.put("notes", mark + "x" + twin + "n");
      }
      hana.change(id, body.toString());
    }
    for (long id : hidden) {
      ObjectNode body = Api.JSON.createObjectNode();
      body.put("title", mark + "x" + twin + " hidden").put("place", 1 + random.nextInt(5));
      body.putObject("due")
          .put("at", "2027-03-0%dT%02d:00".formatted(1 + random.nextInt(4), random.nextInt(24)));
      body.put("state", random.nextBoolean() ? "CONFIRMED" : "TENTATIVE");
      body.putArray("tags").add(mark + "tag" + twin);
      body.putObject("details").put("gate code", mark + "x" + twin + "g");
      hana.change(id, body.toString());
    }
  }

  /** A set over hidden work, and the steps that stay in its text. */
  private record Family(long set, long chain, long step, String steps) {
    String text(String mark, int days) {
      String key = mark + " gauge";
      return """
          chain: %1$s weir %5$d
          key date: %2$s
          ask: %1$s flood
          %3$s%4$d days before %2$s: %1$s dredge; for Tam Birtles as Lead
          2 days after %1$s dredge: %1$s report; only if %1$s flood; for Tam Birtles as Lead
          """
          .formatted(mark, key, steps.replace("%s", key), days, chain);
    }
  }

  private Family family(long work, String steps) {
    Family begun = new Family(0, 0, 0, steps);
    long chain =
        hana.post("/api/v1/chains", text(begun.text("first" + work, 9)))
            .expect(201)
            .json()
            .get("id")
            .asLong();
    String making =
        """
        {"sets": [{"chain": %d, "record": %d, "keyDate": {"date": "2027-03-05"}}]}
        """
            .formatted(chain, work);
    JsonNode made = hana.post("/api/v1/deadline-sets", making).expect(201).json();
    long set = made.get("sets").get(0).asLong();
    JsonNode told = hana.get("/api/v1/deadline-sets/" + set).expect(200).json();
    return new Family(set, chain, told.get("steps").get(0).get("record").asLong(), steps);
  }

  private static String text(String text) {
    return Api.JSON.createObjectNode().put("text", text).toString();
  }

  /** Gives the sets what readers may not know of them. */
  private void sets(SplittableRandom random, String mark, Family partly, Family wholly) {
    for (Family one : List.of(partly, wholly)) {
      int days = 1 + random.nextInt(20);
      hana.put("/api/v1/chains/" + one.chain(), text(one.text(mark, days))).expect(204);
      ObjectNode body = Api.JSON.createObjectNode();
      ObjectNode set = body.putArray("sets").addObject();
      set.put("set", one.set()).put("ifMatch", "*").put("newest", true);
      set.putArray("answers")
          .addObject()
          .put("question", mark + " flood")
          .put("yes", random.nextBoolean());
      if (one.equals(wholly)) {
        set.putObject("keyDate").put("date", "2027-03-%02d".formatted(1 + random.nextInt(28)));
      }
      hana.post("/api/v1/deadline-sets/move", body.toString()).expect(200);
    }
  }

  /** All that there is of sets, as this person gets it. */
  private static Map<String, String> families(Api api, Family... families) {
    Map<String, String> found = new LinkedHashMap<>();
    Api.Answer begin = api.get("/api/v1/deadline-sets?limit=1");
    String cursor = begin.status() == 200 ? "0" : "";
    found.put("sets", begin.status() + plain(begin.text()));
    for (int i = 0; !cursor.isEmpty(); i++) {
      Api.Answer page = api.get("/api/v1/deadline-sets?limit=1&cursor=" + cursor).expect(200);
      found.put("sets, page " + i, plain(page.text()));
      cursor = page.json().path("next").asString("");
    }
    for (Family one : families) {
      String set = "/api/v1/deadline-sets/" + one.set();
      for (String path :
          List.of(
              set,
              set + ".csv",
              set + ".ics",
              "/api/v1/records/" + one.step() + "/deadline-sets",
              "/api/v1/records/" + one.step(),
              "/api/v1/records/" + one.step() + "/history",
              "/api/v1/chains/" + one.chain() + ".txt")) {
        Api.Answer answer = api.get(path);
        found.put(path, answer.status() + plain(answer.text()));
      }
    }
    return found;
  }

  /** Every list as this person gets it. */
  private Map<String, String> walks(Api api, String mark, Family... families) {
    List<String> filters = new ArrayList<>(List.of("", "&find=" + mark, "&find=" + mark + "tag"));
    for (char twin : "ab".toCharArray()) {
      for (String key : List.of("g", "q", "c", "p", "n", " hidden")) {
        filters.add("&find=" + mark + "x" + twin + key.strip());
      }
      filters.add("&find=" + mark + "tag" + twin);
      filters.add("&find=hidden&state=CONFIRMED&place=2");
    }
    for (String state : List.of("DRAFT", "TENTATIVE", "CONFIRMED", "DONE", "CANCELLED")) {
      filters.add("&find=" + mark + "&state=" + state);
    }
    for (int place = 1; place < 6; place++) {
      filters.add("&find=" + mark + "&place=" + place);
    }
    filters.add("&find=" + mark + "&kind=TICKET");
    filters.add("&find=" + mark + "&person=" + inesId);
    filters.add("&find=" + mark + "&team=" + thornmere);
    for (String piece :
        List.of(
            "nobody",
            "no+lead",
            "Joss",
            "overdue",
            "due+before+3+Mar+2027",
            "Mar+2027",
            "begins+after+Feb+2027",
            "contact+" + mark + "xa",
            "%23" + mark + "taga",
            "region+Quill+Vale",
            "chain+planned+stoppage",
            "with+quote",
            "without+quote",
            "without+notes",
            "quote+is+" + mark + "xaq",
            "gate+code+is+" + mark + "xag",
            "priced",
            "Joss+as+Support&sort=LATEST")) {
      filters.add("&find=" + mark + "+" + piece);
    }
    for (String sort :
        List.of(
            "LATEST",
            "NEWEST",
            "DUE",
            "DUE_LAST",
            "BEGIN",
            "BEGIN_LAST",
            "PLACE",
            "PLACE_LAST",
            "DETAIL:title",
            "DETAIL:quote",
            "DETAIL_LAST:notes",
            "DETAIL_LAST:gate+code")) {
      filters.add("&find=" + mark + "&sort=" + sort);
    }
    filters.add("&find=%23" + mark + "taga&sort=OLDEST");
    Map<String, String> found = new LinkedHashMap<>();
    for (String line : List.of(mark + "xa", mark + "x", "Tam", "Lock")) {
      found.put("read " + line, plain(api.get("/api/v1/find?line=" + line).expect(200).text()));
    }
    for (String filter : filters) {
      found.put("/api/v1/records?limit=1" + filter, pages(api, filter));
      found.put(
          "facets" + filter,
          plain(
              api.get("/api/v1/records/facets?x" + filter.replaceAll("&sort=[^&]+", ""))
                  .expect(200)
                  .text()));
      found.put(
          "csv" + filter, api.get("/api/v1/records.csv?x" + filter.replaceFirst("&x", "")).text());
    }
    for (String list :
        List.of(
            "/api/v1/today",
            "/api/v1/my-day",
            "/api/v1/copies",
            "/api/v1/outside-changes",
            "/api/v1/releases",
            "/api/v1/settled",
            "/api/v1/views",
            "/api/v1/calendars/week",
            "/api/v1/board?from=2027-02-25&until=2027-03-10")) {
      Api.Answer answer = api.get(list);
      found.put(list, answer.status() + plain(answer.text()));
    }
    found.putAll(families(api, families));
    return found;
  }

  /** Walks it to its end; each cursor names the last record that was shown, and nothing else. */
  private static String pages(Api api, String filter) {
    StringBuilder found = new StringBuilder();
    String cursor = "";
    for (int i = 0; i < MOST_PAGES; i++) {
      Api.Answer answer = api.get("/api/v1/records?limit=1" + filter + cursor).expect(200);
      JsonNode page = answer.json();
      found.append(plain(answer.text())).append('\n');
      if (!page.has("next")) {
        return found.toString();
      }
      String next = page.get("next").asString();
      assertThat(new String(Base64.getUrlDecoder().decode(next), StandardCharsets.US_ASCII))
          .as("the cursor after a page of one")
          .endsWith(":" + page.get("items").get(0).get("id").asLong());
      cursor = "&cursor=" + next;
    }
    throw new AssertionError("no end of " + filter);
  }

  private static String plain(String text) {
    return text.replaceAll("\"request\":\"[0-9a-f]+\"", "")
        .replaceAll("(DTSTAMP|LAST-MODIFIED):2026\\d{4}T\\d{6}Z", "$1")
        .replaceAll("\"at\":\"2026-11-25T[^\"]+\"", "");
  }
}
