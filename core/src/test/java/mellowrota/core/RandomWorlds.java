package mellowrota.core;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.SplittableRandom;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.House;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Attendees;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.Reminder;
import mellowrota.core.entry.WordingId;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Membership;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.TeamId;
import mellowrota.core.rule.Condition;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Shape;
import mellowrota.core.rule.Target;
import mellowrota.core.sight.Pattern;
import mellowrota.core.sight.Wording;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailValue;
import mellowrota.core.work.Due;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.NamedDate;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.Ruling;
import mellowrota.core.work.State;
import mellowrota.core.work.Visit;
import mellowrota.core.work.When;
import mellowrota.core.work.WorkDays;
import mellowrota.core.work.WorkRecord;

/** Random houses with nested teams, shares, feeds, rules, wordings and records, from a seed. */
public final class RandomWorlds {

  private static final List<String> PATTERNS =
      List.of(
          "{title}",
          "{ref} {title}[ · {place}]",
          "{title}[, {place address}]",
          "{title}[ · {lead}][ with {others}]",
          "{contact} {phone}\n[Gate code {gate code}]\n{notes}",
          "[{quote} · ]{title}: {due} {given}",
          "{place} / {start: EEE HH:mm} – {end} {people}",
          "{gate code}{quote}{notes}",
          "{berth}[ · {title}]",
          "");

  private final SplittableRandom random;
  private final int people;
  private final int teams;
  private final int places;

  public RandomWorlds(long seed) {
    random = new SplittableRandom(seed);
    people = 2 + random.nextInt(28);
    teams = 1 + random.nextInt(6);
    places = 1 + random.nextInt(4);
  }

  public SplittableRandom random() {
    return random;
  }

  /** A world; the same builder can be built with another permission. */
  public Worlds.Builder world() {
    Worlds.Builder builder =
        Worlds.world()
            .house(
                new House(
                    "s" + random.nextInt(),
                    "House",
                    Worlds.LONDON,
                    any(Level.values()),
                    random.nextBoolean(),
                    Worlds.WEEK));
    for (int i = 1; i <= people; i++) {
      builder.person(person(i));
    }
    for (int i = 1; i <= teams; i++) {
      builder.team(i, "Team " + i);
    }
    for (int i = 0; i < people + teams; i++) {
      builder.membership(membership());
    }
    for (int i = 1; i <= places; i++) {
      builder.place(i, "P" + i, "Place " + i);
    }
    builder.workDays(workDays());
    int ways = random.nextInt(12);
    for (int i = 0; i < ways; i++) {
      builder.rendering(new Rendering(RenderingId.of(9000 + i), anyCalendar(), way()));
    }
    builder.margins(settings());
    builder.details(definitions()).rules(rules()).wordings(wordings());
    builder.usually(usual()).ownTitles(ownTitles(), random.nextInt(4) == 0);
    return builder;
  }

  /** Most places have days of their own, so that what counts them tells which it is. */
  private WorkDays workDays() {
    Map<PlaceId, WorkingDays> days = new HashMap<>();
    for (int i = 1; i <= places; i++) {
      if (random.nextInt(4) > 0) {
        WorkingWeek week = new WorkingWeek(some(DayOfWeek.class));
        days.put(PlaceId.of(i), new WorkingDays(week, Map.of(), List.of()));
      }
    }
    return new WorkDays(days, Worlds.WEEKDAYS.office());
  }

  private Person person(long id) {
    Person.Standing standing =
        random.nextInt(3) > 0 ? Person.Standing.HOUSE : any(Person.Standing.values());
    Person.AccountRight right = any(Person.AccountRight.values());
    Set<TeamId> coordinates =
        right == Person.AccountRight.TEAM_COORDINATOR ? Set.of(anyTeam()) : Set.of();
    return new Person(PersonId.of(id), "Person " + id, standing, right, coordinates);
  }

