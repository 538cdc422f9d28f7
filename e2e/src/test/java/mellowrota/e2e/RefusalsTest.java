package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.Socket;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Whatever is sent, the answer is ours: never a 500, never HTML, each refusal a problem document
 * (RFC 9457) with a remedy. {@code -Drefusals=20000 -Dseed=7} sends more.
 */
public class RefusalsTest extends OnDemo {

  private static final int REQUESTS = Integer.getInteger("refusals", 1000);
  private static final long SEED = Long.getLong("seed", 15);

  /** What people and programs have been seen to send. */
  private static final List<String> ODD =
      List.of(
          "",
          "0",
          "-1",
          "1",
          "99999999999999999999",
          "true",
          "null",
          "\u0000",
          "'",
          "\"",
          "<b>",
          "%",
          "%zz",
          "..",
          "/",
          "NaN",
          "2026-02-30",
          "2026-11-27T25:00",
          "\uD800",
          "\u202e",
          "{}",
          "[]",
          "x".repeat(5000),
          "https://host.example:99999/",
          "mailto:x",
          "Etc/Nowhere");

  private static final List<String> ACCEPTS =
      List.of(
          "*/*", "text/html", "application/xml", "image/png", ";;;", "application/json;q=x", "");

  /** The lock under which a house is laid. */
  private static final long LAYING = 7302001;

  @Override
  String[] options() {
    return new String[] {"--spring.datasource.hikari.connection-timeout=1000"};
  }

  @DataProvider
  Object[][] raw() {
    return new Object[][] {
      {"NUL in a cookie", "GET /api/v1/session HTTP/1.1", "Cookie: a=\u0000b"},
      {"bad escape", "GET /api/v1/records?find=%zz HTTP/1.1", ""},
      {"bad escape in the path", "GET /api/v1/%zz HTTP/1.1", ""},
      {"letters that are escaped", "GET /d%61v/ HTTP/1.1", ""},
      {"letters that are escaped, PROPFIND", "PROPFIND /d%61v/calendars/ HTTP/1.1", "Depth: 1"},
      {"escaped letters of the API", "GET /%61pi/v1/records HTTP/1.1", ""},
      {"odd Accept", "GET /api/v1/session HTTP/1.1", "Accept: ;;;"},
      {"no such page as HTML", "GET /nowhere.html HTTP/1.1", "Accept: text/html"},
      {"a line that is none", "GET /api/v1/sess ion HTTP/1.1", ""},
      {"a brace", "GET /api/v1/{x} HTTP/1.1", ""},
      {"an unknown method", "BREW /api/v1/session HTTP/1.1", ""},
      {"port of the host too large", "GET /api/v1/session HTTP/1.1", "X-Forwarded-Port: 99999"},
      {"a header without a name", "GET /api/v1/session HTTP/1.1", ": x"},
    };
  }

  @Test(dataProvider = "raw")
  public void whatNoClientSendsIsRefusedInWords(String what, String line, String header) {
    String answer = raw(line, header);
    int status = Integer.parseInt(answer.split(" ", 3)[1]);
    assertThat(status).as(what + ": " + answer).isLessThan(500);
    if (status >= 400) {
      assertThat(answer.toLowerCase(Locale.ROOT))
          .as(what)
          .contains("content-type: application/problem+json")
          .contains("\"detail\":");
    }
    assertThat(answer)
        .doesNotContain("<html")
        .doesNotContain("<!doctype")
        .doesNotContain("at org.");
  }

  private String raw(String line, String header) {
    try (Socket socket = new Socket("127.0.0.1", server.port())) {
      String host = "Host: 127.0.0.1:" + server.port() + "\r\nConnection: close\r\n";
      String all = line + "\r\n" + host + (header.isEmpty() ? "" : header + "\r\n") + "\r\n";
      socket.getOutputStream().write(all.getBytes(StandardCharsets.ISO_8859_1));
      ByteArrayOutputStream answer = new ByteArrayOutputStream();
      socket.getInputStream().transferTo(answer);
      return answer.toString(StandardCharsets.UTF_8);
    } catch (IOException lost) {
      throw new UncheckedIOException(lost);
    }
  }

  /** Every operation of the document with values of all sorts where it takes some. */
  @Test
  public void anyRequestIsAnsweredOrRefusedInWords() {
    JsonNode document = ContractTest.committed();
    List<ContractTest.Operation> all = new ArrayList<>(ContractTest.operations());
    // What streams without end is no answer to look at.
    all.removeIf(one -> one.path().endsWith("/events") || one.path().endsWith("/session"));
    SplittableRandom random = new SplittableRandom(SEED);
    for (int i = 0; i < REQUESTS; i++) {
      ContractTest.Operation one = all.get(i < all.size() ? i : random.nextInt(all.size()));
      send(document, one, random, "request " + i + " of seed " + SEED);
    }
  }

