package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mellowrota.standin.Account;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * SIGHT's property over the server: where two worlds differ only in details that a reader may not
 * see, every operation answers that reader alike, byte for byte. Rules, wordings, whom details are
 * for, shares, feeds and what waits for a yes are random. {@code -DservedWorlds=300} runs more.
 */
public class SightServedTest {

  private static final int WORLDS = Integer.getInteger("servedWorlds", 2);
  private static final int RECORDS = 3;
  private static final Pattern TOKEN = Pattern.compile("<d:sync-token>([^<]*)</d:sync-token>");
  private static final List<String> READERS = List.of("ines", "tam", "wren");
  private static final List<String> NAMES = List.of("Ines Okafor", "Tam Birtles", "Wren Adeyemi");

  /** What people type on every record; the title stands outside the details. */
  private static final List<String> TYPED =
      List.of("title", "contact", "phone", "gate code", "notes", "quote");

  private static final List<String> SETS =
      List.of(
          "{\"everyone\": true}",
          "{\"crew\": true}",
          "{\"office\": true}",
          "{\"roles\": [0]}",
          "{\"roles\": [0, 1], \"office\": true}",
          "{\"outside\": true}",
          "{\"roles\": [1]}");

  private static final List<String> PATTERNS =
      List.of(
          "{ref} {title}[ · {place}]",
          "{title}[ · {phone}]",
          "{contact} {phone}[ gate {gate code}]",
          "{notes}[ · {quote}]",
          "[{gate code} · ]{title}[ with {others}]",
          "{due} {lead} {quote}",
          "");

  @Test
  public void twinWorldsAnswerEveryReaderAlike() {
    try (Outside outside = Outside.start();
        Server server = Server.started(Database.demo(), outside.options().toArray(String[]::new))) {
      Outcome outcome = run(server, outside, WORLDS, false);
      assertThat(outcome.differences()).as("answers that told what they may not").isEmpty();
      assertThat(outcome.varied()).as("hidden values that were varied").isGreaterThan(WORLDS * 10);
    }
  }

  /** The control: with a sight that allows all the same comparison must find it out. */
  @Test
  public void theControlGoesRed() {
    List<String> options = new ArrayList<>();
    options.add("--spring.profiles.active=settable-clock,sight-control");
    try (Outside outside = Outside.start()) {
      options.addAll(outside.options());
      try (Server server = Server.started(Database.demo(), options.toArray(String[]::new))) {
        assertThat(run(server, outside, 2, true).differences()).isNotEmpty();
      }
    }
  }

  private record Outcome(List<String> differences, int varied) {}

  /** All differences; that there is one is all that a control tells. */
  private Outcome run(Server server, Outside outside, int worlds, boolean untilOne) {
    List<String> differences = new ArrayList<>();
    int varied = 0;
    Api hana = Api.of(server, "hana").warned();
    Map<String, Api> readers = new LinkedHashMap<>();
    READERS.forEach(name -> readers.put(name, Api.of(server, name)));
    Copies copies = new Copies(server, outside, readers);
    int first = Integer.getInteger("firstWorld", 0);
    for (int seed = first; seed < first + worlds; seed++) {
      // Many worlds take hours, and what is due soon would be overdue for the second of two alike.
      server.setClock(Demo.NOW);
      World world = new World(hana, readers, copies, new SplittableRandom(seed), seed);
      for (int i = 0; i < READERS.size(); i++) {
        varied += world.compare(i, differences);
        if (untilOne && !differences.isEmpty()) {
          return new Outcome(differences, varied);
        }
      }
    }
    return new Outcome(differences, varied);
  }

  /** What stands in the readers' own calendars elsewhere, which others may or may not read. */
  private static final class Copies {
    private static final List<String> ALSO_READ = List.of("NOBODY", "OTHERS", "UNSAID");

    private final Server server;
    private final Map<String, Account> accounts = new LinkedHashMap<>();

