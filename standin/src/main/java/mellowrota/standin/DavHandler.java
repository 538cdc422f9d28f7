package mellowrota.standin;

import static mellowrota.standin.Xml.CALDAV;
import static mellowrota.standin.Xml.DAV;

import com.sun.net.httpserver.Headers;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpHandler;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.w3c.dom.Element;

/** CalDAV as a client meets it: {@code /dav/ACCOUNT/CALENDAR/NAME.ics}. */
final class DavHandler implements HttpHandler {

  private static final int MULTI_STATUS = 207;

  /** What was removed is forgotten with the process, so tokens of another one say nothing. */
  private static final String TOKEN = "urn:standin:sync:" + ProcessHandle.current().pid() + ":";

  private final StandIn host;

  DavHandler(StandIn host) {
    this.host = host;
  }

  /** An answer before it is sent. */
  private record Answer(int status, Map<String, String> headers, String body) {
    static Answer of(int status) {
      return new Answer(status, Map.of(), "");
    }

    static Answer of(int status, String body) {
      return new Answer(status, Map.of("Content-Type", "application/xml; charset=utf-8"), body);
    }
  }

  @Override
  public void handle(HttpExchange exchange) throws IOException {
    try (exchange) {
      byte[] body = exchange.getRequestBody().readAllBytes();
      Optional<Account> account = signedIn(exchange);
      Faults faults = named(exchange).map(Account::faults).orElseGet(Faults::new);
      String method = exchange.getRequestMethod();
      if (faults.is(Faults.Mode.DIES) && !method.equals("PROPFIND") && !method.equals("OPTIONS")) {
        faults.set(Faults.Mode.DEAD, true);
      }
      if (faults.is(Faults.Mode.DEAD)) {
        return;
      }
      pause(faults.delayMillis());
      Faults.Chance happens = faults.draw().orElse(null);
      if (happens == Faults.Chance.SLOW) {
        pause(faults.slowMillis());
      } else if (happens == Faults.Chance.RESET_BEFORE) {
        return;
      } else if (happens == Faults.Chance.SERVER_ERROR) {
        send(exchange, Answer.of(503));
        return;
      } else if (happens == Faults.Chance.TOO_MANY) {
        String seconds = Integer.toString(faults.retryAfter());
        send(exchange, new Answer(429, Map.of("Retry-After", seconds), ""));
        return;
      }
      Answer answer = answer(exchange, account, body);
      if (happens != Faults.Chance.RESET_AFTER) {
        send(exchange, answer);
      }
    }
  }

  private static void pause(long millis) throws IOException {
    try {
      Thread.sleep(millis);
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
      throw new IOException(stopped);
    }
  }

  private static void send(HttpExchange exchange, Answer answer) throws IOException {
    Headers headers = exchange.getResponseHeaders();
    answer.headers().forEach(headers::set);
    headers.set("DAV", "1, 3, calendar-access");
    byte[] body = answer.body().getBytes(StandardCharsets.UTF_8);
    boolean bodiless = exchange.getRequestMethod().equals("HEAD") || body.length == 0;
    exchange.sendResponseHeaders(answer.status(), bodiless ? -1 : body.length);
    if (!bodiless) {
      exchange.getResponseBody().write(body);
    }
  }

  private static Optional<String[]> credentials(HttpExchange exchange) {
    String sent = exchange.getRequestHeaders().getFirst("Authorization");
    if (sent == null || !sent.startsWith("Basic ")) {
      return Optional.empty();
    }
    String both = new String(Base64.getDecoder().decode(sent.substring(6)), StandardCharsets.UTF_8);
    return both.contains(":") ? Optional.of(both.split(":", 2)) : Optional.empty();
  }

  private Optional<Account> named(HttpExchange exchange) {
    return credentials(exchange).flatMap(both -> host.find(both[0]));
  }

  private Optional<Account> signedIn(HttpExchange exchange) {
    return named(exchange)
        .filter(one -> credentials(exchange).orElseThrow()[1].equals(one.password()))
        .filter(one -> !one.faults().is(Faults.Mode.WRONG_PASSWORD));
  }

