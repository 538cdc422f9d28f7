package mellowrota.server.incoming;

import static mellowrota.server.platform.Words.say;

import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.Period;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.time.temporal.Temporal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import mellowrota.core.time.LocalTimes;
import mellowrota.server.ical.FileZones;
import mellowrota.server.ical.IcalendarReader;
import mellowrota.server.ical.IcalendarReader.Component;
import mellowrota.server.ical.IcalendarReader.Property;
import mellowrota.server.ical.Lengths;
import mellowrota.server.ical.Recurrence;
import mellowrota.server.platform.Problem;

/**
 * The entries of an iCalendar file as rows: events as work with a span, to-dos as work with a due
 * time. What repeats is a row for each occurrence.
 */
final class CalendarTable {

  private static final List<String> COLUMNS =
      List.of(
          "id",
          "kind",
          "title",
          "place",
          "start",
          "end",
          "zone",
          "due",
          "state",
          "private",
          "tags",
          "contact",
          "attendees",
          "notes");
  private static final Set<String> TAKEN =
      Set.of(
          "UID",
          "RECURRENCE-ID",
          "SUMMARY",
          "LOCATION",
          "DTSTART",
          "DTEND",
          "DURATION",
          "DUE",
          "STATUS",
          "CLASS",
          "CATEGORIES",
          "CONTACT",
          "ATTENDEE",
          "ORGANIZER",
          "DESCRIPTION",
          "RRULE",
          "EXDATE");

  /** Said by the program that wrote the file, of its own doings. */
  private static final Set<String> BOOKKEEPING =
      Set.of("DTSTAMP", "CREATED", "LAST-MODIFIED", "SEQUENCE", "TRANSP", "COMPLETED");

  private static final ZoneId UTC = ZoneId.of("Etc/UTC");

  private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("uuuuMMdd");
  private static final DateTimeFormatter SECOND = DateTimeFormatter.ofPattern("uuuuMMdd'T'HHmmss");
  private static final int MOST_OCCURRENCES = 200;
  private static final java.util.regex.Pattern ENDS =
      java.util.regex.Pattern.compile("(?i)(^|;)\\s*(COUNT|UNTIL)\\s*=");
  private static final Period AHEAD = Period.ofYears(1);

  private final ZoneId house;
  private final LocalDate today;
  private final FileZones zones;
  private final Recurrence rules = new Recurrence();
  private final List<Table.Row> rows = new ArrayList<>();
  private final List<Table.NotRead> notRead = new ArrayList<>();
  private final Map<String, List<Integer>> leftOut = new LinkedHashMap<>();

  private CalendarTable(ZoneId house, LocalDate today, FileZones zones) {
    this.house = house;
    this.today = today;
    this.zones = zones;
  }

  static boolean isOne(byte[] file) {
    String begins = new String(file, 0, Math.min(file.length, 200), StandardCharsets.UTF_8);
    return begins
        .replace("\ufeff", "")
        .stripLeading()
        .toUpperCase(java.util.Locale.ROOT)
        .startsWith("BEGIN:VCALENDAR");
  }

  /**
   * Reads a file.
   *
   * @param house the zone in which times of the whole world are told
   * @param today from which what repeats without an end is taken, for a year
   */
  static Table read(byte[] file, ZoneId house, LocalDate today) {
    String text = new String(file, StandardCharsets.UTF_8).replace("\ufeff", "");
    IcalendarReader.Read read = IcalendarReader.read(text);
    CalendarTable table = new CalendarTable(house, today, FileZones.of(read.components()));
    for (IcalendarReader.Broken broken : read.broken()) {
      table.notRead.add(
          new Table.NotRead(
              broken.number(),
              say("incoming.part-at-line", broken.name(), broken.line(), quoted(broken.summary())),
              broken.why()));
    }
    Set<String> replaced = table.replaced(read.components());
    read.components().forEach(component -> table.add(component, replaced));
    table.leftOut.forEach(table::tellLeftOut);
    return new Table(COLUMNS, table.rows, table.notRead, "iCalendar");
  }

  private static String quoted(String summary) {
    return summary.isEmpty() ? "" : " “" + summary + "”";
  }

  private void tellLeftOut(String name, List<Integer> components) {
    notRead.add(
        new Table.NotRead(
            components.get(0),
            components.size() == 1
                ? say("incoming.in-one-entry", name)
                : say("incoming.in-entries", name, components.size()),
            name.equals("VALARM")
                ? say("incoming.reminders-come-from-the")
                : say("incoming.records-have-no-field")));
  }

