package mellowrota.core.rule;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.Worlds;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.entry.Entry;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Membership;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Due;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.Margins;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkRecord;

/** Reads the small world, the rules and the records that table tests write as sentences. */
final class Sentences {

  private static final List<String> PEOPLE =
      List.of("Hana", "Ines", "Tam", "Wren", "Dov", "Bram", "Nell");
  private static final List<String> TEAMS = List.of("Thornmere", "Saltgate", "Everyone");
  private static final List<String> PLACES = List.of("Lock", "Basin");
  private static final List<String> ROLES = List.of("Lead", "Support", "Supervisor", "Informed");

  private Sentences() {}

  /** Ines and Tam in Thornmere, Wren and Dov in Saltgate; Bram is of an agency, Nell has left. */
  static Worlds.Builder world() {
    Worlds.Builder world = Worlds.world().coordinator(1, "Hana");
    for (int id = 2; id <= 5; id++) {
      world.worker(id, PEOPLE.get(id - 1));
    }
    world.person(person(6, Person.Standing.AGENCY)).person(person(7, Person.Standing.LEFT));
    world.team(1, "Thornmere", 2, 3, 7).team(2, "Saltgate", 4).team(3, "Everyone");
    LocalDate long2 = LocalDate.of(2026, 1, 1);
    world.joins(2, Holder.of(PersonId.of(5)), Worlds.TODAY);
    for (int team = 1; team <= 2; team++) {
      world.membership(
          new Membership(TeamId.of(3), Holder.of(TeamId.of(team)), long2, Optional.empty()));
    }
    return world.place(1, "L", "Lock").place(2, "B", "Basin");
  }

  private static Person person(long id, Person.Standing standing) {
    return new Person(
        PersonId.of(id), PEOPLE.get((int) id - 1), standing, Person.AccountRight.NONE, Set.of());
  }

  /** A calendar as tables call it. */
  static String name(Calendar calendar) {
    return calendar.name().replace(", own", "").replace(", place", "").replace(" times", "");
  }

  /** {@code When a job is confirmed, lands on own of Lead + Master as span, free; comes off}. */
  static LandingRule rule(int id, String sentence) {
    String[] ends = sentence.split("; ");
    String[] parts = ends[0].split(", lands on | as (?=[^,]*(, free|, busy)?$)");
    String[] shape = parts[2].split(", ");
    return new LandingRule(
        id,
        id,
        true,
        condition(parts[0].substring("When ".length())),
        Arrays.stream(parts[1].split(" \\+ ")).map(Sentences::target).toList(),
        Shape.valueOf(
            shape[0].equals("given to due")
                ? "GIVEN_DUE"
                : shape[0].toUpperCase(Locale.ROOT).replace(' ', '_')),
        Optional.empty(),
        shape.length > 1 ? Optional.of(shape[1].equals("busy")) : Optional.empty(),
        Entry.With.NOTHING,
        ends.length > 1 ? LandingRule.WhenDone.COMES_OFF : LandingRule.WhenDone.STAYS_WITH_TICK,
        false,
        "");
  }

  private static Condition condition(String text) {
    List<Condition> all = new ArrayList<>();
    for (String part : text.split(" and ")) {
      all.add(one(part));
    }
    return new Condition.All(all);
  }

  private static Condition one(String part) {
    if (part.equals("anything")) {
      return new Condition.All(List.of());
    }
    if (part.startsWith("not ")) {
      return new Condition.None(List.of(one(part.substring(4))));
    }
    if (part.startsWith("any of ")) {
      String[] some = part.substring("any of ".length()).split(" \\| ");
      return new Condition.Any(Arrays.stream(some).map(Sentences::one).toList());
    }
    String last = part.substring(part.lastIndexOf(' ') + 1);
    if (part.startsWith("is tagged ")) {
      return new Condition.Tagged(last);
    }
    if (part.startsWith("belongs to ")) {
      return new Condition.TeamIs(TeamId.of(1 + TEAMS.indexOf(last)));
    }
    if (part.startsWith("is at ")) {
      return new Condition.PlaceIs(PlaceId.of(1 + PLACES.indexOf(last)));
    }
    if (part.startsWith("has a ")) {
      return ROLES.contains(last)
          ? new Condition.RolePresent(RoleId.of(ROLES.indexOf(last)))
          : new Condition.DetailPresent(new DetailKey(last));
    }
    if (part.startsWith("was made by ")) {
      return new Condition.MadeBy(PersonId.of(1 + PEOPLE.indexOf(last)));
    }
    if (part.startsWith("starts between ")) {
      String[] times = part.substring("starts between ".length()).split(" to ");
      return new Condition.StartsBetween(LocalTime.parse(times[0]), LocalTime.parse(times[1]));
    }
    if (part.equals("is private")) {
      return new Condition.IsPrivate();
    }
    if (part.equals("is all day")) {
      return new Condition.IsAllDay();
    }
    String[] words = part.replaceAll("^(is|an?) ", "").split(" or (an? )?");
    if (Arrays.stream(words).allMatch(word -> isOne(State.class, word))) {
      return new Condition.StateIs(enums(State.class, words));
    }
    return new Condition.KindIs(enums(Kind.class, words));
  }

