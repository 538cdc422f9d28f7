package mellowrota.e2e;

import java.io.File;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;

/** A server process, as it would run for real. */
final class Server implements AutoCloseable {

  /** What sets when a server's clock begins. */
  static final String NOW_IS = "--mellow.test-now=";

  private static final HttpClient HTTP = HttpClient.newHttpClient();

  /** A process and where it writes; it serves one server after another. */
  private record Runs(Process process, Path log) {}

  /** Closed servers, whose processes are warm. */
  private static final Queue<Server> WARM = new ConcurrentLinkedQueue<>();

  private static Server shared;

  static {
    Runtime.getRuntime().addShutdownHook(new Thread(Server::endAll));
  }

  private final Database database;
  private final List<String> arguments;
  private final int port;
  private Runs runs;
  private long logBegins;
  private boolean closed;

  private Server(Database database, int port, List<String> arguments) {
    this.database = database;
    this.port = port;
    this.arguments = arguments;
  }

  /** Begins a process; {@link #ready} waits for it. */
  static Server start(Database database, String... arguments) {
    Server server = new Server(database, freePort(), List.of(arguments));
    server.begin();
    return server;
  }

  /** Begins anew in a process that is warm, where there is one. */
  static Server started(Database database, String... arguments) {
    for (Server warm = WARM.poll(); warm != null; warm = WARM.poll()) {
      // One that was closed before it was ready is of no use to anybody.
      if (warm.health()) {
        return warm.movedTo(database, arguments);
      }
      warm.kill();
    }
    Server server = start(database, arguments);
    server.ready();
    return server;
  }

  /** The process of this one begins anew, as another server. */
  Server movedTo(Database other, String... others) {
    Server server = new Server(other, freePort(), List.of(others));
    server.runs = runs;
    server.logBegins = runs.log().toFile().length();
    post(url("/test/anew"), Api.JSON.writeValueAsString(server.settings()));
    server.ready();
    return server;
  }

  /**
   * One server on a copy of the demo for all tests that keep to records and people of their own.
   */
  static synchronized Server shared() {
    if (shared == null) {
      shared = started(Database.demo());
    }
    return shared;
  }

  static int freePort() {
    try (ServerSocket socket = new ServerSocket(0)) {
      return socket.getLocalPort();
    } catch (IOException none) {
      throw new AssertionError(none);
    }
  }

  void begin() {
    Path app = Path.of(Database.environment("MELLOW_TEST_APP"));
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    command.addAll(
        List.of(
            "-Xmx512m",
            "-XX:+UseSerialGC",
            "-XX:TieredStopAtLevel=1",
            // With one tier it would be so small that code is thrown out and compiled again.
            "-XX:ReservedCodeCacheSize=160m",
            "-Xlog:disable"));
    File archive = app.resolve("app.jsa").toFile();
    if (archive.length() > 0) {
      command.add("-XX:SharedArchiveFile=" + archive);
    }
    command.addAll(List.of("-jar", app.resolve("server.jar").toString()));
    command.addAll(settings());
    Path log = Path.of(Database.environment("MELLOW_TEST_WORK"), "server-" + port + ".log");
    ProcessBuilder builder = new ProcessBuilder(command);
    builder.environment().put("MELLOW_DB_PASSWORD", Database.password());
    builder
        .environment()
        .put("MELLOW_WEB", "file:" + Database.environment("MELLOW_TEST_WEB") + "/");
    builder
        .redirectErrorStream(true)
        .redirectOutput(ProcessBuilder.Redirect.appendTo(log.toFile()));
    try {
      runs = new Runs(builder.start(), log);
      logBegins = 0;
    } catch (IOException failure) {
      throw new AssertionError("the server cannot be started", failure);
    }
  }

