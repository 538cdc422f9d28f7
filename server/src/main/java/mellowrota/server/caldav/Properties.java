package mellowrota.server.caldav;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendar;
import mellowrota.server.calendars.store.Faces;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.sight.store.CalendarStore;
import org.springframework.stereotype.Component;

/** The properties of each place in the tree. */
@Component
@RequiredArgsConstructor
class Properties {

  private static final List<String> HUES =
      List.of("#226874", "#67578F", "#4E6A8E", "#4F6B2C", "#84466F", "#6E5432");

  private final CalendarStore calendars;
  private final HouseStore house;

  Map<QName, MultiStatus.Content> of(Tree tree, Tree.Node node) {
    Map<QName, MultiStatus.Content> found = new LinkedHashMap<>();
    found.put(
        Dav.dav("current-user-principal"), MultiStatus.href(tree.principalHref())); // RFC 5397 §3
    found.put(Dav.dav("owner"), MultiStatus.href(tree.principalHref()));
    found.put(Dav.dav("current-user-privilege-set"), Properties::readOnly); // RFC 3744 §5.4
    found.put(Dav.dav("principal-collection-set"), MultiStatus.href(Tree.PRINCIPALS));
    if (node instanceof Tree.Principal) {
      principal(tree, found);
    } else if (node instanceof Tree.Collection collection) {
      collection(collection, found);
    } else {
      found.put(Dav.dav("resourcetype"), types(Dav.dav("collection")));
      found.put(Dav.dav("displayname"), MultiStatus.text("Calendars"));
    }
    return found;
  }

  private static void principal(Tree tree, Map<QName, MultiStatus.Content> found) {
    found.put(Dav.dav("resourcetype"), types(Dav.dav("principal"), Dav.dav("collection")));
    found.put(Dav.dav("displayname"), MultiStatus.text(tree.person().name()));
    found.put(Dav.dav("principal-URL"), MultiStatus.href(tree.principalHref())); // RFC 3744 §4.2
    found.put(Dav.cal("calendar-home-set"), MultiStatus.href(Tree.CALENDARS)); // RFC 4791 §6.2.1
  }

  private void collection(Tree.Collection node, Map<QName, MultiStatus.Content> found) {
    Calendar calendar = node.calendar();
    String token = token(node).toString();
    found.put(Dav.dav("resourcetype"), types(Dav.dav("collection"), Dav.cal("calendar")));
    found.put(Dav.dav("displayname"), MultiStatus.text(calendar.name()));
    found.put(
        new QName(Dav.APPLE, "calendar-color"),
        MultiStatus.text(HUES.get((int) (calendar.id().value() % HUES.size()))));
    found.put(Dav.cal("supported-calendar-component-set"), Properties::events);
    found.put(Dav.cal("supported-calendar-data"), Properties::calendarData);
    found.put(new QName(Dav.CS, "getctag"), MultiStatus.text(token));
    found.put(Dav.dav("sync-token"), MultiStatus.text(token));
    found.put(Dav.dav("supported-report-set"), Properties::reports); // RFC 3253 §3.1.5
    found.put(Dav.dav("getcontenttype"), MultiStatus.text("text/calendar; component=vevent"));
    found.put(Dav.cal("max-resource-size"), MultiStatus.text("1048576"));
  }

  /** The token that says: everything up to now. */
  SyncToken token(Tree.Collection node) {
    CalendarStore.Position position = calendars.position(node.rendering().id());
    return new SyncToken(
        house.incarnation(), node.rendering().id(), position.accessNo(), position.changeNo());
  }

  /** The properties of an object; its data only when asked for. */
  static Map<QName, MultiStatus.Content> of(Faces.Kept face, List<QName> asked) {
    Map<QName, MultiStatus.Content> found = new LinkedHashMap<>();
    found.put(Dav.GETETAG, MultiStatus.text('"' + face.etag() + '"'));
    found.put(
        Dav.dav("getcontenttype"),
        MultiStatus.text("text/calendar; charset=utf-8; component=vevent"));
    found.put(Dav.dav("resourcetype"), MultiStatus.EMPTY);
    found.put(Dav.dav("getlastmodified"), MultiStatus.text(HttpDates.format(face.modified())));
    found.put(Dav.dav("current-user-privilege-set"), Properties::readOnly);
    if (asked.contains(Dav.CALENDAR_DATA) || asked.contains(Dav.dav("getcontentlength"))) {
      String text = face.text().orElseThrow();
      found.put(Dav.CALENDAR_DATA, MultiStatus.text(text));
      int length = text.getBytes(java.nio.charset.StandardCharsets.UTF_8).length;
      found.put(Dav.dav("getcontentlength"), MultiStatus.text(Integer.toString(length)));
    }
    return found;
  }

  private static MultiStatus.Content types(QName... names) {
    return out -> {
      for (QName name : names) {
        MultiStatus.empty(out, name);
      }
    };
  }

  private static void readOnly(javax.xml.stream.XMLStreamWriter out)
      throws javax.xml.stream.XMLStreamException {
    for (QName privilege :
        List.of(
            Dav.dav("read"),
            Dav.cal("read-free-busy"),
            Dav.dav("read-current-user-privilege-set"))) {
      MultiStatus.start(out, Dav.dav("privilege"));
      MultiStatus.empty(out, privilege);
      out.writeEndElement();
    }
  }

  private static void events(javax.xml.stream.XMLStreamWriter out)
      throws javax.xml.stream.XMLStreamException {
    MultiStatus.start(out, Dav.cal("comp"));
    out.writeAttribute("name", "VEVENT");
    out.writeEndElement();
  }

  private static void calendarData(javax.xml.stream.XMLStreamWriter out)
      throws javax.xml.stream.XMLStreamException {
    MultiStatus.start(out, Dav.CALENDAR_DATA);
    out.writeAttribute("content-type", "text/calendar");
    out.writeAttribute("version", "2.0");
    out.writeEndElement();
  }

  private static void reports(javax.xml.stream.XMLStreamWriter out)
      throws javax.xml.stream.XMLStreamException {
    List<QName> names = new ArrayList<>();
    names.add(Dav.cal("calendar-query"));
    names.add(Dav.cal("calendar-multiget"));
    names.add(Dav.cal("free-busy-query"));
    names.add(Dav.dav("sync-collection"));
    for (QName name : names) {
      MultiStatus.start(out, Dav.dav("supported-report"));
      MultiStatus.start(out, Dav.dav("report"));
      MultiStatus.empty(out, name);
      out.writeEndElement();
      out.writeEndElement();
    }
  }
}
