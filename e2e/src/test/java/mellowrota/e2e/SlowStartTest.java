package mellowrota.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.function.IntConsumer;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/**
 * What {@code ./start} does while a server begins: it waits for as long as that one gets on, far
 * beyond the time that nothing at all may happen, and each way to end says why.
 */
public class SlowStartTest {

  /** A tenth of a second passes between two, and one second of nothing is too much here. */
  private static final int ASKED = 40;

  private static final String IDLE = "sleep 1000";
  private static final String WORKING = "while :; do :; done";

  /** How it ended, and all that was said. */
  private record Ended(int code, String said) {}

  private HttpServer health;
  private Path progress;
  private Path log;
  private IntConsumer asked;

  @BeforeMethod
  public void begin() throws IOException {
    Path work =
        Files.createTempDirectory(Path.of(Database.environment("MELLOW_TEST_WORK")), "slow");
    progress = work.resolve("progress");
    log = Files.writeString(work.resolve("log"), "a line\nCaused by: the folder is gone\n");
    asked = times -> {};
    int[] times = {0};
    health = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
    health.createContext(
        "/actuator/health/readiness",
        exchange -> {
          asked.accept(++times[0]);
          String state = times[0] < ASKED ? "OUT_OF_SERVICE" : "UP";
          byte[] answer = "{\"status\":\"%s\"}".formatted(state).getBytes(StandardCharsets.UTF_8);
          exchange.sendResponseHeaders(state.equals("UP") ? 200 : 503, answer.length);
          exchange.getResponseBody().write(answer);
          exchange.close();
        });
    health.start();
  }

  @AfterMethod(alwaysRun = true)
  public void end() {
    health.stop(0);
  }

  private Ended await(String server) throws IOException, InterruptedException {
    String script =
        """
        . "%s"
        (%s) &
        pid=$!
        trap 'kill $pid 2>/dev/null || true' EXIT
        await_ready $pid %d "%s" "%s"
        """
            .formatted(
                Path.of("..", "scripts", "common.sh").toRealPath(),
                server,
                health.getAddress().getPort(),
                progress,
                log);
    ProcessBuilder bash = new ProcessBuilder(List.of("bash", "-c", script));
    bash.environment().put("MELLOW_QUIET_AT_MOST", "1");
    Process process = bash.redirectErrorStream(true).start();
    String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    return new Ended(process.waitFor(), said);
  }

  private void progresses(String at) {
    try {
      Files.writeString(progress, at);
    } catch (IOException failure) {
      throw new UncheckedIOException(failure);
    }
  }

  @Test
  public void oneThatWorksIsWaitedFor() throws Exception {
    assertThat(await(WORKING)).isEqualTo(new Ended(0, ""));
  }

  @Test
  public void oneThatGetsOnIsWaitedForAndSaysAtWhat() throws Exception {
    asked = times -> progresses("laying the demo, %d of %d".formatted(times, ASKED));
    Ended ended = await(IDLE);
    assertThat(ended.code()).as(ended.said()).isZero();
    assertThat(ended.said()).containsPattern("… laying the demo, \\d+ of 40");
  }

  @Test
  public void oneThatDoesNothingIsGivenUpWithWhatItWasAt() throws Exception {
    progresses("migrating");
    assertThat(await(IDLE))
        .isEqualTo(
            new Ended(
                1,
                "The server has done nothing for 1 s while it was migrating; see " + log + "\n"));
  }

  @Test
  public void oneThatEndsIsToldWithItsCodeAndItsLastWords() throws Exception {
    assertThat(await("exit 3"))
        .isEqualTo(
            new Ended(
                1,
                "Caused by: the folder is gone\nThe server ended by itself (code 3) while it was"
                    + " beginning; see "
                    + log
                    + "\n"));
  }
}
