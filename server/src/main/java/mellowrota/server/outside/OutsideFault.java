package mellowrota.server.outside;

import java.net.URI;
import java.time.Duration;
import java.util.Optional;

/** Something at an outside host did not go as it should; its message is in words for people. */
public final class OutsideFault extends Exception {

  private static final long serialVersionUID = 1;

  /** What went wrong, as code that the screens put in words. */
  public enum Kind {
    /** The address cannot be meant, or is inside. */
    ADDRESS,
    /** No such name. */
    NAME,
    /** It speaks no TLS, or with a certificate that does not hold. */
    TLS,
    /** Nobody answers there. */
    NO_ANSWER,
    /** The connection ended before the answer; what was asked may have been done. */
    ANSWER_LOST,
    PASSWORD,
    /** It may be read but not written, or not even read. */
    NO_RIGHT,
    TOO_MANY,
    SERVER_ERROR,
    QUOTA,
    /** It answers, but not as a calendar host. */
    NOT_CALENDARS,
    /** It says that the account is at another host, which nobody named. */
    ELSEWHERE,
    /** It answers something that nobody can read. */
    UNREADABLE,
    /** It refuses this entry and will again. */
    REFUSED;

    /** For those who are not to know where the account is. */
    public String inGeneral() {
      return switch (this) {
        case ADDRESS, NAME -> "Its address leads nowhere.";
        case ELSEWHERE -> "The account is at another host by now.";
        case TLS -> "No safe connection comes about.";
        case NO_ANSWER, ANSWER_LOST -> "The host does not answer.";
        case PASSWORD -> "The host does not know the name and password.";
        case NO_RIGHT -> "The account may not write there.";
        case TOO_MANY -> "The host wants fewer requests.";
        case SERVER_ERROR -> "The host is not well.";
        case QUOTA -> "There is no room left at the host.";
        case NOT_CALENDARS, UNREADABLE -> "The host answers nothing readable.";
        case REFUSED -> "The host refuses this entry.";
      };
    }
  }

  private final Kind kind;
  private final transient Optional<Duration> retryAfter;

  private transient String elsewhere;

  private OutsideFault(Kind kind, String message, Optional<Duration> retryAfter, Throwable cause) {
    super(message, cause);
    this.kind = kind;
    this.retryAfter = retryAfter;
  }

  static OutsideFault of(Kind kind, String message) {
    return new OutsideFault(kind, message, Optional.empty(), null);
  }

  static OutsideFault of(Kind kind, String message, Throwable cause) {
    return new OutsideFault(kind, message, Optional.empty(), cause);
  }

  static OutsideFault later(Kind kind, String message, Optional<Duration> retryAfter) {
    return new OutsideFault(kind, message, retryAfter, null);
  }

  /** A password is given to the host that was named, and to no other before somebody says so. */
  static OutsideFault elsewhere(URI address) {
    OutsideFault fault =
        of(
            Kind.ELSEWHERE,
            "The host says that the account is at "
                + origin(address)
                + ". If that is right, give that address, and the password for it.");
    fault.elsewhere = origin(address);
    return fault;
  }

  private static String origin(URI address) {
    return address.getScheme()
        + "://"
        + address.getHost()
        + (address.getPort() < 0 ? "" : ":" + address.getPort())
        + "/";
  }

  /** This entry alone is refused. */
  public static OutsideFault refused(String message) {
    return of(Kind.REFUSED, message);
  }

  /** Several answers in a row were lost. */
  public static OutsideFault unanswered() {
    return of(Kind.NO_ANSWER, "The host does not answer.");
  }

  /** The password is not known here, since the keys are other ones. */
  public static OutsideFault passwordGone() {
    return of(Kind.PASSWORD, "Its password cannot be opened here any more; give it again.");
  }

  public Kind kind() {
    return kind;
  }

  /** Where the account is said to be, if that is another host. */
  public Optional<String> elsewhere() {
    return Optional.ofNullable(elsewhere);
  }

  /** When to try again, where the host said so (RFC 9110 §10.2.3). */
  public Optional<Duration> retryAfter() {
    return retryAfter;
  }

  /** Whether the whole account is affected, not this entry alone. */
  public boolean isOfTheAccount() {
    return kind != Kind.REFUSED && kind != Kind.ANSWER_LOST && kind != Kind.QUOTA;
  }
}