  private Answer answer(HttpExchange exchange, Optional<Account> account, byte[] body)
      throws IOException {
    String path = exchange.getRequestURI().getRawPath();
    if (account.isEmpty()) {
      return new Answer(401, Map.of("WWW-Authenticate", "Basic realm=\"calendars\""), "");
    }
    if (path.equals("/.well-known/caldav")) {
      return new Answer(301, Map.of("Location", "/dav/"), "");
    }
    String[] parts = path.substring(1).split("/", -1);
    if (!parts[0].equals("dav")) {
      return Answer.of(404);
    }
    return switch (exchange.getRequestMethod()) {
      case "OPTIONS" ->
          new Answer(200, Map.of("Allow", "OPTIONS, PROPFIND, REPORT, GET, HEAD, PUT, DELETE"), "");
      case "PROPFIND" -> propfind(exchange, account.get(), path, parts, body);
      case "REPORT" -> report(account.get(), path, parts, body);
      case "GET", "HEAD" -> get(account.get(), parts);
      case "PUT" -> put(exchange, account.get(), parts, body);
      case "DELETE" -> delete(exchange, account.get(), parts);
      default -> Answer.of(405);
    };
  }

  private static Optional<Collection> collection(Account account, String[] parts) {
    return parts.length >= 3 && parts[1].equals(account.name())
        ? account.collection(parts[2])
        : Optional.empty();
  }

  private static String name(String[] parts) {
    return parts.length == 4 ? URLDecoder.decode(parts[3], StandardCharsets.UTF_8) : "";
  }

  private static Answer get(Account account, String[] parts) {
    return collection(account, parts)
        .flatMap(one -> one.get(name(parts)))
        .map(
            one ->
                new Answer(
                    200,
                    Map.of("ETag", one.etag(), "Content-Type", "text/calendar; charset=utf-8"),
                    one.text()))
        .orElseGet(() -> Answer.of(404));
  }

  private static Optional<Answer> refused(Account account, boolean fills) {
    if (account.faults().is(Faults.Mode.READ_ONLY)) {
      return Optional.of(
          Answer.of(403, "<D:error xmlns:D=\"DAV:\"><D:need-privileges/></D:error>"));
    }
    if (fills && account.faults().is(Faults.Mode.QUOTA)) {
      return Optional.of(
          Answer.of(507, "<D:error xmlns:D=\"DAV:\"><D:quota-not-exceeded/></D:error>"));
    }
    return Optional.empty();
  }

  private static Answer put(HttpExchange exchange, Account account, String[] parts, byte[] body) {
    Optional<Collection> collection = collection(account, parts);
    if (collection.isEmpty() || name(parts).isEmpty()) {
      return Answer.of(409);
    }
    Optional<Answer> refused = refused(account, true);
    if (refused.isPresent()) {
      return refused.get();
    }
    String text = new String(body, StandardCharsets.UTF_8);
    if (!text.startsWith("BEGIN:VCALENDAR") || Collection.uidOf(text).isEmpty()) {
      return Answer.of(415);
    }
    Collection.Outcome outcome =
        collection.get().put(name(parts), text, condition(exchange.getRequestHeaders()));
    boolean tagged = !account.faults().is(Faults.Mode.NO_ETAG_ON_PUT);
    Map<String, String> headers =
        collection
            .get()
            .get(name(parts))
            .filter(one -> tagged)
            .map(one -> Map.of("ETag", one.etag()))
            .orElse(Map.of());
    return switch (outcome) {
      case CREATED -> new Answer(201, headers, "");
      case CHANGED -> new Answer(204, headers, "");
      case UID_TAKEN ->
          Answer.of(
              409,
              "<D:error xmlns:D=\"DAV:\" xmlns:C=\""
                  + CALDAV
                  + "\"><C:no-uid-conflict/></D:error>");
      default -> Answer.of(412);
    };
  }

  private static Answer delete(HttpExchange exchange, Account account, String[] parts) {
    Optional<Collection> collection = collection(account, parts);
    Optional<Answer> refused = refused(account, false);
    if (refused.isPresent()) {
      return refused.get();
    }
    if (collection.isEmpty() || name(parts).isEmpty()) {
      return Answer.of(404);
    }
    return switch (collection.get().delete(name(parts), condition(exchange.getRequestHeaders()))) {
      case DELETED -> Answer.of(204);
      case NOT_FOUND -> Answer.of(404);
      default -> Answer.of(412);
    };
  }

  private static Predicate<Optional<Collection.Stored>> condition(Headers headers) {
    String match = headers.getFirst("If-Match");
    String noneMatch = headers.getFirst("If-None-Match");
    return stored -> {
      if (match != null
          && (stored.isEmpty() || !match.equals("*") && !match.equals(stored.get().etag()))) {
        return false;
      }
      return noneMatch == null
          || stored.isEmpty()
          || !noneMatch.equals("*") && !noneMatch.equals(stored.get().etag());
    };
  }

