package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.stream.IntStream;
import mellowrota.standin.Account;
import mellowrota.standin.Collection;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * One calendar outside is one thing, whoever links it and however its address is spelt; what is
 * ours stays ours wherever somebody moves it; and a password goes where its owner said.
 */
public class TwiceLinkedTest {

  private static final Duration SOON = Duration.ofSeconds(40);

  private Outside outside;
  private Outside elsewhere;
  private Server server;
  private Api hana;
  private Api ines;
  private Api tam;
  private Account shared;

  @BeforeClass
  public void begin() {
    outside = Outside.start();
    elsewhere = Outside.start();
    List<String> options = new ArrayList<>(outside.options());
    String allowed =
        "--mellow.outside.allow=127.0.0.1:%1$d,localhost:%1$d,127.0.0.1:%2$d"
            .formatted(outside.host().port(), elsewhere.host().port());
    options.replaceAll(one -> one.startsWith("--mellow.outside.allow") ? allowed : one);
    server = Server.started(Database.demo(), options.toArray(String[]::new));
    hana = Api.of(server, "hana");
    ines = Api.of(server, "ines");
    tam = Api.of(server, "tam");
    shared = outside.account("yard");
    shared.make("second", "Second");
  }

  @AfterClass(alwaysRun = true)
  public void end() {
    server.close();
    outside.close();
    elsewhere.close();
  }

  private String body(Api who, String own, String base, String path) {
    return """
    {"address": "%1$s", "user": "yard", "password": "%2$s", "calendars": [
      {"href": "%1$s%3$s", "writes": %4$d, "from": "2020-01-01", "alsoRead": "NOBODY"}]}
    """
        .formatted(base, Outside.PASSWORD, path, who.idOf("calendars", own));
  }

  private long ticket(String title, String lead) {
    return hana.record(
        """
        {"title": "%s", "due": {"at": "2026-12-01T13:00"}, "place": 1,
         "people": [{"role": 0, "person": %d}],
         "details": {"gate code": "4471 Q", "phone": "0555 0142"}}
        """
            .formatted(title, hana.idOf("people", lead)));
  }

  @Test
  public void ofManyAtOnceOneLinksIt() {
    String here = body(ines, "Ines Okafor, own", outside.host().url(), "dav/yard/work/");
    String there = body(tam, "Tam Birtles, own", outside.host().url(), "dav/yard/work/");
    List<CompletableFuture<Integer>> all =
        IntStream.range(0, 4)
            .mapToObj(
                i ->
                    CompletableFuture.supplyAsync(
                        () ->
                            i % 2 == 0
                                ? Api.of(server, "ines").post("/api/v1/links", here).status()
                                : Api.of(server, "tam").post("/api/v1/links", there).status()))
            .toList();
    List<Integer> statuses = all.stream().map(CompletableFuture::join).sorted().toList();
    assertThat(statuses).containsExactly(201, 409, 409, 409);
    // From here on it is hers.
    for (JsonNode one : tam.get("/api/v1/links").expect(200).json()) {
      tam.delete("/api/v1/links/" + one.get("id").asLong()).expect(204);
    }
    Await.until(
        "his is ended, if it was his",
        SOON,
        () -> tam.get("/api/v1/links").expect(200).json().isEmpty());
    ines.post("/api/v1/links", here);
  }

  @DataProvider
  public Object[][] spellings() {
    return new Object[][] {
      {"127.0.0.1", "dav/yard/work/"},
      {"127.0.0.1", "dav/yard/work"},
      {"127.0.0.1", "dav/./yard/../yard/work/"},
      {"127.0.0.1", "dav//yard//work/"},
      {"127.0.0.1", "d%61v/y%61rd/w%6Frk/"},
      {"localhost", "dav/yard/work/"},
      {"LOCALHOST", "dav/yard/work/"},
    };
  }

  @Test(dataProvider = "spellings", dependsOnMethods = "ofManyAtOnceOneLinksIt")
  public void underNoSpellingIsItLinkedAgain(String host, String path) {
    String base = "http://" + host + ":" + outside.host().port() + "/";
    for (Api who : List.of(ines, tam)) {
      String own = who == ines ? "Ines Okafor, own" : "Tam Birtles, own";
      Api.Answer answer = who.post("/api/v1/links", body(who, own, base, path));
      // Where the host itself does not know it under that spelling, nothing is found to link.
      boolean unknown =
          answer.status() == 422 && answer.text().contains("is not a calendar of this");
      assertThat(unknown || answer.status() == 409).as(answer.text()).isTrue();
      if (host.equalsIgnoreCase("localhost") || path.equals("dav/yard/work/")) {
        assertThat(answer.text()).contains("This calendar is already linked");
      }
      assertThat(answer.text()).doesNotContain("Ines").doesNotContain("Tam");
    }
  }

