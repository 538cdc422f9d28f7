package mellowrota.server.caldav;

import static mellowrota.server.platform.Words.say;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import java.util.Optional;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.sight.Face;
import mellowrota.server.calendars.store.Faces;
import mellowrota.server.ical.Times;
import mellowrota.server.platform.Problem;
import org.w3c.dom.Element;

/** A calendar-query's filter (RFC 4791 §9.7) on objects that hold one event without recurrence. */
final class Filter {

  /** Half-open, in instants; an open end is empty. */
  record Range(Optional<Instant> from, Optional<Instant> until) {}

  private final Element calendar;
  private final ZoneId zone;

  private Filter(Element calendar, ZoneId zone) {
    this.calendar = calendar;
    this.zone = zone;
  }

  /**
   * Reads it.
   *
   * @param zone the one in which whole days are told: the query's, else UTC
   */
  static Filter of(Element filter, ZoneId zone) {
    Element comp =
        DavXml.child(filter, Dav.cal("comp-filter"))
            .orElseThrow(() -> Problem.badRequest(say("caldav.filter-needs-a-comp")));
    if (!comp.getAttribute("name").equalsIgnoreCase("VCALENDAR")) {
      throw Problem.badRequest(say("caldav.the-outer-comp-filter"));
    }
    return new Filter(comp, zone);
  }

  boolean matches(Faces.Kept kept) {
    for (Element child : DavXml.children(calendar)) {
      if (DavXml.name(child).equals(Dav.cal("comp-filter")) && !component(child, kept)) {
        return false;
      }
    }
    return true;
  }

  private boolean component(Element comp, Faces.Kept kept) {
    boolean absentWanted = DavXml.child(comp, Dav.cal("is-not-defined")).isPresent();
    if (!comp.getAttribute("name").equalsIgnoreCase("VEVENT")) {
      return absentWanted;
    }
    if (absentWanted) {
      return false;
    }
    Face face = kept.face();
    for (Element test : DavXml.children(comp)) {
      String name = test.getLocalName();
      boolean holds =
          switch (name) {
            case "time-range" -> touches(face.times(), range(test), zone);
            case "prop-filter" -> property(test, kept, face);
            case "comp-filter" -> DavXml.child(test, Dav.cal("is-not-defined")).isPresent();
            default -> true;
          };
      if (!holds) {
        return false;
      }
    }
    return true;
  }

  static Range range(Element element) {
    try {
      Optional<Instant> from = attribute(element, "start");
      Optional<Instant> until = attribute(element, "end");
      if (from.isEmpty() && until.isEmpty()) {
        throw Problem.badRequest(say("caldav.time-range-needs-a"));
      }
      if (from.isPresent() && until.isPresent() && !from.get().isBefore(until.get())) {
        throw Problem.badRequest(say("caldav.time-range-ends-before"));
      }
      return new Range(from, until);
    } catch (DateTimeParseException | IllegalArgumentException unreadable) {
      throw Problem.badRequest(say("caldav.time-range-needs-utc"));
    }
  }

  private static Optional<Instant> attribute(Element element, String name) {
    String text = element.getAttribute(name);
    return text.isEmpty() ? Optional.empty() : Optional.of(Times.parseUtc(text));
  }

  /** Overlap as RFC 4791 §9.9 defines it for events: an empty one counts at its start. */
  static boolean touches(EntryTimes times, Range range, ZoneId zone) {
    Instant start = times.from();
    Instant end = times.until();
    if (times instanceof EntryTimes.AllDay allDay) {
      start = allDay.days().first().atStartOfDay(zone).toInstant();
      end = allDay.days().until().atStartOfDay(zone).toInstant();
    }
    Instant from = range.from().orElse(Instant.MIN);
    Instant until = range.until().orElse(Instant.MAX);
    if (start.equals(end)) {
      return !start.isBefore(from) && start.isBefore(until);
    }
    return start.isBefore(until) && end.isAfter(from);
  }

  private static boolean property(Element filter, Faces.Kept kept, Face face) {
    String name = filter.getAttribute("name").toUpperCase(Locale.ROOT);
    Optional<String> value =
        switch (name) {
          case "UID" -> Optional.of(kept.uid());
          case "SUMMARY" -> Optional.of(face.title());
          case "LOCATION" -> Optional.of(face.place()).filter(t -> !t.isEmpty());
          case "DESCRIPTION" -> Optional.of(face.text()).filter(t -> !t.isEmpty());
          case "CATEGORIES" ->
              Optional.of(String.join(",", face.categories())).filter(t -> !t.isEmpty());
          case "STATUS" -> Optional.of(face.marks().tentative() ? "TENTATIVE" : "CONFIRMED");
          case "TRANSP" -> Optional.of(face.marks().busy() ? "OPAQUE" : "TRANSPARENT");
          case "DTSTART", "DTEND", "DTSTAMP", "SEQUENCE", "LAST-MODIFIED", "CLASS" ->
              Optional.of("");
          default -> Optional.empty();
        };
    if (DavXml.child(filter, Dav.cal("is-not-defined")).isPresent()) {
      return value.isEmpty();
    }
    if (value.isEmpty()) {
      return false;
    }
    return DavXml.child(filter, Dav.cal("text-match"))
        .map(match -> text(match, value.get()))
        .orElse(true);
  }

  private static boolean text(Element match, String value) {
    String wanted = match.getTextContent();
    boolean octets = match.getAttribute("collation").equals("i;octet");
    boolean found =
        octets
            ? value.contains(wanted)
            : value.toLowerCase(Locale.ROOT).contains(wanted.toLowerCase(Locale.ROOT));
    return found != match.getAttribute("negate-condition").equals("yes");
  }

  static ZoneId utc() {
    return ZoneOffset.UTC;
  }
}
