package mellowrota.core.change;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Details;
import mellowrota.core.work.Due;
import mellowrota.core.work.Margins;
import mellowrota.core.work.NamedDate;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.Wants;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;

/**
 * A record as flat fields of text, and back: what history keeps and undo applies. An absent field
 * reads as empty text.
 */
public final class RecordFields {

  public static final String STATE = "state";
  public static final String STARTED = "started";
  public static final String CANT = "cant";
  public static final String PRIVATE = "private";
  public static final String PLACE = "place";
  public static final String TEAM = "team";
  public static final String DUE = "due";
  public static final String DATES = "dates";
  public static final String VISITS = "visits";
  public static final String MARGINS = "margins";
  public static final String ASSIGNMENTS = "assignments";
  public static final String TAGS = "tags";
  public static final String RULINGS = "rulings";
  public static final String HEAD_COUNT = "head count";
  public static final String WANTS = "wants";
  public static final String ESTIMATE = "estimate";
  private static final String DETAIL = "detail:";
  private static final String FOR = "for:";

  private RecordFields() {}

  public static String detail(DetailKey key) {
    return DETAIL + key.name();
  }

  /** What changed from one state of a record to another, by field name. */
  public static List<FieldChange> between(WorkRecord before, WorkRecord after) {
    return between(flatten(before), flatten(after));
  }

  /** The fields of a record that is new, as changes from nothing. */
  public static List<FieldChange> ofNew(WorkRecord record) {
    return between(new TreeMap<>(), flatten(record));
  }

  private static List<FieldChange> between(
      SortedMap<String, String> before, SortedMap<String, String> after) {
    SortedSet<String> names = new TreeSet<>(before.keySet());
    names.addAll(after.keySet());
    List<FieldChange> changes = new ArrayList<>();
    for (String name : names) {
      String old = before.getOrDefault(name, "");
      String now = after.getOrDefault(name, "");
      if (!old.equals(now)) {
        changes.add(new FieldChange(name, old, now));
      }
    }
    return changes;
  }

  /** All fields that are not empty. */
  public static SortedMap<String, String> flatten(WorkRecord record) {
    SortedMap<String, String> fields = new TreeMap<>();
    fields.put(STATE, record.state() + "/" + record.stateBefore());
    put(fields, STARTED, record.started() ? "yes" : "");
    put(fields, CANT, record.cant() ? "yes" : "");
    put(fields, PRIVATE, record.isPrivate() ? "yes" : "");
    put(fields, PLACE, record.place().map(id -> "" + id.value()).orElse(""));
    put(fields, TEAM, record.team().map(id -> "" + id.value()).orElse(""));
    put(fields, DUE, record.due().map(RecordFields::print).orElse(""));
    put(fields, DATES, print(record.dates()));
    put(fields, VISITS, lines(record.visits(), RecordFields::print));
    put(fields, MARGINS, margins(record.visits()));
    put(fields, ASSIGNMENTS, lines(record.assignments(), RecordFields::print));
    put(fields, TAGS, String.join("\n", new TreeSet<>(record.tags())));
    put(fields, RULINGS, lines(record.rulings(), RecordFields::print));
    OptionalInt least = record.leastHeadCount();
    put(fields, HEAD_COUNT, least.isPresent() ? "" + least.getAsInt() : "");
    put(fields, WANTS, print(record.wants()));
    put(fields, ESTIMATE, record.estimate().map(one -> "" + one.toMinutes()).orElse(""));
    record
        .details()
        .forEach(
            (key, value) -> {
              put(fields, DETAIL + key.name(), value.text());
              put(
                  fields,
                  FOR + key.name(),
                  value.forWhom().map(set -> Long.toHexString(set.bits())).orElse(""));
            });
    return fields;
  }

  private static void put(Map<String, String> fields, String name, String value) {
    if (!value.isEmpty()) {
      fields.put(name, value);
    }
  }

  private static <T> String lines(List<T> items, java.util.function.Function<T, String> print) {
    return items.stream().map(print).collect(Collectors.joining("\n"));
  }

  /** A due time as text, as history keeps it. */
  public static String print(Due due) {
    return due instanceof Due.At at ? "T|" + print(at.time()) : "D|" + ((Due.On) due).day();
  }

  /** Named dates as text, one a line; {@link #dates} reads them. */
  public static String print(List<NamedDate> dates) {
    return lines(dates, date -> print(date.when()) + "|" + date.name());
  }

