package mellowrota.bench;

import java.io.IOException;
import java.io.InputStream;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Base64;

/** The demo's coordinator, over HTTP and CalDAV. */
final class DemoClient {
  private final String server;
  private final CookieManager cookies = new CookieManager();
  private final HttpClient http =
      HttpClient.newBuilder().cookieHandler(cookies).version(HttpClient.Version.HTTP_1_1).build();

  DemoClient(String server) throws Exception {
    this.server = server;
    send("GET", "/api/v1/session", null);
    send(
        "POST",
        "/api/v1/session",
        "{\"email\": \"hana@quillwater.example\", \"password\": \"still-water\"}");
    send("GET", "/api/v1/session", null);
  }

  /** The plainest client there is: it shares the machine with what is measured. */
  void post(String path, String body) throws IOException {
    HttpURLConnection connection =
        (HttpURLConnection) URI.create(server + path).toURL().openConnection();
    StringBuilder cookie = new StringBuilder();
    for (HttpCookie one : cookies.getCookieStore().getCookies()) {
      cookie.append(one.getName()).append('=').append(one.getValue()).append("; ");
      if (one.getName().equals("XSRF-TOKEN")) {
        connection.setRequestProperty("X-XSRF-TOKEN", one.getValue());
      }
    }
    connection.setRequestProperty("Cookie", cookie.toString());
    connection.setRequestProperty("Content-Type", "application/json");
    connection.setDoOutput(true);
    connection.getOutputStream().write(body.getBytes(StandardCharsets.UTF_8));
    if (connection.getResponseCode() != 201) {
      throw new IllegalStateException(path + " answered " + connection.getResponseCode());
    }
    try (InputStream answer = connection.getInputStream()) {
      answer.readAllBytes();
    }
  }

  String send(String method, String path, String body) throws Exception {
    String token =
        cookies.getCookieStore().getCookies().stream()
            .filter(c -> c.getName().equals("XSRF-TOKEN"))
            .map(HttpCookie::getValue)
            .findFirst()
            .orElse("");
    return answer(
        HttpRequest.newBuilder(URI.create(server + path))
            .header("Content-Type", "application/json")
            .header("X-XSRF-TOKEN", token)
            .header("If-Match", "*")
            .method(method, publisher(body))
            .build());
  }

  String dav(String method, String path, String body, String depth) throws Exception {
    String user =
        Base64.getEncoder()
            .encodeToString(
                "hana@quillwater.example:still-water-hana".getBytes(StandardCharsets.UTF_8));
    return answer(
        HttpRequest.newBuilder(URI.create(server + path))
            .header("Authorization", "Basic " + user)
            .header("Depth", depth)
            .method(method, publisher(body))
            .build());
  }

  private HttpRequest.BodyPublisher publisher(String body) {
    return body == null || body.isEmpty()
        ? HttpRequest.BodyPublishers.noBody()
        : HttpRequest.BodyPublishers.ofString(body);
  }

  private String answer(HttpRequest request) throws IOException, InterruptedException {
    HttpResponse<String> response = http.send(request, HttpResponse.BodyHandlers.ofString());
    if (response.statusCode() >= 300) {
      throw new IllegalStateException(response.statusCode() + " " + response.body());
    }
    return response.body();
  }
}
