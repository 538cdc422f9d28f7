package mellowrota.server.ical;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.time.DaySpan;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Reads when an event takes somebody's time; its words are not looked at. */
public final class BusyReader {

  /** How far from now occurrences are counted. */
  private static final Duration BACK = Duration.ofDays(35);

  private static final Duration AHEAD = Duration.ofDays(400);

  private static final Logger LOG = LoggerFactory.getLogger(BusyReader.class);

  private static final Set<String> REPEATS = Set.of("RRULE", "RDATE", "EXDATE", "EXRULE");

  /** Spans that are kept of one object. */
  private static final int MOST = 5_000;

  private BusyReader() {}

  /**
   * A span.
   *
   * @param days where it is whole days without a zone: those of whoever's calendar it is
   */
  public record Span(Instant starts, Instant ends, Optional<DaySpan> days, boolean tentative) {}

  /** What one calendar object says. */
  public record Read(String uid, List<Span> spans) {}

  /** Reads an object. */
  public static Read read(String text, ZoneId floating, Instant now) {
    IcalendarReader.Read all = IcalendarReader.read(text);
    Instant from = now.minus(BACK);
    Instant until = now.plus(AHEAD);
    Occurrences occurrences = new Occurrences(all.components(), floating, from, until);
    List<IcalendarReader.Component> events =
        all.components().stream().filter(one -> one.name().equals("VEVENT")).toList();
    List<Span> found = new ArrayList<>();
    for (IcalendarReader.Component event : events) {
      if (takesTime(event)) {
        boolean tentative = Occurrences.has(event, "STATUS", "TENTATIVE");
        happening(occurrences, event).stream()
            .map(one -> span(one, tentative))
            .filter(one -> one.ends().isAfter(from) && one.starts().isBefore(until))
            .filter(one -> one.ends().isAfter(one.starts()))
            .limit(MOST - found.size())
            .forEach(found::add);
      }
    }
    String uid =
        events.stream().map(Occurrences::uid).filter(one -> !one.isEmpty()).findFirst().orElse("");
    return new Read(uid, found);
  }

  /** Where its rule cannot be followed, the time that it tells itself; where none is told, none. */
  private static List<Occurrences.Occurrence> happening(
      Occurrences occurrences, IcalendarReader.Component event) {
    try {
      return occurrences.of(event);
    } catch (DateTimeException | IllegalArgumentException unreadable) {
      LOG.debug("an event outside tells a time that cannot be read", unreadable);
      boolean repeats = event.find("RRULE").isPresent() || event.find("RDATE").isPresent();
      return repeats ? happening(occurrences, event.without(REPEATS)) : List.of();
    }
  }

  private static boolean takesTime(IcalendarReader.Component event) {
    return !Occurrences.has(event, "TRANSP", "TRANSPARENT")
        && !Occurrences.has(event, "STATUS", "CANCELLED");
  }

  private static Span span(Occurrences.Occurrence one, boolean tentative) {
    if (!one.days()) {
      return new Span(
          one.starts().toInstant(), one.ends().toInstant(), Optional.empty(), tentative);
    }
    DaySpan days = DaySpan.of(one.starts().toLocalDate(), one.ends().toLocalDate());
    return new Span(
        days.first().atStartOfDay(ZoneOffset.UTC).toInstant(),
        days.until().atStartOfDay(ZoneOffset.UTC).toInstant(),
        Optional.of(days),
        tentative);
  }
}
