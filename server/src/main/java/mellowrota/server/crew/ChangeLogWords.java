package mellowrota.server.crew;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mellowrota.server.platform.Lengths;
import tools.jackson.databind.JsonNode;

/** Says in words what became of rows that an act settled, with names as they are now. */
final class ChangeLogWords {

  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("EEE d MMM yyyy", Locale.UK);

  /** What a row is, where it comes or goes whole. */
  private static final Map<String, String> NOUNS =
      Map.ofEntries(
          Map.entry("person", "Person"),
          Map.entry("team", "Team"),
          Map.entry("place", "Place"),
          Map.entry("coordinates", "Coordinates"),
          Map.entry("membership", "Team member"),
          Map.entry("person_skill", "Skill"),
          Map.entry("working_hours", "Hours"),
          Map.entry("hours_dated", "Hours on a day"),
          Map.entry("leave", "Leave"),
          Map.entry("travel", "Travel time"),
          Map.entry("margin_setting", "Margins"),
          Map.entry("region", "Region"),
          Map.entry("notice_method", "Method of notice"),
          Map.entry("chain", "Chain"),
          Map.entry("chain_version", "Text of the chain"),
          Map.entry("holiday", "Holiday"),
          Map.entry("closure", "Closure"),
          Map.entry("duty", "Duty"),
          Map.entry("duty_span", "Hours of the duty"),
          Map.entry("duty_lifted", "Duty suspended"),
          Map.entry("duty_other", "Other hours on a day"),
          Map.entry("house_limit", "Limit"),
          Map.entry("let_stand", "Clash accepted"));

  /** What limits are on. */
  private static final Map<String, String> LIMITS =
      Map.ofEntries(
          Map.entry("DOUBLE", "double-booked"),
          Map.entry("LEAVE", "work during leave"),
          Map.entry("BUSY", "busy elsewhere"),
          Map.entry("TRAVEL", "travel time"),
          Map.entry("REST", "rest between working days"),
          Map.entry("MARGIN", "margins"),
          Map.entry("HOURS", "work outside working hours"),
          Map.entry("LONGEST", "length of a shift"),
          Map.entry("WEEK", "hours in a week"),
          Map.entry("PERIOD", "average hours a week"),
          Map.entry("DAYS", "days in a row"),
          Map.entry("NIGHTS", "nights in a row"),
          Map.entry("SKILL", "missing skill"),
          Map.entry("LEFT", "work after somebody has left"),
          Map.entry("CAPACITY", "capacity of a place"),
          Map.entry("SHUT", "work at a place that is shut"),
          Map.entry("DUE", "due on one day"));

  /** Tables of which it is told what changed in a row that stayed; of others, the rows whole. */
  private static final Set<String> BY_COLUMN =
      Set.of("person", "team", "place", "region", "duty", "house", "leave", "membership");

  /** Columns whose name is not what they are called. */
  private static final Map<String, String> LABELS =
      Map.ofEntries(
          Map.entry("account_right", "Account"),
          Map.entry("contract_minutes", "Contracted hours a week"),
          Map.entry("not_alone", "Not qualified to work alone"),
          Map.entry("until_day", "Until (exclusive)"),
          Map.entry("first_day", "From"),
          Map.entry("last_day", "Until"),
          Map.entry("hue", "Colour"),
          Map.entry("capacity", "Capacity"),
          Map.entry("open_hours", "Opening hours"),
          Map.entry("capacity_of_people", "Count people"),
          Map.entry("address", "Address"),
          Map.entry("latitude", "Latitude"),
          Map.entry("longitude", "Longitude"),
          Map.entry("week", "Working days"),
          Map.entry("week_begins", "Weeks begin on"),
          Map.entry("travel_speed", "Travel speed, km/h"),
          Map.entry("period_weeks", "Average over, weeks"),
          Map.entry("outside_limit", "Most that external readers can see"),
          Map.entry("outside_reason", "Reason for the limit"),
          Map.entry("trusts_own_feeds", "Own secret addresses are trusted"),
          Map.entry("copies_wait", "Wait before sending copies, seconds"),
          Map.entry("reading_interval", "Check linked calendars every, seconds"),
          Map.entry("links_decided_by", "Who decides about copies"),
          Map.entry("meanwhile", "Other work at the same time"),
          Map.entry("by_person", "By"),
          Map.entry("from_time", "From"),
          Map.entry("until_time", "Until"));

  /** Columns that tell a row from others, or say the same as another. */
  private static final Set<String> NOT_SAID = Set.of("id", "act", "at", "clash", "position");

  private final Map<String, String> names;

  /**
   * @param names by what they name, as {@code place 8}; of people, teams, places, regions, duties
   *     and roles
   */
  ChangeLogWords(Map<String, String> names) {
    this.names = names;
  }

  /**
   * One thing that changed.
   *
   * @param before empty: there was nothing
   * @param after empty: there is nothing
   */
  record Line(String label, String before, String after) {}

