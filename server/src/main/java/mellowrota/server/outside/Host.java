package mellowrota.server.outside;

import static mellowrota.server.platform.Words.say;

import java.net.URI;
import java.net.URISyntaxException;
import java.net.UnknownHostException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.server.outside.OutsideHttp.Answer;
import mellowrota.server.outside.OutsideHttp.Ask;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** CalDAV as a client: finding calendars, reading and writing entries (RFC 4791, 6578, 6764). */
@Component
@RequiredArgsConstructor
public class Host {

  private static final String XML = "application/xml; charset=utf-8";
  private static final String PROPFIND_BEGIN =
      "<?xml version=\"1.0\" encoding=\"utf-8\"?><d:propfind xmlns:d=\"DAV:\""
          + " xmlns:c=\"urn:ietf:params:xml:ns:caldav\" xmlns:cs=\"http://calendarserver.org/ns/\">"
          + "<d:prop>";
  private static final String PROPFIND_END = "</d:prop></d:propfind>";
  private static final int TEXTS_AT_ONCE = 50;
  private static final int LONGEST_ID = 500;
  private static final Duration CLOCK_OFF = Duration.ofMinutes(5);

  private final OutsideHttp http;
  private final Guard guard;
  private final Names names;
  private final Clock clock;

  /** Who signs in where. Its text never holds the password. */
  public record Account(URI address, String user, String password) {
    @Override
    public String toString() {
      return user + " at " + address.getHost();
    }
  }

  /**
   * A calendar of the account.
   *
   * @param mayWrite empty where the host does not say
   * @param resource what the host calls it whatever its address (RFC 5842 §3.1), where it does
   */
  public record Found(
      URI href, String name, Optional<Boolean> mayWrite, Optional<String> resource) {}

  /**
   * What was found.
   *
   * @param clockOff how far the host's clock is from ours, where that is much
   */
  public record Discovered(URI home, List<Found> calendars, Optional<Duration> clockOff) {}

  // ---- Finding ---------------------------------------------------------------------------------

  /** The address to begin at, from what somebody typed: an address, a host or a mail address. */
  public URI begin(String typed) throws OutsideFault {
    String text = typed.strip();
    try {
      if (text.contains("://")) {
        return guard.check(new URI(text));
      }
      String domain = text.substring(text.lastIndexOf('@') + 1).toLowerCase(Locale.ROOT);
      if (!domain.matches("[a-z0-9.-]+\\.[a-z0-9-]+(:\\d{1,5})?")) {
        throw OutsideFault.of(OutsideFault.Kind.ADDRESS, say("outside.this-is-not-an"));
      }
      List<Names.Service> services = names.calendars(domain);
      if (!services.isEmpty()) {
        return told(domain, services.get(0));
      }
      return guard.check(new URI("https://" + domain + "/.well-known/caldav"));
    } catch (URISyntaxException fault) {
      throw OutsideFault.of(OutsideFault.Kind.ADDRESS, say("outside.the-address-cannot-be"));
    }
  }

  /** Finds the account's calendars (RFC 6764 §6, RFC 5397, RFC 4791 §6.2.1). */
  public Discovered discover(Account account) throws OutsideFault {
    List<URI> tries = new ArrayList<>(List.of(account.address()));
    URI wellKnown = account.address().resolve("/.well-known/caldav");
    if (!wellKnown.equals(account.address())) {
      tries.add(wellKnown);
    }
    OutsideFault last = null;
    for (URI one : tries) {
      try {
        return from(account, one);
      } catch (OutsideFault fault) {
        if (fault.kind() != OutsideFault.Kind.NOT_CALENDARS) {
          throw fault;
        }
        last = last == null ? fault : last;
      }
    }
    throw last;
  }

  /** Whether two addresses lead to the same host by what their names mean now. */
  public boolean meansTheSame(URI one, URI other) {
    try {
      return !Collections.disjoint(
          names.addresses(one.getHost()), names.addresses(other.getHost()));
    } catch (UnknownHostException unknown) {
      return false;
    }
  }

