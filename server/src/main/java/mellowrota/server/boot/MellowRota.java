package mellowrota.server.boot;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.persistence.autoconfigure.EntityScan;
import org.springframework.boot.security.autoconfigure.UserDetailsServiceAutoConfiguration;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Starts the server. */
@SpringBootApplication(
    scanBasePackages = "mellowrota.server",
    exclude = UserDetailsServiceAutoConfiguration.class)
@EntityScan("mellowrota.server")
@EnableScheduling
public class MellowRota {

  public static void main(String[] args) {
    // ical4j would otherwise look for newer zone data on the network.
    System.setProperty("net.fortuna.ical4j.timezone.update.enabled", "false");
    SpringApplication.run(MellowRota.class, args);
  }
}