  /** Two people have calendars of one account, and move and double what stands in them. */
  @Test(dependsOnMethods = "underNoSpellingIsItLinkedAgain")
  public void whatIsOursStaysOursWhereverItIsMoved() {
    Outside.link(tam, body(tam, "Tam Birtles, own", outside.host().url(), "dav/yard/second/"));
    Collection hers = Outside.work(shared);
    Collection his = shared.collection("second").orElseThrow();
    List<Long> records = new ArrayList<>();
    for (int i = 0; i < 8; i++) {
      String lead = i % 2 == 0 ? "Ines Okafor" : "Tam Birtles";
      records.add(ticket("Moved " + i + " over there", lead));
      Outside.awaits(i % 2 == 0 ? hers : his, "Moved " + i + " over there");
    }
    for (int i = 0; i < 8; i++) {
      Collection from = i % 2 == 0 ? hers : his;
      Collection to = i % 2 == 0 ? his : hers;
      String title = "Moved " + i + " over there";
      Map.Entry<String, Collection.Stored> one = Outside.awaits(from, title);
      String text = one.getValue().text();
      switch (i / 2) {
        case 0 -> {
          to.put(one.getKey(), text, before -> true);
          from.delete(one.getKey(), before -> true);
        }
        case 1 -> to.put(one.getKey(), text, before -> true);
        // As some clients double it: with a UID of their own.
        case 2 -> to.put("x" + i + ".ics", text.replace("UID:", "UID:x"), before -> true);
        default -> from.put("x" + i + ".ics", text.replace("UID:", "UID:x"), before -> true);
      }
    }
    for (int round = 0; round < 3; round++) {
      Outside.again(ines);
      Outside.again(tam);
      Await.until(
          "all is read and written",
          SOON,
          () ->
              server
                  .database()
                  .query(
                      """
                      select 1::text from copy where due_at is not null and fault is null
                      union all select 2::text from link_calendar
                        where open
                          and read_due < coalesce(read_at + interval '5 minutes', 'infinity')
                      """)
                  .isEmpty());
    }
    for (int i = 0; i < 8; i++) {
      JsonNode details =
          hana.get("/api/v1/records/" + records.get(i)).expect(200).json().get("details");
      assertThat(details.toString()).as("record " + i).doesNotContain("About this copy");
      assertThat(details.has("notes")).as("notes of record " + i + ": " + details).isFalse();
      // What somebody moved away from where we put it, they took off there, and are asked about.
      if (i >= 2) {
        Outside.awaits(i % 2 == 0 ? hers : his, "Moved " + i + " over there");
      }
    }
    Set<String> parts = new HashSet<>();
    for (Api who : List.of(ines, tam)) {
      for (JsonNode one : who.get("/api/v1/outside-changes").expect(200).json()) {
        parts.add(one.get("part").asString());
      }
    }
    assertThat(parts).isSubsetOf("DELETED");
  }

  @Test
  public void noHostGetsThePasswordThatNobodyNamed() {
    Account away = outside.account("away");
    String there = elsewhere.host().url().replaceAll("/$", "");
    away.livesAt(there);
    elsewhere.account("away");
    String account = "{\"address\": \"%s\", \"user\": \"away\", \"password\": \"%s\"}";
    JsonNode tried =
        ines.post("/api/v1/links/try", account.formatted(outside.host().url(), Outside.PASSWORD))
            .expect(200)
            .json();
    assertThat(tried.get("found").asBoolean()).isFalse();
    assertThat(tried.get("fault").asString()).isEqualTo("ELSEWHERE");
    assertThat(tried.get("elsewhere").asString()).startsWith(there);
    assertThat(
            ines.post(
                    "/api/v1/links/try",
                    account.formatted(
                        tried.get("elsewhere").asString() + "/dav/away/", Outside.PASSWORD))
                .expect(200)
                .json()
                .toString())
        .contains("1 calendar found");
  }
}
