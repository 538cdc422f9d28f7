package mellowrota.server.boot;

import io.swagger.v3.oas.annotations.Hidden;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Profile;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** A clock that tests set; it exists in the test profile alone and goes on from where it is set. */
@Configuration
@Profile("settable-clock")
class SettableClock {

  /** Runs, shifted. */
  static final class Shifted extends Clock {
    private volatile Duration shift = Duration.ZERO;

    @Override
    public ZoneId getZone() {
      return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
      return Clock.offset(Clock.system(zone), shift);
    }

    @Override
    public Instant instant() {
      return Clock.systemUTC().instant().plus(shift);
    }

    void set(Instant now) {
      shift = Duration.between(Clock.systemUTC().instant(), now);
    }
  }

  @Bean
  Shifted shifted(
      @org.springframework.beans.factory.annotation.Value("${mellow.test-now:}") String now) {
    Shifted clock = new Shifted();
    if (!now.isEmpty()) {
      clock.set(Instant.parse(now));
    }
    return clock;
  }

  @RestController
  @Profile("settable-clock")
  @Hidden
  static class Setting {
    private final Shifted clock;

    Setting(Shifted clock) {
      this.clock = clock;
    }

    @PostMapping("/test/clock")
    ResponseEntity<Void> set(@RequestParam String now) {
      clock.set(Instant.parse(now));
      return ResponseEntity.noContent().build();
    }
  }
}
