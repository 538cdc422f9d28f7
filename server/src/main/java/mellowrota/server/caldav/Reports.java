package mellowrota.server.caldav;

import static mellowrota.server.platform.Words.say;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import lombok.RequiredArgsConstructor;
import mellowrota.core.entry.EntryTimes;
import mellowrota.server.calendars.store.Faces;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.ical.Times;
import mellowrota.server.platform.Problem;
import mellowrota.server.sight.store.CalendarStore;
import org.springframework.stereotype.Component;
import org.w3c.dom.Element;

/** Answers REPORT (RFC 3253 §3.6) on a calendar. */
@Component
@RequiredArgsConstructor
class Reports {

  private static final int MOST_CHANGES = 20_000;
  private static final int MOST_HREFS = 20_000;
  private static final Pattern TZID = Pattern.compile("(?m)^TZID(?:;[^:]*)?:(.+?)\\r?$");

  private final Faces faces;
  private final Texts texts;
  private final Properties properties;
  private final HouseStore house;
  private final CalendarStore calendars;

  /** A token that is not, or no longer, good for this way of reading (RFC 6578 §3.2). */
  static final class BadToken extends RuntimeException {
    BadToken() {
      super("bad sync token", null, false, false);
    }
  }

  private void changed(
      MultiStatus answer,
      Tree.Collection node,
      List<Faces.Kept> changed,
      List<QName> asked,
      boolean alsoGone) {
    for (Faces.Kept face : changed) {
      String href = Tree.href(node.calendar(), face.uid());
      if (face.live()) {
        object(answer, href, face, asked);
      } else if (alsoGone) {
        answer.gone(href);
      }
    }
  }

  /** sync-collection (RFC 6578 §3.2): what changed since the token, gone members as 404. */
  byte[] syncCollection(Tree.Collection node, Element body) {
    List<QName> asked = asked(body);
    String text =
        DavXml.child(body, Dav.dav("sync-token")).map(e -> e.getTextContent().strip()).orElse("");
    int limit = limit(body);
    CalendarStore.Position now = calendars.position(node.rendering().id());
    long since = text.isEmpty() ? 0 : since(text, node, now);
    List<Faces.Kept> changed =
        faces.since(node.rendering().id(), since, Math.min(limit, MOST_CHANGES) + 1);
    boolean cut = changed.size() > Math.min(limit, MOST_CHANGES);
    long upTo = now.changeNo();
    if (cut) {
      changed = wholeActs(node, changed, since);
      upTo = changed.get(changed.size() - 1).changeNo();
    }
    MultiStatus answer = new MultiStatus();
    changed(answer, node, withTexts(node, changed, asked), asked, !text.isEmpty());
    if (cut) {
      answer.cut(Tree.href(node.calendar()));
    }
    answer.syncToken(
        new SyncToken(house.incarnation(), node.rendering().id(), now.accessNo(), upTo).toString());
    return answer.done();
  }

  /** A cut never falls inside one change number, or the rest of it would be lost. */
  private List<Faces.Kept> wholeActs(Tree.Collection node, List<Faces.Kept> changed, long since) {
    long last = changed.get(changed.size() - 1).changeNo();
    List<Faces.Kept> whole = changed.stream().filter(f -> f.changeNo() < last).toList();
    if (!whole.isEmpty()) {
      return whole;
    }
    List<Faces.Kept> all = faces.since(node.rendering().id(), since, Integer.MAX_VALUE);
    return all.stream().filter(f -> f.changeNo() == last).toList();
  }

  private long since(String text, Tree.Collection node, CalendarStore.Position now) {
    SyncToken token = SyncToken.parse(text).orElseThrow(BadToken::new);
    boolean good =
        token.incarnation().equals(house.incarnation())
            && token.rendering().equals(node.rendering().id())
            && token.accessNo() == now.accessNo()
            && token.changeNo() >= now.oldestNo()
            && token.changeNo() <= now.changeNo();
    if (!good) {
      throw new BadToken();
    }
    return token.changeNo();
  }

