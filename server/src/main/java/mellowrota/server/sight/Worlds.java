package mellowrota.server.sight;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.calendar.House;
import mellowrota.core.calendar.Level;
import mellowrota.core.calendar.Rendering;
import mellowrota.core.calendar.RenderingId;
import mellowrota.core.entry.WordingId;
import mellowrota.core.people.Crew;
import mellowrota.core.people.ForSet;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Role;
import mellowrota.core.people.TeamId;
import mellowrota.core.project.Projector;
import mellowrota.core.rule.LandingRule;
import mellowrota.core.rule.Places;
import mellowrota.core.rule.Router;
import mellowrota.core.sight.Pattern;
import mellowrota.core.sight.Sight;
import mellowrota.core.sight.Wording;
import mellowrota.core.sight.Wordings;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.DetailSort;
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.core.work.Place;
import mellowrota.core.work.State;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.crew.store.Persons;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/**
 * Loads the world. A loaded world is kept until its version or the day changes; every act holds the
 * house's row, so a version means one world.
 */
@Service
public class Worlds {

  private final HouseStore store;
  private final Persons persons;
  private final JdbcClient jdbc;
  private final RuleSentences sentences;
  private final Sight.Permission permission;
  private final JsonMapper json;
  private volatile World kept;

  Worlds(
      HouseStore store,
      Persons persons,
      JdbcClient jdbc,
      RuleSentences sentences,
      Sight.Permission permission,
      JsonMapper json) {
    this.json = json;
    this.store = store;
    this.persons = persons;
    this.jdbc = jdbc;
    this.sentences = sentences;
    this.permission = permission;
  }

  /** The world as this transaction sees it, today. */
  public World now() {
    HouseStore.Present present = store.present();
    World known = kept;
    if (known != null
        && known.version() == present.worldVersion()
        && known.day().equals(present.today())) {
      return known;
    }
    World loaded = load(present.worldVersion(), present.today());
    kept = loaded;
    return loaded;
  }

  /** The world today in an act, which holds the house's row and so knows the version. */
  public World locked(long version) {
    World known = kept;
    return known != null
            && known.version() == version
            && known.day().equals(store.todayIn(known.house().zone()))
        ? known
        : now();
  }

  /** The world with the changes of this transaction, which may yet fail; it is not kept. */
  public World afterChange() {
    return load(store.raiseWorldVersion(), store.today());
  }

  /** The world of another day, for what changes at midnight. */
  public World on(LocalDate day) {
    return load(store.present().worldVersion(), day);
  }

  private World load(long version, LocalDate day) {
    House house = store.house();
    Crew crew = Crew.on(day, store.people(), store.teams(), store.memberships());
    List<Place> placeList = store.places();
    Calendars calendars = Calendars.of(house, crew, calendars(), renderings(day));
    Details details = Details.of(definitions());
    return assembled(
        version,
        day,
        house,
        crew,
        Places.of(placeList, house.zone()),
        placeList,
        calendars,
        details,
        store.roles(),
        wordings(keys(details.all())),
        rules(details));
  }

  /** A world with another set, to see what it would do; it is kept nowhere. */
  public World with(World world, Details details, Wordings wordings, List<LandingRule> rules) {
    return assembled(
        world.version(),
        world.day(),
        world.house(),
        world.crew(),
        world.places(),
        world.placeList(),
        world.calendars(),
        details,
        world.roles(),
        wordings,
        rules);
  }

  private World assembled(
      long version,
      LocalDate day,
      House house,
      Crew crew,
      Places places,
      List<Place> placeList,
      Calendars calendars,
      Details details,
      List<Role> roles,
      Wordings wordings,
      List<LandingRule> rules) {
    Router router = new Router(crew, calendars, places, rules);
    Sight sight = new Sight(crew, calendars, places, details, wordings, permission);
    return new World(
        version,
        day,
        house,
        crew,
        places,
        placeList,
        calendars,
        details,
        roles,
        wordings,
        rules,
        router,
        sight,
        new Projector(crew, calendars, router, sight));
  }

  private List<Calendar> calendars() {
    return jdbc.sql("select id, sort, person, team, place, name from calendar order by id")
        .query(
            (row, n) ->
                new Calendar(
                    CalendarId.of(row.getLong(1)),
                    owner(row.getString(2), row.getLong(3), row.getLong(4), row.getLong(5)),
                    row.getString(6)))
        .list();
  }

  private static Calendar.Owner owner(String sort, long person, long team, long place) {
    return switch (sort) {
      case "OWN" -> new Calendar.Owner.Own(PersonId.of(person));
      case "TEAM" -> new Calendar.Owner.OfTeam(TeamId.of(team));
      case "MASTER" -> new Calendar.Owner.Master();
      case "DATE_LIST" -> new Calendar.Owner.DateList();
      case "PLACE" -> new Calendar.Owner.OfPlace(place);
      case "NAMED" -> new Calendar.Owner.Named();
      default -> throw new IllegalStateException("no sort of calendar: " + sort);
    };
  }