  private @Nullable URI home(Account account, Multistatus.Response at) throws OutsideFault {
    Optional<URI> home = at.address(Multistatus.CALDAV, "calendar-home-set");
    Optional<URI> principal = at.address(Multistatus.DAV, "current-user-principal");
    if (home.isPresent() || principal.isEmpty()) {
      return home.orElse(null);
    }
    Answer second = propfind(account, principal.get(), 0, "<c:calendar-home-set/>");
    return only(Multistatus.parse(second))
        .address(Multistatus.CALDAV, "calendar-home-set")
        .orElse(null);
  }

  /** What a domain says of itself leads to no other's host unasked. */
  private URI told(String domain, Names.Service service) throws OutsideFault, URISyntaxException {
    String path = service.path().isEmpty() ? "/.well-known/caldav" : service.path();
    URI told =
        guard.check(new URI("https", null, service.host(), service.port(), path, null, null));
    if (!told.getHost().equals(domain) && !told.getHost().endsWith("." + domain)) {
      throw OutsideFault.elsewhere(told);
    }
    return told;
  }

  private Discovered from(Account account, URI begin) throws OutsideFault {
    Answer first =
        propfind(
            account,
            begin,
            0,
            "<d:current-user-principal/><c:calendar-home-set/><d:resourcetype/>");
    Multistatus.Response at = only(Multistatus.parse(first));
    URI home = home(account, at);
    if (home == null && !at.has("resourcetype", Multistatus.CALDAV, "calendar")) {
      throw OutsideFault.of(OutsideFault.Kind.NOT_CALENDARS, say("outside.the-server-answers-but"));
    }
    URI where = home == null ? first.address() : home;
    guard.check(where);
    List<Found> calendars = calendars(account, where);
    return new Discovered(where, calendars, clockOff(first));
  }

  private Optional<Duration> clockOff(Answer answer) {
    Optional<Instant> theirs = OutsideHttp.date(answer.header("date"));
    return theirs
        .map(at -> Duration.between(clock.instant(), at))
        .filter(off -> off.abs().compareTo(CLOCK_OFF) > 0);
  }

  private static Multistatus.Response only(Multistatus all) throws OutsideFault {
    return all.responses().stream()
        .findFirst()
        .orElseThrow(
            () ->
                OutsideFault.of(
                    OutsideFault.Kind.NOT_CALENDARS, say("outside.the-server-does-not-answer")));
  }

  /** The calendars in a home that take events. */
  public List<Found> calendars(Account account, URI home) throws OutsideFault {
    Answer answer =
        propfind(
            account,
            home,
            1,
            "<d:resourcetype/><d:displayname/><c:supported-calendar-component-set/>"
                + "<d:current-user-privilege-set/><d:resource-id/>");
    List<Found> found = new ArrayList<>();
    for (Multistatus.Response one : Multistatus.parse(answer).responses()) {
      boolean calendar = one.has("resourcetype", Multistatus.CALDAV, "calendar");
      if (calendar && takesEvents(one)) {
        found.add(
            new Found(
                directory(one.href()),
                one.text(Multistatus.DAV, "displayname").orElseGet(() -> lastPart(one.href())),
                mayWrite(one),
                one.find(Multistatus.DAV, "resource-id")
                    .flatMap(id -> Multistatus.first(id, Multistatus.DAV, "href"))
                    .map(href -> href.getTextContent().strip())
                    .filter(id -> !id.isEmpty() && id.length() <= LONGEST_ID)));
      }
    }
    return found;
  }

  private static URI directory(URI href) {
    String text = href.toString();
    return text.endsWith("/") ? href : URI.create(text + "/");
  }

  private static String lastPart(URI href) {
    String[] parts = href.getPath().split("/");
    return parts.length == 0 ? href.getHost() : parts[parts.length - 1];
  }

  private static boolean takesEvents(Multistatus.Response one) {
    return one.find(Multistatus.CALDAV, "supported-calendar-component-set")
        .map(
            set ->
                Multistatus.children(set).stream()
                    .anyMatch(comp -> "VEVENT".equalsIgnoreCase(comp.getAttribute("name"))))
        .orElse(true);
  }

  private static Optional<Boolean> mayWrite(Multistatus.Response one) {
    return one.find(Multistatus.DAV, "current-user-privilege-set")
        .map(
            set ->
                List.of("all", "write", "write-content", "bind").stream()
                    .anyMatch(name -> Multistatus.first(set, Multistatus.DAV, name).isPresent()));
  }