    Copies(Server server, Outside outside, Map<String, Api> readers) {
      this.server = server;
      for (int i = 0; i < READERS.size(); i++) {
        String name = READERS.get(i);
        accounts.put(name, outside.account(name));
        Outside.link(
            readers.get(name),
            """
            {"address": "%1$s", "user": "%2$s", "password": "%3$s", "calendars": [
              {"href": "%1$sdav/%2$s/work/", "writes": %4$d, "alsoRead": "%5$s",
               "from": "2020-01-01"}]}
            """
                .formatted(
                    outside.host().url(),
                    name,
                    Outside.PASSWORD,
                    readers.get(name).idOf("calendars", NAMES.get(i) + ", own"),
                    ALSO_READ.get(i)));
      }
    }

    /** Once all is sent, each entry with its tag, which tells whether it was written anew. */
    Map<String, String> of(String reader) {
      Await.until("all copies are sent", Duration.ofSeconds(60), () -> open().isEmpty());
      Map<String, String> found = new TreeMap<>();
      Outside.work(accounts.get(reader))
          .objects()
          .forEach((name, one) -> found.put("copy " + name, one.etag() + " " + one.text()));
      assertThat(found).as("copies of " + reader).isNotEmpty();
      return found;
    }

    private List<String> open() {
      return server
          .database()
          .query(
              """
              select 'copy' from copy where due_at is not null union all
              select 'calendar' from link_calendar l join rendering r on r.id = l.rendering
                join calendar c on c.id = r.calendar where c.change_no > l.seen_no
              """);
    }
  }

  /** One random state of the house and a few records in it. */
  private static final class World {
    private final Api hana;
    private final Map<String, Api> readers;
    private final Copies copies;
    private final SplittableRandom random;
    private final int seed;
    private final List<Long> people = new ArrayList<>();
    private final Map<String, Set<String>> sets = new TreeMap<>();
    private final List<String> feeds = new ArrayList<>();
    private final List<String> written = new ArrayList<>();
    private final Map<Long, Map<Integer, Integer>> roles = new LinkedHashMap<>();

    World(Api hana, Map<String, Api> readers, Copies copies, SplittableRandom random, int seed) {
      this.copies = copies;
      this.hana = hana;
      this.readers = readers;
      this.random = random;
      this.seed = seed;
      NAMES.forEach(name -> people.add(hana.idOf("people", name)));
      rules();
      shares();
      for (int i = 0; i < RECORDS; i++) {
        record(i);
      }
      JsonNode waiting = hana.get("/api/v1/releases").expect(200).json();
      if (!waiting.isEmpty() && random.nextBoolean()) {
        hana.post(
                "/api/v1/releases",
                ReleasesTest.yes(waiting.valueStream().toArray(JsonNode[]::new)))
            .expect(200);
      }
    }

    private <T> T any(List<T> list) {
      return list.get(random.nextInt(list.size()));
    }

    private void rules() {
      ObjectNode set = (ObjectNode) hana.get("/api/v1/rules").expect(200).json();
      set.remove("counts");
      for (JsonNode one : set.get("details")) {
        String key = one.get("key").asString();
        if (TYPED.contains(key)) {
          JsonNode readers = Api.JSON.readTree(any(SETS));
          ((ObjectNode) one).set("for", readers);
          Set<String> names = new TreeSet<>();
          readers
              .properties()
              .forEach(
                  part -> {
                    if (part.getValue() instanceof ArrayNode list) {
                      list.forEach(role -> names.add("role " + role.asInt()));
                    } else {
                      names.add(part.getKey());
                    }
                  });
          sets.put(key, names);
        }
      }
      for (JsonNode one : set.get("wordings")) {
        ((ObjectNode) one).put("title", any(PATTERNS));
        ((ObjectNode) one).put("text", any(PATTERNS) + "\n" + any(PATTERNS));
      }
      for (JsonNode one : set.get("rules")) {
        ((ObjectNode) one).put("on", random.nextInt(5) > 0);
        ((ObjectNode) one).put("afterYes", random.nextInt(4) == 0);
        ((ObjectNode) one).put("attendees", any(List.of("NOBODY", "EVERYBODY", "ONLY_ONESELF")));
        ((ObjectNode) one)
            .set(
                "reminders",
                Api.JSON.readTree("[{\"amount\": %d, \"unit\": \"HOURS\"}]".formatted(seed)));
      }
      ReleasesTest.take(hana, set);
    }

