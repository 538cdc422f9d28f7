package mellowrota.server.outside;

import static mellowrota.server.platform.Words.say;

import java.net.Inet4Address;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * Decides which addresses may be reached. What is inside this machine or its network never is,
 * unless an allow-list names it: whoever links a calendar names any address they like. Asked at
 * every connection, since a name may mean another address a moment later.
 */
@Component
class Guard {

  private static final int LAST_PORT = 65_535;

  private final Names names;
  private final Set<String> allowed;

  /**
   * @param allowed hosts with their ports, {@code 127.0.0.1:9000}, that may be reached all the
   *     same, and by plain HTTP
   */
  Guard(Names names, @Value("${mellow.outside.allow:}") String allowed) {
    this.names = names;
    this.allowed =
        Arrays.stream(allowed.split(","))
            .map(one -> one.strip().toLowerCase(Locale.ROOT))
            .filter(one -> !one.isEmpty())
            .collect(Collectors.toSet());
  }

  /** Refuses an address that cannot be meant, before anything is sent. */
  URI check(URI address) throws OutsideFault {
    String host = address.getHost();
    if (address.getPort() > LAST_PORT) {
      throw OutsideFault.of(OutsideFault.Kind.ADDRESS, say("outside.a-port-must-be", LAST_PORT));
    }
    if (host == null || address.getRawUserInfo() != null || address.getRawFragment() != null) {
      throw OutsideFault.of(OutsideFault.Kind.ADDRESS, say("outside.the-address-must-be"));
    }
    boolean named = isNamed(host, port(address));
    if (!"https".equalsIgnoreCase(address.getScheme()) && !named) {
      throw OutsideFault.of(OutsideFault.Kind.ADDRESS, say("outside.only-https-is-allowed"));
    }
    return address;
  }

  private static int port(URI address) {
    return address.getPort() >= 0
        ? address.getPort()
        : "http".equalsIgnoreCase(address.getScheme()) ? 80 : 443;
  }

  private boolean isNamed(String host, int port) {
    return allowed.contains(host.toLowerCase(Locale.ROOT) + ":" + port);
  }

  /** The addresses to connect to; refuses the whole name if any of them is inside. */
  List<InetAddress> addresses(String host, int port) throws UnknownHostException {
    List<InetAddress> found = names.addresses(host);
    if (!isNamed(host, port)) {
      for (InetAddress one : found) {
        if (isInside(one)) {
          throw new InsideException(host);
        }
      }
    }
    return found;
  }

  /** The name means an address inside. */
  static final class InsideException extends UnknownHostException {
    private static final long serialVersionUID = 1;

    InsideException(String host) {
      super(host + " is inside this network");
    }
  }

  /** RFC 6890's special-purpose blocks, and IPv6 forms that carry an IPv4 address. */
  static boolean isInside(InetAddress address) {
    byte[] b = address.getAddress();
    if (address instanceof Inet4Address) {
      return isInside4(b);
    }
    if (address.isLoopbackAddress()
        || address.isAnyLocalAddress()
        || address.isLinkLocalAddress()
        || address.isSiteLocalAddress()
        || address.isMulticastAddress()
        || (b[0] & 0xfe) == 0xfc) {
      return true;
    }
    return isInside6(b);
  }

  /** Addresses that carry one of the old sort are judged by that. */
  private static boolean isInside6(byte[] b) {
    int head = (b[0] & 0xff) << 8 | b[1] & 0xff;
    int next = (b[2] & 0xff) << 8 | b[3] & 0xff;
    if (head == 0x2002) {
      return isInside4(Arrays.copyOfRange(b, 2, 6));
    }
    if (head == 0x2001 && next == 0) {
      // Teredo: the client's address is written upside down at the end.
      byte[] client = Arrays.copyOfRange(b, 12, 16);
      for (int i = 0; i < 4; i++) {
        client[i] = (byte) ~client[i];
      }
      return isInside4(client) || isInside4(Arrays.copyOfRange(b, 4, 8));
    }
    if (head == 0x0064 && next == 0xff9b || isZero(b, 0, 10)) {
      return isInside4(Arrays.copyOfRange(b, 12, 16));
    }
    return head == 0x2001 && next == 0x0db8 || head == 0x0100;
  }

  private static boolean isZero(byte[] b, int from, int until) {
    for (int i = from; i < until; i++) {
      if (b[i] != 0) {
        return false;
      }
    }
    return true;
  }

  private static boolean isInside4(byte[] b) {
    int first = b[0] & 0xff;
    int second = b[1] & 0xff;
    int third = b[2] & 0xff;
    return first == 0
        || first == 10
        || first == 127
        || first >= 224
        || first == 100 && second >= 64 && second < 128
        || first == 169 && second == 254
        || first == 172 && second >= 16 && second < 32
        || first == 192 && (second == 168 || second == 0 && (third == 0 || third == 2))
        || first == 198 && (second == 18 || second == 19 || second == 51 && third == 100)
        || first == 203 && second == 0 && third == 113;
  }
}
