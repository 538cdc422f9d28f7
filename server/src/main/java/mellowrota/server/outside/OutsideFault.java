package mellowrota.server.outside;

import static mellowrota.server.platform.Words.say;

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
        case ADDRESS, NAME -> say("outside.the-address-leads-nowhere");
        case ELSEWHERE -> say("outside.the-account-has-moved");
        case TLS -> say("outside.a-secure-connection-is");
        case NO_ANSWER, ANSWER_LOST -> say("outside.the-server-does-not-answer-2");
        case PASSWORD -> say("outside.the-server-does-not-accept");
        case NO_RIGHT -> say("outside.the-account-may-not");
        case TOO_MANY -> say("outside.the-server-asks-for");
        case SERVER_ERROR -> say("outside.the-server-has-a");
        case QUOTA -> say("outside.the-server-has-no");
        case NOT_CALENDARS, UNREADABLE -> say("outside.the-servers-answer-cannot");
        case REFUSED -> say("outside.the-server-refuses-this-entry");
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
    OutsideFault fault = of(Kind.ELSEWHERE, say("outside.the-server-says-that", origin(address)));
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
    return of(Kind.NO_ANSWER, say("outside.the-server-does-not-answer-2"));
  }

  /** The password is not known here, since the keys are other ones. */
  public static OutsideFault passwordGone() {
    return of(Kind.PASSWORD, say("outside.the-saved-password-can"));
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