  private Membership membership() {
    Holder member = random.nextInt(4) > 0 ? Holder.of(anyPerson()) : Holder.of(anyTeam());
    LocalDate from = Worlds.TODAY.minusDays(random.nextInt(-2, 20));
    Optional<LocalDate> until =
        random.nextInt(4) == 0 ? Optional.of(from.plusDays(random.nextInt(30))) : Optional.empty();
    return new Membership(anyTeam(), member, from, until);
  }

  private Rendering.Way way() {
    Level level = any(Level.values());
    return switch (random.nextInt(4)) {
      case 0 -> new Rendering.Way.Feed(level);
      case 1 -> new Rendering.Way.OwnFeed(anyPerson(), level);
      default -> new Rendering.Way.Share(anyPerson(), level);
    };
  }

  /** The details of a house and its own, each for a set, some only in some states. */
  public List<DetailDefinition> definitions() {
    List<DetailDefinition> list = new ArrayList<>();
    for (DetailDefinition one : Worlds.allDetails()) {
      ForSet set = random.nextInt(3) == 0 ? forSet() : one.forWhom();
      Set<State> states =
          one.isWritten() && random.nextInt(5) == 0 ? some(State.class) : one.states();
      list.add(
          new DetailDefinition(
              one.key(),
              one.label(),
              one.kinds(),
              set,
              one.typed(),
              one.sort(),
              one.choices(),
              states,
              one.unit()));
    }
    return list;
  }

  private Map<Kind, WordingId> usual() {
    Map<Kind, WordingId> found = new EnumMap<>(Kind.class);
    for (Kind kind : Kind.values()) {
      if (random.nextBoolean()) {
        found.put(kind, WordingId.of(1 + random.nextInt(4)));
      }
    }
    return found;
  }

  private Map<PersonId, Pattern> ownTitles() {
    Map<PersonId, Pattern> found = new HashMap<>();
    for (int i = random.nextInt(3); i > 0; i--) {
      found.put(anyPerson(), Pattern.of(pattern(), Worlds.KNOWN));
    }
    return found;
  }

  public ForSet forSet() {
    return switch (random.nextInt(7)) {
      case 0 -> ForSet.EVERYONE;
      case 1 -> ForSet.CREW;
      case 2 -> ForSet.PEOPLE_ON_IT;
      case 3 -> ForSet.OFFICE;
      case 4 -> ForSet.of(RoleId.LEAD);
      case 5 -> ForSet.NOBODY;
      default -> new ForSet(random.nextLong() & 0x7f);
    };
  }

  public List<LandingRule> rules() {
    List<LandingRule> list = new ArrayList<>();
    int count = 1 + random.nextInt(7);
    for (int i = 1; i <= count; i++) {
      LandingRule plain =
          Worlds.rule(
              i,
              condition(2),
              target(),
              any(Shape.values()),
              random.nextInt(5),
              random.nextBoolean());
      list.add(
          new LandingRule(
              plain.id(),
              plain.position(),
              true,
              plain.when(),
              plain.targets(),
              plain.shape(),
              plain.wording(),
              plain.busy(),
              with(),
              plain.whenDone(),
              random.nextInt(3) == 0,
              ""));
    }
    return list;
  }

  private Entry.With with() {
    List<Reminder> reminders = new ArrayList<>();
    for (int left = random.nextInt(3); left > 0; left--) {
      reminders.add(new Reminder(random.nextInt(20), any(Reminder.Unit.values())));
    }
    return new Entry.With(reminders, any(Attendees.values()));
  }

