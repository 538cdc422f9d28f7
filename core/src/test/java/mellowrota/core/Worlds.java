package mellowrota.core;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.calendar.House;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.Entry;
import mellowrota.core.entry.WordingId;
import mellowrota.core.people.Crew;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.Holder;
import mellowrota.core.people.Membership;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.RoleId;
import mellowrota.core.people.Team;
import mellowrota.core.people.TeamId;
import mellowrota.core.project.Difference;
import mellowrota.core.project.Projector;
import mellowrota.core.rule.Condition;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Places;
import mellowrota.core.rule.Router;
import mellowrota.core.rule.Shape;
import mellowrota.core.rule.Target;
import mellowrota.core.sight.Pattern;
import mellowrota.core.sight.Sight;
import mellowrota.core.sight.Wording;
import mellowrota.core.sight.Wordings;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.time.WorkingWeek;
import mellowrota.core.work.Assignment;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.Details;
import mellowrota.core.work.Due;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.Place;
import mellowrota.core.work.PlaceId;
import mellowrota.core.work.Position;
import mellowrota.core.work.RecordId;
import mellowrota.core.work.State;
import mellowrota.core.work.WorkDays;
import mellowrota.core.work.WorkRecord;

/** Builds small worlds in the words of the domain, for tests and benchmarks. */
public final class Worlds {

