package mellowrota.server.sight;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.calendar.Calendars;
import mellowrota.core.calendar.House;
import mellowrota.core.entry.WordingId;
import mellowrota.core.people.Crew;
import mellowrota.core.people.PersonId;
import mellowrota.core.people.Role;
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
import mellowrota.core.work.Details;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.Place;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.crew.store.MarginStore;
import mellowrota.server.crew.store.Persons;
import mellowrota.server.sight.store.CalendarStore;
import mellowrota.server.sight.store.SetStore;
import org.springframework.stereotype.Service;

/**
 * Loads the world. A loaded world is kept until its version or the day changes; every act holds the
 * house's row, so a version means one world.
 */
@Service
@RequiredArgsConstructor
public class Worlds {

  private final HouseStore store;
  private final Persons persons;
  private final MarginStore margins;
  private final CalendarStore calendars;
  private final SetStore sets;
  private final WorkedDays days;
  private final RuleSentences sentences;
  private final Sight.Permission permission;
  private volatile World kept;

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
    Calendars known = Calendars.of(house, crew, calendars.all(), calendars.renderings(day));
    Details details = Details.of(sets.details());
    return assembled(
        version,
        day,
        house,
        crew,
        Places.of(placeList, house.zone(), days.now(house.week())),
        placeList,
        margins.settings(),
        known,
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
        world.margins(),
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
      MarginSettings margins,
      Calendars calendars,
      Details details,
      List<Role> roles,
      Wordings wordings,
      List<LandingRule> rules) {
    Details told = details.with(margins);
    Router router = new Router(crew, calendars, places, margins, rules);
    Sight sight = new Sight(crew, calendars, places, told, wordings, permission);
    return new World(
        version,
        day,
        house,
        crew,
        places,
        placeList,
        margins,
        calendars,
        told,
        roles,
        wordings,
        rules,
        router,
        sight,
        new Projector(crew, calendars, router, sight));
  }

  /** The details that wordings may ask for. */
  public static Set<DetailKey> keys(Collection<DetailDefinition> definitions) {
    return definitions.stream().map(DetailDefinition::key).collect(Collectors.toSet());
  }

  private Wordings wordings(Set<DetailKey> known) {
    List<Wording> all = sets.wordings().stream().map(one -> wording(one, known)).toList();
    Map<Kind, WordingId> usual = new EnumMap<>(Kind.class);
    sets.usual().forEach((kind, wording) -> usual.put(kind, WordingId.of(wording)));
    return Wordings.of(all, fallback(all))
        .usually(usual)
        .ownTitles(ownTitles(known), store.titlesFixed());
  }

  /** A wording whose patterns may ask for these details. */
  public static Wording wording(SetStore.OneWording one, Set<DetailKey> known) {
    return new Wording(
        WordingId.of(one.id()),
        one.name(),
        Pattern.of(one.title(), known),
        Pattern.of(one.place(), known),
        Pattern.of(one.text(), known),
        one.categories().stream().map(Wording.Category::valueOf).collect(Collectors.toSet()),
        one.fixed());
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

  private Wording fallback(List<Wording> wordings) {
    Optional<Long> id = store.fallbackWording();
    return wordings.stream()
        .filter(wording -> id.isPresent() && wording.id().value() == id.get())
        .findFirst()
        .orElseThrow(() -> new IllegalStateException("the house has no wording to fall back on"));
  }

  private List<LandingRule> rules(Details details) {
    List<LandingRule> rules = new ArrayList<>();
    for (SetStore.OneRule one : sets.rules()) {
      int position = rules.size() + 1;
      rules.add(sentences.rule(one.id(), position, one.on(), one.sentence(), details));
    }
    return rules;
  }
}
