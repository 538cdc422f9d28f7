package mellowrota.server.crew.store;

import jakarta.persistence.EntityManager;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.Kind;
import mellowrota.core.work.MarginSetting;
import mellowrota.core.work.MarginSettings;
import mellowrota.core.work.PlaceId;
import org.springframework.stereotype.Repository;

/** What is settled of margins, as it is kept. */
@Repository
@RequiredArgsConstructor
public class MarginStore {

  private final EntityManager kept;

  /** Of what margins are settled: at most one is there; the house where none is. */
  private record Key(Kind kind, Long place, Long person) {
    static final Key HOUSE = new Key(null, null, null);

    static Key of(MarginEntity one) {
      return new Key(one.kind, one.place, one.person);
    }
  }

  private List<MarginEntity> entities() {
    return kept.createQuery("from MarginEntity order by id", MarginEntity.class).getResultList();
  }

  public MarginSettings settings() {
    Map<Kind, MarginSetting> kinds = new EnumMap<>(Kind.class);
    Map<PlaceId, MarginSetting> places = new HashMap<>();
    Map<PersonId, MarginSetting> people = new HashMap<>();
    MarginSetting house = MarginSetting.UNSET;
    for (MarginEntity one : entities()) {
      if (one.kind != null) {
        kinds.put(one.kind, one.setting());
      } else if (one.place != null) {
        places.put(PlaceId.of(one.place), one.setting());
      } else if (one.person != null) {
        people.put(PersonId.of(one.person), one.setting());
      } else {
        house = one.setting();
      }
    }
    return new MarginSettings(house, kinds, places, people);
  }

  /** In place of all that was settled. */
  public void set(MarginSettings settings) {
    Map<Key, MarginSetting> wanted = new HashMap<>();
    wanted.put(Key.HOUSE, settings.house());
    add(wanted, settings.kinds(), kind -> new Key(kind, null, null));
    add(wanted, settings.places(), place -> new Key(null, place.value(), null));
    add(wanted, settings.people(), person -> new Key(null, null, person.value()));
    wanted.values().removeIf(MarginSetting::isUnset);
    for (MarginEntity one : entities()) {
      Optional<MarginSetting> now = Optional.ofNullable(wanted.remove(Key.of(one)));
      now.ifPresentOrElse(one::become, () -> kept.remove(one));
    }
    wanted.forEach(
        (key, setting) -> kept.persist(new MarginEntity(key.kind, key.place, key.person, setting)));
  }

  private static <T> void add(
      Map<Key, MarginSetting> wanted, Map<T, MarginSetting> some, Function<T, Key> key) {
    some.forEach((one, setting) -> wanted.put(key.apply(one), setting));
  }
}
