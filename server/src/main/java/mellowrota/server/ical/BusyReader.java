package mellowrota.server.ical;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAmount;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.time.DaySpan;
import net.fortuna.ical4j.model.Recur;
import net.fortuna.ical4j.model.TemporalAmountAdapter;

/**
 * Reads when an event takes somebody's time (RFC 5545 §3.6.1): repeating, whole days, in zones,
 * with occurrences that were moved or left out. Its words are not looked at.
 */
public final class BusyReader {

  /** How far from now occurrences are counted. */
  private static final Duration BACK = Duration.ofDays(35);

  private static final Duration AHEAD = Duration.ofDays(400);
  private static final int MOST = 2_000;

  private BusyReader() {}

  /**
   * A span.
   *
   * @param days where it is whole days without a zone: those of whoever's calendar it is
   */
  public record Span(Instant starts, Instant ends, Optional<DaySpan> days, boolean tentative) {}

  /** What one calendar object says. */
  public record Read(String uid, List<Span> spans) {}

  /** Reads an object; what cannot be read takes no time, but never hides the rest. */
  public static Read read(String text, ZoneId floating, Instant now) {
    IcalendarReader.Read all = IcalendarReader.read(text);
    FileZones zones = FileZones.of(all.components());
    List<IcalendarReader.Component> events =
        all.components().stream().filter(one -> one.name().equals("VEVENT")).toList();
    String uid =
        events.stream()
            .flatMap(one -> one.find("UID").stream())
            .map(one -> one.text().strip())
            .findFirst()
            .orElse("");
    Instant from = now.minus(BACK);
    Instant until = now.plus(AHEAD);
    Set<Instant> moved = new HashSet<>();
    List<Span> found = new ArrayList<>();
    for (IcalendarReader.Component event : events) {
      event
          .find("RECURRENCE-ID")
          .ifPresent(id -> moved.add(CopyText.moment(id, zones, floating).toInstant()));
    }
    for (IcalendarReader.Component event : events) {
      if (takesTime(event)) {
        spans(event, zones, floating, from, until, moved, found);
      }
    }
    return new Read(uid, found);
  }

  private static boolean takesTime(IcalendarReader.Component event) {
    boolean free = has(event, "TRANSP", "TRANSPARENT");
    return !free && !has(event, "STATUS", "CANCELLED");
  }

  private static boolean has(IcalendarReader.Component event, String property, String value) {
    return event.find(property).filter(p -> p.value().strip().equalsIgnoreCase(value)).isPresent();
  }

  private static void spans(
      IcalendarReader.Component event,
      FileZones zones,
      ZoneId floating,
      Instant from,
      Instant until,
      Set<Instant> moved,
      List<Span> found) {
    Optional<IcalendarReader.Property> start = event.find("DTSTART");
    if (start.isEmpty()) {
      return;
    }
    boolean days = start.get().value().strip().length() == 8;
    ZonedDateTime first = CopyText.moment(start.get(), zones, floating);
    Optional<ZonedDateTime> end = event.find("DTEND").map(p -> CopyText.moment(p, zones, floating));
    Optional<TemporalAmount> length =
        event.find("DURATION").map(d -> TemporalAmountAdapter.parse(d.value()).getDuration());
    ZonedDateTime last =
        end.orElseGet(() -> length.map(first::plus).orElse(days ? first.plusDays(1) : first));
    boolean tentative = has(event, "STATUS", "TENTATIVE");
    boolean occurrence = event.find("RECURRENCE-ID").isPresent();
    Set<Instant> leftOut = new HashSet<>(occurrence ? Set.of() : moved);
    for (IcalendarReader.Property one : event.all("EXDATE")) {
      for (String value : one.value().split(",")) {
        leftOut.add(moment(one, value, zones, floating).toInstant());
      }
    }
    List<ZonedDateTime> starts = new ArrayList<>(List.of(first));
    for (IcalendarReader.Property one : event.all("RDATE")) {
      for (String value : one.value().split(",")) {
        starts.add(moment(one, value.split("/")[0], zones, floating));
      }
    }
    for (IcalendarReader.Property rule : event.all("RRULE")) {
      new Recur<ZonedDateTime>(rule.value())
          .getDates(
              first,
              from.atZone(first.getZone()).isBefore(first) ? first : from.atZone(first.getZone()),
              until.atZone(first.getZone()),
              MOST)
          .forEach(starts::add);
    }
    Set<Instant> once = new HashSet<>();
    for (ZonedDateTime one : starts) {
      if (!leftOut.contains(one.toInstant()) && once.add(one.toInstant())) {
        add(first, last, one, days, tentative, from, until, found);
      }
    }
  }

  private static ZonedDateTime moment(
      IcalendarReader.Property property, String value, FileZones zones, ZoneId floating) {
    return CopyText.moment(
        new IcalendarReader.Property(property.name(), property.parameters(), value),
        zones,
        floating);
  }

  /** A whole day keeps its length in days, a time its length in hours (RFC 5545 §3.8.5.3). */
  private static void add(
      ZonedDateTime first,
      ZonedDateTime last,
      ZonedDateTime start,
      boolean days,
      boolean tentative,
      Instant from,
      Instant until,
      List<Span> found) {
    if (days) {
      LocalDate day = start.toLocalDate();
      long length = Math.max(1, ChronoUnit.DAYS.between(first.toLocalDate(), last.toLocalDate()));
      DaySpan span = DaySpan.of(day, day.plusDays(length));
      Instant begins = day.atStartOfDay(ZoneOffset.UTC).toInstant();
      Instant ends = span.until().atStartOfDay(ZoneOffset.UTC).toInstant();
      if (ends.isAfter(from) && begins.isBefore(until)) {
        found.add(new Span(begins, ends, Optional.of(span), tentative));
      }
      return;
    }
    Instant begins = start.toInstant();
    Instant ends = begins.plus(Duration.between(first, last));
    if (ends.isAfter(from) && begins.isBefore(until) && ends.isAfter(begins)) {
      found.add(new Span(begins, ends, Optional.empty(), tentative));
    }
  }
}