    private void shares() {
      for (JsonNode one : hana.get("/api/v1/shares").expect(200).json()) {
        hana.delete("/api/v1/shares/" + one.get("id").asLong()).expect(204);
      }
      for (JsonNode one : hana.get("/api/v1/feeds").expect(200).json()) {
        hana.delete("/api/v1/feeds/" + one.get("id").asLong()).expect(204);
      }
      List<JsonNode> calendars = new ArrayList<>();
      hana.get("/api/v1/calendars").expect(200).json().forEach(calendars::add);
      List<String> levels = List.of("BUSY_ONLY", "TIMES_AND_PLACE", "ALL");
      for (int i = 0; i < 3; i++) {
        long calendar = any(calendars).get("id").asLong();
        int reader = random.nextInt(READERS.size());
        Api.Answer made =
            hana.post(
                "/api/v1/shares",
                "{\"calendar\": %d, \"reader\": %d, \"level\": \"%s\"}"
                    .formatted(calendar, people.get(reader), any(levels)));
        // Whoever reads it anyway, or by another share, is offered none.
        assertThat(made.status()).isIn(201, 422);
        if (made.status() == 201) {
          readers
              .get(READERS.get(reader))
              .post("/api/v1/shares/" + made.json().get("id").asLong() + "/accept", "{}")
              .expect(204);
        }
        feeds.add(
            hana.post(
                    "/api/v1/feeds",
                    "{\"calendar\": %d, \"label\": \"f\", \"level\": \"%s\"}"
                        .formatted(any(calendars).get("id").asLong(), any(levels)))
                .expect(201)
                .json()
                .get("address")
                .asString());
      }
    }

    private void record(int number) {
      Map<Integer, Integer> held = new TreeMap<>();
      ObjectNode body = Api.JSON.createObjectNode();
      ArrayNode on = body.putArray("people");
      for (int i = 0; i < people.size(); i++) {
        if (random.nextBoolean()) {
          int role = random.nextInt(4);
          held.put(i, role);
          on.addObject().put("role", role).put("person", people.get(i));
        }
      }
      body.put("private", random.nextInt(4) == 0);
      body.put("place", 1 + random.nextInt(5));
      body.putObject("due").put("at", "2026-11-%02dT1%d:00".formatted(26 + number, seed % 9));
      ObjectNode details = body.putObject("details");
      for (String key : TYPED) {
        (key.equals("title") ? body : details).put(key, value(key, number, 'a'));
      }
      roles.put(hana.record(body.toString()), held);
    }

    private String value(String key, int number, char twin) {
      return "w%dr%d%s%c".formatted(seed, number, key.replace(" ", ""), twin);
    }

    /** By a model of its own: a worker is crew, outside, and holds their role on the record. */
    private boolean mayKnow(String key, int reader, Map<Integer, Integer> held) {
      Set<String> readers = sets.get(key);
      return readers.contains("everyone")
          || readers.contains("crew")
          || readers.contains("outside")
          || held.containsKey(reader) && readers.contains("role " + held.get(reader));
    }

