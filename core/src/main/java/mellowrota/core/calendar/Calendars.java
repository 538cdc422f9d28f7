package mellowrota.core.calendar;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import mellowrota.core.people.Crew;
import mellowrota.core.people.Person;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.TeamId;

/**
 * The calendars of a house with everybody who reads them, on the day of the {@link Crew} given.
 * Immutable once built; building costs O(calendars × members).
 */
public final class Calendars {

  private static final Audience NOBODY = Audience.ofNobody();

  private final House house;
  private final Crew crew;
  private final SortedMap<CalendarId, Calendar> byId = new TreeMap<>();
  private final Map<PersonId, Calendar> own = new HashMap<>();
  private final Map<TeamId, Calendar> ofTeam = new HashMap<>();
  private final Map<Long, Calendar> ofPlace = new HashMap<>();
  private Calendar master;
  private final Map<CalendarId, List<Rendering>> renderings = new HashMap<>();
  private final Map<RenderingId, Audience> audiences = new HashMap<>();

  private Calendars(
      House house, Crew crew, Collection<Calendar> calendars, Collection<Rendering> renderings) {
    this.house = house;
    this.crew = crew;
    calendars.forEach(this::index);
    for (Rendering rendering : renderings) {
      this.renderings
          .computeIfAbsent(rendering.calendar(), key -> new ArrayList<>())
          .add(rendering);
    }
    this.renderings.values().forEach(list -> list.sort((a, b) -> a.id().compareTo(b.id())));
    byId.values().forEach(this::buildAudiences);
  }

  public static Calendars of(
      House house, Crew crew, Collection<Calendar> calendars, Collection<Rendering> renderings) {
    return new Calendars(house, crew, calendars, renderings);
  }

  /** The rendering by this number. */
  public Optional<Rendering> rendering(RenderingId id) {
    return renderings.values().stream()
        .flatMap(List::stream)
        .filter(rendering -> rendering.id().equals(id))
        .findFirst();
  }

  private void index(Calendar calendar) {
    byId.put(calendar.id(), calendar);
    Calendar.Owner owner = calendar.owner();
    if (owner instanceof Calendar.Owner.Own o) {
      own.put(o.person(), calendar);
    } else if (owner instanceof Calendar.Owner.OfTeam o) {
      ofTeam.put(o.team(), calendar);
    } else if (owner instanceof Calendar.Owner.OfPlace o) {
      ofPlace.put(o.place(), calendar);
    } else if (owner instanceof Calendar.Owner.Master) {
      master = calendar;
    }
  }

  private void buildAudiences(Calendar calendar) {
    Map<PersonId, Level> widest = widest(calendar);
    for (Rendering rendering : renderingsOf(calendar.id())) {
      audiences.put(rendering.id(), audience(rendering, calendar, widest));
    }
  }

  /** Who would read a copy of a calendar outside, before there is one; nobody of one unknown. */
  public Audience audienceOfCopy(CalendarId calendar, Rendering.Way.Copy way) {
    return find(calendar).map(one -> copy(way, one, widest(one))).orElse(NOBODY);
  }

  /** The widest level of everybody who reads it here. */
  private Map<PersonId, Level> widest(Calendar calendar) {
    Map<PersonId, Level> widest = new HashMap<>();
    for (Person member : members(calendar)) {
      widest.put(member.id(), limited(member, Level.ALL));
    }
    for (Rendering rendering : renderingsOf(calendar.id())) {
      if (rendering.way() instanceof Rendering.Way.Share share) {
        crew.person(share.reader())
            .filter(reader -> !reader.hasLeft())
            .ifPresent(
                reader ->
                    widest.merge(
                        reader.id(), limited(reader, share.level()), (a, b) -> a.orWider(b)));
      }
    }
    return widest;
  }

  private Audience audience(Rendering rendering, Calendar calendar, Map<PersonId, Level> widest) {
    Rendering.Way way = rendering.way();
    if (way instanceof Rendering.Way.Feed feed) {
      return Audience.ofAnybody(feed.level().atMost(house.outsideLimit()));
    }
    if (way instanceof Rendering.Way.OwnFeed feed) {
      return ownFeed(feed);
    }
    if (way instanceof Rendering.Way.Copy copy) {
      return copy(copy, calendar, widest);
    }
    Audience audience = Audience.ofNobody();
    if (way instanceof Rendering.Way.Share share) {
      crew.person(share.reader())
          .filter(reader -> !reader.hasLeft())
          .ifPresent(reader -> audience.add(reader, widest.get(reader.id())));
    } else {
      members(calendar).forEach(member -> audience.add(member, widest.get(member.id())));
    }
    return audience;
  }