  /** Those there are on a day; a share or feed that is over renders nothing. */
  private List<Rendering> renderings(LocalDate day) {
    return jdbc.sql(
            """
            select r.id, r.calendar, r.way, r.reader, r.level, l.also_read from rendering r
            left join share s on s.rendering = r.id left join feed f on f.rendering = r.id
            left join link_calendar l on l.rendering = r.id
            where r.way <> 'WITHDRAWN' and (s.until_day is null or s.until_day > :day)
              and (f.until_day is null or f.until_day > :day)
            order by r.id
            """)
        .param("day", day)
        .query(
            (row, n) ->
                new Rendering(
                    RenderingId.of(row.getLong(1)),
                    CalendarId.of(row.getLong(2)),
                    row.getString(3).equals("COPY")
                        ? copy(row.getString(6))
                        : way(row.getString(3), row.getLong(4), Level.valueOf(row.getString(5)))))
        .list();
  }

  private static Rendering.Way way(String way, long reader, Level level) {
    return switch (way) {
      case "MEMBERS" -> new Rendering.Way.Members();
      case "FEED" -> new Rendering.Way.Feed(level);
      case "OWN_FEED" -> new Rendering.Way.OwnFeed(PersonId.of(reader), level);
      case "SHARE" -> new Rendering.Way.Share(PersonId.of(reader), level);
      default -> throw new IllegalStateException("no way of reading: " + way);
    };
  }

  /** Whoever else reads it there: nobody, people by number, or it was not said, or others do. */
  public static Rendering.Way.Copy copy(String alsoRead) {
    return switch (alsoRead) {
      case "UNSAID", "OTHERS" -> new Rendering.Way.Copy(Set.of(), true);
      case "NOBODY" -> new Rendering.Way.Copy(Set.of(), false);
      default ->
          new Rendering.Way.Copy(
              Arrays.stream(alsoRead.split(","))
                  .map(id -> PersonId.of(Long.parseLong(id)))
                  .collect(Collectors.toSet()),
              false);
    };
  }

  private List<DetailDefinition> definitions() {
    return jdbc.sql(
            """
            select key, label, kinds, for_bits, typed, sort, choices::text, states
            from detail_definition order by position
            """)
        .query(
            (row, n) ->
                new DetailDefinition(
                    new DetailKey(row.getString(1)),
                    row.getString(2),
                    named(Kind.class, row.getString(3)),
                    new ForSet(row.getLong(4)),
                    row.getBoolean(5),
                    DetailSort.valueOf(row.getString(6)),
                    List.of(json.readValue(row.getString(7), String[].class)),
                    named(State.class, row.getString(8))))
        .list();
  }

  private static <E extends Enum<E>> Set<E> named(Class<E> type, String list) {
    return Arrays.stream(list.split(","))
        .filter(name -> !name.isBlank())
        .map(name -> Enum.valueOf(type, name))
        .collect(Collectors.toSet());
  }

  /** The details that wordings may ask for. */
  public static Set<DetailKey> keys(Collection<DetailDefinition> definitions) {
    return definitions.stream().map(DetailDefinition::key).collect(Collectors.toSet());
  }

  private Wordings wordings(Set<DetailKey> known) {
    List<Wording> all =
        jdbc.sql(
                """
                select id, name, title, place, text, categories, fixed from wording order by id
                """)
            .query(
                (row, n) ->
                    new Wording(
                        WordingId.of(row.getLong(1)),
                        row.getString(2),
                        Pattern.of(row.getString(3), known),
                        Pattern.of(row.getString(4), known),
                        Pattern.of(row.getString(5), known),
                        named(Wording.Category.class, row.getString(6)),
                        Optional.ofNullable(row.getString(7))))
            .list();
    Map<Kind, WordingId> usual = new EnumMap<>(Kind.class);
    jdbc.sql("select kind, wording from usual_wording")
        .query(
            row -> {
              usual.put(Kind.valueOf(row.getString(1)), WordingId.of(row.getLong(2)));
            });
    return Wordings.of(all, fallback(all))
        .usually(usual)
        .ownTitles(ownTitles(known), titlesFixed());
  }

  /** A title that asks for a detail that is there no longer counts as none. */
  private Map<PersonId, Pattern> ownTitles(Set<DetailKey> known) {
    Map<PersonId, Pattern> titles = new HashMap<>();
    persons
        .ownTitles()
        .forEach(
            (person, text) ->
                Pattern.parse(text, known).pattern().ifPresent(t -> titles.put(person, t)));
    return titles;
  }

  private Optional<String> titlesFixed() {
    return store.titlesFixed();
  }

  private Wording fallback(List<Wording> wordings) {
    Optional<Long> id = store.fallbackWording();
    return wordings.stream()
        .filter(wording -> id.isPresent() && wording.id().value() == id.get())
        .findFirst()
        .orElseThrow(() -> new IllegalStateException("the house has no wording to fall back on"));
  }

  private List<LandingRule> rules(Details details) {
    return jdbc.sql("select id, position, is_on, sentence::text from rule order by position, id")
        .query(
            (row, n) ->
                sentences.rule(
                    row.getLong(1), row.getInt(2), row.getBoolean(3), row.getString(4), details))
        .list();
  }
}
