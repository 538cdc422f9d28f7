package mellowrota.server.ical;

import static mellowrota.server.platform.Words.say;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.Period;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mellowrota.core.time.WorkingDays.Holiday;

/**
 * Reads holidays from an iCalendar file: each day of an event is one, whole where the event takes
 * all of it, half where it has times. Whether an event blocks time (TRANSP) says nothing here.
 */
public final class HolidayReader {

  /** What lasts longer is a season, not a holiday. */
  private static final Period LONGEST = Period.ofDays(60);

  private HolidayReader() {}

  /**
   * An event of which nothing is taken.
   *
   * @param number which of the file's components it is, from 1
   */
  public record NotRead(int number, String summary, String why) {}

  /** What the file says, by day; each day once. */
  public record Read(List<Holiday> holidays, List<NotRead> notRead) {}

  /**
   * Reads a file.
   *
   * @param zone of times that name none
   * @param first what repeats is followed from this day
   * @param last to this one, both included; other events are taken whenever they are
   */
  public static Read read(String text, ZoneId zone, LocalDate first, LocalDate last) {
    IcalendarReader.Read all = IcalendarReader.read(text);
    List<NotRead> notRead = new ArrayList<>();
    all.broken().forEach(one -> notRead.add(new NotRead(one.number(), one.summary(), one.why())));
    Map<LocalDate, Holiday> found = new TreeMap<>();
    Occurrences occurrences =
        new Occurrences(
            all.components(),
            zone,
            first.atStartOfDay(ZoneOffset.UTC).toInstant(),
            last.plusDays(1).atStartOfDay(ZoneOffset.UTC).toInstant());
    for (IcalendarReader.Component event : all.components()) {
      if (event.name().equals("VEVENT") && !Occurrences.has(event, "STATUS", "CANCELLED")) {
        String name =
            event.find("SUMMARY").map(one -> one.text().strip().replace('\n', ' ')).orElse("");
        try {
          take(event, occurrences.of(event), name, found)
              .ifPresent(why -> notRead.add(new NotRead(event.number(), name, why)));
        } catch (DateTimeException | IllegalArgumentException fault) {
          notRead.add(
              new NotRead(
                  event.number(),
                  name,
                  say("ical.line-one-of-its", event.line(), fault.getMessage())));
        }
      }
    }
    return new Read(List.copyOf(found.values()), notRead);
  }

  /** Takes the days of an event; else says why not. */
  private static Optional<String> take(
      IcalendarReader.Component event,
      List<Occurrences.Occurrence> occurrences,
      String name,
      Map<LocalDate, Holiday> found) {
    if (event.find("DTSTART").isEmpty()) {
      return Optional.of(say("ical.it-has-no-dtstart"));
    }
    for (Occurrences.Occurrence one : occurrences) {
      if (!one.ends().isAfter(one.starts())) {
        return Optional.of(say("ical.it-has-no-length"));
      }
      if (one.ends().isAfter(one.starts().plus(LONGEST))) {
        return Optional.of(say("ical.it-is-longer-than", LONGEST.getDays()));
      }
    }
    occurrences.forEach(one -> days(one, name, found));
    return Optional.empty();
  }

  private static void days(Occurrences.Occurrence one, String name, Map<LocalDate, Holiday> found) {
    ZoneId zone = one.ends().getZone();
    for (LocalDate day = one.starts().toLocalDate();
        day.atStartOfDay(zone).isBefore(one.ends());
        day = day.plusDays(1)) {
      boolean whole =
          !one.starts().isAfter(day.atStartOfDay(zone))
              && !one.ends().isBefore(day.plusDays(1).atStartOfDay(zone));
      found.merge(day, new Holiday(day, name, !whole), HolidayReader::both);
    }
  }

  private static Holiday both(Holiday one, Holiday other) {
    String name =
        one.name().isEmpty() || one.name().equals(other.name())
            ? other.name()
            : other.name().isEmpty() ? one.name() : one.name() + ", " + other.name();
    return new Holiday(one.day(), name, one.half() && other.half());
  }
}
