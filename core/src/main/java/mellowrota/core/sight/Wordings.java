package mellowrota.core.sight;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mellowrota.core.calendar.Calendar;
import mellowrota.core.entry.WordingId;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.Kind;

/** The wordings of a house and which of them words what. */
public final class Wordings {

  private final List<Wording> all;
  private final Map<WordingId, Wording> byId = new HashMap<>();
  private final Map<Kind, WordingId> usual;
  private final Wording fallback;
  private final Map<PersonId, Pattern> ownTitles;
  private final Optional<String> titlesFixed;

  private Wordings(
      Collection<Wording> all,
      Wording fallback,
      Map<Kind, WordingId> usual,
      Map<PersonId, Pattern> ownTitles,
      Optional<String> titlesFixed) {
    this.all = List.copyOf(all);
    all.forEach(wording -> byId.put(wording.id(), wording));
    this.fallback = fallback;
    this.usual = Map.copyOf(usual);
    this.ownTitles = Map.copyOf(ownTitles);
    this.titlesFixed = titlesFixed;
  }

  /**
   * Wordings of which one words whatever names no other.
   *
   * @param fallback for kinds without a usual one
   */
  public static Wordings of(Collection<Wording> all, Wording fallback) {
    return new Wordings(all, fallback, Map.of(), Map.of(), Optional.empty());
  }

  /** The same with the usual wording of each kind. */
  public Wordings usually(Map<Kind, WordingId> kinds) {
    return new Wordings(all, fallback, kinds, ownTitles, titlesFixed);
  }

  /**
   * The same with the titles that people chose for their own calendars.
   *
   * @param fixed why the house lets nobody do that; empty: it does
   */
  public Wordings ownTitles(Map<PersonId, Pattern> titles, Optional<String> fixed) {
    return new Wordings(all, fallback, usual, titles, fixed);
  }

  public List<Wording> all() {
    return all;
  }

  public Map<Kind, WordingId> usual() {
    return usual;
  }

  public Wording fallback() {
    return fallback;
  }

  /** What people chose for their own calendars, whether it holds or not. */
  public Map<PersonId, Pattern> ownTitles() {
    return ownTitles;
  }

  /** Why nobody's own title holds; empty: each does, where the wording lets it. */
  public Optional<String> titlesFixed() {
    return titlesFixed;
  }

  /** How an entry is worded: as its rule says, else as its kind is. */
  public Wording of(Optional<WordingId> said, Kind kind) {
    Wording found = said.map(byId::get).orElse(null);
    if (found == null && usual.containsKey(kind)) {
      found = byId.get(usual.get(kind));
    }
    return found == null ? fallback : found;
  }

  /** The same on a calendar: a person's own title on their own, unless that is fixed. */
  Wording on(Calendar.Owner owner, Optional<WordingId> said, Kind kind) {
    Wording wording = of(said, kind);
    if (ownTitles.isEmpty()
        || titlesFixed.isPresent()
        || wording.fixed().isPresent()
        || !(owner instanceof Calendar.Owner.Own own)) {
      return wording;
    }
    Pattern title = ownTitles.get(own.person());
    return title == null ? wording : wording.titled(title);
  }
}
