package mellowrota.server.outside;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.List;

/** What the domain name system says; behind an interface, since answers may change at any time. */
public interface Names {

  /** The addresses of a host, or of an address written as text. */
  List<InetAddress> addresses(String host) throws UnknownHostException;

  /**
   * A service of a domain (RFC 2782), best first.
   *
   * @param path from the TXT record beside it (RFC 6764 §4); empty: none
   */
  record Service(String host, int port, String path) {}

  /** Where a domain says that its calendars are (RFC 6764 §3); none where it says nothing. */
  List<Service> calendars(String domain);
}
