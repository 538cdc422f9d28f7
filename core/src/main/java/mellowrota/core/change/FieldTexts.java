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
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mellowrota.core.people.Holder;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.Due;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.NamedDate;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.Visit;
import mellowrota.core.work.Wants;
import mellowrota.core.work.When;

/** What records hold as text, several of a thing on a line each, and back. */
public final class FieldTexts {

  private FieldTexts() {}

  static <T> String lines(List<T> items, Function<T, String> print) {
    return items.stream().map(print).collect(Collectors.joining("\n"));
  }

  static String print(Due due) {
    return due instanceof Due.At at ? "T|" + print(at.time()) : "D|" + ((Due.On) due).day();
  }

  static String print(NamedDate date) {
    return print(date.when()) + "|" + date.name();
  }

  private static String print(ZonedDateTime time) {
    return time.toLocalDateTime() + "|" + time.getZone().getId() + "|" + time.getOffset().getId();
  }

  static String print(Visit visit) {
    String when = "-";
    if (visit.when().orElse(null) instanceof When.Timed timed) {
      when = "T|" + print(timed.start()) + "|" + print(timed.end());
    } else if (visit.when().orElse(null) instanceof When.AllDay allDay) {
      when = "D|" + allDay.days().first() + "|" + allDay.days().until();
    }
    return visit.no() + "|" + when;
  }

  static String margins(List<Visit> visits) {
    return visits.stream()
        .filter(visit -> !visit.margins().isUnset())
        .map(v -> v.no() + "|" + side(v.margins().before()) + "|" + side(v.margins().after()))
        .collect(Collectors.joining("\n"));
  }

  private static String side(Optional<Duration> margin) {
    return margin.map(Duration::toString).orElse("-");
  }

  private static Optional<Duration> side(String text) {
    return Optional.of(text).filter(said -> !said.equals("-")).map(Duration::parse);
  }

  static String print(Assignment a) {
    String holder =
        a.holder() instanceof Holder.OnePerson one
            ? "P|" + one.person().value()
            : "T|" + ((Holder.WholeTeam) a.holder()).team().value();
    return a.visit() + "|" + holder + "|" + a.role().value() + "|" + a.givenAt();
  }

  static String print(Ruling ruling) {
    String visit = ruling.visit().isPresent() ? "" + ruling.visit().getAsInt() : "-";
    return ruling.sort() + "|" + ruling.calendar() + "|" + visit + "|" + ruling.reason();
  }

  /** How many, then on a line each the skills that some of them have to have. */
  static String print(Wants wants) {
    return wants.isNone()
        ? ""
        : Stream.concat(Stream.of("" + wants.people()), wants.skills().stream())
            .collect(Collectors.joining("\n"));
  }

  /** The inverse of what is printed. */
  public static Wants wants(String text) {
    if (text.isEmpty()) {
      return Wants.NONE;
    }
    List<String> lines = text.lines().toList();
    return new Wants(Integer.parseInt(lines.get(0)), lines.subList(1, lines.size()));
  }

  static Optional<Due> due(String text) {
    if (text.isEmpty()) {
      return Optional.empty();
    }
    String[] parts = text.split("\\|");
    return Optional.of(
        parts[0].equals("T")
            ? new Due.At(time(parts[1], parts[2], parts[3]))
            : new Due.On(LocalDate.parse(parts[1])));
  }

  static List<NamedDate> dates(String text) {
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

  static List<Visit> visits(String text, String margins) {
    Map<Integer, MarginSetting> byVisit =
        items(margins).stream()
            .map(line -> line.split("\\|"))
            .collect(
                Collectors.toMap(
                    p -> Integer.valueOf(p[0]), p -> new MarginSetting(side(p[1]), side(p[2]))));
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
      found.add(new Visit(no, when, byVisit.getOrDefault(no, MarginSetting.UNSET)));
    }
    return found;
  }

  static List<Assignment> assignments(String text) {
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

  static List<Ruling> rulings(String text) {
    List<Ruling> found = new ArrayList<>();
    for (String line : items(text)) {
      String[] p = line.split("\\|", 4);
      OptionalInt visit =
          p[2].equals("-") ? OptionalInt.empty() : OptionalInt.of(Integer.parseInt(p[2]));
      found.add(new Ruling(Ruling.Sort.valueOf(p[0]), Long.parseLong(p[1]), visit, p[3]));
    }
    return found;
  }

  static List<String> items(String text) {
    return text.isEmpty() ? List.of() : Arrays.asList(text.split("\n"));
  }
}
