package mellowrota.core.sight;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.TemporalAccessor;
import java.time.temporal.UnsupportedTemporalTypeException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.entry.Entry;
import mellowrota.core.people.Crew;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Person;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.Team;
import mellowrota.core.rule.Places;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.core.work.Due;
import mellowrota.core.work.Place;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;

/**
 * What one record says for each name a wording may ask for, whoever it is for. Each value is made
 * once: entries of a record ask for much the same.
 */
final class RecordWords {

  private static final DateTimeFormatter TIME = Pattern.formatter("EEE d MMM HH:mm");
  private static final DateTimeFormatter DATE = Pattern.formatter("EEE d MMM");

  /** What a value rests on, beside the record; of the entry whatever else it reads. */
  private record Asked(
      String name, Optional<DateTimeFormatter> format, int visit, Optional<?> ofTheEntry) {}

  private final WorkRecord record;
  private final Crew crew;
  private final Calendars calendars;
  private final Places places;
  private final Details details;
  private final Optional<String> placeName;
  private final Map<Asked, Optional<String>> made = new HashMap<>();

  RecordWords(WorkRecord record, Crew crew, Calendars calendars, Places places, Details details) {
    this.details = details;
    this.record = record;
    this.crew = crew;
    this.calendars = calendars;
    this.places = places;
    placeName = record.place().flatMap(places::find).map(Place::name);
  }

  Optional<String> value(
      Entry entry, String name, DetailKey detail, Optional<DateTimeFormatter> format) {
    return switch (name) {
      case "ref" -> Optional.of(record.ref());
      case "place" -> placeName();
      case "place address" -> record.place().flatMap(places::find).flatMap(Place::address);
      case "lead", "people", "start", "end", "due" -> made(entry, name, format, Optional.empty());
      case "others" -> made(entry, name, format, owner(entry));
      case "given" -> made(entry, name, format, entry.given());
      default -> typed(detail);
    };
  }

  private Optional<String> typed(DetailKey detail) {
    Optional<String> value = record.text(detail);
    return details.find(detail).map(one -> value.map(one::said)).orElse(value);
  }

  Optional<String> placeName() {
    return placeName;
  }

  private Optional<String> made(
      Entry entry, String name, Optional<DateTimeFormatter> format, Optional<?> ofTheEntry) {
    int visit = entry.key().visit();
    Asked asked = new Asked(name, format, visit, ofTheEntry);
    Optional<String> known = made.get(asked);
    if (known == null) {
      known =
          switch (name) {
            case "lead", "others", "people" -> people(name, visit, ofTheEntry);
            default -> moment(name, visit(visit), entry.given(), format);
          };
      made.put(asked, known);
    }
    return known;
  }

  /** Whose own calendar an entry is on. */
  private Optional<Holder> owner(Entry entry) {
    return calendars
        .find(entry.key().calendar())
        .filter(calendar -> calendar.owner() instanceof Calendar.Owner.Own)
        .map(calendar -> Holder.of(((Calendar.Owner.Own) calendar.owner()).person()));
  }

  /** The lead; all; or, as the others, all but the lead and whose own calendar it is. */
  private Optional<String> people(String name, int visit, Optional<?> owner) {
    List<Assignment> chosen = new ArrayList<>();
    List<Assignment> assigned = record.on(visit);
    for (Assignment assignment : assigned) {
      boolean wanted =
          switch (name) {
            case "lead" -> assignment.role().equals(RoleId.LEAD);
            case "people" -> true;
            default ->
                !assignment.role().equals(RoleId.INFORMED)
                    && !owner.equals(Optional.of(assignment.holder()))
                    && !leads(assignment.holder(), assigned);
          };
      if (wanted) {
        chosen.add(assignment);
      }
    }
    return joined(chosen);
  }

  private static boolean leads(Holder holder, List<Assignment> assigned) {
    return assigned.stream()
        .anyMatch(one -> one.role().equals(RoleId.LEAD) && one.holder().equals(holder));
  }

  /** By role, name, id; each holder once. */
  private Optional<String> joined(List<Assignment> chosen) {
    if (chosen.isEmpty()) {
      return Optional.empty();
    }
    if (chosen.size() == 1) {
      return Optional.of(nameOf(chosen.get(0).holder()));
    }
    chosen.sort(
        Comparator.comparing(Assignment::role)
            .thenComparing(a -> nameOf(a.holder()))
            .thenComparingLong(a -> idOf(a.holder())));
    List<Holder> seen = new ArrayList<>(chosen.size());
    StringBuilder names = new StringBuilder();
    for (Assignment assignment : chosen) {
      if (!seen.contains(assignment.holder())) {
        names.append(seen.isEmpty() ? "" : ", ").append(nameOf(assignment.holder()));
        seen.add(assignment.holder());
      }
    }
    return Optional.of(names.toString());
  }

  private String nameOf(Holder holder) {
    return holder instanceof Holder.OnePerson one
        ? crew.person(one.person()).map(Person::name).orElse("")
        : crew.team(((Holder.WholeTeam) holder).team()).map(Team::name).orElse("");
  }

  private static long idOf(Holder holder) {
    return holder instanceof Holder.OnePerson one
        ? one.person().value()
        : ((Holder.WholeTeam) holder).team().value();
  }

  private Visit visit(int no) {
    for (Visit visit : record.visits()) {
      if (visit.no() == no) {
        return visit;
      }
    }
    throw new IllegalArgumentException(record.id() + " has no visit " + no);
  }

  /** The work's own times, also under margins; in the site's zone, due in its own (LANDING 24). */
  private Optional<String> moment(
      String name, Visit visit, Optional<Instant> given, Optional<DateTimeFormatter> format) {
    if (name.equals("due")) {
      return record
          .due()
          .map(
              due ->
                  due instanceof Due.At at
                      ? print(at.time(), format)
                      : print(((Due.On) due).day(), format));
    }
    if (name.equals("given")) {
      ZoneId zone = places.siteZone(record, visit);
      return given.map(instant -> print(instant.atZone(zone), format));
    }
    return visit.when().map(when -> print(end(when, name.equals("end")), format));
  }

  private static TemporalAccessor end(When when, boolean last) {
    if (when instanceof When.Timed timed) {
      return last ? timed.end() : timed.start();
    }
    When.AllDay allDay = (When.AllDay) when;
    return last ? allDay.days().until().minusDays(1) : allDay.days().first();
  }

  private static String print(TemporalAccessor moment, Optional<DateTimeFormatter> format) {
    boolean date = moment instanceof LocalDate;
    try {
      return format.orElse(date ? DATE : TIME).format(moment);
    } catch (UnsupportedTemporalTypeException hoursOfADate) {
      return DATE.format(moment);
    }
  }
}