  private static String print(ZonedDateTime time) {
    return time.toLocalDateTime() + "|" + time.getZone().getId() + "|" + time.getOffset().getId();
  }

  private static String print(Visit visit) {
    String when = "-";
    if (visit.when().orElse(null) instanceof When.Timed timed) {
      when = "T|" + print(timed.start()) + "|" + print(timed.end());
    } else if (visit.when().orElse(null) instanceof When.AllDay allDay) {
      when = "D|" + allDay.days().first() + "|" + allDay.days().until();
    }
    return visit.no() + "|" + when;
  }

  private static String margins(List<Visit> visits) {
    return visits.stream()
        .filter(visit -> visit.margins().isPresent())
        .map(v -> v.no() + "|" + v.margins().get().before() + "|" + v.margins().get().after())
        .collect(Collectors.joining("\n"));
  }

  private static String print(Assignment a) {
    String holder =
        a.holder() instanceof Holder.OnePerson one
            ? "P|" + one.person().value()
            : "T|" + ((Holder.WholeTeam) a.holder()).team().value();
    return a.visit() + "|" + holder + "|" + a.role().value() + "|" + a.givenAt();
  }

  private static String print(Ruling ruling) {
    String visit = ruling.visit().isPresent() ? "" + ruling.visit().getAsInt() : "-";
    return ruling.sort() + "|" + ruling.calendar() + "|" + visit + "|" + ruling.reason();
  }

  /** The record with some of its fields set as a change says. */
  public static WorkRecord apply(WorkRecord record, List<FieldChange> changes) {
    WorkRecord.Builder builder = record.with();
    SortedMap<String, String> all = flatten(record);
    changes.forEach(change -> all.put(change.field(), change.after()));
    boolean visits = false;
    for (FieldChange change : changes) {
      visits |= change.field().equals(VISITS) || change.field().equals(MARGINS);
      set(builder, change.field(), change.after(), all);
    }
    if (visits) {
      builder.visits(visits(all.getOrDefault(VISITS, ""), all.getOrDefault(MARGINS, "")));
    }
    return builder.build();
  }

  private static void set(
      WorkRecord.Builder builder, String field, String text, Map<String, String> all) {
    switch (field) {
      case STATE -> {
        String[] states = text.split("/");
        builder.states(State.valueOf(states[0]), State.valueOf(states[1]));
      }
      case STARTED -> builder.started(text.equals("yes"));
      case CANT -> builder.cant(text.equals("yes"));
      case PRIVATE -> builder.isPrivate(text.equals("yes"));
      case PLACE -> builder.place(number(text).map(PlaceId::of));
      case TEAM -> builder.team(number(text).map(TeamId::of));
      case DUE -> builder.due(due(text));
      case DATES -> builder.dates(dates(text));
      case ASSIGNMENTS -> builder.assignments(assignments(text));
      case TAGS -> builder.tags(text.isEmpty() ? Set.of() : Set.of(text.split("\n")));
      case RULINGS -> builder.rulings(rulings(text));
      case HEAD_COUNT ->
          builder.leastHeadCount(
              text.isEmpty() ? OptionalInt.empty() : OptionalInt.of(Integer.parseInt(text)));
      case WANTS -> builder.wants(wants(text));
      case ESTIMATE -> builder.estimate(number(text).map(Duration::ofMinutes));
      case VISITS, MARGINS -> {
        // Set together at the end: one visit carries both.
      }
      default -> {
        String key = field.substring(field.indexOf(':') + 1);
        String set = all.getOrDefault(FOR + key, "");
        Optional<ForSet> forWhom =
            set.isEmpty()
                ? Optional.empty()
                : Optional.of(new ForSet(Long.parseUnsignedLong(set, 16)));
        builder.detail(
            new DetailKey(key), new DetailValue(all.getOrDefault(DETAIL + key, ""), forWhom));
      }
    }
  }

  /** How many, then on a line each the skills that some of them have to have. */
  public static String print(Wants wants) {
    return wants.isNone()
        ? ""
        : Stream.concat(Stream.of("" + wants.people()), wants.skills().stream())
            .collect(Collectors.joining("\n"));
  }

