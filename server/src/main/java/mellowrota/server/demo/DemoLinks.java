package mellowrota.server.demo;

import java.util.Collection;
import java.util.Map;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.Person;
import mellowrota.server.links.Links;
import mellowrota.server.outside.OutsideFault;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * Links some of the demo's people to accounts at the host that was started beside it, if one was.
 */
@Component
@RequiredArgsConstructor
class DemoLinks {

  private static final Logger LOG = LoggerFactory.getLogger(DemoLinks.class);

  /** Whose calendar is linked, with the account's name. */
  private static final Map<String, String> ACCOUNTS =
      Map.of(
          "Hana Vesely", "hana",
          "Ines Okafor", "ines",
          "Tam Birtles", "tam",
          "Joss Hallard", "joss",
          "Nell Ashdown", "nell");

  private final Links links;

  @Value("${mellow.demo-host:}")
  private final String host;

  void link(Collection<Person> people) {
    if (host.isEmpty()) {
      return;
    }
    for (Person person : people) {
      String account = ACCOUNTS.get(person.name());
      if (account != null) {
        try {
          links.linkOwn(person.id(), host, account, "still-water-" + account);
        } catch (OutsideFault fault) {
          LOG.warn("the demo's host does not answer: {}", fault.getMessage());
        }
      }
    }
  }
}
