package mellowrota.server.ical;

import java.io.IOException;
import java.io.StringReader;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.data.ParserException;
import net.fortuna.ical4j.model.component.VTimeZone;
import net.fortuna.ical4j.model.property.TzOffsetTo;

/** The time zones of one iCalendar file: those the world knows, and those it defines itself. */
public final class FileZones {

  private final Map<String, VTimeZone> defined = new HashMap<>();

  /** Reads the definitions (VTIMEZONE) among these components. */
  public static FileZones of(List<IcalendarReader.Component> components) {
    FileZones zones = new FileZones();
    for (IcalendarReader.Component component : components) {
      if (component.name().equals("VTIMEZONE")) {
        zones.define(component);
      }
    }
    return zones;
  }

  private void define(IcalendarReader.Component component) {
    Optional<String> id = component.find("TZID").map(IcalendarReader.Property::text);
    if (id.isEmpty()) {
      return;
    }
    try {
      new CalendarBuilder()
          .build(new StringReader(IcalendarReader.alone(component.text())))
          .getComponents("VTIMEZONE")
          .forEach(zone -> defined.put(id.get(), (VTimeZone) zone));
    } catch (IOException | ParserException | RuntimeException unreadable) {
      // Then its times are told to be in a zone that nobody knows.
      defined.remove(id.get());
    }
  }

  /** The zone by this name, or the one it ends in, as in {@code /x/Europe/London}. */
  public static Optional<ZoneId> known(String name) {
    String rest = name;
    while (!rest.isEmpty()) {
      if (ZoneId.getAvailableZoneIds().contains(rest)) {
        return Optional.of(ZoneId.of(rest));
      }
      int slash = rest.indexOf('/');
      rest = slash < 0 ? "" : rest.substring(slash + 1);
    }
    return Optional.empty();
  }

  /** A local time in a zone the file defines, as a moment; empty where it defines no such. */
  public Optional<ZonedDateTime> moment(String name, LocalDateTime local) {
    VTimeZone zone = defined.get(name);
    if (zone == null) {
      return Optional.empty();
    }
    // The offset of the moment meant, found from the moment that its clock would show in UTC.
    return offset(zone, local.atOffset(ZoneOffset.UTC))
        .flatMap(near -> offset(zone, local.atOffset(near)))
        .map(local::atZone);
  }

  private static Optional<ZoneOffset> offset(VTimeZone zone, OffsetDateTime at) {
    return Optional.ofNullable(zone.getApplicableObservance(at))
        .flatMap(found -> found.<TzOffsetTo>getProperty("TZOFFSETTO"))
        .map(TzOffsetTo::getOffset);
  }
}