  /** Occurrences that the file tells one by one, which their series no longer tells. */
  private Set<String> replaced(List<Component> components) {
    Set<String> found = new HashSet<>();
    for (Component component : components) {
      component
          .find("RECURRENCE-ID")
          .ifPresent(id -> found.add(occurrence(uid(component), id.value())));
    }
    return found;
  }

  private static String uid(Component component) {
    return component.find("UID").map(Property::text).orElse("");
  }

  private static String occurrence(String uid, String at) {
    return uid + "/" + at;
  }

  private void notRead(Component component) {
    notRead.add(
        new Table.NotRead(
            component.number(),
            component.name() + quoted(component.find("SUMMARY").map(Property::text).orElse("")),
            say("incoming.is-neither-an-event")));
  }

  private void add(Component component, Set<String> replaced) {
    switch (component.name()) {
      case "VTIMEZONE" -> {}
      case "VEVENT", "VTODO" -> {
        noteLeftOut(component);
        if (component.find("RRULE").isPresent() && component.find("RECURRENCE-ID").isEmpty()) {
          series(component, replaced);
        } else {
          Optional<Property> at = component.find("RECURRENCE-ID");
          String uid = uid(component);
          row(component, at.map(p -> occurrence(uid, p.value())).orElse(uid), Shift.NONE);
        }
      }
      default -> notRead(component);
    }
    if (rows.size() > Table.MOST_ROWS) {
      throw Problem.of(413, "too-much", say("incoming.a-file-can-hold", Table.MOST_ROWS));
    }
  }

  private void noteLeftOut(Component component) {
    Set<String> names = new TreeSet<>(component.inside());
    for (Property property : component.properties()) {
      names.add(property.name());
    }
    if (component.name().equals("VTODO") && component.find("DTSTART").isPresent()) {
      leftOut
          .computeIfAbsent(say("incoming.start-of-a-to-do"), n -> new ArrayList<>())
          .add(component.number());
    }
    names.removeAll(TAKEN);
    names.removeAll(BOOKKEEPING);
    names.forEach(
        name -> leftOut.computeIfAbsent(name, n -> new ArrayList<>()).add(component.number()));
  }

  /** A row for each occurrence; one that the file tells on its own is left to that. */
  private void series(Component component, Set<String> replaced) {
    Property start =
        component
            .find(component.name().equals("VTODO") ? "DUE" : "DTSTART")
            .orElse(new Property("DTSTART", Map.of(), ""));
    Optional<Temporal> seed = temporal(start);
    if (seed.isEmpty()) {
      row(component, uid(component), Shift.NONE);
      return;
    }
    Set<String> without =
        component.all("EXDATE").stream()
            .flatMap(one -> List.of(one.value().split(",")).stream())
            .collect(Collectors.toSet());
    try {
      for (Temporal at : occurrences(component, seed.get(), start)) {
        String written = written(at) + (start.value().endsWith("Z") ? "Z" : "");
        String id = occurrence(uid(component), written);
        if (!without.contains(written) && !replaced.contains(id)) {
          row(component, id, Shift.between(seed.get(), at));
        }
      }
    } catch (IllegalArgumentException | DateTimeException | ArithmeticException unreadable) {
      notRead.add(
          new Table.NotRead(
              component.number(),
              "RRULE" + quoted(component.find("SUMMARY").map(Property::text).orElse("")),
              say(
                  "incoming.line-its-repetition-cannot",
                  component.line(),
                  unreadable.getMessage())));
      row(component, uid(component), Shift.NONE);
    }
  }

  private List<Temporal> occurrences(Component component, Temporal seed, Property start) {
    String rule = localUntil(component.find("RRULE").orElseThrow().value(), start);
    boolean ends = ENDS.matcher(rule).find();
    LocalDate first = LocalDate.from(seed);
    LocalDate from = ends || first.isAfter(today) ? first : today;
    LocalDate until = ends ? first.plusYears(60) : from.plus(AHEAD);
    List<Temporal> found =
        rules.dates(rule, seed, at(seed, from), at(seed, until), MOST_OCCURRENCES + 1);
    String summary = quoted(component.find("SUMMARY").map(Property::text).orElse(""));
    if (!ends) {
      notRead.add(
          new Table.NotRead(
              component.number(),
              "RRULE" + summary,
              say("incoming.repeats-without-end-imported", until)));
    } else if (found.size() > MOST_OCCURRENCES) {
      notRead.add(
          new Table.NotRead(
              component.number(),
              "RRULE" + summary,
              say("incoming.repeats-more-than-times", MOST_OCCURRENCES)));
    }
    return found.subList(0, Math.min(found.size(), MOST_OCCURRENCES));
  }

