package mellowrota.server.boot;

import io.swagger.v3.oas.annotations.Hidden;
import java.util.List;
import lombok.RequiredArgsConstructor;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Profile;
import org.springframework.http.ResponseEntity;
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

  @PostMapping("/test/anew")
  ResponseEntity<Void> begin(@RequestBody List<String> arguments) {
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
    return ResponseEntity.accepted().build();
  }
}
