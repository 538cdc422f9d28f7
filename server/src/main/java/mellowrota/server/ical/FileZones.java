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
import java.util.regex.Pattern;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.data.ParserException;
import net.fortuna.ical4j.model.component.VTimeZone;
import net.fortuna.ical4j.model.property.TzOffsetTo;

/** The time zones of one iCalendar file: those the world knows, and those it defines itself. */
public final class FileZones {

  private static final Pattern BEGUN_EARLY =
      Pattern.compile("(?im)^(DTSTART[^:\\r\\n]*:)(?:0\\d{3}|1[0-8]\\d\\d|19[0-6]\\d)");

  /** As they are written: most files name zones that the world knows, and need no reading. */
  private final Map<String, IcalendarReader.Component> written = new HashMap<>();

  private final Map<String, Optional<VTimeZone>> read = new HashMap<>();

  /** Finds the definitions (VTIMEZONE) among these components. */
  public static FileZones of(List<IcalendarReader.Component> components) {
    FileZones zones = new FileZones();
    for (IcalendarReader.Component component : components) {
      if (component.name().equals("VTIMEZONE")) {
        component.find("TZID").ifPresent(id -> zones.written.put(id.text(), component));
      }
    }
    return zones;
  }

  private Optional<VTimeZone> defined(String name) {
    return read.computeIfAbsent(
        name, id -> Optional.ofNullable(written.get(id)).flatMap(FileZones::parse));
  }

  /** One that cannot be read is none: then its times are told to be in a zone nobody knows. */
  private static Optional<VTimeZone> parse(IcalendarReader.Component component) {
    try {
      return new CalendarBuilder()
              .build(new StringReader(IcalendarReader.alone(sinceClocks(component.text()))))
              .getComponents("VTIMEZONE")
              .stream()
              .map(VTimeZone.class::cast)
              .findFirst();
    } catch (IOException | ParserException | RuntimeException unreadable) {
      return Optional.empty();
    }
  }

  /** Programs let a zone's rule begin in the year 1 or 1601; nobody's work is from before 1970. */
  private static String sinceClocks(String zone) {
    return BEGUN_EARLY.matcher(zone).replaceAll("$11970");
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
    // The offset of the moment meant, found from the moment that its clock would show in UTC.
    return defined(name)
        .flatMap(
            zone ->
                offset(zone, local.atOffset(ZoneOffset.UTC))
                    .flatMap(near -> offset(zone, local.atOffset(near)))
                    .map(local::atZone));
  }

  private static Optional<ZoneOffset> offset(VTimeZone zone, OffsetDateTime at) {
    return Optional.ofNullable(zone.getApplicableObservance(at))
        .flatMap(found -> found.<TzOffsetTo>getProperty("TZOFFSETTO"))
        .map(TzOffsetTo::getOffset);
  }
}