  // ---- PROPFIND --------------------------------------------------------------------------------

  private static Answer propfind(
      HttpExchange exchange, Account account, String path, String[] parts, byte[] body)
      throws IOException {
    List<Element> asked =
        Xml.parse(body)
            .flatMap(root -> Xml.child(root, DAV, "prop"))
            .map(Xml::children)
            .orElse(List.of());
    boolean deep = !"0".equals(exchange.getRequestHeaders().getFirst("Depth"));
    List<String> answers = new ArrayList<>();
    String last = parts[parts.length - 1];
    int depth = last.isEmpty() ? parts.length - 1 : parts.length;
    if (depth >= 2 && !parts[1].equals(account.name())) {
      return Answer.of(403);
    }
    if (depth <= 2) {
      answers.add(response(path, asked, rootProperties(account, depth == 2)));
      if (deep && depth == 2) {
        account
            .collections()
            .values()
            .forEach(
                one ->
                    answers.add(
                        response(
                            "/dav/" + account.name() + "/" + one.id() + "/",
                            asked,
                            properties(account, one))));
      }
      return multistatus(answers, "");
    }
    Optional<Collection> collection = collection(account, parts);
    if (collection.isEmpty()) {
      return Answer.of(404);
    }
    if (depth == 4) {
      return collection
          .get()
          .get(name(parts))
          .map(one -> multistatus(List.of(response(path, asked, ofObject(one))), ""))
          .orElseGet(() -> Answer.of(404));
    }
    answers.add(response(path, asked, properties(account, collection.get())));
    if (deep) {
      collection
          .get()
          .objects()
          .forEach((name, one) -> answers.add(response(path + name, asked, ofObject(one))));
    }
    return multistatus(answers, "");
  }

  private static Map<String, String> rootProperties(Account account, boolean home) {
    Map<String, String> found = new LinkedHashMap<>();
    String path = "/dav/" + account.name() + "/</D:href>";
    String href = "<D:href>" + Xml.escape(account.origin()) + path;
    found.put("{DAV:}resourcetype", home ? "<D:collection/><D:principal/>" : "<D:collection/>");
    found.put("{DAV:}current-user-principal", href);
    found.put("{DAV:}principal-URL", href);
    found.put("{" + CALDAV + "}calendar-home-set", href);
    found.put("{DAV:}displayname", Xml.escape(account.name()));
    return found;
  }

  private static Map<String, String> properties(Account account, Collection one) {
    Map<String, String> found = new LinkedHashMap<>();
    Faults faults = account.faults();
    found.put("{DAV:}resourcetype", "<D:collection/><C:calendar/>");
    found.put("{DAV:}displayname", Xml.escape(one.title()));
    found.put("{DAV:}resource-id", "<D:href>" + one.resource() + "</D:href>");
    found.put("{" + CALDAV + "}supported-calendar-component-set", "<C:comp name=\"VEVENT\"/>");
    String read = "<D:privilege><D:read/></D:privilege>";
    found.put(
        "{DAV:}current-user-privilege-set",
        faults.is(Faults.Mode.READ_ONLY) ? read : read + "<D:privilege><D:write/></D:privilege>");
    if (!faults.is(Faults.Mode.NO_SYNC)) {
      found.put("{DAV:}sync-token", TOKEN + one.number());
      found.put(
          "{DAV:}supported-report-set",
          "<D:supported-report><D:report><D:sync-collection/></D:report></D:supported-report>");
    }
    if (!faults.is(Faults.Mode.NO_CTAG)) {
      found.put("{http://calendarserver.org/ns/}getctag", "c" + one.number());
    }
    return found;
  }

  private static Map<String, String> ofObject(Collection.Stored one) {
    Map<String, String> found = new LinkedHashMap<>();
    found.put("{DAV:}resourcetype", "");
    found.put("{DAV:}getetag", Xml.escape(one.etag()));
    found.put("{DAV:}getcontenttype", "text/calendar; component=VEVENT");
    found.put("{" + CALDAV + "}calendar-data", Xml.escape(one.text()));
    return found;
  }