  /** What a row is about: a person, a team, a place, a region, a duty; none of the house's. */
  List<String> about(ChangeLog.Row row) {
    JsonNode kept = row.any();
    Stream<String> named =
        switch (row.table()) {
          case "person", "team", "place", "region", "duty" ->
              Stream.of(name(row.table(), kept.get("id")).orElse(text(row.table(), "name", kept)));
          case "membership" ->
              Stream.of(
                      name("person", kept.get("member_person")),
                      name("team", kept.get("member_team")),
                      name("team", kept.get("team")))
                  .flatMap(Optional::stream);
          case "travel" -> name("place", kept.get("from_place")).stream();
          case "duty_span", "duty_lifted", "duty_other" -> name("duty", kept.get("duty")).stream();
          case "holiday" -> name("region", kept.get("region")).stream();
          case "closure" -> name("place", kept.get("place")).stream();
          default -> name("person", kept.get("person")).stream();
        };
    return named.filter(one -> !one.isEmpty()).toList();
  }

  /** What changed in all of these, without what went and came back alike. */
  List<Line> lines(List<ChangeLog.Row> rows) {
    List<Line> found = new ArrayList<>();
    for (ChangeLog.Row row : rows) {
      boolean stayed = row.before().isPresent() && row.after().isPresent();
      if (stayed && BY_COLUMN.contains(row.table())) {
        for (String column : row.changed()) {
          found.add(
              new Line(
                  label(column),
                  text(row.table(), column, row.before().get()),
                  text(row.table(), column, row.after().get())));
        }
      } else if (NOUNS.containsKey(row.table())) {
        found.add(
            new Line(
                NOUNS.get(row.table()),
                row.before().map(kept -> whole(row.table(), kept)).orElse(""),
                row.after().map(kept -> whole(row.table(), kept)).orElse("")));
      }
    }
    return together(withoutReturned(found));
  }

  /** What came and went of one sort, in one line. */
  private static List<Line> together(List<Line> lines) {
    Map<String, List<Line>> byLabel =
        lines.stream()
            .collect(Collectors.groupingBy(Line::label, LinkedHashMap::new, Collectors.toList()));
    return byLabel.entrySet().stream()
        .map(
            one ->
                new Line(
                    one.getKey(),
                    joined(one.getValue(), Line::before),
                    joined(one.getValue(), Line::after)))
        .toList();
  }

  private static String joined(List<Line> lines, Function<Line, String> side) {
    return lines.stream()
        .map(side)
        .filter(said -> !said.isEmpty())
        .collect(Collectors.joining(", "));
  }

  /** Lists are kept by writing them anew, so that much of them goes and comes back. */
  private static List<Line> withoutReturned(List<Line> lines) {
    List<Line> left = new ArrayList<>();
    for (Line line : lines) {
      if (!left.remove(new Line(line.label(), line.after(), line.before()))) {
        left.add(line);
      }
    }
    return left;
  }

  private static String label(String column) {
    String plain = column.replace('_', ' ');
    return LABELS.getOrDefault(column, Character.toUpperCase(plain.charAt(0)) + plain.substring(1));
  }

  /** A row in one line, without whose it is. */
  private String whole(String table, JsonNode kept) {
    return switch (table) {
      case "person", "team", "region", "duty" -> text(table, "name", kept);
      case "place" -> text(table, "code", kept) + " " + text(table, "name", kept);
      case "coordinates" -> text(table, "team", kept);
      case "membership" -> text(table, "member_person", kept) + text(table, "member_team", kept);
      case "person_skill" -> text(table, "skill", kept) + days(kept);
      case "working_hours" ->
          weekdays(kept.get("weekday").asString()) + " " + times(kept) + at(kept) + days(kept);
      case "hours_dated" ->
          text(table, "day", kept)
              + " "
              + (kept.get("times").asString().isEmpty() ? "day off" : kept.get("times").asString())
              + at(kept);
      case "house_limit" ->
          LIMITS.get(kept.get("kind").asString())
              + ": "
              + text(table, "never", kept)
              + amount(kept);
      case "leave" ->
          span(kept.get("first_day").asString(), kept.get("until_day").asString())
              + hoursOf(kept)
              + (kept.get("sick").asBoolean() ? ", sick" : "")
              + (kept.get("agreed").asBoolean() ? "" : ", requested");
      case "travel" -> text(table, "to_place", kept) + " " + text(table, "minutes", kept) + " min";
      case "margin_setting" -> whose(kept) + ": " + margins(kept);
      case "holiday" ->
          text(table, "day", kept)
              + " "
              + text(table, "name", kept)
              + (kept.get("half").asBoolean() ? ", half day" : "");
      case "closure" -> days(kept).strip() + " " + text(table, "why", kept);
      case "duty_span" ->
          weekdays(kept.get("weekdays").asString()) + " " + stand(kept) + days(kept) + season(kept);
      case "duty_other" -> text(table, "day", kept) + " " + stand(kept);
      default ->
          kept.propertyNames().stream()
              .filter(column -> !NOT_SAID.contains(column))
              .filter(column -> !column.equals("duty") && !column.equals("person"))
              .map(column -> text(table, column, kept))
              .filter(said -> !said.isEmpty())
              .collect(Collectors.joining(", "));
    };
  }

