package mellowrota.server.cover;

import java.util.stream.Stream;
import mellowrota.server.platform.Locks;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Profile;

/**
 * Whoever gives work to the same people, or in the same places, at the same time waits, and then
 * sees what was given.
 */
interface AssignLock {

  /** Until the end of the transaction. */
  void take(SaveTrial.Touched touched);

  /** How it is taken, and the control of the test that asks for it. */
  @Configuration
  class Ways {

    @Bean
    @Profile("!assign-control")
    AssignLock assignLock(Locks locks) {
      return touched ->
          locks.alone(
              Stream.concat(
                      touched.people().stream().map(one -> "time/" + one),
                      touched.places().stream().map(one -> "room/" + one))
                  .toList());
    }

    /** Nobody waits for anybody. */
    @Bean
    @Profile("assign-control")
    AssignLock noAssignLock() {
      return touched -> {};
    }
  }
}