  public static Wants wants(String text) {
    if (text.isEmpty()) {
      return Wants.NONE;
    }
    List<String> lines = text.lines().toList();
    return new Wants(Integer.parseInt(lines.get(0)), lines.subList(1, lines.size()));
  }

  private static Optional<Long> number(String text) {
    return text.isEmpty() ? Optional.empty() : Optional.of(Long.valueOf(text));
  }

  private static Optional<Due> due(String text) {
    if (text.isEmpty()) {
      return Optional.empty();
    }
    String[] parts = text.split("\\|");
    return Optional.of(
        parts[0].equals("T")
            ? new Due.At(time(parts[1], parts[2], parts[3]))
            : new Due.On(LocalDate.parse(parts[1])));
  }

  /** The inverse of {@link #print(List)}. */
  public static List<NamedDate> dates(String text) {
    List<NamedDate> found = new ArrayList<>();
    for (String line : items(text)) {
      // A name may hold the mark that parts the fields.
      String[] p = line.split("\\|", line.startsWith("T") ? 5 : 3);
      found.add(new NamedDate(p[p.length - 1], due(line).orElseThrow()));
    }
    return found;
  }

  private static ZonedDateTime time(String local, String zone, String offset) {
    return ZonedDateTime.ofLocal(
        LocalDateTime.parse(local), ZoneId.of(zone), ZoneOffset.of(offset));
  }

  private static List<Visit> visits(String text, String margins) {
    Map<Integer, Margins> byVisit =
        items(margins).stream()
            .map(line -> line.split("\\|"))
            .collect(
                Collectors.toMap(
                    p -> Integer.valueOf(p[0]),
                    p -> new Margins(Duration.parse(p[1]), Duration.parse(p[2]))));
    List<Visit> found = new ArrayList<>();
    for (String line : items(text)) {
      String[] p = line.split("\\|");
      int no = Integer.parseInt(p[0]);
      Optional<When> when =
          switch (p[1]) {
            case "T" -> Optional.of(new When.Timed(time(p[2], p[3], p[4]), time(p[5], p[6], p[7])));
            case "D" ->
                Optional.of(
                    new When.AllDay(DaySpan.of(LocalDate.parse(p[2]), LocalDate.parse(p[3]))));
            default -> Optional.empty();
          };
      found.add(new Visit(no, when, Optional.ofNullable(byVisit.get(no))));
    }
    return found;
  }

  private static List<Assignment> assignments(String text) {
    List<Assignment> found = new ArrayList<>();
    for (String line : items(text)) {
      String[] p = line.split("\\|");
      long id = Long.parseLong(p[2]);
      Holder holder = p[1].equals("P") ? Holder.of(PersonId.of(id)) : Holder.of(TeamId.of(id));
      found.add(
          new Assignment(
              Integer.parseInt(p[0]),
              holder,
              RoleId.of(Integer.parseInt(p[3])),
              Instant.parse(p[4])));
    }
    return found;
  }

  private static List<Ruling> rulings(String text) {
    List<Ruling> found = new ArrayList<>();
    for (String line : items(text)) {
      String[] p = line.split("\\|", 4);
      OptionalInt visit =
          p[2].equals("-") ? OptionalInt.empty() : OptionalInt.of(Integer.parseInt(p[2]));
      found.add(new Ruling(Ruling.Sort.valueOf(p[0]), Long.parseLong(p[1]), visit, p[3]));
    }
    return found;
  }

  private static List<String> items(String text) {
    return text.isEmpty() ? List.of() : Arrays.asList(text.split("\n"));
  }

  /** Whom a field's values are for on this record. */
  public static ForSet forWhom(Details details, WorkRecord record, String field) {
    if (field.startsWith(DETAIL) || field.startsWith(FOR)) {
      return details.forWhom(record, new DetailKey(field.substring(field.indexOf(':') + 1)));
    }
    return switch (field) {
      case STATE, STARTED, CANT, DUE, DATES, VISITS -> details.forWhom(record, DetailKey.TIMES);
      case MARGINS -> details.forWhom(record, DetailKey.MARGINS);
      case PLACE -> details.forWhom(record, DetailKey.PLACE);
      case ASSIGNMENTS -> details.forWhom(record, DetailKey.PEOPLE);
      case TEAM, TAGS -> ForSet.CREW;
      case PRIVATE -> ForSet.EVERYONE;
      default -> ForSet.OFFICE;
    };
  }
}
