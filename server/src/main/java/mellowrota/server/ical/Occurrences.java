package mellowrota.server.ical;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAmount;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * When the events of a calendar happen (RFC 5545 §3.6.1 and §3.8.5): once or repeating, whole days,
 * in zones, with occurrences that were moved or left out.
 */
final class Occurrences {

  private static final int MOST = 2_000;

  private final ZoneId floating;
  private final Instant from;
  private final Instant until;
  private final FileZones zones;
  private final Recurrence rules = new Recurrence();

  /** Occurrences that are told by an event of their own, by UID. */
  private final Map<String, Set<Instant>> moved = new HashMap<>();

  /**
   * One.
   *
   * @param ends not before {@code starts}
   * @param days whole days without a zone, from the start's until before the end's
   */
  record Occurrence(ZonedDateTime starts, ZonedDateTime ends, boolean days) {}

  /**
   * Of a calendar.
   *
   * @param floating the zone of times that name none
   * @param from repeating events are followed from here
   * @param until and to here
   */
  Occurrences(
      List<IcalendarReader.Component> components, ZoneId floating, Instant from, Instant until) {
    this.floating = floating;
    this.from = from;
    this.until = until;
    zones = FileZones.of(components);
    for (IcalendarReader.Component event : components) {
      try {
        which(event)
            .ifPresent(one -> moved.computeIfAbsent(uid(event), key -> new HashSet<>()).add(one));
      } catch (DateTimeException unreadable) {
        // Told when it is asked when this event happens.
        continue;
      }
    }
  }

  /** Which occurrence of a repeating event this one tells of. */
  private Optional<Instant> which(IcalendarReader.Component event) {
    return event.find("RECURRENCE-ID").map(id -> moment(id).toInstant());
  }

  static String uid(IcalendarReader.Component event) {
    return event.find("UID").map(one -> one.text().strip()).orElse("");
  }

  /** Whether a property of it has a value, whose case says nothing. */
  static boolean has(IcalendarReader.Component event, String property, String value) {
    return event.find(property).filter(p -> p.value().strip().equalsIgnoreCase(value)).isPresent();
  }

  /**
   * When an event happens, each start once; never where it has no start.
   *
   * @throws DateTimeException where one of its times cannot be read, or is beyond reason
   * @throws IllegalArgumentException where its rule cannot
   */
  List<Occurrence> of(IcalendarReader.Component event) {
    try {
      return happenings(event);
    } catch (ArithmeticException beyond) {
      throw new DateTimeException("one of its times is beyond reason", beyond);
    }
  }

  private Set<Instant> leftOut(IcalendarReader.Component event) {
    Set<Instant> leftOut = new HashSet<>();
    if (which(event).isEmpty()) {
      leftOut.addAll(moved.getOrDefault(uid(event), Set.of()));
    }
    for (IcalendarReader.Property one : event.all("EXDATE")) {
      for (String value : one.value().split(",")) {
        leftOut.add(moment(one, value).toInstant());
      }
    }
    return leftOut;
  }

  private List<Occurrence> happenings(IcalendarReader.Component event) {
    Optional<IcalendarReader.Property> start = event.find("DTSTART");
    if (start.isEmpty()) {
      return List.of();
    }
    boolean days = start.get().value().strip().length() == 8;
    ZonedDateTime first = moment(start.get());
    Optional<TemporalAmount> length = event.find("DURATION").map(d -> Lengths.parse(d.value()));
    ZonedDateTime last =
        event
            .find("DTEND")
            .map(this::moment)
            .orElseGet(() -> length.map(first::plus).orElse(days ? first.plusDays(1) : first));
    Set<Instant> leftOut = leftOut(event);
    Set<Instant> once = new HashSet<>();
    List<Occurrence> found = new ArrayList<>();
    for (ZonedDateTime one : starts(event, first)) {
      if (!leftOut.contains(one.toInstant()) && once.add(one.toInstant())) {
        found.add(new Occurrence(one, end(first, last, one, days), days));
      }
    }
    return found;
  }

  private List<ZonedDateTime> starts(IcalendarReader.Component event, ZonedDateTime first) {
    List<ZonedDateTime> starts = new ArrayList<>(List.of(first));
    for (IcalendarReader.Property one : event.all("RDATE")) {
      for (String value : one.value().split(",")) {
        starts.add(moment(one, value.split("/")[0]));
      }
    }
    ZonedDateTime here = from.atZone(first.getZone());
    for (IcalendarReader.Property rule : event.all("RRULE")) {
      starts.addAll(
          rules.dates(
              rule.value(),
              first,
              here.isBefore(first) ? first : here,
              until.atZone(first.getZone()),
              MOST));
    }
    return starts;
  }

  /** A whole day keeps its length in days, a time its length in hours (RFC 5545 §3.8.5.3). */
  private static ZonedDateTime end(
      ZonedDateTime first, ZonedDateTime last, ZonedDateTime start, boolean days) {
    if (days) {
      return start.plusDays(
          Math.max(1, ChronoUnit.DAYS.between(first.toLocalDate(), last.toLocalDate())));
    }
    Duration length = Duration.between(first, last);
    return length.isNegative() ? start : start.plus(length);
  }

  private ZonedDateTime moment(IcalendarReader.Property property) {
    return CopyText.moment(property, zones, floating);
  }

  private ZonedDateTime moment(IcalendarReader.Property property, String value) {
    return moment(new IcalendarReader.Property(property.name(), property.parameters(), value));
  }
}