  private Condition condition(int deep) {
    return switch (random.nextInt(deep > 0 ? 10 : 6)) {
      case 0 -> new Condition.KindIs(some(Kind.class));
      case 1 -> new Condition.StateIs(some(State.class));
      case 2 -> new Condition.RolePresent(RoleId.of(random.nextInt(4)));
      case 3 -> new Condition.TeamIs(anyTeam());
      case 4 -> new Condition.PlaceIs(anyPlace());
      case 5 -> new Condition.Tagged("tag" + random.nextInt(2));
      case 6, 7 -> new Condition.All(List.of(condition(deep - 1)));
      case 8 -> new Condition.Any(List.of(condition(deep - 1), condition(deep - 1)));
      default -> new Condition.None(List.of(condition(deep - 1)));
    };
  }

  private Target target() {
    return switch (random.nextInt(5)) {
      case 0 -> new Target.OwnOf(roles());
      case 1 -> new Target.TeamsOf(roles());
      case 2 -> new Target.ThePlaces();
      case 3 -> new Target.Master();
      default -> new Target.One(CalendarId.of(2 + random.nextInt(2)));
    };
  }

  private Set<RoleId> roles() {
    Set<RoleId> set = new HashSet<>();
    set.add(RoleId.of(random.nextInt(4)));
    set.add(RoleId.of(random.nextInt(4)));
    return set;
  }

  public List<Wording> wordings() {
    List<Wording> list = new ArrayList<>();
    for (int i = 1; i <= 4; i++) {
      Wording wording = Worlds.wording(i, pattern(), pattern(), pattern());
      list.add(random.nextInt(4) == 0 ? Worlds.fixed(wording) : wording);
    }
    return list;
  }

  private String pattern() {
    return PATTERNS.get(random.nextInt(PATTERNS.size()));
  }

  /** Any record of any kind. */
  public WorkRecord record(long id) {
    Kind kind = random.nextInt(3) > 0 ? Kind.TICKET : any(Kind.values());
    State state = random.nextInt(3) > 0 ? State.CONFIRMED : any(State.values());
    WorkRecord.Builder builder =
        WorkRecord.blank(RecordId.of(id), "T-" + (300 + id), Kind.TICKET, anyPerson(), Worlds.NOW)
            .kind(kind)
            .states(state, state == State.DONE ? State.CONFIRMED : state)
            .started(random.nextBoolean())
            .cant(random.nextInt(5) == 0)
            .dates(
                due().map(when -> List.of(new NamedDate("parts | here", when))).orElse(List.of()))
            .isPrivate(random.nextInt(6) == 0)
            .personal(random.nextInt(12) == 0)
            .place(random.nextBoolean() ? Optional.of(anyPlace()) : Optional.empty())
            .free(random.nextInt(5) == 0)
            .uses(random.nextInt(3) == 0 ? List.of(anyPlace(), anyPlace()) : List.of())
            .team(random.nextBoolean() ? Optional.of(anyTeam()) : Optional.empty())
            .due(due())
            .tags(random.nextBoolean() ? Set.of("tag" + random.nextInt(2)) : Set.of());
    int count = kind == Kind.JOB ? 1 + random.nextInt(3) : 1;
    List<Visit> visits = new ArrayList<>();
    List<Assignment> assignments = new ArrayList<>();
    for (int no = 1; no <= count; no++) {
      visits.add(visit(no));
      for (int i = random.nextInt(4); i > 0; i--) {
        assignments.add(assignment(no));
      }
    }
    builder.visits(visits).assignments(assignments).rulings(rulings());
    if (random.nextInt(5) == 0) {
      builder.leastHeadCount(OptionalInt.of(1 + random.nextInt(3)));
    }
    for (DetailDefinition definition : Worlds.allDetails()) {
      if (random.nextInt(3) > 0) {
        builder.detail(definition.key(), value(definition));
      }
    }
    return builder.build();
  }

  private DetailValue value(DetailDefinition definition) {
    String text = definition.typed() ? definition.key().name() + " " + random.nextInt(1000) : "";
    DetailValue value = DetailValue.of(text);
    return random.nextInt(4) == 0 ? value.withFor(forSet()) : value;
  }

