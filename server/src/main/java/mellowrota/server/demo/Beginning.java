package mellowrota.server.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.server.accounts.Accounts;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.platform.Progress;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Before the server says it is ready: lays the house, and the demo or a way in. */
@Component
@RequiredArgsConstructor
class Beginning implements ApplicationRunner {

  private final NewHouse newHouse;
  private final DemoWorld demoWorld;
  private final HouseStore house;
  private final Accounts accounts;
  private final TransactionTemplate transaction;

  @Value("${mellow.demo}")
  private final boolean demo;

  @Value("${mellow.setup-link}")
  private final String setupLink;

  private final DemoLinks links;
  private final Progress progress;

  @Override
  public void run(ApplicationArguments arguments) throws IOException {
    boolean laid = Boolean.TRUE.equals(transaction.execute(status -> lay()));
    if (laid && demo) {
      progress.at("linking the demo's calendars elsewhere");
      links.link(house.people());
    }
    boolean nobody = house.people().stream().noneMatch(Person::isCoordinator);
    if (nobody && !setupLink.isEmpty()) {
      Files.writeString(Path.of(setupLink), "/welcome/" + accounts.invite(Optional.empty()));
    }
  }

  /** House and demo in one transaction: half a demo is never kept. */
  private boolean lay() {
    String name = demo ? "Quillwater Navigation" : "Our house";
    ZoneId zone = demo ? ZoneId.of("Europe/London") : localZone();
    boolean laid = newHouse.layIfMissing(name, zone, demo);
    if (laid && demo) {
      demoWorld.load();
    }
    return laid;
  }

  private static ZoneId localZone() {
    ZoneId system = ZoneId.systemDefault();
    return ZoneId.getAvailableZoneIds().contains(system.getId()) ? system : ZoneId.of("UTC");
  }
}