  private static int limit(Element body) {
    return DavXml.child(body, Dav.dav("limit"))
        .flatMap(limit -> DavXml.child(limit, Dav.dav("nresults")))
        .map(
            n -> {
              String text = n.getTextContent().strip();
              if (!text.matches("[1-9]\\d{0,8}")) {
                throw Problem.badRequest(say("caldav.nresults-must-be-a"));
              }
              return Integer.valueOf(text);
            })
        .orElse(MOST_CHANGES);
  }

  /** Of an object in this collection; empty for any other address. */
  private static String uid(Tree.Collection node, String href) {
    String own = Tree.href(node.calendar());
    String path = href.replaceFirst("^https?://[^/]*", "");
    boolean here = path.startsWith(own) && path.endsWith(".ics");
    return here ? path.substring(own.length(), path.length() - 4) : "";
  }

  /** calendar-multiget (RFC 4791 §7.9): those asked for, 404 for what is not there. */
  byte[] multiget(Tree.Collection node, Element body) {
    List<QName> asked = asked(body);
    List<String> hrefs =
        DavXml.children(body).stream()
            .filter(e -> DavXml.name(e).equals(Dav.dav("href")))
            .map(e -> e.getTextContent().strip())
            .toList();
    if (hrefs.size() > MOST_HREFS) {
      throw Problem.badRequest(say("caldav.at-most-hrefs-at", MOST_HREFS));
    }
    Map<String, String> uids = new LinkedHashMap<>();
    hrefs.forEach(href -> uids.put(href, uid(node, href)));
    Map<String, Faces.Kept> found = new HashMap<>();
    List<Faces.Kept> kept = faces.byUid(node.rendering().id(), uids.values());
    withTexts(node, kept, asked).forEach(face -> found.put(face.uid(), face));
    MultiStatus answer = new MultiStatus();
    for (Map.Entry<String, String> wanted : uids.entrySet()) {
      Faces.Kept face = found.get(wanted.getValue());
      if (face == null) {
        answer.gone(wanted.getKey());
      } else {
        object(answer, Tree.href(node.calendar(), face.uid()), face, asked);
      }
    }
    return answer.done();
  }

  /** calendar-query (RFC 4791 §7.8). */
  byte[] query(Tree.Collection node, Element body) {
    List<QName> asked = asked(body);
    Element filterElement =
        DavXml.child(body, Dav.cal("filter"))
            .orElseThrow(() -> Problem.badRequest(say("caldav.calendar-query-needs-a")));
    Filter filter = Filter.of(filterElement, zone(body));
    List<Faces.Kept> matching =
        faces.live(node.rendering().id()).stream().filter(filter::matches).toList();
    boolean expand = expands(body);
    MultiStatus answer = new MultiStatus();
    for (Faces.Kept face : withTexts(node, matching, asked)) {
      Faces.Kept told = expand ? inUtc(face) : face;
      object(answer, Tree.href(node.calendar(), face.uid()), told, asked);
    }
    return answer.done();
  }

  private static boolean expands(Element body) {
    return DavXml.child(body, Dav.dav("prop"))
        .flatMap(prop -> DavXml.child(prop, Dav.CALENDAR_DATA))
        .flatMap(data -> DavXml.child(data, Dav.cal("expand")))
        .map(
            expand -> {
              Filter.range(expand);
              return true;
            })
        .orElse(false);
  }

  /** Expanded instances are told in UTC, without a time zone component (RFC 4791 §9.6.5). */
  private static Faces.Kept inUtc(Faces.Kept face) {
    if (!(face.face().times() instanceof EntryTimes.Timed timed) || face.text().isEmpty()) {
      return face;
    }
    String text =
        face.text()
            .get()
            .replaceAll("(?s)BEGIN:VTIMEZONE.*?END:VTIMEZONE\r\n", "")
            .replaceAll("DTSTART;TZID=[^\r]*", "DTSTART:" + Times.utc(timed.from()))
            .replaceAll("DTEND;TZID=[^\r]*", "DTEND:" + Times.utc(timed.until()));
    return new Faces.Kept(
        face.entry(),
        face.uid(),
        true,
        face.content(),
        face.etag(),
        face.sequence(),
        face.modified(),
        face.changeNo(),
        Optional.of(text));
  }

