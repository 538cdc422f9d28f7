package mellowrota.server.records;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Ruling;
import mellowrota.server.platform.Lengths;
import mellowrota.server.sight.World;

/** Puts history's fields and values in words. */
final class HistoryWords {

  private static final DateTimeFormatter TIME =
      DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);
  private static final DateTimeFormatter DATE =
      DateTimeFormatter.ofPattern("EEE d MMM", Locale.ENGLISH);

  private HistoryWords() {}

  static String label(World world, String field) {
    if (field.startsWith("detail:") || field.startsWith("for:")) {
      DetailKey key = new DetailKey(field.substring(field.indexOf(':') + 1));
      String label = world.details().find(key).map(DetailDefinition::label).orElse(key.name());
      return field.startsWith("for:") ? label + ", whom it is for" : label;
    }
    return switch (field) {
      case RecordFields.STATE -> "State";
      case RecordFields.STARTED -> "Started";
      case RecordFields.CANT -> "Can’t";
      case RecordFields.PRIVATE -> "Private";
      case RecordFields.PLACE -> "Place";
      case RecordFields.TEAM -> "Team";
      case RecordFields.DUE -> "Due";
      case RecordFields.DATES -> "Dates";
      case RecordFields.VISITS -> "Visits";
      case RecordFields.MARGINS -> "Margins";
      case RecordFields.ASSIGNMENTS -> "People";
      case RecordFields.TAGS -> "Tags";
      case RecordFields.RULINGS -> "Exceptions";
      case RecordFields.WANTS -> "Wanted people";
      case RecordFields.ESTIMATE -> "Estimate";
      default -> "Least head count";
    };
  }

  static String value(World world, String field, String text) {
    if (text.isEmpty()) {
      return "";
    }
    return switch (field) {
      case RecordFields.STATE -> text.substring(0, text.indexOf('/')).toLowerCase(Locale.ROOT);
      case RecordFields.PLACE ->
          world.places().find(PlaceId.of(Long.parseLong(text))).map(Place::name).orElse("");
      case RecordFields.TEAM ->
          world.crew().team(TeamId.of(Long.parseLong(text))).map(t -> t.name()).orElse("");
      case RecordFields.DUE -> due(text);
      case RecordFields.ASSIGNMENTS -> people(world, text);
      case RecordFields.DATES -> dates(text);
      case RecordFields.VISITS -> visits(text);
      case RecordFields.MARGINS -> margins(text);
      case RecordFields.RULINGS -> exceptions(world, text);
      case RecordFields.ESTIMATE -> Lengths.said(Duration.ofMinutes(Long.parseLong(text)));
      case RecordFields.TAGS, RecordFields.WANTS -> text.replace("\n", ", ");
      default -> field.startsWith("for:") ? "changed" : text;
    };
  }

  private static String due(String text) {
    String[] parts = text.split("\\|");
    return parts[0].equals("T")
        ? TIME.format(LocalDateTime.parse(parts[1]))
        : DATE.format(LocalDate.parse(parts[1]));
  }

  /** Visits without times say nothing. */
  private static String visits(String text) {
    List<String> times = new ArrayList<>();
    for (String line : text.split("\n")) {
      String[] p = line.split("\\|");
      if (p[1].equals("T")) {
        LocalDateTime start = LocalDateTime.parse(p[2]);
        LocalDateTime end = LocalDateTime.parse(p[5]);
        times.add(TIME.format(start) + " – " + TIME.format(end));
      } else if (p[1].equals("D")) {
        LocalDate first = LocalDate.parse(p[2]);
        LocalDate last = LocalDate.parse(p[3]).minusDays(1);
        times.add(
            first.equals(last)
                ? DATE.format(first)
                : DATE.format(first) + " – " + DATE.format(last));
      }
    }
    return String.join("; ", times);
  }

  private static String people(World world, String text) {
    List<String> names = new ArrayList<>();
    for (String line : text.split("\n")) {
      String[] p = line.split("\\|");
      long id = Long.parseLong(p[2]);
      String name =
          p[1].equals("P")
              ? world.crew().person(PersonId.of(id)).map(x -> x.name()).orElse("")
              : world.crew().team(TeamId.of(id)).map(x -> x.name()).orElse("");
      names.add(name + " " + RecordViews.roleName(world, RoleId.of(Integer.parseInt(p[3]))));
    }
    return String.join(", ", new LinkedHashSet<>(names));
  }

  private static String dates(String text) {
    return RecordFields.dates(text).stream()
        .map(date -> date.name() + " " + due(RecordFields.print(date.when())))
        .collect(Collectors.joining("; "));
  }

  private static String margins(String text) {
    return text.lines()
        .map(line -> line.split("\\|"))
        .map(
            p ->
                Duration.parse(p[1]).toMinutes()
                    + " min before, "
                    + Duration.parse(p[2]).toMinutes()
                    + " min after")
        .distinct()
        .collect(Collectors.joining("; "));
  }

  private static String exceptions(World world, String text) {
    return text.lines()
        .map(line -> line.split("\\|", 4))
        .map(
            p -> {
              String calendar =
                  world
                      .calendars()
                      .find(CalendarId.of(Long.parseLong(p[1])))
                      .map(Calendar::name)
                      .orElse("");
              return switch (Ruling.Sort.valueOf(p[0])) {
                case NOT_SENT -> "not sent: " + p[3];
                case NEVER_HERE -> "never on " + calendar + ": " + p[3];
                case ALSO_HERE -> "also on " + calendar + ": " + p[3];
              };
            })
        .collect(Collectors.joining("; "));
  }
}