    /** Varies what this reader may not see, and what no feed may show; gives how many values. */
    int compare(int reader, List<String> differences) {
      Map<Long, Set<String>> hidden = new LinkedHashMap<>();
      int count = 0;
      for (Map.Entry<Long, Map<Integer, Integer>> record : roles.entrySet()) {
        Set<String> keys = new TreeSet<>();
        for (String key : TYPED) {
          boolean outside = sets.get(key).contains("everyone") || sets.get(key).contains("outside");
          if (!outside && !mayKnow(key, reader, record.getValue())) {
            keys.add(key);
          }
        }
        hidden.put(record.getKey(), keys);
        count += keys.size();
      }
      if (count == 0) {
        return 0;
      }
      Api api = readers.get(READERS.get(reader));
      set(hidden, 'a');
      Map<String, String> first = copies.of(READERS.get(reader));
      first.putAll(answers(api, hidden));
      set(hidden, 'b');
      Map<String, String> second = copies.of(READERS.get(reader));
      second.putAll(answers(api, hidden));
      first.forEach(
          (operation, answer) -> {
            if (!plain(answer).equals(plain(second.get(operation)))) {
              differences.add(
                  "seed %d, %s: %s\n%s\n%s"
                      .formatted(
                          seed,
                          READERS.get(reader),
                          operation,
                          around(plain(answer), plain(second.get(operation))),
                          around(plain(second.get(operation)), plain(answer))));
            }
          });
      first.forEach(
          (href, calendar) -> {
            Matcher token = TOKEN.matcher(calendar);
            if (token.find() && !new Calendars(api).sync(href, token.group(1)).live().isEmpty()) {
              differences.add("seed %d: %s tells of a hidden change".formatted(seed, href));
            }
          });
      set(hidden, 'a');
      differences.addAll(written);
      return count;
    }

    private static String around(String one, String other) {
      int at = 0;
      while (at < Math.min(one.length(), other.length()) && one.charAt(at) == other.charAt(at)) {
        at++;
      }
      return one.substring(Math.max(0, at - 60), Math.min(one.length(), at + 60));
    }

    /** Office may replace what it may not see (SIGHT 4). */
    private void set(Map<Long, Set<String>> hidden, char twin) {
      int number = 0;
      for (Map.Entry<Long, Set<String>> record : hidden.entrySet()) {
        ObjectNode body = Api.JSON.createObjectNode();
        ObjectNode details = Api.JSON.createObjectNode();
        for (String key : record.getValue()) {
          (key.equals("title") ? body : details).put(key, value(key, number, twin));
        }
        if (!details.isEmpty()) {
          body.set("details", details);
        }
        number++;
        if (!body.isEmpty()) {
          hana.change(record.getKey(), body.toString());
        }
      }
    }

    /** All that a calendar program gets of a calendar, tags too. */
    private static String whole(Api api, String href) {
      return api.dav(
              "REPORT",
              href,
              "<sync-collection xmlns='DAV:' xmlns:c='urn:ietf:params:xml:ns:caldav'><sync-token/>"
                  + "<sync-level>1</sync-level><prop><getetag/><c:calendar-data/></prop>"
                  + "</sync-collection>")
          .expect(207)
          .text();
    }

