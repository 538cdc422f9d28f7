package mellowrota.e2e;

import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** One person's way in: the API with a session, and calendars with an app password. */
final class Api {

  /** In place of a header's value: it is not sent, not even the usual one. */
  static final String LEFT_OUT = "";

  /** They want to know what was seen before; unless said, whatever it is like by now. */
  private static final Set<String> CHANGES = Set.of("PUT", "PATCH");

  static final JsonMapper JSON = JsonMapper.builder().build();
  private final Server server;
  private final CookieManager cookies = new CookieManager();
  private final HttpClient http =
      HttpClient.newBuilder()
          .cookieHandler(cookies)
          .version(HttpClient.Version.HTTP_1_1)
          .connectTimeout(Duration.ofSeconds(10))
          .build();
  private String appPassword = "";

  Api(Server server) {
    this.server = server;
  }

  /** What came back. */
  record Answer(int status, Map<String, List<String>> headers, byte[] bytes) {
    String text() {
      return new String(bytes, StandardCharsets.UTF_8);
    }

    JsonNode json() {
      return JSON.readTree(bytes);
    }

    List<String> headers(String name) {
      return headers.entrySet().stream()
          .filter(one -> one.getKey().equalsIgnoreCase(name))
          .flatMap(one -> one.getValue().stream())
          .toList();
    }

    String header(String name) {
      for (Map.Entry<String, List<String>> header : headers.entrySet()) {
        if (header.getKey().equalsIgnoreCase(name)) {
          return header.getValue().get(0);
        }
      }
      return "";
    }

    Answer expect(int wanted) {
      if (status != wanted) {
        throw new AssertionError("wanted " + wanted + ", got " + status + ": " + text());
      }
      return this;
    }
  }

  /** One of the demo's people, signed in. */
  static Api of(Server server, String first) {
    Api api = new Api(server);
    api.appPassword = first + "@quillwater.example:still-water-" + first;
    api.signIn(first + "@quillwater.example", "still-water").expect(200);
    return api;
  }

  Answer signIn(String email, String password) {
    get("/api/v1/session");
    Answer answer =
        post(
            "/api/v1/session",
            JSON.createObjectNode().put("email", email).put("password", password).toString());
    get("/api/v1/session");
    return answer;
  }

  /** Of the session. */
  List<HttpCookie> cookies() {
    return cookies.getCookieStore().getCookies();
  }

  Api withAppPassword(String userAndPassword) {
    appPassword = userAndPassword;
    return this;
  }

  Answer get(String path, String... headers) {
    return send("GET", path, null, headers);
  }

  Answer post(String path, String body, String... headers) {
    return send("POST", path, body, headers);
  }

  Answer patch(String path, String body, String... headers) {
    return send("PATCH", path, body, headers);
  }

  Answer put(String path, String body, String... headers) {
    return send("PUT", path, body, headers);
  }

  Answer delete(String path) {
    return send("DELETE", path, null);
  }

  Answer send(String method, String path, String body, String... headers) {
    byte[] bytes = body == null ? null : body.getBytes(StandardCharsets.UTF_8);
    return sendBytes(method, path, bytes, headers);
  }

  Answer sendBytes(String method, String path, byte[] body, String... headers) {
    HttpRequest.Builder request =
        request(method, path, body).header("X-XSRF-TOKEN", cookie("XSRF-TOKEN"));
    List<String> all = new ArrayList<>(List.of(headers));
    if (body != null && !all.contains("Content-Type")) {
      all.addAll(List.of("Content-Type", "application/json"));
    }
    if (path.startsWith("/api/") && CHANGES.contains(method) && !all.contains("If-Match")) {
      all.addAll(List.of("If-Match", "*"));
    }
    for (int i = 0; i < all.size(); i += 2) {
      if (!all.get(i + 1).equals(LEFT_OUT)) {
        request.setHeader(all.get(i), all.get(i + 1));
      }
    }
    return exchange(request.build());
  }

  private HttpRequest.Builder request(String method, String path, byte[] body) {
    return HttpRequest.newBuilder(URI.create(server.url(path)))
        .timeout(Duration.ofSeconds(60))
        .method(
            method,
            body == null
                ? HttpRequest.BodyPublishers.noBody()
                : HttpRequest.BodyPublishers.ofByteArray(body));
  }

  private Answer exchange(HttpRequest request) {
    try {
      HttpResponse<byte[]> response = http.send(request, HttpResponse.BodyHandlers.ofByteArray());
      return new Answer(response.statusCode(), response.headers().map(), response.body());
    } catch (IOException lost) {
      throw new java.io.UncheckedIOException(lost);
    } catch (InterruptedException stopped) {
      throw new AssertionError(stopped);
    }
  }

  String cookie(String name) {
    return cookies.getCookieStore().getCookies().stream()
        .filter(cookie -> cookie.getName().equals(name))
        .map(HttpCookie::getValue)
        .findFirst()
        .orElse("");
  }

  /** What a stream tells first; then it is closed. */
  Answer firstOfStream(String path) {
    try {
      HttpResponse<java.io.InputStream> response =
          http.send(request("GET", path, null).build(), HttpResponse.BodyHandlers.ofInputStream());
      try (java.io.InputStream in = response.body()) {
        byte[] some = new byte[64];
        int read = in.read(some);
        return new Answer(
            response.statusCode(),
            response.headers().map(),
            java.util.Arrays.copyOf(some, Math.max(read, 0)));
      }
    } catch (IOException lost) {
      throw new java.io.UncheckedIOException(lost);
    } catch (InterruptedException stopped) {
      throw new AssertionError(stopped);
    }
  }

  /** A CalDAV request with the app password. */
  Answer dav(String method, String path, String body, String... headers) {
    byte[] bytes = body == null ? null : body.getBytes(StandardCharsets.UTF_8);
    HttpRequest.Builder request =
        request(method, path, bytes)
            .header(
                "Authorization",
                "Basic "
                    + Base64.getEncoder()
                        .encodeToString(appPassword.getBytes(StandardCharsets.UTF_8)));
    for (int i = 0; i < headers.length; i += 2) {
      request.setHeader(headers[i], headers[i + 1]);
    }
    return exchange(request.build());
  }

  /** Has what clashes only warned of, for tests that are about something else. */
  Api warned() {
    return minding("WARN");
  }

  /** Sets how far what is never allowed in a house as it begins is minded. */
  Api minding(String level) {
    String limit = "{\"kind\": \"%s\", \"level\": \"" + level + "\"}";
    put(
            "/api/v1/limits",
            "{\"limits\": [%s, %s, %s]}"
                .formatted(
                    limit.formatted("DOUBLE"), limit.formatted("LEAVE"), limit.formatted("SKILL")))
        .expect(204);
    return this;
  }

  /** Makes a record and gives its number. */
  long record(String body) {
    return post("/api/v1/records", body).expect(201).json().get("record").get("id").asLong();
  }

  /** Changes a record as it now is, and gives the act's number. */
  long change(long record, String body) {
    return patch("/api/v1/records/" + record, body, "If-Match", "*")
        .expect(200)
        .json()
        .get("act")
        .asLong();
  }

  /** The number of somebody or something by name, from a list of the API. */
  long idOf(String list, String name) {
    for (JsonNode item : get("/api/v1/" + list).expect(200).json()) {
      if (item.get("name").asString().equals(name)) {
        return item.get("id").asLong();
      }
    }
    throw new AssertionError("no " + name + " in " + list);
  }
}