  private Optional<Due> due() {
    return switch (random.nextInt(4)) {
      case 0 -> Optional.empty();
      case 1 -> Optional.of(new Due.On(day()));
      default -> Optional.of(new Due.At(LocalTimes.resolve(local(), Worlds.LONDON)));
    };
  }

  private Visit visit(int no) {
    Optional<When> when =
        switch (random.nextInt(3)) {
          case 0 -> Optional.empty();
          case 1 -> Optional.of(new When.AllDay(DaySpan.ofDay(day())));
          default -> {
            var start = LocalTimes.resolve(local(), Worlds.LONDON);
            yield Optional.of(new When.Timed(start, start.plusMinutes(random.nextInt(600))));
          }
        };
    return new Visit(no, when, random.nextBoolean() ? margins() : MarginSetting.UNSET);
  }

  private MarginSetting margins() {
    return new MarginSetting(margin(), margin());
  }

  private Optional<Duration> margin() {
    return random.nextInt(3) == 0
        ? Optional.empty()
        : Optional.of(Duration.ofMinutes(random.nextInt(60)));
  }

  /** Of a house that settles none, or some of them. */
  private MarginSettings settings() {
    if (random.nextInt(3) == 0) {
      return MarginSettings.NONE;
    }
    Map<Kind, MarginSetting> kinds = new EnumMap<>(Kind.class);
    Map<PlaceId, MarginSetting> ofPlaces = new HashMap<>();
    Map<PersonId, MarginSetting> ofPeople = new HashMap<>();
    for (int i = random.nextInt(4); i > 0; i--) {
      kinds.put(some(Kind.class).iterator().next(), margins());
      ofPlaces.put(PlaceId.of(1 + random.nextInt(places)), margins());
      ofPeople.put(anyPerson(), margins());
    }
    return new MarginSettings(margins(), kinds, ofPlaces, ofPeople);
  }

  private Assignment assignment(int visit) {
    Holder holder = random.nextInt(4) > 0 ? Holder.of(anyPerson()) : Holder.of(anyTeam());
    Instant given = Worlds.NOW.minusSeconds(random.nextInt(500_000));
    return new Assignment(visit, holder, RoleId.of(random.nextInt(4)), given);
  }

  private List<Ruling> rulings() {
    return random.nextInt(8) > 0
        ? List.of()
        : List.of(
            new Ruling(
                any(Ruling.Sort.values()), anyCalendar().value(), OptionalInt.empty(), "said so"));
  }

  private LocalDate day() {
    return Worlds.TODAY.plusDays(random.nextInt(-20, 20));
  }

  private LocalDateTime local() {
    return day().atTime(random.nextInt(24), random.nextInt(60));
  }

  public PersonId anyPerson() {
    return PersonId.of(1 + random.nextInt(people));
  }

  private TeamId anyTeam() {
    return TeamId.of(1 + random.nextInt(teams));
  }

  private PlaceId anyPlace() {
    return PlaceId.of(1 + random.nextInt(places));
  }

  private CalendarId anyCalendar() {
    return switch (random.nextInt(4)) {
      case 0 -> CalendarId.of(1 + random.nextInt(3));
      case 1 -> Worlds.ofTeam(1 + random.nextInt(teams));
      case 2 -> CalendarId.of(3001 + random.nextInt(places));
      default -> Worlds.own(1 + random.nextInt(people));
    };
  }

  private <T> T any(T[] values) {
    return values[random.nextInt(values.length)];
  }

  private <E extends Enum<E>> Set<E> some(Class<E> type) {
    Set<E> set = EnumSet.of(any(type.getEnumConstants()));
    set.add(any(type.getEnumConstants()));
    return set;
  }

  /** Keys of details whose values twin worlds may vary. */
  public static List<DetailKey> typedKeys() {
    return Worlds.allDetails().stream()
        .filter(DetailDefinition::typed)
        .map(DetailDefinition::key)
        .toList();
  }
}