  /** Nothing is copied for a calendar that nobody is left to read. */
  private Audience copy(Rendering.Way.Copy copy, Calendar calendar, Map<PersonId, Level> widest) {
    List<Person> members = members(calendar);
    if (members.isEmpty()) {
      return Audience.ofNobody();
    }
    Audience audience =
        copy.others()
            ? Audience.ofAnybody(Level.ALL.atMost(house.outsideLimit()))
            : Audience.ofNobody();
    members.forEach(member -> audience.add(member, widest.get(member.id())));
    copy.alsoRead().stream()
        .flatMap(id -> crew.person(id).stream())
        .filter(person -> !person.hasLeft() && !audience.contains(person.id()))
        .forEach(person -> audience.add(person, limited(person, Level.ALL)));
    return audience;
  }

  private Audience ownFeed(Rendering.Way.OwnFeed feed) {
    Optional<Person> person = crew.person(feed.person()).filter(p -> !p.hasLeft());
    if (person.isEmpty()) {
      return Audience.ofNobody();
    }
    if (!house.trustsOwnFeeds()) {
      return Audience.ofAnybody(feed.level().atMost(house.outsideLimit()));
    }
    Audience audience = Audience.ofNobody();
    audience.add(person.get(), limited(person.get(), feed.level()));
    return audience;
  }

  /** The outside limit holds for all who are neither crew nor office, on every way in. */
  private Level limited(Person person, Level level) {
    boolean inside =
        person.standing() == Person.Standing.HOUSE
            || person.isCoordinator()
            || person.isTeamCoordinator();
    return inside ? level : level.atMost(house.outsideLimit());
  }

  /** Its owner or members; nobody who has left. */
  public List<Person> members(Calendar calendar) {
    Calendar.Owner owner = calendar.owner();
    List<Person> found = new ArrayList<>();
    if (owner instanceof Calendar.Owner.Own o) {
      crew.person(o.person()).ifPresent(found::add);
    } else if (owner instanceof Calendar.Owner.OfTeam o) {
      crew.members(o.team()).keySet().forEach(id -> crew.person(id).ifPresent(found::add));
    } else if (owner instanceof Calendar.Owner.Master) {
      crew.people().stream()
          .filter(person -> person.isCoordinator() || person.isTeamCoordinator())
          .forEach(found::add);
    } else if (owner instanceof Calendar.Owner.Named) {
      crew.people().stream().filter(Person::isCoordinator).forEach(found::add);
    } else {
      crew.people().stream().filter(p -> p.everywhere().isCrew()).forEach(found::add);
    }
    found.removeIf(Person::hasLeft);
    return found;
  }

  public House house() {
    return house;
  }

  public Collection<Calendar> all() {
    return byId.values();
  }

  public Optional<Calendar> find(CalendarId id) {
    return Optional.ofNullable(byId.get(id));
  }

  public Optional<Calendar> own(PersonId person) {
    return Optional.ofNullable(own.get(person));
  }

  public Optional<Calendar> ofTeam(TeamId team) {
    return Optional.ofNullable(ofTeam.get(team));
  }

  public Optional<Calendar> ofPlace(long place) {
    return Optional.ofNullable(ofPlace.get(place));
  }

  public Optional<Calendar> master() {
    return Optional.ofNullable(master);
  }

  /**
   * Whether all who read it so may open whatever it holds in full (SIGHT 3): we serve them its
   * calendar in full, however else they read it. Who reads a copy elsewhere alone may not.
   */
  public boolean opens(Rendering rendering) {
    Audience audience = audience(rendering.id());
    return audience.isOfPeople()
        && audience.people().stream()
            .allMatch(
                person ->
                    servedTo(person, rendering.calendar())
                        .flatMap(served -> audience(served.id()).levelOf(person))
                        .filter(level -> level == Level.ALL)
                        .isPresent());
  }

  /** The same of one by its number; false where there is none such. */
  public boolean opens(RenderingId id) {
    return rendering(id).filter(this::opens).isPresent();
  }

  /** What is known of somebody who reads here. */
  public Optional<Person> reader(PersonId id) {
    return crew.person(id);
  }

  public List<Rendering> renderingsOf(CalendarId calendar) {
    return renderings.getOrDefault(calendar, List.of());
  }

  public Audience audience(RenderingId rendering) {
    return audiences.getOrDefault(rendering, NOBODY);
  }

  /** The rendering in which this person is served: as member, else by the widest share, by id. */
  public Optional<Rendering> servedTo(PersonId person, CalendarId calendar) {
    Rendering best = null;
    for (Rendering rendering : renderingsOf(calendar)) {
      boolean elsewhere =
          rendering.way() instanceof Rendering.Way.Feed
              || rendering.way() instanceof Rendering.Way.OwnFeed
              || rendering.way() instanceof Rendering.Way.Copy;
      if (elsewhere || !audience(rendering.id()).contains(person)) {
        continue;
      }
      if (rendering.way() instanceof Rendering.Way.Members) {
        return Optional.of(rendering);
      }
      if (best == null || shareLevel(rendering).compareTo(shareLevel(best)) > 0) {
        best = rendering;
      }
    }
    return Optional.ofNullable(best);
  }

  private static Level shareLevel(Rendering rendering) {
    return rendering.way() instanceof Rendering.Way.Share share ? share.level() : Level.ALL;
  }
}
