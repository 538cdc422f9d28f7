package mellowrota.server.records;

import java.time.Duration;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.change.RecordField;
import mellowrota.core.change.RecordFields;
import mellowrota.core.people.Team;
import mellowrota.core.time.DaySpan;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Due;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.Place;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;
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
    return RecordField.named(field)
        .map(RecordField::label)
        .orElseGet(
            () -> {
              DetailKey key = RecordFields.key(field);
              String label =
                  world.details().find(key).map(DetailDefinition::label).orElse(key.name());
              return RecordFields.isForWhom(field) ? label + ", whom it is for" : label;
            });
  }

  /** What a record says there; empty where it says nothing. */
  static String value(World world, String field, WorkRecord record) {
    return RecordField.named(field)
        .map(named -> value(world, named, record))
        .orElseGet(
            () -> {
              DetailValue detail =
                  record.details().getOrDefault(RecordFields.key(field), DetailValue.NONE);
              return RecordFields.isForWhom(field)
                  ? detail.forWhom().map(set -> "changed").orElse("")
                  : detail.text();
            });
  }

  private static String value(World world, RecordField field, WorkRecord record) {
    if (RecordField.NUMBERS.contains(field)) {
      return number(field, field.print(record));
    }
    return switch (field) {
      case STATE -> record.state().name().toLowerCase(Locale.ROOT);
      case PLACE ->
          record.place().flatMap(id -> world.places().find(id)).map(Place::name).orElse("");
      case USES ->
          said(
              record.uses(),
              ", ",
              one -> world.places().find(one).map(Place::name).orElse("" + one.value()));
      case TEAM -> record.team().flatMap(id -> world.crew().team(id)).map(Team::name).orElse("");
      case DUE -> record.due().map(HistoryWords::due).orElse("");
      case ASSIGNMENTS -> said(record.assignments(), ", ", given -> holder(world, given));
      case DATES -> said(record.dates(), "; ", date -> date.name() + " " + due(date.when()));
      case VISITS ->
          said(record.visits(), "; ", visit -> visit.when().map(HistoryWords::span).orElse(""));
      case MARGINS -> said(record.visits(), "; ", visit -> margins(visit.margins()));
      case RULINGS -> said(record.rulings(), "; ", ruling -> exception(world, ruling));
      case REMINDERS -> said(record.reminders(), ", ", HistoryWords::reminder);
      case TAGS, WANTS -> field.print(record).replace("\n", ", ");
      case STARTED, CANT, PRIVATE, FREE -> field.print(record);
      default -> throw new IllegalStateException("history has no words for " + field);
    };
  }

  private static String number(RecordField field, String number) {
    return number.isEmpty() || !field.isMinutes()
        ? number
        : Lengths.said(Duration.ofMinutes(Long.parseLong(number)));
  }

  /** Each once, those left out that say nothing. */
  private static <T> String said(List<T> all, String between, Function<T, String> words) {
    return all.stream()
        .map(words)
        .filter(text -> !text.isEmpty())
        .distinct()
        .collect(Collectors.joining(between));
  }

  private static String due(Due due) {
    return due instanceof Due.At at ? TIME.format(at.time()) : DATE.format(((Due.On) due).day());
  }

  private static String span(When when) {
    if (when instanceof When.Timed timed) {
      return TIME.format(timed.start()) + " – " + TIME.format(timed.end());
    }
    DaySpan days = ((When.AllDay) when).days();
    LocalDate last = days.until().minusDays(1);
    String first = DATE.format(days.first());
    return days.first().equals(last) ? first : first + " – " + DATE.format(last);
  }

  private static String margins(MarginSetting margins) {
    return Stream.of(
            margins.before().map(one -> one.toMinutes() + " min before"),
            margins.after().map(one -> one.toMinutes() + " min after"))
        .flatMap(Optional::stream)
        .collect(Collectors.joining(", "));
  }

  private static String reminder(Duration before) {
    return Lengths.said(before.abs()) + (before.isNegative() ? " after" : " before");
  }

  private static String holder(World world, Assignment given) {
    return RecordViews.holderName(world, given.holder())
        + " "
        + RecordViews.roleName(world, given.role());
  }

  private static String exception(World world, Ruling ruling) {
    String calendar =
        world.calendars().find(CalendarId.of(ruling.calendar())).map(Calendar::name).orElse("");
    return switch (ruling.sort()) {
      case NOT_SENT -> "not sent: " + ruling.reason();
      case NEVER_HERE -> "never on " + calendar + ": " + ruling.reason();
      case ALSO_HERE -> "also on " + calendar + ": " + ruling.reason();
    };
  }
}