  /** Recurrences are worked out in local time; an UNTIL in UTC is told in the start's zone. */
  private String localUntil(String rule, Property start) {
    java.util.regex.Matcher match =
        java.util.regex.Pattern.compile("UNTIL=(\\d{8})(T\\d{6})?(Z)?").matcher(rule);
    if (!match.find()) {
      return rule;
    }
    boolean days = start.value().length() == 8;
    if (days || match.group(2) == null) {
      String day = match.group(1);
      return match.replaceFirst("UNTIL=" + (days ? day : day + "T235959"));
    }
    LocalDateTime until = LocalDateTime.parse(match.group(1) + match.group(2), SECOND);
    if (match.group(3) != null) {
      ZoneId zone =
          Optional.ofNullable(start.parameters().get("TZID"))
              .flatMap(FileZones::known)
              .orElse(start.value().endsWith("Z") ? ZoneOffset.UTC : house);
      until = until.atOffset(ZoneOffset.UTC).atZoneSameInstant(zone).toLocalDateTime();
    }
    return match.replaceFirst("UNTIL=" + SECOND.format(until));
  }

  private static Temporal at(Temporal seed, LocalDate day) {
    return seed instanceof LocalDate
        ? day
        : day.equals(LocalDate.from(seed)) ? seed : day.atStartOfDay();
  }

  private static String written(Temporal at) {
    return at instanceof LocalDate day ? DAY.format(day) : SECOND.format((LocalDateTime) at);
  }

  /** How much later by the clock an occurrence is than the first: days, and hours of a day too. */
  private record Shift(long days, Duration rest) {
    static final Shift NONE = new Shift(0, Duration.ZERO);

    static Shift between(Temporal seed, Temporal at) {
      long days = ChronoUnit.DAYS.between(LocalDate.from(seed), LocalDate.from(at));
      return seed instanceof LocalDate
          ? new Shift(days, Duration.ZERO)
          : new Shift(
              days, Duration.between(((LocalDateTime) seed).plusDays(days), (LocalDateTime) at));
    }

    Shift dayEarlier() {
      return new Shift(days - 1, rest);
    }

    LocalDateTime of(LocalDateTime time) {
      return time.plusDays(days).plus(rest);
    }
  }

  /** The date or local time a property writes, whatever its zone. */
  private static Optional<Temporal> temporal(Property property) {
    try {
      String value = property.value().strip();
      return Optional.of(
          value.length() == 8
              ? LocalDate.parse(value, DAY)
              : LocalDateTime.parse(value.replace("Z", ""), SECOND));
    } catch (DateTimeException unreadable) {
      return Optional.empty();
    }
  }

  private static String joined(
      Component component, String name, Function<Property, String> read, String between) {
    return component.all(name).stream().map(read).collect(Collectors.joining(between));
  }

  private void row(Component component, String id, Shift later) {
    Map<String, String> cells = new HashMap<>();
    boolean event = component.name().equals("VEVENT");
    cells.put("id", id);
    cells.put("kind", event ? "" : "ticket");
    cells.put("title", text(component, "SUMMARY").replaceAll("\\s+", " "));
    cells.put("place", text(component, "LOCATION"));
    cells.put("notes", text(component, "DESCRIPTION"));
    cells.put("contact", text(component, "CONTACT"));
    cells.put("state", state(component));
    boolean hidden = Set.of("PRIVATE", "CONFIDENTIAL").contains(text(component, "CLASS"));
    cells.put("private", hidden ? "yes" : "");
    cells.put("tags", joined(component, "CATEGORIES", Property::text, ", "));
    cells.put("attendees", joined(component, "ATTENDEE", CalendarTable::somebody, "; "));
    if (event) {
      span(component, later, cells);
    } else {
      component.find("DUE").ifPresent(due -> cells.put("due", told(due, later, cells)));
    }
    rows.add(
        new Table.Row(
            component.number(),
            COLUMNS.stream().map(column -> cells.getOrDefault(column, "")).toList()));
  }