  private Answer propfind(Account account, URI at, int depth, String properties)
      throws OutsideFault {
    return send(
        account,
        "PROPFIND",
        at,
        Map.of("Depth", Integer.toString(depth)),
        XML,
        PROPFIND_BEGIN + properties + PROPFIND_END);
  }

  private Answer send(
      Account account, String method, URI at, Map<String, String> headers, String type, String body)
      throws OutsideFault {
    return http.send(new Ask(method, at, headers, Optional.of(new Ask.Body(type, body))), account);
  }

  // ---- Entries ---------------------------------------------------------------------------------

  /**
   * What stands at an address.
   *
   * @param etag empty where the host gives none; then conditions cannot be made
   */
  public record Standing(String text, Optional<String> etag) {}

  /** Reads an entry; empty where there is none. */
  public Optional<Standing> get(Account account, URI href) throws OutsideFault {
    Answer answer =
        http.send(
            new Ask("GET", href, Map.of("Accept", "text/calendar"), Optional.empty()), account);
    if (answer.status() == 404 || answer.status() == 410) {
      return Optional.empty();
    }
    requireGood(answer);
    return Optional.of(new Standing(answer.body(), answer.header("etag")));
  }

  /** What came of a write. */
  public enum Written {
    DONE,
    /** It is not there, or not as it was: somebody was there before. */
    OTHERWISE
  }

  /** Writes an entry that must not be there yet; If-None-Match (RFC 4791 §5.3.2). */
  public Written create(Account account, URI href, String text) throws OutsideFault {
    return put(account, href, text, Map.of("If-None-Match", "*"));
  }

  /** Writes an entry that must be as it was when it had this tag. */
  public Written change(Account account, URI href, String text, Optional<String> etag)
      throws OutsideFault {
    return put(account, href, text, etag.map(tag -> Map.of("If-Match", tag)).orElse(Map.of()));
  }

  private Written put(Account account, URI href, String text, Map<String, String> condition)
      throws OutsideFault {
    Answer answer = send(account, "PUT", href, condition, "text/calendar; charset=utf-8", text);
    if (answer.status() == 412 || answer.status() == 404 || answer.status() == 410) {
      return Written.OTHERWISE;
    }
    if (answer.status() == 409 && condition.containsKey("If-None-Match")) {
      // It may stand there under another name (no-uid-conflict), or the calendar is gone.
      return Written.OTHERWISE;
    }
    requireGood(answer);
    return Written.DONE;
  }

  /** Takes an entry off that must be as it was when it had this tag. */
  public Written delete(Account account, URI href, Optional<String> etag) throws OutsideFault {
    Answer answer =
        http.send(
            new Ask(
                "DELETE",
                href,
                etag.map(tag -> Map.of("If-Match", tag)).orElse(Map.of()),
                Optional.empty()),
            account);
    if (answer.status() == 404 || answer.status() == 410) {
      return Written.DONE;
    }
    if (answer.status() == 412) {
      return Written.OTHERWISE;
    }
    requireGood(answer);
    return Written.DONE;
  }

  private static void requireGood(Answer answer) throws OutsideFault {
    if (answer.status() >= 200 && answer.status() < 300) {
      return;
    }
    if (answer.status() == 403 || answer.status() == 405) {
      throw OutsideFault.of(OutsideFault.Kind.NO_RIGHT, say("outside.the-server-does-not"));
    }
    throw OutsideFault.of(
        OutsideFault.Kind.REFUSED, say("outside.the-server-refuses-this", answer.status()));
  }

  // ---- Changes ---------------------------------------------------------------------------------

  /**
   * How a calendar stands, as cheaply as its host can say.
   *
   * @param token for {@link #since}; empty where it knows no sync-collection
   * @param ctag changes with every change; empty where it has none
   */
  public record Position(Optional<String> token, Optional<String> ctag) {}

  public Position position(Account account, URI calendar) throws OutsideFault {
    Answer answer =
        propfind(account, calendar, 0, "<d:sync-token/><cs:getctag/><d:supported-report-set/>");
    Multistatus.Response one = only(Multistatus.parse(answer));
    boolean syncs =
        one.find(Multistatus.DAV, "supported-report-set")
            .map(set -> Multistatus.first(set, Multistatus.DAV, "sync-collection").isPresent())
            .orElse(true);
    return new Position(
        one.text(Multistatus.DAV, "sync-token").filter(token -> syncs),
        one.text(Multistatus.CALENDAR_SERVER, "getctag"));
  }

