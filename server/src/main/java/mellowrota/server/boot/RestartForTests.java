package mellowrota.server.boot;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import lombok.RequiredArgsConstructor;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Profile;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/**
 * Ends everything in this process and begins anew with other arguments, for tests, to which a
 * process that is warm saves the most of a start; it exists in the test profile alone.
 */
@RestController
@Profile("settable-clock")
@Hidden
@RequiredArgsConstructor
class RestartForTests {

  private final ConfigurableApplicationContext context;

  /** Answers in full first: who ends takes an answer that is under way with it. */
  @PostMapping("/test/anew")
  void begin(@RequestBody List<String> arguments, HttpServletResponse answer) throws IOException {
    answer.setStatus(HttpServletResponse.SC_ACCEPTED);
    answer.setContentLength(0);
    answer.flushBuffer();
    Thread thread =
        new Thread(
            () -> {
              context.close();
              MellowRota.main(arguments.toArray(String[]::new));
            },
            "anew");
    // A request's thread would hand on that it is a daemon, and a loader that ends with the server.
    thread.setDaemon(false);
    thread.setContextClassLoader(MellowRota.class.getClassLoader());
    thread.start();
  }
}
