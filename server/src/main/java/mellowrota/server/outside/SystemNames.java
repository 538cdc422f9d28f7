package mellowrota.server.outside;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Hashtable;
import java.util.List;
import javax.naming.NamingException;
import javax.naming.directory.Attribute;
import javax.naming.directory.DirContext;
import javax.naming.directory.InitialDirContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** The machine's own name service. */
@Component
class SystemNames implements Names {

  private static final Logger LOG = LoggerFactory.getLogger(SystemNames.class);
  private static final String MILLIS = "2000";

  @Override
  public List<InetAddress> addresses(String host) throws UnknownHostException {
    return List.of(InetAddress.getAllByName(host));
  }

  @Override
  public List<Service> calendars(String domain) {
    String name = "_caldavs._tcp." + domain;
    try {
      List<Ranked> found = new ArrayList<>();
      for (String one : records(name, "SRV")) {
        String[] parts = one.split(" ");
        String host =
            parts[3].endsWith(".") ? parts[3].substring(0, parts[3].length() - 1) : parts[3];
        if (!host.isEmpty()) {
          found.add(
              new Ranked(
                  Integer.parseInt(parts[0]),
                  -Integer.parseInt(parts[1]),
                  new Service(host, Integer.parseInt(parts[2]), path(name))));
        }
      }
      found.sort(Comparator.comparingInt(Ranked::priority).thenComparingInt(Ranked::heaviest));
      return found.stream().map(Ranked::service).toList();
    } catch (NamingException | RuntimeException none) {
      LOG.debug("no service record for {}", name, none);
      return List.of();
    }
  }

  private record Ranked(int priority, int heaviest, Service service) {}

  private static String path(String name) {
    try {
      return records(name, "TXT").stream()
          .map(text -> text.replace("\"", ""))
          .filter(text -> text.startsWith("path="))
          .map(text -> text.substring("path=".length()))
          .findFirst()
          .orElse("");
    } catch (NamingException none) {
      return "";
    }
  }

  private static List<String> records(String name, String type) throws NamingException {
    Hashtable<String, String> environment = new Hashtable<>();
    environment.put("java.naming.factory.initial", "com.sun.jndi.dns.DnsContextFactory");
    environment.put("com.sun.jndi.dns.timeout.initial", MILLIS);
    environment.put("com.sun.jndi.dns.timeout.retries", "1");
    DirContext context = new InitialDirContext(environment);
    try {
      Attribute found = context.getAttributes(name, new String[] {type}).get(type);
      List<String> all = new ArrayList<>();
      for (int i = 0; found != null && i < found.size(); i++) {
        all.add(String.valueOf(found.get(i)));
      }
      return all;
    } finally {
      context.close();
    }
  }
}
