package mellowrota.server.ical;

import static mellowrota.server.platform.Words.say;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.TemporalAmount;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.entry.EntryTimes;
import mellowrota.core.sight.Face;
import mellowrota.core.sync.Content;
import mellowrota.core.sync.Part;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;

/**
 * The text of a copy: read tolerantly, since hosts and programs write it anew their own way, and
 * written so that whatever is not ours in it stays (alarms, colours, private notes, properties that
 * nobody here knows).
 */
public final class CopyText {

  /** Begins the line that says what becomes of changes made there; it is no part of the text. */
  private static final String ABOUT = say("ical.about-this-copy") + " ";

  /** Begins the line of the same block that says when the work itself is, beside its margins. */
  private static final String OWN = say("ical.the-work-itself") + " ";

  private static final DateTimeFormatter ON_A_DAY =
      DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);
  private static final DateTimeFormatter CLOCK =
      DateTimeFormatter.ofPattern("HH:mm", Locale.ENGLISH);

  /** Before the title of what is done, and no part of it. */
  static final String TICK = "\u2713 ";

  /** Says whose copy it is, also where a program gave what it duplicated another UID. */
  private static final String MARK = "X-MELLOW-ROTA";

  private static final String ALARM = "UID:mellow-rota-alarm-";

  /** What is ours in an event, and so is written over. */
  private static final Set<String> OURS =
      Set.of(
          "UID",
          "DTSTAMP",
          "LAST-MODIFIED",
          "SEQUENCE",
          "DTSTART",
          "DTEND",
          "DURATION",
          "SUMMARY",
          "LOCATION",
          "GEO",
          "URL",
          "DESCRIPTION",
          "CATEGORIES",
          "STATUS",
          "TRANSP",
          "CLASS",
          "ATTENDEE",
          "RRULE",
          "RDATE",
          "EXDATE",
          "EXRULE",
          "RECURRENCE-ID",
          MARK);

  private static final DateTimeFormatter DAY = DateTimeFormatter.BASIC_ISO_DATE;
  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss");

  private CopyText() {}

  /**
   * What stands there.
   *
   * @param repeats whether somebody made it repeat, or changed one occurrence
   */
  public record Read(Content content, boolean repeats) {}

  // ---- Reading ---------------------------------------------------------------------------------

  /**
   * What the text says of the entry with this UID; empty where it says nothing readable of it.
   *
   * @param floating the zone of times without one
   */
  public static Optional<Read> read(String text, String uid, ZoneId floating) {
    IcalendarReader.Read all = IcalendarReader.read(text);
    List<IcalendarReader.Component> events =
        all.components().stream()
            .filter(one -> one.name().equals("VEVENT"))
            .filter(one -> one.find("UID").map(p -> p.text().strip()).orElse("").equals(uid))
            .toList();
    Optional<IcalendarReader.Component> main =
        events.stream().filter(one -> one.find("RECURRENCE-ID").isEmpty()).findFirst();
    if (main.isEmpty()) {
      return Optional.empty();
    }
    FileZones zones = FileZones.of(all.components());
    IcalendarReader.Component event = main.get();
    boolean repeats =
        events.size() > 1 || event.find("RRULE").isPresent() || event.find("RDATE").isPresent();
    return times(event, zones, floating)
        .map(
            times ->
                new Read(
                    new Content(
                        words(event, "SUMMARY"),
                        words(event, "LOCATION"),
                        withoutAbout(words(event, "DESCRIPTION")),
                        times),
                    repeats));
  }

  private static String words(IcalendarReader.Component event, String name) {
    return event.find(name).map(IcalendarReader.Property::text).orElse("");
  }

  /** A title as it came back, without our tick (LANDING 18). */
  public static String withoutTick(String title) {
    return title.startsWith(TICK) ? title.substring(TICK.length()) : title;
  }

  private static String withoutAbout(String text) {
    return text.lines()
        .filter(line -> !isAbout(line))
        .reduce((one, other) -> one + "\n" + other)
        .orElse("");
  }

  /** Whether a line is of the block at the end, which is outside the comparison (LANDING 19). */
  private static boolean isAbout(String line) {
    return line.strip().startsWith(ABOUT) || line.strip().startsWith(OWN);
  }

  private static EntryTimes days(
      IcalendarReader.Property start,
      Optional<IcalendarReader.Property> end,
      Optional<TemporalAmount> length) {
    LocalDate first = LocalDate.parse(start.value().strip(), DAY);
    LocalDate until =
        end.isPresent()
            ? LocalDate.parse(end.get().value().strip().substring(0, 8), DAY)
            : length.isPresent() ? first.plus(length.get()) : first.plusDays(1);
    return new EntryTimes.AllDay(
        DaySpan.of(first, until.isAfter(first) ? until : first.plusDays(1)));
  }

  private static Optional<EntryTimes> times(
      IcalendarReader.Component event, FileZones zones, ZoneId floating) {
    try {
      IcalendarReader.Property start =
          event.find("DTSTART").orElseThrow(() -> new DateTimeException("no start"));
      Optional<IcalendarReader.Property> end = event.find("DTEND");
      Optional<TemporalAmount> length = event.find("DURATION").map(d -> Lengths.parse(d.value()));
      if (start.value().strip().length() == 8) {
        return Optional.of(days(start, end, length));
      }
      ZonedDateTime from = moment(start, zones, floating);
      ZonedDateTime to =
          end.isPresent()
              ? moment(end.get(), zones, floating)
              : length.isPresent() ? from.plus(length.get()) : from;
      return Optional.of(new EntryTimes.Timed(from, to.isBefore(from) ? from : to));
    } catch (DateTimeException | ArithmeticException | IndexOutOfBoundsException unreadable) {
      return Optional.empty();
    }
  }

  /** Programs write {@code TZID=UTC} with a Z too; the Z holds. */
  static ZonedDateTime moment(IcalendarReader.Property property, FileZones zones, ZoneId floating) {
    String value = property.value().strip();
    if (value.endsWith("Z")) {
      return LocalDateTime.parse(value.substring(0, value.length() - 1), TIME)
          .atZone(ZoneOffset.UTC);
    }
    LocalDateTime local =
        value.length() == 8
            ? LocalDate.parse(value, DAY).atStartOfDay()
            : LocalDateTime.parse(value, TIME);
    String name = property.parameters().get("TZID");
    if (name == null) {
      return LocalTimes.resolve(local, floating);
    }
    Optional<ZoneId> known = FileZones.known(name.replace("\"", ""));
    if (known.isPresent()) {
      return LocalTimes.resolve(local, known.get());
    }
    return zones.moment(name, local).orElseGet(() -> LocalTimes.resolve(local, floating));
  }

  /** What of it tells one of our writes from another: SEQUENCE and the moment of the change. */
  public static String marks(String text) {
    return raw(text)
        .flatMap(CopyText::event)
        .map(
            event ->
                event.lines().stream()
                    .filter(
                        line ->
                            Set.of("SEQUENCE", "DTSTAMP", "LAST-MODIFIED").contains(nameOf(line)))
                    .sorted()
                    .reduce("", (one, other) -> one + other + "\n"))
        .orElse("");
  }

  /** The UID of our entry that it is a copy of, by our mark, wherever it was taken. */
  public static Optional<String> mark(String text) {
    return Folding.lines(text).stream()
        .filter(line -> line.startsWith(MARK + ":"))
        .map(line -> line.substring(MARK.length() + 1).strip())
        .findFirst();
  }

  // ---- Writing ---------------------------------------------------------------------------------

  /** A component with its lines unfolded and the components inside it, as they are written. */
  private record Raw(String name, List<String> lines, List<Raw> inside) {
    Optional<String> line(String property) {
      return lines.stream().filter(one -> nameOf(one).equals(property)).findFirst();
    }

    void print(StringBuilder out) {
      out.append("BEGIN:").append(name).append("\r\n");
      lines.forEach(line -> out.append(line).append("\r\n"));
      inside.forEach(one -> one.print(out));
      out.append("END:").append(name).append("\r\n");
    }

    String text() {
      StringBuilder out = new StringBuilder();
      print(out);
      return out.toString();
    }
  }

  private static String nameOf(String line) {
    int end = 0;
    while (end < line.length() && line.charAt(end) != ':' && line.charAt(end) != ';') {
      end++;
    }
    return line.substring(0, end).toUpperCase(Locale.ROOT);
  }

  private static Optional<Raw> raw(String text) {
    Deque<Raw> open = new ArrayDeque<>();
    for (String line : Folding.lines(text)) {
      if (line.isBlank()) {
        continue;
      }
      String name = nameOf(line);
      if (name.equals("BEGIN")) {
        String of = line.substring(6).strip().toUpperCase(Locale.ROOT);
        Raw fresh = new Raw(of, new ArrayList<>(), new ArrayList<>());
        if (!open.isEmpty()) {
          open.peek().inside().add(fresh);
        }
        open.push(fresh);
      } else if (name.equals("END")) {
        if (open.size() <= 1) {
          return Optional.ofNullable(open.peek());
        }
        open.pop();
      } else if (!open.isEmpty()) {
        open.peek().lines().add(line);
      }
    }
    return Optional.empty();
  }

  /** The text of a face, and after it when the work itself is where margins stand around it. */
  static String withOwnTimes(Face face) {
    if (face.own().isEmpty()) {
      return face.text();
    }
    ZonedDateTime start = face.own().get().start();
    ZonedDateTime end = face.own().get().end();
    boolean isOneDay = start.toLocalDate().equals(end.toLocalDate());
    return (face.text().isEmpty() ? "" : face.text() + "\n\n")
        + OWN
        + say("ical.from-to", ON_A_DAY.format(start), (isOneDay ? CLOCK : ON_A_DAY).format(end));
  }

  /** Our text with the line that says what becomes of changes made there, our alarms named. */
  public static String about(String ours, String words) {
    Raw calendar = raw(ours).orElseThrow();
    Raw event = event(calendar).orElseThrow();
    int n = 0;
    for (Raw one : event.inside()) {
      if (isAlarm(one)) {
        one.lines().add(ALARM + event.line("UID").orElseThrow().substring(4) + "-" + n++);
      }
    }
    event.line("UID").ifPresent(uid -> event.lines().add(MARK + uid.substring(3)));
    String old =
        event.line("DESCRIPTION").map(line -> line.substring(line.indexOf(':') + 1)).orElse("");
    String gap = old.isEmpty() ? "" : about(event).isEmpty() ? "\\n\\n" : "\\n";
    setText(event, "DESCRIPTION", old + gap + escape(ABOUT + words));
    return Folding.refold(calendar.text());
  }

  private static Optional<Raw> event(Raw calendar) {
    return calendar.inside().stream()
        .filter(one -> one.name().equals("VEVENT"))
        .filter(one -> one.line("RECURRENCE-ID").isEmpty())
        .findFirst();
  }

  private static void setText(Raw event, String property, String escaped) {
    event.lines().removeIf(line -> nameOf(line).equals(property));
    if (!escaped.isEmpty()) {
      event.lines().add(property + ":" + escaped);
    }
  }

  private static String escape(String text) {
    return text.replace("\\", "\\\\").replace(";", "\\;").replace(",", "\\,").replace("\n", "\\n");
  }

  /**
   * What is to be written over what stands there.
   *
   * @param ours as it would be written anew
   * @param stands what stands there
   * @param wanted what it is to say; where that is not what ours says, it is what stands there
   */
  public static String over(String ours, String stands, Content wanted, Content says) {
    Optional<Raw> standing = raw(stands);
    Optional<Raw> theirs = standing.flatMap(CopyText::event);
    Raw calendar = raw(ours).orElseThrow();
    Raw event = event(calendar).orElseThrow();
    if (theirs.isEmpty()) {
      return ours;
    }
    keep(event, theirs.get(), wanted, says);
    for (String line : theirs.get().lines()) {
      if (!OURS.contains(nameOf(line)) || isTheirAddress(line, event)) {
        event.lines().add(line);
      }
    }
    alarms(event, theirs.get());
    zones(calendar, standing.get(), event);
    return Folding.refold(calendar.text());
  }

  /** An address that somebody wrote there, where ours leads nowhere. */
  private static boolean isTheirAddress(String line, Raw event) {
    return nameOf(line).equals("URL")
        && event.line("URL").isEmpty()
        && !line.contains(IcalendarWriter.HOME);
  }

  private static String about(Raw event) {
    return event
        .line("DESCRIPTION")
        .map(line -> line.substring(line.indexOf(':') + 1))
        .map(value -> new IcalendarReader.Property("", Map.of(), value).text())
        .map(text -> text.lines().filter(CopyText::isAbout).collect(Collectors.joining("\n")))
        .orElse("");
  }

  private static void keep(Raw event, Raw theirs, Content wanted, Content says) {
    if (!wanted.of(Part.TIMES).equals(says.of(Part.TIMES))) {
      event.lines().removeIf(line -> Set.of("DTSTART", "DTEND", "DURATION").contains(nameOf(line)));
      for (String name : List.of("DTSTART", "DTEND", "DURATION")) {
        theirs.line(name).ifPresent(event.lines()::add);
      }
    }
    if (!wanted.title().equals(says.title())) {
      setText(event, "SUMMARY", escape(wanted.title()));
    }
    if (!wanted.place().equals(says.place())) {
      setText(event, "LOCATION", escape(wanted.place()));
    }
    if (!wanted.text().equals(says.text())) {
      String about = about(event);
      String gap = wanted.text().isEmpty() || about.isEmpty() ? "" : "\n\n";
      setText(event, "DESCRIPTION", escape(wanted.text() + gap + about));
    }
  }

  /** Theirs stay; ours are known by their UID (RFC 9074 §4), or by ringing at the same time. */
  private static void alarms(Raw event, Raw theirs) {
    Set<String> ours = new HashSet<>();
    event.inside().stream().filter(CopyText::isAlarm).forEach(one -> ours.add(trigger(one)));
    theirs.inside().stream()
        .filter(CopyText::isAlarm)
        .filter(one -> one.line("UID").filter(uid -> uid.startsWith(ALARM)).isEmpty())
        .filter(one -> !ours.contains(trigger(one)))
        .forEach(event.inside()::add);
  }

  private static boolean isAlarm(Raw one) {
    return one.name().equals("VALARM");
  }

  private static String trigger(Raw alarm) {
    return alarm.line("TRIGGER").orElse("") + alarm.line("ACTION").orElse("");
  }

  /** The zones that the event's times name, from wherever they are defined. */
  private static void zones(Raw calendar, Raw standing, Raw event) {
    Set<String> defined = new HashSet<>();
    calendar.inside().forEach(one -> one.line("TZID").ifPresent(defined::add));
    String all = String.join("\n", event.lines());
    int at = 0;
    for (Raw one : standing.inside()) {
      String id = one.line("TZID").orElse("");
      boolean named =
          one.name().equals("VTIMEZONE") && all.contains("TZID=" + id.replace("TZID:", ""));
      if (named && defined.add(id)) {
        calendar.inside().add(at++, one);
      }
    }
  }
}