  private record Busy(Instant from, Instant until, boolean tentative) {}

  /** free-busy-query (RFC 4791 §7.10): busy times alone, merged. */
  String freeBusy(Tree.Collection node, Element body, Instant now) {
    Element element =
        DavXml.child(body, Dav.cal("time-range"))
            .orElseThrow(() -> Problem.badRequest(say("caldav.free-busy-query-needs-a")));
    Filter.Range range = Filter.range(element);
    if (range.from().isEmpty() || range.until().isEmpty()) {
      throw Problem.badRequest(say("caldav.free-busy-query-needs"));
    }
    List<Busy> busy = new ArrayList<>();
    for (Faces.Kept kept :
        faces.between(node.rendering().id(), range.from().get(), range.until().get())) {
      mellowrota.core.sight.Face face = kept.face();
      if (face.marks().busy() && Filter.touches(face.times(), range, Filter.utc())) {
        busy.add(new Busy(face.times().from(), face.times().until(), face.marks().tentative()));
      }
    }
    busy.sort(Comparator.comparing(Busy::from).thenComparing(Busy::until));
    return written(range, busy, now);
  }

  private static String written(Filter.Range range, List<Busy> busy, Instant now) {
    StringBuilder out = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n");
    out.append("PRODID:-//Mellow Rota//Mellow Rota//EN\r\nBEGIN:VFREEBUSY\r\n");
    out.append("DTSTAMP:").append(Times.utc(now)).append("\r\n");
    out.append("DTSTART:").append(Times.utc(range.from().get())).append("\r\n");
    out.append("DTEND:").append(Times.utc(range.until().get())).append("\r\n");
    for (Busy span : busy) {
      out.append("FREEBUSY;FBTYPE=").append(span.tentative() ? "BUSY-TENTATIVE" : "BUSY");
      out.append(':').append(Times.utc(span.from())).append('/').append(Times.utc(span.until()));
      out.append("\r\n");
    }
    return out.append("END:VFREEBUSY\r\nEND:VCALENDAR\r\n").toString();
  }

  /** The zone a query brings for whole days (RFC 4791 §9.8), else UTC. */
  private static ZoneId zone(Element body) {
    Optional<String> id =
        DavXml.child(body, Dav.cal("timezone-id")).map(e -> e.getTextContent().strip());
    if (id.isEmpty()) {
      id = DavXml.child(body, Dav.cal("timezone")).flatMap(e -> tzid(e.getTextContent()));
    }
    return id.filter(ZoneId.getAvailableZoneIds()::contains).map(ZoneId::of).orElse(Filter.utc());
  }

  private static Optional<String> tzid(String text) {
    Matcher found = TZID.matcher(text);
    return found.find() ? Optional.of(found.group(1).strip()) : Optional.empty();
  }

  private List<Faces.Kept> withTexts(
      Tree.Collection node, List<Faces.Kept> found, List<QName> asked) {
    boolean wanted =
        asked.contains(Dav.CALENDAR_DATA) || asked.contains(Dav.dav("getcontentlength"));
    return wanted ? texts.with(node.rendering().id(), found) : found;
  }

  private static void object(MultiStatus answer, String href, Faces.Kept face, List<QName> asked) {
    Map<QName, MultiStatus.Content> all = Properties.of(face, asked);
    Map<QName, MultiStatus.Content> found = new LinkedHashMap<>();
    List<QName> missing = new ArrayList<>();
    for (QName name : asked) {
      if (all.containsKey(name)) {
        found.put(name, all.get(name));
      } else {
        missing.add(name);
      }
    }
    answer.resource(href, found, missing);
  }

  private static List<QName> asked(Element body) {
    return DavXml.child(body, Dav.dav("prop"))
        .map(prop -> DavXml.children(prop).stream().map(DavXml::name).distinct().toList())
        .orElse(List.of(Dav.GETETAG));
  }
}
