package mellowrota.e2e;

import java.io.File;
import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** A server process, as it would run for real. */
final class Server implements AutoCloseable {

  private static final HttpClient HTTP = HttpClient.newHttpClient();
  private final Database database;
  private final List<String> arguments;
  private final int port;
  private final Path log;
  private Process process;

  private Server(Database database, int port, List<String> arguments) {
    this.database = database;
    this.port = port;
    this.arguments = arguments;
    this.log = Path.of(Database.environment("MELLOW_TEST_WORK"), "server-" + port + ".log");
  }

  /** Begins a process; {@link #ready} waits for it. */
  static Server start(Database database, String... arguments) {
    Server server = new Server(database, freePort(), List.of(arguments));
    server.begin();
    return server;
  }

  static Server started(Database database, String... arguments) {
    Server server = start(database, arguments);
    server.ready();
    return server;
  }

  private static Server shared;

  /**
   * One server on a copy of the demo for all tests that keep to records and people of their own.
   */
  static synchronized Server shared() {
    if (shared == null) {
      shared = started(Database.demo());
      Runtime.getRuntime().addShutdownHook(new Thread(shared::close));
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
        List.of("-Xmx512m", "-XX:+UseSerialGC", "-XX:TieredStopAtLevel=1", "-Xlog:disable"));
    File archive = app.resolve("app.jsa").toFile();
    if (archive.length() > 0) {
      command.add("-XX:SharedArchiveFile=" + archive);
    }
    command.addAll(List.of("-jar", app.resolve("server.jar").toString()));
    command.add("--spring.profiles.active=settable-clock");
    command.add("--mellow.test-now=" + Demo.NOW);
    command.add("--mellow.attempts-per-address=100000");
    command.addAll(arguments);
    ProcessBuilder builder = new ProcessBuilder(command);
    builder.environment().put("MELLOW_DB_URL", database.url());
    builder.environment().put("MELLOW_DB_PASSWORD", Database.password());
    builder.environment().put("MELLOW_PORT", Integer.toString(port));
    builder.environment().put("MELLOW_KEYS", database.keys().toString());
    builder
        .environment()
        .put("MELLOW_WEB", "file:" + Database.environment("MELLOW_TEST_WEB") + "/");
    builder
        .redirectErrorStream(true)
        .redirectOutput(ProcessBuilder.Redirect.appendTo(log.toFile()));
    try {
      process = builder.start();
    } catch (IOException failure) {
      throw new AssertionError("the server cannot be started", failure);
    }
  }

  void ready() {
    Await.until(
        "the server is ready",
        Duration.ofSeconds(120),
        () -> {
          if (!process.isAlive()) {
            throw new AssertionError("the server ended:\n" + log());
          }
          return health();
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

  String log() {
    try {
      return Files.readString(log);
    } catch (IOException missing) {
      return "";
    }
  }

  /** As if the machine lost power. */
  void kill() {
    process.destroyForcibly();
    waitForEnd();
  }

  /** How long a clean stop takes. */
  Duration stop() {
    long from = System.nanoTime();
    process.destroy();
    waitForEnd();
    return Duration.ofNanos(System.nanoTime() - from);
  }

  private void waitForEnd() {
    try {
      if (!process.waitFor(30, TimeUnit.SECONDS)) {
        process.destroyForcibly();
        throw new AssertionError("the server did not stop in 30 s");
      }
    } catch (InterruptedException stopped) {
      throw new AssertionError(stopped);
    }
  }

  /** Sets the house's clock. */
  void setClock(String instant) {
    try {
      HTTP.send(
          HttpRequest.newBuilder(URI.create(url("/test/clock?now=" + instant)))
              .POST(HttpRequest.BodyPublishers.noBody())
              .build(),
          HttpResponse.BodyHandlers.discarding());
    } catch (IOException | InterruptedException failure) {
      throw new AssertionError(failure);
    }
  }

  @Override
  public void close() {
    if (process.isAlive()) {
      kill();
    }
  }
}