  private void send(
      JsonNode document, ContractTest.Operation one, SplittableRandom random, String which) {
    StringBuilder query = new StringBuilder("?");
    String path = one.path();
    for (JsonNode parameter : one.said().path("parameters")) {
      String name = parameter.get("name").asString();
      String value = ODD.get(random.nextInt(ODD.size()));
      if (parameter.get("in").asString().equals("path")) {
        String segment = value.isEmpty() || value.contains("/") || value.equals("..") ? "7" : value;
        path = path.replace("{" + name + "}", coded(random.nextInt(3) == 0 ? "1" : segment));
      } else if (parameter.get("in").asString().equals("query") && random.nextInt(3) > 0) {
        query.append(name).append('=').append(coded(value)).append('&');
      }
    }
    String body = null;
    if (one.said().has("requestBody")) {
      JsonNode schema = one.said().at("/requestBody/content/application~1json/schema");
      body = random.nextInt(8) == 0 ? "{" : made(document, schema, random, 0).toString();
    }
    Api.Answer answer =
        hana.send(
            one.method(),
            path + query,
            body,
            "Accept",
            ACCEPTS.get(random.nextInt(ACCEPTS.size())),
            "If-Match",
            random.nextBoolean() ? "*" : "\"x\"",
            "Look-First",
            "true");
    String told =
        which + ": " + one.method() + " " + path + query + " " + body + "\n" + answer.status();
    assertThat(answer.status()).as(told + answer.text()).isLessThan(500);
    if (answer.status() >= 400) {
      assertThat(answer.header("Content-Type")).as(told).startsWith("application/problem+json");
      JsonNode problem = answer.json();
      assertThat(problem.path("detail").asString()).as(told).isNotBlank();
      assertThat(answer.text())
          .as(told)
          .doesNotContain("No endpoint")
          .doesNotContain("[Ljava")
          .doesNotContain("Exception")
          .doesNotContain("org.springframework");
    }
  }

  private static String coded(String text) {
    return URLEncoder.encode(text.replace("\uD800", "?"), StandardCharsets.UTF_8)
        .replace("+", "%20");
  }

  /** A body like the schema says, with odd values here and there. */
  private static JsonNode made(
      JsonNode document, JsonNode schema, SplittableRandom random, int depth) {
    if (random.nextInt(6) == 0 || depth > 4) {
      return Api.JSON.getNodeFactory().stringNode(ODD.get(random.nextInt(ODD.size())));
    }
    if (schema.has("$ref")) {
      String name = schema.get("$ref").asString().replaceFirst(".*/", "");
      return made(document, document.at("/components/schemas/" + name), random, depth);
    }
    switch (schema.path("type").asString("")) {
      case "object" -> {
        ObjectNode found = Api.JSON.createObjectNode();
        for (Map.Entry<String, JsonNode> part : schema.path("properties").properties()) {
          if (random.nextInt(4) > 0) {
            found.set(part.getKey(), made(document, part.getValue(), random, depth + 1));
          }
        }
        return found;
      }
      case "array" -> {
        var found = Api.JSON.createArrayNode();
        for (int i = random.nextInt(3); i > 0; i--) {
          found.add(made(document, schema.path("items"), random, depth + 1));
        }
        return found;
      }
      case "integer", "number" -> {
        return Api.JSON.getNodeFactory().numberNode(random.nextLong(-2, 12));
      }
      case "boolean" -> {
        return Api.JSON.getNodeFactory().booleanNode(random.nextBoolean());
      }
      default -> {
        JsonNode choices = schema.path("enum");
        return choices.size() > 0
            ? choices.get(random.nextInt(choices.size()))
            : Api.JSON.getNodeFactory().stringNode(ODD.get(random.nextInt(ODD.size())));
      }
    }
  }

  /** A full disk is told as that, and what was sent is not half kept. */
  @Test
  public void aFullDiskIsToldAsThat() {
    Database database = server.database();
    String count = "select count(*)::text from record";
    List<String> before = database.query(count);
    database.execute(
        """
        create function full_disk() returns trigger language plpgsql as $$
        begin
          raise exception 'could not extend file' using errcode = 'disk_full';
        end $$;
        create trigger full_disk before insert on entry for each row execute function full_disk()
        """);
    try {
      Api.Answer answer =
          hana.post(
              "/api/v1/records",
              "{\"title\": \"One too many\", \"due\": {\"date\": \"2026-12-01\"}}");
      assertThat(answer.expect(507).header("Content-Type")).contains("application/problem+json");
      assertThat(answer.text()).contains("The disk is full, so nothing was changed");
      assertThat(database.query(count)).isEqualTo(before);
    } finally {
      database.execute("drop function full_disk() cascade");
    }
  }

  /** While the house is laid, nobody is answered but with when to come back. */
  @Test
  public void whileTheHouseIsLaidItSaysSo() {
    Database database = Database.empty();
    Server beginning = Server.start(database);
    try {
      database.holding(
          LAYING,
          () -> {
            beginning.listens();
            for (String path : List.of("/", "/api/v1/session", "/dav/", "/feeds/x.ics")) {
              Api.Answer answer = new Api(beginning).get(path);
              assertThat(answer.status()).as(path + answer.text()).isEqualTo(503);
              assertThat(answer.header("Retry-After")).as(path).matches("[1-9]\\d*");
              assertThat(answer.header("Content-Type")).contains("application/problem+json");
              assertThat(answer.text()).contains("The organisation is being set up");
            }
          });
      beginning.ready();
      new Api(beginning).get("/api/v1/session").expect(200);
    } finally {
      beginning.close();
    }
  }

  /** Without its database, a house says when to come back, and answers once it is there again. */
  @Test(dependsOnMethods = "anyRequestIsAnsweredOrRefusedInWords")
  public void whatCannotBeLookedUpIsToldAsThat() {
    server
        .database()
        .away(
            () -> {
              for (String path : List.of("/api/v1/records", "/api/v1/session", "/dav/")) {
                Api.Answer answer =
                    path.startsWith("/dav")
                        ? hana.dav("PROPFIND", path, null, "Depth", "0")
                        : hana.get(path);
                assertThat(answer.status()).as(path + answer.text()).isEqualTo(503);
                assertThat(answer.header("Retry-After")).as(path).matches("[1-9]\\d*");
                assertThat(answer.header("Content-Type")).contains("application/problem+json");
                assertThat(answer.text()).contains("The database is not answering");
              }
            });
    Await.until(
        "it answers again",
        Duration.ofSeconds(60),
        () -> hana.get("/api/v1/records").status() == 200);
  }
}
