package mellowrota.core.cover;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import mellowrota.core.people.PersonId;

/**
 * Cover and clashes that follow a change of one person without being computed from nothing: the
 * spans of needs that the person came to or left, and that person's clashes. Not for several
 * threads.
 */
public final class Covered {

  private final Limits limits;
  private final Travel travel;
  private final Map<PersonId, Eligibility> people = new HashMap<>();
  private final Map<String, List<Cover.Asks>> asks = new HashMap<>();

  /** By what asks, for each span that it asks for. */
  private final TreeMap<String, List<List<Cover.Stretch>>> stretches = new TreeMap<>();

  private final Map<String, List<Cover.Sits>> sits = new HashMap<>();
  private final Map<PersonId, Map<String, List<Cover.Sits>>> sitsOf = new HashMap<>();
  private final Map<PersonId, List<Clash>> clashes = new HashMap<>();

  private Covered(Limits limits, Travel travel) {
    this.limits = Objects.requireNonNull(limits, "limits");
    this.travel = Objects.requireNonNull(travel, "travel");
  }

  /** From nothing; the cost is that of {@link Cover#of} and of everybody's {@link Clashes#of}. */
  public static Covered of(
      Collection<Need> needs,
      Collection<Filling> fillings,
      Collection<Commitments> crew,
      Limits limits,
      Travel travel) {
    Covered found = new Covered(limits, travel);
    Map<String, List<Need>> byNeed = new HashMap<>();
    needs.forEach(one -> byNeed.computeIfAbsent(one.by(), key -> new ArrayList<>()).add(one));
    byNeed.forEach((key, list) -> found.asks.put(key, Cover.asks(list)));
    Map<PersonId, List<Filling>> byPerson = new HashMap<>();
    fillings.forEach(
        one -> byPerson.computeIfAbsent(one.person(), key -> new ArrayList<>()).add(one));
    for (Commitments of : crew) {
      found.people.put(of.person(), of.able());
      found.clashes.put(of.person(), Clashes.of(of, limits, travel));
    }
    byPerson.forEach(found::sit);
    found.asks.forEach(
        (key, list) -> found.stretches.put(key, found.all(list, found.sits.get(key))));
    return found;
  }

  private void sit(PersonId person, List<Filling> fillings) {
    Map<String, List<Cover.Sits>> theirs = new HashMap<>();
    Cover.sits(fillings, asks, people.getOrDefault(person, Eligibility.PLAIN), theirs);
    sitsOf.put(person, theirs);
    theirs.forEach(
        (key, list) -> sits.computeIfAbsent(key, missing -> new ArrayList<>()).addAll(list));
  }

  private List<List<Cover.Stretch>> all(List<Cover.Asks> list, List<Cover.Sits> sits) {
    List<List<Cover.Sits>> here = new ArrayList<>();
    list.forEach(one -> here.add(new ArrayList<>()));
    for (Cover.Sits sit : sits == null ? List.<Cover.Sits>of() : sits) {
      for (int i = Cover.first(list, sit.from());
          i < list.size() && list.get(i).from().isBefore(sit.until());
          i++) {
        here.get(i).add(sit);
      }
    }
    List<List<Cover.Stretch>> found = new ArrayList<>();
    for (int i = 0; i < list.size(); i++) {
      List<Cover.Stretch> one = new ArrayList<>();
      Cover.stretches(List.of(list.get(i)), here.get(i), people, one);
      found.add(one);
    }
    return found;
  }

  private List<Cover.Stretch> stretches(String key, Cover.Asks one) {
    List<Cover.Sits> here = new ArrayList<>();
    for (Cover.Sits sit : sits.getOrDefault(key, List.of())) {
      if (sit.from().isBefore(one.until()) && sit.until().isAfter(one.from())) {
        here.add(sit);
      }
    }
    List<Cover.Stretch> found = new ArrayList<>();
    Cover.stretches(List.of(one), here, people, found);
    return found;
  }

  /** What one person does now, in place of what they did. */
  public void change(Commitments of, List<Filling> fillings) {
    PersonId person = of.person();
    boolean otherwise = !of.able().equals(people.put(person, of.able()));
    Map<String, List<Cover.Sits>> before = sitsOf.getOrDefault(person, Map.of());
    before.forEach((key, list) -> sits.get(key).removeIf(one -> one.person().equals(person)));
    sit(person, fillings);
    Map<String, List<Cover.Sits>> after = sitsOf.get(person);
    Set<String> touched = new HashSet<>(before.keySet());
    touched.addAll(after.keySet());
    for (String key : touched) {
      List<Cover.Sits> was = before.getOrDefault(key, List.of());
      List<Cover.Sits> is = after.getOrDefault(key, List.of());
      Set<Cover.Sits> changed = new HashSet<>(was);
      changed.addAll(is);
      if (!otherwise) {
        Set<Cover.Sits> both = new HashSet<>(was);
        both.retainAll(new HashSet<>(is));
        changed.removeAll(both);
      }
      again(key, changed);
    }
    clashes.put(person, Clashes.of(of, limits, travel));
  }

  private void again(String key, Set<Cover.Sits> changed) {
    if (changed.isEmpty()) {
      return;
    }
    Instant from = changed.stream().map(Cover.Sits::from).min(Instant::compareTo).orElseThrow();
    Instant until = changed.stream().map(Cover.Sits::until).max(Instant::compareTo).orElseThrow();
    List<Cover.Asks> all = asks.get(key);
    for (int i = 0; i < all.size(); i++) {
      Cover.Asks one = all.get(i);
      if (one.from().isBefore(until) && one.until().isAfter(from)) {
        stretches.get(key).set(i, stretches(key, one));
      }
    }
  }

  /** As it is now. */
  public Cover cover() {
    List<Cover.Stretch> all = new ArrayList<>();
    stretches.values().forEach(list -> list.forEach(all::addAll));
    return new Cover(all);
  }

  /** Of one person, as it is now. */
  public List<Clash> clashes(PersonId person) {
    return clashes.getOrDefault(person, List.of());
  }
}