    /** Every reading there is, and the refusals that could tell something. */
    private Map<String, String> answers(Api api, Map<Long, Set<String>> hidden) {
      Map<String, String> found = new TreeMap<>();
      List<String> paths =
          new ArrayList<>(
              List.of(
                  "/api/v1/records?limit=200",
                  "/api/v1/records.csv",
                  "/api/v1/records.ics",
                  "/api/v1/board?from=2026-11-23&until=2026-12-07",
                  "/api/v1/today",
                  "/api/v1/my-day",
                  "/api/v1/people",
                  "/api/v1/teams",
                  "/api/v1/places",
                  "/api/v1/roles",
                  "/api/v1/details",
                  "/api/v1/house",
                  "/api/v1/views",
                  "/api/v1/calendars",
                  "/api/v1/feeds",
                  "/api/v1/shares",
                  "/api/v1/duties",
                  "/api/v1/cover?from=2026-11-23&until=2026-12-07",
                  "/api/v1/cover/who-could?ask=duty:1&start=2026-11-26T06:00:00Z"
                      + "&end=2026-11-26T20:00:00Z",
                  "/api/v1/cover/fill?from=2026-11-25&until=2026-12-02",
                  "/api/v1/cover/left?person=2&from=2026-11-25&until=2026-12-02",
                  "/api/v1/cover/loads?from=2026-11-25&until=2026-12-02",
                  "/api/v1/cover/swaps?record=1&visit=1&person=2",
                  "/api/v1/cover/when-could?person=2&minutes=60&from=2026-11-25&until=2026-12-02",
                  "/api/v1/limits",
                  "/api/v1/regions",
                  "/api/v1/settled",
                  "/api/v1/days-off?from=2026-11-25&until=2026-12-30",
                  "/api/v1/house/days",
                  "/api/v1/places/1/days",
                  "/api/v1/places/1/terms",
                  "/api/v1/people/2/times",
                  "/api/v1/links",
                  "/api/v1/links/decided",
                  "/api/v1/copies/waiting",
                  "/api/v1/copies",
                  "/api/v1/outside-changes",
                  "/api/v1/releases",
                  "/api/v1/rules",
                  "/api/v1/audit?detail=phone",
                  "/api/v1/account/title"));
      int number = 0;
      for (Map.Entry<Long, Set<String>> record : hidden.entrySet()) {
        String path = "/api/v1/records/" + record.getKey();
        paths.addAll(List.of(path, path + "/history", path + "/landings", path + "/sight"));
        for (String key : record.getValue()) {
          paths.add("/api/v1/records?find=" + value(key, number, 'a'));
          paths.add("/api/v1/records?find=" + value(key, number, 'b'));
        }
        number++;
      }
      int unread = 0;
      int read = 0;
      for (JsonNode calendar : api.get("/api/v1/calendars").expect(200).json()) {
        String file = "/api/v1/calendars/" + calendar.get("id").asLong();
        boolean reads = calendar.get("reads").asBoolean();
        // Those one may not read are refused alike; a few of them tell.
        if (reads || unread++ < 2) {
          paths.addAll(List.of(file + ".csv", file + ".ics"));
        }
        // Most of what there is stands on the first; every fifth world goes through all.
        if (reads && (read++ < 8 || seed % 5 == 0)) {
          String href = "/dav/calendars/" + calendar.get("id").asLong() + "/";
          found.put(href, whole(api, href));
        }
      }
      paths.addAll(feeds);
      for (String path : paths) {
        Api.Answer answer = api.get(path);
        found.put(path, answer.status() + " " + answer.header("ETag") + " " + answer.text());
      }
      for (Map.Entry<Long, Set<String>> record : hidden.entrySet()) {
        String path = "/api/v1/records/" + record.getKey();
        for (String key : record.getValue()) {
          String body =
              key.equals("title")
                  ? "{\"title\": \"x\"}"
                  : "{\"details\": {\"%s\": \"x\"}}".formatted(key);
          Api.Answer refused = api.patch(path, body, "If-Match", "*");
          if (refused.status() < 400) {
            written.add("seed %d: %s could be written on %s".formatted(seed, key, path));
          }
          found.put("PATCH " + path + " " + key, refused.status() + refused.text());
        }
        Api.Answer stale = api.patch(path, "{\"note\": \"x\"}", "If-Match", "\"stale\"");
        found.put("PATCH " + path + " stale", stale.status() + stale.text());
      }
      return found;
    }

    /** Without change numbers, request ids and the clock, which no two answers have in common. */
    private static String plain(String text) {
      String timeless =
          TOKEN
              .matcher(text)
              .replaceAll("")
              .replaceAll("\"request\":\"[0-9a-f]+\"", "")
              .replaceAll("(\"today\":\"[^\"]+\",)\"at\":\"[^\"]+\"", "$1");
      // A list of records as a calendar is made when it is asked for.
      return timeless.startsWith("<")
          ? timeless
          : timeless.replaceAll("(DTSTAMP|LAST-MODIFIED):.*", "");
    }
  }
}