  private static <E extends Enum<E>> boolean isOne(Class<E> type, String word) {
    return Arrays.stream(type.getEnumConstants()).anyMatch(e -> e.name().equalsIgnoreCase(word));
  }

  private static <E extends Enum<E>> Set<E> enums(Class<E> type, String[] words) {
    Set<E> found = EnumSet.noneOf(type);
    for (String word : words) {
      found.add(Enum.valueOf(type, word.toUpperCase(Locale.ROOT)));
    }
    return found;
  }

  private static Target target(String text) {
    if (text.startsWith("own of ") || text.startsWith("teams of ")) {
      Set<RoleId> roles =
          Arrays.stream(text.substring(text.indexOf(" of ") + 4).split(", "))
              .map(role -> RoleId.of(ROLES.indexOf(role)))
              .collect(Collectors.toSet());
      return text.startsWith("own") ? new Target.OwnOf(roles) : new Target.TeamsOf(roles);
    }
    return switch (text) {
      case "the place" -> new Target.ThePlaces();
      case "Master" -> new Target.Master();
      case "Due" -> new Target.One(Worlds.calendarsOf(List.of(), List.of(), List.of()).get(1).id());
      case "Closures" ->
          new Target.One(Worlds.calendarsOf(List.of(), List.of(), List.of()).get(2).id());
      default -> throw new AssertionError("no calendar " + text);
    };
  }

  /**
   * {@code job confirmed; span 26T08:00 26T12:00; margins 30 20; Lead Ines; at Lock}, of November
   * 2026. Several spans are several visits; who comes after one is on that one.
   */
  static WorkRecord record(int id, String text) {
    String[] parts = text.split("; ");
    String[] first = parts[0].split(" ");
    Kind kind = Kind.valueOf(first[0].toUpperCase(Locale.ROOT));
    State state = State.valueOf(first[1].toUpperCase(Locale.ROOT));
    State before = first.length > 2 ? State.valueOf(first[2].toUpperCase(Locale.ROOT)) : state;
    long author = Arrays.stream(parts).anyMatch("by Hana"::equals) ? 1 : 2;
    WorkRecord.Builder record =
        WorkRecord.blank(RecordId.of(id), "R-" + id, kind, PersonId.of(author), Worlds.NOW)
            .states(state, state == State.DONE && first.length < 3 ? State.CONFIRMED : before);
    List<Visit> visits = new ArrayList<>();
    List<Assignment> assignments = new ArrayList<>();
    Set<String> tags = new HashSet<>();
    for (String part : Arrays.copyOfRange(parts, 1, parts.length)) {
      String[] words = part.split(" ");
      int visit = Math.max(1, visits.size());
      switch (words[0]) {
        case "due" -> record.due(Optional.of(due(words[1])));
        case "span" -> visits.add(visit(visits, new When.Timed(at(words[1]), at(words[2]))));
        case "days" ->
            visits.add(
                visit(visits, new When.AllDay(DaySpan.through(day(words[1]), day(words[2])))));
        case "margins" -> {
          Visit last = visits.remove(visits.size() - 1);
          Duration earlier = Duration.ofMinutes(Long.parseLong(words[1]));
          Duration later = Duration.ofMinutes(Long.parseLong(words[2]));
          visits.add(
              new Visit(last.no(), last.when(), MarginSetting.of(new Margins(earlier, later))));
        }
        case "at" -> record.place(Optional.of(PlaceId.of(1 + PLACES.indexOf(words[1]))));
        case "team" -> record.team(Optional.of(TeamId.of(1 + TEAMS.indexOf(words[1]))));
        case "tags" -> tags.add(words[1]);
        case "phone" -> record.detail(DetailKey.PHONE, DetailValue.of("0555 0142"));
        case "private" -> record.isPrivate(true);
        case "personal" -> record.personal(true);
        case "by" -> {
          // Said to begin with.
        }
        default -> assignments.add(assignment(visit, words));
      }
    }
    return record
        .visits(visits.isEmpty() ? List.of(Visit.bare(1)) : visits)
        .assignments(assignments)
        .tags(tags)
        .build();
  }

  private static Visit visit(List<Visit> before, When when) {
    return new Visit(before.size() + 1, Optional.of(when), MarginSetting.UNSET);
  }

  /** {@code Lead Ines}, or {@code Lead Thornmere 24T07:00} with the moment it was handed over. */
  private static Assignment assignment(int visit, String[] words) {
    int team = TEAMS.indexOf(words[1]);
    Holder holder =
        team >= 0
            ? Holder.of(TeamId.of(1 + team))
            : Holder.of(PersonId.of(1 + PEOPLE.indexOf(words[1])));
    Instant given = words.length > 2 ? local(words[2]).toInstant(ZoneOffset.UTC) : Worlds.NOW;
    return new Assignment(visit, holder, RoleId.of(ROLES.indexOf(words[0])), given);
  }

  private static Due due(String text) {
    return text.contains("T") ? new Due.At(at(text)) : new Due.On(day(text));
  }

  private static LocalDate day(String text) {
    return LocalDate.of(2026, 11, Integer.parseInt(text));
  }

  private static LocalDateTime local(String text) {
    return LocalDateTime.parse("2026-11-" + text);
  }

  private static java.time.ZonedDateTime at(String text) {
    return LocalTimes.resolve(local(text), Worlds.LONDON);
  }
}
