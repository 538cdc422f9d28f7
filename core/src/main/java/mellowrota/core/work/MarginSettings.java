package mellowrota.core.work;

import java.util.HashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import mellowrota.core.people.PersonId;

/**
 * What is settled of margins besides the visits' own, each side by itself: what a visit says goes
 * before its place, that before its kind, that before the person, that before the house (PRODUCT,
 * <i>Margins</i>; LANDING 11).
 */
public record MarginSettings(
    MarginSetting house,
    Map<Kind, MarginSetting> kinds,
    Map<PlaceId, MarginSetting> places,
    Map<PersonId, MarginSetting> people) {

  public static final MarginSettings NONE =
      new MarginSettings(MarginSetting.UNSET, Map.of(), Map.of(), Map.of());

  public MarginSettings {
    Objects.requireNonNull(house, "house");
    kinds = Map.copyOf(kinds);
    places = Map.copyOf(places);
    people = Map.copyOf(people);
  }

  /** The details of a record that its margins come from where it says nothing of them. */
  public Set<DetailKey> restOn() {
    Set<DetailKey> found = new HashSet<>();
    if (!places.isEmpty()) {
      found.add(DetailKey.PLACE);
    }
    if (!people.isEmpty()) {
      found.add(DetailKey.PEOPLE);
    }
    return found;
  }

  /** Of a visit, before who does it is asked. */
  public MarginSetting of(WorkRecord record, Visit visit) {
    return of(visit.margins(), record.place(), Optional.of(record.kind()));
  }

  /** Of work at a place; empty: of no kind yet. */
  public MarginSetting of(MarginSetting own, Optional<PlaceId> place, Optional<Kind> kind) {
    return own.orElse(place.map(places::get).orElse(MarginSetting.UNSET))
        .orElse(kind.map(kinds::get).orElse(MarginSetting.UNSET));
  }

  /** Of somebody, for what says nothing itself. */
  public MarginSetting of(PersonId person) {
    return people.getOrDefault(person, MarginSetting.UNSET).orElse(house);
  }

  /**
   * Of a visit as it stands somewhere.
   *
   * @param person whose calendar that is; empty: the Lead's count, where a person leads
   */
  public Margins of(WorkRecord record, Visit visit, Optional<PersonId> person) {
    MarginSetting theirs = person.or(() -> record.lead(visit.no())).map(this::of).orElse(house);
    return of(record, visit).orElse(theirs).margins();
  }
}