  private static String response(String href, List<Element> asked, Map<String, String> known) {
    StringBuilder found = new StringBuilder();
    StringBuilder missing = new StringBuilder();
    int n = 0;
    for (Element one : asked) {
      String namespace = one.getNamespaceURI() == null ? "" : one.getNamespaceURI();
      String value = known.get("{" + namespace + "}" + one.getLocalName());
      String tag = "x" + n++ + ":" + one.getLocalName();
      String open = tag + " xmlns:" + tag.substring(0, tag.indexOf(':')) + "=\"" + namespace + "\"";
      (value == null ? missing : found)
          .append('<')
          .append(open)
          .append('>')
          .append(value == null ? "" : value)
          .append("</")
          .append(tag)
          .append('>');
    }
    return "<D:response><D:href>"
        + Xml.escape(href)
        + "</D:href>"
        + propstat(found, "200 OK")
        + propstat(missing, "404 Not Found")
        + "</D:response>";
  }

  private static String propstat(StringBuilder properties, String status) {
    return properties.isEmpty()
        ? ""
        : "<D:propstat><D:prop>"
            + properties
            + "</D:prop><D:status>HTTP/1.1 "
            + status
            + "</D:status></D:propstat>";
  }

  private static Answer multistatus(List<String> responses, String after) {
    return Answer.of(
        MULTI_STATUS,
        "<?xml version=\"1.0\" encoding=\"utf-8\"?><D:multistatus xmlns:D=\"DAV:\" xmlns:C=\""
            + CALDAV
            + "\">"
            + String.join("", responses)
            + after
            + "</D:multistatus>");
  }

  // ---- REPORT ----------------------------------------------------------------------------------

  private static Answer report(Account account, String path, String[] parts, byte[] body)
      throws IOException {
    Optional<Collection> collection = collection(account, parts);
    Optional<Element> root = Xml.parse(body);
    if (collection.isEmpty() || root.isEmpty()) {
      return Answer.of(collection.isEmpty() ? 404 : 400);
    }
    List<Element> asked = Xml.child(root.get(), DAV, "prop").map(Xml::children).orElse(List.of());
    if (Xml.is(root.get(), DAV, "sync-collection") && !account.faults().is(Faults.Mode.NO_SYNC)) {
      return sync(collection.get(), path, root.get(), asked);
    }
    if (Xml.is(root.get(), CALDAV, "calendar-multiget")) {
      return multiget(collection.get(), root.get(), asked);
    }
    if (Xml.is(root.get(), CALDAV, "calendar-query")) {
      List<String> answers = new ArrayList<>();
      collection
          .get()
          .objects()
          .forEach((name, one) -> answers.add(response(path + name, asked, ofObject(one))));
      return multistatus(answers, "");
    }
    return Answer.of(403, "<D:error xmlns:D=\"DAV:\"><D:supported-report/></D:error>");
  }

  private static Answer sync(
      Collection collection, String path, Element root, List<Element> asked) {
    String token = Xml.child(root, DAV, "sync-token").map(Element::getTextContent).orElse("");
    long from = 0;
    if (!token.isBlank()) {
      String number =
          token.strip().startsWith(TOKEN) ? token.strip().substring(TOKEN.length()) : "";
      if (!number.matches("\\d{1,18}") || Long.parseLong(number) > collection.number()) {
        return Answer.of(403, "<D:error xmlns:D=\"DAV:\"><D:valid-sync-token/></D:error>");
      }
      from = Long.parseLong(number);
    }
    Collection.Changes changes = collection.since(from);
    List<String> answers = new ArrayList<>();
    changes
        .changed()
        .forEach((name, one) -> answers.add(response(path + name, asked, ofObject(one))));
    for (String name : changes.removed()) {
      answers.add(
          "<D:response><D:href>"
              + Xml.escape(path + name)
              + "</D:href><D:status>HTTP/1.1 404 Not Found</D:status></D:response>");
    }
    return multistatus(answers, "<D:sync-token>" + TOKEN + changes.number() + "</D:sync-token>");
  }

  private static Answer multiget(Collection collection, Element root, List<Element> asked) {
    List<String> answers = new ArrayList<>();
    for (Element one : Xml.children(root)) {
      if (Xml.is(one, DAV, "href")) {
        String href = one.getTextContent().strip();
        String name =
            URLDecoder.decode(href.substring(href.lastIndexOf('/') + 1), StandardCharsets.UTF_8);
        answers.add(
            collection
                .get(name)
                .map(stored -> response(href, asked, ofObject(stored)))
                .orElse(
                    "<D:response><D:href>"
                        + Xml.escape(href)
                        + "</D:href><D:status>HTTP/1.1 404 Not Found</D:status></D:response>"));
      }
    }
    return multistatus(answers, "");
  }
}
