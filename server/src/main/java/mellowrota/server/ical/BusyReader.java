package mellowrota.server.ical;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mellowrota.core.time.DaySpan;

/** Reads when an event takes somebody's time; its words are not looked at. */
public final class BusyReader {

  /** How far from now occurrences are counted. */
  private static final Duration BACK = Duration.ofDays(35);

  private static final Duration AHEAD = Duration.ofDays(400);

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
        occurrences.of(event).stream()
            .map(one -> span(one, tentative))
            .filter(one -> one.ends().isAfter(from) && one.starts().isBefore(until))
            .filter(one -> one.ends().isAfter(one.starts()))
            .forEach(found::add);
      }
    }
    String uid =
        events.stream().map(Occurrences::uid).filter(one -> !one.isEmpty()).findFirst().orElse("");
    return new Read(uid, found);
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