  public static final ZoneId LONDON = ZoneId.of("Europe/London");
  public static final WorkingWeek WEEK =
      new WorkingWeek(EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY));
  public static final WorkDays WEEKDAYS =
      new WorkDays(Map.of(), new WorkingDays(WEEK, Map.of(), List.of()));
  public static final LocalDate TODAY = LocalDate.of(2026, 11, 25);
  public static final Instant NOW = Instant.parse("2026-11-25T09:00:00Z");
  public static final Set<RoleId> WORKING = Set.of(RoleId.LEAD, RoleId.SUPPORT, RoleId.SUPERVISOR);

  /** A detail of a house's own. */
  public static final DetailKey BERTH = new DetailKey("berth");

  public static final Set<DetailKey> KNOWN =
      Set.copyOf(allDetails().stream().map(DetailDefinition::key).toList());

  private Worlds() {}

  /** A world with everything derived from it. */
  public record World(
      House house,
      Crew crew,
      Calendars calendars,
      Places places,
      MarginSettings margins,
      Details details,
      Router router,
      Sight sight,
      Projector projector) {

    public Calendar calendar(String name) {
      return calendars.all().stream()
          .filter(calendar -> calendar.name().equals(name))
          .findFirst()
          .orElseThrow(() -> new AssertionError("no calendar " + name));
    }
  }

  /** The details every house begins with, and one of a house's own. */
  public static List<DetailDefinition> allDetails() {
    List<DetailDefinition> all = new ArrayList<>(Details.usual());
    all.add(new DetailDefinition(BERTH, "Berth", Set.of(Kind.values()), ForSet.EVERYONE, true));
    return all;
  }

  public static Builder world() {
    return new Builder();
  }

  /** Collects a world. Own, team and place calendars come by themselves. */
  public static final class Builder {
    private House house = new House("seed", "House", LONDON, Level.ALL, false, WEEK);
    private WorkDays workDays = WEEKDAYS;
    private LocalDate today = TODAY;
    private final List<Person> people = new ArrayList<>();
    private final List<Team> teams = new ArrayList<>();
    private final List<Membership> memberships = new ArrayList<>();
    private final List<Place> places = new ArrayList<>();
    private final List<Rendering> extra = new ArrayList<>();
    private List<DetailDefinition> details = Details.usual();
    private List<LandingRule> rules = houseRules();
    private List<Wording> wordings = houseWordings();
    private Map<Kind, WordingId> usual = Map.of();
    private Map<PersonId, Pattern> ownTitles = Map.of();
    private boolean titlesFixed;
    private MarginSettings margins = MarginSettings.NONE;
    private World shared;
    private Sight.Permission permission = ForSet::allows;

    public Builder workDays(WorkDays value) {
      workDays = value;
      return this;
    }

    public Builder house(House value) {
      house = value;
      return this;
    }

    public Builder on(LocalDate day) {
      today = day;
      return this;
    }

    public Builder person(Person person) {
      people.add(person);
      return this;
    }

    public Builder worker(long id, String name) {
      return person(Person.worker(PersonId.of(id), name));
    }

    public Builder coordinator(long id, String name) {
      return person(
          new Person(
              PersonId.of(id),
              name,
              Person.Standing.HOUSE,
              Person.AccountRight.COORDINATOR,
              Set.of()));
    }

    public Builder team(long id, String name, long... members) {
      teams.add(new Team(TeamId.of(id), name));
      for (long member : members) {
        joins(id, Holder.of(PersonId.of(member)), LocalDate.of(2026, 1, 1));
      }
      return this;
    }

    public Builder joins(long team, Holder member, LocalDate from) {
      memberships.add(new Membership(TeamId.of(team), member, from, Optional.empty()));
      return this;
    }

    public Builder membership(Membership membership) {
      memberships.add(membership);
      return this;
    }

    public Builder place(long id, String code, String name) {
      places.add(
          new Place(
              PlaceId.of(id),
              code,
              name,
              Optional.empty(),
              Optional.of(name + " Lane"),
              Optional.of(new Position(id % 90, id % 180))));
      return this;
    }

    public Builder rendering(Rendering rendering) {
      extra.add(rendering);
      return this;
    }

    public Builder details(List<DetailDefinition> value) {
      details = value;
      return this;
    }

    public Builder rules(List<LandingRule> value) {
      rules = value;
      return this;
    }

    public Builder wordings(List<Wording> value) {
      wordings = value;
      return this;
    }

    /** The usual wording of some kinds. */
    public Builder usually(Map<Kind, WordingId> value) {
      usual = value;
      return this;
    }

    /** What people call things on their own calendars, and whether the house forbids it. */
    public Builder ownTitles(Map<PersonId, Pattern> titles, boolean fixed) {
      ownTitles = titles;
      titlesFixed = fixed;
      return this;
    }

    /** On the very people, calendars and places of another world. */
    public Builder sharing(World other) {
      shared = other;
      return this;
    }

    public Builder margins(MarginSettings value) {
      margins = value;
      return this;
    }

    public Builder permission(Sight.Permission value) {
      permission = value;
      return this;
    }

    public World build() {
      Crew crew = shared == null ? Crew.on(today, people, teams, memberships) : shared.crew();
      List<Calendar> list = calendarsOf(people, teams, places);
      List<Rendering> renderings = new ArrayList<>(extra);
      for (Calendar calendar : list) {
        renderings.add(
            new Rendering(
                RenderingId.of(calendar.id().value()), calendar.id(), new Rendering.Way.Members()));
      }
      Calendars calendars =
          shared == null ? Calendars.of(house, crew, list, renderings) : shared.calendars();
      Places allPlaces =
          shared == null ? Places.of(places, house.zone(), workDays) : shared.places();
      Details allDetails = Details.of(details).with(margins);
      Router router = new Router(crew, calendars, allPlaces, margins, rules);
      Sight sight =
          new Sight(
              crew,
              calendars,
              allPlaces,
              allDetails,
              Wordings.of(wordings, wordings.get(0))
                  .usually(usual)
                  .ownTitles(ownTitles, titlesFixed ? Optional.of("one style") : Optional.empty()),
              permission);
      return new World(
          house,
          crew,
          calendars,
          allPlaces,
          margins,
          allDetails,
          router,
          sight,
          new Projector(crew, calendars, router, sight));
    }
  }

  /** What a store holds after a projection into it, its first. */
  public static List<Difference.StoredEntry> stored(List<Projector.Projected> projected) {
    List<Difference.StoredEntry> all = new ArrayList<>();
    for (Projector.Projected one : projected) {
      Map<RenderingId, Difference.StoredFace> faces = new HashMap<>();
      one.faces()
          .forEach(
              seen ->
                  faces.put(
                      seen.rendering(),
                      new Difference.StoredFace(true, seen.face().canonical(), 0)));
      all.add(new Difference.StoredEntry(one.entry().key(), Difference.State.LIVE, 0, faces));
    }
    return all;
  }

  /** Master is 1, the date list of due times 2; own 1000+, team 2000+, place 3000+. */
  public static List<Calendar> calendarsOf(
      List<Person> people, List<Team> teams, List<Place> places) {
    List<Calendar> list = new ArrayList<>();
    list.add(new Calendar(CalendarId.of(1), new Calendar.Owner.Master(), "Master"));
    list.add(new Calendar(CalendarId.of(2), new Calendar.Owner.DateList(), "Due times"));
    list.add(new Calendar(CalendarId.of(3), new Calendar.Owner.Named(), "Closures"));
    people.forEach(
        p ->
            list.add(
                new Calendar(
                    own(p.id().value()), new Calendar.Owner.Own(p.id()), p.name() + ", own")));
    teams.forEach(
        t ->
            list.add(
                new Calendar(ofTeam(t.id().value()), new Calendar.Owner.OfTeam(t.id()), t.name())));
    places.forEach(
        p ->
            list.add(
                new Calendar(
                    CalendarId.of(3000 + p.id().value()),
                    new Calendar.Owner.OfPlace(p.id().value()),
                    p.name() + ", place")));
    return list;
  }

  public static CalendarId own(long person) {
    return CalendarId.of(1000 + person);
  }

  public static CalendarId ofTeam(long team) {
    return CalendarId.of(2000 + team);
  }

  public static List<Wording> houseWordings() {
    return List.of(
        wording(1, "{title}", "{place}", ""),
        wording(
            2,
            "{ref} {title}[ · {place}]",
            "{place}",
            "[Gate code {gate code}]\n{contact}\n{phone}"),
        wording(3, "{title}[ · {lead}]", "{place}", ""),
        wording(4, "{ref} {title}", "", ""),
        wording(5, "{ref}[ · {lead}]", "{place}", ""));
  }

  public static Wording wording(long id, String title, String place, String text) {
    return new Wording(
        WordingId.of(id),
        "w" + id,
        Pattern.of(title, KNOWN),
        Pattern.of(place, KNOWN),
        Pattern.of(text, KNOWN),
        Set.of(Wording.Category.KIND, Wording.Category.TEAM, Wording.Category.TAGS));
  }

  /** The same where nobody may put a title of their own in its place. */
  public static Wording fixed(Wording wording) {
    return new Wording(
        wording.id(),
        wording.name(),
        wording.title(),
        wording.place(),
        wording.text(),
        wording.categories(),
        Optional.of("the marina reads it"));
  }

  /** The four rules a house begins with. */
  public static List<LandingRule> houseRules() {
    return List.of(
        rule(1, new Target.OwnOf(WORKING), Shape.GIVEN_DUE, 2, true),
        rule(2, new Target.TeamsOf(WORKING), Shape.GIVEN_DUE, 3, false),
        rule(3, new Target.One(CalendarId.of(2)), Shape.DUE_MARK, 4, false),
        rule(4, new Target.Master(), Shape.GIVEN_DUE, 5, true));
  }

  public static LandingRule rule(
      long id, Target target, Shape shape, long wording, boolean staysWhenDone) {
    Condition when =
        new Condition.All(
            List.of(
                new Condition.KindIs(Set.of(Kind.TICKET)),
                new Condition.StateIs(Set.of(State.TENTATIVE, State.CONFIRMED))));
    return rule(id, when, target, shape, wording, staysWhenDone);
  }

  public static LandingRule rule(
      long id, Condition when, Target target, Shape shape, long wording, boolean staysWhenDone) {
    return new LandingRule(
        id,
        (int) id,
        true,
        when,
        List.of(target),
        shape,
        wording == 0 ? Optional.empty() : Optional.of(WordingId.of(wording)),
        Optional.empty(),
        Entry.With.NOTHING,
        staysWhenDone ? LandingRule.WhenDone.STAYS_WITH_TICK : LandingRule.WhenDone.COMES_OFF,
        false,
        "");
  }

  /** A confirmed ticket T-318, made now by person 1. */
  public static WorkRecord.Builder ticket() {
    return WorkRecord.blank(RecordId.of(7), "T-318", Kind.TICKET, PersonId.of(1), NOW);
  }

  public static Optional<Due> dueAt(String local) {
    return Optional.of(new Due.At(LocalTimes.resolve(LocalDateTime.parse(local), LONDON)));
  }

  public static Assignment lead(long person, Instant given) {
    return new Assignment(1, Holder.of(PersonId.of(person)), RoleId.LEAD, given);
  }

  public static Assignment as(RoleId role, long person) {
    return new Assignment(1, Holder.of(PersonId.of(person)), role, NOW);
  }
}
