package mellowrota.e2e;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.parsers.DocumentBuilderFactory;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/** One person's calendars as a calendar program would read them. */
final class Calendars {

  private final Api api;

  Calendars(Api api) {
    this.api = api;
  }

  /** The href of a calendar by its name. */
  String href(String name) {
    Document answer =
        xml(
            api.dav(
                    "PROPFIND",
                    "/dav/calendars/",
                    "<propfind xmlns='DAV:'><prop><displayname/></prop></propfind>",
                    "Depth",
                    "1")
                .expect(207)
                .bytes());
    NodeList responses = answer.getElementsByTagNameNS("DAV:", "response");
    for (int i = 0; i < responses.getLength(); i++) {
      Element response = (Element) responses.item(i);
      if (text(response, "displayname").equals(name)) {
        return text(response, "href");
      }
    }
    throw new AssertionError("no calendar " + name);
  }

  /** What a sync told: live objects by href, gone hrefs, and the token for the next. */
  record Synced(Map<String, String> live, Set<String> gone, String token) {}

  /** A first sync has an empty token. */
  Synced sync(String href, String token) {
    Document answer =
        xml(
            api.dav(
                    "REPORT",
                    href,
                    "<sync-collection xmlns='DAV:' xmlns:c='urn:ietf:params:xml:ns:caldav'><sync-token>"
                        + token
                        + "</sync-token><sync-level>1</sync-level><prop><getetag/><c:calendar-data/></prop></sync-collection>")
                .expect(207)
                .bytes());
    Map<String, String> live = new LinkedHashMap<>();
    Set<String> gone = new TreeSet<>();
    NodeList responses = answer.getElementsByTagNameNS("DAV:", "response");
    for (int i = 0; i < responses.getLength(); i++) {
      Element response = (Element) responses.item(i);
      NodeList data =
          response.getElementsByTagNameNS("urn:ietf:params:xml:ns:caldav", "calendar-data");
      if (data.getLength() > 0) {
        live.put(text(response, "href"), data.item(0).getTextContent());
      } else {
        gone.add(text(response, "href"));
      }
    }
    return new Synced(
        live, gone, answer.getElementsByTagNameNS("DAV:", "sync-token").item(0).getTextContent());
  }

  /** Every event of a calendar whose text holds these words, as the second library reads it. */
  Map<String, VEvent> events(String calendar, String words) {
    Map<String, VEvent> found = new LinkedHashMap<>();
    sync(href(calendar), "")
        .live()
        .forEach(
            (href, text) -> {
              if (unfold(text).contains(words)) {
                found.put(href, event(text));
              }
            });
    return found;
  }

  static String unfold(String text) {
    return text.replaceAll("\r?\n[ \t]", "");
  }

  /** The one event of an object; the library must find nothing wrong with it. */
  static VEvent event(String text) {
    ICalendar calendar = Biweekly.parse(text).first();
    if (calendar == null || calendar.getEvents().size() != 1) {
      throw new AssertionError("not one event: " + text);
    }
    if (!calendar.validate(biweekly.ICalVersion.V2_0).isEmpty()) {
      throw new AssertionError(calendar.validate(biweekly.ICalVersion.V2_0) + " in " + text);
    }
    return calendar.getEvents().get(0);
  }

  static int sequence(VEvent event) {
    return event.getSequence().getValue();
  }

  static String line(String text, String name) {
    Matcher found = Pattern.compile("(?m)^" + name + "[;:][^\r\n]*").matcher(unfold(text));
    return found.find() ? found.group() : "";
  }

  static Document xml(byte[] bytes) {
    try {
      DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
      factory.setNamespaceAware(true);
      return factory.newDocumentBuilder().parse(new java.io.ByteArrayInputStream(bytes));
    } catch (Exception malformed) {
      throw new AssertionError(
          new String(bytes, java.nio.charset.StandardCharsets.UTF_8), malformed);
    }
  }

  static String text(Element inside, String name) {
    NodeList found = inside.getElementsByTagNameNS("DAV:", name);
    return found.getLength() == 0 ? "" : found.item(0).getTextContent();
  }
}