  private List<String> settings() {
    List<String> all = new ArrayList<>();
    all.add("--spring.profiles.active=settable-clock");
    if (arguments.stream().noneMatch(one -> one.startsWith(NOW_IS))) {
      all.add(NOW_IS + Demo.NOW);
    }
    all.add("--mellow.attempts-per-address=100000");
    // Tests sign in many times and start often; what is kept and pooled is as ever.
    all.add("--mellow.password-strength=4");
    all.add("--spring.datasource.hikari.minimum-idle=1");
    all.add("--MELLOW_DB_URL=" + database.url());
    all.add("--MELLOW_PORT=" + port);
    all.add("--MELLOW_KEYS=" + database.keys());
    all.addAll(arguments);
    return all;
  }

  void ready() {
    Await.until(
        "the server is ready",
        Duration.ofSeconds(120),
        () -> {
          if (!runs.process().isAlive()) {
            throw new AssertionError("the server ended:\n" + log());
          }
          return health();
        });
  }

  /** Waits until its port answers, whatever it says. */
  void listens() {
    Await.until(
        "the server listens",
        Duration.ofSeconds(120),
        () -> {
          try (Socket socket = new Socket("127.0.0.1", port)) {
            return socket.isConnected();
          } catch (IOException notYet) {
            return false;
          }
        });
  }

  /** Waits through a kill and a new beginning. */
  void answersAgain() {
    Await.until("the server answers again", Duration.ofSeconds(120), this::health);
  }

  private boolean health() {
    try {
      HttpRequest request =
          HttpRequest.newBuilder(URI.create(url("/actuator/health/readiness"))).build();
      return HTTP.send(request, HttpResponse.BodyHandlers.ofString()).statusCode() == 200;
    } catch (IOException notYet) {
      return false;
    } catch (InterruptedException stopped) {
      throw new AssertionError(stopped);
    }
  }

  String url(String path) {
    return "http://127.0.0.1:" + port + path;
  }

  int port() {
    return port;
  }

  Database database() {
    return database;
  }

  /** What it has written. */
  String log() {
    try (RandomAccessFile log = new RandomAccessFile(runs.log().toFile(), "r")) {
      byte[] written = new byte[(int) (log.length() - logBegins)];
      log.seek(logBegins);
      log.readFully(written);
      return new String(written, StandardCharsets.UTF_8);
    } catch (IOException failure) {
      throw new AssertionError(failure);
    }
  }

  /** As if the machine lost power. */
  void kill() {
    runs.process().destroyForcibly();
    waitForEnd();
  }

  /** How long a clean stop takes. */
  Duration stop() {
    long from = System.nanoTime();
    runs.process().destroy();
    waitForEnd();
    return Duration.ofNanos(System.nanoTime() - from);
  }

  private static synchronized void endAll() {
    WARM.forEach(Server::kill);
    if (shared != null) {
      shared.kill();
    }
  }

  private void waitForEnd() {
    try {
      if (!runs.process().waitFor(30, TimeUnit.SECONDS)) {
        runs.process().destroyForcibly();
        throw new AssertionError("the server did not stop in 30 s");
      }
    } catch (InterruptedException stopped) {
      throw new AssertionError(stopped);
    }
  }

  /** Sets the house's clock. */
  void setClock(String instant) {
    post(url("/test/clock?now=" + instant), "");
  }

  private static void post(String url, String body) {
    try {
      HttpResponse<String> answer =
          HTTP.send(
              HttpRequest.newBuilder(URI.create(url))
                  .header("Content-Type", "application/json")
                  .POST(HttpRequest.BodyPublishers.ofString(body))
                  .build(),
              HttpResponse.BodyHandlers.ofString());
      if (answer.statusCode() / 100 != 2) {
        throw new AssertionError(url + ": " + answer.statusCode() + " " + answer.body());
      }
    } catch (IOException | InterruptedException failure) {
      throw new AssertionError(url, failure);
    }
  }

  /** Leaves the process to the next server, once, unless it has been ended. */
  @Override
  public void close() {
    if (!closed && runs.process().isAlive()) {
      closed = true;
      WARM.add(this);
    }
  }
}