  private static String text(Component component, String property) {
    return component.find(property).map(Property::text).map(String::strip).orElse("");
  }

  private static String somebody(Property attendee) {
    String name = attendee.parameters().getOrDefault("CN", "");
    return name.isEmpty() ? attendee.value().replaceFirst("(?i)^mailto:", "") : name;
  }

  private static String state(Component component) {
    return switch (text(component, "STATUS")) {
      case "TENTATIVE" -> "tentative";
      case "CANCELLED" -> "cancelled";
      case "COMPLETED" -> "done";
      default -> "confirmed";
    };
  }

  /** An end is exclusive for whole days (RFC 5545 §3.6.1); rows name the last day. */
  private void span(Component component, Shift later, Map<String, String> cells) {
    Optional<Property> start = component.find("DTSTART");
    if (start.isEmpty()) {
      return;
    }
    cells.put("start", told(start.get(), later, cells));
    Optional<Property> end = component.find("DTEND");
    Optional<Temporal> begins = temporal(start.get());
    if (end.isPresent()) {
      Optional<Temporal> ends = temporal(end.get());
      boolean days = ends.filter(LocalDate.class::isInstance).isPresent();
      boolean after = days && !ends.equals(begins);
      cells.put("end", told(end.get(), after ? later.dayEarlier() : later, cells));
    } else if (begins.isPresent()) {
      cells.put("end", lasting(component, begins.get(), start.get(), later, cells));
    }
  }

  private String lasting(
      Component component,
      Temporal begins,
      Property start,
      Shift later,
      Map<String, String> cells) {
    String duration = component.find("DURATION").map(Property::value).orElse("");
    Temporal ends = begins;
    if (!duration.isEmpty()) {
      try {
        ends = begins.plus(Lengths.parse(duration));
      } catch (DateTimeException | ArithmeticException unreadable) {
        return duration;
      }
    }
    boolean days = ends instanceof LocalDate;
    String written = written(days && !ends.equals(begins) ? ((LocalDate) ends).minusDays(1) : ends);
    String zulu = start.value().endsWith("Z") ? "Z" : "";
    return told(
        new Property("DTEND", start.parameters(), written + (days ? "" : zulu)), later, cells);
  }

  /** A date or time as rows write it; what cannot be read stays as it is, to be seen. */
  private String told(Property property, Shift later, Map<String, String> cells) {
    Optional<Temporal> read = temporal(property);
    if (read.isEmpty()) {
      return property.value();
    }
    if (read.get() instanceof LocalDate day) {
      return day.plusDays(later.days()).toString();
    }
    LocalDateTime local = later.of((LocalDateTime) read.get());
    if (property.value().endsWith("Z")) {
      return atHome(local.atZone(ZoneOffset.UTC), cells);
    }
    String name = property.parameters().getOrDefault("TZID", "");
    Optional<ZoneId> zone = FileZones.known(name);
    if (name.isEmpty() || zone.isPresent()) {
      zone.ifPresent(known -> cells.put("zone", known.getId()));
      return local.toString();
    }
    Optional<String> moved = zones.moment(name, local).map(moment -> atHome(moment, cells));
    if (moved.isEmpty()) {
      // Told by the look: no such zone.
      cells.put("zone", name);
    }
    return moved.orElse(local.toString());
  }

  /**
   * A moment by the house's clock; where that shows it twice and the other is meant (RFC 5545
   * §3.3.5), in UTC. A row has one zone, so what was told by then is told in it too.
   */
  private String atHome(ZonedDateTime moment, Map<String, String> cells) {
    ZonedDateTime here = moment.withZoneSameInstant(house);
    boolean inUtc = UTC.getId().equals(cells.get("zone"));
    if (!inUtc && LocalTimes.isTold(here)) {
      return here.toLocalDateTime().toString();
    }
    if (!inUtc && cells.getOrDefault("zone", "").isEmpty()) {
      cells.put("zone", UTC.getId());
      cells.computeIfPresent(
          "start",
          (name, start) ->
              LocalTimes.resolve(LocalDateTime.parse(start), house)
                  .withZoneSameInstant(UTC)
                  .toLocalDateTime()
                  .toString());
    }
    return moment.withZoneSameInstant(UTC).toLocalDateTime().toString();
  }
}