  /**
   * What is there, or what changed.
   *
   * @param tags by address; an empty tag where the host gives none
   * @param token to go on from
   */
  public record Changes(
      Map<URI, Optional<String>> tags, List<URI> removed, Optional<String> token) {}

  /**
   * What changed since a token (RFC 6578 §3).
   *
   * @return empty: the host knows the token no longer, or no such report
   */
  public Optional<Changes> since(Account account, URI calendar, String token) throws OutsideFault {
    Answer answer =
        send(
            account,
            "REPORT",
            calendar,
            Map.of("Depth", "1"),
            XML,
            "<?xml version=\"1.0\" encoding=\"utf-8\"?><d:sync-collection xmlns:d=\"DAV:\">"
                + "<d:sync-token>"
                + escape(token)
                + "</d:sync-token><d:sync-level>1</d:sync-level><d:prop><d:getetag/></d:prop>"
                + "</d:sync-collection>");
    if (answer.status() != 207) {
      return Optional.empty();
    }
    Multistatus all = Multistatus.parse(answer);
    return Optional.of(changes(calendar, all));
  }

  /** All entries with their tags. */
  public Changes all(Account account, URI calendar) throws OutsideFault {
    return changes(
        calendar,
        Multistatus.parse(propfind(account, calendar, 1, "<d:getetag/><d:resourcetype/>")));
  }

  /**
   * What stands at several addresses of a calendar, by address (RFC 4791 §7.9); one by one where
   * the host cannot answer so. What is not there any more is left out.
   */
  public Map<URI, String> texts(Account account, URI calendar, Collection<URI> hrefs)
      throws OutsideFault {
    Map<URI, String> found = new java.util.LinkedHashMap<>();
    List<URI> all = List.copyOf(hrefs);
    for (int from = 0; from < all.size(); from += TEXTS_AT_ONCE) {
      List<URI> some = all.subList(from, Math.min(all.size(), from + TEXTS_AT_ONCE));
      Map<String, String> byPath = multiget(account, calendar, some);
      for (URI href : some) {
        String text = byPath.get(href.getPath());
        if (text == null) {
          // Not there, or one that the report left out.
          get(account, href).ifPresent(standing -> found.put(href, standing.text()));
        } else {
          found.put(href, text);
        }
      }
    }
    return found;
  }

  private Map<String, String> multiget(Account account, URI calendar, List<URI> hrefs)
      throws OutsideFault {
    StringBuilder body =
        new StringBuilder(
            "<?xml version=\"1.0\" encoding=\"utf-8\"?><c:calendar-multiget xmlns:d=\"DAV:\""
                + " xmlns:c=\"urn:ietf:params:xml:ns:caldav\"><d:prop><c:calendar-data/></d:prop>");
    hrefs.forEach(
        href -> body.append("<d:href>").append(escape(href.getRawPath())).append("</d:href>"));
    Answer answer =
        send(
            account,
            "REPORT",
            calendar,
            Map.of("Depth", "1"),
            XML,
            body + "</c:calendar-multiget>");
    Map<String, String> found = new HashMap<>();
    if (answer.status() == 207) {
      for (Multistatus.Response one : Multistatus.parse(answer).responses()) {
        one.text(Multistatus.CALDAV, "calendar-data")
            .ifPresent(text -> found.put(one.href().getPath(), text));
      }
    }
    return found;
  }

  private static Changes changes(URI calendar, Multistatus all) {
    Map<URI, Optional<String>> tags = new java.util.LinkedHashMap<>();
    List<URI> removed = new ArrayList<>();
    for (Multistatus.Response one : all.responses()) {
      boolean itself = one.href().getPath().equals(calendar.getPath());
      if (itself || one.has("resourcetype", Multistatus.DAV, "collection")) {
        continue;
      }
      if (one.status() == 404 || one.status() == 410) {
        removed.add(one.href());
      } else {
        tags.put(one.href(), one.text(Multistatus.DAV, "getetag"));
      }
    }
    return new Changes(tags, removed, all.syncToken());
  }

  private static String escape(String text) {
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
  }
}
