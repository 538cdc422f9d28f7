package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The same against a CalDAV server that nobody here wrote, from Debian's package of Radicale. */
public class RealHostTest {

  private static final Duration SOON = Duration.ofSeconds(30);
  private static final HttpClient HTTP =
      HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();

  private Path folder;
  private Process radicale;
  private int port;
  private Server server;
  private Api hana;
  private Api ines;
  private long inesId;

  @BeforeClass
  public void begin() throws IOException {
    folder = Files.createTempDirectory(Path.of(Database.environment("MELLOW_TEST_WORK")), "host");
    port = Server.freePort();
    Files.writeString(folder.resolve("users"), "ines:" + Outside.PASSWORD + "\n");
    Files.writeString(
        folder.resolve("config"),
        """
        [server]
        hosts = 127.0.0.1:%d
        [auth]
        type = htpasswd
        htpasswd_filename = %s
        htpasswd_encryption = plain
        [storage]
        filesystem_folder = %s
        """
            .formatted(port, folder.resolve("users"), folder.resolve("calendars")));
    radicale =
        new ProcessBuilder("radicale", "--config", folder.resolve("config").toString())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("log").toFile())
            .start();
    Await.until("the host answers", SOON, () -> send("OPTIONS", "/", "").isPresent());
    calendar("work", "Work");
    server =
        Server.started(
            Database.demo(),
            "--mellow.outside.allow=127.0.0.1:" + port,
            "--mellow.copies.wait=0s",
            "--mellow.copies.look-every=100ms");
    hana = Api.of(server, "hana");
    ines = Api.of(server, "ines");
    inesId = hana.idOf("people", "Ines Okafor");
    link();
  }

  private void calendar(String path, String name) {
    Await.until(
        "there is a calendar " + name,
        SOON,
        () ->
            send(
                    "MKCALENDAR",
                    "/ines/" + path + "/",
                    """
                    <?xml version="1.0"?><c:mkcalendar xmlns:d="DAV:" xmlns:c="urn:ietf:params:xml:ns:caldav">
                    <d:set><d:prop><d:displayname>%s</d:displayname></d:prop></d:set></c:mkcalendar>
                    """
                        .formatted(name))
                .filter(answer -> answer.statusCode() == 201 || answer.statusCode() == 409)
                .isPresent());
  }

  private void link() {
    JsonNode tried =
        ines.post(
                "/api/v1/links/try",
                """
                {"address": "http://127.0.0.1:%d/", "user": "ines", "password": "%s"}
                """
                    .formatted(port, Outside.PASSWORD))
            .expect(200)
            .json();
    assertThat(tried.get("found").asBoolean()).as(tried.toString()).isTrue();
    assertThat(tried.get("calendars")).hasSize(1);
    Outside.link(
        ines,
        """
        {"address": "http://127.0.0.1:%d/", "user": "ines", "password": "%s", "calendars": [
          {"href": "%s", "writes": %d, "alsoRead": "NOBODY", "readsBusy": true}]}
        """
            .formatted(
                port,
                Outside.PASSWORD,
                tried.get("calendars").get(0).get("href").asString(),
                ines.idOf("calendars", "Ines Okafor, own")));
  }

  @AfterClass(alwaysRun = true)
  public void end() {
    if (server != null) {
      server.close();
    }
    radicale.destroyForcibly();
  }

  /** Asks until there is an answer: the host closes connections when it likes. */
  private HttpResponse<String> ask(String method, String path, String body) {
    List<HttpResponse<String>> found = new ArrayList<>();
    Await.until(
        "the host answers " + method,
        SOON,
        () -> {
          send(method, path, body).ifPresent(found::add);
          return !found.isEmpty();
        });
    return found.get(0);
  }

  private Optional<HttpResponse<String>> send(String method, String path, String body) {
    String both = "ines:" + Outside.PASSWORD;
    try {
      return Optional.of(
          HTTP.send(
              HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
                  .header(
                      "Authorization",
                      "Basic " + Base64.getEncoder().encodeToString(both.getBytes()))
                  .header("Content-Type", body.startsWith("BEGIN") ? "text/calendar" : "text/xml")
                  .method(method, HttpRequest.BodyPublishers.ofString(body))
                  .build(),
              HttpResponse.BodyHandlers.ofString()));
    } catch (IOException notYet) {
      return Optional.empty();
    } catch (InterruptedException stopped) {
      throw new AssertionError(stopped);
    }
  }

  /** Where an entry that says this is kept, by its last part. */
  private Optional<String> saying(String text) {
    return allSaying(text).stream().findFirst().map(one -> one.getFileName().toString());
  }

  private List<Path> allSaying(String text) {
    List<Path> saying = new ArrayList<>();
    try (Stream<Path> files = Files.walk(folder.resolve("calendars"))) {
      List<Path> found =
          files
              .filter(one -> one.toString().endsWith(".ics"))
              .filter(one -> !one.toString().contains(".Radicale"))
              .toList();
      for (Path one : found) {
        if (unfolded(Files.readString(one)).contains(text)) {
          saying.add(one);
        }
      }
      return saying;
    } catch (IOException | java.io.UncheckedIOException whileItWrites) {
      return List.of();
    }
  }

  private static String unfolded(String text) {
    return text.replaceAll("\r?\n ", "");
  }

  private String awaits(String text) {
    // The host writes a file anew for each change, so that one look may miss it.
    List<String> found = new ArrayList<>();
    Await.until(
        "it stands there: " + text,
        SOON,
        () -> {
          saying(text).ifPresent(found::add);
          return !found.isEmpty();
        });
    return found.get(0);
  }

  private long ticket(String title, String due) {
    return hana.record(
        """
        {"title": "%s", "due": {"at": "%s"}, "people": [{"role": 0, "person": %d}],
         "details": {"notes": "%s"}}
        """
            .formatted(title, due, inesId, "Long, with \u00e9 and; \u6c34 ".repeat(60).strip()));
  }

  @Test
  public void anEntryComesChangesMovesAndGoes() {
    long record = ticket("Radical \u00c5se, stuck; paddle", "2026-12-01T13:00");
    String name = awaits("Radical \u00c5se\\, stuck\\; paddle");
    hana.change(record, "{\"title\": \"Radical freed\"}");
    assertThat(awaits("Radical freed")).isEqualTo(name);
    hana.change(record, "{\"due\": {\"at\": \"2026-12-02T15:00\"}}");
    awaits("20261202T150000");
    hana.change(record, "{\"people\": []}");
    Await.until("it is off there", SOON, () -> saying("Radical freed").isEmpty());
    assertThat(ines.get("/api/v1/outside-changes?record=" + record).expect(200).json())
        .as("what the host makes of our text is no change of anybody's")
        .isEmpty();
  }

  @Test
  public void whatIsMovedThereComesBack() {
    long record = ticket("Moved at a real host", "2026-12-03T13:00");
    // It may stand in another of their calendars sooner.
    String at = "/ines/work/" + awaits("Moved at a real host");
    Await.until("it stands there", SOON, () -> ask("GET", at, "").statusCode() == 200);
    String moved =
        unfolded(ask("GET", at, "").body()).replace("20261203T130000", "20261203T163000");
    assertThat(ask("PUT", at, moved).statusCode()).isEqualTo(201);
    Outside.again(ines);
    Await.until(
        "the record moved",
        SOON,
        () ->
            hana.get("/api/v1/records/" + record)
                .json()
                .get("due")
                .get("at")
                .asString()
                .startsWith("2026-12-03T16:30"));
  }

  @Test
  public void twoCalendarsAtOnceFollowFinishingUndoAndHandingOver() {
    calendar("tasks", "Tasks");
    long link = ines.get("/api/v1/links").expect(200).json().get(0).get("id").asLong();
    ines.patch(
            "/api/v1/links/" + link,
            """
            {"calendars": [{"href": "http://127.0.0.1:%d/ines/tasks/", "writes": %d,
              "families": ["GIVEN_DUE"], "alsoRead": "NOBODY"}]}
            """
                .formatted(port, ines.idOf("calendars", "Ines Okafor, own")))
        .expect(204);
    long record = ticket("Stands twice", "2026-12-05T13:00");
    awaitsTimes("Stands twice", 2);
    List<String> names =
        allSaying("Stands twice").stream().map(one -> one.getFileName().toString()).toList();
    assertThat(names.get(0)).as("one entry, one UID").isEqualTo(names.get(1));
    long act = hana.change(record, "{\"state\": \"DONE\"}");
    awaitsTimes("\u2713 " + ref(record), 2);
    hana.post("/api/v1/acts/" + act + "/undo", "").expect(200);
    awaitsTimes("\u2713 " + ref(record), 0);
    awaitsTimes("Stands twice", 2);
    hana.change(record, "{\"people\": [{\"role\": 0, \"person\": %d}]}".formatted(tam()));
    awaitsTimes("Stands twice", 0);
  }

  private long tam() {
    return hana.idOf("people", "Tam Birtles");
  }

  private String ref(long record) {
    return hana.get("/api/v1/records/" + record).expect(200).json().get("ref").asString();
  }

  private void awaitsTimes(String text, int times) {
    Await.until(
        "it stands there %d times: %s".formatted(times, text),
        SOON,
        () -> allSaying(text).size() == times);
  }

  /** Of somebody's own entries only the times are kept, and none of ours counts. */
  @Test
  public void busyTimeIsReadAndNothingElse() {
    ticket("Ours is not busy", "2026-12-04T13:00");
    awaits("Ours is not busy");
    ask(
        "PUT",
        "/ines/work/private.ics",
        """
        BEGIN:VCALENDAR\r
        VERSION:2.0\r
        PRODID:test\r
        BEGIN:VEVENT\r
        UID:private-1\r
        DTSTAMP:20261101T000000Z\r
        DTSTART:20261201T180000Z\r
        DTEND:20261201T190000Z\r
        RRULE:FREQ=WEEKLY;COUNT=4\r
        SUMMARY:Secret dentist\r
        END:VEVENT\r
        END:VCALENDAR\r
        """);
    Outside.again(ines);
    Await.until("busy time is known", SOON, () -> busy().size() == 4);
    assertThat(busy()).allMatch(one -> one.contains("18:00:00"));
    assertThat(server.database().dump()).doesNotContain("dentist");
    assertThat(onBoard("hana")).isEqualTo(1);
    assertThat(onBoard("ines")).isEqualTo(1);
    assertThat(onBoard("wren")).as("another worker's outside time is nobody's to see").isZero();
    ask("DELETE", "/ines/work/private.ics", "");
    Outside.again(ines);
    Await.until("it is free again", SOON, () -> busy().isEmpty());
  }

  private int onBoard(String who) {
    JsonNode board =
        Api.of(server, who)
            .get("/api/v1/board?from=2026-11-30&until=2026-12-07")
            .expect(200)
            .json();
    return (int)
        board.get("busy").valueStream().filter(b -> b.get("person").asLong() == inesId).count();
  }

  private List<String> busy() {
    return server.database().query("select starts::text from busy order by starts");
  }
}