  /** Of what margins are. */
  private String whose(JsonNode kept) {
    return Stream.of("kind", "place", "person")
        .map(column -> text("", column, kept))
        .filter(said -> !said.isEmpty())
        .findFirst()
        .orElse("organisation");
  }

  private static String margins(JsonNode kept) {
    return Stream.of("before", "after")
        .filter(side -> !kept.get(side + "_minutes").isNull())
        .map(side -> kept.get(side + "_minutes").asString() + " min " + side)
        .collect(Collectors.joining(", "));
  }

  /** Hours of a duty, with how many they ask for. */
  private static String stand(JsonNode kept) {
    int count = kept.get("count").asInt();
    String skills = kept.path("skills").asString("");
    return times(kept)
        + (count == 1 ? ", 1 person" : ", " + count + " people")
        + (skills.isEmpty()
            ? ""
            : Arrays.stream(skills.split("\n", -1))
                .map(one -> one.isEmpty() ? "any" : one)
                .collect(Collectors.joining(", ", " (", ")")));
  }

  private static String season(JsonNode kept) {
    String first = kept.path("season_first").asString("");
    return first.isEmpty()
        ? ""
        : ", every year " + first + " – " + kept.get("season_last").asString();
  }

  private static String span(String first, String until) {
    LocalDate from = LocalDate.parse(first);
    LocalDate last = LocalDate.parse(until).minusDays(1);
    return DAY.format(from) + (from.equals(last) ? "" : " – " + DAY.format(last));
  }

  /** Of a limit: hours where it counts minutes, else a number. */
  private static String amount(JsonNode kept) {
    JsonNode amount = kept.get("amount");
    if (amount.isNull()) {
      return "";
    }
    boolean ofTime =
        Set.of("REST", "LONGEST", "WEEK", "PERIOD").contains(kept.get("kind").asString());
    return ", " + (ofTime ? Lengths.said(Duration.ofMinutes(amount.asInt())) : amount.asString());
  }

  private String at(JsonNode kept) {
    String place = text("", "place", kept);
    return place.isEmpty() ? "" : " at " + place;
  }

  private static String times(JsonNode kept) {
    return kept.get("from_time").asString().substring(0, 5)
        + " – "
        + kept.get("until_time").asString().substring(0, 5);
  }

  private String days(JsonNode kept) {
    String first = kept.has("first_day") ? text("", "first_day", kept) : "";
    String last = text("", "last_day", kept);
    return (first.isEmpty() ? "" : " from " + first) + (last.isEmpty() ? "" : " until " + last);
  }

  private static String hoursOf(JsonNode leave) {
    String from = leave.path("from_time").asString("");
    return from.isEmpty()
        ? ""
        : " " + from.substring(0, 5) + "–" + leave.get("until_time").asString().substring(0, 5);
  }

  private static String weekdays(String numbers) {
    String[] days = numbers.split(",");
    if (days.length == 7) {
      return "every day";
    }
    return Arrays.stream(days)
        .map(one -> DayOfWeek.of(Integer.parseInt(one)).getDisplayName(TextStyle.SHORT, Locale.UK))
        .collect(Collectors.joining(", "));
  }

  private Optional<String> name(String of, JsonNode id) {
    return id == null || id.isNull()
        ? Optional.empty()
        : Optional.ofNullable(names.get(of + " " + id.asString()));
  }

  /** What stands in a column. */
  private String text(String table, String column, JsonNode kept) {
    JsonNode value = kept.get(column);
    if (value == null || value.isNull()) {
      return "";
    }
    String said = value.asString();
    return switch (column) {
      case "place", "from_place", "to_place" -> name("place", value).orElse(said);
      case "region" -> name("region", value).orElse(said);
      case "team", "member_team" -> name("team", value).orElse(said);
      case "person", "member_person", "by_person" -> name("person", value).orElse(said);
      case "role" -> name("role", value).orElse(said);
      case "day", "first_day", "last_day", "until_day", "from_day" ->
          DAY.format(LocalDate.parse(said));
      case "week" ->
          Weeks.of(said).days().stream()
              .sorted()
              .map(day -> day.getDisplayName(TextStyle.SHORT, Locale.UK))
              .collect(Collectors.joining(", "));
      case "contract_minutes" -> Lengths.said(Duration.ofMinutes(value.asInt()));
      case "never" -> value.asBoolean() ? "block" : "warn";
      default ->
          value.isBoolean()
              ? (value.asBoolean() ? "yes" : "no")
              : said.matches("[A-Z_]+") ? said.toLowerCase(Locale.ROOT).replace('_', ' ') : said;
    };
  }
}
