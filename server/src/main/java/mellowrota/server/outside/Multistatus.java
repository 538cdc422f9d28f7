package mellowrota.server.outside;

import static mellowrota.server.platform.Words.say;

import java.io.StringReader;
import java.net.URI;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;

/** A 207 answer (RFC 4918 §13), read from the DOM; anything with a DTD is refused. */
record Multistatus(List<Response> responses, Optional<String> syncToken) {

  /** A calendar of 30 000 entries is listed in fewer. */
  private static final int MOST_PARTS = 600_000;

  static final String DAV = "DAV:";
  static final String CALDAV = "urn:ietf:params:xml:ns:caldav";
  static final String CALENDAR_SERVER = "http://calendarserver.org/ns/";

  /**
   * What is said of one resource.
   *
   * @param properties those found, by namespace and name
   */
  record Response(URI href, int status, Map<String, Element> properties) {

    Optional<Element> find(String namespace, String name) {
      return Optional.ofNullable(properties.get("{" + namespace + "}" + name));
    }

    Optional<String> text(String namespace, String name) {
      return find(namespace, name)
          .map(element -> element.getTextContent().strip())
          .filter(text -> !text.isEmpty());
    }

    /** The address inside a property such as current-user-principal. */
    Optional<URI> address(String namespace, String name) {
      return find(namespace, name)
          .flatMap(element -> first(element, DAV, "href"))
          .flatMap(href -> uri(this.href, href.getTextContent()));
    }

    boolean has(String property, String namespace, String name) {
      return find(DAV, property).filter(e -> first(e, namespace, name).isPresent()).isPresent();
    }
  }

  static Multistatus parse(OutsideHttp.Answer answer) throws OutsideFault {
    if (answer.status() != 207) {
      throw OutsideFault.of(
          answer.status() == 403 ? OutsideFault.Kind.NO_RIGHT : OutsideFault.Kind.NOT_CALENDARS,
          answer.status() == 403
              ? say("outside.the-server-does-not-let")
              : say("outside.no-calendars-answer-there", answer.status()));
    }
    requireFew(answer.body());
    Element root = root(answer.body());
    List<Response> found = new ArrayList<>();
    for (Element one : children(root)) {
      if (is(one, DAV, "response")) {
        response(one, answer.address()).ifPresent(found::add);
      }
    }
    return new Multistatus(
        found, child(root, DAV, "sync-token").map(token -> token.getTextContent().strip()));
  }

  /** Each part of a document takes some hundred octets of memory, however little it says. */
  private static void requireFew(String body) throws OutsideFault {
    int parts = 0;
    for (int at = body.indexOf('<'); at >= 0; at = body.indexOf('<', at + 1)) {
      if (++parts > MOST_PARTS) {
        throw OutsideFault.of(
            OutsideFault.Kind.UNREADABLE, say("outside.the-servers-answer-has", MOST_PARTS));
      }
    }
  }

  private static Element root(String body) throws OutsideFault {
    try {
      DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
      factory.setNamespaceAware(true);
      factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
      var builder = factory.newDocumentBuilder();
      builder.setErrorHandler(null);
      return builder.parse(new InputSource(new StringReader(body))).getDocumentElement();
    } catch (ParserConfigurationException impossible) {
      throw new IllegalStateException("every Java platform can refuse a DTD", impossible);
    } catch (SAXException | java.io.IOException fault) {
      throw OutsideFault.of(OutsideFault.Kind.UNREADABLE, say("outside.the-servers-answer-cannot"));
    }
  }

  private static Optional<Response> response(Element element, URI base) {
    Optional<URI> href =
        child(element, DAV, "href").flatMap(one -> uri(base, one.getTextContent()));
    if (href.isEmpty()) {
      return Optional.empty();
    }
    Map<String, Element> properties = new HashMap<>();
    int status = child(element, DAV, "status").map(Multistatus::status).orElse(200);
    for (Element propstat : children(element)) {
      boolean found =
          is(propstat, DAV, "propstat")
              && child(propstat, DAV, "status").map(Multistatus::status).orElse(0) == 200;
      if (found) {
        child(propstat, DAV, "prop")
            .ifPresent(
                prop ->
                    children(prop)
                        .forEach(
                            one ->
                                properties.put(
                                    "{" + one.getNamespaceURI() + "}" + one.getLocalName(), one)));
      }
    }
    return Optional.of(new Response(href.get(), status, properties));
  }

  private static int status(Element element) {
    String[] parts = element.getTextContent().strip().split(" ");
    return parts.length > 1 && parts[1].matches("\\d{3}") ? Integer.parseInt(parts[1]) : 0;
  }

  private static Optional<URI> uri(URI base, String text) {
    try {
      URI address = base.resolve(text.strip().replace(" ", "%20"));
      return Optional.of(address).filter(one -> one.getHost() != null && one.getPath() != null);
    } catch (IllegalArgumentException unreadable) {
      return Optional.empty();
    }
  }

  static List<Element> children(Element parent) {
    List<Element> found = new ArrayList<>();
    for (Node one = parent.getFirstChild(); one != null; one = one.getNextSibling()) {
      if (one instanceof Element element) {
        found.add(element);
      }
    }
    return found;
  }

  private static Optional<Element> child(Element parent, String namespace, String name) {
    return children(parent).stream().filter(one -> is(one, namespace, name)).findFirst();
  }

  private static boolean is(Element element, String namespace, String name) {
    return namespace.equals(element.getNamespaceURI()) && name.equals(element.getLocalName());
  }

  /** The first of that name anywhere inside. */
  static Optional<Element> first(Element inside, String namespace, String name) {
    Node found = inside.getElementsByTagNameNS(namespace, name).item(0);
    return Optional.ofNullable((Element) found);
  }
}
